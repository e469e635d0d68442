using System.Net;
using System.Text.Json;
using Fendrik.Core.Reporting;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Own;
using Fendrik.Tests.Shared;
using Npgsql;

namespace Fendrik.Server.Tests;

/// <summary>Results by measures of one's own, by saved views, against any days; and alerts.</summary>
[Collection(nameof(ServerFixture))]
public class ResultsTests(ServerFixture fixture) : ReportedCampaigns(fixture)
{
    private static decimal? Figure(JsonElement figures, string measure, string when = "now") =>
        figures.GetProperty(measure).GetProperty(when) is { ValueKind: JsonValueKind.Number } number
            ? number.GetDecimal()
            : null;

    private static Task<HttpResponseMessage> KeepAsync(
        Visitor visitor,
        int account,
        string name,
        string formula,
        string? form = null
    ) =>
        visitor.SendAsync(
            HttpMethod.Put,
            $"/api/accounts/{account}/results/measures/{Uri.EscapeDataString(name)}",
            new { formula, form }
        );

    [Fact]
    public async Task A_measure_of_ones_own_is_taken_from_the_sums_of_rows_and_totals()
    {
        var (account, visitor, campaigns) = await WithCampaignsAsync("Hire", "Tuning");
        using var _ = visitor;
        await ReportAsync(account, (1, campaigns[0], 40, 4), (2, campaigns[0], 20, 0), (1, campaigns[1], 30, 1));

        (await KeepAsync(visitor, account, "Cost of a click twice", "2 * cost / clicks")).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );

