using Fendrik.Core.Budgets;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Reporting;
using Fendrik.Data.Accounts;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Pricing;

/// <summary>What campaigns may spend, spend, and could spend.</summary>
internal static class BudgetsEndpoints
{
    private const int MostDays = 60;

    public static void MapBudgets(this RouteGroupBuilder account)
    {
        account.MapGet("/budgets", ReadAsync).WithName("readBudgets");
        account.MapGet("/budgets/campaigns/{campaignId:long}", CampaignAsync).WithName("readCampaignBudget");
        account.MapGet("/budgets/moves", MovesEndpoint.ReadAsync).WithName("readBudgetMoves");
        account.MapGet("/budgets/today", TodayEndpoint.ReadAsync).WithName("readBudgetsToday");
        account.MapBudgetPlans();
    }

    internal static RangeAnswer Range(LikelyRange range, Func<double, decimal> round) =>
        new(round(range.Low), round(range.Likely), round(range.High));

    private static async Task<Ok<BudgetsAnswer>> ReadAsync(
        int accountId,
        int? weeks,
        AccountDemand demand,
        BudgetReader reader,
        PerformanceStore store,
        AccountToday clock,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var period = await PricingPeriod.OfAsync(store, accountId, weeks ?? 4, cancellation);
        var money = await demand.ReadAsync(accountId, period, cancellation);
        return TypedResults.Ok(
            new BudgetsAnswer(
                period?.First,
                period?.Last,
                await MonthAsync(accountId, period, money, reader, clock, facts.Currency, cancellation),
                [
                    .. money
                        .Campaigns.OrderByDescending(each => each.Demand.Figures.Cost)
                        .ThenBy(each => each.Campaign.Name, StringComparer.Ordinal)
                        .Select(each => RowOf(each, facts.Currency)),
                ],
                money.More
            )
        );
    }

    private static BudgetRow RowOf(CampaignMoney money, Currency currency)
    {
        var (campaign, demand, curve) = (money.Campaign, money.Demand, money.Curve);
        var days = Math.Max(1, demand.Days.Count);
        var ranOut = money.RanOut;
        return new BudgetRow(
            campaign.Id,
            campaign.Version,
            campaign.Name,
            campaign.State == ItemState.Paused,
            campaign.Budget,
            currency.Round(demand.Figures.Cost / days),
            BudgetWords.Amount(curve.Demand, currency),
            ranOut.UsualMinute is { } minute ? BudgetWords.Clock(minute) : null,
            ranOut.Of == 0 ? "Nobody searched." : $"It ran out on {ranOut.Days} of {ranOut.Of} days.",
            demand.Standing.BudgetLossShare,
            demand.Standing.RankLossShare,
            demand.Figures.CostPerConversion,
            campaign.Budget is { } budget && curve.NextConversionCost(budget) is { } next
                ? BudgetWords.Amount(next, currency)
                : null,
            BudgetWords.OfCampaign(demand, campaign.Budget, ranOut, currency)
        );
    }

    private static async Task<MonthAnswer> MonthAsync(
        int accountId,
        Period? shown,
        AccountMoney money,
        BudgetReader reader,
        AccountToday clock,
        Currency currency,
        CancellationToken cancellation
    )
    {
        var reported = shown?.Last;
        var today = reported?.AddDays(1) ?? await clock.ReadAsync(accountId, cancellation);
        var first = new DateOnly(today.Year, today.Month, 1);
        var month = await reader.MonthAsync(accountId, first, today, cancellation);
        decimal sum = 0;
        MonthDay[] past =
        [
            .. (await reader.SpentAsync(accountId, first, today, cancellation)).Select(day =>
            {
                sum += day.Cost;
                return new MonthDay(day.Day, new RangeAnswer(sum, sum, sum));
            }),
        ];
        var forecast = ForecastOf(money, month.Spent, today);
        decimal Round(double amount) => BudgetWords.Amount(amount, currency);
        return new MonthAnswer(
            month.ItemId,
            month.Version,
            month.Amount,
            BudgetWords.OfMonth(forecast, month.Spent, month.Amount, today, currency),
            BudgetWords.Rest(forecast, month.Spent, month.Amount, today, currency),
            past,
            [.. forecast?.Days.Select(day => new MonthDay(day.Day, Range(day.Sum, Round))) ?? []]
        );
    }

