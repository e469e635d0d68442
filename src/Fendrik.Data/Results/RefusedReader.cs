using Dapper;
using Fendrik.Core.Items.Kinds;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>What reviewers refused and nobody removed.</summary>
/// <param name="Count">How many items.</param>
/// <param name="First">The name of one of them; empty without any.</param>
/// <param name="Reason">Why that was refused.</param>
/// <param name="CostADay">What the ad groups concerned usually cost a day.</param>
public sealed record RefusedItems(int Count, string First, string Reason, decimal CostADay);

/// <summary>Reads what reviewers refused, and the money that goes through its ad groups.</summary>
public sealed class RefusedReader(NpgsqlDataSource source)
{
    /// <summary>What is refused now.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="days">Over so many days the cost is told.</param>
    /// <param name="cancellation">Nobody waits any more.</param>
    public async Task<RefusedItems> ReadAsync(int accountId, int days, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var refused = string.Join(
            " union all ",
            ItemTable
                .All.Where(table => table.Type.IsReviewed)
                .Select(table =>
                    $"select {(int)table.Kind} as kind, i.id, {(table.Type is AdType or KeywordType ? "i.ad_group_id" : "null::bigint")} as ad_group_id, {table.NameColumn} as name, coalesce(i.review_reason, '') as reason from {table.Name} i where i.account_id = @accountId and i.review = {(int)ReviewState.Refused} and not i.removed"
                )
        );
        return await connection.QuerySingleAsync<RefusedItems>(
            new CommandDefinition(
                $"""
                with refused as ({refused})
                select count(*)::int as count, coalesce((select name from refused order by kind, id limit 1), '') as first,
                  coalesce((select reason from refused order by kind, id limit 1), '') as reason,
                  (select coalesce(sum(p.cost), 0) from performance_day p join account a on a.id = p.account_id
                    where p.account_id = @accountId and p.day > a.reported_to - @days and p.ad_group_id in (select ad_group_id from refused)) / @days as cost_a_day
                from refused
                """,
                new { accountId, days },
                cancellationToken: cancellation
            )
        );
    }
}
