using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests;

/// <summary>A part of the changes goes out, the rest is held back or taken back, row by row.</summary>
[Collection(nameof(ServerFixture))]
public class PublishPartTests(ServerFixture fixture)
{
    private const string List =
        "campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc\nTuning,25,At home,1.00,piano tuning,exact,1.10\nTuning,25,At home,1.00,piano tuner,exact,1.20\nHire,,Stage,0.90,piano hire,exact,1.00\n";

    private async Task<(int Account, Visitor Visitor, Dictionary<string, object> Items)> AccountAsync()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        var begun = await visitor.UploadAsync(
            $"/api/accounts/{account}/intakes?fileName=list.csv",
            System.Text.Encoding.UTF8.GetBytes(List)
        );
        await visitor.JobAsync(account, begun.GetProperty("job"));
        var intake = begun.GetProperty("intakeId").GetInt64();
        await visitor.JobAsync(account, await visitor.PostAsync($"/api/accounts/{account}/intakes/{intake}/keep"));
        var rows = await visitor.PostAsync($"/api/accounts/{account}/sheet", new { limit = 100 });
        return (
            account,
            visitor,
            rows.GetProperty("rows")
                .EnumerateArray()
                .ToDictionary(
                    row => row.GetProperty("name").GetString()!,
                    row =>
                        (object)
                            new { kind = row.GetProperty("kind").GetString(), id = row.GetProperty("id").GetInt64() }
                )
        );
    }

    private static async Task PublishAsync(int account, Visitor visitor, object wish)
    {
        var job = await visitor.JobAsync(account, await visitor.PostAsync($"/api/accounts/{account}/publishes", wish));
        job.GetProperty("state").GetString().ShouldBe("done");
    }

    private static async Task<string[]> PendingAsync(int account, Visitor visitor) =>
        [
            .. (await visitor.ReadAsync($"/api/accounts/{account}/pending"))
                .GetProperty("lines")
                .EnumerateArray()
                .Select(line => line.GetProperty("name").GetString()!),
        ];

    [Fact]
    public async Task A_keyword_goes_out_by_itself_with_what_it_stands_in_and_past_the_blocker_of_another_campaign()
    {
        var (account, visitor, items) = await AccountAsync();

        await PublishAsync(account, visitor, new { items = new[] { items["piano tuning"] } });

        (await PendingAsync(account, visitor)).ShouldBe(
            ["Hire", "Stage", "piano tuner", "piano hire"],
            ignoreOrder: true
        );
    }

    [Fact]
    public async Task A_part_with_a_blocker_in_it_does_not_go_out()
    {
        var (account, visitor, items) = await AccountAsync();

        using var refused = await visitor.SendAsync(
            HttpMethod.Post,
            $"/api/accounts/{account}/publishes",
            new { items = new[] { items["piano hire"] } }
        );

        (await refused.Content.ReadAsStringAsync()).ShouldContain("Hire: daily budget missing");
        (await PendingAsync(account, visitor)).Length.ShouldBe(7);
    }

    [Fact]
    public async Task What_is_held_back_stays_with_all_that_is_new_in_it_until_it_is_let_go()
    {
        var (account, visitor, items) = await AccountAsync();
        await visitor.PostAsync(
            $"/api/accounts/{account}/pending/hold",
            new { items = new[] { items["Hire"], items["piano tuner"] }, hold = true }
        );
        var pending = await visitor.ReadAsync($"/api/accounts/{account}/pending");
        (pending.GetProperty("goesOut").GetInt64(), pending.GetProperty("held").GetInt64()).ShouldBe((3, 4));

        await PublishAsync(account, visitor, new { });

        (await PendingAsync(account, visitor)).ShouldBe(
            ["Hire", "Stage", "piano tuner", "piano hire"],
            ignoreOrder: true
        );
        await visitor.PostAsync(
            $"/api/accounts/{account}/pending/hold",
            new { items = new[] { items["piano tuner"] }, hold = false }
        );
        await PublishAsync(account, visitor, new { });
        (await PendingAsync(account, visitor)).ShouldBe(["Hire", "Stage", "piano hire"], ignoreOrder: true);
    }

    [Fact]
    public async Task With_all_held_back_there_is_nothing_to_publish_and_it_says_why()
    {
        var (account, visitor, items) = await AccountAsync();
        await visitor.PostAsync(
            $"/api/accounts/{account}/pending/hold",
            new { items = new[] { items["Hire"], items["Tuning"] }, hold = true }
        );

        using var refused = await visitor.SendAsync(HttpMethod.Post, $"/api/accounts/{account}/publishes", new { });

        (await refused.Content.ReadAsStringAsync()).ShouldContain("7 changes are held back");
    }

    private static async Task<object> ShownAsync(int account, Visitor visitor)
    {
        var pending = await visitor.ReadAsync($"/api/accounts/{account}/pending");
        return new { asOf = pending.GetProperty("asOf").GetInt64(), items = pending.GetProperty("goesOut").GetInt32() };
    }

    [Fact]
    public async Task What_a_colleague_changed_after_it_was_shown_does_not_go_out_unseen()
    {
        var (account, visitor, items) = await AccountAsync();
        var part = new[] { items["piano tuning"] };
        var shown = await ShownAsync(account, visitor);
        await visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "setFields",
                items = part,
                values = new { maxCpc = "9" },
            }
        );

        using var refused = await visitor.SendAsync(
            HttpMethod.Post,
            $"/api/accounts/{account}/publishes",
            new { items = part, shown }
        );

        refused.StatusCode.ShouldBe(System.Net.HttpStatusCode.PreconditionFailed);
        (await refused.Content.ReadAsStringAsync()).ShouldContain("“piano tuning”");
        (await PendingAsync(account, visitor)).Length.ShouldBe(7);

        await PublishAsync(account, visitor, new { items = part, shown = await ShownAsync(account, visitor) });
    }

    [Fact]
    public async Task What_a_colleague_changed_elsewhere_is_in_nobodys_way()
    {
        var (account, visitor, items) = await AccountAsync();
        var shown = await ShownAsync(account, visitor);
        await visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "setFields",
                items = new[] { items["piano hire"] },
                values = new { maxCpc = "9" },
            }
        );

        await PublishAsync(account, visitor, new { items = new[] { items["piano tuning"] }, shown });
    }

    [Fact]
    public async Task What_a_colleague_let_go_after_it_was_shown_as_held_back_does_not_go_out_unseen()
    {
        var (account, visitor, items) = await AccountAsync();
        var tuner = new[] { items["piano tuner"] };
        await visitor.PostAsync(
            $"/api/accounts/{account}/pending/hold",
            new { items = new[] { items["Hire"], items["piano tuner"] }, hold = true }
        );
        var shown = await ShownAsync(account, visitor);
        await visitor.PostAsync($"/api/accounts/{account}/pending/hold", new { items = tuner, hold = false });

        using var refused = await visitor.SendAsync(
            HttpMethod.Post,
            $"/api/accounts/{account}/publishes",
            new { shown }
        );

        refused.StatusCode.ShouldBe(System.Net.HttpStatusCode.PreconditionFailed);
        (await PendingAsync(account, visitor)).Length.ShouldBe(7);
    }

    [Fact]
    public async Task Changes_are_taken_back_row_by_row_as_the_network_has_them()
    {
        var (account, visitor, items) = await AccountAsync();
        await PublishAsync(account, visitor, new { items = new[] { items["piano tuning"], items["piano tuner"] } });
        await visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "setFields",
                items = new[] { items["piano tuning"], items["piano tuner"] },
                values = new { maxCpc = "2" },
            }
        );

        await visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new { type = "takeBackChanges", items = new[] { items["piano tuner"], items["Hire"] } }
        );

        (await PendingAsync(account, visitor)).ShouldBe(["piano tuning"]);
        var rows = await visitor.PostAsync($"/api/accounts/{account}/sheet", new { kind = "keyword" });
        rows.GetProperty("rows")
            .EnumerateArray()
            .Select(row =>
                $"{row.GetProperty("name").GetString()} {row.GetProperty("values").GetProperty("maxCpc").GetDecimal():0.00}"
            )
            .ShouldBe(["piano tuner 1.20", "piano tuning 2.00"], ignoreOrder: true);
    }
}
