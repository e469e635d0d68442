using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Accounts;
using Fendrik.Data.Model;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Publishing;

/// <summary>How a publish stands.</summary>
/// <param name="Id">Identity.</param>
/// <param name="State">Running only while somebody works on it, whatever was written down last.</param>
/// <param name="Problem">Why it stopped.</param>
/// <param name="Total">Items that were to be published when it began.</param>
/// <param name="Accepted">Items that the network took.</param>
/// <param name="Refused">Items that it did not take.</param>
/// <param name="ChangedSince">Items that somebody had changed on the network itself.</param>
/// <param name="LeftOut">Items that were edited or taken back before they were sent.</param>
/// <param name="MadeAt">When it began.</param>
/// <param name="Person">Who began it.</param>
[method: ExplicitConstructor]
public sealed record PublishSummary(
    long Id,
    PublishState State,
    string? Problem,
    int Total,
    int Accepted,
    int Refused,
    int ChangedSince,
    int LeftOut,
    DateTimeOffset MadeAt,
    string Person
)
{
    /// <summary>Items that nothing became of yet.</summary>
    public int Left => Total - Accepted - Refused - ChangedSince - LeftOut;
}

/// <summary>An item of a publish that is not on the network as it was to be.</summary>
[method: ExplicitConstructor]
public sealed record UnpublishedItem(
    ItemKind Kind,
    long Id,
    string Name,
    string? Campaign,
    string? AdGroup,
    PublishOutcome Outcome,
    string Reason
);

/// <summary>Somebody changed something between the checks and the publish: they are to look once more.</summary>
public sealed class ChecksBehindException() : Exception("The checks have not seen the newest changes yet.");

/// <summary>
/// The publishes of an account: what each was to send is written down, as it stood, before anything goes out. One at a time is
/// open for each account.
/// </summary>
public sealed class PublishRecords(NpgsqlDataSource source, TimeProvider clock)
{
    private const int MostListed = 50;
    private const int MostUnpublished = 500;

    /// <summary>A publish that is marked as running and that nobody works on is interrupted.</summary>
    private const string State =
        "(case when p.state = 1 and not exists (select from job j where j.kind = 'publish' and j.subject_id = p.id and j.state in (1, 2)) then 3 else p.state end)::smallint";

    private const string Problem =
        $"case when {State} = 1 then null when p.state in (1, 3) then coalesce(p.problem, (select j.message from job j where j.kind = 'publish' and j.subject_id = p.id and j.state not in (1, 2, 3) order by j.id desc limit 1), 'It stopped before it came to its end.') else p.problem end";

    /// <summary>Writes down what is to be published: parents before children, removals of children before their parents.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="personId">Who publishes.</param>
    /// <param name="along">What is done with the new publish and its number of items in the same transaction.</param>
    /// <param name="cancellation">Stops it.</param>
    /// <param name="onlyChecked">True to begin only when the checks have seen all there is and found no blocker.</param>
    /// <param name="part">The changes that are published, with what they cannot do without; none for all but what is held back.</param>
    /// <exception cref="ChecksBehindException">They have not, or found one.</exception>
    /// <param name="shown">What the person saw before pressing; none to send what stands now, seen or not.</param>
    /// <exception cref="InvalidChangeException">A blocker is among what would go out.</exception>
    /// <exception cref="PreviewMovedException">What would go out was changed since it was shown, or there is more of it.</exception>
    /// <returns>The publish; the open one when there is one; none when nothing differs that may be sent.</returns>
    public async Task<long?> BeginAsync(
        int accountId,
        string personId,
        Func<NpgsqlConnection, long, int, Task>? along,
        CancellationToken cancellation,
        bool onlyChecked = false,
        IReadOnlyList<ItemReference>? part = null,
        ShownPreview? shown = null
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await AccountLock.TakeAsync(
            connection,
            accountId,
            new AccountWork(personId, AccountDoing.Publish),
            cancellation
        );
        var open = await connection.QueryFirstOrDefaultAsync<long?>(
            new CommandDefinition(
                "select id from publish where account_id = @accountId and state in (1, 3) order by id desc limit 1",
                new { accountId },
                cancellationToken: cancellation
            )
        );
        if (open is not null)
        {
            return open;
        }

        var held = part is null && await HeldChanges.AnyAsync(connection, accountId, cancellation);
        var isAll = part is null && !held;
        if (onlyChecked && !await IsCheckedAsync(connection, accountId, isAll, cancellation))
        {
            throw new ChecksBehindException();
        }

        if (part is not null)
        {
            await PublishPart.TakeAsync(connection, accountId, part, cancellation);
        }

        var id = await connection.ExecuteScalarAsync<long>(
            new CommandDefinition(
                """
                insert into publish (account_id, person_id, made_at, state, total, accepted, refused) values (@accountId, @personId, @now, 1, 0, 0, 0)
                returning id
                """,
                new
                {
                    accountId,
                    personId,
                    now = clock.GetUtcNow(),
                },
                cancellationToken: cancellation
            )
        );
        string Goes(ItemTable table) => GoesOut(table, part is not null, held);
        var puts = ItemTable.All.Select(
            (table, place) =>
                $"select {table.Number} as kind, i.id, 1 as action, {place + 1} as place, {table.Sent("i")} as sent from {table.Name} i where i.account_id = @accountId and {table.TrulyPending} and not i.removed and {Goes(table)}"
        );
        var removals = ItemTable.All.Select(
            (table, place) =>
                $"select {table.Number}, i.id, 2, {-place - 1}, null from {table.Name} i where i.account_id = @accountId and {ItemTable.Pending} and i.removed and {Goes(table)}"
        );

        // Removals go first, so that a name or a text that moves is free before it is taken again.
        var total = await connection.ExecuteAsync(
            new CommandDefinition(
                $"""
            insert into publish_item (publish_id, position, kind, item_id, action, sent, outcome)
            select @id, row_number() over (order by place, id) - 1, kind, id, action, sent, 0 from ({string.Join(
                " union all ",
                puts.Concat(removals)
            )}) items
            """,
                new { id, accountId },
                commandTimeout: 600,
                cancellationToken: cancellation
            )
        );
        if (total == 0)
        {
            await transaction.RollbackAsync(cancellation);
            return null;
        }

        if (shown is not null)
        {
            // What a part cannot do without comes along, so that it may be more than was ticked.
            await ShownPreviews.RefuseUnseenAsync(connection, id, part is null && total > shown.Items, shown);
        }

        if (!isAll)
        {
            await RefuseBlockersAsync(connection, accountId, id, cancellation);
        }

        await HeldChanges.ForgetAsync(connection, accountId, cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                "update publish set total = @total where id = @id",
                new { id, total },
                cancellationToken: cancellation
            )
        );
        if (along is not null)
        {
            await along(connection, id, total);
        }

