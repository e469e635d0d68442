using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Lists;
using Fendrik.Data.Model;
using Fendrik.Data.Tables;
using Npgsql;

namespace Fendrik.Data.Intakes;

/// <summary>Begins, shows, corrects and leaves intakes.</summary>
public sealed class IntakeDesk(NpgsqlDataSource source, TimeProvider clock)
{
    public async Task<long> BeginAsync(
        int accountId,
        string personId,
        string fileName,
        Stream content,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        var id = await connection.ExecuteScalarAsync<long>(
            new CommandDefinition(
                """
                insert into intake (account_id, person_id, made_at, file_name, bytes, state, sample, has_header, columns, columns_chosen, bare_match, negative_match, rows_read, judged_at_step, new_paused)
                select a.id, @personId, @now, @fileName, 0, 1, '[]', false, '{}', false, coalesce(a.bare_match, 4), 2, 0, 0, coalesce(a.new_paused, false)
                from account a where a.id = @accountId returning id
                """,
                new
                {
                    accountId,
                    personId,
                    fileName,
                    now = clock.GetUtcNow(),
                },
                cancellationToken: cancellation
            )
        );
        var bytes = await IntakeFile.StoreAsync(connection, id, content, cancellation);
        if (bytes == 0)
        {
            throw new IntakeFileException("The file is empty. Copy the cells with their contents and try again.");
        }

        await connection.ExecuteAsync(
            new CommandDefinition(
                "update intake set bytes = @bytes where id = @id",
                new { id, bytes },
                cancellationToken: cancellation
            )
        );
        await transaction.CommitAsync(cancellation);
        return id;
    }

