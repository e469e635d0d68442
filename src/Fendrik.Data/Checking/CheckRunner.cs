using System.Runtime.CompilerServices;
using System.Text.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Changes;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Matching;
using Fendrik.Data.Cleaning;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;
using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Data.Checking;

/// <summary>One run of the checks over a scope: what was found there before is replaced by what is found now.</summary>
internal sealed class CheckRunner(NpgsqlConnection connection, AccountFacts account, CheckScope scope)
{
    private const int LongestStatement = 600;

    private readonly List<Finding> _findings = [];
    private bool _everyKeyword;
    private long[] _campaigns = [];

    /// <summary>Where negatives came, went or changed: everywhere, or in some campaigns.</summary>
    public (bool All, long[] Campaigns) NegativesMoved => (_everyKeyword, _campaigns);

    /// <summary>Looks at everything in the scope as it is at one moment.</summary>
    public async Task LookAsync(CancellationToken cancellation)
    {
        (_everyKeyword, _campaigns) = await scope.NegativesMovedAsync(connection);
        if (!_everyKeyword && _campaigns.Length > 0)
        {
            // Which keywords were looked at is of that moment as well.
            await connection.ExecuteAsync(
                new CommandDefinition(
                    "insert into touched_keyword select k.id from keyword k join ad_group g on g.id = k.ad_group_id where g.campaign_id = any(@campaigns)",
                    new { campaigns = _campaigns },
                    cancellationToken: cancellation
                )
            );
        }

        await foreach (var finding in FindAsync(_everyKeyword, _campaigns, cancellation))
        {
            _findings.Add(finding);
        }
    }

    /// <summary>What was found in the scope before is replaced by what was found now.</summary>
    public async Task StoreAsync(CancellationToken cancellation)
    {
        await ClearAsync();
        await StoreAsync(_findings, cancellation);
        await StorePayerAsync(cancellation);
        await scope.ForgetAsync(connection);
    }

    private async Task StorePayerAsync(CancellationToken cancellation)
    {
        await connection.ExecuteAsync(
            "delete from account_finding where account_id = @Id and code = @code",
            new { account.Id, code = AcrossAccount.PayerMissing }
        );
        if (AcrossAccount.Payer(account.Payer, account.Network.Name) is { } missing)
        {
            await AccountFindings.StoreAsync(connection, account.Id, [missing], cancellation);
        }
    }

    private Task ClearAsync() =>
        connection.ExecuteAsync(
            scope.IsWhole
                ? "delete from finding where account_id = @Id"
                : """
                delete from finding f using touched t where f.account_id = @Id and f.kind = t.kind and f.item_id = t.id;
                delete from finding f where f.account_id = @Id and f.kind = @keyword and f.code = @code
                  and (@everyKeyword or f.item_id in (select id from touched_keyword));
                delete from finding f using touched_campaign t where f.account_id = @Id and f.kind = @campaign and f.code = @broad and f.item_id = t.id;
                delete from finding f using touched_setting t where f.account_id = @Id and f.kind = @campaign and f.code = any(@risks) and f.item_id = t.id;
                delete from finding f using touched_setting t, place p
                where f.account_id = @Id and f.kind = @place and f.code = any(@ofPlaces) and p.campaign_id = t.id and f.item_id = p.id
                """,
            new
            {
                account.Id,
                code = AcrossItems.BlockedByNegative,
                keyword = (short)ItemKind.Keyword,
                campaign = (short)ItemKind.Campaign,
                broad = AcrossItems.ManyBroadGroups,
                risks = CampaignRisks.Codes.Concat(StrategyChecks.Codes).Concat(GoalChecks.Codes).ToArray(),
                place = (short)ItemKind.Place,
                ofPlaces = PlaceContradictions.Codes.ToArray(),
                everyKeyword = _everyKeyword,
            },
            commandTimeout: LongestStatement
        );

