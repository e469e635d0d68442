using System.Buffers;
using System.Text;
using System.Text.RegularExpressions;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Networks;

/// <summary>Why reviewers do not let a text through.</summary>
/// <param name="Code">Stable name of the rule.</param>
/// <param name="Short">In a few words, for a sheet.</param>
/// <param name="Reason">In a sentence that says what to do.</param>
public readonly record struct Refusal(string Code, string Short, string Reason);

/// <summary>A wording that reviewers refuse.</summary>
/// <param name="Wording">As normalised words.</param>
/// <param name="Instead">What says about the same and is let through; nothing when it is best left out.</param>
public sealed record RefusedWording(string Wording, string? Instead = null);

/// <summary>When the reviewers of a network work, and what they refuse: the same for the network itself and for the checks before it.</summary>
public sealed partial record ReviewRules
{
    /// <summary>First hour of a working day in which reviewers work: 0 to 23.</summary>
    public required int FromHour { get; init; }

    /// <summary>Hour at which reviewers go home: 1 to 24.</summary>
    public required int ToHour { get; init; }

    /// <summary>Working hours that a review takes at most.</summary>
    public required int Hours { get; init; }

    /// <summary>Working minutes by which it may be done before: less than the hours.</summary>
    public required int MinutesEarlier { get; init; }

    /// <summary>Wordings that reviewers refuse wherever they stand.</summary>
    public required IReadOnlyList<RefusedWording> RefusedWordings { get; init; }

    /// <summary>Most letters of a word that people see written in capitals alone: what is longer shouts.</summary>
    public required int LongestCapitals { get; init; }

    /// <summary>Most times that a punctuation mark may be repeated at once in what people see.</summary>
    public required int MarksInARow { get; init; }

    /// <summary>From so many digits on, with blanks and marks between them, what people see holds a telephone number.</summary>
    public required int DigitsOfPhoneNumber { get; init; }

    /// <summary>The refused wording that a text has, word for word, or none.</summary>
    public string? RefusedWordingIn(string text) => RuleIn(text)?.Wording;

    /// <summary>
    /// A refused wording that somebody who reads in a hurry takes a text for: it has all the words, but not as they stand in the
    /// wording. Whoever reads word for word lets it through.
    /// </summary>
    public string? MistakenWordingIn(string text)
    {
        if (RefusedWordingIn(text) is not null)
        {
            return null;
        }

        var words = Words.Of(text).ToHashSet(StringComparer.Ordinal);
        return RefusedWordings
            .Select(rule => rule.Wording)
            .FirstOrDefault(wording => Words.Of(wording).All(words.Contains));
    }

    private RefusedWording? RuleIn(string text)
    {
        if (!MayHaveOne(text))
        {
            return null;
        }

        var padded = " " + string.Join(' ', Words.Of(text)) + " ";
        return RefusedWordings.FirstOrDefault(rule =>
            padded.Contains(" " + rule.Wording + " ", StringComparison.Ordinal)
        );
    }

    /// <summary>
    /// False for a text that surely has no refused wording: plain letters are read as they stand, so it would have to have the
    /// letters of its first word. Most texts are not taken apart for that.
    /// </summary>
    private bool MayHaveOne(string text)
    {
        if (!Ascii.IsValid(text) || text.AsSpan().ContainsAny(Words.Dropped))
        {
            return true;
        }

        _openings ??= SearchValues.Create(
            [.. RefusedWordings.Select(rule => rule.Wording.Split(' ')[0])],
            StringComparison.OrdinalIgnoreCase
        );
        return text.AsSpan().ContainsAny(_openings);
    }

    private SearchValues<string>? _openings;

