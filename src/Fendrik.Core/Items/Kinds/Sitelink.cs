using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;

namespace Fendrik.Core.Items.Kinds;

/// <summary>A further link shown under ads, with a page of its own: on the account, a campaign or an ad group.</summary>
public sealed class SitelinkType()
    : ExtensionType(
        Text(
            "sitelink",
            "Sitelink",
            "A further link under an ad, in a few words.",
            "Grand pianos",
            "sitelink",
            "sitelinks",
            "sitelink text",
            "link text"
        ),
        new Field
        {
            Name = "lines",
            ListName = "sitelinkLines",
            Label = "Sitelink line",
            Meaning = "Says more about the page that the sitelink leads to.",
            Example = "Concert and upright",
            Column = "lines",
            Headers = ["sitelink line", "sitelink description"],
            Type = new LinesValue("line", room: 2),
            IsClearable = true,
            IsSortable = false,
        },
        CommonFields.LandingPage(needed: true)
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.Sitelink;

    /// <inheritdoc/>
    public override string Noun => "sitelink";

    /// <inheritdoc/>
    public override string Table => "sitelink";

    /// <inheritdoc/>
    public override string TwinProblem => "A sitelink with this text is there already.";

    /// <inheritdoc/>
    public override (int Fewest, int Wanted) InReach(ExtensionRules rules) =>
        (rules.Sitelinks.Phone, rules.Sitelinks.Wide);

    /// <inheritdoc/>
    public override bool IsClicked => true;

    /// <inheritdoc/>
    public override IReadOnlyList<ConsideredExtension> Choose(
        ExtensionRules rules,
        IReadOnlyList<PlacedExtension> best,
        Device device
    ) => First(best, rules.Sitelinks.On(device));
}
