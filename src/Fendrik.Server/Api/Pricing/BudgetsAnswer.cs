using Fendrik.Core.Budgets;

namespace Fendrik.Server.Api.Pricing;

/// <summary>From where to where an amount or a number may well lie.</summary>
public sealed record RangeAnswer(decimal Low, decimal Likely, decimal High);

/// <summary>A day of the month.</summary>
/// <param name="Day">The day.</param>
/// <param name="Sum">What the month cost, or is likely to have cost, at its end.</param>
public sealed record MonthDay(DateOnly Day, RangeAnswer Sum);

/// <summary>The month that the account is in.</summary>
/// <param name="ItemId">The item that keeps its budget.</param>
/// <param name="Version">Its version, against which edits hold.</param>
/// <param name="Budget">What may be spent in a month; none where nobody said.</param>
/// <param name="Says">What was spent and what is likely, in words.</param>
/// <param name="Rest">What follows for the rest of it, in words.</param>
/// <param name="Past">Days that are over.</param>
/// <param name="ToCome">Days to come; none without a forecast.</param>
public sealed record MonthAnswer(
    long ItemId,
    long Version,
    decimal? Budget,
    string Says,
    string? Rest,
    IReadOnlyList<MonthDay> Past,
    IReadOnlyList<MonthDay> ToCome
);

/// <summary>A campaign and its budget.</summary>
/// <param name="Id">The campaign.</param>
/// <param name="Version">Its version, against which edits hold.</param>
/// <param name="Name">Its name.</param>
/// <param name="IsPaused">True where it is paused.</param>
/// <param name="Budget">Its daily budget.</param>
/// <param name="Spends">What it spends on a usual day.</param>
/// <param name="Could">What it could spend with a budget that reaches for everything.</param>
/// <param name="RanOutAt">When its budget usually ran out; none where it never did.</param>
/// <param name="RanOut">On how many days it did, in words.</param>
/// <param name="LostToBudget">Share of its searches that the budget missed: 0 to 1; none without searches.</param>
/// <param name="LostToRank">Share of its searches in which its bids won no place.</param>
/// <param name="CostPerConversion">What a conversion costs.</param>
/// <param name="NextConversion">What another conversion costs with a little more to spend; none where the budget holds nothing back.</param>
/// <param name="Says">What its budget does to it.</param>
public sealed record BudgetRow(
    long Id,
    long Version,
    string Name,
    bool IsPaused,
    decimal? Budget,
    decimal Spends,
    decimal Could,
    string? RanOutAt,
    string RanOut,
    decimal? LostToBudget,
    decimal? LostToRank,
    decimal? CostPerConversion,
    decimal? NextConversion,
    string Says
);

/// <summary>The budgets of an account.</summary>
/// <param name="First">First day of the figures; none before anything was reported.</param>
/// <param name="Last">The last.</param>
/// <param name="Month">The month.</param>
/// <param name="Campaigns">The campaigns, the dearest first.</param>
/// <param name="More">True where there are more than these.</param>
public sealed record BudgetsAnswer(
    DateOnly? First,
    DateOnly? Last,
    MonthAnswer Month,
    IReadOnlyList<BudgetRow> Campaigns,
    bool More
);

/// <summary>An hour of a campaign's day.</summary>
/// <param name="Hour">The hour.</param>
/// <param name="Spent">What was spent in it, on a usual day where there are several.</param>
/// <param name="Missed">What the searches would have cost that the budget missed.</param>
/// <param name="Searches">How many searches those were, over all of the days.</param>
public sealed record BudgetHourAnswer(int Hour, decimal Spent, decimal Missed, long Searches);

/// <summary>An ad group's share of a budget.</summary>
/// <param name="Id">The ad group.</param>
/// <param name="Name">Its name.</param>
/// <param name="Share">Its share of what was spent: 0 to 1.</param>
/// <param name="CouldHave">What it could have spent, as a share of what was.</param>
/// <param name="CostPerConversion">What its conversions cost.</param>
/// <param name="Verdict">What that says.</param>
/// <param name="Says">The same in a sentence; none where nothing is to be said.</param>
public sealed record GroupShareAnswer(
    long Id,
    string Name,
    decimal Share,
    decimal CouldHave,
    decimal? CostPerConversion,
    SpreadVerdict Verdict,
    string? Says
);

