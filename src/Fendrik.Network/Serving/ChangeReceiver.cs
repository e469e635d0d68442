using System.Text.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;
using Npgsql;

namespace Fendrik.Network.Serving;

/// <summary>Takes batches of changes: judges each by the network's own limits, and carries out what is accepted.</summary>
public sealed class ChangeReceiver(NetworkStore store)
{
    public async Task<IReadOnlyList<NetworkAnswer>> ReceiveAsync(
        string accountId,
        string key,
        IReadOnlyList<NetworkChange> changes,
        string? refusedWording,
        CancellationToken cancellation
    )
    {
        await using var connection = await store.OpenAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        var account =
            await NetworkStore.FindAsync(connection, accountId, locking: true)
            ?? throw new BadHttpRequestException("There is no such account.", StatusCodes.Status404NotFound);
        var known = await connection.QuerySingleOrDefaultAsync<KnownBatch?>(
            "select answers::text from batch where account_id = @accountId and key = @key",
            new { accountId, key }
        );
        if (known is not null)
        {
            return known.Read()
                ?? throw new BadHttpRequestException(
                    "This batch was closed before it came; nothing of it was carried out.",
                    StatusCodes.Status409Conflict
                );
        }

        var profile = NetworkProfile.Of(account.Network);
        var currency = Currency.Of(account.Currency);
        var present = await ParentsPresentAsync(connection, accountId, changes);
        var others = await OtherVersions.FindAsync(connection, accountId, changes);
        var answers = new List<NetworkAnswer>(changes.Count);
        var puts = new List<(ItemKind Kind, long Id, string Item)>();
        var removals = new List<(ItemKind Kind, long Id)>();
        foreach (var change in changes)
        {
            if (others.AnswerTo(change) is { } other)
            {
                answers.Add(other);
                continue;
            }

            var reason =
                change.Action == ChangeAction.Remove ? null : Judge(change, profile, currency, present, refusedWording);
            if (reason is not null)
            {
                answers.Add(new NetworkAnswer(change.Kind, change.ItemId, NetworkVerdict.Refused, reason));
                continue;
            }

            answers.Add(new NetworkAnswer(change.Kind, change.ItemId, NetworkVerdict.Accepted));

            if (change.Action == ChangeAction.Remove)
            {
                removals.Add((change.Kind, change.ItemId));
                present.Remove((change.Kind, change.ItemId));
            }
            else
            {
                puts.Add((change.Kind, change.ItemId, change.Item!.Value.GetRawText()));
                present.Add((change.Kind, change.ItemId));
            }
        }

        var versions = await WriteAsync(connection, account, profile, puts, removals);
        for (var place = 0; place < answers.Count; place++)
        {
            if (versions.TryGetValue((answers[place].Kind, answers[place].ItemId), out var version))
            {
                answers[place] = answers[place] with { Version = version };
            }
        }

        await connection.ExecuteAsync(
            "insert into batch (account_id, key, answers) values (@accountId, @key, @answers::jsonb)",
            new
            {
                accountId,
                key,
                answers = JsonSerializer.Serialize(answers, NetworkStore.Json),
            }
        );
        await transaction.CommitAsync(cancellation);
        return answers;
    }

    /// <summary>
    /// Answers a batch that was carried out as it was answered then; one that has not come is closed, so that it is not carried
    /// out when it still comes.
    /// </summary>
    /// <returns>The answers, or none when nothing of the batch was carried out.</returns>
    public async Task<IReadOnlyList<NetworkAnswer>?> CloseAsync(
        string accountId,
        string key,
        CancellationToken cancellation
    )
    {
        await using var connection = await store.OpenAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        _ =
            await NetworkStore.FindAsync(connection, accountId, locking: true)
            ?? throw new BadHttpRequestException("There is no such account.", StatusCodes.Status404NotFound);
        await connection.ExecuteAsync(
            "insert into batch (account_id, key) values (@accountId, @key) on conflict do nothing",
            new { accountId, key }
        );
        var known = await connection.QuerySingleAsync<KnownBatch>(
            "select answers::text from batch where account_id = @accountId and key = @key",
            new { accountId, key }
        );
        await transaction.CommitAsync(cancellation);
        return known.Read();
    }

