using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Items.Kinds;

/// <summary>An ad that is called, not visited: it shows on phones alone, at the hours when somebody answers.</summary>
public sealed class CallAdType()
    : AdType(
        new Field
        {
            Name = "businessName",
            Label = "Business name",
            Meaning = "Who is called, as it stands in a call ad.",
            Example = "Tarn & Fell Pianos",
            Column = "business_name",
            Headers = ["business name", "business", "advertiser"],
            TellsKind = true,
            Type = new TextValue(TextValue.LongestName),
            IsIdentity = true,
            IsClearable = true,
            IsNeeded = true,
            MissingAdvice = "Say who is called.",
        },
        new Field
        {
            Name = "callNumber",
            Label = "Number",
            Meaning =
                "Telephone number that people call. Without a country's code it is one of the account's own country.",
            Example = "0113 496 0142",
            Column = "call_number",
            Headers = ["call number", "phone number", "telephone", "phone"],
            Type = new PhoneValue(),
            IsIdentity = true,
            IsClearable = true,
            IsNeeded = true,
            MissingAdvice = "Enter the number that answers.",
            Width = 140,
        },
        Headlines(room: 14, placed: false),
        Descriptions(room: 5, placed: false),
        CommonFields.LandingPage(needed: false, identity: true),
        CommonFields.Measured(usual: false),
        new Field
        {
            Name = "hours",
            Label = "Hours",
            Meaning = "Hours of the week in which the ad shows, on the account's clock; empty for always.",
            Example = "Mon-Fri 08:00-17:30; Sat 09:00-12:00",
            Column = "hours",
            Headers = ["call hours", "hours"],
            Type = new WeekHoursValue(),
            IsClearable = true,
            IsUsual = true,
            Width = 150,
        }
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.CallAd;

    /// <inheritdoc/>
    public override string FormNoun => Noun;

    /// <inheritdoc/>
    public override string Noun => "call ad";

    /// <inheritdoc/>
    public override IReadOnlyList<string> OtherWords => ["call-only ad", "phone ad"];

    /// <inheritdoc/>
    public override string Table => "call_ad";

    /// <summary>Calls are made on phones.</summary>
    public override Device? OnlyDevice => Device.Phone;

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report)
    {
        foreach (var finding in MeasuredCalls.Check(this["callNumber"], this["measured"], values, report))
        {
            yield return finding;
        }

        if (values["hours"] is null)
        {
            yield return report.Caution(
                this["hours"],
                "calls-at-any-hour",
                "no hours",
                "It shows day and night, also when nobody answers. Say the hours in which somebody does."
            );
        }
    }
}
