using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Items.Kinds;

/// <summary>A content site, or a page of one, where ads show or never do: on a campaign or an ad group.</summary>
public sealed class PlacementType()
    : ItemType(
        new Field
        {
            Name = "text",
            ListName = "placement",
            TellsKind = true,
            Label = "Placement",
            Meaning = "A content site, or a page of it with all below.",
            Example = "bigdays.example/venues",
            Column = "text",
            KeyColumn = "text_key",
            Headers = ["placement", "placements", "placement site", "content site"],
            Type = new SiteValue(),
            IsIdentity = true,
            IsNeeded = true,
            MissingAdvice = "Write the site.",
        },
        CommonFields.State(),
        new Field
        {
            Name = "side",
            Label = "In or out",
            Meaning =
                "in: ads show there, and where any placement is in, on no other content site; out: they never show there.",
            Example = "out",
            Column = "side",
            Headers = ["in or out", "placement in or out"],
            Type = new ChoiceValue(Choices.Side),
            Default = (short)PlacementSide.In,
            IsUsual = true,
            IsReviewed = false,
            Width = 72,
        },
        CommonFields.MaxCpc(inheritedFrom: null, ofPlacement: true)
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.Placement;

    /// <inheritdoc/>
    public override string Noun => "placement";

    /// <inheritdoc/>
    public override string Table => "placement";

    /// <inheritdoc/>
    public override IReadOnlyList<Level> Levels => [Level.Campaign, Level.AdGroup];

    /// <inheritdoc/>
    public override Field NameField => this["text"];

    /// <inheritdoc/>
    public override bool IsReviewed => false;

    /// <inheritdoc/>
    public override string? FigureColumn => null;

    /// <inheritdoc/>
    public override string TwinProblem => "This placement is there already.";

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report)
    {
        if (values["side"] is (short)PlacementSide.Out && values["maxCpc"] is decimal)
        {
            yield return report.Hint(
                this["maxCpc"],
                "bid-left-out",
                "a bid where nothing shows",
                "Ads never show on a placement that is out: its max CPC does nothing."
            );
        }
    }
}
