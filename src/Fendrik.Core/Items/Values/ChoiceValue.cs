using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Items.Values;

/// <summary>One of a few.</summary>
/// <param name="choices">What there is to choose from.</param>
/// <param name="wordForNone">What people write for none of them, besides leaving the cell empty.</param>
public sealed class ChoiceValue(IReadOnlyList<Choice> choices, params string[] wordForNone) : ValueType
{
    /// <inheritdoc/>
    public override Storage Storage => Storage.Number;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Choice;

    /// <inheritdoc/>
    public override IReadOnlyList<Choice> Choices => choices;

    /// <summary>The choice that a text names, by its key, its name or another word for it.</summary>
    public static Choice? Find(IReadOnlyList<Choice> choices, string text)
    {
        var word = TextIdentity.Of(text).Replace('_', ' ').Trim('[', ']', '"', '“', '”').Trim();
        word = word.EndsWith(" match", StringComparison.Ordinal) ? word[..^" match".Length] : word;
        return choices.FirstOrDefault(choice =>
            word.Equals(choice.Name, StringComparison.OrdinalIgnoreCase)
            || word.Equals(choice.Key, StringComparison.OrdinalIgnoreCase)
            || choice.OtherWords.Contains(word)
        );
    }

    /// <inheritdoc/>
    public override Reading Read(string text, ReadingGround ground) =>
        wordForNone.Contains(TextIdentity.Of(text)) ? new Reading(null)
        : Find(choices, text) is { } choice ? new Reading(choice.Number)
        : Reading.Wrong(
            $"“{Reading.Shortened(text)}” is none of {string.Join(", ", choices.Select(each => each.Name).Concat(wordForNone.Take(1)))}"
        );

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) => Of(value).Name;

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) =>
        Json.Number(element) is not { } number ? null
        : choices.Any(choice => choice.Number == number) ? number
        : throw new JsonException($"{number} is none of the choices.");

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) => json.WriteStringValue(Of(value).Name);

    /// <inheritdoc/>
    public override object ForScreen(object value) => Of(value).Key;

    private Choice Of(object value) => choices.First(choice => choice.Number == (short)value);
}

/// <summary>Any of a few.</summary>
/// <param name="choices">What there is to choose from; their numbers are powers of two.</param>
/// <param name="none">What it amounts to when none is chosen, for a person.</param>
/// <param name="advice">What to do then.</param>
public sealed class FlagsValue(IReadOnlyList<Choice> choices, string none, string advice) : ValueType
{
    /// <inheritdoc/>
    public override Storage Storage => Storage.Number;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Flags;

    /// <inheritdoc/>
    public override IReadOnlyList<Choice> Choices => choices;

    /// <inheritdoc/>
    public override Reading Read(string text, ReadingGround ground) =>
        Read(TextIdentity.Of(text).Replace(" and ", ",", StringComparison.Ordinal).Split([',', '+', ';', '/']), ground);

    /// <inheritdoc/>
    public override Reading Read(IReadOnlyList<string> parts, ReadingGround ground)
    {
        short sum = 0;
        foreach (var part in parts)
        {
            if (ChoiceValue.Find(choices, part) is not { } choice)
            {
                return Reading.Wrong(
                    $"“{Reading.Shortened(part.Trim())}” is none of {string.Join(", ", choices.Select(each => each.Name))}"
                );
            }

            sum |= choice.Number;
        }

        return sum == 0
            ? Reading.Wrong($"would be none; {char.ToLowerInvariant(advice[0])}{advice[1..].TrimEnd('.')}")
            : new Reading(sum);
    }

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) =>
        string.Join(" + ", Chosen(value).Select(each => each.Name));

    /// <inheritdoc/>
    public override string InWords(object value, Currency currency) =>
        (short)value == 0 ? none : string.Join(", ", Chosen(value).Select(each => each.Name));

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) => Json.Number(element);

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) =>
        Json.WriteTexts(json, Chosen(value).Select(each => each.Name));

    /// <inheritdoc/>
    public override object ForScreen(object value) => Chosen(value).Select(each => each.Key).ToArray();

    internal override IEnumerable<Finding> Check(Field field, object value, FieldLimits limits, CheckReport report)
    {
        if ((short)value == 0)
        {
            yield return report.Blocker(field, "missing", none, advice);
        }
    }

    private IEnumerable<Choice> Chosen(object value) => choices.Where(choice => ((short)value & choice.Number) != 0);
}
