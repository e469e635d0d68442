using System.Net.Http.Json;
using Fendrik.Core.Budgets;
using Fendrik.Core.Reporting;
using Fendrik.Tests.Shared;

namespace Fendrik.Network.Tests;

/// <summary>How budgets last on the network, and whether what is reckoned of other budgets comes true there.</summary>
public class BudgetPlayTests(NetworkFixture fixture) : IClassFixture<NetworkFixture>
{
    private const int Weeks = 4;

    /// <summary>In the first week the network has to learn how to spread a budget.</summary>
    private static readonly DateOnly First = new(2026, 3, 23);

    private static readonly DateOnly Last = new(2026, 4, 12);

    private async Task<NetworkVisitor> PlayedAsync(decimal budget, BudgetDelivery delivery = BudgetDelivery.Spread)
    {
        var visitor = new NetworkVisitor(fixture.Http, $"budget-{Guid.NewGuid():N}");
        await visitor.SetUpAsync(8);
        await visitor.PutAsync(
            new Campaign(1, "Tuning", ItemState.Running, budget, null, null, SiteKinds.Search, Delivery: delivery),
            new AdGroup(10, 1, "Tuning", ItemState.Running, 1.10m),
            new AdGroup(20, 1, "Tuner", ItemState.Running, 1.10m),
            new Keyword(11, 10, "piano tuning", MatchType.Phrase, ItemState.Running, null, null),
            new Keyword(21, 20, "piano tuner", MatchType.Phrase, ItemState.Running, null, null),
            Ad(41, 10, "Piano Tuning"),
            Ad(42, 20, "Piano Tuner")
        );
        await visitor.AdvanceAsync(24 * 7 * Weeks);
        return visitor;
    }

    private static TextAd Ad(long id, long group, string headline) =>
        new(
            id,
            group,
            ItemState.Running,
            [headline, "Ask For A Price"],
            ["Same-week visits across the north."],
            [],
            "tarnandfell.example/tuning",
            null
        );

    private async Task<List<T>> DaysAsync<T>(NetworkVisitor visitor, string what) =>
        (
            await fixture.Http.GetFromJsonAsync<List<T>>(
                $"v1/accounts/{visitor.AccountId}/{what}?first={First:yyyy-MM-dd}&last={Last:yyyy-MM-dd}"
            )
        )!;

    private async Task<CampaignDemand> DemandAsync(NetworkVisitor visitor)
    {
        var budgets = (await DaysAsync<PaceRow>(visitor, "paces"))
            .GroupBy(row => row.Day)
            .ToDictionary(day => day.Key, day => day.Max(row => row.Budget));
        var figures = (await DaysAsync<PerformanceRow>(visitor, "reports"))
            .GroupBy(row => (row.AdGroupId, row.Day))
            .ToDictionary(
                each => each.Key,
                each =>
                    each.Aggregate(
                        Figures.Zero,
                        (sum, row) =>
                            sum + new Figures(row.Impressions, row.Clicks, row.Cost, row.Conversions, row.Value)
                    )
            );
        return CampaignDemand.Of(
            [
                .. (await DaysAsync<StandingRow>(visitor, "standings"))
                    .GroupBy(row => (row.AdGroupId, row.Day))
                    .Select(each => new GroupDay(
                        each.Key.AdGroupId,
                        each.Key.Day,
                        each.Aggregate(
                            Standing.Zero,
                            (sum, row) =>
                                sum
                                + new Standing(
                                    row.Impressions,
                                    row.Top,
                                    row.First,
                                    row.Places,
                                    row.LostToRank,
                                    row.LostToBudget
                                )
                        ),
                        figures.GetValueOrDefault(each.Key, Figures.Zero)
                    )),
            ],
            Last,
            null,
            budgets
        );
    }

    /// <summary>The same people search in both accounts: what differs is the budget alone.</summary>
    [Theory]
    [InlineData(BudgetDelivery.Spread)]
    [InlineData(BudgetDelivery.Fast)]
    public async Task What_twice_the_budget_would_bring_is_what_it_brings(BudgetDelivery delivery)
    {
        var small = await DemandAsync(await PlayedAsync(8, delivery));
        var large = await DemandAsync(await PlayedAsync(16, delivery));

        small.Standing.BudgetLossShare!.Value.ShouldBeGreaterThan(0.2m);
        var days = small.Days.Count;
        var forecast = new BudgetCurve(small.Days).PerDay(16);
        (forecast.Cost * days / (double)large.Figures.Cost).ShouldBeInRange(0.85, 1.15);
        (forecast.Clicks * days / large.Figures.Clicks).ShouldBeInRange(0.85, 1.15);
        // And what it brings with the budget that it had is what it brought.
        (new BudgetCurve(small.Days).PerDay(8).Cost * days).ShouldBe(
            (double)small.Figures.Cost,
            (double)small.Figures.Cost * 0.03
        );
    }

