using System.Net.Http.Json;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;
using Fendrik.Network.Serving;
using Fendrik.Tests.Shared;

namespace Fendrik.Network.Tests;

/// <summary>What strategies do on the network: what they spend, what they bid, what a conversion costs them.</summary>
public class StrategyPlayTests(NetworkFixture fixture) : IClassFixture<NetworkFixture>
{
    private static readonly DateOnly Begin = new(2026, 3, 16);

    private async Task<NetworkVisitor> PlayedAsync(int weeks, Campaign campaign)
    {
        var visitor = new NetworkVisitor(fixture.Http, $"strategy-{Guid.NewGuid():N}");
        await visitor.SetUpAsync(8);
        await visitor.PutAsync(
            campaign,
            new AdGroup(10, 1, "Tuning", ItemState.Running, 1.10m),
            new AdGroup(20, 1, "Tuner", ItemState.Running, 1.10m),
            new Keyword(11, 10, "piano tuning", MatchType.Phrase, ItemState.Running, null, null),
            new Keyword(21, 20, "piano tuner", MatchType.Broad, ItemState.Running, null, null),
            Ad(41, 10, "Piano Tuning"),
            Ad(42, 20, "Piano Tuner")
        );
        await visitor.AdvanceAsync(24 * 7 * weeks);
        return visitor;
    }

    private static Campaign Campaign(
        decimal budget,
        BidStrategy strategy,
        decimal? target = null,
        decimal? cap = null
    ) =>
        new(
            1,
            "Tuning",
            ItemState.Running,
            budget,
            null,
            null,
            SiteKinds.Search,
            Strategy: strategy,
            TargetCpa: strategy == BidStrategy.TargetCpa ? target : null,
            TargetRoas: strategy == BidStrategy.TargetRoas ? target : null,
            HighestBid: cap
        );

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

    private async Task<List<PerformanceRow>> WeekAsync(NetworkVisitor visitor, int week, int weeks = 1) =>
        (
            await fixture.Http.GetFromJsonAsync<List<PerformanceRow>>(
                $"v1/accounts/{visitor.AccountId}/reports?first={Begin.AddDays(7 * (week - 1)):yyyy-MM-dd}&last={Begin.AddDays(7 * (week + weeks - 1) - 1):yyyy-MM-dd}"
            )
        )!;

    private async Task<StrategyRow> StrategyAsync(NetworkVisitor visitor) =>
        (
            await fixture.Http.GetFromJsonAsync<List<StrategyRow>>($"v1/accounts/{visitor.AccountId}/strategies")
        )!.Single();

    private static decimal Cpa(IReadOnlyCollection<PerformanceRow> rows) =>
        rows.Sum(row => row.Cost) / Math.Max(1, rows.Sum(row => row.Conversions));

    [Theory]
    [InlineData(BidStrategy.MaximiseClicks)]
    [InlineData(BidStrategy.MaximiseConversions)]
    [InlineData(BidStrategy.MaximiseValue)]
    public async Task A_strategy_that_spends_the_budget_spends_it_over_a_week_once_it_has_learnt(BidStrategy strategy)
    {
        const int Budget = 12;
        var visitor = await PlayedAsync(5, Campaign(Budget, strategy));
        for (var week = 3; week <= 5; week++)
        {
            ((await WeekAsync(visitor, week)).Sum(row => row.Cost) / (7 * Budget)).ShouldBeInRange(0.9m, 1.1m);
        }
    }

    [Fact]
    public async Task Maximising_conversions_brings_more_of_them_for_the_same_money_than_maximising_clicks()
    {
        var clicks = await WeekAsync(await PlayedAsync(8, Campaign(12, BidStrategy.MaximiseClicks)), 3, 6);
        var conversions = await WeekAsync(await PlayedAsync(8, Campaign(12, BidStrategy.MaximiseConversions)), 3, 6);
        conversions.Sum(row => row.Clicks).ShouldBeLessThan(clicks.Sum(row => row.Clicks));
        Cpa(conversions).ShouldBeLessThan(Cpa(clicks));
    }

