using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests;

[Collection(nameof(ServerFixture))]
public class WorkbenchTests(ServerFixture fixture)
{
    private const string List =
        "campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc\nNorth,25,Tuning,1.00,piano tuning,exact,1.30\nNorth,25,Tuning,1.00,tuning pianos,exact,0.80\nNorth,25,,,-free,,\n";

    private async Task<(Visitor Visitor, string Path, NetworkVisitor Network)> AccountAsync()
    {
        var (account, visitor, network) = await fixture.Host.NewAccountAsync();
        var path = $"/api/accounts/{account}";
        var intake = await visitor.UploadAsync($"{path}/intakes", System.Text.Encoding.UTF8.GetBytes(List));
        await visitor.JobAsync(account, intake.GetProperty("job"));
        var keep = await visitor.PostAsync($"{path}/intakes/{intake.GetProperty("intakeId").GetInt64()}/keep");
        await visitor.JobAsync(account, keep);
        return (visitor, path, network);
    }

    private static Task<JsonElement> SheetAsync(Visitor visitor, string path, object request) =>
        visitor.PostAsync($"{path}/sheet", request);

    private static object Bid(object where, decimal value, object? seen = null) =>
        new
        {
            type = "setFields",
            where,
            values = new { maxCpc = value },
            seen = seen ?? Array.Empty<object>(),
        };

    [Fact]
    public async Task Changes_all_that_a_filter_lets_through()
    {
        var (visitor, path, _) = await AccountAsync();
        object tuning = new
        {
            kind = "keyword",
            conditions = new[]
            {
                new
                {
                    field = "name",
                    test = "starts",
                    values = new[] { "tuning" },
                },
            },
        };

        var result = await visitor.PostAsync($"{path}/commands", Bid(tuning, 2m));

        result.GetProperty("items").GetInt32().ShouldBe(1);
        (await SheetAsync(visitor, path, tuning))
            .GetProperty("rows")[0]
            .GetProperty("values")
            .GetProperty("maxCpc")
            .GetDecimal()
            .ShouldBe(2m);
    }

    [Fact]
    public async Task Answers_an_edit_on_a_stale_row_with_both_versions_and_changes_nothing()
    {
        var (visitor, path, _) = await AccountAsync();
        object one = new { kind = "keyword", text = "tuning pianos" };
        var row = (await SheetAsync(visitor, path, one)).GetProperty("rows")[0];
        var seen = new[]
        {
            new
            {
                kind = "keyword",
                id = row.GetProperty("id").GetInt64(),
                version = row.GetProperty("version").GetInt64(),
            },
        };
        await visitor.PostAsync($"{path}/commands", Bid(one, 1.40m));

        using var answer = await visitor.SendAsync(HttpMethod.Post, $"{path}/commands", Bid(one, 1.20m, seen));

        answer.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var conflict = JsonDocument
            .Parse(await answer.Content.ReadAsStringAsync())
            .RootElement.GetProperty("conflicts")[0];
        conflict.GetProperty("person").GetString().ShouldBe("Morag Kerr");
        var difference = conflict.GetProperty("differences")[0];
        (difference.GetProperty("before").GetString(), difference.GetProperty("after").GetString()).ShouldBe(
            ("£0.80", "£1.40")
        );
        (await SheetAsync(visitor, path, one))
            .GetProperty("rows")[0]
            .GetProperty("values")
            .GetProperty("maxCpc")
            .GetDecimal()
            .ShouldBe(1.40m);
    }

