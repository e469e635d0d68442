using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Core.Lists;
using Fendrik.Core.Networks;
using Microsoft.AspNetCore.Identity;

namespace Fendrik.Data.Model;

/// <summary>Someone who signs in.</summary>
public sealed class Person : IdentityUser
{
    public string DisplayName { get; set; } = "";
}

/// <summary>An advertising account.</summary>
public sealed class AccountRow
{
    public int Id { get; set; }
    public string Name { get; set; } = "";
    public string Currency { get; set; } = "";
    public string TimeZone { get; set; } = "";
    public string NetworkId { get; set; } = "";

    /// <summary>Language tag by which its numbers are read.</summary>
    public string Language { get; set; } = AccountLanguage.Usual;

    /// <summary>When what the network says (reviews, clock) was last read.</summary>
    public DateTimeOffset? LiveReadAt { get; set; }

    /// <summary>The network's clock at that time.</summary>
    public DateTimeOffset? NetworkNow { get; set; }

    /// <summary>Who pays it on the network, as read last; without a payer nothing serves.</summary>
    public string? Payer { get; set; }

    /// <summary>Last day whose report is here.</summary>
    public DateOnly? ReportedTo { get; set; }

    /// <summary>The newest step; also what commands of one account queue behind.</summary>
    public long LastStepId { get; set; }

    /// <summary>Grows with whatever changes items, be it a step or the network: what was read at one revision holds until the next.</summary>
    public long Revision { get; set; }

    /// <summary>How far the network's list of changes has been read.</summary>
    public long NetworkSequence { get; set; }

    /// <summary>Grows with every report that is taken in: sums of figures hold until the next.</summary>
    public long ReportRevision { get; set; }

    /// <summary>How far the network's list of reviews has been read.</summary>
    public long ReviewSequence { get; set; }

    /// <summary>The first step that can still be taken back; what came before is no longer kept row by row.</summary>
    public long HistoryFrom { get; set; }
}

/// <summary>Who may work on which account.</summary>
public sealed class AccountMember
{
    public int AccountId { get; set; }
    public string PersonId { get; set; } = "";
    public AccountRole Role { get; set; }
}

/// <summary>What a step in the history was.</summary>
public enum StepKind
{
    Change = 1,
    Undo = 2,
    Redo = 3,
}

/// <summary>One recorded, undoable change of the working copy.</summary>
public sealed class StepRow
{
    public long Id { get; set; }
    public int AccountId { get; set; }
    public string PersonId { get; set; } = "";
    public DateTimeOffset MadeAt { get; set; }
    public StepKind Kind { get; set; }
    public string Label { get; set; } = "";
    public int Items { get; set; }

    /// <summary>The step that this one takes back.</summary>
    public long? Reverts { get; set; }

    /// <summary>The step that took this one back.</summary>
    public long? RevertedBy { get; set; }

    /// <summary>What the asker called it, to learn afterwards whether it was done.</summary>
    public Guid? RequestId { get; set; }
}

/// <summary>Identities of rows that a step made, as ranges, because rows made together are numbered together.</summary>
public sealed class StepInsertion
{
    public long StepId { get; set; }
    public ItemKind Kind { get; set; }
    public long FirstId { get; set; }
    public long LastId { get; set; }
}

public sealed class FindingRow
{
    public long Id { get; set; }
    public int AccountId { get; set; }
    public Weight Weight { get; set; }
    public string Code { get; set; } = "";
    public ItemKind Kind { get; set; }
    public long ItemId { get; set; }
    public string? Field { get; set; }
    public string Message { get; set; } = "";
    public string Detail { get; set; } = "";
}

/// <summary>The state of the working copy that the findings belong to.</summary>
public sealed class CheckRun
{
    public int AccountId { get; set; }
    public long StepId { get; set; }
    public int Blockers { get; set; }
    public int Cautions { get; set; }
    public int Hints { get; set; }
}

public enum JobState
{
    Waiting = 1,
    Running = 2,
    Done = 3,
    Failed = 4,
    Cancelled = 5,

    /// <summary>Begun so often without an end that it is not begun again.</summary>
    SetAside = 6,
}

/// <summary>Long work that a person watches and can cancel.</summary>
public sealed class JobRow
{
    public long Id { get; set; }
    public int AccountId { get; set; }
    public string PersonId { get; set; } = "";
    public string Kind { get; set; } = "";
    public long SubjectId { get; set; }
    public JobState State { get; set; }
    public long Done { get; set; }
    public long? Total { get; set; }
    public string? Message { get; set; }
    public bool CancelRequested { get; set; }

    /// <summary>How often a server began it without coming to an end.</summary>
    public int Attempts { get; set; }
    public DateTimeOffset MadeAt { get; set; }
    public DateTimeOffset? EndedAt { get; set; }
}

public enum IntakeState
{
    Reading = 1,
    Ready = 2,
    Kept = 3,
    Left = 4,
    Failed = 5,
}

/// <summary>One list being brought in.</summary>
public sealed class IntakeRecord
{
    public long Id { get; set; }
    public int AccountId { get; set; }
    public string PersonId { get; set; } = "";
    public DateTimeOffset MadeAt { get; set; }
    public string FileName { get; set; } = "";
    public long Bytes { get; set; }
    public IntakeState State { get; set; }
    public string? Problem { get; set; }
    public string? SheetName { get; set; }

