using System.Text.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Fendrik.Data.Sheets;
using Npgsql;

namespace Fendrik.Data.Publishing;

/// <summary>A batch of a publish, ready to be sent.</summary>
/// <param name="Key">Idempotency key: the same for the same batch, however often it is sent.</param>
/// <param name="First">Position of its first change.</param>
/// <param name="Next">Position of the first change after it.</param>
/// <param name="Changes">The changes in order.</param>
public sealed record PublishBatch(string Key, int First, int Next, IReadOnlyList<NetworkChange> Changes);

/// <summary>How a publish stands.</summary>
[method: ExplicitConstructor]
public sealed record PublishSummary(
    long Id,
    PublishState State,
    string? Problem,
    int Total,
    int Accepted,
    int Refused,
    DateTimeOffset MadeAt,
    string Person
);

/// <summary>An item that the network refused.</summary>
[method: ExplicitConstructor]
public sealed record RefusedByNetwork(
    ItemKind Kind,
    long Id,
    string Name,
    string? Campaign,
    string? AdGroup,
    string Reason
);

/// <summary>
/// A publish is written down before anything is sent, and every answer as it comes: after a stop of any kind it goes on
/// from the first item without an answer, with the same batches under the same keys.
/// </summary>
public sealed class PublishRecords(NpgsqlDataSource source, TimeProvider clock)
{
    /// <summary>Items in one request.</summary>
    public const int BatchSize = 2_000;

    /// <summary>Writes down what is to be published: parents before children, removals of children before their parents.</summary>
    /// <returns>The publish; the one under way when there is one; none when nothing differs.</returns>
    public async Task<long?> BeginAsync(int accountId, string personId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await connection.ExecuteAsync("select from account where id = @accountId for no key update", new { accountId });
        var open = await connection.QueryFirstOrDefaultAsync<long?>(
            "select id from publish where account_id = @accountId and state <> 2 order by id desc limit 1",
            new { accountId }
        );
        if (open is not null)
        {
            await connection.ExecuteAsync(
                "update publish set state = 1, problem = null where id = @open",
                new { open }
            );
            await transaction.CommitAsync(cancellation);
            return open;
        }

        var id = await connection.ExecuteScalarAsync<long>(
            """
            insert into publish (account_id, person_id, made_at, state, total, accepted, refused) values (@accountId, @personId, @now, 1, 0, 0, 0)
            returning id
            """,
            new
            {
                accountId,
                personId,
                now = clock.GetUtcNow(),
            }
        );
        var puts = ItemTable.All.Select(
            (table, place) =>
                $"select {table.Number} as kind, i.id, 1 as action, {place + 1} as place, {table.Sent("i")} as sent from {table.Name} i where i.account_id = @accountId and {table.TrulyPending} and not i.removed and {Decided(table)}"
        );
        var removals = ItemTable.All.Select(
            (table, place) =>
                $"select {table.Number}, i.id, 2, {-place - 1}, null from {table.Name} i where i.account_id = @accountId and {ItemTable.Pending} and i.removed and {Decided(table)}"
        );

        // Removals go first, so that a name or a text that moves is free before it is taken again.
        var total = await connection.ExecuteAsync(
            $"""
            insert into publish_item (publish_id, position, kind, item_id, action, sent, outcome)
            select @id, row_number() over (order by place, id) - 1, kind, id, action, sent, 0 from ({string.Join(
                " union all ",
                puts.Concat(removals)
            )}) items
            """,
            new { id, accountId }
        );
        if (total == 0)
        {
            await transaction.RollbackAsync(cancellation);
            return null;
        }

        await connection.ExecuteAsync("update publish set total = @total where id = @id", new { id, total });
        await transaction.CommitAsync(cancellation);
        return id;
    }

    /// <summary>What somebody changed on the network is not overwritten before it is decided whose version holds.</summary>
    private static string Decided(ItemTable table) =>
        $"not exists (select from live_difference d where d.account_id = i.account_id and d.kind = {table.Number} and d.item_id = i.id)";

