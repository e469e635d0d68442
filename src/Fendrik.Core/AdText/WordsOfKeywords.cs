using Fendrik.Core.Matching;

namespace Fendrik.Core.AdText;

/// <summary>A word of the keywords of an ad group, and whether its ads say it.</summary>
/// <param name="Word">The word as most of the keywords have it.</param>
/// <param name="Clicks">Clicks of the keywords that have it.</param>
/// <param name="Keywords">How many keywords have it.</param>
/// <param name="IsSaid">True when an ad says it, or a close variant of it.</param>
public sealed record WordOfKeywords(string Word, long Clicks, int Keywords, bool IsSaid);

/// <summary>
/// What an ad group's ads say of what its keywords ask for: text that has the words of the search is clicked more and fits better
/// (a rule of the trade, common practice, no source).
/// </summary>
public static class WordsOfKeywords
{
    /// <summary>The words, those with most clicks first, then those of most keywords. Small words count nothing.</summary>
    /// <param name="keywords">The keywords and their clicks.</param>
    /// <param name="texts">All that the ads say.</param>
    /// <param name="reach">Which words are close variants of one another.</param>
    public static IReadOnlyList<WordOfKeywords> In(
        IEnumerable<(string Text, long Clicks)> keywords,
        IEnumerable<string> texts,
        WordReach reach
    )
    {
        var said = texts.SelectMany(reach.WordsOf).Select(reach.ClassOf).ToHashSet(StringComparer.Ordinal);
        var words =
            from keyword in keywords
            from word in reach.WordsOf(keyword.Text).DistinctBy(reach.ClassOf)
            where !reach.IsSmall(word)
            group (Word: word, keyword.Clicks) by reach.ClassOf(word) into same
            let clicks = same.Sum(each => each.Clicks)
            let word = same.CountBy(each => each.Word)
                .OrderByDescending(each => each.Value)
                .ThenBy(each => each.Key, StringComparer.Ordinal)
                .First()
                .Key
            orderby clicks descending, same.Count() descending, word
            select new WordOfKeywords(word, clicks, same.Count(), said.Contains(same.Key));
        return [.. words];
    }
}
