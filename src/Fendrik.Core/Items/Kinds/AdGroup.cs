using Fendrik.Core.Checks;

namespace Fendrik.Core.Items.Kinds;

/// <summary>Keywords and ads about one theme, with a default max CPC.</summary>
public sealed class AdGroupType()
    : ItemType(
        CommonFields.Name(
            "Name of the ad group. Empty for what belongs to the campaign itself.",
            "Grand pianos",
            "ad group",
            "adgroup",
            "ad group name",
            "group",
            "theme",
            "anzeigengruppe"
        ),
        CommonFields.State(),
        CommonFields.MaxCpc(inheritedFrom: null),
        CommonFields.DeviceModifier(Device.Desktop, inheritedFrom: ItemKind.Campaign),
        CommonFields.DeviceModifier(Device.Phone, inheritedFrom: ItemKind.Campaign),
        CommonFields.DeviceModifier(Device.Tablet, inheritedFrom: ItemKind.Campaign),
        CommonFields.TrackingTemplate(inheritedFrom: ItemKind.Campaign)
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.AdGroup;

    /// <inheritdoc/>
    public override string Noun => "ad group";

    /// <inheritdoc/>
    public override IReadOnlyList<string> OtherWords => ["adgroup", "group"];

    /// <inheritdoc/>
    public override string Table => "ad_group";

    /// <inheritdoc/>
    public override IReadOnlyList<Level> Levels => [Level.Campaign];

    /// <inheritdoc/>
    public override Level? Holds => Level.AdGroup;

    /// <inheritdoc/>
    public override Field NameField => this["name"];

    /// <inheritdoc/>
    public override bool IsReviewed => false;

    /// <inheritdoc/>
    public override string FigureColumn => "ad_group_id";

    /// <inheritdoc/>
    public override string TwinProblem =>
        "There is an ad group of this name in the campaign already. Choose another name.";

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report) => [];
}
