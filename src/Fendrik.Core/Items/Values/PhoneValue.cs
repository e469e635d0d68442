using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;
using PhoneNumbers;

namespace Fendrik.Core.Items.Values;

/// <summary>A telephone number, kept by ITU-T E.164: a plus, the country's code and the number, digits only.</summary>
public sealed class PhoneValue : ValueType
{
    private static readonly PhoneNumberUtil Numbers = PhoneNumberUtil.GetInstance();

    /// <inheritdoc/>
    public override Storage Storage => Storage.Text;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Text;

    /// <summary>Reads a number as people write it; without a country's code it is one of the account's own country.</summary>
    public override Reading Read(string text, ReadingGround ground)
    {
        const int Longest = 60;
        if (ProblemOf(text, Longest) is { } problem)
        {
            return Reading.Wrong(problem);
        }

        try
        {
            var number = Numbers.Parse(text, ground.Language.Region);
            return number.HasExtension ? Reading.Wrong("has an extension; a number that is tapped has none")
                : Numbers.IsPossibleNumber(number) ? new Reading(Numbers.Format(number, PhoneNumberFormat.E164))
                : Reading.Wrong(Wrong(text));
        }
        catch (NumberParseException)
        {
            return Reading.Wrong(Wrong(text));
        }
    }

    /// <summary>The ISO 3166 code of the country of a number that is kept; none when no country has it, as with those of the whole world.</summary>
    public static string? CountryOf(string number) =>
        Parsed(number) is { } parsed && Numbers.GetRegionCodeForNumber(parsed) is { Length: 2 } region ? region : null;

    /// <summary>As people of its own country write it.</summary>
    public static string National(string number) =>
        Parsed(number) is { } parsed ? Numbers.Format(parsed, PhoneNumberFormat.NATIONAL) : number;

    /// <summary>As an address that a phone dials: RFC 3966.</summary>
    public static string Dialled(string number) =>
        Parsed(number) is { } parsed ? Numbers.Format(parsed, PhoneNumberFormat.RFC3966) : "tel:" + number;

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) =>
        Parsed((string)value) is { } parsed ? Numbers.Format(parsed, PhoneNumberFormat.INTERNATIONAL) : (string)value;

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) => Json.Text(element);

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) => json.WriteStringValue((string)value);

    /// <inheritdoc/>
    public override object ForScreen(object value) => Write(value, ReadingGround.Plain(Currency.Of("GBP")));

    internal override IEnumerable<Finding> Check(Field field, object value, FieldLimits limits, CheckReport report)
    {
        if (Parsed((string)value) is not { } number || !Numbers.IsValidNumber(number))
        {
            yield return report.Blocker(
                field,
                "wrong",
                "number that nobody has",
                $"{ForScreen(value)} is not a number that its country gives out. Look for a digit too many or too few."
            );
        }
    }

    private static PhoneNumber? Parsed(string number)
    {
        try
        {
            return Numbers.Parse(number, null);
        }
        catch (NumberParseException)
        {
            return null;
        }
    }

    private static string Wrong(string text) =>
        $"“{Reading.Shortened(text)}” is not a telephone number; write it like 0113 496 0142 or +44 113 496 0142";
}
