using Dapper;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Data.Tracing;
using Npgsql;

namespace Fendrik.Data.Conversions;

/// <summary>Reads the conversion actions of the working copy, and the campaigns that count by them.</summary>
internal static class ConversionActions
{
    /// <summary>The actions, by name.</summary>
    public static async Task<IReadOnlyList<ConversionAction>> ReadAsync(
        NpgsqlConnection connection,
        int accountId,
        CancellationToken cancellation
    ) =>
        [
            .. (
                await connection.QueryAsync<ActionRow>(
                    new CommandDefinition(
                        """
                        select id, name, state::int as state, source::int as source, address, hearing::int as hearing, least_seconds, fixed_value, worth::int as worth,
                          counting::int as counting, window_days, steers::int as steers, account_goal::int as account_goal
                        from conversion_action where account_id = @accountId and not removed order by name_key, id
                        """,
                        new { accountId },
                        cancellationToken: cancellation
                    )
                )
            ).Select(row => row.Action),
        ];

    /// <summary>The campaigns of an account, or some of them, by name.</summary>
    public static async Task<IReadOnlyList<Campaign>> CampaignsAsync(
        NpgsqlConnection connection,
        int accountId,
        IReadOnlyCollection<long>? only,
        CancellationToken cancellation
    ) =>
        [
            .. (
                await connection.QueryAsync<CampaignRow>(
                    new CommandDefinition(
                        $"select {CampaignRow.Columns} from campaign where account_id = @accountId and not removed and (@only::bigint[] is null or id = any(@only)) order by name_key, id",
                        new { accountId, only = only?.ToArray() },
                        cancellationToken: cancellation
                    )
                )
            ).Select(row => row.Campaign),
        ];

    /// <summary>The versions of the actions and campaigns of an account, against which edits hold.</summary>
    public static async Task<IReadOnlyDictionary<(ItemKind Kind, long Id), long>> VersionsAsync(
        NpgsqlConnection connection,
        int accountId,
        CancellationToken cancellation
    ) =>
        (
            await connection.QueryAsync<(int Kind, long Id, long Version)>(
                new CommandDefinition(
                    $"""
                    select {(int)
                        ItemKind.ConversionAction}, id, changed_by from conversion_action where account_id = @accountId and not removed
                    union all select {(int)
                        ItemKind.Campaign}, id, changed_by from campaign where account_id = @accountId and not removed
                    """,
                    new { accountId },
                    cancellationToken: cancellation
                )
            )
        ).ToDictionary(row => ((ItemKind)row.Kind, row.Id), row => row.Version);

    private sealed class ActionRow
    {
        public long Id { get; init; }
        public string Name { get; init; } = "";
        public ItemState State { get; init; }
        public ConversionSource Source { get; init; }
        public string? Address { get; init; }
        public ConversionHearing Hearing { get; init; }
        public decimal? LeastSeconds { get; init; }
        public decimal? FixedValue { get; init; }
        public ConversionWorth Worth { get; init; }
        public ConversionCounting Counting { get; init; }
        public decimal? WindowDays { get; init; }
        public YesNo Steers { get; init; }
        public YesNo AccountGoal { get; init; }

        public ConversionAction Action =>
            new(
                Id,
                Name,
                State,
                Source,
                Address,
                Hearing,
                LeastSeconds,
                FixedValue,
                Worth,
                Counting,
                WindowDays,
                Steers,
                AccountGoal
            );
    }
}
