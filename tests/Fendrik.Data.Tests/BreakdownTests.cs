using Dapper;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Breakdowns;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Breakdowns;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

/// <summary>Figures told apart: whatever they are told apart by, the parts add up.</summary>
[Collection(nameof(WorkingCopyFixture))]
public sealed class BreakdownTests(WorkingCopyFixture fixture)
{
    private const string List =
        "campaign,daily budget,ad group,keyword,match,max cpc\n"
        + "North,40,Tuning,piano tuning,phrase,1.20\n"
        + "North,40,Repair,piano repair,exact,0.60\n"
        + "South,40,Hire,piano hire,broad,0.60\n";

    private static readonly Period Days = new(new DateOnly(2026, 4, 20), new DateOnly(2026, 5, 17));

    private sealed record Brought(int Account, PerformanceRow[] Rows);

    /// <summary>Eight weeks drawn at random: what keywords brought, and the same once more by age.</summary>
    private async Task<Brought> BroughtAsync(int seed)
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        await using var connection = await fixture.Source.OpenConnectionAsync();
        var keywords = (
            await connection.QueryAsync<(long Id, long Group, long Campaign)>(
                "select k.id, g.id, g.campaign_id from keyword k join ad_group g on g.id = k.ad_group_id where k.account_id = @account",
                new { account }
            )
        ).ToArray();
        var random = new Random(seed);
        var both = new Period(Days.Before.First, Days.Last);
        // Each keyword shows in several hours of a day, on several devices and sites.
        PerformanceRow[] rows =
        [
            .. Enumerable
                .Range(0, both.Days)
                .SelectMany(day => keywords.Select(keyword => (Day: both.First.AddDays(day), Keyword: keyword)))
                .Where(_ => random.NextDouble() < 0.7)
                .SelectMany(each =>
                    Enumerable
                        .Range(0, random.Next(1, 4))
                        .Select(_ => new PerformanceRow(
                            each.Day,
                            random.Next(24),
                            each.Keyword.Campaign,
                            each.Keyword.Group,
                            each.Keyword.Id,
                            1,
                            (Device)random.Next(1, 4),
                            random.NextDouble() < 0.8 ? SiteKinds.Search : SiteKinds.Partners,
                            random.Next(1, 40),
                            random.Next(0, 5),
                            random.Next(0, 900) / 100m,
                            random.Next(0, 2),
                            random.Next(0, 100)
                        ))
                )
                .DistinctBy(row => (row.Day, row.Hour, row.KeywordId, row.Device, row.Site)),
        ];
        await new PerformanceStore(fixture.Source).StoreAsync(
            account,
            both,
            rows.ToAsyncEnumerable(),
            CancellationToken.None
        );
        // Half of the days are from before the network told of ages.
        string[] ages = [SegmentNames.Young, SegmentNames.Middle, SegmentNames.Old];
        await new DayReports(fixture.Source).StoreAsync(
            account,
            both,
            rows.Where(row => row.Day.DayNumber % 2 == 0)
                .Select(row => new ReachedRow(
                    row.Day,
                    row.CampaignId,
                    row.AdGroupId,
                    ReachedBy.Age,
                    ages[row.Hour % 3],
                    row.Impressions,
                    row.Clicks,
                    row.Cost,
                    row.Conversions,
                    row.Value
                ))
                .ToAsyncEnumerable(),
            CancellationToken.None
        );
        return new Brought(account, rows);
    }

    private Task<BreakdownReport> ReadAsync(int account, Breakdown by, Breakdown? then = null, long? campaign = null) =>
        new BreakdownReader(fixture.Source).ReadAsync(
            account,
            new BreakdownRequest(Days, Days.Before, by, then, campaign, null),
            1_000,
            CancellationToken.None
        );

    private static Figures Sum(IEnumerable<PerformanceRow> rows) =>
        rows.Aggregate(
            Figures.Zero,
            (sum, row) => sum + new Figures(row.Impressions, row.Clicks, row.Cost, row.Conversions, row.Value)
        );

    private static Figures Sum(IEnumerable<Figures> figures) =>
        figures.Aggregate(Figures.Zero, (sum, each) => sum + each);

    private static bool IsNow(PerformanceRow row) => Days.First <= row.Day && row.Day <= Days.Last;

    /// <summary>Any breakdown, alone and crossed with any that it is reported with, adds up to the rows that were brought, to the penny.</summary>
    [Fact]
    public async Task Parts_add_up_to_what_was_brought_whatever_they_are_told_apart_by()
    {
        var brought = await BroughtAsync(5);
        var (now, before) = (Sum(brought.Rows.Where(IsNow)), Sum(brought.Rows.Where(row => !IsNow(row))));
        foreach (var by in Enum.GetValues<Breakdown>())
        {
            var alone = await ReadAsync(brought.Account, by);
            Sum(alone.Parts.Select(part => part.Now)).ShouldBe(now, by.ToString());
            Sum(alone.Parts.Select(part => part.Before)).ShouldBe(before, by.ToString());
            foreach (var then in Enum.GetValues<Breakdown>().Where(each => BreakdownRules.ProblemOf(by, each) is null))
            {
                var crossed = await ReadAsync(brought.Account, by, then);
                crossed
                    .Parts.Select(part => (part.Key, part.Now, part.Before))
                    .ShouldBe(alone.Parts.Select(part => (part.Key, part.Now, part.Before)), $"{by} by {then}");
                foreach (var part in crossed.Parts.Where(part => part.Key.Length > 0))
                {
                    Sum(part.Parts.Select(each => each.Now)).ShouldBe(part.Now, $"{by} {part.Key} by {then}");
                    Sum(part.Parts.Select(each => each.Before)).ShouldBe(part.Before, $"{by} {part.Key} by {then}");
                }
            }
        }
    }

    [Fact]
    public async Task Hours_of_devices_are_what_was_brought_in_them()
    {
        var brought = await BroughtAsync(6);

        var report = await ReadAsync(brought.Account, Breakdown.Device, Breakdown.Hour);

        report
            .Parts.SelectMany(device => device.Parts.Select(hour => (device.Key, Hour: hour.Key, hour.Now)))
            .Where(each => each.Now != Figures.Zero)
            .Order(
                Comparer<(string, string, Figures)>.Create(
                    (one, two) => (one.Item1, one.Item2).CompareTo((two.Item1, two.Item2))
                )
            )
            .ShouldBe(
                brought
                    .Rows.Where(IsNow)
                    .GroupBy(row => ($"{(int)row.Device}", $"{row.Hour}"))
                    .OrderBy(each => each.Key)
                    .Select(each => (each.Key.Item1, each.Key.Item2, Sum(each)))
            );
    }

    [Fact]
    public async Task Days_before_the_network_told_of_ages_are_said_not_to_be_known()
    {
        var brought = await BroughtAsync(7);

        var report = await ReadAsync(brought.Account, Breakdown.Age);

        report
            .Parts.Select(part => part.Label)
            .ShouldBe([SegmentNames.Young, SegmentNames.Middle, SegmentNames.Old, "not known"]);
        report.Parts[^1].Now.ShouldBe(Sum(brought.Rows.Where(row => IsNow(row) && row.Day.DayNumber % 2 != 0)));
    }

    [Fact]
    public async Task Days_of_before_stand_beside_those_that_they_are_compared_with()
    {
        var brought = await BroughtAsync(8);

        var report = await ReadAsync(brought.Account, Breakdown.Day);

        report
            .Parts.Where(part => part.Before != Figures.Zero)
            .Select(part => (part.Key, part.Before))
            .ShouldBe(
                brought
                    .Rows.Where(row => !IsNow(row))
                    .GroupBy(row => row.Day.AddDays(Days.Days))
                    .OrderBy(day => day.Key)
                    .Select(day => ($"{day.Key:yyyy-MM-dd}", Sum(day)))
            );
    }

    [Fact]
    public async Task Within_a_campaign_only_its_own_are_told()
    {
        var brought = await BroughtAsync(9);
        var campaign = brought.Rows[0].CampaignId;

        var report = await ReadAsync(brought.Account, Breakdown.Match, campaign: campaign);

        report.Now.ShouldBe(Sum(brought.Rows.Where(row => IsNow(row) && row.CampaignId == campaign)));
        report.Parts.Select(part => part.Label).ShouldBe(["phrase", "exact"], ignoreOrder: true);
    }

    [Fact]
    public async Task Of_chosen_campaigns_only_theirs_are_told()
    {
        var brought = await BroughtAsync(10);
        var chosen = brought.Rows[0].CampaignId;

        var report = await new BreakdownReader(fixture.Source).ReadAsync(
            brought.Account,
            new BreakdownRequest(Days, Days.Before, Breakdown.Weekday, Breakdown.Hour, null, null, [chosen]),
            1_000,
            CancellationToken.None
        );

        report.Now.ShouldBe(Sum(brought.Rows.Where(row => IsNow(row) && row.CampaignId == chosen)));
        Sum(report.Parts.SelectMany(part => part.Parts).Select(hour => hour.Now)).ShouldBe(report.Now);
    }

    /// <summary>Whatever days are asked for, each item's sums are those of its own rows: weeks and days around them, days that are in both periods, days told of twice.</summary>
    [Fact]
    public async Task Items_are_the_sums_of_their_rows_in_any_days()
    {
        var brought = await BroughtAsync(11);
        StandingRow[] stood =
        [
            .. brought
                .Rows.GroupBy(row => (row.Day, row.KeywordId))
                .Select(
                    (each, n) =>
                        new StandingRow(
                            each.Key.Day,
                            each.First().CampaignId,
                            each.First().AdGroupId,
                            each.Key.KeywordId,
                            100 + n % 7,
                            n % 5,
                            n % 3,
                            200,
                            n % 11,
                            n % 13
                        )
                ),
        ];
        var both = new Period(Days.Before.First, Days.Last);
        var reports = new DayReports(fixture.Source);
        await reports.StoreAsync(brought.Account, both, stood.ToAsyncEnumerable(), CancellationToken.None);
        // Late conversions: days in the middle of weeks are told of once more, with other figures.
        var again = new Period(Days.First.AddDays(3), Days.First.AddDays(9));
        bool IsAgain(DateOnly day) => again.First <= day && day <= again.Last;
        PerformanceRow[] rows =
        [
            .. brought.Rows.Select(row => IsAgain(row.Day) ? row with { Conversions = row.Conversions + 1 } : row),
        ];
        await new PerformanceStore(fixture.Source).StoreAsync(
            brought.Account,
            again,
            rows.Where(row => IsAgain(row.Day)).ToAsyncEnumerable(),
            CancellationToken.None
        );
        (Period Days, Period? Chosen)[] asked =
        [
            (Days, null),
            (new Period(Days.First.AddDays(2), Days.First.AddDays(20)), null),
            (new Period(Days.First.AddDays(1), Days.First.AddDays(5)), null),
            (new Period(Days.First, Days.First), null),
            (Days, new Period(Days.First.AddDays(-4), Days.First.AddDays(12))),
            (new Period(Days.Before.First, Days.Last), Days.Before),
        ];
        foreach (var (days, chosen) in asked)
        {
            foreach (var level in new[] { ItemKind.Campaign, ItemKind.AdGroup, ItemKind.Keyword })
            {
                var report = await new ResultsReader(fixture.Source).ReadAsync(
                    brought.Account,
                    new ResultsRequest(
                        days,
                        level,
                        null,
                        null,
                        chosen is null ? Comparison.DaysBefore : Comparison.Chosen,
                        Chosen: chosen
                    ),
                    500,
                    CancellationToken.None
                );
                long IdOf(long campaign, long group, long keyword) =>
                    level == ItemKind.Campaign ? campaign
                    : level == ItemKind.AdGroup ? group
                    : keyword;
                bool In(DateOnly day, Period period) => period.First <= day && day <= period.Last;
                Figures Brought(long id, Period period) =>
                    Sum(
                        rows.Where(row =>
                            In(row.Day, period) && IdOf(row.CampaignId, row.AdGroupId, row.KeywordId) == id
                        )
                    );
                Standing Stood(long id, Period period) =>
                    stood
                        .Where(row => In(row.Day, period) && IdOf(row.CampaignId, row.AdGroupId, row.KeywordId) == id)
                        .Aggregate(
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
                        );
                var before = chosen ?? days.Before;
                foreach (var line in report.Lines)
                {
                    (line.Now, line.Before).ShouldBe(
                        (Brought(line.Id, days), Brought(line.Id, before)),
                        $"{level} {days}"
                    );
                    (line.StandingNow, line.StandingBefore).ShouldBe(
                        (Stood(line.Id, days), Stood(line.Id, before)),
                        $"{level} {days}"
                    );
                }

                Sum(report.Lines.Select(line => line.Now)).ShouldBe(Sum(rows.Where(row => In(row.Day, days))));
            }
        }
    }

    [Fact]
    public async Task What_is_not_reported_together_is_refused_with_what_to_do()
    {
        var account = await fixture.NewAccountAsync();

        var refused = await Should.ThrowAsync<InvalidChangeException>(() =>
            ReadAsync(account, Breakdown.Age, Breakdown.Gender)
        );

        refused.Message.ShouldContain("Cross either with days, campaigns or ad groups.");
    }
}
