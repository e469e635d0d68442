using Fendrik.Core.Matching;

namespace Fendrik.Core.Searches;

/// <summary>An ad group in which a search could be a keyword.</summary>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="Keywords">The words of its keywords, each set once.</param>
/// <param name="Clicks">Clicks that it had of the search.</param>
public sealed record PossibleHome(long AdGroupId, IReadOnlyList<IReadOnlySet<string>> Keywords, long Clicks);

/// <summary>An ad group with how close its keywords are to a search.</summary>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="Closeness">From 0, no word in common with any keyword, to 1, the very words of one.</param>
public readonly record struct FoundHome(long AdGroupId, double Closeness);

/// <summary>Which ad group a search belongs in, by its words.</summary>
public static class TermHome
{
    /// <summary>
    /// How close two sets of words are: twice what they share ÷ what both have. Sørensen 1948 and Dice 1945 (Ecology 26).
    /// </summary>
    public static double Closeness(IReadOnlySet<string> one, IReadOnlySet<string> other) =>
        one.Count + other.Count == 0 ? 0 : 2d * one.Count(other.Contains) / (one.Count + other.Count);

    /// <summary>The ad groups, the best first; those without a word in common are left out.</summary>
    /// <param name="term">The words of the search.</param>
    /// <param name="groups">The ad groups.</param>
    public static IReadOnlyList<FoundHome> Of(IReadOnlySet<string> term, IEnumerable<PossibleHome> groups) =>
        [
            .. groups
                .Select(group =>
                    (
                        group.AdGroupId,
                        Closeness: group.Keywords.Count == 0
                            ? 0
                            : group.Keywords.Max(keyword => Closeness(term, keyword)),
                        group.Clicks
                    )
                )
                .Where(each => each.Closeness > 0)
                .OrderByDescending(each => each.Closeness)
                .ThenByDescending(each => each.Clicks)
                .ThenBy(each => each.AdGroupId)
                .Select(each => new FoundHome(each.AdGroupId, each.Closeness)),
        ];
}
