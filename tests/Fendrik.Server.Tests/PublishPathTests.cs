using System.Net;
using System.Text;
using System.Text.Json;
using Fendrik.Data.Intakes;
using Fendrik.Data.Tables;
using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests;

/// <summary>The path from a pasted list to the first clicks through the API, with the network as it is on bad days.</summary>
[Collection(nameof(ServerFixture))]
public class PublishPathTests(ServerFixture fixture)
{
    private const string List = """
        campaign,daily budget,ad group,ad group max cpc,keyword,match type,headline 1,headline 2,description 1,url
        Tuning,40,Piano tuning,1.20,piano tuning,phrase,,,,
        Tuning,40,Piano tuning,1.20,piano tuner,phrase,,,,
        Tuning,40,Piano tuning,1.20,,,Piano Tuning,Ask For A Price,Same-week visits.,https://tarnandfell.example/tuning
        Tuning,40,,,-free,,,,,
        """;

    private const int Items = 6;

    private static string Of(int account, string path) => $"/api/accounts/{account}/{path}";

    private static async Task<JsonElement> BringInAsync(int account, Visitor visitor, string list)
    {
        var begun = await visitor.UploadAsync(Of(account, "intakes?fileName=list.csv"), Encoding.UTF8.GetBytes(list));
        (await visitor.JobAsync(account, begun.GetProperty("job"))).GetProperty("state").GetString().ShouldBe("done");
        var kept = await visitor.PostAsync(Of(account, $"intakes/{begun.GetProperty("intakeId").GetInt64()}/keep"));
        return await visitor.JobAsync(account, kept);
    }

    private static async Task<JsonElement> PublishAsync(int account, Visitor visitor) =>
        await visitor.JobAsync(account, await visitor.PostAsync(Of(account, "publishes"), new { }));

    private static async Task<long> PendingAsync(int account, Visitor visitor) =>
        (await visitor.StatusAsync(account)).GetProperty("changes").GetInt64();

    private async Task<(int Account, Visitor Visitor, NetworkVisitor Network)> WithListAsync()
    {
        var account = await fixture.Host.NewAccountAsync();
        (await BringInAsync(account.Account, account.Visitor, List))
            .GetProperty("message")
            .GetString()
            .ShouldBe($"Bring in {Items} items from list.csv");
        return account;
    }

    [Fact]
    public async Task Leads_from_a_list_to_clicks()
    {
        var (account, visitor, network) = await WithListAsync();

        (await PublishAsync(account, visitor)).GetProperty("state").GetString().ShouldBe("done");
        (await network.ItemCountAsync()).ShouldBe(Items);
        var moved = await visitor.JobAsync(
            account,
            await visitor.PostAsync(Of(account, "clock"), new { hours = 7 * 24 })
        );
        moved.GetProperty("state").GetString().ShouldBe("done");

        var results = await visitor.ReadAsync(Of(account, "results?first=2026-03-16&last=2026-03-22&level=keyword"));
        results.GetProperty("total").GetProperty("clicks").GetProperty("now").GetDecimal().ShouldBeGreaterThan(10);
        results.GetProperty("rows").GetArrayLength().ShouldBe(2);
        foreach (var (level, rows) in new[] { ("campaign", 1), ("adGroup", 1), ("textAd", 1) })
        {
            var report = await visitor.ReadAsync(
                Of(account, $"results?first=2026-03-16&last=2026-03-22&level={level}")
            );
            report.GetProperty("rows").GetArrayLength().ShouldBe(rows, level);
        }

        visitor.Dispose();
    }

    [Theory]
    [InlineData("fail", 2, 0)]
    [InlineData("drop", 1, 0)]
    [InlineData("drop", 2, 0)]
    [InlineData("slow", 1, 300)]
    [InlineData("slow", 1, 10_500)] // longer than the server waits: the first request is given up and sent again
    public async Task Loses_and_doubles_nothing_when_the_network_has_a_bad_moment(
        string fault,
        int times,
        int milliseconds
    )
    {
        var (account, visitor, network) = await WithListAsync();
        await network.FaultAsync(fault, times, milliseconds);

        var job = await PublishAsync(account, visitor);

        job.GetProperty("state").GetString().ShouldBe("done");
        (await network.ItemCountAsync()).ShouldBe(Items);
        (await PendingAsync(account, visitor)).ShouldBe(0);
        (await visitor.ReadAsync(Of(account, "publishes")))[0].GetProperty("accepted").GetInt32().ShouldBe(Items);
        visitor.Dispose();
    }