    /// <summary>A batch that is known by its key: carried out, with its answers, or closed before it came.</summary>
    [method: ExplicitConstructor]
    private sealed record KnownBatch(string? Answers)
    {
        public List<NetworkAnswer>? Read() =>
            Answers is null ? null : JsonSerializer.Deserialize<List<NetworkAnswer>>(Answers, NetworkStore.Json)!;
    }

    /// <summary>Which of the parents that a batch names are here: a batch costs what is in it, not what the account has.</summary>
    private static async Task<HashSet<(ItemKind, long)>> ParentsPresentAsync(
        NpgsqlConnection connection,
        string accountId,
        IReadOnlyList<NetworkChange> changes
    )
    {
        var named = changes.SelectMany(ParentsOf).Distinct().ToArray();
        var rows = await connection.QueryAsync<(short Kind, long Id)>(
            """
            select p.kind, p.id from unnest(@kinds, @ids) as p(kind, id)
            cross join lateral (select from item i where i.account_id = @accountId and i.kind = p.kind and i.item_id = p.id offset 0) i
            """,
            new
            {
                accountId,
                kinds = named.Select(parent => (short)parent.Kind).ToArray(),
                ids = named.Select(parent => parent.Id).ToArray(),
            }
        );
        return [.. rows.Select(row => ((ItemKind)row.Kind, row.Id))];
    }

    private static IEnumerable<(ItemKind Kind, long Id)> ParentsOf(NetworkChange change)
    {
        if (change.Item is not { ValueKind: JsonValueKind.Object } item || TypeOf(change.Kind) is not { } type)
        {
            return [];
        }

        try
        {
            return type.ParentsOf(item).ToArray();
        }
        catch (JsonException)
        {
            return [];
        }
    }

    private static ItemType? TypeOf(ItemKind kind) => ItemTypes.All.FirstOrDefault(type => type.Kind == kind);

    private static string? Judge(
        NetworkChange change,
        NetworkProfile profile,
        Currency currency,
        HashSet<(ItemKind, long)> present,
        string? refusedWording
    )
    {
        if (change.Item is not { ValueKind: JsonValueKind.Object } item)
        {
            return "The item is missing.";
        }

        if (TypeOf(change.Kind) is not { } type)
        {
            return "There is no such kind of item here.";
        }

        if (
            refusedWording is not null
            && item.GetRawText().Contains(refusedWording, StringComparison.OrdinalIgnoreCase)
        )
        {
            return $"Our editors do not take “{refusedWording}”.";
        }

        try
        {
            if (!type.IsPlaced(item) || type.ParentsOf(item).Any(parent => !present.Contains(parent)))
            {
                return "What it belongs to is not here. Publish that first.";
            }

            return type.Check(
                    ItemValues.ReadStored(type, item),
                    new CheckReport(change.Kind, change.ItemId, profile, currency)
                )
                .FirstOrDefault(finding => finding.Weight == Weight.Blocker)
                ?.Detail;
        }
        catch (JsonException)
        {
            return "The item cannot be read.";
        }
    }

