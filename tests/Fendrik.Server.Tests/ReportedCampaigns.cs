using System.Text.Json;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Fendrik.Data.Results;
using Fendrik.Tests.Shared;
using Npgsql;

namespace Fendrik.Server.Tests;

/// <summary>Accounts with campaigns of which days are reported, for tests of what is read from them.</summary>
public abstract class ReportedCampaigns(ServerFixture fixture)
{
    protected ServerFixture Fixture { get; } = fixture;

    protected static readonly DateOnly Last = new(2026, 5, 11);

    protected async Task<(int Account, Visitor Visitor, long[] Campaigns)> WithCampaignsAsync(params string[] names)
    {
        var (account, visitor, _) = await Fixture.Host.NewAccountAsync();
        foreach (var name in names)
        {
            await visitor.PostAsync(
                $"/api/accounts/{account}/commands",
                new
                {
                    type = "put",
                    kind = "campaign",
                    values = new { name, dailyBudget = 25m },
                    place = new { },
                }
            );
        }

        var page = await visitor.PostAsync($"/api/accounts/{account}/sheet", new { offset = 0, limit = 100 });
        return (
            account,
            visitor,
            [.. page.GetProperty("rows").EnumerateArray().Select(row => row.GetProperty("id").GetInt64())]
        );
    }

    protected async Task ReportAsync(
        int account,
        params (int Before, long Campaign, decimal Cost, decimal Conversions)[] days
    )
    {
        await using var source = NpgsqlDataSource.Create(Fixture.Host.Database);
        await new PerformanceStore(source).StoreAsync(
            account,
            new Period(Last.AddDays(-13), Last),
            days.Select(day => new PerformanceRow(
                    Last.AddDays(-day.Before),
                    9,
                    day.Campaign,
                    1,
                    1,
                    1,
                    Device.Phone,
                    SiteKinds.Search,
                    1_000,
                    100,
                    day.Cost,
                    day.Conversions,
                    0
                ))
                .ToAsyncEnumerable(),
            CancellationToken.None
        );
    }

    protected static string Results(int account, string more = "") =>
        $"/api/accounts/{account}/results?first={Last.AddDays(-6):yyyy-MM-dd}&last={Last:yyyy-MM-dd}&level=campaign{more}";

    protected static string?[] Names(JsonElement rows) =>
        [.. rows.EnumerateArray().Select(row => row.GetProperty("name").GetString())];
}
