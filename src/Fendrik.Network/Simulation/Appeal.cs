using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using Fendrik.Core.Auctions;
using Fendrik.Core.Matching;
using Fendrik.Core.Serving;
using Fendrik.Network.Simulation.Beside;
using Fendrik.Network.Simulation.People;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation;

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

    private readonly ConditionalWeakTable<ComposedAd, Reading> _read = [];

    private sealed record Reading(IReadOnlySet<string> Singulars, bool CallsToAct, double? Price, bool Asks)
    {
        /// <summary>How much more the ad is liked for what shows beside it.</summary>
        public ConcurrentDictionary<BesideAd, double> More { get; } = [];
    }

    /// <summary>Share of the searched words in an ad: 0 to 1.</summary>
    public decimal Fit(ComposedAd ad, IReadOnlyList<string> words) =>
        QualityScore.ShareOfWords(words, Of(ad).Singulars);

    /// <summary>How likely somebody who looks at the ad clicks it.</summary>
    /// <param name="need">What the person wants.</param>
    /// <param name="person">The person.</param>
    /// <param name="site">The kind of site.</param>
    /// <param name="ad">The ad.</param>
    /// <param name="fit">Share of the searched words in it.</param>
    /// <param name="beside">What else shows.</param>
    public double Likelihood(Need need, Person person, SiteKind site, ComposedAd ad, double fit, BesideAd beside)
    {
        var read = Of(ad);
        var factor = 0.45 + 0.75 * fit;
        factor *= read.CallsToAct ? 1.08 : 1;
        factor *= read.Asks ? 1.05 : 1;
        factor *=
            read.Price is not { } price || need.Worth <= 0 ? 1
            : price <= person.Limit * need.Worth ? 1.12
            : 0.7;
        factor *= beside.Shown.Count == 0 ? 1 : 1 + read.More.GetOrAdd(beside, _ => More(read, beside));
        return Math.Min(0.75, need.Clicks * factor * site.Clicks);
    }

    /// <summary>Further ways in are liked, and so is what the ad does not say itself; what only says it again helps little.</summary>
    private static double More(Reading ad, BesideAd beside)
    {
        const double OfLink = 0.03;
        const double OfNumber = 0.02;
        const double OfNews = 0.018;
        const double OfRepetition = 0.004;
        return OfLink * beside.Of(ItemKind.Sitelink).Count()
            + OfNumber * beside.Of(ItemKind.CallExtension).Count()
            + beside
                .Of(ItemKind.Callout)
                .Sum(callout =>
                    QualityScore.ShareOfWords([.. Words.Of(callout.Text)], ad.Singulars) < 0.5m ? OfNews : OfRepetition
                );
    }

    private Reading Of(ComposedAd ad) => _read.GetValue(ad, Read);

    private static Reading Read(ComposedAd ad)
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
