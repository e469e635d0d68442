using Fendrik.Core.Accounts;
using Fendrik.Core.Intake;
using Fendrik.Core.Matching;

namespace Fendrik.Data.Steps;

/// <summary>Keywords or negatives that a person wrote or pasted, one on a line, in the trade's notation.</summary>
internal sealed record WordLines(string[] Texts, string[] Keys, short[] Matches)
{
    /// <summary>Most lines at once; longer lists are what intake is for.</summary>
    public const int MostLines = 20_000;

    /// <param name="lines">The lines.</param>
    /// <param name="match">Match type of bare words.</param>
    /// <param name="negative">True where a minus may stand in front.</param>
    /// <param name="matchForAll">True when the match type holds for lines with notation too.</param>
    /// <exception cref="InvalidChangeException">A line cannot be read.</exception>
    public static WordLines Read(string lines, MatchType match, bool negative, bool matchForAll = false)
    {
        var words = lines
            .Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
            .Select(KeywordNotation.Read)
            .ToArray();
        if (words.Length is 0 or > MostLines)
        {
            throw new InvalidChangeException(
                "lines",
                words.Length == 0
                    ? "Enter at least one, each on a line of its own."
                    : $"These are {words.Length:N0} lines; {MostLines:N0} at most. Bring longer lists in through Intake."
            );
        }

        for (var line = 0; line < words.Length; line++)
        {
            if (ProblemOf(words[line], negative) is { } problem)
            {
                throw new InvalidChangeException("lines", $"Line {line + 1}, {problem}");
            }
        }

        return new WordLines(
            [.. words.Select(word => word.Text)],
            [.. words.Select(word => TextIdentity.Of(word.Text))],
            [.. words.Select(word => (short)(matchForAll ? match : word.Match ?? match))]
        );
    }

    private static string? ProblemOf(NotedKeyword word, bool negative) =>
        word switch
        {
            { Problem: { } problem } => $"“{word.Text}”: {problem}.",
            { Text.Length: > RowReader.LongestKeyword } =>
                $"“{word.Text[..40]}…” is longer than {RowReader.LongestKeyword} characters.",
            { Negative: true } when !negative => $"“-{word.Text}” is a negative. Add it as one.",
            _ => null,
        };
}
