namespace Fendrik.Core.Budgets;

/// <summary>What other budgets make of a week.</summary>
/// <param name="Now">What a usual week brings with the budgets that hold.</param>
/// <param name="Clicks">Clicks of a week then.</param>
/// <param name="Cost">What they cost.</param>
/// <param name="Conversions">Conversions of a week then.</param>
/// <param name="CostPerConversion">What a conversion costs then; none where there may be none.</param>
public sealed record BudgetForecast(
    Outcome Now,
    LikelyRange Clicks,
    LikelyRange Cost,
    LikelyRange Conversions,
    LikelyRange? CostPerConversion
)
{
    /// <summary>Days for which a change of budgets is forecast.</summary>
    public const int Days = 7;

    /// <summary>What changing budgets makes of a week.</summary>
    /// <param name="campaigns">The campaigns, each with its budget then.</param>
    public static BudgetForecast Of(IReadOnlyCollection<(FundedCampaign Campaign, decimal Then)> campaigns)
    {
        var now = campaigns.Aggregate(
            default(Outcome),
            (sum, each) => sum + each.Campaign.Curve.PerDay(each.Campaign.Now) * Days
        );
        var effect = campaigns.Aggregate(
            default(BudgetEffect),
            (sum, each) => sum + each.Campaign.Curve.Change(each.Campaign.Now, each.Then, Days)
        );
        var then = now + effect.Mean;
        var conversions = LikelyRange.Of(then.Conversions, Math.Sqrt(effect.ConversionsVariance)).AtLeast(0);
        return new BudgetForecast(
            now,
            LikelyRange.Of(then.Clicks, Math.Sqrt(effect.ClicksVariance)).AtLeast(0),
            LikelyRange.Of(then.Cost, Math.Sqrt(effect.CostVariance)).AtLeast(0),
            conversions,
            conversions.Low > 0
                ? new LikelyRange(
                    then.Cost / conversions.High,
                    then.Cost / conversions.Likely,
                    then.Cost / conversions.Low
                )
                : null
        );
    }
}
