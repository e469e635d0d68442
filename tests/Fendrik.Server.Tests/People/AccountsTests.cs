using System.Net;
using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests.People;

/// <summary>Accounts are made, connected, renamed, put away and brought back.</summary>
[Collection(nameof(ServerFixture))]
public class AccountsTests(ServerFixture fixture)
{
    private const string Code = "HEDGE-4417";

    private static object New(
        string name = "Kestrel Cargo Bikes",
        string currency = "EUR",
        string zone = "Europe/Berlin"
    ) =>
        new
        {
            name,
            currency,
            timeZone = zone,
            networkId = "pellow",
            payer = (string?)null,
        };

    private static async Task<JsonElement> SummaryAsync(Visitor visitor, int account) =>
        (await visitor.ReadAsync("/api/session"))
            .GetProperty("accounts")
            .EnumerateArray()
            .Single(each => each.GetProperty("id").GetInt32() == account);

    /// <summary>Waits for a job, as a page does.</summary>
    private static async Task<JsonElement> EndOfAsync(Visitor visitor, int account, long job)
    {
        for (var times = 0; times < 600; times++)
        {
            var read = await visitor.ReadAsync($"/api/accounts/{account}/jobs/{job}");
            if (read.GetProperty("state").GetString() is not ("waiting" or "running"))
            {
                return read;
            }

            await Task.Delay(100);
        }

        throw new TimeoutException("The job does not end.");
    }

    [Fact]
    public async Task One_is_made_empty_with_whoever_makes_it_as_its_owner()
    {
        var (_, visitor, _) = await fixture.Host.NewAccountAsync();
        using var __ = visitor;

        var account = (await visitor.PostAsync("/api/accounts", New())).GetProperty("accountId").GetInt32();

        var summary = await SummaryAsync(visitor, account);
        summary.GetProperty("role").GetString().ShouldBe("owner");
        summary.GetProperty("currency").GetString().ShouldBe("EUR");
        summary.GetProperty("networkName").GetString().ShouldBe("Pellow Search");
        // Nobody pays yet, and something can be published all the same.
        (await visitor.ReadAsync($"/api/accounts/{account}/payer"))
            .GetProperty("name")
            .ValueKind.ShouldBe(JsonValueKind.Null);
        (await visitor.StatusAsync(account)).GetProperty("changes").GetInt64().ShouldBe(0);
    }

    [Theory]
    [InlineData("", "GBP", "Europe/London", "name")]
    [InlineData("North", "XXQ", "Europe/London", "currency")]
    [InlineData("North", "GBP", "Europe/Nowhere", "timeZone")]
    public async Task What_cannot_be_is_refused_by_its_field(string name, string currency, string zone, string field)
    {
        var (_, visitor, _) = await fixture.Host.NewAccountAsync();
        using var __ = visitor;

        using var response = await visitor.SendAsync(HttpMethod.Post, "/api/accounts", New(name, currency, zone));

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        JsonDocument
            .Parse(await response.Content.ReadAsStringAsync())
            .RootElement.GetProperty("errors")
            .TryGetProperty(field, out _)
            .ShouldBeTrue();
    }