    /// <summary>First rows as they stand in the file, for the columns to be named by a person.</summary>
    public string[][] Sample { get; set; } = [];
    public bool HasHeader { get; set; }

    /// <summary>What each column holds, by the names of list columns; empty for one that is left out.</summary>
    public string[] Columns { get; set; } = [];
    public bool ColumnsChosen { get; set; }

    /// <summary>The columns that have something in them, counted from 0.</summary>
    public int[] UsedColumns { get; set; } = [];
    public string? DefaultCampaign { get; set; }
    public string? DefaultAdGroup { get; set; }
    public MatchType BareMatch { get; set; }
    public MatchType NegativeMatch { get; set; }

    /// <summary>What rows without an action ask for.</summary>
    public RowIntent Intent { get; set; } = RowIntent.AddAndChange;

    /// <summary>True when empty cells take optional values away.</summary>
    public bool EmptyClears { get; set; }

    /// <summary>True when the columns are as a person set them for a list with the same headers.</summary>
    public bool Remembered { get; set; }
    public long RowsRead { get; set; }

    /// <summary>Name of the encoding of a text, where it is another than UTF-8.</summary>
    public string? Encoding { get; set; }

    /// <summary>The working copy that the outcomes of the rows were found against.</summary>
    public long JudgedAtStep { get; set; }

    /// <summary>The step that kept it.</summary>
    public long? StepId { get; set; }
}

/// <summary>A piece of the file of an intake.</summary>
public sealed class IntakeFilePart
{
    public long IntakeId { get; set; }
    public int Part { get; set; }
    public byte[] Bytes { get; set; } = [];
}

public enum PublishState
{
    Running = 1,
    Done = 2,
    Interrupted = 3,

    /// <summary>A person gave up what was not sent, or published anew instead.</summary>
    Abandoned = 4,
}

/// <summary>One publish of the working copy.</summary>
public sealed class PublishRow
{
    public long Id { get; set; }
    public int AccountId { get; set; }
    public string PersonId { get; set; } = "";
    public DateTimeOffset MadeAt { get; set; }
    public PublishState State { get; set; }
    public string? Problem { get; set; }
    public int Total { get; set; }
    public int Accepted { get; set; }
    public int Refused { get; set; }

    /// <summary>Items that the network had in another version than was known.</summary>
    public int ChangedSince { get; set; }

    /// <summary>Items that were not sent since they are no longer as they were when the publish began.</summary>
    public int LeftOut { get; set; }

    /// <summary>Grows whenever the publish is taken up: who sends for an earlier round has lost it.</summary>
    public int Round { get; set; }

    /// <summary>Positions before this one may have been sent in this round.</summary>
    public int SentUpTo { get; set; }
}

public enum PublishOutcome
{
    Waiting = 0,
    Accepted = 1,
    Refused = 2,
    ChangedSince = 3,
    LeftOut = 4,
}

public sealed class PublishItem
{
    public long PublishId { get; set; }
    public int Position { get; set; }
    public ItemKind Kind { get; set; }
    public long ItemId { get; set; }
    public ChangeAction Action { get; set; }
    public JsonDocument? Sent { get; set; }
    public PublishOutcome Outcome { get; set; }
    public string? Reason { get; set; }
}

/// <summary>A sheet as somebody wants to see it again.</summary>
public sealed class SavedView
{
    public long Id { get; set; }
    public int AccountId { get; set; }
    public string PersonId { get; set; } = "";
    public string Name { get; set; } = "";

    /// <summary>Filter, order and columns as the front end keeps them.</summary>
    public JsonDocument Body { get; set; } = JsonDocument.Parse("{}");
}

/// <summary>What the columns of a list with these headers were last said to hold.</summary>
public sealed class IntakeMapping
{
    public int AccountId { get; set; }

    /// <summary>SHA-256 of the normalised headers.</summary>
    public string HeaderKey { get; set; } = "";
    public string[] Columns { get; set; } = [];
    public DateTimeOffset UsedAt { get; set; }
}

/// <summary>What somebody has asked to take out, until the file is fetched.</summary>
public sealed class OuttakeRow
{
    public Guid Id { get; set; }
    public int AccountId { get; set; }
    public string PersonId { get; set; } = "";
    public DateTimeOffset MadeAt { get; set; }

    /// <summary>Form of the file and what goes in.</summary>
    public JsonDocument Wish { get; set; } = JsonDocument.Parse("{}");
}

/// <summary>An item that somebody changed on the network itself, until it is decided whose version holds.</summary>
public sealed class LiveDifference
{
    public int AccountId { get; set; }
    public ItemKind Kind { get; set; }
    public long ItemId { get; set; }

    /// <summary>Published fields as both sides last agreed on them; none when the item was not there.</summary>
    public JsonDocument? Agreed { get; set; }

    /// <summary>Published fields as the network has them; none when it is gone there.</summary>
    public JsonDocument? Theirs { get; set; }

    /// <summary>Version of theirs.</summary>
    public long Version { get; set; }
    public DateTimeOffset FoundAt { get; set; }
}
