using Dapper;
using Fendrik.Core.Reporting;
using Fendrik.Data.Sheets;

namespace Fendrik.Data.Tests;

/// <summary>However a list is ordered and however its rows are fetched, they come in one and the same order.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class SheetOrderTests(WorkingCopyFixture fixture)
{
    private const int Keywords = 60;
    private static readonly DateOnly Day = new(2026, 3, 20);

    public static TheoryData<string, bool> Orders =>
        [
            .. SheetFields
                .All.Where(each => each.Sql(ItemTable.Of(ItemKind.Keyword)) is not null)
                .SelectMany(each => new[] { (each.Name, false), (each.Name, true) }),
        ];

    /// <summary>Keywords with and without a bid and figures of their own, in groups of which one has no bid.</summary>
    private async Task<int> AccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        var rows = Enumerable
            .Range(0, Keywords)
            .Select(n =>
                $"North,25,Group {n % 4},{(n % 4 == 3 ? "" : $"{1 + (n % 2)}.00")},piano {n * 7 % Keywords},{(n % 2 == 0 ? "exact" : "broad")},{(n % 3 == 0 ? "" : $"{1 + (n % 5)}.00")}"
            );
        await fixture.KeepAsync(
            account,
            "campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc\n" + string.Join('\n', rows)
        );
        await ReportAsync(account);
        return account;
    }

    private async Task ReportAsync(int account)
    {
        await using var connection = await fixture.Source.OpenConnectionAsync();
        var keywords = await connection.QueryAsync<(long Id, long Group, long Campaign)>(
            "select k.id, g.id, g.campaign_id from keyword k join ad_group g on g.id = k.ad_group_id where k.account_id = @account order by k.id",
            new { account }
        );
        await fixture.Performance.StoreAsync(
            account,
            new Period(Day, Day),
            keywords
                .Where((_, place) => place % 3 != 1)
                .Select(
                    (keyword, place) =>
                        new PerformanceRow(
                            Day,
                            9,
                            keyword.Campaign,
                            keyword.Group,
                            keyword.Id,
                            1,
                            Device.Phone,
                            SiteKinds.Search,
                            100 + (place % 4),
                            place % 5,
                            place % 5 * 0.37m,
                            place % 2,
                            0
                        )
                )
                .ToAsyncEnumerable(),
            CancellationToken.None
        );
    }

    [Theory]
    [MemberData(nameof(Orders))]
    public async Task Windows_from_the_top_are_the_order_of_all(string sort, bool descending)
    {
        var account = await AccountAsync();
        var request = new SheetRequest
        {
            Kind = ItemKind.Keyword,
            Sort = sort,
            Descending = descending,
            Limit = 13,
        };

        var windows = new List<long>();
        for (var offset = 0; offset < Keywords; offset += 13)
        {
            var page = await fixture.Sheet.ReadAsync(account, request with { Offset = offset }, CancellationToken.None);
            windows.AddRange(page.Rows.Select(row => row.Id));
        }

        windows.Distinct().Count().ShouldBe(Keywords);
        for (var place = 0; place < Keywords; place += 7)
        {
            var found = await fixture.Sheet.PlaceAsync(
                account,
                request,
                new ItemReference(ItemKind.Keyword, windows[place]),
                CancellationToken.None
            );
            found.ShouldBe(place);
        }
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public async Task Bids_are_in_order_whether_own_or_from_above(bool descending)
    {
        var account = await AccountAsync();

        var rows = await fixture.RowsAsync(
            account,
            new SheetRequest
            {
                Kind = ItemKind.Keyword,
                Sort = "maxCpc",
                Descending = descending,
            }
        );

        decimal?[] bids = [.. rows.Select(row => row.MaxCpc ?? row.InheritedMaxCpc)];
        bids.ShouldContain((decimal?)null);
        // Nothing comes before any amount, and after all of them when the highest is first.
        bids.ShouldBe(
            descending
                ? bids.OrderByDescending(bid => bid ?? decimal.MinValue)
                : bids.OrderBy(bid => bid ?? decimal.MinValue)
        );
    }

    [Fact]
    public async Task A_new_report_changes_the_order_by_cost()
    {
        var account = await AccountAsync();
        var request = new SheetRequest
        {
            Kind = ItemKind.Keyword,
            Sort = "cost",
            Descending = true,
            FiguresFrom = Day,
            FiguresTo = Day,
        };
        var first = (await fixture.RowsAsync(account, request))[^1];
        await fixture.Performance.StoreAsync(
            account,
            new Period(Day, Day),
            new[]
            {
                new PerformanceRow(
                    Day,
                    9,
                    first.CampaignId!.Value,
                    first.AdGroupId!.Value,
                    first.Id,
                    1,
                    Device.Phone,
                    SiteKinds.Search,
                    10,
                    9,
                    99m,
                    0,
                    0
                ),
            }.ToAsyncEnumerable(),
            CancellationToken.None
        );

        var now = (await fixture.RowsAsync(account, request))[0];

        (now.Id, now.Cost).ShouldBe((first.Id, 99m));
    }

    [Fact]
    public async Task Rows_are_counted_when_they_are_asked_to_be()
    {
        var account = await AccountAsync();
        var request = new SheetRequest
        {
            Kind = ItemKind.Keyword,
            Text = "piano 1",
            Limit = 3,
        };

        var page = await fixture.Sheet.ReadAsync(account, request, CancellationToken.None);
        var count = await fixture.Sheet.CountAsync(account, request, CancellationToken.None);

        page.Total.ShouldBeNull();
        count.Total.ShouldBe(11);
        (await fixture.Sheet.ReadAsync(account, request, CancellationToken.None)).Total.ShouldBe(11);
    }
}
