using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Items.Kinds;

/// <summary>Negatives that are kept once and hold for several campaigns.</summary>
public sealed class NegativeListType()
    : ItemType(
        CommonFields.Name(
            "Name of a list of negatives that campaigns share.",
            "Jobs and schools",
            "negative list",
            "shared list",
            "negative list name",
            "shared negative list"
        ),
        new Field
        {
            Name = "campaignIds",
            Label = "Shared by",
            Meaning = "The campaigns that the list holds for; in a file one in each row of the list.",
            Column = "campaign_ids",
            Type = new ReferencesValue(ItemKind.Campaign, "campaign"),
            IsClearable = true,
            IsUsual = true,
            IsSortable = false,
        }
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.NegativeList;

    /// <inheritdoc/>
    public override string Noun => "negative list";

    /// <inheritdoc/>
    public override IReadOnlyList<string> OtherWords => ["list", "shared list"];

    /// <inheritdoc/>
    public override string Table => "negative_list";

    /// <inheritdoc/>
    public override IReadOnlyList<Level> Levels => [Level.Account];

    /// <inheritdoc/>
    public override Level? Holds => Level.List;

    /// <inheritdoc/>
    public override Field NameField => this["name"];

    /// <inheritdoc/>
    public override bool IsReviewed => false;

    /// <inheritdoc/>
    public override string? FigureColumn => null;

    /// <inheritdoc/>
    public override string TwinProblem => "There is a negative list of this name already. Choose another name.";

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report) => [];
}
