using System.Net;
using System.Text.Json;
using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests;

/// <summary>What becomes of a publish that stopped half way, through the API and the real network.</summary>
[Collection(nameof(ServerFixture))]
public class InterruptedPublishTests(ServerFixture fixture)
{
    private const int Keywords = 20;

    private static string Of(int account, string path) => $"/api/accounts/{account}/{path}";

    private async Task<(int Account, Visitor Visitor, NetworkVisitor Network)> InterruptedAsync(string fault = "fail")
    {
        var (account, visitor, network) = await fixture.Host.NewAccountAsync();
        var lines = Enumerable
            .Range(1, Keywords)
            .Select(number => $"Tuning,40,At home,1,piano tuning {number},exact,1.00");
        var list =
            "campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc\n" + string.Join('\n', lines);
        var begun = await visitor.UploadAsync(
            Of(account, "intakes?fileName=list.csv"),
            System.Text.Encoding.UTF8.GetBytes(list)
        );
        await visitor.JobAsync(account, begun.GetProperty("job"));
        await visitor.JobAsync(
            account,
            await visitor.PostAsync(Of(account, $"intakes/{begun.GetProperty("intakeId").GetInt64()}/keep"))
        );
        await network.FaultAsync(fault, 4);
        var job = await visitor.JobAsync(account, await visitor.PostAsync(Of(account, "publishes"), new { }));
        job.GetProperty("state").GetString().ShouldBe("failed");
        return (account, visitor, network);
    }

    private async Task<long[]> KeywordsAsync(int account) =>
        await fixture.Host.QueryAsync<long[]>(
            "select array_agg(id order by id) from keyword where account_id = @account",
            new { account }
        );

    private static object[] Items(IEnumerable<long> ids) => [.. ids.Select(id => new { kind = "keyword", id })];

    /// <summary>Ten are removed and ten lowered to 0.50.</summary>
    private async Task TakeBackAsync(int account, Visitor visitor)
    {
        var ids = await KeywordsAsync(account);
        await visitor.PostAsync(Of(account, "commands"), new { type = "remove", items = Items(ids.Take(10)) });
        await visitor.PostAsync(
            Of(account, "commands"),
            new
            {
                type = "setFields",
                items = Items(ids.Skip(10)),
                values = new { maxCpc = "0.50" },
            }
        );
    }

    private static async Task<decimal[]> BidsOnNetworkAsync(NetworkVisitor network) =>
        [
            .. (await network.ChangesAsync(0))!
                .Items.Where(item => item is { Kind: Core.Items.ItemKind.Keyword, Item: not null })
                .Select(item => item.Item!.Value.GetProperty("maxCpc").GetDecimal()),
        ];

    private static async Task<JsonElement> LastAsync(int account, Visitor visitor) =>
        (await visitor.ReadAsync(Of(account, "publishes")))[0];

    [Fact]
    public async Task Publishing_again_sends_what_stands_now_and_nothing_that_was_taken_back()
    {
        var (account, visitor, network) = await InterruptedAsync();
        await TakeBackAsync(account, visitor);

        await visitor.JobAsync(account, await visitor.PostAsync(Of(account, "publishes"), new { }));

        (await BidsOnNetworkAsync(network)).ShouldBe(Enumerable.Repeat(0.50m, 10));
        (await visitor.ReadAsync(Of(account, "publishes")))[1].GetProperty("state").GetString().ShouldBe("abandoned");
        visitor.Dispose();
    }

    [Fact]
    public async Task Going_on_leaves_out_what_is_no_longer_as_it_was_and_names_it()
    {
        var (account, visitor, network) = await InterruptedAsync();
        await TakeBackAsync(account, visitor);
        var publish = (await LastAsync(account, visitor)).GetProperty("id").GetInt64();

        var job = await visitor.JobAsync(
            account,
            await visitor.PostAsync(Of(account, $"publishes/{publish}/continue"))
        );

        // Progress counts from where the publish was, what was left out with it.
        (job.GetProperty("done").GetInt32(), job.GetProperty("total").GetInt32()).ShouldBe((22, 22));
        (await BidsOnNetworkAsync(network)).ShouldBeEmpty();
        var last = await LastAsync(account, visitor);
        (last.GetProperty("accepted").GetInt32(), last.GetProperty("leftOut").GetInt32()).ShouldBe((2, 20));
        var named = await visitor.ReadAsync(Of(account, $"publishes/{publish}/unpublished"));
        named.GetArrayLength().ShouldBe(20);
        named[0].GetProperty("reason").GetString()!.ShouldContain("removed again");
        named[19].GetProperty("reason").GetString()!.ShouldContain("edited again");
        visitor.Dispose();
    }

    [Fact]
    public async Task Giving_up_settles_what_the_network_took_without_an_answer()
    {
        // The network does its work, and every answer is lost.
        var (account, visitor, network) = await InterruptedAsync("drop");
        (await LastAsync(account, visitor)).GetProperty("accepted").GetInt32().ShouldBe(0);
        var publish = (await LastAsync(account, visitor)).GetProperty("id").GetInt64();

        await visitor.PostAsync(Of(account, $"publishes/{publish}/abandon"));

        var last = await LastAsync(account, visitor);
        (last.GetProperty("state").GetString(), last.GetProperty("accepted").GetInt32()).ShouldBe(
            ("abandoned", Keywords + 2)
        );
        (await visitor.StatusAsync(account)).GetProperty("changes").GetInt64().ShouldBe(0);
        (await visitor.ReadAsync(Of(account, "live"))).GetArrayLength().ShouldBe(0);
        visitor.Dispose();
    }

