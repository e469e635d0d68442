using System.Diagnostics;
using Dapper;
using Fendrik.Tests.Shared;
using Npgsql;

namespace Fendrik.Bench;

/// <summary>Publishing many new keywords to the stand-in over HTTP, and what a person sees of an account right after a big step.</summary>
internal static class PublishBench
{
    public static async Task RunAsync()
    {
        await using var host = await ServerHost.StartAsync();
        await using var source = NpgsqlDataSource.Create(host.Database);
        double? first = null;
        foreach (var keywords in new[] { 100_000, 300_000 })
        {
            var (account, visitor, _) = await host.NewAccountAsync();
            using (visitor)
            {
                await MakeAsync(source, account, keywords);
                await visitor.ReadAsync($"/api/accounts/{account}/status");
                var watch = Stopwatch.StartNew();
                var job = await visitor.PostAsync($"/api/accounts/{account}/publishes", new { });
                (await visitor.JobAsync(account, job, seconds: 600)).GetProperty("state").GetString().ShouldBe("done");
                var rate = keywords / watch.Elapsed.TotalSeconds;
                Console.WriteLine(
                    $"publish of {keywords:N0} new keywords: {watch.Elapsed.TotalSeconds:0.0} s, {rate:N0} a second (goal: 10,000)"
                );
                if (first is { } before)
                {
                    Measure.Print(
                        "  for each item, beside a third of it (baseline)",
                        1_000_000 / rate,
                        1_000_000 / before,
                        "1 ×: linear"
                    );
                }

                first = rate;
                await StatusAsync(visitor, account, keywords);
            }
        }
    }

    private static async Task StatusAsync(Visitor visitor, int account, int keywords)
    {
        await visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "setFields",
                where = new { kind = "keyword" },
                values = new { maxCpc = "0.77" },
            }
        );
        var watch = Stopwatch.StartNew();
        await visitor.ReadAsync($"/api/accounts/{account}/status");
        Console.WriteLine(
            $"status after a bid on {keywords:N0} keywords: {watch.Elapsed.TotalMilliseconds:N0} ms (goal: under 200 ms)"
        );
    }

    internal static async Task MakeAsync(NpgsqlDataSource source, int account, int keywords)
    {
        await using var connection = await source.OpenConnectionAsync();
        await using var transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync(
            """
            select set_config('fendrik.step', '0', true);
            with c as (insert into campaign (account_id, name, name_key, state, rotation, delivery, people, strategy, objective, daily_budget, networks, removed, is_live, review)
                values (@account, 'Tuning', 'tuning', 1, 1, 1, 1, 1, 1, 25, 1, false, false, 0) returning id),
              g as (insert into ad_group (account_id, campaign_id, name, name_key, state, max_cpc, removed, is_live, review)
                select @account, c.id, 'Group ' || n, 'group ' || n, 1, 1.10, false, false, 0 from c, generate_series(1, @groups) n returning id)
            insert into keyword (account_id, ad_group_id, text, text_key, match_type, state, removed, is_live, review)
              select @account, g.id, 'piano tuning ' || n, 'piano tuning ' || n, 1, 1, false, false, 0 from g, generate_series(1, 50) n
            """,
            new { account, groups = keywords / 50 },
            commandTimeout: 600
        );
        await transaction.CommitAsync();
        await connection.ExecuteAsync("analyze keyword; analyze ad_group");
    }
}
