using Dapper;
using Fendrik.Core.Bidding;

namespace Fendrik.Data.Tracing;

/// <summary>A campaign of the working copy as it is read.</summary>
[method: ExplicitConstructor]
internal sealed record CampaignRow(
    long Id,
    string Name,
    ItemState State,
    decimal? DailyBudget,
    DateOnly? StartDate,
    DateOnly? EndDate,
    SiteKinds Networks,
    string? TrackingTemplate,
    AdRotation Rotation,
    string? Hours,
    decimal? DesktopModifier,
    decimal? PhoneModifier,
    decimal? TabletModifier,
    BudgetDelivery Delivery,
    PlaceReach People,
    BidStrategy Strategy,
    decimal? TargetCpa,
    decimal? TargetRoas,
    decimal? LowestBid,
    decimal? HighestBid,
    string? Languages,
    decimal? TotalBudget,
    string? Goals
)
{
    /// <summary>What is read of it.</summary>
    public const string Columns =
        "id, name, state, daily_budget, start_date, end_date, networks, tracking_template, rotation, hours, desktop_modifier, phone_modifier, tablet_modifier, delivery, people, strategy::int as strategy, target_cpa, target_roas, lowest_bid, highest_bid, languages, total_budget, goals";

    /// <summary>The campaign as it is served.</summary>
    public Campaign Campaign =>
        new(
            Id,
            Name,
            State,
            DailyBudget,
            StartDate,
            EndDate,
            Networks,
            TrackingTemplate,
            Rotation,
            Hours is null ? null : WeekPlan.Of(Hours),
            DesktopModifier,
            PhoneModifier,
            TabletModifier,
            Delivery,
            People,
            Strategy,
            TargetCpa,
            TargetRoas,
            LowestBid,
            HighestBid,
            Languages,
            TotalBudget,
            Goals
        );
}