    [Fact]
    public async Task Says_that_the_network_does_not_answer_and_goes_on_later_where_it_stopped()
    {
        var (account, visitor, network) = await WithListAsync();
        await network.FaultAsync("fail", 4);

        var job = await PublishAsync(account, visitor);

        job.GetProperty("state").GetString().ShouldBe("failed");
        job.GetProperty("message").GetString().ShouldBe("The network answered with an error (503).");
        (await PendingAsync(account, visitor)).ShouldBe(Items);
        var publish = (await visitor.ReadAsync(Of(account, "publishes")))[0];
        (publish.GetProperty("state").GetString(), publish.GetProperty("problem").GetString()).ShouldBe(
            ("interrupted", "The network answered with an error (503).")
        );
        var gone = await visitor.PostAsync(Of(account, $"publishes/{publish.GetProperty("id").GetInt64()}/continue"));
        (await visitor.JobAsync(account, gone)).GetProperty("state").GetString().ShouldBe("done");
        (await visitor.ReadAsync(Of(account, "publishes"))).GetArrayLength().ShouldBe(1);
        (await network.ItemCountAsync()).ShouldBe(Items);
        visitor.Dispose();
    }

    [Fact]
    public async Task Publishes_the_rest_when_an_item_is_refused_and_shows_why()
    {
        var (account, visitor, network) = await WithListAsync();
        await network.FaultAsync("refuse", 1, wording: "piano tuner");

        (await PublishAsync(account, visitor)).GetProperty("state").GetString().ShouldBe("done");

        var publish = (await visitor.ReadAsync(Of(account, "publishes")))[0];
        (publish.GetProperty("accepted").GetInt32(), publish.GetProperty("refused").GetInt32()).ShouldBe(
            (Items - 1, 1)
        );
        var refused = await visitor.ReadAsync(
            Of(account, $"publishes/{publish.GetProperty("id").GetInt64()}/unpublished")
        );
        refused[0].GetProperty("reason").GetString().ShouldBe("Our editors do not take “piano tuner”.");
        (await PendingAsync(account, visitor)).ShouldBe(1);
        visitor.Dispose();
    }

    [Fact]
    public async Task Publishes_nothing_while_there_is_a_blocker()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        await BringInAsync(account, visitor, "campaign,ad group,keyword,max cpc\nTuning,Piano tuning,piano,1\n");

