using System.Buffers;
using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Items.Values;

/// <summary>The form in which a value is kept: one column of this type, and one type of value in memory.</summary>
public enum Storage
{
    /// <summary>A text; a <see cref="string"/> in memory.</summary>
    Text = 1,

    /// <summary>An amount with three decimal places; a <see cref="decimal"/>.</summary>
    Amount = 2,

    /// <summary>A day; a <see cref="DateOnly"/>.</summary>
    Day = 3,

    /// <summary>The number of a choice, or the sum of flags; a <see cref="short"/>.</summary>
    Number = 4,

    /// <summary>Texts in order; a <see cref="string"/> array.</summary>
    Texts = 5,

    /// <summary>Identities of other items, ascending; a <see cref="long"/> array.</summary>
    References = 6,
}

/// <summary>What reading and writing need to know of the account.</summary>
/// <param name="Currency">Currency of amounts.</param>
/// <param name="Language">The account's language, which says what <c>1,234</c> means.</param>
/// <param name="Relative">True where <c>+10%</c> may raise what is there.</param>
public sealed record ReadingGround(Currency Currency, AccountLanguage Language, bool Relative = false)
{
    /// <summary>The ground in the usual language.</summary>
    public static ReadingGround Plain(Currency currency) => new(currency, AccountLanguage.Of(AccountLanguage.Usual));
}

/// <summary>What was read, or why it cannot be.</summary>
/// <param name="Value">The value; none for nothing.</param>
/// <param name="Problem">What is wrong and what to do, as the end of a sentence that begins with the field; none when all is well.</param>
public readonly record struct Reading(object? Value, string? Problem = null)
{
    /// <summary>What the same cell says of another field: a keyword in brackets says its match type.</summary>
    public (string Field, object Value)? Also { get; init; }

    /// <summary>A cell that cannot be read.</summary>
    public static Reading Wrong(string problem) => new(null, problem);

    /// <summary>A cell's text, short enough for a message.</summary>
    public static string Shortened(string text) => text.Length <= 60 ? text : string.Concat(text.AsSpan(0, 60), "…");
}

/// <summary>How a value is shown and edited.</summary>
public enum ValueForm
{
    /// <summary>One line of text.</summary>
    Text = 1,

    /// <summary>An amount in the account's currency.</summary>
    Amount = 2,

    /// <summary>A day.</summary>
    Day = 3,

    /// <summary>One of a few.</summary>
    Choice = 4,

    /// <summary>Any of a few.</summary>
    Flags = 5,

    /// <summary>Several lines of text in order.</summary>
    Lines = 6,

    /// <summary>Labels.</summary>
    Labels = 7,

    /// <summary>Other items.</summary>
    References = 8,

    /// <summary>Per cent, more or less.</summary>
    Percent = 9,

    /// <summary>A distance in kilometres.</summary>
    Distance = 10,

    /// <summary>A return on spend in per cent.</summary>
    Return = 11,

    /// <summary>A whole number.</summary>
    Whole = 12,
}

/// <summary>
/// A type of value: reads what people type, wherever they type it, writes it as it is read, and knows its JSON. A field
/// has one; a cell, a paste, an edit in place, a command and a file are all read by the same function.
/// </summary>
public abstract class ValueType
{
    /// <summary>How it is kept.</summary>
    public abstract Storage Storage { get; }

    /// <summary>How it is shown and edited.</summary>
    public abstract ValueForm Form { get; }

    /// <summary>What there is to choose from; nothing but for choices and flags.</summary>
    public virtual IReadOnlyList<Choice> Choices => [];

    /// <summary>Most parts that have a column of their own in a file; none when the value is one cell.</summary>
    public virtual int? Room => null;

    /// <summary>True when the text can be found and replaced.</summary>
    public virtual bool IsText => false;

    /// <summary>True when words can be inserted for each search.</summary>
    public virtual bool InsertsWords => false;

    /// <summary>Places that a part can be kept to; none when it cannot.</summary>
    public virtual int? Places => null;

    /// <summary>True when two values that differ in capitals alone are different values. It is so of what people see.</summary>
    public virtual bool CapitalsCount => true;

    /// <summary>Reads a cell that is not empty. The text has no white space at its ends.</summary>
    public abstract Reading Read(string text, ReadingGround ground);

    /// <summary>Reads parts that came one by one, as in a list of JSON or in numbered columns.</summary>
    public virtual Reading Read(IReadOnlyList<string> parts, ReadingGround ground) =>
        parts.Count == 1 ? Read(parts[0], ground) : Reading.Wrong("takes one value, not several");

    /// <summary>Writes a value into one cell, as <see cref="Read(string, ReadingGround)"/> takes it.</summary>
    public abstract string Write(object value, ReadingGround ground);

    /// <summary>A value in words for a person, or none where there is nothing to say.</summary>
    public virtual string? InWords(object value, Currency currency) => Write(value, ReadingGround.Plain(currency));

    /// <summary>Reads the value as it is kept and travels to the network.</summary>
    /// <exception cref="JsonException">The element has another form.</exception>
    public abstract object? ReadStored(JsonElement element);

    /// <summary>Writes the value as it stands in a JSON file, behind its name.</summary>
    public abstract void WriteFile(Utf8JsonWriter json, object value);

    /// <summary>The value as the interface gets it: a text, a number, or a list of them.</summary>
    public virtual object ForScreen(object value) => value;

    /// <summary>True when the value says nothing: an empty text or list.</summary>
    public virtual bool IsNothing(object? value) => value is null or "" or Array { Length: 0 };

    /// <summary>What is wrong with a value for a network, by the limits of its profile.</summary>
    internal virtual IEnumerable<Finding> Check(Field field, object value, FieldLimits limits, CheckReport report) =>
        [];

    /// <summary>The reason for which a text cannot be kept at all, or none.</summary>
    private protected static string? ProblemOf(string text, int longest)
    {
        if (text.Length > longest)
        {
            return $"has {text.Length:N0} characters; {longest:N0} at most";
        }

        foreach (var character in text)
        {
            if (character is < ' ' or (>= '\u007f' and <= '\u009f') or '\ufffd' or '\ufffe' or '\uffff')
            {
                return "has control characters; remove them";
            }
        }

        return null;
    }

    private static readonly SearchValues<char> Breaks = SearchValues.Create("\t\n\r\u00a0\v\f");

    /// <summary>Runs of white space, line breaks among them, as one space; nothing at the ends.</summary>
    public static string Single(string text) =>
        text.AsSpan().IndexOfAny(Breaks) >= 0
        || text.Contains("  ", StringComparison.Ordinal)
        || text.Length != text.AsSpan().Trim().Length
            ? string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries))
            : text;
}
