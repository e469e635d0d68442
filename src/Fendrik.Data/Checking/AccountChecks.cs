using System.Text.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Core.Matching;
using Fendrik.Data.Steps;
using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Data.Checking;

/// <summary>Numbers of findings by weight.</summary>
[method: ExplicitConstructor]
public sealed record CheckCounts(int Blockers, int Cautions, int Hints);

/// <summary>One finding with the name of the item it is about.</summary>
[method: ExplicitConstructor]
public sealed record NamedFinding(
    Weight Weight,
    string Code,
    ItemKind Kind,
    long ItemId,
    string? Field,
    string Message,
    string Detail,
    string Name,
    string? Campaign,
    long? CampaignId,
    string? AdGroup,
    long? AdGroupId
);

/// <summary>
/// Runs the checks of Core over the working copy and keeps what they find until the working copy changes. Single items
/// are checked when they differ from the live copy; what is live has passed already.
/// </summary>
public sealed class AccountChecks(NpgsqlDataSource source, WorkingCopy workingCopy)
{
    /// <summary>Most findings kept; beyond it only the counts grow.</summary>
    private const int MostKept = 20_000;
    private const int MostAttempts = 3;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    /// <summary>Counts for the working copy as it is now.</summary>
    public async Task<CheckCounts> CountsAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await FreshCountsAsync(connection, accountId) ?? await RunAsync(connection, accountId, cancellation);
    }

    /// <summary>What was found, blockers first.</summary>
    public async Task<IReadOnlyList<NamedFinding>> ListAsync(int accountId, int most, CancellationToken cancellation)
    {
        await CountsAsync(accountId, cancellation);
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var findings = await connection.QueryAsync<NamedFinding>(
            """
            select f.weight, f.code, f.kind, f.item_id, f.field, f.message, f.detail,
              coalesce(c.name, g.name, k.text, n.text, array_to_string(a.headlines, ' – '), '') as name,
              coalesce(gc.name, nc.name) as campaign, coalesce(c.id, gc.id, nc.id) as campaign_id,
              og.name as ad_group, og.id as ad_group_id
            from (select * from finding where account_id = @accountId order by weight desc, kind, id limit @most) f
            left join campaign c on f.kind = 1 and c.id = f.item_id
            left join ad_group g on f.kind = 2 and g.id = f.item_id
            left join keyword k on f.kind = 3 and k.id = f.item_id
            left join negative_keyword n on f.kind = 4 and n.id = f.item_id
            left join text_ad a on f.kind = 5 and a.id = f.item_id
            left join ad_group og on og.id = coalesce(g.id, k.ad_group_id, n.ad_group_id, a.ad_group_id)
            left join campaign gc on gc.id = og.campaign_id
            left join campaign nc on nc.id = n.campaign_id
            order by f.weight desc, f.kind, f.id
            """,
            new { accountId, most }
        );
        return [.. findings];
    }

    private static Task<CheckCounts?> FreshCountsAsync(NpgsqlConnection connection, int accountId) =>
        connection.QuerySingleOrDefaultAsync<CheckCounts?>(
            """
            select r.blockers, r.cautions, r.hints from check_run r join account a on a.id = r.account_id
            where r.account_id = @accountId and r.step_id = a.last_step_id
            """,
            new { accountId }
        );

    private async Task<CheckCounts> RunAsync(NpgsqlConnection connection, int accountId, CancellationToken cancellation)
    {
        var account = await workingCopy.FactsAsync(accountId, cancellation);

        // One at a time for each account: who waited finds the work done. The lock comes before the transaction, whose
        // snapshot would otherwise be of the time before the wait.
        await connection.ExecuteAsync("select pg_advisory_lock(7001, @accountId)", new { accountId });
        try
        {
            // A publish or a reading of reviews may set the counts aside meanwhile: then look once more.
            for (var attempt = 1; ; attempt++)
            {
                try
                {
                    return await FreshCountsAsync(connection, accountId)
                        ?? await RunLockedAsync(connection, account, cancellation);
                }
                catch (PostgresException error)
                    when (error.SqlState == PostgresErrorCodes.SerializationFailure && attempt < MostAttempts)
                {
                    // The transaction is rolled back; what it looked at has moved on.
                }
            }
        }
        finally
        {
            await connection.ExecuteAsync("select pg_advisory_unlock(7001, @accountId)", new { accountId });
        }
    }

    private static async Task<CheckCounts> RunLockedAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        CancellationToken cancellation
    )
    {
        var accountId = account.Id;
        await using var transaction = await connection.BeginTransactionAsync(
            System.Data.IsolationLevel.RepeatableRead,
            cancellation
        );
        var stepId = await connection.ExecuteScalarAsync<long>(
            "select last_step_id from account where id = @accountId",
            new { accountId }
        );
        var findings = new List<Finding>();
        await foreach (var finding in FindAsync(connection, account, cancellation))
        {
            findings.Add(finding);
        }

        await StoreAsync(connection, accountId, findings, cancellation);
        var counts = new CheckCounts(
            findings.Count(finding => finding.Weight == Weight.Blocker),
            findings.Count(finding => finding.Weight == Weight.Caution),
            findings.Count(finding => finding.Weight == Weight.Hint)
        );
        await connection.ExecuteAsync(
            """
            insert into check_run (account_id, step_id, blockers, cautions, hints) values (@accountId, @stepId, @Blockers, @Cautions, @Hints)
            on conflict (account_id) do update set step_id = @stepId, blockers = @Blockers, cautions = @Cautions, hints = @Hints
            """,
            new
            {
                accountId,
                stepId,
                counts.Blockers,
                counts.Cautions,
                counts.Hints,
            }
        );
        await transaction.CommitAsync(cancellation);
        return counts;
    }

    private static async IAsyncEnumerable<Finding> FindAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancellation
    )
    {
        foreach (var table in ItemTable.All)
        {
            var changed = connection.QueryUnbufferedAsync<string>(
                $"select published_fields(i)::text from {table.Name} i where i.account_id = @Id and {ItemTable.Pending} and not i.removed",
                new { account.Id }
            );
            await foreach (var json in changed.WithCancellation(cancellation))
            {
                foreach (var finding in CheckItem(table.Kind, json, account.Network))
                {
                    yield return finding;
                }
            }
        }

        var contents = connection.QueryUnbufferedAsync<(long Id, decimal? MaxCpc, int Keywords, int Without, int Ads)>(
            """
            select g.id, g.max_cpc, coalesce(k.keywords, 0), coalesce(k.without, 0), coalesce(a.ads, 0)
            from ad_group g join campaign c on c.id = g.campaign_id and not c.removed
            left join (select ad_group_id, count(*)::int as keywords, (count(*) filter (where max_cpc is null))::int as without
              from keyword where account_id = @Id and not removed group by ad_group_id) k on k.ad_group_id = g.id
            left join (select ad_group_id, count(*)::int as ads from text_ad where account_id = @Id and not removed group by ad_group_id) a on a.ad_group_id = g.id
            where g.account_id = @Id and not g.removed
            """,
            new { account.Id }
        );
        await foreach (var group in contents.WithCancellation(cancellation))
        {
            foreach (
                var finding in ItemChecks.OfContents(group.Id, group.Keywords, group.Without, group.Ads, group.MaxCpc)
            )
            {
                yield return finding;
            }
        }

        var refused = connection.QueryUnbufferedAsync<(short Kind, long Id, string Reason)>(
            string.Join(
                " union all ",
                ItemTable.All.Select(table =>
                    $"select {(int)table.Kind}::smallint, i.id, coalesce(i.review_reason, '') from {table.Name} i where i.account_id = @Id and i.review = 3 and not i.removed"
                )
            ),
            new { account.Id }
        );
        await foreach (var item in refused.WithCancellation(cancellation))
        {
            yield return new Finding(
                Weight.Caution,
                "refused",
                (ItemKind)item.Kind,
                item.Id,
                null,
                "refused by the network",
                $"{item.Reason} Change it and publish again."
            );
        }

        await foreach (var finding in BlockedByNegativesAsync(connection, account.Id).WithCancellation(cancellation))
        {
            yield return finding;
        }
    }

    private static IEnumerable<Finding> CheckItem(ItemKind kind, string json, NetworkProfile network) =>
        kind switch
        {
            ItemKind.Campaign => ItemChecks.Of(JsonSerializer.Deserialize<Campaign>(json, Json)!, network),
            ItemKind.AdGroup => ItemChecks.Of(JsonSerializer.Deserialize<AdGroup>(json, Json)!, network),
            ItemKind.Keyword => ItemChecks.Of(JsonSerializer.Deserialize<Keyword>(json, Json)!, network),
            ItemKind.NegativeKeyword => ItemChecks.Of(
                JsonSerializer.Deserialize<NegativeKeyword>(json, Json)!,
                network
            ),
            _ => ItemChecks.Of(JsonSerializer.Deserialize<TextAd>(json, Json)!, network),
        };

    private static async IAsyncEnumerable<Finding> BlockedByNegativesAsync(NpgsqlConnection connection, int accountId)
    {
        var negatives = (
            await connection.QueryAsync<(long Id, long CampaignId, long? AdGroupId, string Text, short Match)>(
                "select id, campaign_id, ad_group_id, text, match_type from negative_keyword where account_id = @accountId and not removed",
                new { accountId }
            )
        )
            .Select(row => new NegativeKeyword(row.Id, row.CampaignId, row.AdGroupId, row.Text, (MatchType)row.Match))
            .ToArray();
        if (negatives.Length == 0)
        {
            yield break;
        }

        var index = new KeywordIndex<NegativeKeyword>(
            negatives.Select(negative => (negative, negative.Text, negative.Match)),
            literal: true
        );
        var keywords = connection.QueryUnbufferedAsync<(long Id, long AdGroupId, long CampaignId, string Text)>(
            "select k.id, k.ad_group_id, g.campaign_id, k.text from keyword k join ad_group g on g.id = k.ad_group_id where k.account_id = @accountId and not k.removed",
            new { accountId }
        );
        await foreach (var keyword in keywords)
        {
            var negative = index
                .Find(keyword.Text)
                .Find(found =>
                    found.CampaignId == keyword.CampaignId
                    && (found.AdGroupId is null || found.AdGroupId == keyword.AdGroupId)
                );
            if (negative is not null)
            {
                yield return ItemChecks.BlockedByNegative(keyword.Id, negative);
            }
        }
    }

    private static async Task StoreAsync(
        NpgsqlConnection connection,
        int accountId,
        List<Finding> findings,
        CancellationToken cancellation
    )
    {
        await connection.ExecuteAsync("delete from finding where account_id = @accountId", new { accountId });
        await using var importer = await connection.BeginBinaryImportAsync(
            "copy finding (account_id, weight, code, kind, item_id, field, message, detail) from stdin (format binary)",
            cancellation
        );
        foreach (var finding in findings.OrderByDescending(finding => finding.Weight).Take(MostKept))
        {
            await importer.StartRowAsync(cancellation);
            await importer.WriteAsync(accountId, NpgsqlDbType.Integer, cancellation);
            await importer.WriteAsync((short)finding.Weight, NpgsqlDbType.Smallint, cancellation);
            await importer.WriteAsync(finding.Code, NpgsqlDbType.Text, cancellation);
            await importer.WriteAsync((short)finding.Kind, NpgsqlDbType.Smallint, cancellation);
            await importer.WriteAsync(finding.ItemId, NpgsqlDbType.Bigint, cancellation);
            await (
                finding.Field is null
                    ? importer.WriteNullAsync(cancellation)
                    : importer.WriteAsync(finding.Field, NpgsqlDbType.Text, cancellation)
            );
            await importer.WriteAsync(finding.Message, NpgsqlDbType.Text, cancellation);
            await importer.WriteAsync(finding.Detail, NpgsqlDbType.Text, cancellation);
        }

        await importer.CompleteAsync(cancellation);
    }
}
