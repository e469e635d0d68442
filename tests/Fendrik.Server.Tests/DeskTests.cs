using System.Net;
using System.Text.Json;
using Fendrik.Tests.Shared;
using Npgsql;

namespace Fendrik.Server.Tests;

/// <summary>The start page and the list of campaigns by what they truly do, through the API.</summary>
[Collection(nameof(ServerFixture))]
public class DeskTests(ServerFixture fixture) : ReportedCampaigns(fixture)
{
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
        using var both = await Fixture.Host.AddPersonAsync(account, more: other);

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
        await using (var connection = await NpgsqlDataSource.Create(Fixture.Host.Database).OpenConnectionAsync())
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
        var (account, visitor, _) = await Fixture.Host.NewAccountAsync();
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
        lines[0].ShouldStartWith("Campaign,Device,Impressions,Clicks,CTR,Average CPC GBP,Cost GBP");
        lines[1].ShouldStartWith("Hire,phone,1000,100,0.1,0.4,40,");
    }
}
