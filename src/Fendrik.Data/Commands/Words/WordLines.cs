using Fendrik.Core.Items.Values;
using Fendrik.Core.Matching;
using Fendrik.Data.Accounts;

namespace Fendrik.Data.Commands.Words;

/// <summary>Keywords or negatives that a person wrote or pasted, one on a line, in the trade's notation.</summary>
internal sealed record WordLines(string[] Texts, string[] Keys, short[] Matches)
{
    /// <summary>Most lines at once; longer lists are what intake is for.</summary>
    public const int MostLines = 20_000;

    /// <param name="type">Keywords or negatives; in front of a negative a minus may stand.</param>
    /// <param name="lines">The lines.</param>
    /// <param name="match">Match type of bare words.</param>
    /// <param name="ground">The account's.</param>
    /// <param name="matchForAll">True when the match type holds for lines with notation too.</param>
    /// <exception cref="InvalidChangeException">A line cannot be read.</exception>
    public static WordLines Read(
        ItemType type,
        string lines,
        MatchType match,
        ReadingGround ground,
        bool matchForAll = false
    )
    {
        var words = lines.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
        if (words.Length is 0 or > MostLines)
        {
            throw new InvalidChangeException(
                "lines",
                words.Length == 0
                    ? "Enter at least one, each on a line of its own."
                    : $"These are {words.Length:N0} lines; {MostLines:N0} at most. Bring longer lists in through Intake."
            );
        }

        var (texts, keys, matches) = (new string[words.Length], new string[words.Length], new short[words.Length]);
        for (var line = 0; line < words.Length; line++)
        {
            var reading = type["text"].Type.Read(words[line], ground);
            if (ProblemOf(type, words[line], reading) is { } problem)
            {
                throw new InvalidChangeException("lines", $"Line {line + 1}: {problem}.");
            }

            texts[line] = (string)reading.Value!;
            keys[line] = TextIdentity.Of(texts[line]);
            matches[line] = !matchForAll && reading.Also is { Value: short said } ? said : (short)match;
        }

        return new WordLines(texts, keys, matches);
    }

    private static string? ProblemOf(ItemType type, string line, Reading reading) =>
        reading.Problem
        ?? (
            type.Kind != ItemKind.NegativeKeyword && KeywordNotation.Read(line).Negative
                ? $"“{Reading.Shortened(line)}” is a negative; add it as one"
                : null
        );
}
