using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Data.Model;
using Npgsql;

namespace Fendrik.Data.Publishing;

/// <summary>What a network answered to the changes of a publish, and with it what is live now.</summary>
public sealed class PublishAnswers(NpgsqlDataSource source, TimeProvider clock)
{
    /// <summary>
    /// Writes down the answers to the changes in positions from <paramref name="first"/> up to before <paramref name="next"/>. All in
    /// one transaction; an answer that comes again changes nothing.
    /// </summary>
    public async Task RecordAsync(
        long publishId,
        int first,
        int next,
        IReadOnlyList<NetworkAnswer> answers,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await PublishLock.TakeAsync(connection, publishId, cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition("select set_config('fendrik.step', '0', true)", cancellationToken: cancellation)
        );
        var parameters = new
        {
            publishId,
            first,
            next,
            now = clock.GetUtcNow(),
            kinds = answers.Select(answer => (short)answer.Kind).ToArray(),
            ids = answers.Select(answer => answer.ItemId).ToArray(),
            outcomes = answers.Select(answer => (short)OutcomeOf(answer.Verdict)).ToArray(),
            reasons = answers.Select(answer => answer.Reason).ToArray(),
            versions = answers.Select(answer => answer.Version).ToArray(),
            items = answers.Select(answer => answer.Item?.GetRawText()).ToArray(),
        };
        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                create temp table answered on commit drop as
                with noted as (
                  update publish_item p set outcome = a.outcome, reason = a.reason
                  from unnest(@kinds, @ids, @outcomes, @reasons, @versions, @items) as a(kind, id, outcome, reason, version, item)
                  where p.publish_id = @publishId and p.position >= @first and p.position < @next and p.kind = a.kind and p.item_id = a.id and p.outcome = 0
                  returning p.kind, p.item_id, p.action, p.sent, p.outcome, p.reason, a.version, a.item::jsonb as theirs
                ) select * from noted
                """,
                parameters,
                cancellationToken: cancellation
            )
        );
        foreach (var table in ItemTable.All.Where(table => answers.Any(answer => answer.Kind == table.Kind)))
        {
            await connection.ExecuteAsync(
                new CommandDefinition(OfKind(table), parameters, cancellationToken: cancellation)
            );
        }

        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                delete from live_difference d using answered a, publish p
                  where p.id = @publishId and d.account_id = p.account_id and d.kind = a.kind and d.item_id = a.item_id and a.outcome = 1 and d.version <= a.version;
                update live_difference d set agreed = a.sent from answered a, publish p
                  where p.id = @publishId and d.account_id = p.account_id and d.kind = a.kind and d.item_id = a.item_id and a.outcome = 1;
                update publish p set accepted = accepted + (select count(*) from answered where outcome = 1),
                  refused = refused + (select count(*) from answered where outcome = 2),
                  changed_since = changed_since + (select count(*) from answered where outcome = 3) where p.id = @publishId;
                insert into check_due select p.account_id, a.kind, a.item_id from publish p, answered a where p.id = @publishId;
                select account_moved(account_id) from publish where id = @publishId
                """,
                parameters,
                cancellationToken: cancellation
            )
        );
        await transaction.CommitAsync(cancellation);
    }

    /// <summary>
    /// A person may have gone on editing while the batch was under way: then the row still differs. And somebody may have changed
    /// the item on the network after it was carried out, and that be known already: then the answer is about the past, and says what
    /// was agreed when they did. What was no difference while the answer was out (gone, as it had been before) is one now.
    /// </summary>
    private static string OfKind(ItemTable table)
    {
        var reviewed = table.Type.IsReviewed ? (int)ReviewState.Pending : (int)ReviewState.None;
        var ours = $"case when not i.removed then {table.Published("i")} end";
        var known = $"case when i.is_live then coalesce(i.live, {table.Published("i")}) end";
        return $"""
            insert into live_difference (account_id, kind, item_id, agreed, theirs, version, found_at)
            select i.account_id, a.kind, a.item_id, a.sent, {known}, i.live_version, @now
            from answered a join {table.Name} i on i.id = a.item_id
            where a.kind = {table.Number} and a.outcome = 1 and a.version > 0 and a.version < i.live_version
              and not {StorageSql.SameItem(known, "a.sent")} and not {StorageSql.SameItem(known, ours)}
            on conflict (account_id, kind, item_id) do nothing;
            update {table.Name} i set
              is_live = a.action = 1,
              live = case when a.action = 1 and (i.removed or {table.Published(
                "i"
            )} is distinct from a.sent) then a.sent end,
              live_version = nullif(a.version, 0),
              review = case when a.action = 1 then {reviewed} else 0 end, review_reason = null
            from answered a where a.kind = {table.Number} and a.item_id = i.id and a.outcome = 1
              and (a.version = 0 or a.version > coalesce(i.live_version, 0)
                or exists (select from live_difference d where d.account_id = i.account_id and d.kind = a.kind and d.item_id = a.item_id));
            update {table.Name} i set review = 3, review_reason = a.reason
            from answered a where a.kind = {table.Number} and a.item_id = i.id and a.outcome = 2;
            insert into live_difference (account_id, kind, item_id, agreed, theirs, version, found_at)
            select i.account_id, a.kind, a.item_id, case when i.is_live then coalesce(i.live, {table.Published(
                "i"
            )}) end, a.theirs, a.version, @now
            from answered a join {table.Name} i on i.id = a.item_id
            where a.kind = {table.Number} and a.outcome = 3
            on conflict (account_id, kind, item_id) do update set agreed = excluded.agreed, theirs = excluded.theirs, version = excluded.version
            """;
    }

    private static PublishOutcome OutcomeOf(NetworkVerdict verdict) =>
        verdict switch
        {
            NetworkVerdict.Accepted => PublishOutcome.Accepted,
            NetworkVerdict.Refused => PublishOutcome.Refused,
            NetworkVerdict.ChangedSince => PublishOutcome.ChangedSince,
        };
}
