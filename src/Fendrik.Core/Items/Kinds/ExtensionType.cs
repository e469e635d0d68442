using Fendrik.Core.Checks;

namespace Fendrik.Core.Items.Kinds;

/// <summary>What is shown with ads besides their own texts: it stands on the account, on a campaign or on an ad group.</summary>
public abstract class ExtensionType(params Field[] fields) : ItemType(fields)
{
    /// <inheritdoc/>
    public override IReadOnlyList<Level> Levels => [Level.Account, Level.Campaign, Level.AdGroup];

    /// <inheritdoc/>
    public override Field NameField => this["text"];

    /// <inheritdoc/>
    public override bool IsReviewed => true;

    /// <inheritdoc/>
    public override string? FigureColumn => null;

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report) => [];
}
