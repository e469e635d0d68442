using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;

namespace Fendrik.Core.Changes;

/// <summary>What is done to a text.</summary>
public enum TextOperation
{
    /// <summary>Becomes the value.</summary>
    Set = 1,

    /// <summary>Gets the value behind it; where a word would stick to a word, with a space.</summary>
    Append = 2,

    /// <summary>Gets the value before it; where a word would stick to a word, with a space.</summary>
    Prepend = 3,

    /// <summary>Every place where something is found gets the value instead.</summary>
    Replace = 4,

    /// <summary>All letters small.</summary>
    LowerCase = 5,

    /// <summary>All letters capital.</summary>
    UpperCase = 6,

    /// <summary>The first letter of every word capital, the others as they are.</summary>
    CapitalWords = 7,

    /// <summary>The first letter of the text capital, the others small.</summary>
    SentenceCase = 8,
}

/// <summary>A text edit whose search runs too long, over one text or over all of them.</summary>
public sealed class EditTooSlowException : Exception
{
    private EditTooSlowException(string message)
        : base(message) { }

    internal static EditTooSlowException Over(string text) =>
        new($"The regular expression runs too long over “{Shortened(text)}”. Make it simpler.");

    internal static EditTooSlowException OverAll(int texts, TimeSpan longest) =>
        new(
            $"The regular expression is slow: after {longest.TotalSeconds:0.#} seconds it had looked through {texts:N0} texts and not all. Make it simpler, or choose fewer items."
        );

    private static string Shortened(string text) => text.Length > 60 ? text[..60] + "…" : text;
}

/// <summary>
/// A change of text that can be applied to many. White space at the ends and doubled inside is taken out afterwards, so
/// that removing a word leaves no gap.
/// </summary>
public sealed class TextEdit
{
    /// <summary>Longest time that one regular expression may look through one text.</summary>
    public static readonly TimeSpan LongestSearch = TimeSpan.FromMilliseconds(250);

    /// <summary>Longest time that the searches of one edit may take together.</summary>
    public static readonly TimeSpan LongestSearches = TimeSpan.FromSeconds(20);

    /// <summary>Longest pattern and replacement.</summary>
    public const int LongestPattern = 500;

    private readonly TextOperation _operation;
    private readonly string _value;
    private readonly Regex? _search;
    private readonly System.Diagnostics.Stopwatch _searching = new();
    private int _searched;

    private readonly TimeSpan _longest;

    private TextEdit(TextOperation operation, string value, Regex? search, TimeSpan? longest = null) =>
        (_operation, _value, _search, _longest) = (operation, value, search, longest ?? LongestSearches);

    /// <summary>Makes an edit, or says what is wrong with it.</summary>
    /// <param name="operation">What is done.</param>
    /// <param name="value">What is set, added or put in place; not used to change case.</param>
    /// <param name="find">What is replaced.</param>
    /// <param name="isExpression">True when <paramref name="find"/> is a regular expression, with <c>$1</c> in the value for its first group.</param>
    /// <param name="matchCase">False to find capital and small letters alike.</param>
    /// <param name="wholeWords">True to find nothing inside a longer word.</param>
    /// <param name="problem">What is wrong, and what to do; none when all is well.</param>
    /// <param name="longestSearches">How long the searches may take together, if not <see cref="LongestSearches"/>.</param>
    public static TextEdit? Create(
        TextOperation operation,
        string value,
        string? find,
        bool isExpression,
        bool matchCase,
        bool wholeWords,
        out string? problem,
        TimeSpan? longestSearches = null
    )
    {
        problem = ProblemOf(operation, value, find);
        if (problem is not null)
        {
            return null;
        }

        if (operation != TextOperation.Replace)
        {
            return new TextEdit(operation, value, null);
        }

        var pattern = isExpression ? find! : Regex.Escape(find!);
        if (wholeWords)
        {
            pattern = $@"(?<![\p{{L}}\p{{N}}])(?:{pattern})(?![\p{{L}}\p{{N}}])";
        }

        var options = RegexOptions.CultureInvariant | (matchCase ? RegexOptions.None : RegexOptions.IgnoreCase);
        try
        {
            return new TextEdit(
                operation,
                isExpression ? value : value.Replace("$", "$$", StringComparison.Ordinal),
                new Regex(pattern, options, LongestSearch),
                longestSearches
            );
        }
        catch (ArgumentException)
        {
            problem = $"“{find}” is not a regular expression that can be read. Check brackets and backslashes.";
            return null;
        }
    }

