using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Network.Simulation;
using Fendrik.Network.Simulation.People;
using Fendrik.Network.Worlds;
using Npgsql;

namespace Fendrik.Network.Serving;

/// <summary>
/// Remembers the trades that an account brought and the world does not know. Once met, people go on wanting it, whatever becomes of
/// the ad group.
/// </summary>
internal static class BroughtTrades
{
    private const int SecondsOfHour = 3_600;

    /// <summary>The needs of trades known and of those that are met now.</summary>
    public static async Task<IReadOnlyList<BroughtNeed>> ReadAsync(
        NpgsqlConnection connection,
        NetworkAccount account,
        LiveAccount live,
        World world
    )
    {
        var known = await RowsAsync(connection, account.Id, long.MaxValue);
        var met = Unknown(live, world, known.Select(trade => trade.AdGroupId).ToHashSet())
            .Take(BroughtNeeds.MostTrades - known.Count)
            .Select((trade, at) => trade with { Number = WorldReader.MostNeeds + 2 * (known.Count + at) })
            .ToArray();
        foreach (var trade in met)
        {
            await connection.ExecuteAsync(
                "insert into brought_trade (account_id, number, ad_group_id, keywords, began) values (@Id, @Number, @AdGroupId, @keywords, @began) on conflict do nothing",
                new
                {
                    account.Id,
                    trade.Number,
                    trade.AdGroupId,
                    keywords = trade.Keywords.ToArray(),
                    began = account.Clock.ToUnixTimeSeconds() / SecondsOfHour,
                }
            );
        }

        return Needs([.. known, .. met], world);
    }

    /// <summary>The needs of trades that were known in an hour of the past.</summary>
    public static async Task<IReadOnlyList<BroughtNeed>> KnownAsync(
        NpgsqlConnection connection,
        string accountId,
        World world,
        long hour
    ) => Needs(await RowsAsync(connection, accountId, hour), world);

    private static BroughtNeed[] Needs(IEnumerable<BroughtTrade> trades, World world)
    {
        var needs = new BroughtNeeds(world);
        return [.. trades.SelectMany(needs.Of)];
    }

    private static async Task<List<BroughtTrade>> RowsAsync(NpgsqlConnection connection, string accountId, long hour) =>
        (
            await connection.QueryAsync<(int Number, long AdGroupId, string[] Keywords)>(
                "select number, ad_group_id, keywords from brought_trade where account_id = @accountId and began <= @hour order by number",
                new { accountId, hour }
            )
        )
            .Select(row => new BroughtTrade(row.Number, row.AdGroupId, row.Keywords))
            .AsList();

    /// <summary>Ad groups that nothing of what people of the world type reaches.</summary>
    private static IEnumerable<BroughtTrade> Unknown(LiveAccount live, World world, HashSet<long> known)
    {
        var groups = live
            .Keywords.Values.Where(keyword => !known.Contains(keyword.AdGroup.Id))
            .GroupBy(keyword => keyword.AdGroup.Id)
            .ToDictionary(group => group.Key);
        if (groups.Count == 0)
        {
            return [];
        }

        var reached = new HashSet<long>();
        foreach (var text in world.Needs.SelectMany(NeedFinder.TextsOf))
        {
            reached.UnionWith(
                live.Served.Keywords.Find(live.Served.Keywords.Reach.WordsOf(text))
                    .Select(found => found.Item.AdGroup.Id)
            );
        }

        // An exact keyword may be missed by what was tried; where people want the same in other words, the world knows the trade.
        return groups
            .Values.Where(group => !reached.Contains(group.Key))
            .Where(group => group.All(keyword => NeedFinder.Of(world.Needs, keyword.Words) is null))
            .OrderBy(group => group.Key)
            .Select(group => new BroughtTrade(
                0,
                group.Key,
                [
                    .. group
                        .OrderBy(each => each.Keyword.Id)
                        .Take(BroughtNeeds.MostKeywords)
                        .Select(each => each.Keyword.Text),
                ]
            ))
            .Where(trade => trade.Keywords.All(text => Core.Matching.Words.Of(text).Count > 0));
    }
}
