using System.Text.Json;
using System.Text.Json.Nodes;
using Dapper;
using Fendrik.Core.Changes;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Variants;

/// <summary>Keeps what is proposed for a campaign that is shown: a variant of the working copy, which is taken over item by item.</summary>
public sealed class VariantBook(NpgsqlDataSource source, WorkingCopy workingCopy, TimeProvider clock)
{
    /// <summary>The longest that a proposal may keep the database busy: whoever only looks must not hold up those who work.</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromSeconds(15);

    /// <summary>Proposes what a command would do, on top of what is proposed already.</summary>
    /// <returns>What it would do.</returns>
    /// <exception cref="InvalidChangeException">It cannot be done, reaches beyond the campaign, or is too much.</exception>
    public async Task<StepResult> ProposeAsync(
        int accountId,
        long lookId,
        string personId,
        IWorkingCopyChange change,
        bool preview,
        ShownPreview? shown,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        var campaign = await LookRow.HoldAsync(connection, accountId, lookId, cancellation);
        var soFar = await ProposedRows.OpenAsync(connection, lookId, cancellation);
        if (preview)
        {
            // A preview holds nobody up.
            await transaction.CommitAsync(cancellation);
        }

        var proposed = new ProposedChange(soFar, change);
        var result = await TryAsync(accountId, personId, proposed, cancellation);
        if (proposed.IsTooMuch)
        {
            throw TooMuch(proposed.Changes.Count);
        }

        if (shown is not null && shown.Items != result.Items)
        {
            throw new InvalidChangeException("shown", "Something was changed meanwhile. Look at the preview again.");
        }

        await RefuseOutsideAsync(connection, campaign, soFar, proposed.Changes, cancellation);
        if (!preview)
        {
            await KeepAsync(connection, lookId, personId, soFar, proposed.NotLaid, proposed.Changes, cancellation);
            await connection.ExecuteAsync(
                new CommandDefinition(
                    "select account_moved(@accountId)",
                    new { accountId },
                    cancellationToken: cancellation
                )
            );
            await transaction.CommitAsync(cancellation);
        }

        var mine = proposed.Changes.Select(each => (each.Kind, each.Id)).ToHashSet();
        return result with
        {
            Changes = proposed.Changes,
            Warnings = [.. result.Warnings.Where(warning => mine.Contains((warning.Kind, warning.Id)))],
        };
    }

    private async Task<StepResult> TryAsync(
        int accountId,
        string personId,
        ProposedChange proposed,
        CancellationToken cancellation
    )
    {
        using var limited = CancellationTokenSource.CreateLinkedTokenSource(cancellation);
        limited.CancelAfter(Longest);
        try
        {
            return await workingCopy.ApplyAsync(accountId, personId, proposed, preview: true, limited.Token);
        }
        catch (OperationCanceledException) when (!cancellation.IsCancellationRequested)
        {
            throw new InvalidChangeException(
                "items",
                $"This takes longer than {Longest.TotalSeconds:0} seconds: it is about too much to be proposed. Propose it of fewer items, or in words."
            );
        }
    }

    /// <summary>What is proposed in a look, the newest first, with whether it still can be taken over.</summary>
    public async Task<IReadOnlyList<KeptProposal>> ListAsync(int accountId, long lookId, CancellationToken cancellation)
    {
        await using var variant = await LaidVariant.OpenAsync(source, accountId, lookId, cancellation);
        var rows = (
            await variant.Connection.QueryAsync<Row>(
                new CommandDefinition(
                    $"""
                    select p.id, p.kind, p.item_id, p.before::text as before, p.after::text as after, p.person_id, coalesce(w.display_name, '') as person, p.made_at,
                      {ProposedRows.State} as state, d.display_name as decided_by, case when ({ProposedRows.State}) <> {(int)
                        ProposalState.Open} then p.decided_at end as decided_at
                    from look_proposal p join second_look l on l.id = p.look_id left join "AspNetUsers" w on w.id = p.person_id left join "AspNetUsers" d on d.id = p.decided_by
                    where p.look_id = @lookId and l.account_id = @accountId order by p.made_at desc, p.id
                    """,
                    new { accountId, lookId },
                    cancellationToken: cancellation
                )
            )
        ).ToArray();
        var places = new Dictionary<(ItemKind, long), ItemPlaceNames>();
        foreach (var kind in rows.GroupBy(row => (ItemKind)row.Kind))
        {
            long[] ids = [.. kind.Select(row => row.ItemId).Distinct()];
            foreach (var (id, place) in await StepChanges.PlacesAsync(variant.Connection, ItemTable.Of(kind.Key), ids))
            {
                places[(kind.Key, id)] = place;
            }
        }

        return
        [
            .. rows.Select(row => new KeptProposal(
                row.Id,
                new ItemChange(
                    (ItemKind)row.Kind,
                    row.ItemId,
                    ProposedRows.Parse(row.Before),
                    ProposedRows.Parse(row.After),
                    places.GetValueOrDefault(((ItemKind)row.Kind, row.ItemId))
                ),
                row.PersonId,
                row.Person,
                row.MadeAt,
                (ProposalState)row.State,
                row.State == (int)ProposalState.Open ? null : row.DecidedBy,
                row.DecidedAt,
                variant.Refused.GetValueOrDefault(row.Id)
            )),
        ];
    }