        var results = await visitor.ReadAsync(Results(account));
        Figure(results.GetProperty("total"), "own:Cost of a click twice").ShouldBe(0.6m);
        results
            .GetProperty("rows")
            .EnumerateArray()
            .Select(row => Figure(row.GetProperty("figures"), "own:Cost of a click twice"))
            .ShouldBe([0.6m, 0.6m]);
    }

    [Fact]
    public async Task A_measure_of_ones_own_is_a_column_of_files_and_of_breakdowns()
    {
        var (account, visitor, campaigns) = await WithCampaignsAsync("Hire");
        using var _ = visitor;
        await ReportAsync(account, (1, campaigns[0], 40, 4));
        await KeepAsync(visitor, account, "Thousand", "cost / impressions * 1000");

        var file = await (
            await visitor.SendAsync(
                HttpMethod.Get,
                Results(account, "&columns=clicks,own:Thousand").Replace("/results?", "/results.csv?")
            )
        ).Content.ReadAsStringAsync();
        var apart = await visitor.ReadAsync(Results(account, "&by=device").Replace("/results?", "/results/breakdown?"));

        file.TrimStart('\uFEFF')
            .Split("\r\n")
            .Take(2)
            .ShouldBe([
                "Campaign,Ad group,Name,Match type,Clicks,Thousand GBP,Clicks before,Thousand GBP before",
                "Hire,,Hire,,100,40,0,",
            ]);
        Figure(apart.GetProperty("total"), "own:Thousand").ShouldBe(40m);
    }

    [Theory]
    [InlineData("Odd", "cost + clicks", null, "formula")]
    [InlineData("Odd", "cost ÷ clicks", "share", "formula")]
    [InlineData("Clicks", "cost ÷ clicks", null, "name")]
    [InlineData("a, b", "cost ÷ clicks", null, "name")]
    public async Task What_cannot_be_a_measure_is_refused_by_its_field(
        string name,
        string formula,
        string? form,
        string field
    )
    {
        var (account, visitor, _) = await Fixture.Host.NewAccountAsync();
        using var __ = visitor;

        using var response = await KeepAsync(visitor, account, name, formula, form);

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await response.Content.ReadAsStringAsync()).ShouldContain($"\"{field}\"");
    }

    [Fact]
    public async Task Results_stand_against_any_days_that_somebody_chooses()
    {
        var (account, visitor, campaigns) = await WithCampaignsAsync("Hire");
        using var _ = visitor;
        await ReportAsync(account, (1, campaigns[0], 40, 4), (8, campaigns[0], 70, 7), (9, campaigns[0], 35, 7));
        var day = $"{Last.AddDays(-9):yyyy-MM-dd}";

        var results = await visitor.ReadAsync(Results(account, $"&against=chosen&beforeFirst={day}&beforeLast={day}"));

        var cost = results.GetProperty("total").GetProperty("cost");
        cost.GetProperty("before").GetDecimal().ShouldBe(35);
        cost.GetProperty("change").GetDecimal().ShouldBe(5m / 35, 0.0001m);
    }

    [Fact]
    public async Task The_dearest_keywords_are_the_first_of_all_of_them()
    {
        var (account, visitor, campaigns) = await WithCampaignsAsync("Hire");
        using var _ = visitor;
        await visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "put",
                kind = "adGroup",
                values = new { name = "Words" },
                place = new { campaignIds = campaigns },
            }
        );
        var group = (
            await visitor.PostAsync(
                $"/api/accounts/{account}/sheet",
                new
                {
                    kind = "adGroup",
                    offset = 0,
                    limit = 10,
                }
            )
        ).GetProperty("rows")[0].GetProperty("id").GetInt64();
        await using var source = NpgsqlDataSource.Create(Fixture.Host.Database);
        await using (
            var command = source.CreateCommand(
                $"""
                select set_config('fendrik.step', '0', false);
                insert into keyword (account_id, ad_group_id, text, text_key, match_type, state, removed, is_live, review)
                select {account}, {group}, 'word ' || n, 'word ' || n, 1, 1, false, false, 0 from generate_series(1, 6) n
                """
            )
        )
        {
            await command.ExecuteNonQueryAsync();
        }

        var words = new List<long>();
        await using (
            var command = source.CreateCommand($"select id from keyword where account_id = {account} order by id")
        )
        await using (var reader = await command.ExecuteReaderAsync())
        {
            while (await reader.ReadAsync())
            {
                words.Add(reader.GetInt64(0));
            }
        }

        // The dearest of before is not shown any more, and the last was never dear.
        await new PerformanceStore(source).StoreAsync(
            account,
            new Period(Last.AddDays(-13), Last),
            words
                .SelectMany((word, at) => new[] { (word, 1, at == 0 ? 0m : 10m * at), (word, 8, 100m - at) })
                .Where(each => each.Item3 > 0)
                .Select(each => new Core.Networks.PerformanceRow(
                    Last.AddDays(-each.Item2),
                    9,
                    campaigns[0],
                    group,
                    each.word,
                    1,
                    Device.Phone,
                    SiteKinds.Search,
                    100,
                    10,
                    each.Item3,
                    1,
                    0
                ))
                .ToAsyncEnumerable(),
            CancellationToken.None
        );
        var request = new ResultsRequest(new Period(Last.AddDays(-6), Last), ItemKind.Keyword, null, null);
        var reads = new ResultsReader(source);

        var all = await reads.ReadAsync(account, request, 100, CancellationToken.None);
        var some = await reads.ReadAsync(account, request, 3, CancellationToken.None);

        all.Lines.Count.ShouldBe(6);
        some.More.ShouldBeTrue();
        some.Lines.ShouldBe(all.Lines.Take(3));
        some.Lines.Select(line => line.Id).ShouldBe([words[5], words[4], words[3]]);
        some.Now.ShouldBe(all.Now);
        // What costs nothing now and cost most before goes in front of others that cost nothing.
        (await reads.ReadAsync(account, request, 5, CancellationToken.None)).Lines.ShouldBe(all.Lines.Take(5));
    }

    [Fact]
    public async Task Days_that_were_not_chosen_are_asked_for()
    {
        var (account, visitor, _) = await Fixture.Host.NewAccountAsync();
        using var __ = visitor;

        using var response = await visitor.SendAsync(HttpMethod.Get, Results(account, "&against=chosen"));

        (await response.Content.ReadAsStringAsync()).ShouldContain("\"beforeFirst\"");
    }

    private static Task<HttpResponseMessage> SaveViewAsync(Visitor visitor, int account, string name, object request) =>
        visitor.SendAsync(
            HttpMethod.Put,
            $"/api/accounts/{account}/views/{name}",
            new { request, columns = Array.Empty<string>() }
        );

    [Fact]
    public async Task A_view_saved_in_the_sheet_keeps_results_to_its_items_with_total_and_chart()
    {
        var (account, visitor, campaigns) = await WithCampaignsAsync("Hire", "Tuning");
        using var _ = visitor;
        await ReportAsync(account, (1, campaigns[0], 40, 4), (1, campaigns[1], 30, 1));
        await SaveViewAsync(visitor, account, "Hires", new { kind = "campaign", text = "hire" });

        var results = await visitor.ReadAsync(Results(account, "&view=Hires"));

        Names(results.GetProperty("rows")).ShouldBe(["Hire"]);
        Figure(results.GetProperty("total"), "cost").ShouldBe(40m);
        results
            .GetProperty("days")
            .EnumerateArray()
            .Sum(each => Figure(each.GetProperty("figures"), "cost"))
            .ShouldBe(40m);
    }

    [Fact]
    public async Task A_view_of_other_items_and_one_of_a_colleague_are_refused()
    {
        var (account, visitor, campaigns) = await WithCampaignsAsync("Hire");
        using var _ = visitor;
        using var colleague = await Fixture.Host.AddPersonAsync(account);
        await SaveViewAsync(visitor, account, "Words", new { kind = "keyword" });
        await SaveViewAsync(colleague, account, "Theirs", new { kind = "campaign" });

        foreach (var view in new[] { "Words", "Theirs" })
        {
            using var response = await visitor.SendAsync(HttpMethod.Get, Results(account, $"&view={view}"));
            response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, view);
        }
    }

    [Fact]
    public async Task A_view_of_results_comes_back_as_it_was_saved()
    {
        var (account, visitor, _) = await Fixture.Host.NewAccountAsync();
        using var __ = visitor;
        await visitor.SendAsync(
            HttpMethod.Put,
            $"/api/accounts/{account}/views/Mondays",
            new
            {
                request = new { kind = "campaign" },
                columns = Array.Empty<string>(),
                results = new { period = "lastWeek", picture = "week" },
            }
        );

        var view = (await visitor.ReadAsync($"/api/accounts/{account}/views")).EnumerateArray().ShouldHaveSingleItem();

        view.GetProperty("look")
            .GetProperty("results")
            .EnumerateObject()
            .Select(part => $"{part.Name}={part.Value.GetString()}")
            .ShouldBe(["period=lastWeek", "picture=week"], ignoreOrder: true);
    }

    private static object AlertOf(decimal threshold, bool eachCampaign = false, string measure = "costPerConversion") =>
        new
        {
            measure,
            above = true,
            threshold = $"{threshold}",
            days = 2,
            eachDay = false,
            eachCampaign,
            campaignId = (long?)null,
        };

    private async Task LookAsync(int account, DateOnly day)
    {
        await using var source = NpgsqlDataSource.Create(Fixture.Host.Database);
        await new AlertBook(source, new MeasureBook(source)).LookAsync(account, day, CancellationToken.None);
    }

    [Fact]
    public async Task An_alert_that_goes_off_stands_on_the_desk_with_what_is_too_much()
    {
        var (account, visitor, campaigns) = await WithCampaignsAsync("Hire", "Tuning");
        using var _ = visitor;
        await ReportAsync(account, (0, campaigns[0], 60, 1), (1, campaigns[0], 20, 1), (0, campaigns[1], 20, 4));

        await visitor.PostAsync($"/api/accounts/{account}/alerts", AlertOf(20, eachCampaign: true));

        var item = (await visitor.ReadAsync($"/api/accounts/{account}/desk"))
            .GetProperty("items")
            .EnumerateArray()
            .Where(each => each.GetProperty("topic").GetString() == "alert")
            .ShouldHaveSingleItem();
        item.GetProperty("title").GetString().ShouldBe("Hire: Cost per conversion above £20.00 in 2 days together");
        // £80 in two days at £40 each, where £20 would do: £40 too much, £140 a week.
        item.GetProperty("moneyAWeek").GetDecimal().ShouldBe(140);
    }

    [Fact]
    public async Task What_an_alert_found_stays_though_more_conversions_come_in_later()
    {
        var (account, visitor, campaigns) = await WithCampaignsAsync("Hire");
        using var _ = visitor;
        await ReportAsync(account, (0, campaigns[0], 60, 1));
        await visitor.PostAsync($"/api/accounts/{account}/alerts", AlertOf(20));

        await ReportAsync(account, (0, campaigns[0], 60, 6));
        await LookAsync(account, Last);

        var found = (await visitor.ReadAsync($"/api/accounts/{account}/alerts"))
            .EnumerateArray()
            .ShouldHaveSingleItem()
            .GetProperty("found")
            .EnumerateArray()
            .ShouldHaveSingleItem();
        found
            .GetProperty("says")
            .GetString()
            .ShouldBe("Cost per conversion £60.00 in the 2 days to 11 May, above £20.00.");
    }

    [Fact]
    public async Task A_measure_that_an_alert_goes_by_cannot_be_removed_and_a_wrong_alert_is_not_kept()
    {
        var (account, visitor, _) = await Fixture.Host.NewAccountAsync();
        using var __ = visitor;
        await KeepAsync(visitor, account, "Mine", "cost ÷ clicks");
        await visitor.PostAsync($"/api/accounts/{account}/alerts", AlertOf(1, measure: "own:Mine"));

        using var gone = await visitor.SendAsync(HttpMethod.Delete, $"/api/accounts/{account}/results/measures/Mine");
        using var unknown = await visitor.SendAsync(
            HttpMethod.Post,
            $"/api/accounts/{account}/alerts",
            AlertOf(1, measure: "own:Nobody's")
        );

        gone.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        unknown.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await visitor.ReadAsync($"/api/accounts/{account}/alerts")).GetArrayLength().ShouldBe(1);
    }

    [Fact]
    public async Task The_digest_has_the_week_the_alerts_and_what_is_worth_doing_and_no_markup_of_names()
    {
        var (account, visitor, campaigns) = await WithCampaignsAsync("Hire <b>");
        using var _ = visitor;
        await ReportAsync(account, (0, campaigns[0], 60, 1), (8, campaigns[0], 30, 1));
        await visitor.PostAsync($"/api/accounts/{account}/alerts", AlertOf(20, eachCampaign: true));

        using var response = await visitor.SendAsync(HttpMethod.Get, $"/api/accounts/{account}/desk/digest");

        var page = WebUtility.HtmlDecode(await response.Content.ReadAsStringAsync());
        page.ShouldContain("<th scope=\"row\">Cost per conversion</th><td>£60.00</td><td>£30.00</td><td>+100.0%</td>");
        page.ShouldContain("Cost per conversion £60.00 in the 2 days to 11 May");
        (await response.Content.ReadAsStringAsync()).ShouldNotContain("Hire <b>");
        response.Content.Headers.ContentDisposition!.FileName.ShouldBe("desk-2026-05-11.html");
    }

    [Fact]
    public async Task Of_many_steps_the_largest_are_named_and_the_others_counted()
    {
        var (account, visitor, campaigns) = await WithCampaignsAsync("Hire");
        using var _ = visitor;
        await using var source = NpgsqlDataSource.Create(Fixture.Host.Database);
        await using (
            var command = source.CreateCommand(
                $"""
                insert into step (account_id, person_id, made_at, kind, label, items) select {account}, 'x', now(), 1, 'Raise ' || n, n from generate_series(1, 300) n;
                with p as (insert into publish (account_id, person_id, made_at, state, total, accepted, refused, network_at)
                  values ({account}, 'x', now(), 2, 1, 1, 0, '2026-05-09 12:00+00') returning id)
                insert into publish_item (publish_id, position, kind, item_id, action, outcome) select p.id, 0, 1, {campaigns[
                    0
                ]}, 1, 1 from p
                """
            )
        )
        {
            await command.ExecuteNonQueryAsync();
        }

        var all = await visitor.ReadAsync($"/api/accounts/{account}/results/changes?first=2026-05-05&last=2026-05-11");

        all.EnumerateArray()
            .ShouldHaveSingleItem()
            .GetProperty("says")
            .GetString()
            .ShouldBe("Raise 300; Raise 299; Raise 298; and 298 more (1 campaign)");
    }

    [Fact]
    public async Task What_was_published_stands_on_the_network_s_day_with_the_steps_that_made_it()
    {
        var (account, visitor, campaigns) = await WithCampaignsAsync("Hire", "Tuning");
        using var _ = visitor;
        await using var source = NpgsqlDataSource.Create(Fixture.Host.Database);
        await using (
            var command = source.CreateCommand(
                $"""
                with p as (insert into publish (account_id, person_id, made_at, state, total, accepted, refused, network_at)
                  values ({account}, 'x', now(), 2, 1, 1, 0, '2026-05-09 23:30+00') returning id)
                insert into publish_item (publish_id, position, kind, item_id, action, outcome) select p.id, 0, 1, {campaigns[
                    0
                ]}, 1, 1 from p
                """
            )
        )
        {
            await command.ExecuteNonQueryAsync();
        }

        var all = await visitor.ReadAsync($"/api/accounts/{account}/results/changes?first=2026-05-05&last=2026-05-11");
        var other = await visitor.ReadAsync(
            $"/api/accounts/{account}/results/changes?first=2026-05-05&last=2026-05-11&campaignId={campaigns[1]}"
        );

        var change = all.EnumerateArray().ShouldHaveSingleItem();
        // Half past eleven at night in UTC is the next day in London.
        change.GetProperty("day").GetString().ShouldBe("2026-05-10");
        change.GetProperty("says").GetString()!.ShouldEndWith("(1 campaign)");
        change.GetProperty("says").GetString()!.ShouldContain("Hire");
        other.GetArrayLength().ShouldBe(0);
    }
}
