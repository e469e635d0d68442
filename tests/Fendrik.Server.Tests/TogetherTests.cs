using System.Net;
using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests;

/// <summary>Several people at work on one account at once.</summary>
[Collection(nameof(ServerFixture))]
public class TogetherTests(ServerFixture fixture)
{
    private static string Of(int account, string path) => $"/api/accounts/{account}/{path}";

    [Fact]
    public async Task Who_waits_is_told_for_whom_and_waits_no_longer_than_the_other_works()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        await using var holder = await fixture.Host.HoldAsync(account, "Intake");
        var request = Guid.NewGuid();
        var command = visitor.SendAsync(
            HttpMethod.Post,
            Of(account, "commands"),
            new
            {
                type = "put",
                kind = "campaign",
                values = new { name = "Tuning", dailyBudget = "25" },
            },
            request
        );

        var ahead = await AheadAsync(account, visitor, request);

        (ahead.GetProperty("person").GetString(), ahead.GetProperty("doing").GetString()).ShouldBe(
            ("Morag Kerr", "bringing in a list")
        );
        command.IsCompleted.ShouldBeFalse();
        await holder.CloseAsync();
        (await command).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await visitor.ReadAsync(Of(account, $"commands/{request}/ahead"))).GetArrayLength().ShouldBe(0);
        visitor.Dispose();
    }

    [Fact]
    public async Task Who_gives_up_waiting_has_changed_nothing_and_learns_it_at_once()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        await using var holder = await fixture.Host.HoldAsync(account, "Intake");
        var request = Guid.NewGuid();
        using var patience = new CancellationTokenSource();
        var command = visitor.SendNamedAsync(
            Of(account, "commands"),
            new
            {
                type = "put",
                kind = "campaign",
                values = new { name = "Tuning", dailyBudget = "25" },
            },
            request,
            patience.Token
        );
        await AheadAsync(account, visitor, request);

        await patience.CancelAsync();
        await Should.ThrowAsync<OperationCanceledException>(() => command);

        // The other still holds the account.
        using var became = await visitor.GetAsync(Of(account, $"commands/{request}"));
        became.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        await holder.CloseAsync();
        (
            await fixture.Host.QueryAsync<int>(
                "select count(*) from campaign where account_id = @account",
                new { account }
            )
        ).ShouldBe(0);
        visitor.Dispose();
    }

    [Fact]
    public async Task Checks_status_and_publish_never_fail_while_others_edit()
    {
        var (account, visitor, network) = await fixture.Host.NewAccountAsync();
        await MadeRequest.FillAsync(visitor, account);
        using var stop = new CancellationTokenSource(TimeSpan.FromSeconds(6));
        var editors = Enumerable
            .Range(0, 6)
            .Select(async editor =>
            {
                for (var round = 0; !stop.IsCancellationRequested; round++)
                {
                    await visitor.PostAsync(
                        Of(account, "commands"),
                        new
                        {
                            type = "setFields",
                            where = new { kind = "keyword" },
                            values = new { maxCpc = $"{1 + (((editor * 7) + round) % 90 / 100m)}" },
                        }
                    );
                }
            });
        var readers = new[] { "status", "checks", "pending", "publishes" }.Select(async path =>
        {
            while (!stop.IsCancellationRequested)
            {
                await visitor.ReadAsync(Of(account, path));
            }
        });
        var publisher = Task.Run(async () =>
        {
            while (!stop.IsCancellationRequested)
            {
                using var published = await visitor.SendAsync(HttpMethod.Post, Of(account, "publishes"), new { });
                ((int)published.StatusCode).ShouldBeLessThan(500, await published.Content.ReadAsStringAsync());
            }
        });

        await Task.WhenAll([.. editors, .. readers, publisher]);

        // At rest, the counts are those of now.
        await visitor.StatusAsync(account);
        // What was begun is carried out in the background; on a busy machine that takes a while.
        for (var attempt = 0; attempt < 120 && await network.ItemCountAsync() == 0; attempt++)
        {
            await Task.Delay(250);
        }

        (await network.ItemCountAsync()).ShouldBeGreaterThan(0);
        visitor.Dispose();
    }

    private static async Task<System.Text.Json.JsonElement> AheadAsync(int account, Visitor visitor, Guid request)
    {
        for (var attempt = 0; attempt < 100; attempt++)
        {
            var ahead = await visitor.ReadAsync(Of(account, $"commands/{request}/ahead"));
            if (ahead.GetArrayLength() > 0)
            {
                return ahead[0];
            }

            await Task.Delay(50);
        }

        throw new TimeoutException("The command does not wait.");
    }
}