    /// <summary>What days before would have cost with the budgets and campaigns that run now.</summary>
    private static MonthForecast? ForecastOf(AccountMoney money, decimal spent, DateOnly today)
    {
        CampaignMoney[] running = [.. money.Campaigns.Where(each => each.Campaign.RunsOn(today))];
        var before = running
            .SelectMany(each =>
            {
                var curve = new BudgetCurve(each.Recent.Days);
                return each.Recent.Days.Select(day => (day.Day, Cost: curve.CostOn(day, each.Campaign.Budget ?? 0)));
            })
            .GroupBy(each => each.Day)
            .Select(day => (day.Key, day.Sum(each => each.Cost)))
            .ToArray();
        var usual = running.ToDictionary(
            each => each.Campaign.Id,
            each => each.Curve.PerDay(each.Campaign.Budget ?? 0).Cost
        );
        var all = usual.Values.Sum();
        return MonthForecast.Of(
            spent,
            today,
            before,
            day =>
                all > 0
                    ? running.Where(each => each.Campaign.RunsOn(day)).Sum(each => usual[each.Campaign.Id]) / all
                    : 1
        );
    }

    private static async Task<Results<Ok<CampaignBudget>, NotFound>> CampaignAsync(
        int accountId,
        long campaignId,
        int? weeks,
        DateOnly? day,
        BudgetReader reader,
        PerformanceStore store,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var campaign = (
            await reader.CampaignsAsync(accountId, AccountDemand.MostCampaigns, cancellation)
        ).FirstOrDefault(each => each.Id == campaignId);
        if (campaign is null)
        {
            return TypedResults.NotFound();
        }

        if (await PricingPeriod.OfAsync(store, accountId, weeks ?? 4, cancellation) is not { } period)
        {
            return TypedResults.Ok(new CampaignBudget(campaign.Version, [], [], null, [], null));
        }

        var cells = await reader.GroupDaysAsync(accountId, period, campaignId, cancellation);
        var rates = await reader.RatesAsync(accountId, period, cancellation);
        var demand = CampaignDemand.Of([.. cells[campaignId]], period.Last, rates);
        if (day is { } asked && (asked < period.First || asked > period.Last))
        {
            throw new InvalidChangeException("day", "Choose a day within the weeks that are shown.");
        }

        var shown = day is { } one ? new Period(one, one) : period;
        var hours = await reader.HoursAsync(accountId, campaignId, shown, cancellation);
        DemandDay[] over = [.. demand.Days.Where(each => shown.First <= each.Day && each.Day <= shown.Last)];
        var missed = BudgetHour.MissedCosts(hours, over.Sum(each => each.Missed.Cost));
        var names = await reader.AdGroupNamesAsync(accountId, campaignId, cancellation);
        var spread = SpreadReport.Of(demand, campaign.Budget, facts.Currency);
        return TypedResults.Ok(
            new CampaignBudget(
                campaign.Version,
                [.. demand.Days.Select(each => each.Day).Reverse().Take(MostDays)],
                [
                    .. hours.Select(
                        (hour, at) =>
                            new BudgetHourAnswer(
                                hour.Hour,
                                facts.Currency.Round(hour.Spent / Math.Max(1, over.Length)),
                                BudgetWords.Amount(missed[at] / Math.Max(1, over.Length), facts.Currency),
                                hour.Missed
                            )
                    ),
                ],
                (decimal?)spread.EffectiveNumber,
                [
                    .. spread
                        .Groups.Where(group => names.ContainsKey(group.Demand.AdGroupId))
                        .Select(group => GroupOf(group, names[group.Demand.AdGroupId], facts.Currency)),
                ],
                spread.Split is { } split && names.TryGetValue(split.AdGroupId, out var name)
                    ? SplitOf(split, name, campaign, facts)
                    : null
            )
        );
    }

    private static GroupShareAnswer GroupOf(GroupShare group, string name, Currency currency) =>
        new(
            group.Demand.AdGroupId,
            name,
            (decimal)group.Share,
            (decimal)group.CouldHave,
            group.Demand.Figures.CostPerConversion,
            group.Verdict,
            BudgetWords.OfGroup(group, name, currency)
        );

    private static SplitAnswer SplitOf(SplitProposal split, string name, BudgetedCampaign campaign, AccountFacts facts)
    {
        var budget = ItemTypes.Of(ItemKind.Campaign)["dailyBudget"].Type;
        return new SplitAnswer(
            split.AdGroupId,
            name,
            $"{campaign.Name} · {name}",
            budget.Write(split.Budget, facts.Ground),
            budget.Write(split.Rest, facts.Ground),
            Range(split.Gain, number => Math.Round((decimal)number, 1))
        );
    }
}