    /// <summary>The newest intake that is neither kept nor left.</summary>
    public async Task<long?> OpenAsync(int accountId, string personId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<long?>(
            new CommandDefinition(
                "select max(id) from intake where account_id = @accountId and person_id = @personId and state in (1, 2)",
                new { accountId, personId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>The lists of a person that are neither kept nor left, newest first.</summary>
    public async Task<IReadOnlyList<WaitingList>> WaitingAsync(
        int accountId,
        string personId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var lists = await connection.QueryAsync<WaitingList>(
            new CommandDefinition(
                "select id, file_name, rows_read as rows, made_at from intake where account_id = @accountId and person_id = @personId and state = 2 order by id desc limit 20",
                new { accountId, personId },
                cancellationToken: cancellation
            )
        );
        return [.. lists];
    }

    /// <summary>The last list that was brought in and not taken back.</summary>
    public async Task<LastIntake?> LastAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.QuerySingleOrDefaultAsync<LastIntake?>(
            new CommandDefinition(
                """
                select i.file_name, s.id as step_id, s.made_at, s.items from intake i join step s on s.id = i.step_id
                where i.account_id = @accountId and i.state = 3 and s.reverted_by is null order by i.step_id desc limit 1
                """,
                new { accountId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>All about an intake that its page shows, or none when the account has no such intake.</summary>
    public async Task<IntakeView?> ReadAsync(int accountId, long intakeId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await IntakeOverview.ReadAsync(connection, accountId, intakeId);
    }

    /// <summary>A window of the rows in the order of the list.</summary>
    public async Task<IReadOnlyList<IntakeListRow>?> RowsAsync(
        int accountId,
        long intakeId,
        int offset,
        int limit,
        CancellationToken cancellation,
        IntakeShown shown = IntakeShown.All
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var columns = await connection.QuerySingleOrDefaultAsync<string[]?>(
            "select columns from intake where id = @intakeId and account_id = @accountId",
            new { intakeId, accountId }
        );
        return columns is null
            ? null
            : await IntakeOverview.RowsAsync(
                connection,
                (await AccountFacts.ReadAsync(connection, accountId)).Ground,
                columns,
                intakeId,
                shown,
                Math.Max(0, offset),
                Math.Clamp(limit, 1, 500)
            );
    }

    /// <summary>Mends a cell of a list that waits, and judges anew.</summary>
    /// <returns>False when there is no such list, or it does not wait any more.</returns>
    public async Task<bool> MendAsync(
        AccountFacts account,
        long intakeId,
        IntakeMend mend,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        if (!await TakeWaitingAsync(connection, account.Id, intakeId, cancellation))
        {
            return false;
        }

        await IntakeMends.MendAsync(
            connection,
            account,
            intakeId,
            mend.RowNumber,
            new MendedCell(mend.Place, mend.Text),
            cancellation
        );
        await transaction.CommitAsync(cancellation);
        return true;
    }

    public async Task<bool> SetColumnsAsync(
        int accountId,
        long intakeId,
        IntakeColumns columns,
        CancellationToken cancellation
    )
    {
        foreach (var name in columns.Columns.Where(name => name.Length > 0))
        {
            if (ListColumns.Find(name) is null)
            {
                throw new InvalidChangeException("columns", $"“{name}” is no column of a list.");
            }
        }

        if (
            columns
                .Columns.Where(name => name.Length > 0)
                .GroupBy(name => name)
                .FirstOrDefault(group => group.Count() > 1) is
            { } twice
        )
        {
            throw new InvalidChangeException(
                "columns",
                $"{ListColumns.Find(twice.Key)!.Label} is chosen for two columns. Leave one of them out."
            );
        }

        await using var connection = await source.OpenConnectionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                "update account set bare_match = case when @BareMatchChosen then @match else bare_match end, new_paused = @NewPaused where id = @accountId",
                new
                {
                    accountId,
                    columns.BareMatchChosen,
                    columns.NewPaused,
                    match = (short)columns.BareMatch,
                },
                cancellationToken: cancellation
            )
        );
        if (columns is { HasHeader: true, GuessAnew: false })
        {
            await IntakeMappings.RememberAsync(connection, accountId, intakeId, columns.Columns, clock.GetUtcNow());
        }

        return await connection.ExecuteAsync(
                new CommandDefinition(
                    """
                    update intake set state = 1, has_header = @HasHeader, columns = @columns, columns_chosen = true, default_campaign = @campaign, default_ad_group = @adGroup,
                      bare_match = @bare, negative_match = @negative, intent = @intent, empty_clears = @EmptyClears, remembered = false, new_paused = @NewPaused
                    where id = @intakeId and account_id = @accountId and state in (1, 2)
                    """,
                    new
                    {
                        intakeId,
                        accountId,
                        columns.HasHeader,
                        columns = columns.GuessAnew ? [] : columns.Columns.ToArray(),
                        campaign = Blank(columns.DefaultCampaign),
                        adGroup = Blank(columns.DefaultAdGroup),
                        bare = (short)columns.BareMatch,
                        negative = (short)columns.NegativeMatch,
                        intent = (short)columns.Intent,
                        columns.EmptyClears,
                        columns.NewPaused,
                    },
                    cancellationToken: cancellation
                )
            ) > 0;
    }

    /// <summary>Fills in amounts and judges anew.</summary>
    public async Task<bool> FillAsync(AccountFillContext context, IntakeFillIn fill, CancellationToken cancellation)
    {
        var budget = ItemTypes.Of(ItemKind.Campaign)["dailyBudget"];
        var reading = (fill.Budget ? budget : ItemTypes.Of(ItemKind.AdGroup)["maxCpc"]).Type.Read(
            fill.Amount.Trim(),
            context.Ground
        );
        if (reading.Problem is { } problem)
        {
            throw new InvalidChangeException("amount", $"The amount {problem}.");
        }

        var amount = (decimal)reading.Value!;
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        if (!await TakeWaitingAsync(connection, context.AccountId, context.IntakeId, cancellation))
        {
            return false;
        }

        const string keep =
            "on conflict (intake_id, campaign_key, ad_group_key) do update set amount = excluded.amount";
        var parameters = new
        {
            context.IntakeId,
            fill.CampaignKey,
            fill.AdGroupKey,
            amount,
        };
        await connection.ExecuteAsync(
            new CommandDefinition(
                fill.Budget
                    ? $"""
                    insert into intake_fill select c.intake_id, c.name_key, '', @amount from intake_campaign c left join campaign e on e.id = c.item_id
                    left join intake_fill f on f.intake_id = c.intake_id and f.campaign_key = c.name_key and f.ad_group_key = ''
                    where c.intake_id = @IntakeId and (@CampaignKey::text is null or c.name_key = @CampaignKey)
                      and (f.amount is not null or coalesce(c.daily_budget, e.daily_budget, c.total_budget, e.total_budget) is null) {keep}
                    """
                    : $"""
                    insert into intake_fill select g.intake_id, g.campaign_key, g.name_key, @amount from intake_ad_group g left join ad_group e on e.id = g.item_id
                    join intake_campaign c on c.intake_id = g.intake_id and c.name_key = g.campaign_key left join campaign h on h.id = c.item_id
                    left join intake_fill f on f.intake_id = g.intake_id and f.campaign_key = g.campaign_key and f.ad_group_key = g.name_key
                    where g.intake_id = @IntakeId and (@CampaignKey::text is null or g.campaign_key = @CampaignKey) and (@AdGroupKey::text is null or g.name_key = @AdGroupKey)
                      and g.keywords_without_max_cpc > 0 and (f.amount is not null or coalesce(g.max_cpc, e.max_cpc) is null) and {IntakeOverview.NeedsMaxCpc} {keep}
                    """,
                parameters,
                cancellationToken: cancellation
            )
        );
        await IntakeJudgement.JudgeAsync(connection, context.IntakeId, cancellation);
        await transaction.CommitAsync(cancellation);
        return true;
    }

    /// <summary>Leaves an intake: what was staged is dropped, the account is as it was.</summary>
    public async Task<bool> LeaveAsync(int accountId, long intakeId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        var left = await connection.ExecuteAsync(
            new CommandDefinition(
                "update intake set state = 4 where id = @intakeId and account_id = @accountId and state in (1, 2, 5)",
                new { intakeId, accountId },
                cancellationToken: cancellation
            )
        );
        if (left > 0)
        {
            await DropAsync(connection, intakeId);
        }

        await transaction.CommitAsync(cancellation);
        return left > 0;
    }

    /// <summary>Drops what an ended intake has staged.</summary>
    public static Task DropAsync(NpgsqlConnection connection, long intakeId) =>
        connection.ExecuteAsync(
            $"""
            delete from intake_row where intake_id = @intakeId; delete from intake_verdict where intake_id = @intakeId;
            {string.Concat(
                Staging.Holders.Select(holder =>
                    $"delete from {Staging.HoldersOf(holder)} where intake_id = @intakeId; "
                )
            )}
            delete from intake_fill where intake_id = @intakeId; delete from intake_mend where intake_id = @intakeId; delete from intake_file_part where intake_id = @intakeId
            """,
            new { intakeId }
        );

    public async Task<bool> IsOfAsync(int accountId, long intakeId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await IsOfAsync(connection, accountId, intakeId);
    }

    /// <summary>Holds a list that waits for its person: what is done to it meanwhile comes after, one thing at a time.</summary>
    private static Task<bool> TakeWaitingAsync(
        NpgsqlConnection connection,
        int accountId,
        long intakeId,
        CancellationToken cancellation
    ) =>
        connection.ExecuteScalarAsync<bool>(
            new CommandDefinition(
                "select exists (select from intake where id = @intakeId and account_id = @accountId and state = 2 for update)",
                new { intakeId, accountId },
                cancellationToken: cancellation
            )
        );

    private static Task<bool> IsOfAsync(NpgsqlConnection connection, int accountId, long intakeId) =>
        connection.ExecuteScalarAsync<bool>(
            "select exists (select from intake where id = @intakeId and account_id = @accountId)",
            new { intakeId, accountId }
        );

    private static string? Blank(string? text) => string.IsNullOrWhiteSpace(text) ? null : text.Trim();
}