    /// <summary>Writes what was accepted.</summary>
    /// <returns>The versions that items have now.</returns>
    private static async Task<Dictionary<(ItemKind, long), long>> WriteAsync(
        NpgsqlConnection connection,
        NetworkAccount account,
        NetworkProfile profile,
        List<(ItemKind Kind, long Id, string Item)> puts,
        List<(ItemKind Kind, long Id)> removals
    )
    {
        var due = Reviewers.DueAt(account, profile, puts.Select(put => (put.Kind, put.Id)));
        // An item that comes again unchanged, or changed only in what nobody reviews, keeps its review.
        var written = await connection.QueryAsync<(short Kind, long Id, long Version)>(
            """
            delete from gone_item g using unnest(@kinds, @ids) as p(kind, id) where g.account_id = @account and g.kind = p.kind and g.item_id = p.id;
            insert into item_was (account_id, kind, item_id, item, review, since, until)
            select @account, p.kind, p.id, i.item, i.review, i.since, @now from unnest(@kinds, @ids, @items) as p(kind, id, item)
            cross join lateral (select item, review, since from item i where i.account_id = @account and i.kind = p.kind and i.item_id = p.id offset 0) i
            where i.since < @now and i.item <> p.item::jsonb;
            insert into item (account_id, kind, item_id, item, since, version, review, review_due, review_number)
            select @account, p.kind, p.id, p.item::jsonb, @now, nextval('item_version'), case when p.kind = any(@reviewed) then 1 else 0 end, case when p.kind = any(@reviewed) then p.due end,
              case when p.kind = any(@reviewed) then nextval('review_number') end
            from unnest(@kinds, @ids, @items, @due) as p(kind, id, item, due)
            on conflict (account_id, kind, item_id) do update set item = excluded.item,
              since = case when item.item = excluded.item then item.since else excluded.since end,
              version = case when item.item = excluded.item then item.version else excluded.version end,
              review = case when item.item - @unseen::text[] = excluded.item - @unseen::text[] then item.review else excluded.review end,
              review_reason = case when item.item - @unseen::text[] = excluded.item - @unseen::text[] then item.review_reason end,
              review_due = case when item.item - @unseen::text[] = excluded.item - @unseen::text[] then item.review_due else excluded.review_due end,
              appealed = item.appealed and item.item - @unseen::text[] = excluded.item - @unseen::text[],
              review_number = excluded.review_number
            returning kind, item_id, version
            """,
            new
            {
                account = account.Id,
                now = account.Clock,
                due = due.ToArray(),
                reviewed = ItemTypes.All.Where(type => type.IsReviewed).Select(type => (short)type.Kind).ToArray(),
                unseen = ItemTypes
                    .All.SelectMany(type => type.Fields)
                    .Where(field => !field.IsReviewed)
                    .Select(field => field.Name)
                    .Distinct()
                    .ToArray(),
                kinds = puts.Select(put => (short)put.Kind).ToArray(),
                ids = puts.Select(put => put.Id).ToArray(),
                items = puts.Select(put => put.Item).ToArray(),
            }
        );
        var versions = written.ToDictionary(row => ((ItemKind)row.Kind, row.Id), row => row.Version);
        if (removals.Count == 0)
        {
            return versions;
        }

        async Task<List<(ItemKind Kind, long Id)>> GoAsync(string which, IReadOnlyList<(ItemKind Kind, long Id)> named)
        {
            var gone = await connection.QueryAsync<(short Kind, long Id, long Version)>(
                Gone(
                    $"delete from item i using unnest(@kinds, @ids) as r(kind, id) where i.account_id = @account and {which}"
                ),
                new
                {
                    account = account.Id,
                    now = account.Clock,
                    kinds = named.Select(each => (short)each.Kind).ToArray(),
                    ids = named.Select(each => each.Id).ToArray(),
                }
            );
            return
            [
                .. gone.Select(row =>
                {
                    versions[((ItemKind)row.Kind, row.Id)] = row.Version;
                    return ((ItemKind)row.Kind, row.Id);
                }),
            ];
        }

        // What holds others stands before what it holds, so that what goes with a campaign takes along what is in it.
        List<(ItemKind Kind, long Id)> going = [.. removals];
        await GoAsync("i.kind = r.kind and i.item_id = r.id", removals);
        foreach (var holder in ItemTypes.All.Where(type => type.Holds is not null))
        {
            var holders = going.Where(each => each.Kind == holder.Kind).ToArray();
            if (holders.Length > 0)
            {
                var name = $"i.item->>'{ItemType.ParentName(holder.Holds!.Value)}'";
                going.AddRange(await GoAsync($"{name} is not null and ({name})::bigint = r.id", holders));
            }
        }

        return versions;
    }

    /// <summary>What is gone keeps the number of its going.</summary>
    private static string Gone(string delete) =>
        $"""
            with gone as ({delete} returning i.account_id, i.kind, i.item_id, i.item, i.review, i.since),
              was as (
                insert into item_was (account_id, kind, item_id, item, review, since, until)
                select account_id, kind, item_id, item, review, since, @now from gone where since < @now
              )
            insert into gone_item (account_id, kind, item_id, version) select account_id, kind, item_id, nextval('item_version') from gone
            on conflict (account_id, kind, item_id) do update set version = excluded.version
            returning kind, item_id, version
            """;
}
