namespace Fendrik.Core.Reporting.Breakdowns;

/// <summary>By what figures can be told apart.</summary>
public enum Breakdown
{
    /// <summary>Campaign.</summary>
    Campaign = 1,

    /// <summary>Ad group.</summary>
    AdGroup = 2,

    /// <summary>Keyword.</summary>
    Keyword = 3,

    /// <summary>Day.</summary>
    Day = 4,

    /// <summary>Week from Monday (ISO 8601).</summary>
    Week = 5,

    /// <summary>Month of the calendar.</summary>
    Month = 6,

    /// <summary>Day of the week.</summary>
    Weekday = 7,

    /// <summary>Hour of the account's clock.</summary>
    Hour = 8,

    /// <summary>Device.</summary>
    Device = 9,

    /// <summary>Kind of site.</summary>
    Site = 10,

    /// <summary>Match type of the keyword.</summary>
    Match = 11,

    /// <summary>Where people were, and whether they were reached there or for an interest in one of the campaign's places.</summary>
    Place = 12,

    /// <summary>How old they are.</summary>
    Age = 13,

    /// <summary>Women or men.</summary>
    Gender = 14,

    /// <summary>What of the ad was clicked.</summary>
    Click = 15,

    /// <summary>Whether a rival showed on the same page.</summary>
    Rival = 16,

    /// <summary>What counted the conversion.</summary>
    Action = 17,
}

/// <summary>Which reports know of it.</summary>
public enum BreakdownSource
{
    /// <summary>All of them: a campaign, an ad group, a day.</summary>
    All = 1,

    /// <summary>What each keyword brought by device and hour.</summary>
    Performance = 2,

    /// <summary>What each segment of people brought; each kind of segment is reported by itself.</summary>
    Segments = 3,

    /// <summary>Conversions, one by one.</summary>
    Conversions = 4,
}