    [Fact]
    public async Task Hours_tell_the_budget_when_it_was_spent_and_what_was_missed_after()
    {
        var visitor = await PlayedAsync(6, BudgetDelivery.Fast);

        var paces = await DaysAsync<PaceRow>(visitor, "paces");

        paces.ShouldAllBe(row => row.CampaignId == 1 && row.Budget == 6);
        var standings = await DaysAsync<StandingRow>(visitor, "standings");
        paces
            .GroupBy(row => row.Day)
            .Select(day =>
                (
                    day.Key,
                    day.Sum(row => row.Impressions),
                    day.Sum(row => row.LostToRank),
                    day.Sum(row => row.LostToBudget)
                )
            )
            .ShouldBe(
                standings
                    .GroupBy(row => row.Day)
                    .Select(day =>
                        (
                            day.Key,
                            day.Sum(row => row.Impressions),
                            day.Sum(row => row.LostToRank),
                            day.Sum(row => row.LostToBudget)
                        )
                    ),
                ignoreOrder: true
            );
        foreach (var day in paces.GroupBy(row => row.Day))
        {
            var stopped = day.Where(row => row.StoppedMinute is not null).ToArray();
            stopped.ShouldAllBe(row => row.StoppedMinute >= 0 && row.StoppedMinute < 60);
            // As fast as possible, nothing is missed before the money is gone.
            day.Where(row => row.Hour < (stopped.Length == 0 ? 24 : stopped.Min(each => each.Hour)))
                .Sum(row => row.LostToBudget)
                .ShouldBe(0);
        }

        paces.Count(row => row.StoppedMinute is not null).ShouldBeGreaterThan(10);
    }

    [Fact]
    public async Task What_is_told_of_a_day_that_is_not_over_is_what_its_report_says_of_these_hours()
    {
        var visitor = await PlayedAsync(8);
        await visitor.AdvanceAsync(14);

        var today = (await fixture.Http.GetFromJsonAsync<NetworkToday>($"v1/accounts/{visitor.AccountId}/today"))!;

        // Clocks went forward in these weeks: an hour less has gone by than the clock says.
        (today.Day, today.Minute).ShouldBe((new DateOnly(2026, 4, 13), 15 * 60));
        var report = (
            await fixture.Http.GetFromJsonAsync<List<PerformanceRow>>(
                $"v1/accounts/{visitor.AccountId}/reports?first={today.Day:yyyy-MM-dd}&last={today.Day:yyyy-MM-dd}"
            )
        )!;
        today
            .Rows.Where(row => row.Clicks > 0)
            .Select(row => (row.CampaignId, row.Hour, row.Clicks, row.Cost))
            .ShouldBe(
                report
                    .GroupBy(row => (row.CampaignId, row.Hour))
                    .Select(each =>
                        (each.Key.CampaignId, each.Key.Hour, each.Sum(row => row.Clicks), each.Sum(row => row.Cost))
                    )
                    .Where(each => each.Item3 > 0)
                    .OrderBy(each => each.Hour)
            );
        today.Rows.ShouldAllBe(row => row.Budget == 8 && row.Hour < 15);
    }

    /// <summary>Each is a partition of what was shown, or of what was clicked: to the penny.</summary>
    [Theory]
    [InlineData(ReachedBy.Age)]
    [InlineData(ReachedBy.Gender)]
    [InlineData(ReachedBy.Rival)]
    [InlineData(ReachedBy.Click)]
    public async Task Segments_of_people_and_clicks_add_up_to_the_report(ReachedBy by)
    {
        var visitor = await PlayedAsync(8);

        var parts = (await DaysAsync<ReachedRow>(visitor, "reached")).Where(row => row.By == by).ToArray();

        var report = await DaysAsync<PerformanceRow>(visitor, "reports");
        // Without sitelinks and numbers there is one thing to click on.
        parts
            .Select(row => row.Name)
            .Distinct()
            .Count()
            .ShouldBe(
                by switch
                {
                    ReachedBy.Age => 3,
                    ReachedBy.Click => 1,
                    ReachedBy.Gender or ReachedBy.Rival => 2,
                    ReachedBy.Placement or ReachedBy.Audience or ReachedBy.Place or ReachedBy.Interest => 0,
                }
            );
        parts.Sum(row => row.Clicks).ShouldBe(report.Sum(row => row.Clicks));
        parts.Sum(row => row.Cost).ShouldBe(report.Sum(row => row.Cost));
        parts.Sum(row => row.Conversions).ShouldBe(report.Sum(row => row.Conversions));
        // Of a kind of click only what was clicked is told.
        parts
            .Sum(row => row.Impressions)
            .ShouldBe(by == ReachedBy.Click ? report.Sum(row => row.Clicks) : report.Sum(row => row.Impressions));
    }

    [Fact]
    public async Task A_total_budget_is_spent_over_its_days_and_never_exceeded()
    {
        var visitor = new NetworkVisitor(fixture.Http, $"total-{Guid.NewGuid():N}");
        await visitor.SetUpAsync(8);
        await visitor.PutAsync(
            new Campaign(
                1,
                "Tuning",
                ItemState.Running,
                null,
                null,
                new DateOnly(2026, 3, 29),
                SiteKinds.Search,
                TotalBudget: 140
            ),
            new AdGroup(10, 1, "Tuning", ItemState.Running, 1.10m),
            new Keyword(11, 10, "piano tuning", MatchType.Phrase, ItemState.Running, null, null),
            Ad(41, 10, "Piano Tuning")
        );
        // Taken up again each day: what was spent before is read from what was written down.
        for (var day = 0; day < 16; day++)
        {
            await visitor.AdvanceAsync(24);
        }

        var spent = (
            await fixture.Http.GetFromJsonAsync<List<PerformanceRow>>(
                $"v1/accounts/{visitor.AccountId}/reports?first=2026-03-16&last=2026-03-31"
            )
        )!
            .GroupBy(row => row.Day)
            .ToDictionary(day => day.Key, day => day.Sum(row => row.Cost));
        spent.Values.Sum().ShouldBeInRange(120, 140);
        spent.Keys.Max().ShouldBeLessThanOrEqualTo(new DateOnly(2026, 3, 29));
        spent.Values.Max().ShouldBeLessThan(40);
    }
}