    /// <summary>The first batch from a position on with an item that has no answer yet, or none when all have one.</summary>
    public async Task<PublishBatch?> NextBatchAsync(long publishId, CancellationToken cancellation, int from = 0)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var first = await connection.ExecuteScalarAsync<int?>(
            "select position from publish_item where publish_id = @publishId and position >= @from and outcome = 0 order by position limit 1",
            new { publishId, from }
        );
        if (first is null)
        {
            return null;
        }

        var number = first.Value / BatchSize;
        var items = await connection.QueryAsync<(short Kind, long Id, short Action, string? Sent)>(
            """
            select kind, item_id, action, sent::text from publish_item
            where publish_id = @publishId and position between @from and @to order by position
            """,
            new
            {
                publishId,
                from = number * BatchSize,
                to = ((number + 1) * BatchSize) - 1,
            }
        );
        return new PublishBatch(
            // The size is part of the key: the same key for other changes would be answered with the answers of the first.
            $"publish-{publishId}-{BatchSize}-{number}",
            number * BatchSize,
            (number + 1) * BatchSize,
            [
                .. items.Select(item => new NetworkChange(
                    (ItemKind)item.Kind,
                    item.Id,
                    (ChangeAction)item.Action,
                    item.Sent is null ? null : JsonDocument.Parse(item.Sent).RootElement
                )),
            ]
        );
    }

    /// <summary>Writes down the network's answers, and with them what is live now. All in one transaction.</summary>
    public async Task RecordAsync(
        long publishId,
        PublishBatch batch,
        IReadOnlyList<NetworkAnswer> answers,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        // Locks are taken in one order everywhere: the account, then items.
        await connection.ExecuteAsync(
            "select from account where id = (select account_id from publish where id = @publishId) for no key update",
            new { publishId }
        );
        await connection.ExecuteAsync("select set_config('fendrik.step', '0', true)");
        var parameters = new
        {
            publishId,
            batch.First,
            batch.Next,
            kinds = answers.Select(answer => (short)answer.Kind).ToArray(),
            ids = answers.Select(answer => answer.ItemId).ToArray(),
            outcomes = answers
                .Select(answer => (short)(answer.Accepted ? PublishOutcome.Accepted : PublishOutcome.Refused))
                .ToArray(),
            reasons = answers.Select(answer => answer.Reason).ToArray(),
        };
        await connection.ExecuteAsync(
            """
            create temp table answered on commit drop as
            with noted as (
              update publish_item p set outcome = a.outcome, reason = a.reason
              from unnest(@kinds, @ids, @outcomes, @reasons) as a(kind, id, outcome, reason)
              where p.publish_id = @publishId and p.position >= @First and p.position < @Next and p.kind = a.kind and p.item_id = a.id and p.outcome = 0
              returning p.kind, p.item_id, p.action, p.sent, p.outcome, p.reason
            ) select * from noted
            """,
            parameters
        );
        foreach (var table in ItemTable.All.Where(table => answers.Any(answer => answer.Kind == table.Kind)))
        {
            var reviewed = table.Type.IsReviewed ? (int)ReviewState.Pending : (int)ReviewState.None;

            // A person may have gone on editing while the batch was under way: then the row still differs.
            await connection.ExecuteAsync(
                $"""
                update {table.Name} i set
                  is_live = a.action = 1,
                  live = case when a.action = 1 and (i.removed or {table.Published(
                    "i"
                )} is distinct from a.sent) then a.sent end,
                  review = case when a.action = 1 then {reviewed} else 0 end, review_reason = null
                from answered a where a.kind = {table.Number} and a.item_id = i.id and a.outcome = 1;
                update {table.Name} i set review = 3, review_reason = a.reason
                from answered a where a.kind = {table.Number} and a.item_id = i.id and a.outcome = 2
                """
            );
        }

        await connection.ExecuteAsync(
            """
            update publish p set accepted = accepted + (select count(*) from answered where outcome = 1),
              refused = refused + (select count(*) from answered where outcome = 2) where p.id = @publishId;
            insert into check_due select p.account_id, a.kind, a.item_id from publish p, answered a where p.id = @publishId;
            select account_moved(account_id) from publish where id = @publishId
            """,
            parameters
        );
        await transaction.CommitAsync(cancellation);
    }

    public async Task EndAsync(long publishId, PublishState state, string? problem, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await connection.ExecuteAsync(
            """
            update publish set state = @state, problem = @problem where id = @publishId;
            update account set live_read_at = @now where id = (select account_id from publish where id = @publishId) and @state = 2
            """,
            new
            {
                publishId,
                state = (short)state,
                problem,
                now = clock.GetUtcNow(),
            }
        );
    }

    public async Task<int?> AccountOfAsync(long publishId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<int?>(
            "select account_id from publish where id = @publishId",
            new { publishId }
        );
    }

    public async Task<IReadOnlyList<PublishSummary>> ListAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<PublishSummary>(
            """
            select b.id, b.state, b.problem, b.total, b.accepted, b.refused, b.made_at, coalesce(p.display_name, '') as person
            from publish b left join "AspNetUsers" p on p.id = b.person_id
            where b.account_id = @accountId order by b.id desc limit 50
            """,
            new { accountId }
        );
        return [.. rows];
    }

    public async Task<IReadOnlyList<RefusedByNetwork>> RefusedAsync(
        int accountId,
        long publishId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<RefusedByNetwork>(
            $"""
            select b.kind, b.item_id as id, coalesce(n.name, '') as name, n.campaign, n.ad_group, coalesce(b.reason, '') as reason
            from publish_item b join publish p on p.id = b.publish_id and p.account_id = @accountId
            {ItemNames.Lateral("b.kind", "b.item_id")}
            where b.publish_id = @publishId and b.outcome = 2 order by b.position limit 500
            """,
            new { accountId, publishId }
        );
        return [.. rows];
    }

    /// <summary>Number of the last of the reviewers' words that was read.</summary>
    public async Task<long> ReviewsReadUpToAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<long>(
            "select review_sequence from account where id = @accountId",
            new { accountId }
        );
    }

    /// <summary>Writes down what the reviewers say.</summary>
    public async Task RecordReviewsAsync(
        int accountId,
        NetworkReviews reviews,
        DateTimeOffset networkNow,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await connection.ExecuteAsync("select from account where id = @accountId for no key update", new { accountId });
        await connection.ExecuteAsync("select set_config('fendrik.step', '0', true)");
        var changed = 0;
        foreach (var table in ItemTable.All)
        {
            var mine = reviews.Reviews.Where(review => review.Kind == table.Kind).ToArray();
            if (mine.Length > 0)
            {
                changed += await connection.ExecuteAsync(
                    $"""
                    with reviewed as (
                      update {table.Name} i set review = r.state, review_reason = r.reason
                      from unnest(@ids, @states, @reasons) as r(id, state, reason)
                      where i.id = r.id and i.account_id = @accountId and i.is_live and (i.review, i.review_reason) is distinct from (r.state, r.reason)
                      returning i.id)
                    insert into check_due select @accountId, {table.Number}, id from reviewed
                    """,
                    new
                    {
                        accountId,
                        ids = mine.Select(review => review.ItemId).ToArray(),
                        states = mine.Select(review => (short)review.State).ToArray(),
                        reasons = mine.Select(review => review.Reason).ToArray(),
                    }
                );
            }
        }

        await connection.ExecuteAsync(
            $"""
            update account set live_read_at = @now, network_now = @networkNow, review_sequence = greatest(review_sequence, @Last) where id = @accountId;
            {(
                changed > 0
                    ? "select account_moved(@accountId)"
                    : ""
            )}
            """,
            new
            {
                accountId,
                now = clock.GetUtcNow(),
                networkNow,
                reviews.Last,
            }
        );
        await transaction.CommitAsync(cancellation);
    }
}
