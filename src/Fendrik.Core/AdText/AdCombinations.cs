using Fendrik.Core.AdText.Insertion;
using Fendrik.Core.Checks;
using Fendrik.Core.Matching;

namespace Fendrik.Core.AdText;

/// <summary>Alternatives for each slot of a fixed text ad; a slot without any is left out.</summary>
/// <param name="Headlines">For each headline, what it may say.</param>
/// <param name="Descriptions">For each description.</param>
/// <param name="LandingPages">Where the ads may lead.</param>
public sealed record AdAlternatives(
    IReadOnlyList<IReadOnlyList<string>> Headlines,
    IReadOnlyList<IReadOnlyList<string>> Descriptions,
    IReadOnlyList<string> LandingPages
);

/// <summary>One ad that alternatives make.</summary>
/// <param name="Headlines">Its headlines.</param>
/// <param name="Descriptions">Its descriptions.</param>
/// <param name="LandingPage">Where it leads.</param>
/// <param name="Problems">Why it is better left out, a sentence each; empty when it is fine.</param>
public sealed record CombinedAd(
    IReadOnlyList<string> Headlines,
    IReadOnlyList<string> Descriptions,
    string? LandingPage,
    IReadOnlyList<string> Problems
);

/// <summary>All ads that can be made of alternatives, with what is wrong with each.</summary>
public static class AdCombinations
{
    /// <summary>Most ads that are made at once.</summary>
    public const int Most = 200;

    /// <summary>How many ads alternatives make.</summary>
    public static long CountOf(AdAlternatives alternatives) =>
        Slots(alternatives).Aggregate(1L, (all, slot) => Math.Min(long.MaxValue / 1_000_000, all * slot.Count));

    /// <summary>Puts alternatives together, in the order in which they were given.</summary>
    /// <param name="alternatives">What each slot may say.</param>
    /// <param name="report">The network and the currency to check by.</param>
    /// <exception cref="ArgumentException">They make more than <see cref="Most"/> ads, or none.</exception>
    public static IReadOnlyList<CombinedAd> Of(AdAlternatives alternatives, CheckReport report)
    {
        var count = CountOf(alternatives);
        if (alternatives.Headlines.All(slot => slot.Count == 0))
        {
            throw new ArgumentException("Write at least one headline.", nameof(alternatives));
        }

        if (count > Most)
        {
            throw new ArgumentException(
                $"These would be {count:N0} ads; {Most} at most. Leave some alternatives out.",
                nameof(alternatives)
            );
        }

        var headlines = Product(alternatives.Headlines);
        var descriptions = Product(alternatives.Descriptions);
        var pages = alternatives.LandingPages.Count > 0 ? alternatives.LandingPages : [null!];
        return
        [
            .. from heads in headlines
            from texts in descriptions
            from page in pages
            select new CombinedAd(heads, texts, page, ProblemsOf(heads, texts, page, report)),
        ];
    }

    /// <summary>
    /// Two lines say the same when the words of one, small ones left out, are all in the other: nobody needs to be told twice.
    /// </summary>
    public static bool SaysTwice(string one, string other, WordReach reach)
    {
        var (first, second) = (ContentOf(one, reach), ContentOf(other, reach));
        return first.Count > 0 && second.Count > 0 && (first.IsSubsetOf(second) || second.IsSubsetOf(first));
    }

    /// <summary>The words of a text without the small ones. Close variants are the same word.</summary>
    internal static HashSet<string> ContentOf(string text, WordReach reach) =>
        [.. reach.WordsOf(text).Where(word => !reach.IsSmall(word)).Select(reach.ClassOf)];

    private static IEnumerable<IReadOnlyList<string>> Slots(AdAlternatives alternatives) =>
        alternatives
            .Headlines.Concat(alternatives.Descriptions)
            .Append(alternatives.LandingPages)
            .Where(slot => slot.Count > 0);

    private static IEnumerable<IReadOnlyList<string>> Product(IReadOnlyList<IReadOnlyList<string>> slots) =>
        slots
            .Where(slot => slot.Count > 0)
            .Aggregate<IReadOnlyList<string>, IEnumerable<IReadOnlyList<string>>>(
                [
                    [],
                ],
                (made, slot) => made.SelectMany(before => slot.Select(text => (IReadOnlyList<string>)[.. before, text]))
            );

    private static List<string> ProblemsOf(
        IReadOnlyList<string> headlines,
        IReadOnlyList<string> descriptions,
        string? page,
        CheckReport report
    )
    {
        var type = ItemTypes.Of(ItemKind.TextAd);
        var values = new ItemValues(type)
        {
            [type["headlines"]] = headlines.ToArray(),
            [type["descriptions"]] = descriptions.ToArray(),
            [type["landingPage"]] = page,
        };
        values.WithDefaults();
        var problems = new List<string>(
            type.Check(values, report)
                .Where(finding => finding.Field != "landingPage")
                .Select(finding => finding.Detail)
        );
        for (var one = 0; one < headlines.Count; one++)
        {
            for (var other = one + 1; other < headlines.Count; other++)
            {
                if (
                    SaysTwice(
                        AdLine.FallbackOf(headlines[one]),
                        AdLine.FallbackOf(headlines[other]),
                        report.Network.Reach
                    )
                )
                {
                    problems.Add($"“{headlines[one]}” and “{headlines[other]}” say the same.");
                }
            }
        }

        return problems;
    }
}
