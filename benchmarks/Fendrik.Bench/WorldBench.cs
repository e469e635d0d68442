using System.Diagnostics;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Networks;
using Fendrik.Network.Serving;
using Fendrik.Network.Worlds;
using Fendrik.Tests.Shared;
using Npgsql;

namespace Fendrik.Bench;

/// <summary>
/// A million searches of a piano workshop's world, played and written down day by day. The baseline is what the database alone takes to
/// have the same rows of ads shown copied from a table that has them.
/// </summary>
internal static class WorldBench
{
    private const long Searches = 1_000_000;

    /// <summary>People for each of the world, so that a few days are enough.</summary>
    private const double Crowding = 40;

    public static async Task RunAsync()
    {
        await using var host = await NetworkHost.StartAsync();
        using var http = host.Client();
        var visitor = new NetworkVisitor(http, "bench");
        await visitor.SetUpAsync(1);
        await visitor.PutAsync([.. Items()]);
        await visitor.AdvanceAsync(24);
        await using var connection = new NpgsqlConnection(host.Database);
        await connection.OpenAsync();
        var account = (await NetworkStore.FindAsync(connection, "bench"))!;
        var session = await PlaySession.OpenAsync(connection, account, World.Shipped, Crowding);
        await connection.ExecuteAsync("truncate shown");
        long played = 0;
        var begun = Stopwatch.GetTimestamp();
        while (played < Searches)
        {
            await using var transaction = await connection.BeginTransactionAsync();
            played += await session.AdvanceAsync(connection, account, 1, default);
            await transaction.CommitAsync();
        }

        var took = Stopwatch.GetElapsedTime(begun).TotalMilliseconds;
        var memory = GC.GetTotalMemory(forceFullCollection: true) / 1e6;
        var rows = await connection.ExecuteScalarAsync<long>("select count(*) from shown");
        await connection.ExecuteAsync("create table shown_again (like shown including all)");
        var copied = await Measure.MedianAsync(
            1,
            () => connection.ExecuteAsync("truncate shown_again; insert into shown_again select * from shown")
        );
        Measure.Print(
            $"{played:N0} searches played, {rows:N0} ads shown and written down",
            took * Searches / played,
            copied,
            "a million in 20 s"
        );
        Console.WriteLine($"  {played / took * 1000:N0} searches a second, {memory:N0} MB held at the end");
    }

    private static IEnumerable<object> Items()
    {
        yield return new Campaign(
            1,
            "All",
            ItemState.Running,
            100_000m,
            null,
            null,
            SiteKinds.Search | SiteKinds.Partners | SiteKinds.Content
        );
        string[] words =
        [
            "piano tuning",
            "piano tuner",
            "piano hire",
            "piano restoration",
            "piano repair",
            "used pianos",
            "grand piano",
        ];
        for (var at = 0; at < words.Length; at++)
        {
            yield return new AdGroup(10 + at, 1, words[at], ItemState.Running, 1.20m);
            yield return new Keyword(100 + at, 10 + at, words[at], MatchType.Phrase, ItemState.Running, null, null);
            yield return new Keyword(200 + at, 10 + at, words[at], MatchType.Broad, ItemState.Running, 0.60m, null);
            yield return new TextAd(
                300 + at,
                10 + at,
                ItemState.Running,
                [words[at], "Ask For A Price"],
                ["Same-week visits."],
                [],
                "tarnandfell.example/tuning",
                null
            );
        }

        yield return new NegativeKeyword(400, 1, null, "free", MatchType.Phrase);
        yield return new NegativeKeyword(401, 1, null, "course", MatchType.Phrase);
    }
}
