using Dapper;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Checks;
using Fendrik.Core.Estimates;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Fendrik.Data.Commands;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Strategies;
using Fendrik.Data.Tracing;

namespace Fendrik.Data.Tests;

/// <summary>Strategies of campaigns and estimates of keywords, from what the network reports.</summary>
[Collection(nameof(WorkingCopyFixture))]
public sealed class StrategyTests(WorkingCopyFixture fixture)
{
    private const string List = """
        item,campaign,ad group,daily budget,ad group max cpc,keyword,match,max cpc,headline 1,headline 2,description 1,landing page
        campaign,North,,25,,,,,,,,
        ad group,North,Tuning,,1.00,,,,,,,
        ad group,North,Moving,,,,,,,,,
        keyword,North,Tuning,,,piano tuning,phrase,,,,,
        keyword,North,Tuning,,,piano tuner,exact,1.40,,,,
        keyword,North,Moving,,,piano moving,phrase,,,,,
        text ad,North,Tuning,,,,,,Piano Tuning,Same Week,We come.,https://a.example/
        text ad,North,Moving,,,,,,Piano Moving,Same Week,We come.,https://a.example/
        """;

    private static readonly DateOnly Last = new(2026, 5, 10);

    private async Task<(int Account, long Campaign)> AccountAsync(bool reported = true, decimal conversions = 1)
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        var campaign = (await fixture.RowAsync(account, "North", ItemKind.Campaign)).Id;
        if (reported)
        {
            await ReportAsync(account, campaign, conversions);
        }

