using Dapper;
using Fendrik.Tests.Shared;
using Npgsql;

namespace Fendrik.Server.Tests;

/// <summary>What the strip says right after a step whose changes take long to be checked.</summary>
[Collection(nameof(ServerFixture))]
public class StatusTests(ServerFixture fixture)
{
    [Fact]
    public async Task Does_not_wait_for_the_checks_and_says_that_they_run()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        await using var connection = new NpgsqlConnection(fixture.Host.Database);
        await connection.OpenAsync();
        // Whoever checks an account holds this lock meanwhile.
        await connection.ExecuteAsync("select pg_advisory_lock(7001, @account)", new { account });
        await visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "put",
                kind = "campaign",
                values = new { name = "North" },
            }
        );

        var during = await visitor
            .ReadAsync($"/api/accounts/{account}/status")
            .WaitAsync(TimeSpan.FromSeconds(10), TestContext.Current.CancellationToken);
        await connection.ExecuteAsync("select pg_advisory_unlock(7001, @account)", new { account });
        var after = await visitor.StatusAsync(account);

        during.GetProperty("counting").GetBoolean().ShouldBeTrue();
        during.GetProperty("undoLabel").GetString()!.ShouldContain("North");
        after.GetProperty("changes").GetInt64().ShouldBe(1);
        after.GetProperty("blockers").GetInt64().ShouldBe(1);
    }
}