    /// <summary>
    /// A text that says about the same and that the reviewers let through: wordings said in another way or left out, capitals
    /// lowered but for the first letter, marks set once, telephone numbers taken out.
    /// </summary>
    /// <param name="text">What people see.</param>
    /// <returns>The text; none when nothing of it would be left, or it cannot be mended so.</returns>
    public string? Repaired(string text)
    {
        const int MostRounds = 20;
        var repaired = text;
        for (var round = 0; round < MostRounds; round++)
        {
            var before = repaired;
            repaired =
                RuleIn(repaired) is { } rule ? SaidInstead(repaired, rule)
                : ShoutedIn(repaired) is { } shouted
                    ? repaired.Replace(shouted, Lowered(shouted), StringComparison.Ordinal)
                : RepeatedIn(repaired) is { } marks
                    ? repaired.Replace(marks, marks[..MarksInARow], StringComparison.Ordinal)
                : HasPhoneNumber(repaired)
                    ? Numbers().Replace(repaired, match => HasPhoneNumber(match.Value) ? "" : match.Value)
                : repaired;
            if (repaired == before)
            {
                break;
            }
        }

        if (repaired == text)
        {
            return RefusalsOf(text, isSeen: true).Any() ? null : text;
        }

        var tidy = Loose().Replace(Blanks().Replace(repaired, " "), "$1").Trim(' ', ',', ';', ':', '-', '–');
        if (tidy.Length > 0 && text.Length > 0 && char.IsUpper(text[0]))
        {
            tidy = char.ToUpperInvariant(tidy[0]) + tidy[1..];
        }

        return Words.Of(tidy).Count > 0 && !RefusalsOf(tidy, isSeen: true).Any() ? tidy : null;
    }

    /// <summary>As it was written: with capitals where the refused words had them.</summary>
    private static string SaidInstead(string text, RefusedWording rule)
    {
        var words = string.Join(@"[^\p{L}\p{N}]+", rule.Wording.Split(' ').Select(Regex.Escape));
        return Regex.Replace(
            text,
            $@"(?<![\p{{L}}\p{{N}}]){words}(?![\p{{L}}\p{{N}}])",
            match =>
            {
                var said = (rule.Instead ?? "").Split(' ');
                var capitals = match
                    .Value.Where(
                        (letter, at) => char.IsUpper(letter) && (at == 0 || !char.IsLetter(match.Value[at - 1]))
                    )
                    .Count();
                return string.Join(
                    ' ',
                    said.Select(
                        (word, at) =>
                            capitals > (at == 0 ? 0 : 1) && word.Length > 0
                                ? char.ToUpperInvariant(word[0]) + word[1..]
                                : word
                    )
                );
            },
            RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
            TimeSpan.FromSeconds(1)
        );
    }

    [GeneratedRegex(@"[+(]?\d[\d \u00a0\-./()+]*\d")]
    private static partial Regex Numbers();

    [GeneratedRegex(@"\s+")]
    private static partial Regex Blanks();

    [GeneratedRegex(@" ([,.;:!?])")]
    private static partial Regex Loose();

    /// <summary>What reviewers refuse in a text.</summary>
    /// <param name="text">The text.</param>
    /// <param name="isSeen">True when people see it; false when they only search for it: then just the wordings count.</param>
    public IReadOnlyList<Refusal> RefusalsOf(string text, bool isSeen) =>
        MayHaveOne(text) || (isSeen && MayLookWrong(text)) ? [.. RefusalsFoundIn(text, isSeen)] : [];

    /// <summary>False for a text that surely shouts, repeats or dials nothing: it is not read three times more for that.</summary>
    private bool MayLookWrong(string text)
    {
        var (before, kindBefore, digits) = ('\0', (byte)0, 0);
        foreach (var character in text)
        {
            if (character >= PlainLetters.Length)
            {
                return true;
            }

            var kind = PlainLetters[character];
            if ((kind & kindBefore & Capital) != 0 || (character == before && (kind & Mark) != 0))
            {
                return true;
            }

            digits += kind & Digit;
            (before, kindBefore) = (character, kind);
        }

        return digits >= DigitsOfPhoneNumber;
    }

    private const byte Digit = 1;
    private const byte Capital = 2;
    private const byte Mark = 4;