    [Fact]
    public async Task A_target_is_kept_after_weeks_in_which_conversions_were_counted()
    {
        const decimal Target = 10;
        var visitor = await PlayedAsync(4, Campaign(200, BidStrategy.ManualCpc));
        Cpa(await WeekAsync(visitor, 1, 4)).ShouldBeGreaterThan(Target * 1.5m);
        await visitor.PutAsync(Campaign(200, BidStrategy.TargetCpa, Target));
        await visitor.AdvanceAsync(24 * 7 * 8);
        // Some 80 conversions: chance alone moves their cost by a fifth.
        Cpa(await WeekAsync(visitor, 7, 6)).ShouldBeInRange(Target * 0.75m, Target * 1.25m);
        var strategy = await StrategyAsync(visitor);
        strategy.Since.ShouldBe(Begin.AddDays(28));
        strategy.IsLearning.ShouldBeFalse();
    }

    [Fact]
    public async Task No_click_costs_more_than_the_highest_bid()
    {
        var visitor = await PlayedAsync(2, Campaign(60, BidStrategy.MaximiseClicks, cap: 0.30m));
        var rows = await WeekAsync(visitor, 1, 2);
        rows.Sum(row => row.Clicks).ShouldBeGreaterThan(50);
        rows.Where(row => row.Clicks > 0).ShouldAllBe(row => row.Cost / row.Clicks <= 0.30m);
    }

    [Fact]
    public async Task A_trace_shows_each_step_of_what_a_strategy_bids()
    {
        var visitor = await PlayedAsync(3, Campaign(12, BidStrategy.MaximiseConversions));
        var asked = await fixture.Http.PostAsJsonAsync(
            $"v1/accounts/{visitor.AccountId}/traces",
            new TraceWish("piano tuning leeds", Device.Phone, SiteKinds.Search, null, null)
        );
        var trace = (await asked.EnsureSuccessStatusCode().Content.ReadFromJsonAsync<SearchTrace>())!;
        trace.Bid[0].Name.ShouldBe("for a conversion, to spend the budget");
        trace.Bid.ShouldContain(step => step.Name == "a click converts");
        trace.Keywords[0].Bid.ShouldBe(Math.Round(trace.Bid[^1].BidAfter, 2));
        ((double)trace.Bid[0].BidAfter).ShouldBe((await StrategyAsync(visitor)).Level, 1e-5);
    }

    [Fact]
    public async Task A_search_of_the_past_is_bid_for_as_it_was()
    {
        var visitor = await PlayedAsync(3, Campaign(12, BidStrategy.MaximiseConversions));
        var day = Begin.AddDays(16);
        var samples = (
            await fixture.Http.GetFromJsonAsync<List<SampleSearch>>(
                $"v1/accounts/{visitor.AccountId}/searches?day={day:yyyy-MM-dd}&fate={(int)SearchFate.Shown}&most=40"
            )
        )!;
        samples.ShouldNotBeEmpty();
        foreach (var sample in samples)
        {
            var trace = (
                await fixture.Http.GetFromJsonAsync<SearchTrace>(
                    $"v1/accounts/{visitor.AccountId}/searches/{sample.Name}/trace"
                )
            )!;
            trace.Auction!.Ladder.Single(each => each.IsOwn).Price.ShouldBe(sample.Price);
        }
    }

    [Fact]
    public async Task An_account_taken_up_again_each_day_goes_on_as_one_that_is_played_through()
    {
        var through = await PlayedAsync(3, Campaign(12, BidStrategy.MaximiseConversions));
        var daily = await PlayedAsync(2, Campaign(12, BidStrategy.MaximiseConversions));
        for (var day = 0; day < 7; day++)
        {
            await daily.AdvanceAsync(24);
            // Asking for it takes the account up from what was written down.
            await StrategyAsync(daily);
        }

        (await WeekAsync(daily, 3)).ShouldBe(await WeekAsync(through, 3));
        (await StrategyAsync(daily)).ShouldBe(await StrategyAsync(through));
    }
}
