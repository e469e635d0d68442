using System.Net;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Fendrik.Data.Results;
using Fendrik.Tests.Shared;
using Npgsql;

namespace Fendrik.Server.Tests;

/// <summary>What moved a figure, through the API.</summary>
[Collection(nameof(ServerFixture))]
public class MovedTests(ServerFixture fixture) : ReportedCampaigns(fixture)
{
    private async Task<(int Account, Visitor Visitor)> WithTwoWeeksAsync()
    {
        var (account, visitor, ids) = await WithCampaignsAsync("Hire", "Tuning");
        PerformanceRow Row(int before, long campaign, long clicks, decimal cost, decimal conversions) =>
            new(
                Last.AddDays(-before),
                9,
                campaign,
                1,
                1,
                1,
                Device.Phone,
                SiteKinds.Search,
                clicks * 12,
                clicks,
                cost,
                conversions,
                conversions * 50
            );
        await using var source = NpgsqlDataSource.Create(Fixture.Host.Database);
        await new PerformanceStore(source).StoreAsync(
            account,
            new Period(Last.AddDays(-13), Last),
            new[]
            {
                Row(8, ids[0], 50, 40, 4),
                Row(8, ids[1], 20, 30, 1),
                Row(1, ids[0], 70, 49, 9),
                Row(1, ids[1], 12, 21, 2),
            }.ToAsyncEnumerable(),
            CancellationToken.None
        );
        return (account, visitor);
    }

    private static string Moved(int account, string figure) =>
        $"/api/accounts/{account}/results/moved?first={Last.AddDays(-6):yyyy-MM-dd}&last={Last:yyyy-MM-dd}&figure={figure}";

    [Theory]
    [InlineData("costPerConversion", "14.00", "6.36")]
    [InlineData("conversions", "5.0", "11.0")]
    [InlineData("profit", "180.00", "480.00")]
    public async Task Causes_as_shown_add_up_to_the_change_as_shown(string figure, string before, string now)
    {
        var (account, visitor) = await WithTwoWeeksAsync();
        using var _ = visitor;

        var moved = await visitor.ReadAsync(Moved(account, figure));

        moved.GetProperty("before").GetDecimal().ShouldBe(decimal.Parse(before));
        moved.GetProperty("now").GetDecimal().ShouldBe(decimal.Parse(now));
        moved
            .GetProperty("causes")
            .EnumerateArray()
            .Sum(cause => cause.GetProperty("effect").GetDecimal())
            .ShouldBe(decimal.Parse(now) - decimal.Parse(before));
        moved.GetProperty("parts")[0].GetProperty("name").GetString().ShouldBe("Hire");
    }

    [Fact]
    public async Task A_figure_that_cannot_be_taken_apart_is_refused()
    {
        var (account, visitor) = await WithTwoWeeksAsync();
        using var _ = visitor;

        using var response = await visitor.SendAsync(HttpMethod.Get, Moved(account, "weather"));

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task Without_conversions_before_there_is_no_split_of_their_cost()
    {
        var (account, visitor) = await WithTwoWeeksAsync();
        using var _ = visitor;

        var moved = await visitor.ReadAsync(
            Moved(account, "costPerConversion").Replace("first=2026-05-05", "first=2026-04-28")
        );

        moved.GetProperty("change").ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null);
        moved.GetProperty("now").GetDecimal().ShouldBe(8.75m);
    }
}