    [Fact]
    public async Task Traces_a_search_in_the_working_copy_and_asks_for_one_that_is_missing()
    {
        var (visitor, path, _) = await AccountAsync();
        object Of(string text) =>
            new
            {
                text,
                device = "phone",
                site = "search",
                copy = "working",
            };

        using var traced = await visitor.SendAsync(HttpMethod.Post, $"{path}/trace", Of("tuning pianos"));
        using var missing = await visitor.SendAsync(HttpMethod.Post, $"{path}/trace", Of("  "));

        (await traced.Content.ReadFromJsonAsync<JsonElement>())
            .GetProperty("keywords")
            .EnumerateArray()
            .Select(keyword => keyword.GetProperty("text").GetString())
            .ShouldContain("tuning pianos");
        missing.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await missing.Content.ReadFromJsonAsync<JsonElement>())
            .GetProperty("errors")
            .GetProperty("text")[0]
            .GetString()
            .ShouldBe("A search has 1 to 400 characters.");
    }

    [Fact]
    public async Task Says_what_is_wrong_with_a_condition_by_the_name_of_its_field()
    {
        var (visitor, path, _) = await AccountAsync();

        using var answer = await visitor.SendAsync(
            HttpMethod.Post,
            $"{path}/sheet",
            new
            {
                kind = "keyword",
                conditions = new[]
                {
                    new
                    {
                        field = "name",
                        test = "matches",
                        values = new[] { "([" },
                    },
                },
            }
        );

        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadAsStringAsync()).ShouldContain("not a regular expression");
    }

    [Fact]
    public async Task Keeps_a_view_for_its_person_and_gives_it_back_as_it_was()
    {
        var (visitor, path, _) = await AccountAsync();
        var look = new
        {
            request = new
            {
                kind = "keyword",
                sort = "cost",
                descending = true,
                figureDays = 7,
                conditions = new[]
                {
                    new
                    {
                        field = "cost",
                        test = "above",
                        values = new[] { "20" },
                    },
                },
            },
            columns = new[] { "name", "cost" },
        };

        using var saved = await visitor.SendAsync(HttpMethod.Put, $"{path}/views/Waste", look);
        var view = (await visitor.ReadAsync($"{path}/views"))[0];

        saved.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        view.GetProperty("name").GetString().ShouldBe("Waste");
        var request = view.GetProperty("look").GetProperty("request");
        request.GetProperty("figureDays").GetInt32().ShouldBe(7);
        request.GetProperty("conditions")[0].GetProperty("test").GetString().ShouldBe("above");
        using var removed = await visitor.SendAsync(HttpMethod.Delete, $"{path}/views/Waste");
        (await visitor.ReadAsync($"{path}/views")).GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task Refuses_to_keep_a_view_whose_filter_cannot_be_read()
    {
        var (visitor, path, _) = await AccountAsync();

        using var answer = await visitor.SendAsync(
            HttpMethod.Put,
            $"{path}/views/Broken",
            new
            {
                request = new
                {
                    conditions = new[]
                    {
                        new
                        {
                            field = "nothing",
                            test = "is",
                            values = new[] { "1" },
                        },
                    },
                },
                columns = Array.Empty<string>(),
            }
        );

        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task Counts_labels_and_filters_by_them()
    {
        var (visitor, path, _) = await AccountAsync();
        await visitor.PostAsync(
            $"{path}/commands",
            new
            {
                type = "setLabels",
                where = new { kind = "keyword" },
                add = new[] { "summer" },
                remove = Array.Empty<string>(),
            }
        );

        var label = (await visitor.ReadAsync($"{path}/labels"))[0];

        (label.GetProperty("label").GetString(), label.GetProperty("items").GetInt64()).ShouldBe(("summer", 2));
    }

    [Fact]
    public async Task Finds_duplicates_and_what_word_lists_give()
    {
        var (visitor, path, _) = await AccountAsync();

        var duplicates = await visitor.PostAsync(
            $"{path}/duplicates",
            new
            {
                sense = "sameMeaning",
                scope = "account",
                acrossMatchTypes = false,
            }
        );
        var words = await visitor.PostAsync(
            $"{path}/word-lists",
            new { lists = new[] { new[] { "leeds", "york" }, ["piano"] }, matches = new[] { "exact" } }
        );

        duplicates.GetProperty("sets").GetInt32().ShouldBe(1);
        words
            .GetProperty("first")
            .EnumerateArray()
            .Select(each => each.GetString())
            .ShouldBe(["[leeds piano]", "[york piano]"]);
    }

    [Fact]
    public async Task Tells_listeners_that_the_account_has_moved_and_by_whom()
    {
        var (visitor, path, _) = await AccountAsync();
        using var news = await visitor.ListenAsync($"{path}/news");
        var before = (await news.NextAsync()).GetProperty("revision").GetInt64();

        await visitor.PostAsync(
            $"{path}/commands",
            new
            {
                type = "put",
                kind = "campaign",
                values = new { name = "South", dailyBudget = 5 },
                place = new { },
            }
        );
        var moved = await news.NextAsync();

        moved.GetProperty("label").GetString().ShouldBe("Add campaign “South”");
        moved.GetProperty("revision").GetInt64().ShouldBeGreaterThan(before);
        moved.GetProperty("mine").GetBoolean().ShouldBeTrue();
    }

    [Fact]
    public async Task Reads_the_live_copy_shows_three_versions_and_publishes_around_what_is_open()
    {
        var (visitor, path, network) = await AccountAsync();
        var account = int.Parse(path.Split('/')[^1]);
        await visitor.JobAsync(account, await visitor.PostAsync($"{path}/publishes", new { }));
        var row = (await SheetAsync(visitor, path, new { kind = "campaign" })).GetProperty("rows")[0];
        var id = row.GetProperty("id").GetInt64();
        await visitor.PostAsync(
            $"{path}/commands",
            new
            {
                type = "setFields",
                where = new { kind = "campaign" },
                values = new { dailyBudget = 30 },
            }
        );
        await network.EditFromOutsideAsync(
            NetworkVisitor.Put(new Campaign(id, "North", ItemState.Running, 40m, null, null, SiteKinds.Search))
        );

        var items = await visitor.PostAsync($"{path}/live/read");
        using var publish = await visitor.SendAsync(HttpMethod.Post, $"{path}/publishes", new { });

        var field = items[0].GetProperty("fields")[0];
        new[] { "agreed", "ours", "theirs" }
            .Select(version => field.GetProperty(version).GetString())
            .ShouldBe(["£25.00", "£30.00", "£40.00"]);
        items[0].GetProperty("byBoth").GetBoolean().ShouldBeTrue();
        publish.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        await visitor.PostAsync(
            $"{path}/commands",
            new
            {
                type = "decideLive",
                items = Array.Empty<object>(),
                takeTheirs = true,
            }
        );
        (await visitor.ReadAsync($"{path}/live")).GetArrayLength().ShouldBe(0);
        (await SheetAsync(visitor, path, new { kind = "campaign" }))
            .GetProperty("rows")[0]
            .GetProperty("values")
            .GetProperty("dailyBudget")
            .GetDecimal()
            .ShouldBe(40m);
    }

    [Fact]
    public async Task Takes_back_a_step_in_the_middle_and_compares_two_moments()
    {
        var (visitor, path, _) = await AccountAsync();
        var bids = await visitor.PostAsync($"{path}/commands", Bid(new { kind = "keyword" }, 2m));
        var step = bids.GetProperty("stepId").GetInt64();
        await visitor.PostAsync(
            $"{path}/commands",
            new
            {
                type = "setFields",
                where = new { kind = "keyword" },
                values = new { state = "paused" },
            }
        );

        var back = await visitor.PostAsync($"{path}/history/{step}/take-back");
        var comparison = await visitor.ReadAsync(
            $"{path}/history/compare?from={step - 1}&to={back.GetProperty("stepId").GetInt64()}"
        );

        back.GetProperty("items").GetInt32().ShouldBe(2);
        comparison.GetProperty("total").GetInt32().ShouldBe(2);
        comparison
            .GetProperty("lines")[0]
            .GetProperty("differences")
            .EnumerateArray()
            .Select(difference => difference.GetProperty("field").GetString())
            .ShouldBe(["State"]);
        using var unknown = await visitor.SendAsync(HttpMethod.Post, $"{path}/history/999999999/take-back");
        unknown.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Publishes_a_field_of_the_account_itself_and_reads_back_what_the_network_made_of_it()
    {
        var (visitor, path, network) = await AccountAsync();
        var account = int.Parse(path.Split('/')[^1]);
        await visitor.PostAsync(
            $"{path}/commands",
            new
            {
                type = "setFields",
                where = new { kind = "account" },
                values = new { trackingTemplate = "https://count.example/ours?to={page}" },
            }
        );
        await visitor.JobAsync(account, await visitor.PostAsync($"{path}/publishes", new { }));
        (await visitor.StatusAsync(account)).GetProperty("changes").GetInt64().ShouldBe(0);

        var item = new { id = account, trackingTemplate = "https://count.example/theirs?to={page}" };
        await network.EditFromOutsideAsync(
            new NetworkChange(ItemKind.Account, account, ChangeAction.Put, JsonSerializer.SerializeToElement(item))
        );

        var field = (await visitor.PostAsync($"{path}/live/read"))[0].GetProperty("fields")[0];
        (
            field.GetProperty("field").GetString(),
            field.GetProperty("ours").GetString(),
            field.GetProperty("theirs").GetString()
        ).ShouldBe(
            ("Tracking template", "https://count.example/ours?to={page}", "https://count.example/theirs?to={page}")
        );
    }
}