    private async IAsyncEnumerable<Finding> FindAsync(
        bool everyKeyword,
        long[] campaigns,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        foreach (var table in ItemTable.All.Where(table => scope.Touches(table.Kind)))
        {
            var changed = connection.QueryUnbufferedAsync<string>(
                $"select {table.Published("i")}::text from {table.Name} i where i.account_id = @Id and {ItemTable.Pending} and not i.removed and {scope.Holds(table.Kind)}",
                new { account.Id },
                commandTimeout: LongestStatement
            );
            await foreach (var json in changed.WithCancellation(cancellation))
            {
                var item = JsonDocument.Parse(json).RootElement;
                var report = new CheckReport(
                    table.Kind,
                    item.GetProperty("id").GetInt64(),
                    account.Network,
                    account.Currency
                );
                foreach (var finding in table.Type.Check(ItemValues.ReadStored(table.Type, item), report))
                {
                    yield return finding;
                }
            }
        }

        await foreach (var finding in OfContentsAsync(cancellation))
        {
            yield return finding;
        }

        await foreach (var finding in TargetChecks.OfBroadGroupsAsync(connection, account, scope, cancellation))
        {
            yield return finding;
        }

        await foreach (var finding in SettingChecks.FindAsync(connection, account, scope, cancellation))
        {
            yield return finding;
        }

        await foreach (var finding in TargetChecks.OfPlacementsAsync(connection, account, scope, cancellation))
        {
            yield return finding;
        }

        await foreach (var finding in TargetChecks.OfNumbersAsync(connection, account, scope, cancellation))
        {
            yield return finding;
        }

        await foreach (var finding in SaidByNetworkAsync(cancellation))
        {
            yield return finding;
        }

        await foreach (var finding in OfLinksAsync(cancellation))
        {
            yield return finding;
        }

        await foreach (var finding in BlockedByNegativesAsync(everyKeyword, campaigns, cancellation))
        {
            yield return finding;
        }
    }

    /// <summary>What following the links showed when it was done last.</summary>
    private async IAsyncEnumerable<Finding> OfLinksAsync([EnumeratorCancellation] CancellationToken cancellation)
    {
        foreach (
            var (table, field) in ItemTable
                .All.Where(table => scope.Touches(table.Kind))
                .SelectMany(table =>
                    table.Type.Fields.Where(field => field.Type is AddressValue).Select(field => (table, field))
                )
        )
        {
            var rows = connection.QueryUnbufferedAsync<(
                long Id,
                short Weight,
                string Code,
                string Message,
                string Detail
            )>(
                $"""
                select distinct on (i.id) i.id, l.weight, l.code, l.message, l.detail from link_check l
                join {table.Name} i on i.account_id = l.account_id and i.{field.Column} = l.page and not i.removed
                where l.account_id = @Id and l.weight is not null and {scope.Holds(
                    table.Kind
                )} order by i.id, l.weight desc, l.code
                """,
                new { account.Id },
                commandTimeout: LongestStatement
            );
            await foreach (var row in rows.WithCancellation(cancellation))
            {
                yield return new Finding(
                    (Weight)row.Weight,
                    row.Code,
                    table.Kind,
                    row.Id,
                    field.Name,
                    row.Message,
                    row.Detail
                );
            }
        }
    }

    private async IAsyncEnumerable<Finding> OfContentsAsync([EnumeratorCancellation] CancellationToken cancellation)
    {
        if (!scope.Touches(ItemKind.AdGroup))
        {
            yield break;
        }

        var within = scope.IsWhole
            ? "true"
            : $"ad_group_id in (select t.id from touched t where t.kind = {(int)ItemKind.AdGroup})";
        var contents = connection.QueryUnbufferedAsync<(
            long Id,
            decimal? MaxCpc,
            int Keywords,
            int Without,
            int Ads,
            int Running,
            int ForDesktops,
            decimal? HighestBid,
            decimal? Budget,
            short Strategy
        )>(
            $"""
            select i.id, i.max_cpc, coalesce(k.keywords, 0), coalesce(k.without, 0), coalesce(a.ads, 0), coalesce(a.running, 0), coalesce(a.for_desktops, 0),
              greatest(k.highest, case when k.without > 0 then i.max_cpc end), c.daily_budget, c.strategy
            from ad_group i join campaign c on c.id = i.campaign_id and not c.removed
            left join (select ad_group_id, count(*)::int as keywords, (count(*) filter (where max_cpc is null))::int as without, max(max_cpc) as highest
              from keyword where account_id = @Id and not removed and {within} group by ad_group_id) k on k.ad_group_id = i.id
            left join (select ad_group_id, count(*)::int as ads, (count(*) filter (where state = {(int)ItemState.Running}))::int as running,
                (count(*) filter (where state = {(int)ItemState.Running} and coalesce(device_preference, {(int)
                    Device.Desktop}) = {(int)Device.Desktop}))::int as for_desktops
              from ({AdTables.Where($"account_id = @Id and not removed and {within}")}) ads group by ad_group_id) a on a.ad_group_id = i.id
            where i.account_id = @Id and not i.removed and {scope.Holds(ItemKind.AdGroup)}
            """,
            new { account.Id },
            commandTimeout: LongestStatement
        );
        await foreach (var group in contents.WithCancellation(cancellation))
        {
            var setsBids = new StrategyPlan((BidStrategy)group.Strategy).IsAutomatic;
            foreach (
                var finding in AcrossItems.OfContents(
                    group.Id,
                    group.Keywords,
                    // Where the network sets bids nobody needs a max CPC.
                    setsBids ? 0 : group.Without,
                    group.Ads,
                    group.Running,
                    group.ForDesktops,
                    group.MaxCpc
                )
            )
            {
                yield return finding;
            }

            if (
                !setsBids
                && AcrossItems.BidAboveBudget(group.Id, group.HighestBid, group.Budget, account.Currency) is { } above
            )
            {
                yield return above;
            }
        }
    }

