using System.Globalization;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Searches;

/// <summary>A search that is to be kept away.</summary>
/// <param name="Text">The search, as it was typed.</param>
/// <param name="Cost">What it cost.</param>
public sealed record TermToStop(string Text, decimal Cost);

/// <summary>A negative that would keep searches away.</summary>
/// <param name="Text">Its words.</param>
/// <param name="Match">Its match type.</param>
/// <param name="Stops">How many of the searches it keeps away.</param>
/// <param name="Why">Why it is proposed, in a sentence.</param>
public sealed record ProposedNegative(string Text, MatchType Match, int Stops, string Why)
{
    /// <summary>The negative as it is written in a list.</summary>
    public string Line => KeywordNotation.Write(Text, Match);
}

/// <summary>
/// The fewest negatives that keep searches away without harm: single words that never brought a conversion and that no keyword of one's own has; where
/// there is none, the search itself.
/// </summary>
public static class NegativeProposal
{
    /// <summary>
    /// A word of a single search is proposed only where chance alone explains its clicks without a conversion less often than this: elsewhere the word may
    /// just have had no luck yet. Fendrik's own choice.
    /// </summary>
    public const double MostChance = 0.2;

    /// <summary>Negatives for searches, those that keep away most cost first.</summary>
    /// <param name="terms">The searches.</param>
    /// <param name="words">What is known of their words; a word that is not there is taken for unknown and left alone.</param>
    /// <param name="usualRate">Conversions for a click in the whole account: 0 to 1.</param>
    public static IReadOnlyList<ProposedNegative> Of(
        IReadOnlyList<TermToStop> terms,
        IReadOnlyDictionary<string, WordRecord> words,
        double usualRate
    )
    {
        var proposed = new List<ProposedNegative>();
        var left = terms
            .DistinctBy(term => string.Join(' ', Words.Of(term.Text)))
            .Select(term => (Term: term, Words: Words.Of(term.Text).ToHashSet(StringComparer.Ordinal)))
            .Where(each => each.Words.Count > 0)
            .ToList();
        while (Best(left, words, usualRate) is { } best)
        {
            var stops = left.RemoveAll(each => each.Words.Contains(best.Word));
            proposed.Add(new ProposedNegative(best.Word, MatchType.Phrase, stops, WhyOf(best, usualRate)));
        }

        proposed.AddRange(
            left.OrderByDescending(each => each.Term.Cost)
                .ThenBy(each => each.Term.Text, StringComparer.Ordinal)
                .Select(each => new ProposedNegative(
                    string.Join(' ', Words.Of(each.Term.Text)),
                    MatchType.Exact,
                    1,
                    "Each of its words brought something elsewhere, is in a keyword, or is too seldom to be judged: only the search itself is kept away."
                ))
        );
        return proposed;
    }

    private static WordRecord? Best(
        IReadOnlyList<(TermToStop Term, HashSet<string> Words)> left,
        IReadOnlyDictionary<string, WordRecord> words,
        double usualRate
    ) =>
        left.SelectMany(each => each.Words.Select(word => (word, each.Term)))
            .GroupBy(each => each.word, each => each.Term, StringComparer.Ordinal)
            .Select(group =>
                (Record: words.GetValueOrDefault(group.Key), Stops: group.Count(), Cost: group.Sum(term => term.Cost))
            )
            .Where(each =>
                each.Record is { Conversions: 0, OwnKeywords: 0 } record
                && (each.Stops > 1 || record.ChanceOfNothing(usualRate) <= MostChance)
            )
            .OrderByDescending(each => each.Cost)
            .ThenByDescending(each => each.Stops)
            .ThenByDescending(each => each.Record!.Cost)
            .ThenBy(each => each.Record!.Word, StringComparer.Ordinal)
            .Select(each => each.Record)
            .FirstOrDefault();

    private static string WhyOf(WordRecord word, double usualRate)
    {
        var searches = string.Create(
            CultureInfo.InvariantCulture,
            $"{word.Clicks:N0} {(word.Clicks == 1 ? "click" : "clicks")} of {word.Terms:N0} {(word.Terms == 1 ? "search" : "searches")} with it brought nothing"
        );
        const double Hundred = 100;
        return usualRate > 0
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"{searches}; by chance that would happen {Math.Round(Hundred * word.ChanceOfNothing(usualRate)):0} times in 100."
            )
            : $"{searches}.";
    }
}
