using System.Collections.Concurrent;
using Fendrik.Core.Auctions;
using Fendrik.Core.Matching;
using Fendrik.Core.Serving;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation;

/// <summary>What else shows beside an ad.</summary>
/// <param name="Sitelinks">Sitelinks in reach.</param>
/// <param name="Callouts">Callouts in reach.</param>
public readonly record struct Extensions(int Sitelinks, int Callouts);

/// <summary>What people see in an ad: whether it says what they searched for, a price they would pay, what to do, and more ways in.</summary>
public sealed class Appeal
{
    private static readonly string[] Calls =
    [
        "ask",
        "book",
        "call",
        "buy",
        "order",
        "try",
        "get",
        "see",
        "tell",
        "bring",
        "hire",
        "visit",
    ];

    private readonly ConcurrentDictionary<long, Reading> _read = [];

    private sealed record Reading(IReadOnlySet<string> Singulars, bool CallsToAct, double? Price, bool Asks);

    /// <summary>Share of the searched words in an ad: 0 to 1.</summary>
    public decimal Fit(TextAd ad, IReadOnlyList<string> words) => QualityScore.ShareOfWords(words, Of(ad).Singulars);

    /// <summary>How likely somebody who looks at the ad clicks it.</summary>
    /// <param name="need">What the person wants.</param>
    /// <param name="person">The person.</param>
    /// <param name="site">The kind of site.</param>
    /// <param name="ad">The ad.</param>
    /// <param name="fit">Share of the searched words in it.</param>
    /// <param name="extensions">What else shows.</param>
    public double Likelihood(Need need, Person person, SiteKind site, TextAd ad, double fit, Extensions extensions)
    {
        var read = Of(ad);
        var factor = 0.45 + 0.75 * fit;
        factor *= read.CallsToAct ? 1.08 : 1;
        factor *= read.Asks ? 1.05 : 1;
        factor *=
            read.Price is not { } price || need.Worth <= 0 ? 1
            : price <= person.Limit * need.Worth ? 1.12
            : 0.7;
        factor *= 1 + 0.03 * Math.Min(extensions.Sitelinks, 4) + 0.015 * Math.Min(extensions.Callouts, 4);
        return Math.Min(0.75, need.Clicks * factor * site.Clicks);
    }

    private Reading Of(TextAd ad) => _read.GetOrAdd(ad.Id, _ => Read(ad));

    private static Reading Read(TextAd ad)
    {
        string[] texts = [.. ad.Headlines, .. ad.Descriptions];
        var words = texts.SelectMany(text => Words.Of(text)).ToArray();
        return new Reading(
            QualityScore.SingularsOf(words),
            words.Any(word => Calls.Contains(word)),
            PriceIn(texts),
            ad.Headlines.Any(text => text.EndsWith('?'))
        );
    }

    private static double? PriceIn(IEnumerable<string> texts)
    {
        foreach (var text in texts)
        {
            var at = text.IndexOfAny(['£', '€', '$']);
            var digits =
                at < 0 ? "" : string.Concat(text[(at + 1)..].TrimStart().TakeWhile(each => char.IsAsciiDigit(each)));
            if (digits.Length is > 0 and < 7)
            {
                return double.Parse(digits, System.Globalization.CultureInfo.InvariantCulture);
            }
        }

        return null;
    }
}
