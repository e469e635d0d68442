using System.Text.Json;
using Dapper;
using Fendrik.Core.Changes;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Variants;

/// <summary>The rows in which proposals are kept.</summary>
internal static class ProposedRows
{
    /// <summary>
    /// How proposal <c>p</c> stands. What was taken over stands in a step: while that is undone, the proposal is open again.
    /// </summary>
    public static readonly string State = $"""
        case when p.left_at is not null then {(int)ProposalState.Left}
          when p.step_id is not null and not exists (select from step s where s.id = p.step_id and s.reverted_by is not null) then {(int)
            ProposalState.Taken}
          else {(int)ProposalState.Open} end
        """;

    /// <summary>What is proposed and not decided; of two about the same item, which an undo may leave, the newer.</summary>
    public static async Task<IReadOnlyList<ProposedItem>> OpenAsync(
        NpgsqlConnection connection,
        long lookId,
        CancellationToken cancellation
    )
    {
        var rows = await connection.QueryAsync<(
            long Id,
            short Kind,
            long ItemId,
            string? Before,
            string? After,
            DateTimeOffset MadeAt
        )>(
            new CommandDefinition(
                $"""
                select * from (
                  select distinct on (p.kind, p.item_id) p.id, p.kind, p.item_id, p.before::text, p.after::text, p.made_at from look_proposal p
                  where p.look_id = @lookId and ({State}) = {(int)
                    ProposalState.Open} order by p.kind, p.item_id, p.id desc) newest
                order by id
                """,
                new { lookId },
                cancellationToken: cancellation
            )
        );
        return
        [
            .. rows.Select(row => new ProposedItem(
                row.Id,
                (ItemKind)row.Kind,
                row.ItemId,
                Parse(row.Before),
                Parse(row.After),
                row.MadeAt
            )),
        ];
    }

    public static JsonElement? Parse(string? json) => json is null ? null : JsonDocument.Parse(json).RootElement;
}

/// <summary>The row of a look at a campaign.</summary>
internal static class LookRow
{
    /// <summary>Holds a look until the transaction ends, and says which campaign it shows.</summary>
    /// <exception cref="InvalidChangeException">There is none, or it is over.</exception>
    public static async Task<long> HoldAsync(
        NpgsqlConnection connection,
        int accountId,
        long lookId,
        CancellationToken cancellation
    )
    {
        var (campaign, state, isAway) = await connection.QuerySingleOrDefaultAsync<(long?, short, bool)>(
            new CommandDefinition(
                """
                select l.campaign_id, l.state, a.archived_at is not null from second_look l join account a on a.id = l.account_id
                where l.id = @lookId and l.account_id = @accountId for update of l
                """,
                new { accountId, lookId },
                cancellationToken: cancellation
            )
        );
        return campaign is not { } shown ? throw new InvalidChangeException("lookId", "No campaign is shown there.")
            : isAway ? throw new InvalidChangeException("lookId", "This account is put away: it is looked at only.")
            : (LookState)state != LookState.Open
                ? throw new InvalidChangeException(
                    "lookId",
                    "This campaign is shown no more. Whoever showed it can show it again."
                )
            : shown;
    }
}
