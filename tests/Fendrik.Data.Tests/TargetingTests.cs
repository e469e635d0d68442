using Dapper;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Fendrik.Core.Serving;
using Fendrik.Data.Results;
using Fendrik.Data.Sheets;
using Fendrik.Data.Tracing;

namespace Fendrik.Data.Tests;

/// <summary>Placements and audiences as lists bring them, as a search of the working copy is traced with them, and what they brought.</summary>
[Collection(nameof(WorkingCopyFixture))]
public sealed class TargetingTests(WorkingCopyFixture fixture) : IDisposable
{
    private const string List = """
        campaign,daily budget,networks,ad group,ad group max cpc,keyword,match,headline 1,headline 2,description 1,landing page,placement,in or out,audience,only or observed,bid modifier
        Hire,40,search + content,Event hire,1.10,piano hire,phrase,,,,,,,,,
        Hire,,,Event hire,,,,Piano Hire,For A Day,We bring it.,https://a.example/hire,,,,,
        Hire,,,,,,,,,,,https://BigDays.example/,out,,,
        Hire,,,Event hire,,,,,,,,,,parents,,+50%
        Hire,,,,,,,,,,,,,past visitors,only,
        """;

    private readonly KeywordMemory _memory = new();

    public void Dispose() => _memory.Dispose();

    private async Task<int> AccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        return account;
    }

    private async Task<TracedKeyword> TracedAsync(int account, string? page, params string[] audiences) =>
        (
            await new WorkingCopyTrace(fixture.Source, _memory).TraceAsync(
                account,
                new TraceWish("piano hire", Device.Phone, SiteKinds.Content, Page: page, Audiences: audiences),
                new DateOnly(2026, 5, 12),
                CancellationToken.None
            )
        ).Keywords.ShouldHaveSingleItem();

    [Fact]
    public async Task A_list_brings_them_onto_campaigns_and_ad_groups()
    {
        var account = await AccountAsync();
        var placement = (
            await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Placement })
        ).ShouldHaveSingleItem();
        (placement.Name, placement.AdGroup).ShouldBe(("bigdays.example", null));
        (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Audience }))
            .Select(row => (row.Name, row.AdGroup))
            .ShouldBe([("parents", "Event hire"), ("past visitors", null)], ignoreOrder: true);
    }

    [Fact]
    public async Task A_trace_says_which_of_them_keeps_a_keyword_away_and_what_its_bid_becomes()
    {
        var account = await AccountAsync();
        (await TracedAsync(account, "bigdays.example/venues", "past visitors")).Hindrance!.Kind.ShouldBe(
            HindranceKind.PlacementOut
        );
        (await TracedAsync(account, "oldthings.example", "parents")).Hindrance!.Kind.ShouldBe(
            HindranceKind.OtherAudience
        );
        var shown = await TracedAsync(account, "oldthings.example", "parents", "past visitors");
        shown.Hindrance.ShouldBeNull();
        shown.Bid.ShouldBe(1.65m);
    }

    [Fact]
    public async Task Figures_of_pages_are_added_up_over_days_and_stand_beside_those_before()
    {
        var account = await AccountAsync();
        var days = new Period(new DateOnly(2026, 5, 11), new DateOnly(2026, 5, 12));
        ReachedRow Row(int day, ReachedBy by, string name, long clicks, decimal cost) =>
            new(new DateOnly(2026, 5, day), 1, 2, by, name, 10 * clicks, clicks, cost, 1, 5);
        await new DayReports(fixture.Source).StoreAsync(
            account,
            new Period(new DateOnly(2026, 5, 9), days.Last),
            new[]
            {
                Row(9, ReachedBy.Placement, "a.example", 1, 0.50m),
                Row(11, ReachedBy.Placement, "a.example", 2, 0.80m),
                Row(12, ReachedBy.Placement, "a.example", 3, 0.90m),
                Row(12, ReachedBy.Placement, "b.example", 4, 2.00m),
                Row(12, ReachedBy.Audience, "parents", 5, 1.00m),
            }.ToAsyncEnumerable(),
            CancellationToken.None
        );

        var lines = await new MarketReader(fixture.Source).ReachedAsync(
            account,
            ReachedBy.Placement,
            new ResultsRequest(days, ItemKind.Campaign, null, null),
            CancellationToken.None
        );

        lines.ShouldBe([
            new ReachedLine("b.example", new Figures(40, 4, 2.00m, 1, 5), Figures.Zero),
            new ReachedLine("a.example", new Figures(50, 5, 1.70m, 2, 10), new Figures(10, 1, 0.50m, 1, 5)),
        ]);
    }
}