    /// <summary>The text after the edit.</summary>
    /// <exception cref="EditTooSlowException">
    /// The regular expression ran longer than <see cref="LongestSearch"/>, or with the texts before longer than
    /// <see cref="LongestSearches"/>.
    /// </exception>
    public string Apply(string text) =>
        Single(
            _operation switch
            {
                TextOperation.Set => _value,
                TextOperation.Append => Joined(text, _value),
                TextOperation.Prepend => Joined(_value, text),
                TextOperation.Replace => Replaced(text),
                TextOperation.LowerCase => text.ToLowerInvariant(),
                TextOperation.UpperCase => text.ToUpperInvariant(),
                TextOperation.CapitalWords => CapitalWords(text),
                _ => SentenceCase(text),
            }
        );

    /// <summary>Two texts one behind the other; words that would stick together keep a space between them.</summary>
    private static string Joined(string first, string second) =>
        first.Length > 0 && second.Length > 0 && IsOfWord(first, last: true) && IsOfWord(second, last: false)
            ? $"{first} {second}"
            : first + second;

    private static bool IsOfWord(string text, bool last)
    {
        var status = last
            ? Rune.DecodeLastFromUtf16(text, out var rune, out _)
            : Rune.DecodeFromUtf16(text, out rune, out _);
        return status == System.Buffers.OperationStatus.Done && Rune.IsLetterOrDigit(rune);
    }

    private static string? ProblemOf(TextOperation operation, string value, string? find) =>
        operation switch
        {
            TextOperation.Set or TextOperation.Append or TextOperation.Prepend when string.IsNullOrWhiteSpace(value) =>
                "Write the text first.",
            TextOperation.Replace when string.IsNullOrEmpty(find) => "Write what is to be found.",
            _ when value.Length > LongestPattern || find?.Length > LongestPattern =>
                $"At most {LongestPattern} characters can be found or put in place.",
            _ when value.Any(char.IsControl) => "The text has control characters; remove them.",
            _ => null,
        };

    private string Replaced(string text)
    {
        if (_searching.Elapsed > _longest)
        {
            throw EditTooSlowException.OverAll(_searched, _longest);
        }

        _searched++;
        _searching.Start();
        try
        {
            return _search!.Replace(text, _value);
        }
        catch (RegexMatchTimeoutException)
        {
            throw EditTooSlowException.Over(text);
        }
        finally
        {
            _searching.Stop();
        }
    }

    private static string CapitalWords(string text)
    {
        var result = new StringBuilder(text.Length);
        var inWord = false;
        foreach (var rune in text.EnumerateRunes())
        {
            var isPart = Rune.IsLetterOrDigit(rune) || rune.Value is '\'' or '’';
            result.Append((isPart && !inWord ? Rune.ToUpperInvariant(rune) : rune).ToString());
            inWord = isPart;
        }

        return result.ToString();
    }

    private static string SentenceCase(string text)
    {
        var lower = text.ToLower(CultureInfo.InvariantCulture);
        var result = new StringBuilder(lower.Length);
        var done = false;
        foreach (var rune in lower.EnumerateRunes())
        {
            var first = !done && Rune.IsLetterOrDigit(rune);
            result.Append((first ? Rune.ToUpperInvariant(rune) : rune).ToString());
            done |= first;
        }

        return result.ToString();
    }

    private static string Single(string text) =>
        text.Contains("  ", StringComparison.Ordinal) || text.Length != text.AsSpan().Trim().Length
            ? string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries))
            : text;
}
