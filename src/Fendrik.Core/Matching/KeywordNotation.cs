using Fendrik.Core.Accounts;

namespace Fendrik.Core.Matching;

/// <summary>A keyword read from the trade's notation, or the reason why it cannot be read.</summary>
/// <param name="Text">The words without notation, white space made single.</param>
/// <param name="Match">The match type that the notation says, or none for bare words.</param>
/// <param name="Negative">True when a minus stands in front.</param>
/// <param name="Problem">What is wrong, in a sentence that ends what “Row 7:” begins; none when all is well.</param>
public readonly record struct NotedKeyword(string Text, MatchType? Match, bool Negative, string? Problem);

/// <summary>
/// The trade's notation for match types: <c>[exact]</c>, <c>"phrase"</c>, <c>+all +words</c>, a minus in front for a
/// negative. Common practice, no source.
/// </summary>
public static class KeywordNotation
{
    private const string Quotes = "\"“”„«»";

    /// <summary>The characters that say something in front of a keyword or behind it.</summary>
    internal static readonly char[] Marks = [.. Quotes, '[', ']', '+', '-', '−', '–'];

    /// <summary>Reads one cell. Never throws: what cannot be read comes back as a problem.</summary>
    public static NotedKeyword Read(string cell)
    {
        var text = Single(cell);
        var negative = text.Length > 1 && text[0] is '-' or '−' or '–';
        if (negative)
        {
            text = text[1..].TrimStart();
        }

        if (text.Length == 0)
        {
            return new NotedKeyword("", null, negative, "the keyword is empty");
        }

        if (text[0] == '[' || text[^1] == ']')
        {
            return text.Length > 2 && text[0] == '[' && text[^1] == ']'
                ? Checked(text[1..^1].Trim(), MatchType.Exact, negative)
                : new NotedKeyword(text, null, negative, "a square bracket is missing or stands alone");
        }

        if (Quotes.Contains(text[0]) || Quotes.Contains(text[^1]))
        {
            return text.Length > 2 && Quotes.Contains(text[0]) && Quotes.Contains(text[^1])
                ? Checked(text[1..^1].Trim(), MatchType.Phrase, negative)
                : new NotedKeyword(text, null, negative, "a quotation mark is missing or stands alone");
        }

        return text.StartsWith('+') || text.Contains(" +", StringComparison.Ordinal)
            ? AllWords(text, negative)
            : Checked(text, null, negative);
    }

    /// <summary>Writes a keyword in the notation: the reverse of <see cref="Read"/> for every match type but broad.</summary>
    public static string Write(string text, MatchType match, bool negative = false)
    {
        var noted = match switch
        {
            MatchType.Exact => $"[{text}]",
            MatchType.Phrase => $"\"{text}\"",
            MatchType.AllWords => string.Join(' ', text.Split(' ').Select(word => "+" + word)),
            _ => text,
        };
        return negative ? "-" + noted : noted;
    }

    /// <summary>
    /// True for words that stand for themselves: read as a cell they are the same words, with no match type said. All
    /// keywords and negatives are kept so; the match type is kept beside them.
    /// </summary>
    public static bool IsPlain(string text) =>
        text.Length > 0
        && !IsMark(text[0])
        && text[0] is not ('-' or '−' or '–' or '[' or '+')
        && text[^1] != ']'
        && !IsMark(text[^1])
        && !text.Contains(" +", StringComparison.Ordinal)
        && Single(text) == text;

    private static bool IsMark(char character) => Quotes.Contains(character);

    private static NotedKeyword AllWords(string text, bool negative)
    {
        var words = new List<string>();
        foreach (var part in text.Split(' '))
        {
            var word = part.StartsWith('+') ? part[1..] : part;
            if (word.Length == 0)
            {
                return new NotedKeyword(text, MatchType.AllWords, negative, "an empty word after +");
            }

            words.Add(word);
        }

        return Checked(string.Join(' ', words), MatchType.AllWords, negative);
    }

    private static NotedKeyword Checked(string text, MatchType? match, bool negative)
    {
        string? problem = null;
        if (text.Any(char.IsControl))
        {
            problem = "the keyword has control characters; remove them";
        }
        else if (Words.Of(text).Count == 0)
        {
            problem = "the keyword has no letters or digits";
        }
        else if (!IsPlain(text))
        {
            problem = "marks of a match type stand inside one another; write them once";
        }

        return new NotedKeyword(text, match, negative, problem);
    }

    private static string Single(string cell)
    {
        var text = cell.Trim();
        return text.Contains("  ", StringComparison.Ordinal) || text.AsSpan().IndexOfAny("\t\n\r\u00a0") >= 0
            ? string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries))
            : text;
    }
}
