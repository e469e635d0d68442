using System.Net;
using System.Text.Json;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Fendrik.Data.Results;
using Fendrik.Tests.Shared;
using Npgsql;

namespace Fendrik.Server.Tests;

/// <summary>The start page and the list of campaigns by what they truly do, through the API.</summary>
[Collection(nameof(ServerFixture))]
public class DeskTests(ServerFixture fixture)
{
    private static readonly DateOnly Last = new(2026, 5, 11);

    private async Task<(int Account, Visitor Visitor, long[] Campaigns)> WithCampaignsAsync(params string[] names)
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
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

    private async Task ReportAsync(
        int account,
        params (int Before, long Campaign, decimal Cost, decimal Conversions)[] days
    )
    {
        await using var source = NpgsqlDataSource.Create(fixture.Host.Database);
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

    private static string Results(int account, string more = "") =>
        $"/api/accounts/{account}/results?first={Last.AddDays(-6):yyyy-MM-dd}&last={Last:yyyy-MM-dd}&level=campaign{more}";

    private static string?[] Names(JsonElement rows) =>
        [.. rows.EnumerateArray().Select(row => row.GetProperty("name").GetString())];

    [Fact]
    public async Task What_became_dearer_stands_on_the_desk_with_its_campaign()
    {
        var (account, visitor, campaigns) = await WithCampaignsAsync("Hire", "Tuning");
        using var _ = visitor;
        await ReportAsync(
            account,
            (8, campaigns[0], 400, 40),
            (1, campaigns[0], 400, 15),
            (8, campaigns[1], 100, 10),
            (1, campaigns[1], 100, 10)
        );

        var desk = await visitor.ReadAsync($"/api/accounts/{account}/desk");

        var item = desk.GetProperty("items").EnumerateArray().ShouldHaveSingleItem();
        item.GetProperty("topic").GetString().ShouldBe("dearer");
        item.GetProperty("name").GetString().ShouldBe("Hire");
        item.GetProperty("moneyAWeek").GetDecimal().ShouldBe(250);
    }

    [Fact]
    public async Task All_accounts_of_a_person_stand_side_by_side_and_none_of_others()
    {
        var (account, first, campaigns) = await WithCampaignsAsync("Hire");
        var (other, second, theirs) = await WithCampaignsAsync("Bikes");
        using var _ = first;
        using var __ = second;
        await ReportAsync(account, (1, campaigns[0], 100, 10), (8, campaigns[0], 100, 20));
        await ReportAsync(other, (1, theirs[0], 60, 3));
        using var both = await fixture.Host.AddPersonAsync(account, more: other);

        var all = await both.ReadAsync("/api/desk/accounts");

        all.EnumerateArray()
            .Select(row =>
                (
                    row.GetProperty("accountId").GetInt32(),
                    row.GetProperty("judgedBy").GetString(),
                    row.GetProperty("cost").GetDecimal()
                )
            )
            .ShouldBe([(account, "£10.00", 100m), (other, "£20.00", 60m)], ignoreOrder: true);
        (await first.ReadAsync("/api/desk/accounts")).GetArrayLength().ShouldBe(1);
    }

    [Fact]
    public async Task Campaigns_that_brought_nothing_are_listed_as_well()
    {
        var (account, visitor, campaigns) = await WithCampaignsAsync("Hire", "Quiet");
        using var _ = visitor;
        await ReportAsync(account, (1, campaigns[0], 40, 4));

        var results = await visitor.ReadAsync(Results(account));

        Names(results.GetProperty("rows")).ShouldBe(["Hire", "Quiet"]);
    }

    [Fact]
    public async Task Campaigns_are_told_by_what_they_truly_do_and_chosen_by_it()
    {
        var (account, visitor, campaigns) = await WithCampaignsAsync("Hire", "Tuning");
        using var _ = visitor;
        await ReportAsync(account, (1, campaigns[0], 40, 4));
        await using (var connection = await NpgsqlDataSource.Create(fixture.Host.Database).OpenConnectionAsync())
        {
            // As the network has it: running, with an ad that is approved; then it was paused in the working copy only.
            await using var command = connection.CreateCommand();
            command.CommandText =
                $"select set_config('fendrik.step','0',true); update campaign set is_live = true where id = {campaigns[0]}";
            await command.ExecuteNonQueryAsync();
        }

        var conditions = (await visitor.ReadAsync($"/api/accounts/{account}/results/conditions"))
            .GetProperty("campaigns")
            .EnumerateArray()
            .ToDictionary(
                row => row.GetProperty("campaignId").GetInt64(),
                row => row.GetProperty("condition").GetString()
            );

        conditions.ShouldBe(
            new Dictionary<long, string?> { [campaigns[0]] = "nothingToShow", [campaigns[1]] = "notPublished" },
            ignoreOrder: true
        );
        var chosen = await visitor.ReadAsync(Results(account, "&condition=notPublished"));
        Names(chosen.GetProperty("rows")).ShouldBe(["Tuning"]);
        chosen.GetProperty("total").GetProperty("cost").GetProperty("now").GetDecimal().ShouldBe(0);
    }

    [Theory]
    [InlineData("results/breakdown?by=age&then=gender", "then")]
    [InlineData("results/breakdown?by=moon", "by")]
    [InlineData("results?level=campaign&condition=asleep", "condition")]
    [InlineData("results?level=campaign&grain=hour", "grain")]
    public async Task What_cannot_be_asked_is_refused_by_the_field(string path, string field)
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        using var __ = visitor;

        using var response = await visitor.SendAsync(
            HttpMethod.Get,
            $"/api/accounts/{account}/{path}&first=2026-05-01&last=2026-05-07"
        );

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await response.Content.ReadAsStringAsync()).ShouldContain($"\"{field}\"");
    }

    [Fact]
    public async Task A_breakdown_is_taken_out_as_a_file()
    {
        var (account, visitor, campaigns) = await WithCampaignsAsync("Hire");
        using var _ = visitor;
        await ReportAsync(account, (1, campaigns[0], 40, 4));

        using var response = await visitor.SendAsync(
            HttpMethod.Get,
            $"/api/accounts/{account}/results/breakdown.csv?by=campaign&then=device&first={Last.AddDays(-6):yyyy-MM-dd}&last={Last:yyyy-MM-dd}"
        );

        var lines = (await response.Content.ReadAsStringAsync()).TrimStart('\uFEFF').Split("\r\n");
        lines[0].ShouldStartWith("Campaign,Device,Impressions,Clicks,CTR,Cost GBP");
        lines[1].ShouldStartWith("Hire,phone,1000,100,0.1,40,");
    }
}
