using Fendrik.Core.Budgets;
using Fendrik.Core.Networks;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Fendrik.Server.Api.Results;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Pricing;

/// <summary>A campaign on the day that is not over.</summary>
/// <param name="CampaignId">The campaign.</param>
/// <param name="Spent">What it spent so far.</param>
/// <param name="Hours">What it spent in each hour of the clock, 0 to 23.</param>
/// <param name="ToCome">What each hour is likely to cost besides, by how a usual day goes; 0 once the budget has run out.</param>
/// <param name="Says">How the day goes, in words.</param>
public sealed record CampaignToday(
    long CampaignId,
    decimal Spent,
    IReadOnlyList<decimal> Hours,
    IReadOnlyList<decimal> ToCome,
    string Says
);

/// <summary>The day that is not over.</summary>
/// <param name="Day">The day.</param>
/// <param name="Campaigns">Campaigns that run, or spent on it.</param>
public sealed record TodayAnswer(DateOnly Day, IReadOnlyList<CampaignToday> Campaigns);

/// <summary>How the day goes that is not over: the network is asked.</summary>
internal static class TodayEndpoint
{
    private const int Weeks = 4;

    public static async Task<Ok<TodayAnswer>> ReadAsync(
        int accountId,
        AccountDemand demand,
        BudgetReader reader,
        PerformanceStore store,
        WorkingCopy workingCopy,
        SearchNetworks networks,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var network = await networks.OfAccountAsync(accountId, cancellation);
        var today = await network.TodayAsync(accountId, cancellation);
        var period = await PricingPeriod.OfAsync(store, accountId, Weeks, cancellation);
        var money = await demand.ReadAsync(accountId, period, cancellation);
        var hours = period is { } days
            ? await reader.SpentByHourAsync(accountId, days, cancellation)
            : new Dictionary<long, IReadOnlyList<double>>();
        var rows = today.Rows.ToLookup(row => row.CampaignId);
        return TypedResults.Ok(
            new TodayAnswer(
                today.Day,
                [
                    .. money
                        .Campaigns.Where(each => each.Campaign.RunsOn(today.Day) || rows[each.Campaign.Id].Any())
                        .Select(each => Of(each, today.Minute, [.. rows[each.Campaign.Id]])),
                ]
            )
        );

        CampaignToday Of(CampaignMoney each, int minute, TodayRow[] spent)
        {
            // What the network holds to is the budget that is published; before it knows, that of the working copy.
            var budget = spent.LastOrDefault(row => row.Budget is not null)?.Budget ?? each.Campaign.Budget;
            var usual = new UsualDay(
                [.. each.Demand.Days.Select(day => day.Got.Clicks)],
                budget is { } most ? each.Curve.PerDay(most).Cost : each.Curve.Demand,
                hours.TryGetValue(each.Campaign.Id, out var known) ? known : new double[HoursOfDay]
            );
            var pace = DayPace.Of(
                minute,
                spent.Sum(row => row.Cost),
                spent.Sum(row => row.Clicks),
                budget,
                CampaignConditions.StoppedAt(spent),
                usual
            );
            return new CampaignToday(
                each.Campaign.Id,
                pace.Spent,
                [
                    .. Enumerable
                        .Range(0, HoursOfDay)
                        .Select(hour => spent.Where(row => row.Hour == hour).Sum(row => row.Cost)),
                ],
                [.. pace.ToCome(usual).Select(cost => facts.Currency.Round((decimal)cost))],
                pace.InWords(facts.Currency)
            );
        }
    }

    private const int HoursOfDay = 24;
}
