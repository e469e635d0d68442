using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Data.Model;
using Npgsql;

namespace Fendrik.Data.Intakes;

/// <summary>Reads how an intake stands: what would come in, what is missing, what is left out and why.</summary>
internal static class IntakeOverview
{
    /// <summary>True of a campaign whose bids people set, as it comes in or as it is there: where the network does nobody needs a max CPC.</summary>
    internal static readonly string NeedsMaxCpc =
        $"coalesce(c.strategy, h.strategy, {(int)BidStrategy.ManualCpc}) in ({string.Join(", ", Enum.GetValues<BidStrategy>().Where(each => !new StrategyPlan(each).IsAutomatic).Select(each => (int)each))})";

    private const int MostListed = 200;

    public static async Task<IntakeView?> ReadAsync(NpgsqlConnection connection, int accountId, long intakeId)
    {
        var head = await connection.QuerySingleOrDefaultAsync<Head?>(
            """
            select id, file_name, bytes, state, problem, sample::text as sample, has_header, columns, used_columns, default_campaign, default_ad_group, bare_match, negative_match,
              intent, empty_clears, remembered, rows_read, encoding, step_id, confidence, filled_cells, new_paused
            from intake where id = @intakeId and account_id = @accountId
            """,
            new { intakeId, accountId }
        );
        if (head is null)
        {
            return null;
        }

        var account = (await AccountFacts.ReadAsync(connection, accountId)).Ground;
        var sample = System.Text.Json.JsonSerializer.Deserialize<string[][]>(head.Sample)!;
        var parameters = new { intakeId, most = MostListed };
        var counts = await connection.QueryAsync<IntakeCount>(
            $"""
            {string.Join(
                " union all ",
                Staging.Holders.Select(holder =>
                    $"select {holder.Number} as kind, outcome::int, count(*) as count from {Staging.HoldersOf(holder)} where intake_id = @intakeId group by outcome"
                )
            )}
            union all select kind::int, outcome::int, count(*) from intake_verdict
              where intake_id = @intakeId and (kind = any(array[{string.Join(", ", Staging.Leaves.Select(leaf => leaf.Number))}]) or outcome = 5 and reason is null) group by kind, outcome
            """,
            parameters
        );
        var budgets = await connection.QueryAsync<IntakeGap>(
            """
            select c.name_key as campaign_key, ''::text as ad_group_key, c.name as campaign, null::text as ad_group, f.amount as filled, 0 as keywords
            from intake_campaign c left join campaign e on e.id = c.item_id
            left join intake_fill f on f.intake_id = c.intake_id and f.campaign_key = c.name_key and f.ad_group_key = ''
            where c.intake_id = @intakeId and c.outcome <= 3 and (coalesce(c.daily_budget, e.daily_budget, c.total_budget, e.total_budget) is null or f.amount is not null) order by c.first_row limit 1000
            """,
            parameters
        );
        var maxCpcs = await connection.QueryAsync<IntakeGap>(
            $"""
            select g.campaign_key, g.name_key as ad_group_key, c.name as campaign, g.name as ad_group, f.amount as filled, g.keywords_without_max_cpc as keywords
            from intake_ad_group g join intake_campaign c on c.intake_id = g.intake_id and c.name_key = g.campaign_key left join ad_group e on e.id = g.item_id
            left join campaign h on h.id = c.item_id
            left join intake_fill f on f.intake_id = g.intake_id and f.campaign_key = g.campaign_key and f.ad_group_key = g.name_key
            where g.intake_id = @intakeId and g.outcome <= 3 and g.keywords_without_max_cpc > 0 and (coalesce(g.max_cpc, e.max_cpc) is null or f.amount is not null)
              and {IntakeOverview.NeedsMaxCpc}
            order by g.first_row limit 1000
            """,
            parameters
        );
        var cautions = await connection.QueryAsync<IntakeCaution>(
            """
            select c.name as campaign, g.name as ad_group, case when g.keywords = 0 and g.negatives > 0 and g.ads = 0 then 'gets negatives only, no keywords'
              when g.keywords = 0 then 'gets no keywords' else 'gets no ads' end as message
            from intake_ad_group g join intake_campaign c on c.intake_id = g.intake_id and c.name_key = g.campaign_key
            where g.intake_id = @intakeId and g.outcome = 1 and (g.keywords = 0 or g.ads = 0) order by g.first_row limit 50
            """,
            parameters
        );
        var refused = await RowsAsync(connection, account, head.Columns, intakeId, IntakeShown.LeftOut, 0, MostListed);
        var rows = await connection.QueryAsync<IntakeRowCount>(
            "select outcome::int, count(*) as count from intake_verdict where intake_id = @intakeId group by outcome",
            parameters
        );
        var (bare, known, campaigns) = await connection.QuerySingleAsync<(long, bool, long)>(
            $"""
            select (select count(*) from intake_row where intake_id = @intakeId and bare and problem is null and intent in (1, 2) and kind = {(int)
                ItemKind.Keyword}),
              (select bare_match is not null from account where id = @accountId),
              (select count(*) from intake_campaign where intake_id = @intakeId and outcome = 1 and state is null)
            """,
            new { intakeId, accountId }
        );
        var done = head.StepId is null
            ? null
            : await connection.QuerySingleOrDefaultAsync<IntakeDone?>(
                "select items, reverted_by is not null as reverted from step where id = @StepId and account_id = @accountId",
                new { head.StepId, accountId }
            );
        return new IntakeView(
            head.Id,
            head.FileName,
            head.Bytes,
            head.State,
            head.Problem,
            head.HasHeader,
            head.HasHeader && sample.Length > 0 ? sample[0] : [],
            head.Columns,
            head.UsedColumns,
            head.DefaultCampaign,
            head.DefaultAdGroup,
            head.BareMatch,
            head.NegativeMatch,
            head.Intent,
            head.EmptyClears,
            head.Remembered,
            head.RowsRead,
            head.Encoding,
            head.StepId,
            [.. counts],
            Written(budgets, account),
            Written(maxCpcs, account),
            refused,
            [.. cautions]
        )
        {
            Confidence = head.Confidence,
            SureFrom = ColumnGuess.Sure,
            FilledCells = head.FilledCells,
            Rows = [.. rows],
            Contradictions = await IntakeContradictions.FindAsync(connection, intakeId, account.Currency),
            BareKeywords = bare,
            BareMatchKnown = known,
            NewPaused = head.NewPaused,
            NewCampaigns = campaigns,
            Done = done,
        };
    }