    [Fact]
    public async Task One_that_runs_on_a_network_is_read_whole_with_nothing_to_publish_and_its_reports()
    {
        await using var host = await ServerHost.StartAsync();
        var (_, visitor, _) = await host.NewAccountAsync();
        using var __ = visitor;
        var offers = (await visitor.PostAsync("/api/accounts/openings", new { network = "ostrel", code = Code }))
            .EnumerateArray()
            .ToArray();
        var offer = offers.Single(each => each.GetProperty("keywords").GetInt32() > 0);
        offer
            .GetProperty("writers")
            .EnumerateArray()
            .Single()
            .GetProperty("name")
            .GetString()
            .ShouldBe("Wharfe Agency");

        var made = await visitor.PostAsync(
            "/api/accounts/connected",
            new
            {
                network = "ostrel",
                code = Code,
                account = offer.GetProperty("id").GetString(),
            }
        );
        var account = made.GetProperty("accountId").GetInt32();
        var read = await EndOfAsync(visitor, account, made.GetProperty("jobId").GetInt64());
        read.GetProperty("state").GetString().ShouldBe("done", read.GetRawText());

        var counts = await host.QueryAsync<string>(
            """
            select (select count(*) from campaign where account_id = @account) || ' ' || (select count(*) from ad_group where account_id = @account) || ' '
              || (select count(*) from keyword where account_id = @account)
            """,
            new { account }
        );
        counts.ShouldBe(
            $"{offer.GetProperty("campaigns").GetInt32()} {offer.GetProperty("adGroups").GetInt32()} {offer.GetProperty("keywords").GetInt32()}"
        );
        var status = await visitor.StatusAsync(account);
        status.GetProperty("changes").GetInt64().ShouldBe(0);
        // Nobody takes the whole account out again by the key that takes back a step.
        status.GetProperty("undoLabel").ValueKind.ShouldBe(JsonValueKind.Null);
        (await visitor.ReadAsync($"/api/accounts/{account}/live")).GetArrayLength().ShouldBe(0);
        (
            await host.QueryAsync<long>(
                "select sum(impressions)::bigint from performance where account_id = @account",
                new { account }
            )
        ).ShouldBeGreaterThan(0);

        // What is changed here reaches the account that was there before.
        await visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "setFields",
                where = new { kind = "campaign" },
                values = new { dailyBudget = "31" },
            }
        );
        var publish = await visitor.PostAsync($"/api/accounts/{account}/publishes", new { });
        await EndOfAsync(visitor, account, publish.GetProperty("id").GetInt64());
        var items = JsonDocument
            .Parse(await host.Network.GetStringAsync($"v1/accounts/{offer.GetProperty("id").GetString()}/items"))
            .RootElement;
        items
            .EnumerateArray()
            .Where(each => each.GetProperty("kind").GetInt32() == 1)
            .Select(each => each.GetProperty("item").GetProperty("dailyBudget").GetDecimal())
            .ShouldAllBe(budget => budget == 31);

        // And nobody connects it a second time.
        using var again = await visitor.SendAsync(
            HttpMethod.Post,
            "/api/accounts/connected",
            new
            {
                network = "ostrel",
                code = Code,
                account = offer.GetProperty("id").GetString(),
            }
        );
        again.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task A_code_that_opens_nothing_is_refused_and_nothing_is_made()
    {
        var (_, visitor, _) = await fixture.Host.NewAccountAsync();
        using var __ = visitor;
        var before = (await visitor.ReadAsync("/api/session")).GetProperty("accounts").GetArrayLength();

        using var response = await visitor.SendAsync(
            HttpMethod.Post,
            "/api/accounts/connected",
            new
            {
                network = "ostrel",
                code = "WRONG",
                account = "ostrel-70218",
            }
        );

        response.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await visitor.ReadAsync("/api/session")).GetProperty("accounts").GetArrayLength().ShouldBe(before);
    }

    [Fact]
    public async Task Nothing_is_made_while_the_network_does_not_answer()
    {
        await using var host = await ServerHost.StartAsync();
        var (_, visitor, _) = await host.NewAccountAsync();
        using var __ = visitor;
        await host.StopNetworkAsync();

        using var response = await visitor.SendAsync(HttpMethod.Post, "/api/accounts", New());

        response.StatusCode.ShouldBe(HttpStatusCode.BadGateway);
        (await visitor.ReadAsync("/api/session")).GetProperty("accounts").GetArrayLength().ShouldBe(1);
    }

    [Fact]
    public async Task One_that_is_put_away_is_looked_at_and_not_changed_until_it_is_back()
    {
        var (account, owner, _) = await fixture.Host.NewAccountAsync();
        using var __ = owner;
        async Task PutAsync(bool archived) =>
            (
                await owner.SendAsync(HttpMethod.Put, $"/api/accounts/{account}/archived", new { archived })
            ).EnsureSuccessStatusCode();

        await PutAsync(true);

        (await SummaryAsync(owner, account)).GetProperty("isArchived").GetBoolean().ShouldBeTrue();
        (await owner.GetAsync($"/api/accounts/{account}/status")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await owner.SendAsync(HttpMethod.Post, $"/api/accounts/{account}/undo")).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );
        await PutAsync(false);
        (await owner.SendAsync(HttpMethod.Post, $"/api/accounts/{account}/undo")).StatusCode.ShouldNotBe(
            HttpStatusCode.Forbidden
        );
    }

    [Fact]
    public async Task Another_name_is_seen_by_everybody_there()
    {
        var (account, owner, _) = await fixture.Host.NewAccountAsync();
        using var __ = owner;
        using var reader = await fixture.Host.AddPersonAsync(AccountRole.Reader, account);

        (
            await owner.SendAsync(
                HttpMethod.Put,
                $"/api/accounts/{account}/name",
                new { name = "  Tuners of the north " }
            )
        ).EnsureSuccessStatusCode();

        (await SummaryAsync(reader, account)).GetProperty("name").GetString().ShouldBe("Tuners of the north");
    }

    [Fact]
    public async Task A_note_is_written_changed_and_removed_and_stays_in_its_account()
    {
        var (account, owner, _) = await fixture.Host.NewAccountAsync();
        var (other, stranger, _) = await fixture.Host.NewAccountAsync();
        using var __ = owner;
        var path = $"/api/accounts/{account}/notes";
        var id = (await owner.PostAsync(path, new { day = "2026-05-04", text = "No ads on Sundays." }))
            .GetProperty("id")
            .GetInt64();

        using var foreign = await stranger.SendAsync(
            HttpMethod.Put,
            $"/api/accounts/{other}/notes/{id}",
            new { day = "2026-05-04", text = "Mine now." }
        );
        (
            await owner.SendAsync(
                HttpMethod.Put,
                $"{path}/{id}",
                new { day = "2026-05-05", text = "No ads at weekends." }
            )
        ).EnsureSuccessStatusCode();

        foreign.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var note = (await owner.ReadAsync(path)).EnumerateArray().Single();
        note.GetProperty("day").GetString().ShouldBe("2026-05-05");
        note.GetProperty("text").GetString().ShouldBe("No ads at weekends.");
        note.GetProperty("changedAt").ValueKind.ShouldNotBe(JsonValueKind.Null);
        (await owner.SendAsync(HttpMethod.Delete, $"{path}/{id}")).EnsureSuccessStatusCode();
        (await owner.ReadAsync(path)).GetArrayLength().ShouldBe(0);
        stranger.Dispose();
    }
}
