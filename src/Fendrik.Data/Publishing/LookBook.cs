using Dapper;
using Fendrik.Core.Changes;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Data.Variants;
using Npgsql;

namespace Fendrik.Data.Publishing;

/// <summary>Keeps second looks: which changes somebody is asked to check, what is said about them, and how that ended.</summary>
public sealed class LookBook(NpgsqlDataSource source, TimeProvider clock)
{
    private const int MostListed = 50;

    private static readonly string Columns = $"""
        select l.id, l.asked_by, coalesce(p.display_name, '') as asked_by_name, l.note, l.state, (select count(*) from second_look_item i where i.look_id = l.id)::int as items,
          (select count(*) from second_look_remark r where r.look_id = l.id)::int as remarks, l.made_at, a.display_name as answered_by, l.answered_at, l.as_of,
          l.campaign_id, (select c.name from campaign c where c.id = l.campaign_id) as campaign,
          (select count(*) from look_proposal p where p.look_id = l.id and ({ProposedRows.State}) = {(int)
            ProposalState.Open})::int as proposed
        from second_look l left join "AspNetUsers" p on p.id = l.asked_by left join "AspNetUsers" a on a.id = l.answered_by
        """;

    /// <summary>Asks for a look at changes.</summary>
    /// <exception cref="InvalidChangeException">There are none, too many, or the note cannot be.</exception>
    public async Task<long> AskAsync(
        int accountId,
        string personId,
        IReadOnlyList<ItemReference> items,
        string? note,
        CancellationToken cancellation
    )
    {
        if (SecondLook.ProblemOf(note, isNeeded: false) is { } problem)
        {
            throw new InvalidChangeException("note", problem);
        }

        var distinct = items.Distinct().ToArray();
        if (distinct.Length is 0 or > SecondLook.MostItems)
        {
            throw new InvalidChangeException(
                "items",
                $"Tick 1 to {SecondLook.MostItems:N0} changes that are to be looked at; these are {distinct.Length:N0}."
            );
        }

        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        var id = await connection.ExecuteScalarAsync<long>(
            new CommandDefinition(
                """
                insert into second_look (account_id, asked_by, note, state, as_of, made_at)
                select id, @personId, @note, @open, last_step_id, @now from account where id = @accountId returning id
                """,
                new
                {
                    accountId,
                    personId,
                    note = (note ?? "").Trim(),
                    open = (short)LookState.Open,
                    now = clock.GetUtcNow(),
                },
                cancellationToken: cancellation
            )
        );
        // With what these cannot do without on the network: whoever looks sees all that would go out. Of another account nothing is pending here.
        await PublishPart.TakeAsync(connection, accountId, distinct, cancellation);
        var kept = await connection.ExecuteAsync(
            new CommandDefinition(
                $"insert into second_look_item (look_id, kind, item_id) {string.Join(
                    " union all ",
                    ItemTable.All.Select(table =>
                        $"select @id, {table.Number}::smallint, i.id from {table.Name} i where i.account_id = @accountId and {PublishPart.Has(table)} and {table.TrulyPending}"
                    )
                )}",
                new { id, accountId },
                cancellationToken: cancellation
            )
        );
        if (kept > SecondLook.MostItems)
        {
            throw new InvalidChangeException(
                "items",
                $"With what they stand in these are {kept:N0} changes; at most {SecondLook.MostItems:N0} are looked at together."
            );
        }

        if (kept == 0)
        {
            throw new InvalidChangeException("items", "None of these is a change any more. Load the page again.");
        }

        await transaction.CommitAsync(cancellation);
        return id;
    }

    /// <summary>Shows a campaign as it runs to the others of its account.</summary>
    /// <exception cref="InvalidChangeException">There is no such campaign, or the note cannot be.</exception>
    public async Task<long> ShowAsync(
        int accountId,
        string personId,
        long campaignId,
        string? note,
        CancellationToken cancellation
    )
    {
        if (SecondLook.ProblemOf(note, isNeeded: false) is { } problem)
        {
            throw new InvalidChangeException("note", problem);
        }

        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<long?>(
                new CommandDefinition(
                    """
                    insert into second_look (account_id, asked_by, note, state, as_of, made_at, campaign_id)
                    select a.id, @personId, @note, @open, a.last_step_id, @now, c.id
                    from account a join campaign c on c.account_id = a.id and c.id = @campaignId and not c.removed where a.id = @accountId returning id
                    """,
                    new
                    {
                        accountId,
                        personId,
                        campaignId,
                        note = (note ?? "").Trim(),
                        open = (short)LookState.Open,
                        now = clock.GetUtcNow(),
                    },
                    cancellationToken: cancellation
                )
            ) ?? throw new InvalidChangeException("campaignId", "There is no such campaign. Choose one that is there.");
    }

    /// <summary>The looks of an account: those that wait first, then the newest.</summary>
    public async Task<IReadOnlyList<KeptLook>> ListAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return
        [
            .. await connection.QueryAsync<KeptLook>(
                new CommandDefinition(
                    Columns + " where l.account_id = @accountId order by l.state > 2, l.id desc limit @MostListed",
                    new { accountId, MostListed },
                    cancellationToken: cancellation
                )
            ),
        ];
    }

    /// <summary>A look with its items and what was said.</summary>
    /// <exception cref="InvalidChangeException">There is none.</exception>
    public async Task<(KeptLook Look, IReadOnlyList<ItemReference> Items, IReadOnlyList<LookRemark> Remarks)> ReadAsync(
        int accountId,
        long lookId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var look =
            await connection.QuerySingleOrDefaultAsync<KeptLook>(
                new CommandDefinition(
                    Columns + " where l.account_id = @accountId and l.id = @lookId",
                    new { accountId, lookId },
                    cancellationToken: cancellation
                )
            ) ?? throw new InvalidChangeException("lookId", "There is no such second look.");
        var items = await connection.QueryAsync<(short Kind, long Id)>(
            new CommandDefinition(
                "select kind, item_id from second_look_item where look_id = @lookId order by kind, item_id",
                new { lookId },
                cancellationToken: cancellation
            )
        );
        var remarks = await connection.QueryAsync<LookRemark>(
            new CommandDefinition(
                $"""
                select r.id, r.kind, r.item_id, n.name, coalesce(p.display_name, '') as person, r.text, r.made_at
                from second_look_remark r left join "AspNetUsers" p on p.id = r.person_id {ItemNames.Lateral(
                    "r.kind",
                    "r.item_id"
                )}
                where r.look_id = @lookId order by r.id
                """,
                new { lookId },
                cancellationToken: cancellation
            )
        );
        return (look, [.. items.Select(item => new ItemReference((ItemKind)item.Kind, item.Id))], [.. remarks]);
    }

    /// <summary>Says something about a look, or about one of its items.</summary>
    /// <exception cref="InvalidChangeException">The text cannot be, there is no such look, or the item is not in it.</exception>
    public async Task RemarkAsync(
        int accountId,
        long lookId,
        string personId,
        string? text,
        ItemReference? about,
        CancellationToken cancellation
    )
    {
        if (SecondLook.ProblemOf(text, isNeeded: true) is { } problem)
        {
            throw new InvalidChangeException("text", problem);
        }

        await using var connection = await source.OpenConnectionAsync(cancellation);
        var isShown =
            about is not null && await ShownCampaign.ShowsAsync(connection, accountId, lookId, about, cancellation);
        var said = await connection.ExecuteAsync(
            new CommandDefinition(
                """
                insert into second_look_remark (look_id, kind, item_id, person_id, text, made_at)
                select l.id, @kind, @itemId, @personId, @text, @now from second_look l where l.id = @lookId and l.account_id = @accountId
                  and (@kind::smallint is null or @isShown or exists (select from second_look_item i where i.look_id = l.id and i.kind = @kind and i.item_id = @itemId))
                """,
                new
                {
                    accountId,
                    lookId,
                    personId,
                    text = text!.Trim(),
                    kind = (short?)about?.Kind,
                    itemId = about?.Id,
                    isShown,
                    now = clock.GetUtcNow(),
                },
                cancellationToken: cancellation
            )
        );
        if (said == 0)
        {
            throw new InvalidChangeException("lookId", "There is no such second look, or the item is not in it.");
        }
    }

    /// <summary>True where a publish sends something of a look.</summary>
    public async Task<bool> IsSentByAsync(long lookId, long publishId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<bool>(
            new CommandDefinition(
                """
                select exists (select from second_look_item i join publish_item q on q.kind = i.kind and q.item_id = i.item_id
                where i.look_id = @lookId and q.publish_id = @publishId)
                """,
                new { lookId, publishId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>Goes on with a look, as its subject allows.</summary>
    /// <exception cref="InvalidChangeException">There is none, or it has gone on already.</exception>
    public async Task GoOnAsync(
        int accountId,
        KeptLook look,
        LookState to,
        string personId,
        long? publishId,
        CancellationToken cancellation
    )
    {
        short[] from =
        [
            .. Enum.GetValues<LookState>()
                .Where(state => state.MayBecome(to, look.Subject))
                .Select(state => (short)state),
        ];
        await using var connection = await source.OpenConnectionAsync(cancellation);
        // Whoever asks once more shows what stands now.
        var gone = await connection.ExecuteAsync(
            new CommandDefinition(
                """
                update second_look l set state = @to, publish_id = coalesce(@publishId, publish_id),
                  answered_by = case when @to = @open then null else @personId end, answered_at = case when @to = @open then null else @now end,
                  as_of = case when @to = @open then (select last_step_id from account where id = @accountId) else as_of end
                where l.id = @lookId and l.account_id = @accountId and l.state = any(@from)
                """,
                new
                {
                    accountId,
                    lookId = look.Id,
                    to = (short)to,
                    open = (short)LookState.Open,
                    from,
                    personId,
                    publishId,
                    now = clock.GetUtcNow(),
                },
                cancellationToken: cancellation
            )
        );
        if (gone == 0)
        {
            throw new InvalidChangeException(
                "lookId",
                "Somebody else was faster: it has gone on already. Load the page again."
            );
        }
    }
}
