using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.AdText;
using Fendrik.Core.Checks;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Items.Values;

/// <summary>One line of text.</summary>
/// <param name="longest">Longest text that is kept, in UTF-16 units. What a network takes is its profile's business.</param>
public class TextValue(int longest = TextValue.LongestText) : ValueType
{
    /// <summary>Longest text of any kind that is kept.</summary>
    public const int LongestText = 4_000;

    /// <summary>Longest name or keyword that is kept.</summary>
    public const int LongestName = 400;

    /// <inheritdoc/>
    public override Storage Storage => Storage.Text;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Text;

    /// <inheritdoc/>
    public override bool IsText => true;

    /// <summary>Longest text that is kept.</summary>
    public int Longest => longest;

    /// <inheritdoc/>
    public override Reading Read(string text, ReadingGround ground)
    {
        var single = Single(text);
        return ProblemOf(single, longest) is { } problem ? Reading.Wrong(problem) : new Reading(single);
    }

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) => (string)value;

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) => Json.Text(element);

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) => json.WriteStringValue((string)value);

    internal override IEnumerable<Finding> Check(Field field, object value, FieldLimits limits, CheckReport report)
    {
        var text = (string)value;
        var length = limits.LengthOf(text);
        return length > limits.Length || limits.OneOf is not null
            ? CheckLimits(field, text, length, limits, report)
            : [];
    }

    private static IEnumerable<Finding> CheckLimits(
        Field field,
        string text,
        int length,
        FieldLimits limits,
        CheckReport report
    )
    {
        if (length > limits.Length)
        {
            yield return report.Blocker(
                field,
                "long",
                $"{length} characters, {limits.Length} at most",
                $"{report.Network.Name} takes at most {limits.Length} characters here; this has {length}. Shorten it."
            );
        }

        if (limits.OneOf is { } known && !known.Contains(text, StringComparer.OrdinalIgnoreCase))
        {
            yield return report.Blocker(
                field,
                "unknown",
                $"{report.Network.Name} has no such {field.LowLabel}",
                $"{report.Network.Name} has no {field.LowLabel} “{Reading.Shortened(text)}”. It has: {string.Join(", ", known)}."
            );
        }
    }
}

/// <summary>The words of a keyword or negative, plain or in the trade's notation, which says the match type as well.</summary>
public sealed class WordsValue() : TextValue(LongestName)
{
    /// <summary>The field that notation speaks of besides the words.</summary>
    public const string MatchField = "match";

    /// <inheritdoc/>
    public override bool CapitalsCount => false;

    /// <inheritdoc/>
    public override Reading Read(string text, ReadingGround ground)
    {
        var noted = KeywordNotation.Read(text);
        if (noted.Problem is { } problem)
        {
            return Reading.Wrong($"“{Reading.Shortened(noted.Text)}”: {problem}");
        }

        return ProblemOf(noted.Text, LongestName) is { } wrong
            ? Reading.Wrong(wrong)
            : new Reading(noted.Text) { Also = noted.Match is { } match ? (MatchField, (short)match) : null };
    }

    internal override IEnumerable<Finding> Check(Field field, object value, FieldLimits limits, CheckReport report)
    {
        foreach (var finding in base.Check(field, value, limits, report))
        {
            yield return finding;
        }

        var words = Words.CountTyped((string)value);
        if (words == 0)
        {
            yield return report.Blocker(field, "empty", "no words", "It has no letters or digits to match.");
        }
        else if (words > limits.Words)
        {
            yield return report.Blocker(
                field,
                "words",
                $"{words} words, {limits.Words} at most",
                $"{report.Network.Name} takes at most {limits.Words} words here; this has {words}. Leave some out."
            );
        }
    }
}

/// <summary>The address of a page.</summary>
public sealed class AddressValue() : TextValue
{
    /// <inheritdoc/>
    public override Reading Read(string text, ReadingGround ground) =>
        WebAddress.IsValid(text)
            ? base.Read(text, ground)
            : Reading.Wrong($"“{Reading.Shortened(text)}” is not a web address; begin with https:// or a domain");

    internal override IEnumerable<Finding> Check(Field field, object value, FieldLimits limits, CheckReport report)
    {
        var found = base.Check(field, value, limits, report);
        return WebAddress.IsValid((string)value)
            ? found
            : found.Prepend(
                report.Blocker(
                    field,
                    "wrong",
                    $"{field.LowLabel} is not an address",
                    $"“{value}” is not a web address. It should begin with https:// or a domain."
                )
            );
    }
}
