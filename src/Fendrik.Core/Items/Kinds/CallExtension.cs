using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;

namespace Fendrik.Core.Items.Kinds;

/// <summary>A telephone number beside ads, which people call with a tap: on the account, a campaign or an ad group.</summary>
public sealed class CallExtensionType()
    : ExtensionType(
        new Field
        {
            Name = "text",
            ListName = "callNumber",
            TellsKind = true,
            Label = "Number",
            Meaning =
                "Telephone number that people call from an ad. Without a country's code it is one of the account's own country.",
            Example = "0113 496 0142",
            Column = "text",
            KeyColumn = "text_key",
            Headers = ["call number", "phone number", "telephone", "phone", "call extension"],
            Type = new PhoneValue(),
            IsIdentity = true,
            IsNeeded = true,
            MissingAdvice = "Enter the number that answers.",
            Width = 140,
        },
        new Field
        {
            Name = "shows",
            Label = "What a tap does",
            Meaning = "with the site: people choose between calling and the page; number only: every tap calls.",
            Example = "with the site",
            Column = "shows",
            Headers = ["what a tap does", "number shows"],
            Type = new ChoiceValue(Choices.NumberShows),
            Default = (short)NumberShows.WithSite,
            IsUsual = true,
            Width = 110,
        },
        CommonFields.Measured(usual: true),
        CommonFields.OnlyDevice("The only device that the number shows on: desktop, phone or tablet; empty for all.")
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.CallExtension;

    /// <inheritdoc/>
    public override string Noun => "call extension";

    /// <inheritdoc/>
    public override IReadOnlyList<string> OtherWords => ["call", "number"];

    /// <inheritdoc/>
    public override string Table => "call_extension";

    /// <inheritdoc/>
    public override string TwinProblem => "The same number is there already.";

    /// <inheritdoc/>
    public override (int Fewest, int Wanted) InReach(ExtensionRules rules) => (0, 0);

    /// <inheritdoc/>
    public override bool IsClicked => true;

    /// <inheritdoc/>
    public override IReadOnlyList<ConsideredExtension> Choose(
        ExtensionRules rules,
        IReadOnlyList<PlacedExtension> best,
        Device device
    ) => First(best, 1);

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report)
    {
        foreach (var finding in base.CheckMore(values, report))
        {
            yield return finding;
        }

        foreach (var finding in MeasuredCalls.Check(this["text"], this["measured"], values, report))
        {
            yield return finding;
        }
    }
}
