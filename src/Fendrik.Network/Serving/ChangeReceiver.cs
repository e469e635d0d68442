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
        var known = await connection.ExecuteScalarAsync<string?>(
            "select answers::text from batch where account_id = @accountId and key = @key",
            new { accountId, key }
        );
        if (known is not null)
        {
            return JsonSerializer.Deserialize<List<NetworkAnswer>>(known, NetworkStore.Json)!;
        }

        var profile = NetworkProfile.Of(account.Network);
        var currency = Currency.Of(account.Currency);
        var present = await ParentsPresentAsync(connection, accountId, changes);
        var answers = new List<NetworkAnswer>(changes.Count);
        var puts = new List<(ItemKind Kind, long Id, string Item)>();
        var removals = new List<(ItemKind Kind, long Id)>();
        foreach (var change in changes)
        {
            var reason =
                change.Action == ChangeAction.Remove ? null : Judge(change, profile, currency, present, refusedWording);
            answers.Add(new NetworkAnswer(change.Kind, change.ItemId, reason is null, reason));
            if (reason is not null)
            {
                continue;
            }

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

        await WriteAsync(connection, account, profile, puts, removals);
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

    private static async Task WriteAsync(
        NpgsqlConnection connection,
        NetworkAccount account,
        NetworkProfile profile,
        List<(ItemKind Kind, long Id, string Item)> puts,
        List<(ItemKind Kind, long Id)> removals
    )
    {
        var due = Reviewers.DueAt(account.Clock, new AccountDay(account.TimeZone), profile);
        // An item that comes again unchanged, or changed only in what nobody reviews, keeps its review.
        await connection.ExecuteAsync(
            """
            insert into item (account_id, kind, item_id, item, review, review_due, review_number)
            select @account, p.kind, p.id, p.item::jsonb, case when p.kind = any(@reviewed) then 1 else 0 end, case when p.kind = any(@reviewed) then @due::timestamptz end,
              case when p.kind = any(@reviewed) then nextval('review_number') end
            from unnest(@kinds, @ids, @items) as p(kind, id, item)
            on conflict (account_id, kind, item_id) do update set item = excluded.item,
              review = case when item.item - @unseen::text[] = excluded.item - @unseen::text[] then item.review else excluded.review end,
              review_reason = case when item.item - @unseen::text[] = excluded.item - @unseen::text[] then item.review_reason end,
              review_due = case when item.item - @unseen::text[] = excluded.item - @unseen::text[] then item.review_due else excluded.review_due end,
              review_number = excluded.review_number
            """,
            new
            {
                account = account.Id,
                due,
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
        if (removals.Count == 0)
        {
            return;
        }

        var parameters = new
        {
            account = account.Id,
            kinds = removals.Select(each => (short)each.Kind).ToArray(),
            ids = removals.Select(each => each.Id).ToArray(),
        };
        await connection.ExecuteAsync(
            "delete from item i using unnest(@kinds, @ids) as r(kind, id) where i.account_id = @account and i.kind = r.kind and i.item_id = r.id",
            parameters
        );
        foreach (
            var holder in removals
                .Select(each => ItemTypes.Of(each.Kind))
                .Where(type => type.Holds is not null)
                .Distinct()
        )
        {
            var name = $"i.item->>'{ItemType.ParentName(holder.Holds!.Value)}'";
            await connection.ExecuteAsync(
                $"delete from item i using unnest(@kinds, @ids) as r(kind, id) where i.account_id = @account and r.kind = {(int)holder.Kind} and {name} is not null and ({name})::bigint = r.id",
                parameters
            );
        }
    }
}
