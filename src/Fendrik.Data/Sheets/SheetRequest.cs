using Fendrik.Core.Accounts;

namespace Fendrik.Data.Sheets;

/// <summary>How the sheet is laid out.</summary>
public enum SheetView
{
    /// <summary>Campaigns, their ad groups, and what is in them.</summary>
    Outline = 0,

    /// <summary>Campaigns as a flat list.</summary>
    Campaigns = 1,

    /// <summary>Ad groups as a flat list.</summary>
    AdGroups = 2,

    /// <summary>Keywords as a flat list.</summary>
    Keywords = 3,

    /// <summary>Negatives as a flat list.</summary>
    Negatives = 4,

    /// <summary>Ads as a flat list.</summary>
    Ads = 5,

    /// <summary>Shared negative lists as a flat list.</summary>
    Lists = 6,
}

/// <summary>What a sheet shows: which rows, in which order, from where to where.</summary>
public sealed record SheetRequest
{
    public SheetView View { get; init; }
    public long? CampaignId { get; init; }
    public long? AdGroupId { get; init; }

    /// <summary>Part of the text or name.</summary>
    public string? Text { get; init; }
    public ItemState? State { get; init; }
    public MatchType? Match { get; init; }

    /// <summary>Only what differs from the live copy.</summary>
    public bool Changed { get; init; }

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

    /// <summary>Kinds shown inside ad groups in the outline; empty for all.</summary>
    public IReadOnlyList<ItemKind> Kinds { get; init; } = [];
    public int Offset { get; init; }
    public int Limit { get; init; } = 100;

    internal bool IsFiltered =>
        !string.IsNullOrWhiteSpace(Text)
        || State is not null
        || Match is not null
        || Changed
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

/// <summary>Something a row needs.</summary>
public sealed record RowNeed(Core.Changes.Weight Weight, string Message, string Detail, string? Field);

/// <summary>One row of the sheet. Which fields are filled depends on its kind.</summary>
public sealed record SheetRow
{
    public required ItemKind Kind { get; init; }
    public required long Id { get; init; }
    public required string Name { get; init; }
    public MatchType? Match { get; init; }
    public ItemState? State { get; init; }
    public decimal? MaxCpc { get; init; }

    /// <summary>The ad group's max CPC, where a keyword has none of its own.</summary>
    public decimal? InheritedMaxCpc { get; init; }
    public decimal? DailyBudget { get; init; }
    public DateOnly? StartDate { get; init; }
    public DateOnly? EndDate { get; init; }
    public SiteKinds? Networks { get; init; }
    public string? FinalUrl { get; init; }
    public string[]? Headlines { get; init; }
    public string[]? Descriptions { get; init; }
    public string[]? DisplayPath { get; init; }
    public Device? DevicePreference { get; init; }
    public required string[] Labels { get; init; }

    /// <summary>None for a shared list and what is in it.</summary>
    public long? CampaignId { get; init; }
    public string? Campaign { get; init; }
    public long? AdGroupId { get; init; }
    public string? AdGroup { get; init; }
    public long? ListId { get; init; }
    public string? List { get; init; }

    /// <summary>The campaigns that share a list.</summary>
    public long[]? CampaignIds { get; init; }

    /// <summary>The step that wrote the row last: an edit says which version it was made on.</summary>
    public required long Version { get; init; }
    public required RowChange Change { get; init; }
    public required ReviewState Review { get; init; }
    public string? ReviewReason { get; init; }

    /// <summary>Number of rows folded away or shown below a campaign or ad group.</summary>
    public long? Inside { get; init; }
    public required IReadOnlyList<RowNeed> Needs { get; set; }
    public long? Impressions { get; set; }
    public long? Clicks { get; set; }
    public decimal? Cost { get; set; }
    public decimal? Conversions { get; set; }
    public decimal? Value { get; set; }
    public decimal? CostPerConversion { get; set; }
}

/// <summary>A window of the sheet.</summary>
public sealed record SheetPage(long Total, IReadOnlyList<SheetRow> Rows, SheetCounts Counts);

/// <summary>How many items the filter lets through.</summary>
public sealed record SheetCounts(
    long Campaigns,
    long AdGroups,
    long Keywords,
    long Negatives,
    long Ads,
    long Lists = 0
);
