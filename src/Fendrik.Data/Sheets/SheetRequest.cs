using Fendrik.Core.Accounts;
using Fendrik.Data.Sheets.Conditions;

namespace Fendrik.Data.Sheets;

/// <summary>What a sheet shows: which rows, in which order, from where to where.</summary>
public sealed record SheetRequest
{
    /// <summary>The kind whose items are shown as a flat list; none for the outline.</summary>
    public ItemKind? Kind { get; init; }
    public long? CampaignId { get; init; }
    public long? AdGroupId { get; init; }

    /// <summary>Part of the text or name.</summary>
    public string? Text { get; init; }
    public ItemState? State { get; init; }
    public MatchType? Match { get; init; }

    /// <summary>Only what differs from the live copy.</summary>
    public bool Changed { get; init; }

    /// <summary>What was removed, ever, in place of what there is.</summary>
    public bool Removed { get; init; }

    /// <summary>Only what has a blocker or a caution.</summary>
    public bool Needs { get; init; }

    /// <summary>Only what a step made or changed, such as the last intake.</summary>
    public long? StepId { get; init; }

    /// <summary>Conditions that all have to hold.</summary>
    public IReadOnlyList<SheetCondition> Conditions { get; init; } = [];

    /// <summary>Only the negatives of one shared list.</summary>
    public long? ListId { get; init; }

    /// <summary>First and last day of the figures; when none are given, the last <see cref="FigureDays"/> reported days.</summary>
    public DateOnly? FiguresFrom { get; init; }
    public DateOnly? FiguresTo { get; init; }

    /// <summary>How many of the last reported days the figures are of.</summary>
    public int FigureDays { get; init; } = 28;

    /// <summary>Name of the field to sort a flat list by; see <see cref="SheetFields"/>.</summary>
    public string? Sort { get; init; }
    public bool Descending { get; init; }

    /// <summary>Campaigns and ad groups that are folded in the outline.</summary>
    public IReadOnlyList<long> FoldedCampaigns { get; init; } = [];
    public IReadOnlyList<long> FoldedAdGroups { get; init; } = [];

    /// <summary>Campaigns of which what they hold besides ad groups is folded in the outline.</summary>
    public IReadOnlyList<long> FoldedBesides { get; init; } = [];

    /// <summary>A look at a campaign: the sheet reads as it would be with what is proposed there. In the filter of a command it says nothing.</summary>
    public long? Variant { get; init; }

    /// <summary>Kinds shown inside ad groups in the outline; empty for all.</summary>
    public IReadOnlyList<ItemKind> Kinds { get; init; } = [];
    public int Offset { get; init; }
    public int Limit { get; init; } = 100;

    internal bool IsFiltered =>
        !string.IsNullOrWhiteSpace(Text)
        || State is not null
        || Match is not null
        || Changed
        || Removed
        || Needs
        || StepId is not null
        || Conditions.Count > 0;
}

/// <summary>How a row differs from the live copy.</summary>
public enum RowChange
{
    None = 0,
    New = 1,
    Edited = 2,
    Removed = 3,
}

/// <summary>The step that removed an item: the answer to "where did it go?".</summary>
public sealed record RowRemoval(long StepId, string Label, string Person, DateTimeOffset MadeAt);

/// <summary>Something a row needs.</summary>
public sealed record RowNeed(Core.Checks.Weight Weight, string Message, string Detail, string? Field);

/// <summary>One row of a sheet: an item of any kind with its values, what it takes from above, and where it stands.</summary>
public sealed record SheetRow
{
    public required ItemKind Kind { get; init; }
    public required long Id { get; init; }
    public required string Name { get; init; }

    /// <summary>Values by the names of the kind's fields; what is none is left out.</summary>
    public required IReadOnlyDictionary<string, object> Values { get; init; }

    /// <summary>Values that are taken from above because the item has none of its own.</summary>
    public required IReadOnlyDictionary<string, object> Inherited { get; init; }
    public required Level Level { get; init; }
    public long? CampaignId { get; init; }
    public string? Campaign { get; init; }
    public long? AdGroupId { get; init; }
    public string? AdGroup { get; init; }
    public long? ListId { get; init; }
    public string? List { get; init; }

    /// <summary>The step that wrote it last; an edit says which version it was made on.</summary>
    public required long Version { get; init; }
    public required RowChange Change { get; init; }

    /// <summary>How it differs from the working copy, where it is read as it was proposed.</summary>
    public RowChange Proposed { get; set; }
    public required ReviewState Review { get; init; }
    public string? ReviewReason { get; init; }

    /// <summary>In the outline, number of rows inside.</summary>
    public long? Inside { get; init; }

    /// <summary>No item but the heading of those below it, which folds them; its identity is that of the campaign, negated.</summary>
    public bool IsHeading { get; init; }
    public IReadOnlyList<RowNeed> Needs { get; set; } = [];
    public RowFigures? Figures { get; set; }

    /// <summary>How it was removed; none for what is there.</summary>
    public RowRemoval? Removal { get; set; }
}

/// <summary>What an item brought in the period, with what follows from it.</summary>
public sealed record RowFigures(
    long Impressions,
    long Clicks,
    decimal Cost,
    decimal Conversions,
    decimal Value,
    decimal? Ctr,
    decimal? Cpc,
    decimal? ConversionRate,
    decimal? CostPerConversion
)
{
    internal static RowFigures Of(Core.Reporting.Figures figures) =>
        new(
            figures.Impressions,
            figures.Clicks,
            figures.Cost,
            figures.Conversions,
            figures.Value,
            figures.ClickThroughRate,
            figures.AverageCpc,
            figures.ConversionRate,
            figures.CostPerConversion
        );
}

/// <summary>Rows of a sheet. How many there are in all is left out where it would have to be counted first.</summary>
public sealed record SheetPage(long? Total, IReadOnlyList<SheetRow> Rows, IReadOnlyList<KindCount> Counts);

/// <summary>How many rows a sheet has, and of which kinds.</summary>
public sealed record SheetCount(long Total, IReadOnlyList<KindCount> Counts);

/// <summary>How many items of a kind there are.</summary>
public sealed record KindCount(ItemKind Kind, long Count);