    [method: ExplicitConstructor]
    private sealed record Row(
        long Id,
        short Kind,
        long ItemId,
        string? Before,
        string? After,
        string PersonId,
        string Person,
        DateTimeOffset MadeAt,
        int State,
        string? DecidedBy,
        DateTimeOffset? DecidedAt
    );

    /// <summary>Decides that items stay as they are.</summary>
    /// <exception cref="InvalidChangeException">None of them is open.</exception>
    public async Task LeaveAsync(
        int accountId,
        long lookId,
        string personId,
        IReadOnlyList<long> proposals,
        DateTimeOffset? asOf,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await LookRow.HoldAsync(connection, accountId, lookId, cancellation);
        var left = await connection.ExecuteAsync(
            new CommandDefinition(
                $"""
                update look_proposal p set left_at = @now, decided_by = @personId, decided_at = @now
                from second_look l where l.id = p.look_id and l.account_id = @accountId and l.id = @lookId and p.id = any(@ids) and (@asOf::timestamptz is null or p.made_at <= @asOf)
                  and ({ProposedRows.State}) = {(int)ProposalState.Open}
                """,
                new
                {
                    accountId,
                    lookId,
                    personId,
                    now = clock.GetUtcNow(),
                    ids = proposals.ToArray(),
                    asOf,
                },
                cancellationToken: cancellation
            )
        );
        await MovedAsync(connection, accountId, left, cancellation);
        await transaction.CommitAsync(cancellation);
    }

    /// <summary>Takes back something that one proposed oneself.</summary>
    /// <exception cref="InvalidChangeException">It is not one's own, or is decided already.</exception>
    public async Task TakeBackAsync(
        int accountId,
        long lookId,
        string personId,
        long proposalId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await LookRow.HoldAsync(connection, accountId, lookId, cancellation);
        var gone = await connection.ExecuteAsync(
            new CommandDefinition(
                $"""
                delete from look_proposal p using second_look l where l.id = p.look_id and l.account_id = @accountId and l.id = @lookId
                  and p.id = @proposalId and p.person_id = @personId and ({ProposedRows.State}) = {(int)
                    ProposalState.Open}
                """,
                new
                {
                    accountId,
                    lookId,
                    personId,
                    proposalId,
                },
                cancellationToken: cancellation
            )
        );
        await MovedAsync(connection, accountId, gone, cancellation);
        await transaction.CommitAsync(cancellation);
    }

