using Fendrik.Core.Checks;

namespace Fendrik.Core.Items.Kinds;

/// <summary>What holds for the account as a whole. It is made with the account and stays as long.</summary>
public sealed class AccountType() : ItemType(CommonFields.TrackingTemplate(inheritedFrom: null))
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.Account;

    /// <inheritdoc/>
    public override string Noun => "account";

    /// <inheritdoc/>
    public override string Table => "account_item";

    /// <inheritdoc/>
    public override IReadOnlyList<Level> Levels => [Level.Account];

    /// <inheritdoc/>
    public override Field? NameField => null;

    /// <inheritdoc/>
    public override bool IsReviewed => false;

    /// <inheritdoc/>
    public override string? FigureColumn => null;

    /// <inheritdoc/>
    public override string TwinProblem => "There is one account only.";

    /// <inheritdoc/>
    public override bool ComesAndGoes => false;

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report) => [];
}
