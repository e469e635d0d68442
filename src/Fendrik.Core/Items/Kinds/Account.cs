using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Items.Kinds;

/// <summary>What holds for the account as a whole. It is made with the account and stays as long.</summary>
public sealed class AccountType()
    : ItemType(
        CommonFields.TrackingTemplate(inheritedFrom: null),
        new Field
        {
            Name = "answeringHours",
            Label = "Answering hours",
            Meaning =
                "Hours in which somebody takes calls. The network never sees them; they are held against the hours of campaigns and numbers.",
            Example = "Mon-Fri 08:00-17:30; Sat 09:00-12:00",
            Column = "answering_hours",
            Headers = ["answering hours", "opening hours", "office hours"],
            Type = new WeekHoursValue(),
            IsPublished = false,
            IsClearable = true,
            IsReviewed = false,
            Width = 180,
        },
        new Field
        {
            Name = "monthBudget",
            Label = "Budget of a month",
            Meaning =
                "What the account may spend in a calendar month. The network never sees it; what is spent and likely to be spent is held against it.",
            Example = "3300.00",
            Column = "month_budget",
            Headers = ["month budget", "monthly budget", "budget of a month"],
            Type = new AmountValue(),
            IsPublished = false,
            IsClearable = true,
            IsReviewed = false,
            Width = 110,
        }
    )
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