        using var response = await visitor.SendAsync(HttpMethod.Post, Of(account, "publishes"), new { });

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var problem = JsonDocument.Parse(await response.Content.ReadAsStringAsync()).RootElement;
        problem.GetProperty("title").GetString().ShouldBe("1 blocker stops publishing. Clear it first.");
        problem.GetProperty("errors").GetProperty("blockers").GetArrayLength().ShouldBe(1);
        visitor.Dispose();
    }

    [Fact]
    public async Task Takes_up_a_publish_that_a_stopped_server_left()
    {
        await using var host = await ServerHost.StartAsync();
        var (account, visitor, network) = await host.NewAccountAsync();
        await BringInAsync(account, visitor, List);
        await network.FaultAsync("slow", 1, 2_500);
        await visitor.PostAsync(Of(account, "publishes"), new { });
        await Task.Delay(500);

        await host.RestartAsync();

        for (
            var attempt = 0;
            attempt < 200 && await host.QueryAsync<int>("select count(*) from publish where state = 2") == 0;
            attempt++
        )
        {
            await Task.Delay(100);
        }

        (
            await host.QueryAsync<int>("select accepted from publish where account_id = @account", new { account })
        ).ShouldBe(Items);
        (await network.ItemCountAsync()).ShouldBe(Items);
        visitor.Dispose();
    }

    [Fact]
    public async Task Stays_up_and_says_what_is_wrong_with_junk()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        var junk = new byte[50_000];
        new Random(2).NextBytes(junk);

        var begun = await visitor.UploadAsync(Of(account, "intakes?fileName=photo.jpg"), junk);
        var job = await visitor.JobAsync(account, begun.GetProperty("job"));

        job.GetProperty("state").GetString().ShouldBe("failed");
        job.GetProperty("message").GetString()!.ShouldContain("not a table of text");
        (await visitor.StatusAsync(account)).GetProperty("changes").GetInt64().ShouldBe(0);
        visitor.Dispose();
    }

    [Theory]
    [InlineData("results?first=2026-03-22&last=2026-03-16&level=keyword", HttpStatusCode.UnprocessableEntity)]
    [InlineData("results?first=yesterday&last=2026-03-16&level=keyword", HttpStatusCode.BadRequest)]
    [InlineData("results?first=2026-03-16&last=2026-03-16&level=planet", HttpStatusCode.UnprocessableEntity)]
    [InlineData("intakes/999999", HttpStatusCode.NotFound)]
    [InlineData("nonsense", HttpStatusCode.NotFound)]
    public async Task Answers_bad_requests_with_what_is_wrong(string path, HttpStatusCode status)
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();

        using var response = await visitor.GetAsync(Of(account, path));

        response.StatusCode.ShouldBe(status);
        visitor.Dispose();
    }

    [Fact]
    public async Task Tells_where_ads_stood_and_who_else_showed_and_opens_searches_of_the_past()
    {
        var (account, visitor, _) = await WithListAsync();
        await PublishAsync(account, visitor);
        var moved = await visitor.JobAsync(
            account,
            await visitor.PostAsync(Of(account, "clock"), new { hours = 5 * 24 })
        );

        moved.GetProperty("message").GetString()!.ShouldStartWith("5 days have passed. New results from Mon 16 Mar");
        var row = (
            await visitor.ReadAsync(Of(account, "results?first=2026-03-16&last=2026-03-20&level=keyword"))
        ).GetProperty("rows")[0];
        var shares = new[] { "impressionShare", "rankLossShare", "budgetLossShare" }.Sum(share =>
            row.GetProperty("figures").GetProperty(share).GetProperty("now").GetDecimal()
        );
        shares.ShouldBe(1, 0.000001m);
        row.GetProperty("quality").GetProperty("last").GetProperty("score").GetInt32().ShouldBeInRange(1, 10);
        var rivals = await visitor.ReadAsync(
            Of(account, "results/rivals?first=2026-03-16&last=2026-03-20&against=sameWeekdaysBefore")
        );
        rivals.GetArrayLength().ShouldBeGreaterThan(0);

        var past = await visitor.ReadAsync(Of(account, "trace/past?day=2026-03-18&fate=shown"));
        var search = past[0].GetProperty("name").GetString();
        var trace = await visitor.ReadAsync(Of(account, $"trace/past/{search}"));
        trace.GetProperty("past").GetProperty("name").GetString().ShouldBe(search);
        trace.GetProperty("shows").GetBoolean().ShouldBeTrue();
        foreach (
            var (path, status) in new[]
            {
                ("trace/past/12", HttpStatusCode.NotFound),
                ("trace/past/piano", HttpStatusCode.NotFound),
                ("trace/past?day=2026-03-18&fate=vanished", HttpStatusCode.UnprocessableEntity),
                (
                    "results?first=2026-03-16&last=2026-03-20&level=keyword&against=lastCentury",
                    HttpStatusCode.UnprocessableEntity
                ),
            }
        )
        {
            using var answer = await visitor.GetAsync(Of(account, path));
            answer.StatusCode.ShouldBe(status, path);
        }

        visitor.Dispose();
    }

    [Fact]
    public async Task Exports_results_that_no_spreadsheet_will_run()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        await BringInAsync(account, visitor, List.Replace("Tuning,40", "=Tuning,40"));
        await PublishAsync(account, visitor);
        await visitor.JobAsync(account, await visitor.PostAsync(Of(account, "clock"), new { hours = 72 }));

        using var response = await visitor.GetAsync(
            Of(account, "results.csv?first=2026-03-16&last=2026-03-18&level=keyword")
        );
        var rows = TableFile.Rows(await response.Content.ReadAsStreamAsync()).Select(row => row.ToArray()).ToArray();

        response.Content.Headers.ContentType!.MediaType.ShouldBe("text/csv");
        rows[0].Take(3).ShouldBe(["Campaign", "Ad group", "Name"]);
        rows.Length.ShouldBe(3);
        rows.Skip(1).ShouldAllBe(row => row[0] == "'=Tuning" && row.Length == rows[0].Length);
        visitor.Dispose();
    }
}
