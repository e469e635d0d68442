using Dapper;
using Fendrik.Core.Reporting;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Data.Accounts;
using Npgsql;

namespace Fendrik.Data.Conversions;

/// <summary>How actions stand: conversions by the day on which they were made, beside the clicks of the ad groups that led to any.</summary>
internal static class ActionJudge
{
    public static async Task<IReadOnlyList<AuditedAction>> ReadAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        IReadOnlyList<ConversionAction> actions,
        Period judged,
        ClickDays clicks,
        CancellationToken cancellation
    )
    {
        CommandDefinition Ask(string sql) =>
            new(
                sql,
                new
                {
                    account.Id,
                    account.TimeZone,
                    judged.First,
                    judged.Last,
                },
                cancellationToken: cancellation
            );
        const string Within = "account_id = @Id and day between @First and @Last";
        var made = (
            await connection.QueryAsync<(long Action, DateOnly Day, double Conversions)>(
                Ask(
                    $"select action_id, (at at time zone @TimeZone)::date, count(*)::float8 from conversion where {Within} group by 1, 2"
                )
            )
        ).ToLookup(row => row.Action, row => (row.Day, row.Conversions));
        var led = (
            await connection.QueryAsync<(long Action, long AdGroup)>(
                Ask($"select distinct action_id, ad_group_id from conversion where {Within}")
            )
        ).ToLookup(row => row.Action, row => row.AdGroup);
        // What was counted before it was written down since when an action counts tells as much.
        var since = (
            await connection.QueryAsync<(long Action, DateOnly Day)>(
                Ask(
                    $"""
                    select action_id, min(day) from (
                      select action_id, day from conversion_action_since where account_id = @Id
                      union all select action_id, day from conversion where {Within}
                    ) known group by 1
                    """
                )
            )
        ).ToDictionary(row => row.Action, row => row.Day);
        DateOnly[] days =
        [
            .. Enumerable
                .Range(0, judged.Days)
                .Select(judged.First.AddDays)
                .SkipWhile(day => !clicks.All.ContainsKey(day)),
        ];
        return
        [
            .. actions.Select(action =>
            {
                var mine = made[action.Id].ToDictionary(row => row.Day, row => row.Conversions);
                var through = mine.Count == 0 ? clicks.All : clicks.In(led[action.Id].ToHashSet());
                return new AuditedAction(
                    action,
                    ActionHealth.Of(
                        action,
                        since.TryGetValue(action.Id, out var began)
                            ?
                            [
                                .. days.Where(day => day >= began)
                                    .Select(day => (day, through.GetValueOrDefault(day), mine.GetValueOrDefault(day))),
                            ]
                            : []
                    )
                );
            }),
        ];
    }
}
