using System.Globalization;
using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.AdText;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Items.Values;

/// <summary>Several lines of text in order, such as the headlines of an ad.</summary>
/// <param name="part">What one line is called: headline.</param>
/// <param name="room">Most lines that can be kept. What a network takes is its profile's business, and less.</param>
public class LinesValue(string part, int room) : ValueType
{
    /// <summary>Stands between lines in one cell of the sheet.</summary>
    public const char Separator = '|';

    /// <inheritdoc/>
    public override Storage Storage => Storage.Texts;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Lines;

    /// <inheritdoc/>
    public override int? Room => room;

    /// <inheritdoc/>
    public override bool IsText => true;

    /// <summary>What one line is called.</summary>
    public string Part => part;

    /// <inheritdoc/>
    public sealed override Reading Read(string text, ReadingGround ground) => Read(PartsOf(text), ground);

    /// <summary>The lines that stand in one cell.</summary>
    protected virtual IReadOnlyList<string> PartsOf(string text) => text.Split(Separator);

    /// <summary>What people surely see of a line, whatever is inserted into it and wherever it is kept.</summary>
    public virtual string SeenOf(string line) => line;

    /// <summary>Characters that a line surely needs, as a network counts them.</summary>
    public virtual int LengthOf(string line, FieldLimits limits) => limits.LengthOf(line);

    /// <summary>A line with its text changed: a place that it is kept to stays.</summary>
    /// <param name="line">The line.</param>
    /// <param name="change">The change.</param>
    /// <param name="letters">True when letters are changed, not words: what is inserted is not touched.</param>
    public virtual string Changed(string line, Func<string, string> change, bool letters) => change(line);

    /// <summary>What is wrong with how a line is written, as a sentence; none when all is well.</summary>
    public virtual string? ProblemOf(string line) => null;

    /// <inheritdoc/>
    public sealed override Reading Read(IReadOnlyList<string> parts, ReadingGround ground)
    {
        var lines = parts.Select(Single).Where(line => line.Length > 0).ToArray();
        if (lines.Length > room)
        {
            return Reading.Wrong($"are {lines.Length}; there is room for {room}");
        }

        return
            lines.Select(line => ProblemOf(line, TextValue.LongestText)).FirstOrDefault(each => each is not null)
                is { } problem
            ? Reading.Wrong(problem)
            : new Reading(lines);
    }

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) => string.Join(" | ", (string[])value);

    /// <inheritdoc/>
    public override string? InWords(object value, Currency currency) =>
        value is string[] { Length: > 0 } lines ? string.Join(" | ", lines) : null;

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) => Json.Array(element, line => Json.Text(line) ?? "");

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) => Json.WriteTexts(json, (string[])value);

    internal override IEnumerable<Finding> Check(Field field, object value, FieldLimits limits, CheckReport report)
    {
        // Nearly all lines are well: a list is made for those that are not.
        List<Finding>? found = null;
        void Found(string what, string message, string detail) =>
            (found ??= []).Add(report.Blocker(field, what, message, detail));

        var lines = (string[])value;
        if (lines.Length < limits.Fewest)
        {
            Found(
                "few",
                $"{lines.Length} {part}s, {limits.Fewest} needed",
                $"It needs at least {limits.Fewest} {part}{(limits.Fewest == 1 ? "" : "s")}."
            );
        }

        if (lines.Length > limits.Most)
        {
            Found(
                "many",
                $"{lines.Length} {part}s, {limits.Most} at most",
                $"{report.Network.Name} takes at most {limits.Most} {part}{(limits.Most == 1 ? "" : "s")}. Take some out."
            );
        }

        for (var place = 0; place < lines.Length; place++)
        {
            var line = lines[place];
            if (ProblemOf(line) is { } problem)
            {
                Found("unreadable", $"{part} {place + 1}: inserted words", problem);
            }

            var length = LengthOf(line, limits);
            if (length > limits.Length)
            {
                Found(
                    "long",
                    $"{part} {place + 1}: {length} / {limits.Length}",
                    $"“{SeenOf(line)}” has {length} characters; at most {limits.Length} are taken. Shorten it."
                );
            }
        }

        return found ?? [];
    }
}

/// <summary>Labels, Fendrik's own words for finding items again.</summary>
public sealed class LabelsValue : ValueType
{
    /// <inheritdoc/>
    public override Storage Storage => Storage.Texts;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Labels;

    /// <inheritdoc/>
    public override Reading Read(string text, ReadingGround ground) => Read(text.Split(LabelText.Separator), ground);

    /// <inheritdoc/>
    public override Reading Read(IReadOnlyList<string> parts, ReadingGround ground)
    {
        string[] labels =
        [
            .. parts
                .Select(Single)
                .Where(label => label.Length > 0)
                .Distinct(StringComparer.Ordinal)
                .Order(StringComparer.Ordinal),
        ];
        return labels.Select(LabelText.ProblemOf).FirstOrDefault(problem => problem is not null) is { } wrong
                ? Reading.Wrong($"cannot be taken: {wrong.TrimEnd('.')}")
            : labels.Length > LabelText.MostOnItem
                ? Reading.Wrong($"are {labels.Length}; {LabelText.MostOnItem} at most on one item")
            : new Reading(labels);
    }

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) => LabelText.Write((string[])value);

    /// <inheritdoc/>
    public override string? InWords(object value, Currency currency) =>
        value is string[] { Length: > 0 } labels ? string.Join(" | ", labels) : null;

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) => Json.Array(element, label => Json.Text(label) ?? "");

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) => Json.WriteTexts(json, (string[])value);
}

/// <summary>Other items that this one is about, such as the campaigns that share a list.</summary>
/// <param name="kind">The kind of those items.</param>
/// <param name="noun">What one of them is called.</param>
public sealed class ReferencesValue(ItemKind kind, string noun) : ValueType
{
    /// <inheritdoc/>
    public override Storage Storage => Storage.References;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.References;

    /// <summary>The kind of the items referred to.</summary>
    public ItemKind To => kind;

    /// <inheritdoc/>
    public override Reading Read(string text, ReadingGround ground) => Read(text.Split([',', ';', ' ']), ground);

    /// <inheritdoc/>
    public override Reading Read(IReadOnlyList<string> parts, ReadingGround ground)
    {
        var ids = new SortedSet<long>();
        foreach (var part in parts.Select(part => part.Trim()).Where(part => part.Length > 0))
        {
            if (!long.TryParse(part, NumberStyles.None, CultureInfo.InvariantCulture, out var id))
            {
                return Reading.Wrong($"“{Reading.Shortened(part)}” is no {noun}; choose them in the panel");
            }

            ids.Add(id);
        }

        return new Reading(ids.ToArray());
    }

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) =>
        string.Join("; ", ((long[])value).Select(id => id.ToString(CultureInfo.InvariantCulture)));

    /// <inheritdoc/>
    public override string? InWords(object value, Currency currency) =>
        ((long[])value).Length switch
        {
            0 => null,
            1 => $"1 {noun}",
            var many => $"{many} {noun}s",
        };

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) =>
        Json.Array(
            element,
            id => id.TryGetInt64(out var number) ? number : throw new JsonException("A whole number is expected.")
        );

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value)
    {
        json.WriteStartArray();
        foreach (var id in (long[])value)
        {
            json.WriteNumberValue(id);
        }

        json.WriteEndArray();
    }
}
