using Fendrik.Core.AdText;
using Fendrik.Core.Changes;
using Fendrik.Data.Publishing;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Server.Api;

/// <summary>One item before and after, field by field; a copy and what it was copied of, likewise.</summary>
public sealed record ChangeLine(
    ItemKind Kind,
    long Id,
    string Name,
    string? Campaign,
    string? AdGroup,
    RowChange Change,
    IReadOnlyList<FieldDifference> Differences,
    string? ReviewReason,
    bool IsHeld = false,
    SeenAd? Ad = null,
    string? CopyOf = null
);

/// <summary>What a command did or would do.</summary>
public sealed record CommandAnswer(
    long? StepId,
    string Label,
    int Items,
    IReadOnlyList<RefusedItem> Refused,
    int RefusedCount,
    IReadOnlyList<ChangeLine> Changes,
    IReadOnlyList<StepWarning> Warnings,
    long AsOf
);

/// <summary>An item that somebody changed while another edited it: what differs from what the other saw.</summary>
public sealed record EditConflict(
    ItemKind Kind,
    long Id,
    string Name,
    string Person,
    string Label,
    long Version,
    IReadOnlyList<FieldDifference> Differences
);

/// <summary>What differs between two moments.</summary>
public sealed record ComparisonAnswer(int Total, IReadOnlyList<ChangeLine> Lines);

/// <summary>What differs from the live copy.</summary>
/// <param name="Counts">By kind and by how.</param>
/// <param name="Lines">The first of them.</param>
/// <param name="GoesOut">How many a publish would send as things stand.</param>
/// <param name="Held">How many are held back.</param>
/// <param name="AsOf">The newest step when they were read, or one before.</param>
public sealed record PendingAnswer(
    IReadOnlyList<PendingCount> Counts,
    IReadOnlyList<ChangeLine> Lines,
    long GoesOut,
    long Held,
    long AsOf
);