    private static IReadOnlyList<IntakeGap> Written(IEnumerable<IntakeGap> gaps, ReadingGround account) =>
        [
            .. gaps.Select(gap =>
                gap with
                {
                    FilledText = gap.Filled is { } amount ? new AmountValue().Write(amount, account) : null,
                }
            ),
        ];

    private static string Condition(IntakeShown shown) =>
        shown switch
        {
            IntakeShown.All => "true",
            IntakeShown.New => "v.outcome = 1",
            IntakeShown.Changed => "v.outcome = 2",
            IntakeShown.Same => "v.outcome = 3",
            IntakeShown.LeftOut => "v.outcome in (4, 5, 7)",
            IntakeShown.Removed => "v.outcome = 6",
        };

    private sealed record Row
    {
        public int RowNumber { get; init; }
        public ItemKind Kind { get; init; }
        public IntakeOutcome Outcome { get; init; }
        public MatchType? Match { get; init; }
        public string? Problem { get; init; }
        public string? ProblemColumn { get; init; }
        public int? Twin { get; init; }
        public string? Reason { get; init; }
        public string[] Cells { get; init; } = [];
        public long? ItemId { get; init; }
        public long? CampaignId { get; init; }
        public long? AdGroupId { get; init; }

        public IntakeBefore.Changed Changed =>
            new(
                RowNumber,
                Kind,
                ItemTypes.Of(Kind).Holds switch
                {
                    Level.Campaign => CampaignId,
                    Level.AdGroup => AdGroupId,
                    Level.Account or Level.List or null => ItemId,
                },
                CampaignId,
                AdGroupId
            );
    }

    public static async Task<IReadOnlyList<IntakeListRow>> RowsAsync(
        NpgsqlConnection connection,
        ReadingGround ground,
        IReadOnlyList<string> columns,
        long intakeId,
        IntakeShown shown,
        int offset,
        int limit
    )
    {
        var rows = (
            await connection.QueryAsync<Row>(
                $"""
                select v.row_number, v.kind, v.outcome, r.match_type as match, r.problem, r.problem_column, v.twin_row as twin, v.reason, r.cells, v.item_id, c.item_id as campaign_id, g.item_id as ad_group_id
                from intake_verdict v join intake_row r on r.intake_id = v.intake_id and r.row_number = v.row_number
                left join intake_campaign c on c.intake_id = v.intake_id and c.name_key = r.campaign_key
                left join intake_ad_group g on g.intake_id = v.intake_id and g.campaign_key = r.campaign_key and g.name_key = r.ad_group_key
                where v.intake_id = @intakeId and {Condition(shown)} order by v.row_number offset @offset limit @limit
                """,
                new
                {
                    intakeId,
                    offset,
                    limit,
                }
            )
        ).ToArray();
        var before = await IntakeBefore.ReadAsync(
            connection,
            ground,
            columns,
            [
                .. rows.Where(row => row.Outcome == IntakeOutcome.Edit)
                    .Select(row => (row.Changed, (IReadOnlyList<string>)row.Cells)),
            ]
        );
        return
        [
            .. rows.Select(row => new IntakeListRow(
                row.RowNumber,
                row.Kind,
                row.Outcome,
                row.Match,
                row.Problem
                    ?? row.Reason
                    ?? (
                        row.Twin is not null ? $"twice in this list, row {row.Twin} stays"
                        : row.Outcome == IntakeOutcome.NotThere ? "not there, so there is nothing to change or remove"
                        : null
                    ),
                row.Cells,
                row.ProblemColumn is { } column && columns.ToList().IndexOf(column) is var place and >= 0
                    ? place
                    : null,
                before.GetValueOrDefault(row.RowNumber) ?? []
            )),
        ];
    }

    private sealed record Head
    {
        public long Id { get; init; }
        public string FileName { get; init; } = "";
        public long Bytes { get; init; }
        public IntakeState State { get; init; }
        public string? Problem { get; init; }
        public string Sample { get; init; } = "[]";
        public bool HasHeader { get; init; }
        public string[] Columns { get; init; } = [];
        public int[] UsedColumns { get; init; } = [];
        public string? DefaultCampaign { get; init; }
        public string? DefaultAdGroup { get; init; }
        public MatchType BareMatch { get; init; }
        public MatchType NegativeMatch { get; init; }
        public RowIntent Intent { get; init; }
        public bool EmptyClears { get; init; }
        public bool Remembered { get; init; }
        public long RowsRead { get; init; }
        public string? Encoding { get; init; }
        public long? StepId { get; init; }
        public int[] Confidence { get; init; } = [];
        public long[] FilledCells { get; init; } = [];
        public bool NewPaused { get; init; }
    }
}
