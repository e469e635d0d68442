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
/// <param name="RowNumber">Its number in the list, headers counted.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Outcome">What becomes of it.</param>
/// <param name="Match">Its match type, if it has one.</param>
/// <param name="Reason">Why it is left out, or what else is to be said.</param>
/// <param name="Cells">Its cells as they stand.</param>
/// <param name="ProblemPlace">The column at fault, counted from 0; none when the row as a whole is.</param>
/// <param name="Before">What stood in a cell that it changes; none where it changes nothing.</param>
public sealed record IntakeListRow(
    int RowNumber,
    ItemKind Kind,
    IntakeOutcome Outcome,
    MatchType? Match,
    string? Reason,
    IReadOnlyList<string> Cells,
    int? ProblemPlace,
    IReadOnlyList<string?> Before
);

/// <summary>Which rows of a list are shown.</summary>
public enum IntakeShown
{
    All = 0,
    New = 1,
    Changed = 2,
    Same = 3,
    LeftOut = 4,
    Removed = 5,
}

/// <summary>Number of rows with an outcome.</summary>
[method: ExplicitConstructor]
public sealed record IntakeRowCount(IntakeOutcome Outcome, long Count);

/// <summary>What became of a list that was kept.</summary>
/// <param name="Items">Items that came in or changed.</param>
/// <param name="Reverted">True when the step was taken back since.</param>
[method: ExplicitConstructor]
public sealed record IntakeDone(int Items, bool Reverted);

/// <summary>A list that waits to be brought in or left.</summary>
[method: ExplicitConstructor]
public sealed record WaitingList(long Id, string FileName, long Rows, DateTime MadeAt);

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
)
{
    /// <summary>How sure the guess of each column is, from 0 to 100.</summary>
    public required IReadOnlyList<int> Confidence { get; init; }

    /// <summary>From this confidence on a guess need not be looked at.</summary>
    public required int SureFrom { get; init; }

    /// <summary>Cells with something in them, by column.</summary>
    public required IReadOnlyList<long> FilledCells { get; init; }

    /// <summary>Rows by what becomes of them.</summary>
    public required IReadOnlyList<IntakeRowCount> Rows { get; init; }

    /// <summary>Rows that say different things of one campaign, ad group or list.</summary>
    public required IReadOnlyList<IntakeContradiction> Contradictions { get; init; }

    /// <summary>Keywords whose match type the list does not say.</summary>
    public required long BareKeywords { get; init; }

    /// <summary>True when a person of the account has chosen once what bare keywords are.</summary>
    public required bool BareMatchKnown { get; init; }

    /// <summary>True when new campaigns arrive paused, unless the list says otherwise.</summary>
    public required bool NewPaused { get; init; }

    /// <summary>New campaigns for which the list says neither running nor paused.</summary>
    public required long NewCampaigns { get; init; }

    /// <summary>What became of it, once it was kept.</summary>
    public IntakeDone? Done { get; init; }
}

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
)
{
    /// <summary>True when the match type of bare keywords was chosen by a person; the account remembers it then.</summary>
    public bool BareMatchChosen { get; init; }

    /// <summary>True when new campaigns arrive paused; the account remembers it.</summary>
    public bool NewPaused { get; init; }

    /// <summary>True when the columns are to be guessed anew, told only whether the first row is a header.</summary>
    public bool GuessAnew { get; init; }
}

/// <summary>What is written anew into a cell of a list.</summary>
public sealed record IntakeMend(int RowNumber, int Place, string Text);

/// <summary>An amount for what a list leaves open: for one campaign or ad group, or for all.</summary>
public sealed record IntakeFillIn(bool Budget, string? CampaignKey, string? AdGroupKey, string Amount);

/// <summary>Which intake amounts are filled into, and their currency.</summary>
public sealed record AccountFillContext(int AccountId, long IntakeId, ReadingGround Ground);
