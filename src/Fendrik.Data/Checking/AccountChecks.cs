using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Core.Checks;
using Fendrik.Data.Accounts;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Data.Tracing;
using Npgsql;

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
)
{
    /// <summary>What mends it in one step; none where only a person can say what is right.</summary>
    public CampaignRepair? Repair { get; init; }

    /// <summary>The version of the item against which that holds.</summary>
    public long? Version { get; init; }
}

/// <summary>
/// Runs the checks of Core over what changed since they ran last, and keeps what they find. Single items are checked when
/// they differ from the live copy; what is live has passed already.
/// </summary>
public sealed class AccountChecks(NpgsqlDataSource source, WorkingCopy workingCopy, KeywordMemory keywords)
{
    /// <summary>Counts for the working copy as it is now.</summary>
    public async Task<CheckCounts> CountsAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await FreshCountsAsync(connection, accountId) ?? await RunAsync(connection, accountId, cancellation);
    }

    /// <summary>What was found when it was looked last, blockers first.</summary>
    public async Task<IReadOnlyList<NamedFinding>> ListAsync(
        int accountId,
        int most,
        CancellationToken cancellation,
        string? code = null
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var findings = await connection.QueryAsync<NamedFinding>(
            new CommandDefinition(
                $"""
                select f.weight, f.code, f.kind, f.item_id, f.field, f.message, f.detail, coalesce(n.name, '') as name, n.campaign, n.campaign_id, n.ad_group, n.ad_group_id
                from (select * from finding where account_id = @accountId and (@code::text is null or code = @code) order by weight desc, kind, item_id, id limit @most) f
                {ItemNames.Lateral("f.kind", "f.item_id")}
                order by f.weight desc, f.kind, f.item_id, f.id
                """,
                new
                {
                    accountId,
                    most,
                    code,
                },
                cancellationToken: cancellation
            )
        );
        return await WithRepairsAsync(connection, accountId, [.. findings], cancellation);
    }

    /// <summary>The same with what mends settings of campaigns.</summary>
    private static async Task<IReadOnlyList<NamedFinding>> WithRepairsAsync(
        NpgsqlConnection connection,
        int accountId,
        NamedFinding[] findings,
        CancellationToken cancellation
    )
    {
        long[] campaigns =
        [
            .. findings
                .Where(finding => finding.Kind == ItemKind.Campaign && finding.Field is not null)
                .Select(finding => finding.ItemId)
                .Distinct(),
        ];
        if (campaigns.Length == 0)
        {
            return findings;
        }

        var facts = await AccountFacts.ReadAsync(connection, accountId);
        var answering = (await AnsweringHoursReader.ReadAsync(connection, accountId, cancellation)).Hours;
        var known = (
            await connection.QueryAsync<(long Id, short Networks, long Version)>(
                new CommandDefinition(
                    "select id, networks, changed_by from campaign where account_id = @accountId and id = any(@campaigns)",
                    new { accountId, campaigns },
                    cancellationToken: cancellation
                )
            )
        ).ToDictionary(row => row.Id);
        return
        [
            .. findings.Select(finding =>
                finding.Kind == ItemKind.Campaign && known.TryGetValue(finding.ItemId, out var campaign)
                    ? finding with
                    {
                        Repair = CampaignRepair.Of(finding.Code, (SiteKinds)campaign.Networks, answering, facts.Ground),
                        Version = campaign.Version,
                    }
                    : finding
            ),
        ];
    }

    /// <summary>What was found when it was looked last that lies in no single item.</summary>
    public async Task<IReadOnlyList<AccountFinding>> ListOfAccountAsync(
        int accountId,
        int most,
        CancellationToken cancellation,
        string? code = null
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await AccountFindings.ListAsync(connection, accountId, most, code, cancellation);
    }

    /// <summary>Forgets what was found, so that the next run looks at everything.</summary>
    public async Task ForgetAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                "delete from check_run where account_id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );
    }

    private static Task<CheckCounts?> FreshCountsAsync(NpgsqlConnection connection, int accountId) =>
        connection.QuerySingleOrDefaultAsync<CheckCounts?>(
            """
            select r.blockers, r.cautions, r.hints from check_run r join account a on a.id = r.account_id
            where r.account_id = @accountId and r.step_id = a.last_step_id and not exists (select from check_due d where d.account_id = @accountId)
            """,
            new { accountId }
        );

    private async Task<CheckCounts> RunAsync(NpgsqlConnection connection, int accountId, CancellationToken cancellation)
    {
        var account = await workingCopy.FactsAsync(accountId, cancellation);

        // One at a time for each account: who waited finds the work done. The lock comes before the transaction, whose
        // snapshot would otherwise be of the time before the wait.
        await connection.ExecuteAsync(
            new CommandDefinition(
                "select pg_advisory_lock(7001, @accountId)",
                new { accountId },
                commandTimeout: 0,
                cancellationToken: cancellation
            )
        );
        try
        {
            return await FreshCountsAsync(connection, accountId)
                ?? await RunLockedAsync(connection, account, cancellation);
        }
        finally
        {
            // A session that was lost has lost its locks with it.
            if (connection.State == System.Data.ConnectionState.Open)
            {
                await connection.ExecuteAsync(
                    new CommandDefinition(
                        "select pg_advisory_unlock(7001, @accountId)",
                        new { accountId },
                        cancellationToken: CancellationToken.None
                    )
                );
            }
        }
    }

    /// <summary>
    /// Looks at one moment and writes down afterwards what was found at it: nothing that people do meanwhile is waited for or held
    /// up, and what they do is looked at the next time. Writing in the transaction that looks would fail against every step, since
    /// a repeatable read may not lock a row that was changed after its snapshot (PostgreSQL documentation, 13.2.2).
    /// </summary>
    private async Task<CheckCounts> RunLockedAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        CancellationToken cancellation
    )
    {
        var accountId = account.Id;
        long stepId;
        CheckRunner runner;
        CheckScope scope;
        await using (
            var looking = await connection.BeginTransactionAsync(
                System.Data.IsolationLevel.RepeatableRead,
                cancellation
            )
        )
        {
            stepId = await connection.ExecuteScalarAsync<long>(
                new CommandDefinition(
                    "select last_step_id from account where id = @accountId",
                    new { accountId },
                    cancellationToken: cancellation
                )
            );
            scope = await CheckScope.TakeAsync(connection, accountId);
            runner = new CheckRunner(connection, account, scope);
            await runner.LookAsync(cancellation);
            await looking.CommitAsync(cancellation);
        }

        var searches = new SavedSearchRun(connection, account, scope);
        await searches.LookAsync(keywords, stepId, runner.NegativesMoved, cancellation);
        await using var writing = await connection.BeginTransactionAsync(cancellation);
        await searches.StoreAsync(cancellation);
        await runner.StoreAsync(cancellation);
        var counts = await connection.QuerySingleAsync<CheckCounts>(
            new CommandDefinition(
                """
                insert into check_run (account_id, step_id, blockers, cautions, hints)
                select @accountId, @stepId, count(*) filter (where weight = 3), count(*) filter (where weight = 2), count(*) filter (where weight = 1)
                from (select weight from finding where account_id = @accountId union all select weight from account_finding where account_id = @accountId) found
                on conflict (account_id) do update set step_id = excluded.step_id, blockers = excluded.blockers, cautions = excluded.cautions, hints = excluded.hints
                returning blockers, cautions, hints
                """,
                new { accountId, stepId },
                cancellationToken: cancellation
            )
        );
        await writing.CommitAsync(cancellation);
        return counts;
    }
}
