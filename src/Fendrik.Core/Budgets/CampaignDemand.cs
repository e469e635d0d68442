using Fendrik.Core.Reporting;

namespace Fendrik.Core.Budgets;

/// <summary>An ad group on a day: how it stood, and what came of it.</summary>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="Standing">How it stood.</param>
/// <param name="Figures">What came of it.</param>
public sealed record GroupDay(long AdGroupId, DateOnly Day, Standing Standing, Figures Figures);

/// <summary>A day of a campaign.</summary>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="Got">What it brought.</param>
/// <param name="Missed">What the searches that the budget missed would have brought besides.</param>
/// <param name="Budget">The budget that it had; none where that is not known.</param>
public sealed record DemandDay(DateOnly Day, Outcome Got, Outcome Missed, decimal? Budget = null)
{
    /// <summary>What the day would have cost with a budget that reaches for everything.</summary>
    public double Demand => Got.Cost + Missed.Cost;

    /// <summary>What the day would have cost with so much to spend, parted into what it had and what it missed.</summary>
    internal (double Got, double Missed) SpentWith(double money)
    {
        return (Math.Min(money, Got.Cost), Math.Clamp(money - Got.Cost, 0, Missed.Cost));
    }
}

/// <summary>An ad group over the days.</summary>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="Standing">How it stood.</param>
/// <param name="Figures">What came of it.</param>
/// <param name="Missed">What the searches that the budget missed would have brought besides.</param>
/// <param name="Rates">What its searches bring, drawn towards the campaign.</param>
public sealed record GroupDemand(
    long AdGroupId,
    Standing Standing,
    Figures Figures,
    Outcome Missed,
    SearchRates? Rates
);

/// <summary>
/// What a campaign brought day by day, and what searches would have brought that its budget missed: each ad group's missed searches at what its searches
/// bring, whether they win a place or not.
/// </summary>
public sealed class CampaignDemand
{
    private CampaignDemand(IReadOnlyList<DemandDay> days, IReadOnlyList<GroupDemand> groups)
    {
        (Days, Groups) = (days, groups);
        Standing = groups.Aggregate(Standing.Zero, (sum, each) => sum + each.Standing);
        Figures = groups.Aggregate(Figures.Zero, (sum, each) => sum + each.Figures);
        Missed = groups.Aggregate(default(Outcome), (sum, each) => sum + each.Missed);
    }

    /// <summary>Each day from the first on which anybody searched to the last that is reported; days without a search among them.</summary>
    public IReadOnlyList<DemandDay> Days { get; }

    /// <summary>The ad groups that somebody searched for.</summary>
    public IReadOnlyList<GroupDemand> Groups { get; }

    /// <summary>How the campaign stood.</summary>
    public Standing Standing { get; }

    /// <summary>What came of it.</summary>
    public Figures Figures { get; }

    /// <summary>What the searches that the budget missed would have brought besides.</summary>
    public Outcome Missed { get; }

    /// <summary>True where the budget missed searches, but nothing is known of what they would have brought: nobody clicked yet.</summary>
    public bool IsUnknown => Standing.LostToBudget > 0 && Groups.All(group => group.Rates is null);

    /// <summary>Reckons the demand of a campaign.</summary>
    /// <param name="cells">Its ad groups by day.</param>
    /// <param name="last">The last day that is reported.</param>
    /// <param name="account">What searches bring in the whole account: a campaign in which nothing was sold yet is drawn towards it.</param>
    /// <param name="budgets">The budgets of days, as far as they are known.</param>
    public static CampaignDemand Of(
        IReadOnlyCollection<GroupDay> cells,
        DateOnly last,
        SearchRates? account,
        IReadOnlyDictionary<DateOnly, decimal?>? budgets = null
    )
    {
        var standing = cells.Aggregate(Standing.Zero, (sum, each) => sum + each.Standing);
        var figures = cells.Aggregate(Figures.Zero, (sum, each) => sum + each.Figures);
        var whole = account?.OfPart(standing, figures) ?? SearchRates.Of(standing, figures);
        var groups = cells
            .GroupBy(cell => cell.AdGroupId)
            .Select(days =>
            {
                var stood = days.Aggregate(Standing.Zero, (sum, each) => sum + each.Standing);
                var brought = days.Aggregate(Figures.Zero, (sum, each) => sum + each.Figures);
                var rates = whole?.OfPart(stood, brought);
                return new GroupDemand(days.Key, stood, brought, rates?.Of(stood.LostToBudget) ?? default, rates);
            })
            .ToArray();
        var ratesOf = groups.ToDictionary(group => group.AdGroupId, group => group.Rates);
        var byDay = cells
            .GroupBy(cell => cell.Day)
            .ToDictionary(
                day => day.Key,
                day =>
                    (
                        Got: Outcome.Of(day.Aggregate(Figures.Zero, (sum, each) => sum + each.Figures)),
                        Missed: day.Aggregate(
                            default(Outcome),
                            (sum, each) => sum + (ratesOf[each.AdGroupId]?.Of(each.Standing.LostToBudget) ?? default)
                        )
                    )
            );
        var first = byDay.Count == 0 ? last.AddDays(1) : byDay.Keys.Min();
        return new CampaignDemand(
            [
                .. Enumerable
                    .Range(0, Math.Max(0, last.DayNumber - first.DayNumber + 1))
                    .Select(first.AddDays)
                    .Select(day =>
                        byDay.TryGetValue(day, out var of)
                            ? new DemandDay(day, of.Got, of.Missed, budgets?.GetValueOrDefault(day))
                            : new DemandDay(day, default, default)
                    ),
            ],
            groups
        );
    }
}
