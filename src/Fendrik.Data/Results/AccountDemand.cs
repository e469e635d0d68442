using Fendrik.Core.Budgets;
using Fendrik.Core.Reporting;

namespace Fendrik.Data.Results;

/// <summary>A campaign with what it may spend, spent, and could have spent.</summary>
/// <param name="Campaign">The campaign.</param>
/// <param name="Demand">What it brought and missed.</param>
/// <param name="Curve">What it brings with any budget.</param>
/// <param name="RanOut">When its budget ran out.</param>
/// <param name="Recent">Its days of the last weeks, the same whatever period is looked at: what a month's forecast rests on.</param>
public sealed record CampaignMoney(
    BudgetedCampaign Campaign,
    CampaignDemand Demand,
    BudgetCurve Curve,
    RunningOut RanOut,
    CampaignDemand Recent
);

/// <summary>The money of an account.</summary>
/// <param name="Days">The days from which it is reckoned; none before anything was reported.</param>
/// <param name="Campaigns">The campaigns.</param>
/// <param name="Trial">How the same reckoning would have come out on the days before.</param>
/// <param name="More">True where there are more campaigns than these.</param>
public sealed record AccountMoney(Period? Days, IReadOnlyList<CampaignMoney> Campaigns, ForecastTrial Trial, bool More);

/// <summary>Reads what the campaigns of an account spend and could spend.</summary>
public sealed class AccountDemand(BudgetReader reader)
{
    /// <summary>Most campaigns that are read.</summary>
    public const int MostCampaigns = 5_000;

    /// <summary>Days of the last weeks on which a month's forecast rests.</summary>
    private const int RecentDays = 8 * 7;

    /// <summary>The money of the campaigns of an account.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="days">The days from which it is reckoned; none before anything was reported.</param>
    /// <param name="cancellation">Stops the reading.</param>
    public async Task<AccountMoney> ReadAsync(int accountId, Period? days, CancellationToken cancellation)
    {
        var campaigns = await reader.CampaignsAsync(accountId, MostCampaigns + 1, cancellation);
        var more = campaigns.Count > MostCampaigns;
        if (days is not { } period)
        {
            return new AccountMoney(
                null,
                [.. campaigns.Take(MostCampaigns).Select(each => MoneyOf(each, Nothing, Nothing, []))],
                new ForecastTrial(default, default),
                more
            );
        }

        var before = period.Before;
        var both = new Period(before.First, period.Last);
        var cells = await reader.GroupDaysAsync(accountId, both, null, cancellation);
        var paced = (await reader.PacedDaysAsync(accountId, both, cancellation)).ToLookup(day => day.CampaignId);
        var rates = RatesOf(cells.SelectMany(each => each), period);
        var ratesBefore = RatesOf(cells.SelectMany(each => each), before);
        var recently = new Period(period.Last.AddDays(1 - RecentDays), period.Last);
        var ratesRecently = RatesOf(cells.SelectMany(each => each), recently);
        var trial = new ForecastTrial(default, default);
        var found = new List<CampaignMoney>(campaigns.Count);
        foreach (var campaign in campaigns.Take(MostCampaigns))
        {
            var mine = cells[campaign.Id].ToLookup(cell => cell.Day >= period.First);
            var budgets = BudgetsOf(paced[campaign.Id]);
            var demand = CampaignDemand.Of([.. mine[true]], period.Last, rates, budgets);
            var recent = CampaignDemand.Of(
                [.. cells[campaign.Id].Where(cell => cell.Day >= recently.First)],
                period.Last,
                ratesRecently,
                budgets
            );
            found.Add(MoneyOf(campaign, demand, recent, [.. paced[campaign.Id].Where(day => day.Day >= period.First)]));
            var earlier = new BudgetCurve(CampaignDemand.Of([.. mine[false]], before.Last, ratesBefore, budgets).Days);
            if (earlier.IsKnown)
            {
                trial += ForecastTrial.Of(
                    earlier,
                    demand.Days.SelectMany(day => day.Budget is { } budget ? new[] { (day, budget) } : [])
                );
            }
        }

        return new AccountMoney(days, found, trial, more);
    }

    /// <summary>The newest changes of budgets within the last weeks, each with what was to be expected of it and what came.</summary>
    public async Task<IReadOnlyList<BudgetMove>> MovesAsync(
        int accountId,
        DateOnly last,
        int most,
        CancellationToken cancellation
    )
    {
        // A change of eight weeks ago has four weeks before it.
        var days = new Period(last.AddDays(1 - RecentDays - RecentDays / 2), last);
        var paced = await reader.PacedDaysAsync(accountId, days, cancellation);
        var budgets = paced
            .GroupBy(day => day.CampaignId)
            .ToDictionary(campaign => campaign.Key, campaign => BudgetsOf(campaign));
        if (budgets.Values.All(campaign => campaign.Values.OfType<decimal>().Distinct().Count() < 2))
        {
            return [];
        }

        var cells = await reader.GroupDaysAsync(accountId, days, null, cancellation);
        return [.. BudgetMove.Of(cells, budgets, last).Take(most)];
    }

    /// <summary>What searches bring in the whole account; none before the first click.</summary>
    private static SearchRates? RatesOf(IEnumerable<GroupDay> cells, Period days)
    {
        var (standing, figures) = (Standing.Zero, Figures.Zero);
        foreach (var cell in cells.Where(cell => days.First <= cell.Day && cell.Day <= days.Last))
        {
            (standing, figures) = (standing + cell.Standing, figures + cell.Figures);
        }

        return SearchRates.Of(standing, figures);
    }

    /// <summary>Budgets by day, for the demand of a campaign.</summary>
    private static IReadOnlyDictionary<DateOnly, decimal?> BudgetsOf(IEnumerable<PacedDay> days) =>
        days.ToDictionary(day => day.Day, day => day.Budget);

    private static CampaignDemand Nothing { get; } = CampaignDemand.Of([], DateOnly.MinValue, null);

    private static CampaignMoney MoneyOf(
        BudgetedCampaign campaign,
        CampaignDemand demand,
        CampaignDemand recent,
        PacedDay[] paced
    ) =>
        new(
            campaign,
            demand,
            new BudgetCurve(demand.Days),
            RunningOut.Over([.. paced.Select(day => day.RanOutMinute)]),
            recent
        );
}
