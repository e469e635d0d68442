using Fendrik.Core.Checks;
using Fendrik.Core.Tracking.Conversions;

namespace Fendrik.Server.Api.Conversions;

/// <summary>A conversion action with what it counted.</summary>
/// <param name="Id">The action.</param>
/// <param name="Version">Its version, against which edits hold.</param>
/// <param name="Name">Its name.</param>
/// <param name="IsPaused">True when it counts nothing.</param>
/// <param name="Counts">What it counts, in words.</param>
/// <param name="Where">Where; none for anywhere.</param>
/// <param name="Value">What one is worth; none where that is sent or said later.</param>
/// <param name="AverageSale">What a customer pays on average; none where nobody said.</param>
/// <param name="ClosingRate">How many of a hundred become customers; none likewise.</param>
/// <param name="Margin">How much of a hundred of the sale is left; none likewise.</param>
/// <param name="Days">Conversions by the day of the click, in the order of the days.</param>
/// <param name="Conversions">All of them.</param>
/// <param name="Worth">What they are worth.</param>
/// <param name="Steers">True when strategies may learn from it.</param>
/// <param name="SteersNow">Which strategies do, in words; none when none does.</param>
/// <param name="IsAccountGoal">True when it counts in campaigns without goals of their own.</param>
/// <param name="Health">How it stands, in words.</param>
/// <param name="Weight">How much that weighs; none where all is well.</param>
public sealed record ConversionActionAnswer(
    long Id,
    long Version,
    string Name,
    bool IsPaused,
    string Counts,
    string? Where,
    decimal? Value,
    decimal? AverageSale,
    decimal? ClosingRate,
    decimal? Margin,
    IReadOnlyList<decimal> Days,
    decimal Conversions,
    decimal Worth,
    bool Steers,
    string? SteersNow,
    bool IsAccountGoal,
    string Health,
    Weight? Weight
);

/// <summary>The goals of a campaign.</summary>
/// <param name="Id">The campaign.</param>
/// <param name="Version">Its version, against which edits hold.</param>
/// <param name="Name">Its name.</param>
/// <param name="IsPaused">True when it is paused.</param>
/// <param name="HasOwn">True when it has goals of its own.</param>
/// <param name="ActionIds">The actions that count.</param>
/// <param name="Weight">How much the heaviest finding about it weighs; none without one.</param>
public sealed record CampaignGoals(
    long Id,
    long Version,
    string Name,
    bool IsPaused,
    bool HasOwn,
    IReadOnlyList<long> ActionIds,
    Weight? Weight
);

/// <summary>A day whose conversions are still coming in.</summary>
/// <param name="Day">The day of the clicks.</param>
/// <param name="SoFar">Clicks that led to a conversion, as far as is told.</param>
/// <param name="Final">What they are expected to come to; none where too little is known.</param>
/// <param name="Told">Share that is told of by now, from 0 to 1; none likewise.</param>
public sealed record OpenDayAnswer(DateOnly Day, double SoFar, double? Final, double? Told);

/// <summary>How long conversions take.</summary>
/// <param name="Says">In sentences.</param>
/// <param name="Days">The days that are still coming in, the latest first.</param>
public sealed record DelayAnswer(string Says, IReadOnlyList<OpenDayAnswer> Days);

/// <summary>The conversions of an account.</summary>
/// <param name="First">First day; none before anything is reported.</param>
/// <param name="Last">Last day.</param>
/// <param name="Actions">The actions.</param>
/// <param name="Campaigns">The goals of campaigns.</param>
/// <param name="More">True when there are more campaigns than are listed.</param>
/// <param name="Findings">What an audit found, the heaviest first.</param>
/// <param name="Delay">How long conversions take.</param>
/// <param name="Tag">The network's tag, as it is put on a page.</param>
/// <param name="PagesRead">How many landing pages were read: tags are known of these alone.</param>
public sealed record ConversionsAnswer(
    DateOnly? First,
    DateOnly? Last,
    IReadOnlyList<ConversionActionAnswer> Actions,
    IReadOnlyList<CampaignGoals> Campaigns,
    bool More,
    IReadOnlyList<AuditFinding> Findings,
    DelayAnswer? Delay,
    string Tag,
    int PagesRead
);

/// <summary>What a lead is worth.</summary>
/// <param name="Value">The value, which is also what it may cost.</param>
/// <param name="Says">How it comes about.</param>
public sealed record WorthAnswer(decimal Value, string Says);

/// <summary>The past of a campaign under two sets of goals.</summary>
/// <param name="Now">Under the goals that it has.</param>
/// <param name="NowNames">These, in words.</param>
/// <param name="Then">Under the others.</param>
/// <param name="ThenNames">These, in words.</param>
/// <param name="Days">How many days.</param>
/// <param name="IsSame">True when the two are the same.</param>
/// <param name="Earlier">What is to be said of conversions from before there was an action; none without any.</param>
public sealed record GoalsAnswer(
    GoalReading Now,
    string NowNames,
    GoalReading Then,
    string ThenNames,
    int Days,
    bool IsSame,
    string? Earlier
);