    /// <summary>What the plain letters (ASCII) are.</summary>
    private static readonly byte[] PlainLetters =
    [
        .. Enumerable
            .Range(0, 128)
            .Select(code =>
                (byte)(
                    char.IsDigit((char)code) ? Digit
                    : char.IsUpper((char)code) ? Capital
                    : char.IsPunctuation((char)code) ? Mark
                    : 0
                )
            ),
    ];

    private IEnumerable<Refusal> RefusalsFoundIn(string text, bool isSeen)
    {
        if (RuleIn(text) is { } rule)
        {
            yield return new Refusal(
                "wording-refused",
                $"reviewers refuse “{rule.Wording}”",
                $"The wording “{rule.Wording}” is not allowed. "
                    + (rule.Instead is { } instead ? $"Say “{instead}”." : "Say it in another way.")
            );
        }

        if (!isSeen)
        {
            yield break;
        }

        if (ShoutedIn(text) is { } shouted)
        {
            yield return new Refusal(
                "capitals-refused",
                $"reviewers refuse “{shouted}”",
                $"Words of more than {LongestCapitals} letters in capitals alone are not allowed. Write “{Lowered(shouted)}”."
            );
        }

        if (RepeatedIn(text) is { } mark)
        {
            yield return new Refusal(
                "marks-refused",
                $"reviewers refuse “{mark}”",
                MarksInARow == 1
                    ? $"A mark may not be repeated. Write “{mark[0]}” once."
                    : $"A mark may stand at most {MarksInARow} times in a row. Write “{mark[0]}” less often."
            );
        }

        if (HasPhoneNumber(text))
        {
            yield return new Refusal(
                "phone-refused",
                "reviewers refuse telephone numbers",
                "A telephone number in a text is not allowed. Take it out."
            );
        }
    }

    private string? ShoutedIn(string text)
    {
        // Most texts have no two capitals in a row, and most letters have one part.
        if (!HasCapitalsInARow(text))
        {
            return null;
        }

        var (begun, letters, capitals) = (0, 0, true);
        for (var at = 0; at <= text.Length; )
        {
            // An end of text ends a word, as a blank does.
            var rune = new Rune(' ');
            var width = 1;
            if (at < text.Length && Rune.DecodeFromUtf16(text.AsSpan(at), out rune, out width) != OperationStatus.Done)
            {
                rune = Rune.ReplacementChar;
            }

            if (Rune.IsLetter(rune))
            {
                (begun, letters) = (letters == 0 ? at : begun, letters + 1);
                capitals &= Rune.IsUpper(rune);
            }
            else
            {
                if (capitals && letters > LongestCapitals)
                {
                    return text[begun..at];
                }

                (letters, capitals) = (0, true);
            }

            at += width;
        }

        return null;
    }

    private static bool HasCapitalsInARow(string text)
    {
        var before = false;
        foreach (var character in text)
        {
            if (char.IsSurrogate(character))
            {
                return true;
            }

            var capital = char.IsUpper(character);
            if (capital && before)
            {
                return true;
            }

            before = capital;
        }

        return false;
    }

    /// <summary>The first letter stays as it is.</summary>
    private static string Lowered(string word) => word[..1] + word[1..].ToLowerInvariant();

    private string? RepeatedIn(string text)
    {
        for (var at = 0; at < text.Length; )
        {
            var end = at + 1;
            while (end < text.Length && text[end] == text[at])
            {
                end++;
            }

            if (end - at > MarksInARow && char.IsPunctuation(text[at]))
            {
                return text[at..end];
            }

            at = end;
        }

        return null;
    }

    private bool HasPhoneNumber(string text)
    {
        var digits = 0;
        foreach (var character in text)
        {
            if (char.IsDigit(character))
            {
                if (++digits >= DigitsOfPhoneNumber)
                {
                    return true;
                }
            }
            else if (character is not (' ' or '\u00a0' or '-' or '.' or '/' or '(' or ')' or '+'))
            {
                digits = 0;
            }
        }

        return false;
    }
}