        return (account, campaign);
    }

    private Task<long> KeywordAsync(int account, string text) => IdAsync(account, text, ItemKind.Keyword);

    private async Task<long> IdAsync(int account, string name, ItemKind kind) =>
        (await fixture.RowAsync(account, name, kind)).Id;

    /// <summary>Four weeks: each day ten clicks on phones of piano tuning, and five on desktops of piano tuner with its conversions.</summary>
    private async Task ReportAsync(int account, long campaign, decimal conversions)
    {
        var group = await IdAsync(account, "Tuning", ItemKind.AdGroup);
        var (tuning, tuner) = (await KeywordAsync(account, "piano tuning"), await KeywordAsync(account, "piano tuner"));
        var days = new Period(Last.AddDays(-27), Last);
        DateOnly[] each = [.. Enumerable.Range(0, 28).Select(days.First.AddDays)];
        var reports = new DayReports(fixture.Source);
        await reports.StoreAsync(
            account,
            days,
            each.SelectMany(day =>
                    new[]
                    {
                        new SearchTermRow(day, "piano tuning leeds", campaign, group, tuning, 100, 10, 8, 0, 0),
                        new SearchTermRow(day, "piano tuner", campaign, group, tuner, 50, 5, 6, conversions, 80),
                    }
                )
                .ToAsyncEnumerable(),
            CancellationToken.None
        );
        await reports.StoreAsync(
            account,
            days,
            each.Select(day => new ReachedRow(
                    day,
                    campaign,
                    group,
                    ReachedBy.Place,
                    "leeds",
                    150,
                    15,
                    14,
                    conversions,
                    80
                ))
                .ToAsyncEnumerable(),
            CancellationToken.None
        );
        await reports.StoreAsync(
            account,
            days,
            each.Select(day => new StandingRow(day, campaign, group, tuning, 100, 60, 20, 200, 50, 0))
                .ToAsyncEnumerable(),
            CancellationToken.None
        );
        await new PerformanceStore(fixture.Source).StoreAsync(
            account,
            days,
            each.SelectMany(day =>
                    new[]
                    {
                        Row(day, campaign, group, tuning, Device.Phone, 100, 10, 8, 0),
                        Row(day, campaign, group, tuner, Device.Desktop, 50, 5, 6, conversions),
                    }
                )
                .ToAsyncEnumerable(),
            CancellationToken.None
        );
    }

    private static PerformanceRow Row(
        DateOnly day,
        long campaign,
        long group,
        long keyword,
        Device device,
        long impressions,
        long clicks,
        decimal cost,
        decimal conversions
    ) =>
        new(
            day,
            10,
            campaign,
            group,
            keyword,
            1,
            device,
            SiteKinds.Search,
            impressions,
            clicks,
            cost,
            conversions,
            conversions * 80
        );

    private Task SetAsync(int account, string field, string text) =>
        fixture.DoAsync(
            account,
            new SetFields(TunedAccount.All(ItemKind.Campaign), new Dictionary<string, FieldInput> { [field] = text })
        );

    private async Task<IReadOnlyList<string>> FindingsAsync(int account) =>
        [.. (await fixture.FindingsAsync(account)).Select(finding => finding.Code)];

    [Fact]
    public async Task The_rates_of_a_campaign_are_those_of_its_reported_clicks()
    {
        var (account, campaign) = await AccountAsync();
        var group = await IdAsync(account, "Tuning", ItemKind.AdGroup);
        var (tuning, tuner) = (await KeywordAsync(account, "piano tuning"), await KeywordAsync(account, "piano tuner"));
        await using var connection = await fixture.Source.OpenConnectionAsync();

        var read = (
            await StrategyReader.RatesAsync(connection, account, [campaign], Last.AddDays(1), CancellationToken.None)
        )[campaign];

        ClickCell Cell(DateOnly day, long keyword, Device device, double clicks, double conversions) =>
            new(
                group,
                keyword,
                device,
                Fendrik.Core.Bidding.Evidence.HourBlock.Of(day.DayOfWeek, 10).Number,
                SiteKinds.Search,
                clicks,
                conversions,
                conversions * 80
            );
        DateOnly[] days = [.. Enumerable.Range(0, 28).Select(back => Last.AddDays(-back))];
        var expected = new ConversionRates(
            [
                .. days.Select(day => Cell(day, tuning, Device.Phone, 10, 0)),
                .. days.Select(day => Cell(day, tuner, Device.Desktop, 5, 1)),
            ],
            [new TermCell(tuning, "piano tuning leeds", 280, 0), new TermCell(tuner, "piano tuner", 140, 28)],
            [new PlaceCell("leeds", 420, 28)]
        );
        foreach (var keyword in new[] { tuning, tuner })
        {
            foreach (var device in Enum.GetValues<Device>())
            {
                var click = new ClickAhead(group, keyword, "piano tuner", device, 2, SiteKinds.Search, "leeds");
                read.Of(click).Rate.ShouldBe(expected.Of(click).Rate, 1e-9);
                read.Of(click).Value.ShouldBe(expected.Of(click).Value, 1e-6);
            }
        }
    }

    [Fact]
    public async Task A_strategy_without_a_counted_conversion_blocks_until_one_is_reported()
    {
        var (account, campaign) = await AccountAsync(reported: false);
        await SetAsync(account, "strategy", "maximise conversions");
        (await FindingsAsync(account)).ShouldContain(StrategyChecks.Uncounted);

        await ReportAsync(account, campaign, 1);

        (await FindingsAsync(account)).ShouldNotContain(StrategyChecks.Uncounted);
    }

    [Fact]
    public async Task A_strategy_whose_conversions_are_no_longer_counted_blocks_again()
    {
        var (account, campaign) = await AccountAsync();
        await SetAsync(account, "strategy", "maximise conversions");
        (await FindingsAsync(account)).ShouldNotContain(StrategyChecks.Uncounted);

        var next = Last.AddDays(30);
        await new PerformanceStore(fixture.Source).StoreAsync(
            account,
            new Period(next, next),
            AsyncEnumerable.Empty<PerformanceRow>(),
            CancellationToken.None
        );

        (await FindingsAsync(account)).ShouldContain(StrategyChecks.Uncounted);
    }

    [Fact]
    public async Task A_strategy_that_the_network_bids_by_already_is_a_caution_when_nothing_is_counted_any_more()
    {
        var (account, campaign) = await AccountAsync(reported: false);
        await SetAsync(account, "strategy", "maximise conversions");
        async Task<Weight> WeightAsync() =>
            (await fixture.FindingsAsync(account)).Single(each => each.Code == StrategyChecks.Uncounted).Weight;
        (await WeightAsync()).ShouldBe(Weight.Blocker);

        await using (var connection = await fixture.Source.OpenConnectionAsync())
        {
            await connection.ExecuteAsync(
                "begin; select set_config('fendrik.step', '0', true); update campaign set is_live = true, live = null where id = @campaign; commit",
                new { campaign }
            );
        }

        await SetAsync(account, "delivery", "fast");
        (await WeightAsync()).ShouldBe(Weight.Caution);
    }

    [Fact]
    public async Task Where_the_network_sets_bids_no_keyword_needs_a_max_cpc()
    {
        var (account, campaign) = await AccountAsync();
        (await FindingsAsync(account)).ShouldContain("max-cpc-missing");

        await SetAsync(account, "strategy", "maximise clicks");

        (await FindingsAsync(account)).ShouldNotContain("max-cpc-missing");
    }

    [Fact]
    public async Task A_target_strategy_without_its_target_is_a_blocker_on_the_field()
    {
        var (account, campaign) = await AccountAsync();
        await SetAsync(account, "strategy", "target CPA");

        var finding = (await fixture.FindingsAsync(account)).Single(each => each.Field == "targetCpa");

        finding.Weight.ShouldBe(Weight.Blocker);
        await SetAsync(account, "targetCpa", "12");
        (await fixture.FindingsAsync(account)).ShouldNotContain(each => each.Field == "targetCpa");
    }

    [Fact]
    public async Task The_trace_of_the_working_copy_bids_by_the_level_that_the_network_reported()
    {
        var (account, campaign) = await AccountAsync();
        await SetAsync(account, "strategy", "maximise conversions");
        await new DayReports(fixture.Source).StoreAsync(
            account,
            [new StrategyRow(campaign, BidStrategy.MaximiseConversions, Last.AddDays(-20), 14.5, 7, 30, 12, false)],
            CancellationToken.None
        );

        var trace = await new WorkingCopyTrace(fixture.Source, fixture.Keywords).TraceAsync(
            account,
            new TraceWish("piano tuner", Device.Desktop, SiteKinds.Search, null, 10),
            Last.AddDays(1),
            CancellationToken.None
        );

        trace.Bid[0].BidAfter.ShouldBe(14.5m);
        trace.Keywords[0].Bid.ShouldBe(Math.Round(trace.Bid[^1].BidAfter, 2));
    }

    [Fact]
    public async Task What_a_decision_rests_on_is_read_from_the_reports()
    {
        var (account, campaign) = await AccountAsync();
        await new DayReports(fixture.Source).StoreAsync(
            account,
            [new StrategyRow(campaign, BidStrategy.MaximiseConversions, Last.AddDays(-9), 14.5, 7, 30, 12, false)],
            CancellationToken.None
        );

        var basis = (
            await new StrategyBasisReader(fixture.Source).BasisAsync(account, campaign, CancellationToken.None)
        )!;

        basis.Facts.Recent.ShouldBe(new Figures(4_200, 420, 392, 28, 2_240));
        basis.Facts.OfRun.Conversions.ShouldBe(10);
        basis.Facts.Since.ShouldBe(10);
        // The last days may still bring conversions: they are not judged.
        basis.Judged.Conversions.ShouldBe(10 - TargetLevel.FreshDays);
        basis.Months[0].Conversions.ShouldBe(18);
    }

    [Fact]
    public async Task Weeks_are_played_again_by_what_was_known_before_them()
    {
        var (account, campaign) = await AccountAsync();

        var weeks = await new ReplayReader(fixture.Source).WeeksAsync(account, campaign, 3, CancellationToken.None);

        weeks.Select(week => week.First).ShouldBe([Last.AddDays(-20), Last.AddDays(-13), Last.AddDays(-6)]);
        weeks.Select(week => week.Before.Clicks).ShouldBe([105, 210, 315]);
        weeks[0].Cells.Sum(cell => cell.Cost).ShouldBe(98);
        weeks[0].Room.ShouldBe(0.5);
    }

    [Fact]
    public async Task Keywords_stand_with_their_bids_figures_and_what_the_network_said()
    {
        var (account, campaign) = await AccountAsync();
        var (tuning, tuner) = (await KeywordAsync(account, "piano tuning"), await KeywordAsync(account, "piano tuner"));
        await KeepAsync(account, campaign, tuner, Last.AddDays(1), 1.40m, 20, 18);

        var rows = await new KeywordBidReader(fixture.Source).ReadAsync(
            account,
            campaign,
            null,
            null,
            new Period(Last.AddDays(-27), Last),
            10,
            CancellationToken.None
        );

        rows.Select(row => (row.Text, row.BaseBid, row.OwnBid))
            .ShouldBe([
                ("piano tuning", 1.00m, (decimal?)null),
                ("piano tuner", 1.00m, 1.40m),
                ("piano moving", null, null),
            ]);
        rows[0]
            .ShouldSatisfyAllConditions(
                row => row.Clicks.ShouldBe(280),
                row => row.LostToRank.ShouldBe(1_400),
                row => row.FirstPage.ShouldBeNull()
            );
        (rows[1].FirstPage, rows[1].Top, rows[1].AskedOn).ShouldBe((0.30m, 0.90m, Last.AddDays(1)));
        (
            await new KeywordBidReader(fixture.Source).PricesOfThemesAsync(
                account,
                [tuning, await KeywordAsync(account, "piano moving")],
                new Period(Last.AddDays(-27), Last),
                CancellationToken.None
            )
        ).Values.ShouldBe([0.8m], "only the phrase keyword that shares a word and was paid for tells a price");
    }

    private Task KeepAsync(
        int account,
        long campaign,
        long keyword,
        DateOnly day,
        decimal bid,
        double network,
        double own
    )
    {
        static EstimateRange Sure(double value) => new(value, value, value);
        return new EstimateBook(fixture.Source).KeepAsync(
            account,
            [
                new KeptEstimate(
                    keyword,
                    campaign,
                    day,
                    bid,
                    new NetworkEstimate(
                        "piano tuner",
                        MatchType.Exact,
                        keyword,
                        null,
                        [new EstimatedWeek(bid, network * 10, network, (decimal)network)],
                        0.30m,
                        0.90m
                    ),
                    new WeekEstimate(bid, Sure(own * 10), Sure(own), Sure(own), Sure(1))
                ),
            ],
            CancellationToken.None
        );
    }

    [Fact]
    public async Task An_estimate_is_held_against_the_week_that_followed_it_at_the_same_bid()
    {
        var (account, campaign) = await AccountAsync();
        var tuner = await KeywordAsync(account, "piano tuner");
        await KeepAsync(account, campaign, tuner, Last.AddDays(-13), 1.40m, 70, 30);
        await using (var connection = await fixture.Source.OpenConnectionAsync())
        {
            await connection.ExecuteAsync(
                "begin; select set_config('fendrik.step', '0', true); update keyword set is_live = true where id = @tuner; commit",
                new { tuner }
            );
        }

        // Its week is not over, and at another bid than now.
        await KeepAsync(account, campaign, tuner, Last.AddDays(-3), 1.40m, 70, 30);
        await KeepAsync(account, campaign, tuner, Last.AddDays(-20), 2.00m, 90, 60);

        (await new EstimateBook(fixture.Source).ComparedAsync(account, CancellationToken.None)).ShouldBe([
            new ComparedEstimate(tuner, Last.AddDays(-13), 70, 30, 35, 35, 70, 30, 42),
        ]);
    }

    [Fact]
    public async Task What_the_network_said_last_is_kept_with_its_weeks()
    {
        var (account, campaign) = await AccountAsync();
        var tuner = await KeywordAsync(account, "piano tuner");
        await KeepAsync(account, campaign, tuner, Last.AddDays(-13), 1.40m, 70, 30);
        await KeepAsync(account, campaign, tuner, Last, 1.40m, 20, 18);

        var latest = await new EstimateBook(fixture.Source).LatestAsync(account, [tuner], CancellationToken.None);

        latest[tuner].AskedOn.ShouldBe(Last);
        latest[tuner].Network.Weeks.ShouldBe([new EstimatedWeek(1.40m, 200, 20, 20)]);
    }

    [Fact]
    public async Task Other_accounts_keep_their_estimates_and_strategies_to_themselves()
    {
        var (account, campaign) = await AccountAsync();
        var (other, _) = await AccountAsync();
        var tuner = await KeywordAsync(account, "piano tuner");
        await KeepAsync(account, campaign, tuner, Last.AddDays(-13), 1.40m, 70, 30);
        var book = new EstimateBook(fixture.Source);

        (await book.LatestAsync(other, [tuner], CancellationToken.None)).ShouldBeEmpty();
        (await book.ComparedAsync(other, CancellationToken.None)).ShouldBeEmpty();
        (
            await new StrategyBasisReader(fixture.Source).BasisAsync(other, campaign, CancellationToken.None)
        ).ShouldBeNull();
        (
            await new KeywordBidReader(fixture.Source).ReadAsync(
                other,
                campaign,
                null,
                null,
                null,
                10,
                CancellationToken.None
            )
        ).ShouldBeEmpty();
    }
}