    private static async Task MovedAsync(
        NpgsqlConnection connection,
        int accountId,
        int rows,
        CancellationToken cancellation
    )
    {
        if (rows == 0)
        {
            throw new InvalidChangeException(
                "proposals",
                "These are decided already, or were proposed otherwise meanwhile. Look at them again."
            );
        }

        await connection.ExecuteAsync(
            new CommandDefinition(
                "select account_moved(@accountId)",
                new { accountId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>Joins what a command changed to what was proposed before: an item that is back as it was is proposed no more.</summary>
    private static async Task KeepAsync(
        NpgsqlConnection connection,
        long lookId,
        string personId,
        IReadOnlyList<ProposedItem> soFar,
        IReadOnlySet<long> notLaid,
        IReadOnlyList<ItemChange> changes,
        CancellationToken cancellation
    )
    {
        var known = soFar.ToDictionary(item => (item.Kind, item.ItemId));
        var gone = new List<long>();
        var kept = new List<(long? Id, ItemChange Change)>();
        foreach (var change in changes)
        {
            var before = known.GetValueOrDefault((change.Kind, change.Id));
            var from =
                before is null || notLaid.Contains(before.Id)
                    ? change.Before
                    : BeforeBoth(before, change.Before!.Value);
            if (IsSame(from, change.After))
            {
                gone.AddRange(before is null ? [] : [before.Id]);
            }
            else
            {
                kept.Add((before?.Id, change with { Before = from }));
            }
        }

        if (soFar.Count - gone.Count + kept.Count(each => each.Id is null) is var all and > SecondLook.MostProposed)
        {
            throw TooMuch(all);
        }

        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                delete from look_proposal where id = any(@gone);
                update look_proposal p set before = k.before::jsonb, after = k.after::jsonb, person_id = @personId, made_at = clock_timestamp()
                from unnest(@ids, @befores, @afters) as k(id, before, after) where k.id = p.id;
                insert into look_proposal (look_id, kind, item_id, before, after, person_id, made_at)
                select @lookId, k.kind, k.item_id, k.before::jsonb, k.after::jsonb, @personId, clock_timestamp()
                from unnest(@newKinds, @newItems, @newBefores, @newAfters) with ordinality as k(kind, item_id, before, after, place) order by k.place
                """,
                new
                {
                    lookId,
                    personId,
                    gone = gone.ToArray(),
                    ids = Known().Select(each => each.Id!.Value).ToArray(),
                    befores = Known().Select(each => Text(each.Change.Before)).ToArray(),
                    afters = Known().Select(each => Text(each.Change.After)).ToArray(),
                    newKinds = New().Select(each => (short)each.Change.Kind).ToArray(),
                    newItems = New().Select(each => each.Change.Id).ToArray(),
                    newBefores = New().Select(each => Text(each.Change.Before)).ToArray(),
                    newAfters = New().Select(each => Text(each.Change.After)).ToArray(),
                },
                cancellationToken: cancellation
            )
        );

        IEnumerable<(long? Id, ItemChange Change)> Known() => kept.Where(each => each.Id is not null);
        IEnumerable<(long? Id, ItemChange Change)> New() => kept.Where(each => each.Id is null);
        static string? Text(JsonElement? item) => item?.GetRawText();
    }

    /// <summary>
    /// An item as it is without what was proposed of it: what was proposed is taken from before, and what was changed since in
    /// other fields stays.
    /// </summary>
    private static JsonElement? BeforeBoth(ProposedItem proposed, JsonElement laid)
    {
        if (proposed.Before is not { } before)
        {
            return null;
        }

        var item = JsonObject.Create(laid)!;
        foreach (var field in ItemTypes.Of(proposed.Kind).Fields.Where(field => proposed.Says(field)))
        {
            item[field.Name] = JsonNode.Parse(before.GetProperty(field.Name).GetRawText());
        }

        return JsonSerializer.SerializeToElement(item);
    }

    private static bool IsSame(JsonElement? one, JsonElement? other) =>
        one is { } left && other is { } right ? JsonElement.DeepEquals(left, right) : one is null && other is null;

    private static InvalidChangeException TooMuch(int items) =>
        new(
            "items",
            $"At most {SecondLook.MostProposed:N0} items stand proposed at a time, each to be read by somebody; with these it would be {items:N0}. Propose it in words, or in smaller parts."
        );

    /// <exception cref="InvalidChangeException">Something is changed that is not in the campaign.</exception>
    private static async Task RefuseOutsideAsync(
        NpgsqlConnection connection,
        long campaign,
        IReadOnlyList<ProposedItem> soFar,
        IReadOnlyList<ItemChange> changes,
        CancellationToken cancellation
    )
    {
        var outside = await ShownCampaign.OutsideAsync(
            connection,
            campaign,
            [.. changes.Select(change => (change.Kind, change.Before, change.After))],
            soFar,
            cancellation
        );
        if (outside is { } place)
        {
            var change = changes[place];
            var type = ItemTypes.Of(change.Kind);
            throw new InvalidChangeException(
                "items",
                $"The {type.Noun} “{Reading.Shortened(FieldDifferences.NameOf(type, (change.After ?? change.Before)!.Value))}” is not in the campaign that is shown. Propose changes of that campaign alone."
            );
        }
    }
}