    [Fact]
    public async Task What_the_reviewers_said_meanwhile_is_not_lost_with_the_answers()
    {
        var (account, visitor, _) = await InterruptedAsync("drop");
        await PassAsync(48);
        var publish = (await LastAsync(account, visitor)).GetProperty("id").GetInt64();

        await visitor.PostAsync(Of(account, $"publishes/{publish}/abandon"));
        await PassAsync(1);

        (
            await fixture.Host.QueryAsync<int[]>(
                "select array_agg(distinct review::int) from keyword where account_id = @account",
                new { account }
            )
        ).ShouldBe([(int)Core.Items.ReviewState.Approved]);

        async Task PassAsync(int hours)
        {
            var job = await visitor.JobAsync(account, await visitor.PostAsync(Of(account, "clock"), new { hours }));
            job.GetProperty("state").GetString().ShouldBe("done", job.ToString());
        }

        visitor.Dispose();
    }

    [Fact]
    public async Task A_publish_that_has_ended_meanwhile_is_not_given_up()
    {
        var (account, visitor, _) = await InterruptedAsync();
        var publish = (await LastAsync(account, visitor)).GetProperty("id").GetInt64();
        await visitor.JobAsync(account, await visitor.PostAsync(Of(account, $"publishes/{publish}/continue")));

        using var late = await visitor.SendAsync(HttpMethod.Post, Of(account, $"publishes/{publish}/abandon"));

        late.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await LastAsync(account, visitor)).GetProperty("state").GetString().ShouldBe("done");
        visitor.Dispose();
    }

    [Fact]
    public async Task Our_own_items_are_nobody_elses_edits_while_their_answers_are_lost()
    {
        var (account, visitor, _) = await InterruptedAsync("drop");

        (await visitor.PostAsync(Of(account, "live/read"))).GetArrayLength().ShouldBe(0);
        await TakeBackAsync(account, visitor);
        (await visitor.PostAsync(Of(account, "live/read"))).GetArrayLength().ShouldBe(0);

        (await visitor.StatusAsync(account)).GetProperty("changes").GetInt64().ShouldBe(20);
        visitor.Dispose();
    }

    [Fact]
    public async Task A_publish_whose_job_has_ended_is_interrupted_with_its_reason_whatever_was_written_down()
    {
        var (account, visitor, _) = await InterruptedAsync();
        await fixture.Host.QueryAsync<int>(
            "update publish set state = 1, problem = null where account_id = @account returning 1",
            new { account }
        );

        var last = await LastAsync(account, visitor);

        (last.GetProperty("state").GetString(), last.GetProperty("problem").GetString()).ShouldBe(
            ("interrupted", "The network answered with an error (503).")
        );
        (await visitor.StatusAsync(account)).GetProperty("publishStopped").GetString()!.ShouldContain("503");
        visitor.Dispose();
    }

    [Fact]
    public async Task An_edit_on_the_network_just_before_a_batch_is_not_overwritten_and_becomes_a_difference()
    {
        var (account, visitor, network) = await InterruptedAsync();
        await visitor.JobAsync(account, await visitor.PostAsync(Of(account, "publishes"), new { }));
        var id = (await KeywordsAsync(account))[0];
        var item = (await network.ChangesAsync(0))!.Items.Single(each =>
            each.Kind == Core.Items.ItemKind.Keyword && each.ItemId == id
        );
        var theirs = System.Text.Json.Nodes.JsonNode.Parse(item.Item!.Value.GetRawText())!;
        theirs["maxCpc"] = 3.33m;
        await visitor.PostAsync(
            Of(account, "commands"),
            new
            {
                type = "setFields",
                items = Items([id]),
                values = new { maxCpc = "0.77" },
            }
        );
        // The live copy is read when publish is pressed; the network is slow with the batch, and meanwhile somebody edits there.
        await network.FaultAsync("slow", 1, 1_500);
        var job = await visitor.PostAsync(Of(account, "publishes"), new { });
        await Task.Delay(300);
        await network.EditFromOutsideAsync(
            new NetworkChange(
                Core.Items.ItemKind.Keyword,
                id,
                ChangeAction.Put,
                JsonSerializer.SerializeToElement(theirs)
            )
        );
        await visitor.JobAsync(account, job);

        (await BidsOnNetworkAsync(network)).ShouldContain(3.33m);
        (await BidsOnNetworkAsync(network)).ShouldNotContain(0.77m);
        (await LastAsync(account, visitor)).GetProperty("changedSince").GetInt32().ShouldBe(1);
        (await visitor.ReadAsync(Of(account, "live"))).GetArrayLength().ShouldBe(1);
        using var again = await visitor.SendAsync(HttpMethod.Post, Of(account, "publishes"), new { });
        again.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await again.Content.ReadAsStringAsync()).ShouldContain("1 item was changed on the network itself");
        visitor.Dispose();
    }

    [Fact]
    public async Task A_job_that_killed_its_server_three_times_is_set_aside_and_shown()
    {
        var (account, visitor, _) = await InterruptedAsync();
        var job = await fixture.Host.QueryAsync<long>(
            "update job set state = 2, attempts = 3 where id = (select max(id) from job where account_id = @account) returning id",
            new { account }
        );

        JsonElement status = default;
        for (var attempt = 0; attempt < 100; attempt++)
        {
            status = await visitor.StatusAsync(account);
            if (status.GetProperty("setAside").GetArrayLength() > 0)
            {
                break;
            }

            await Task.Delay(100);
        }

        status.GetProperty("setAside")[0].GetProperty("id").GetInt64().ShouldBe(job);
        (await LastAsync(account, visitor)).GetProperty("state").GetString().ShouldBe("interrupted");
        visitor.Dispose();
    }
}
