using System.Text.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Npgsql;

namespace Fendrik.Network.Serving;

/// <summary>Takes in batches of changes. A batch is carried out once, whatever happens to its answer on the way back.</summary>
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
        var present = (
            await connection.QueryAsync<(short Kind, long Id)>(
                "select kind, item_id from item where account_id = @accountId",
                new { accountId }
            )
        )
            .Select(item => ((ItemKind)item.Kind, item.Id))
            .ToHashSet();
        var answers = new List<NetworkAnswer>(changes.Count);
        var puts = new List<(ItemKind Kind, long Id, string Item)>();
        var removals = new List<(ItemKind Kind, long Id)>();
        foreach (var change in changes)
        {
            var reason = change.Action == ChangeAction.Remove ? null : Judge(change, profile, present, refusedWording);
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

    /// <summary>Why an item is not taken, or none. The checks are Core's: what passes in Fendrik passes here.</summary>
    private static string? Judge(
        NetworkChange change,
        NetworkProfile profile,
        HashSet<(ItemKind, long)> present,
        string? refusedWording
    )
    {
        if (change.Item is not { ValueKind: JsonValueKind.Object } item)
        {
            return "The item is missing.";
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
            var (parents, findings) = change.Kind switch
            {
                ItemKind.Campaign => ([], ItemChecks.Of(Read<Campaign>(item), profile)),
                ItemKind.AdGroup => Within(
                    Read<AdGroup>(item),
                    each => [(ItemKind.Campaign, each.CampaignId)],
                    each => ItemChecks.Of(each, profile)
                ),
                ItemKind.Keyword => Within(
                    Read<Keyword>(item),
                    each => [(ItemKind.AdGroup, each.AdGroupId)],
                    each => ItemChecks.Of(each, profile)
                ),
                ItemKind.NegativeKeyword => Within(
                    Read<NegativeKeyword>(item),
                    ParentsOf,
                    each => ItemChecks.Of(each, profile)
                ),
                ItemKind.NegativeList => ([], ItemChecks.Of(Read<NegativeList>(item), profile)),
                _ => Within(
                    Read<TextAd>(item),
                    each => [(ItemKind.AdGroup, each.AdGroupId)],
                    each => ItemChecks.Of(each, profile)
                ),
            };
            return parents.Any(parent => !present.Contains(parent))
                ? "What it belongs to is not here. Publish that first."
                : findings.FirstOrDefault(finding => finding.Weight == Weight.Blocker)?.Detail;
        }
        catch (JsonException)
        {
            return "The item cannot be read.";
        }
    }

    private static (ItemKind, long)[] ParentsOf(NegativeKeyword negative) =>
        negative switch
        {
            { ListId: { } list } => [(ItemKind.NegativeList, list)],
            { AdGroupId: { } group } => [(ItemKind.Campaign, negative.CampaignId ?? 0), (ItemKind.AdGroup, group)],
            _ => [(ItemKind.Campaign, negative.CampaignId ?? 0)],
        };

    private static ((ItemKind, long)[] Parents, IEnumerable<Finding> Findings) Within<T>(
        T item,
        Func<T, (ItemKind, long)[]> parents,
        Func<T, IEnumerable<Finding>> findings
    ) => (parents(item), findings(item));

    private static T Read<T>(JsonElement item) => item.Deserialize<T>(NetworkStore.Json) ?? throw new JsonException();

    private static async Task WriteAsync(
        NpgsqlConnection connection,
        NetworkAccount account,
        NetworkProfile profile,
        List<(ItemKind Kind, long Id, string Item)> puts,
        List<(ItemKind Kind, long Id)> removals
    )
    {
        var due = Reviewers.DueAt(account.Clock, new AccountDay(account.TimeZone), profile);

        // An item that comes again unchanged, or changed in its bid alone, keeps its review.
        await connection.ExecuteAsync(
            """
            insert into item (account_id, kind, item_id, item, review, review_due)
            select @account, p.kind, p.id, p.item::jsonb, case when p.kind in (3, 5) then 1 else 0 end, case when p.kind in (3, 5) then @due::timestamptz end
            from unnest(@kinds, @ids, @items) as p(kind, id, item)
            on conflict (account_id, kind, item_id) do update set item = excluded.item,
              review = case when item.item - 'maxCpc' - 'state' = excluded.item - 'maxCpc' - 'state' then item.review else excluded.review end,
              review_reason = case when item.item - 'maxCpc' - 'state' = excluded.item - 'maxCpc' - 'state' then item.review_reason end,
              review_due = case when item.item - 'maxCpc' - 'state' = excluded.item - 'maxCpc' - 'state' then item.review_due else excluded.review_due end
            """,
            new
            {
                account = account.Id,
                due,
                kinds = puts.Select(put => (short)put.Kind).ToArray(),
                ids = puts.Select(put => put.Id).ToArray(),
                items = puts.Select(put => put.Item).ToArray(),
            }
        );
        await connection.ExecuteAsync(
            """
            delete from item i using unnest(@kinds, @ids) as r(kind, id)
            where i.account_id = @account and ((i.kind = r.kind and i.item_id = r.id)
              or (r.kind = 1 and (i.item->>'campaignId')::bigint = r.id)
              or (r.kind = 2 and (i.item->>'adGroupId')::bigint = r.id)
              or (r.kind = 6 and (i.item->>'listId')::bigint = r.id))
            """,
            new
            {
                account = account.Id,
                kinds = removals.Select(each => (short)each.Kind).ToArray(),
                ids = removals.Select(each => each.Id).ToArray(),
            }
        );
    }
}