/// <summary>A split that is proposed.</summary>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="AdGroup">Its name.</param>
/// <param name="Name">A name for the new campaign.</param>
/// <param name="Budget">The new campaign's daily budget, as it is typed.</param>
/// <param name="Rest">What the campaign keeps, as it is typed.</param>
/// <param name="Gain">Conversions more in a week.</param>
public sealed record SplitAnswer(
    long AdGroupId,
    string AdGroup,
    string Name,
    string Budget,
    string Rest,
    RangeAnswer Gain
);

/// <summary>One campaign's budget.</summary>
/// <param name="Version">Version of the campaign, against which edits hold.</param>
/// <param name="Days">The days that can be looked at, the newest first.</param>
/// <param name="Hours">Its hours, of one day or of a usual one.</param>
/// <param name="EffectiveNumber">The effective number of its ad groups; none where nothing was spent.</param>
/// <param name="Groups">Its ad groups, the dearest first.</param>
/// <param name="Split">A split that is proposed.</param>
public sealed record CampaignBudget(
    long Version,
    IReadOnlyList<DateOnly> Days,
    IReadOnlyList<BudgetHourAnswer> Hours,
    decimal? EffectiveNumber,
    IReadOnlyList<GroupShareAnswer> Groups,
    SplitAnswer? Split
);

/// <summary>A campaign's budget in a plan.</summary>
/// <param name="CampaignId">The campaign.</param>
/// <param name="Budget">The budget that is thought of, as it is typed; none to let it give or get.</param>
public sealed record PlannedInput(long CampaignId, string? Budget);

/// <summary>Budgets that are thought of.</summary>
/// <param name="Weeks">Weeks of figures.</param>
/// <param name="Budgets">The campaigns of the plan.</param>
/// <param name="KeepsSum">True where money only moves among them.</param>
/// <param name="Proposes">True to be told the budgets of the same sum that bring most.</param>
/// <param name="OtherAccountId">Another account of the same currency whose running campaigns are planned with them; none for one account alone.</param>
/// <param name="Elsewhere">The budgets that are thought of there.</param>
public sealed record PlanRequest(
    int Weeks,
    IReadOnlyList<PlannedInput> Budgets,
    bool KeepsSum,
    bool Proposes,
    int? OtherAccountId = null,
    IReadOnlyList<PlannedInput>? Elsewhere = null
);

/// <summary>A campaign's budget in a plan.</summary>
/// <param name="AccountId">The account that it is in.</param>
/// <param name="Id">The campaign.</param>
/// <param name="Version">Its version, against which edits hold.</param>
/// <param name="Name">Its name.</param>
/// <param name="Now">Its daily budget now.</param>
/// <param name="Then">Its daily budget then, as it is typed.</param>
/// <param name="Differs">True where the two differ.</param>
/// <param name="Problem">Why what was typed cannot be; none where it can.</param>
public sealed record PlannedBudget(
    int AccountId,
    long Id,
    long Version,
    string Name,
    decimal? Now,
    string Then,
    bool Differs,
    string? Problem
);

/// <summary>What a plan changes in a week.</summary>
/// <param name="ClicksNow">Clicks of a usual week.</param>
/// <param name="Clicks">Clicks then.</param>
/// <param name="CostNow">Cost of a usual week.</param>
/// <param name="Cost">Cost then.</param>
/// <param name="ConversionsNow">Conversions of a usual week.</param>
/// <param name="Conversions">Conversions then.</param>
/// <param name="CostPerConversionNow">What a conversion costs.</param>
/// <param name="CostPerConversion">What it costs then; none where there may be none.</param>
/// <param name="RestsOn">What that rests on, in sentences.</param>
public sealed record PlanEffect(
    decimal ClicksNow,
    RangeAnswer Clicks,
    decimal CostNow,
    RangeAnswer Cost,
    decimal ConversionsNow,
    RangeAnswer Conversions,
    decimal? CostPerConversionNow,
    RangeAnswer? CostPerConversion,
    string RestsOn
);

/// <summary>Budgets that are thought of, and what they would change.</summary>
/// <param name="Budgets">The budgets.</param>
/// <param name="Now">Their sum now.</param>
/// <param name="Then">Their sum then.</param>
/// <param name="Problem">Why the plan cannot be done; none where it can.</param>
/// <param name="Effect">What it would change; none where nothing changes or nothing is known.</param>
public sealed record PlanAnswer(
    IReadOnlyList<PlannedBudget> Budgets,
    decimal Now,
    decimal Then,
    string? Problem,
    PlanEffect? Effect
);
