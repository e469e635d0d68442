using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Data.Model;

namespace Fendrik.Data.Intakes;

/// <summary>Number of items or rows of a kind with an outcome.</summary>
[method: ExplicitConstructor]
public sealed record IntakeCount(ItemKind Kind, IntakeOutcome Outcome, long Count);

/// <summary>Something that a list leaves open and publishing needs.</summary>
[method: ExplicitConstructor]
public sealed record IntakeGap(
    string CampaignKey,
    string AdGroupKey,
    string Campaign,
    string? AdGroup,
    decimal? Filled,
    int Keywords
)
{
    /// <summary>What was filled in, as the account writes amounts; none while it is open.</summary>
    public string? FilledText { get; init; }
}

/// <summary>A row of the list with what becomes of it.</summary>
public sealed record IntakeListRow(
    int RowNumber,
    ItemKind Kind,
    IntakeOutcome Outcome,
    MatchType? Match,
    string? Reason,
    IReadOnlyList<string> Cells
);

/// <summary>A list that was brought in, with the step that did it.</summary>
[method: ExplicitConstructor]
public sealed record LastIntake(string FileName, long StepId, DateTime MadeAt, int Items);

/// <summary>An ad group that would come in incomplete.</summary>
[method: ExplicitConstructor]
public sealed record IntakeCaution(string Campaign, string AdGroup, string Message);

/// <summary>All about an intake that its page shows.</summary>
public sealed record IntakeView(
    long Id,
    string FileName,
    long Bytes,
    IntakeState State,
    string? Problem,
    bool HasHeader,
    IReadOnlyList<string> Headers,
    IReadOnlyList<string> Columns,
    IReadOnlyList<int> UsedColumns,
    string? DefaultCampaign,
    string? DefaultAdGroup,
    MatchType BareMatch,
    MatchType NegativeMatch,
    RowIntent Intent,
    bool EmptyClears,
    bool Remembered,
    long RowsRead,
    string? Encoding,
    long? StepId,
    IReadOnlyList<IntakeCount> Counts,
    IReadOnlyList<IntakeGap> Budgets,
    IReadOnlyList<IntakeGap> MaxCpcs,
    IReadOnlyList<IntakeListRow> Refused,
    IReadOnlyList<IntakeCaution> Cautions
);

/// <summary>How the columns are to be read.</summary>
public sealed record IntakeColumns(
    bool HasHeader,
    IReadOnlyList<string> Columns,
    string? DefaultCampaign,
    string? DefaultAdGroup,
    MatchType BareMatch,
    MatchType NegativeMatch,
    RowIntent Intent = RowIntent.AddAndChange,
    bool EmptyClears = false
);

/// <summary>An amount for what a list leaves open: for one campaign or ad group, or for all.</summary>
public sealed record IntakeFillIn(bool Budget, string? CampaignKey, string? AdGroupKey, string Amount);

/// <summary>Which intake amounts are filled into, and their currency.</summary>
public sealed record AccountFillContext(int AccountId, long IntakeId, ReadingGround Ground);
