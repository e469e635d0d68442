using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Checking;

/// <summary>
/// The rows that a run of the checks looks at: those that steps or the network touched since the last run, with the ad
/// groups whose contents moved; or all, the first time. Kept in the table <c>touched</c> of the transaction.
/// </summary>
internal sealed class CheckScope
{
    /// <summary>From here on, looking at everything costs no more.</summary>
    private const int MostTouched = 300_000;

    /// <summary>From here on the planner is told how many there are.</summary>
    private const int WorthAnalysing = 500;

    /// <summary>Kinds that show a number, which is held against the answering hours of the account.</summary>
    public static readonly ItemKind[] Numbers = [ItemKind.CallExtension, ItemKind.CallAd];

    private readonly HashSet<ItemKind> _kinds;
    private readonly int _accountId;
    private readonly long? _since;

    private CheckScope(int accountId, long? since, IEnumerable<ItemKind> kinds) =>
        (_accountId, _since, _kinds) = (accountId, since, [.. kinds]);

    /// <summary>True when everything is looked at.</summary>
    public bool IsWhole => _since is null;

    /// <summary>The last step that was looked at before; 0 when everything is looked at.</summary>
    public long Since => _since ?? 0;

    /// <summary>Condition on row <c>i</c>.</summary>
    public string Holds(ItemKind kind) =>
        IsWhole ? "true" : $"i.id in (select t.id from touched t where t.kind = {(int)kind})";

    /// <summary>False when nothing of the kind needs to be looked at.</summary>
    public bool Touches(ItemKind kind) => IsWhole || _kinds.Contains(kind);

    public static async Task<CheckScope> TakeAsync(NpgsqlConnection connection, int accountId)
    {
        // They outlive the transaction that looks, for the one that writes down what it found.
        await connection.ExecuteAsync(
            """
            drop table if exists touched, touched_keyword, touched_campaign, touched_setting, touched_due;
            create temp table touched (kind smallint not null, id bigint not null, primary key (kind, id));
            create temp table touched_keyword (id bigint not null);
            create temp table touched_campaign (id bigint primary key);
            create temp table touched_setting (id bigint primary key);
            create temp table touched_due as select id, kind, item_id from check_due where account_id = @accountId
            """,
            new { accountId },
            commandTimeout: 600
        );
        var last = await connection.ExecuteScalarAsync<long?>(
            "select r.step_id from check_run r join account a on a.id = r.account_id where r.account_id = @accountId and r.step_id + 1 >= a.history_from",
            new { accountId }
        );
        if (last is null)
        {
            return new CheckScope(accountId, null, []);
        }

        var touched = 0;
        foreach (var table in ItemTable.All)
        {
            touched += await connection.ExecuteAsync(
                $"""
                insert into touched
                select {table.Number}, b.id from {table.Before} b where b.step_id > @last and b.account_id = @accountId
                union select {table.Number}, i.id from step_insertion s join step p on p.id = s.step_id and p.account_id = @accountId
                  join {table.Name} i on i.id between s.first_id and s.last_id and i.account_id = @accountId
                  where s.step_id > @last and s.kind = {table.Number}
                union select d.kind, d.item_id from check_due d where d.account_id = @accountId and d.kind = {table.Number}
                on conflict do nothing
                """,
                new { accountId, last },
                commandTimeout: 600
            );
        }

        if (touched > MostTouched)
        {
            return new CheckScope(accountId, null, []);
        }

        // What is in an ad group decides about the ad group.
        await connection.ExecuteAsync(
            $"""
            insert into touched
            {string.Join(
                " union ",
                ItemTable.All.Where(table => table.Parents.Any(parent => parent.Level == Level.AdGroup))
                    .Select(table => $"select {(int)ItemKind.AdGroup}, i.ad_group_id from {table.Name} i join touched t on t.kind = {table.Number} and t.id = i.id and i.ad_group_id is not null")
            )}
            union select {(int)ItemKind.AdGroup}, g.id from ad_group g join touched t on t.kind = {(int)ItemKind.Campaign} and t.id = g.campaign_id
            union select {(int)ItemKind.Placement}, p.id from placement p join touched t on t.kind = {(int)ItemKind.Campaign} and t.id = p.campaign_id
            {string.Join(
                " ",
                Numbers.Select(ItemTable.Of).Select(table => $"union select {table.Number}, i.id from {table.Name} i where i.account_id = @accountId and exists (select from touched t where t.kind = {(int)ItemKind.Account})")
            )}
            on conflict do nothing
            """,
            new { accountId }
        );
        // What is in its ad groups decides about a campaign in one check; its own are not due for that.
        await connection.ExecuteAsync(
            $"""
            insert into touched_campaign
            select t.id from touched t where t.kind = {(int)ItemKind.Campaign}
            union select g.campaign_id from ad_group g join touched t on t.kind = {(int)
                ItemKind.AdGroup} and t.id = g.id
            """
        );
        // Settings are those of a campaign itself, of its places, what counts in it, and, where it is for calls, of the account.
        await connection.ExecuteAsync(
            $"""
            insert into touched_setting
            select t.id from touched t where t.kind = {(int)ItemKind.Campaign}
            union select p.campaign_id from place p join touched t on t.kind = {(int)ItemKind.Place} and t.id = p.id
            union select c.id from campaign c where c.account_id = @accountId and exists (select from touched t where t.kind = {(int)
                ItemKind.ConversionAction})
            union select c.id from campaign c where c.account_id = @accountId and c.objective = {(int)
                Objective.Calls} and exists (select from touched t where t.kind = {(int)ItemKind.Account})
            """,
            new { accountId }
        );
        if (touched > WorthAnalysing)
        {
            await connection.ExecuteAsync("analyze touched");
        }

        return new CheckScope(
            accountId,
            last,
            (await connection.QueryAsync<short>("select distinct kind from touched")).Select(kind => (ItemKind)kind)
        );
    }

    /// <summary>What was due at the moment of looking is done; what became due since is due still.</summary>
    public Task ForgetAsync(NpgsqlConnection connection) =>
        connection.ExecuteAsync(
            """
            delete from check_due d using touched_due t where d.account_id = @account and d.id = t.id;
            drop table touched, touched_keyword, touched_campaign, touched_setting, touched_due
            """,
            new { account = _accountId },
            commandTimeout: 600
        );

    /// <summary>
    /// The campaigns in which a negative came, went or changed, so that their keywords are looked at again; none when
    /// there are none, and everything when a shared list moved, whose reach before is not worth finding out.
    /// </summary>
    public async Task<(bool All, long[] Campaigns)> NegativesMovedAsync(NpgsqlConnection connection)
    {
        if (IsWhole)
        {
            return (true, []);
        }

        var lists = await connection.ExecuteScalarAsync<bool>(
            $"""
            select exists (select from touched t where t.kind = {(int)ItemKind.NegativeList})
              or exists (select from touched t join negative_keyword n on t.kind = {(int)
                ItemKind.NegativeKeyword} and n.id = t.id and n.list_id is not null)
            """
        );
        return lists
            ? (true, [])
            : (
                false,
                [
                    .. await connection.QueryAsync<long>(
                        $"select distinct n.campaign_id from touched t join negative_keyword n on t.kind = {(int)ItemKind.NegativeKeyword} and n.id = t.id"
                    ),
                ]
            );
    }
}