        await transaction.CommitAsync(cancellation);
        return id;
    }

    private static Task<bool> IsCheckedAsync(
        NpgsqlConnection connection,
        int accountId,
        bool withoutBlockers,
        CancellationToken cancellation
    ) =>
        connection.ExecuteScalarAsync<bool>(
            new CommandDefinition(
                """
                select exists (select from check_run r join account a on a.id = r.account_id
                  where r.account_id = @accountId and r.step_id = a.last_step_id and (r.blockers = 0 or not @withoutBlockers))
                """,
                new { accountId, withoutBlockers },
                cancellationToken: cancellation
            )
        );

    /// <summary>Blockers of what goes out, and of what it stands in; those of what stays behind are in nobody's way.</summary>
    private static async Task RefuseBlockersAsync(
        NpgsqlConnection connection,
        int accountId,
        long publishId,
        CancellationToken cancellation
    )
    {
        var around =
            from table in ItemTable.All
            from parent in table.Parents
            select $"select distinct {(int)parent.Holder.Kind}::smallint, i.{parent.Column} from publish_item b join {table.Name} i on b.kind = {table.Number} and i.id = b.item_id where b.publish_id = @publishId and b.action = 1 and i.{parent.Column} is not null";
        var names = (
            await connection.QueryAsync<string>(
                new CommandDefinition(
                    $"""
                    with going(kind, id) as (select kind, item_id from publish_item where publish_id = @publishId and action = 1 union {string.Join(
                        " union ",
                        around
                    )}),
                    above(kind, id) as (select kind, id from going union select {(int)
                        ItemKind.Campaign}::smallint, g.campaign_id from going w join ad_group g on w.kind = {(int)
                        ItemKind.AdGroup} and g.id = w.id)
                    select coalesce(n.name, '') || ': ' || f.message from finding f join above w on w.kind = f.kind and w.id = f.item_id
                    {ItemNames.Lateral("f.kind", "f.item_id")}
                    where f.account_id = @accountId and f.weight = 3 order by f.id limit 4
                    """,
                    new { accountId, publishId },
                    cancellationToken: cancellation
                )
            )
        ).ToArray();
        if (names.Length > 0)
        {
            throw new InvalidChangeException(
                "blockers",
                $"A blocker is among what would go out: {string.Join("; ", names.Take(3))}{(names.Length > 3 ? " and more" : "")}. Clear it, or hold it back."
            );
        }
    }

    /// <summary>Condition on row <c>i</c>, which differs: a publish sends it.</summary>
    internal static string GoesOut(ItemTable table, bool part, bool held) =>
        Decided(table)
        + (part ? $" and {PublishPart.Has(table)}" : "")
        + (held ? $" and not {HeldChanges.Holds(table)}" : "");

    /// <summary>What somebody changed on the network is not overwritten before it is decided whose version holds.</summary>
    internal static string Decided(ItemTable table) =>
        $"not exists (select from live_difference d where d.account_id = i.account_id and d.kind = {table.Number} and d.item_id = i.id)";

    /// <summary>The publish that is running or was interrupted, if there is one.</summary>
    public async Task<PublishSummary?> OpenAsync(int accountId, CancellationToken cancellation) =>
        await ListAsync(accountId, "p.state in (1, 3)", 1, cancellation) is [var open] ? open : null;

    /// <summary>One publish of an account.</summary>
    public async Task<PublishSummary?> FindAsync(int accountId, long publishId, CancellationToken cancellation) =>
        await ListAsync(accountId, "p.id = @publishId", 1, cancellation, publishId) is [var found] ? found : null;

    /// <summary>The newest publishes, newest first.</summary>
    public Task<IReadOnlyList<PublishSummary>> ListAsync(int accountId, CancellationToken cancellation) =>
        ListAsync(accountId, "true", MostListed, cancellation);

    /// <summary>Marks an interrupted publish as running again.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="publishId">The publish.</param>
    /// <param name="along">What is done with its number of items in the same transaction.</param>
    /// <param name="cancellation">Stops it.</param>
    /// <returns>False when it is not interrupted any more.</returns>
    public async Task<bool> ContinueAsync(
        int accountId,
        long publishId,
        Func<NpgsqlConnection, int, Task> along,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await AccountLock.TakeAsync(connection, accountId, new AccountWork(null, AccountDoing.Publish), cancellation);
        var total = await connection.ExecuteScalarAsync<int?>(
            new CommandDefinition(
                $"update publish p set state = 1, problem = null where p.id = @publishId and p.account_id = @accountId and {State} = 3 returning total",
                new { accountId, publishId },
                cancellationToken: cancellation
            )
        );
        if (total is null)
        {
            return false;
        }

        await along(connection, total.Value);
        await transaction.CommitAsync(cancellation);
        return true;
    }

    /// <summary>Takes an interrupted publish from whoever may still be sending it, before it is settled and given up.</summary>
    /// <returns>False when it is not interrupted any more.</returns>
    public async Task<bool> HoldAsync(int accountId, long publishId, string? problem, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteAsync(
                new CommandDefinition(
                    $"update publish p set state = 3, problem = @problem where p.id = @publishId and p.account_id = @accountId and {State} = 3",
                    new
                    {
                        accountId,
                        publishId,
                        problem,
                    },
                    cancellationToken: cancellation
                )
            ) > 0;
    }

    /// <summary>Gives up an interrupted publish whose last round is settled.</summary>
    /// <returns>False when somebody has gone on with it meanwhile.</returns>
    public async Task<bool> AbandonAsync(
        long publishId,
        PublishRound settled,
        string ending,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteAsync(
                new CommandDefinition(
                    "update publish set state = 4, problem = concat_ws(' ', problem, @ending) where id = @publishId and state = 3 and round = @Number and sent_up_to = @SentUpTo",
                    new
                    {
                        publishId,
                        settled.Number,
                        settled.SentUpTo,
                        ending,
                    },
                    cancellationToken: cancellation
                )
            ) > 0;
    }

    /// <summary>Writes down how a publish ended.</summary>
    public async Task DateAsync(long publishId, DateTimeOffset networkTime, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                "update publish set network_at = coalesce(network_at, @moment) where id = @publishId",
                new { publishId, moment = networkTime.ToUniversalTime() },
                cancellationToken: cancellation
            )
        );
    }

    public async Task EndAsync(long publishId, PublishState state, string? problem, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                update publish set state = @state, problem = @problem where id = @publishId and state <> 4;
                update account set live_read_at = @now where id = (select account_id from publish where id = @publishId) and @state = 2
                """,
                new
                {
                    publishId,
                    state = (short)state,
                    problem,
                    now = clock.GetUtcNow(),
                },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>The items of a publish that are not on the network as they were to be, in the order in which they were to go out.</summary>
    public async Task<IReadOnlyList<UnpublishedItem>> UnpublishedAsync(
        int accountId,
        long publishId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<UnpublishedItem>(
            new CommandDefinition(
                $"""
                select b.kind, b.item_id as id, coalesce(n.name, '') as name, n.campaign, n.ad_group, b.outcome, coalesce(b.reason, '') as reason
                from publish_item b join publish p on p.id = b.publish_id and p.account_id = @accountId
                {ItemNames.Lateral("b.kind", "b.item_id")}
                where b.publish_id = @publishId and b.outcome in (2, 3, 4) order by b.position limit {MostUnpublished}
                """,
                new { accountId, publishId },
                cancellationToken: cancellation
            )
        );
        return [.. rows];
    }

    private async Task<IReadOnlyList<PublishSummary>> ListAsync(
        int accountId,
        string condition,
        int most,
        CancellationToken cancellation,
        long? publishId = null
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<PublishSummary>(
            new CommandDefinition(
                $"""
                select p.id, {State} as state, {Problem} as problem, p.total, p.accepted, p.refused, p.changed_since, p.left_out, p.made_at,
                  coalesce(who.display_name, '') as person
                from publish p left join "AspNetUsers" who on who.id = p.person_id
                where p.account_id = @accountId and {condition} order by p.id desc limit @most
                """,
                new
                {
                    accountId,
                    most,
                    publishId,
                },
                cancellationToken: cancellation
            )
        );
        return [.. rows];
    }
}