    private async IAsyncEnumerable<Finding> SaidByNetworkAsync([EnumeratorCancellation] CancellationToken cancellation)
    {
        var tables = ItemTable.All.Where(table => scope.Touches(table.Kind)).ToArray();
        if (tables.Length == 0)
        {
            yield break;
        }

        var refused = connection.QueryUnbufferedAsync<(short Kind, long Id, string Reason)>(
            string.Join(
                " union all ",
                tables.Select(table =>
                    $"select {table.Number}::smallint, i.id, coalesce(i.review_reason, '') from {table.Name} i where i.account_id = @Id and i.review = 3 and not i.removed and {scope.Holds(table.Kind)}"
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

        var changed = connection.QueryUnbufferedAsync<(short Kind, long Id)>(
            string.Join(
                " union all ",
                tables.Select(table =>
                    $"select {table.Number}::smallint, i.id from live_difference d join {table.Name} i on i.id = d.item_id and i.account_id = d.account_id where d.account_id = @Id and d.kind = {table.Number} and {scope.Holds(table.Kind)}"
                )
            ),
            new { account.Id }
        );
        await foreach (var item in changed.WithCancellation(cancellation))
        {
            yield return new Finding(
                Weight.Caution,
                "changed-live",
                (ItemKind)item.Kind,
                item.Id,
                null,
                "changed on the network",
                "Somebody changed it on the network itself. Decide under Changes whose version holds; it is not published before."
            );
        }
    }

    private async IAsyncEnumerable<Finding> BlockedByNegativesAsync(
        bool everyKeyword,
        long[] campaigns,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        if (!everyKeyword && campaigns.Length == 0 && !scope.Touches(ItemKind.Keyword))
        {
            yield break;
        }

        var negatives = await PlacedNegatives.LoadAsync(connection, account.Id);
        if (negatives.Count == 0)
        {
            yield break;
        }

        var index = PlacedNegatives.Index(negatives, account.Network);
        var keywords = PlacedKeywords.ReadAsync(
            connection,
            account.Id,
            everyKeyword
                ? "true"
                : scope.Holds(ItemKind.Keyword) + (campaigns.Length > 0 ? " or g.campaign_id = any(@campaigns)" : ""),
            campaigns
        );
        await foreach (var keyword in keywords.WithCancellation(cancellation))
        {
            var worst = index
                .BlockingOf(keyword)
                .OrderByDescending(found => found.Blocking)
                .ThenBy(found => found.Placed.Negative.Id)
                .Select(found => AcrossItems.Blocked(keyword.Id, found.Placed.Negative, found.Blocking))
                .FirstOrDefault();
            if (worst is not null)
            {
                yield return worst;
            }
        }
    }

    private async Task StoreAsync(IEnumerable<Finding> findings, CancellationToken cancellation)
    {
        await using var importer = await connection.BeginBinaryImportAsync(
            "copy finding (account_id, weight, code, kind, item_id, field, message, detail) from stdin (format binary)",
            cancellation
        );
        foreach (var finding in findings)
        {
            await importer.StartRowAsync(cancellation);
            importer.Write(account.Id, NpgsqlDbType.Integer);
            importer.Write((short)finding.Weight, NpgsqlDbType.Smallint);
            importer.Write(finding.Code, NpgsqlDbType.Text);
            importer.Write((short)finding.Kind, NpgsqlDbType.Smallint);
            importer.Write(finding.ItemId, NpgsqlDbType.Bigint);
            RowPipe.WriteText(importer, finding.Field);
            importer.Write(finding.Message, NpgsqlDbType.Text);
            importer.Write(finding.Detail, NpgsqlDbType.Text);
        }

        await importer.CompleteAsync(cancellation);
    }
}
