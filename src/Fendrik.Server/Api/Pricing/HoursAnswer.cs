namespace Fendrik.Server.Api.Pricing;

/// <summary>A campaign with its hours.</summary>
/// <param name="Id">The campaign.</param>
/// <param name="Version">Its version, against which edits hold.</param>
/// <param name="Name">Its name.</param>
/// <param name="IsPaused">True where it is paused.</param>
/// <param name="Plan">Its hours as they are kept; none for always.</param>
/// <param name="Hours">Hours of the week in which it shows.</param>
/// <param name="Share">Their share of the week: 0 to 1.</param>
/// <param name="IsLikeShown">True where they are those that the grid shows.</param>
public sealed record HoursCampaign(
    long Id,
    long Version,
    string Name,
    bool IsPaused,
    string? Plan,
    decimal Hours,
    decimal Share,
    bool IsLikeShown
);

/// <summary>A quarter of an hour of the week.</summary>
/// <param name="Shows">Whether ads show.</param>
/// <param name="Modifier">Per cent more or less; 0 for as it is.</param>
/// <param name="Answered">Whether somebody takes calls; true where nobody said when.</param>
public sealed record WeekQuarter(bool Shows, decimal Modifier, bool Answered);

/// <summary>An hour of the week.</summary>
/// <param name="Day">The day.</param>
/// <param name="Hour">Hour of the clock on the wall.</param>
/// <param name="Quarters">Its four quarters, by the first of the chosen campaigns.</param>
/// <param name="Differs">True where the chosen campaigns are not alike in it.</param>
/// <param name="Says">In words.</param>
/// <param name="Figures">What it brought.</param>
/// <param name="Answered">Calls in it that somebody answered, over all weeks.</param>
/// <param name="Missed">Calls in it that nobody answered, or to an engaged line.</param>
public sealed record WeekHour(
    DayOfWeek Day,
    int Hour,
    IReadOnlyList<WeekQuarter> Quarters,
    bool Differs,
    string Says,
    PricingFigures Figures,
    int Answered,
    int Missed
);

/// <summary>Hours in which ads with a number show and nobody takes calls.</summary>
/// <param name="Hours">Such hours of the week, by the first of the chosen campaigns.</param>
/// <param name="Cost">What was spent in them, whole hours alone.</param>
/// <param name="ShareOfCost">Its share of all.</param>
public sealed record UnansweredHours(decimal Hours, decimal Cost, decimal ShareOfCost);

/// <summary>A day that has not 24 hours.</summary>
public sealed record OddDay(DateOnly Day, int Hours);

/// <summary>The week of some campaigns.</summary>
/// <param name="First">First day of the figures; none before anything was reported.</param>
/// <param name="Last">The last.</param>
/// <param name="Campaigns">All campaigns.</param>
/// <param name="More">True where there are more campaigns than these.</param>
/// <param name="Chosen">Those that the grid is of.</param>
/// <param name="Week">All hours from Monday at midnight on.</param>
/// <param name="Total">Figures of the chosen campaigns.</param>
/// <param name="AccountItemId">The item of the account as a whole, which keeps when somebody takes calls.</param>
/// <param name="AccountVersion">Its version, against which edits hold.</param>
/// <param name="AnsweringHours">When somebody takes calls; none where nobody said.</param>
/// <param name="Unanswered">Hours shown in which nobody does; none where nobody said when.</param>
/// <param name="OddDays">The next days with another number of hours than 24.</param>
public sealed record HoursAnswer(
    DateOnly? First,
    DateOnly? Last,
    IReadOnlyList<HoursCampaign> Campaigns,
    bool More,
    IReadOnlyList<long> Chosen,
    IReadOnlyList<WeekHour> Week,
    PricingFigures Total,
    long AccountItemId,
    long AccountVersion,
    string? AnsweringHours,
    UnansweredHours? Unanswered,
    IReadOnlyList<OddDay> OddDays
);

/// <summary>A calendar file.</summary>
public sealed record CalendarRequest(string Text);

/// <summary>The hours that a calendar says.</summary>
/// <param name="Plan">As they are kept; empty for always.</param>
/// <param name="Hours">Hours of the week.</param>
/// <param name="Share">Their share of the week: 0 to 1.</param>
public sealed record CalendarAnswer(string Plan, decimal Hours, decimal Share);

/// <summary>The week that is asked for.</summary>
/// <param name="Campaigns">The campaigns; none for all.</param>
/// <param name="Weeks">Weeks of figures.</param>
public sealed record HoursRequest(IReadOnlyList<long> Campaigns, int Weeks);
