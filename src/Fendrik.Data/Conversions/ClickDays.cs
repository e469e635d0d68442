using Dapper;
using Fendrik.Core.Reporting;
using Npgsql;

namespace Fendrik.Data.Conversions;

/// <summary>Clicks of an account by day and ad group: looked through once, and asked about in several ways.</summary>
internal sealed class ClickDays
{
    private readonly IReadOnlyList<(DateOnly Day, long Campaign, long AdGroup, double Clicks, decimal Cost)> _rows;

    private ClickDays(IReadOnlyList<(DateOnly, long, long, double, decimal)> rows)
    {
        _rows = rows;
        All = _rows.GroupBy(row => row.Day).ToDictionary(same => same.Key, same => same.Sum(row => row.Clicks));
    }

    /// <summary>All clicks of each day that has any figures.</summary>
    public IReadOnlyDictionary<DateOnly, double> All { get; }

    public static async Task<ClickDays> ReadAsync(
        NpgsqlConnection connection,
        int accountId,
        Period days,
        CancellationToken cancellation
    ) =>
        new(
            (
                await connection.QueryAsync<(DateOnly, long, long, double, decimal)>(
                    new CommandDefinition(
                        """
                        select day, campaign_id, ad_group_id, sum(clicks)::float8, sum(cost) from performance_day
                        where account_id = @accountId and day between @First and @Last group by 1, 2, 3
                        """,
                        new
                        {
                            accountId,
                            days.First,
                            days.Last,
                        },
                        cancellationToken: cancellation
                    )
                )
            ).AsList()
        );

    /// <summary>Clicks of each day in some ad groups.</summary>
    public Dictionary<DateOnly, double> In(IReadOnlySet<long> adGroups) =>
        _rows
            .Where(row => adGroups.Contains(row.AdGroup))
            .GroupBy(row => row.Day)
            .ToDictionary(same => same.Key, same => same.Sum(row => row.Clicks));

    /// <summary>What campaigns spent in a part of the days, and on how many clicks.</summary>
    public Dictionary<long, (decimal Cost, long Clicks)> SpentFrom(DateOnly first) =>
        _rows
            .Where(row => row.Day >= first)
            .GroupBy(row => row.Campaign)
            .ToDictionary(same => same.Key, same => (same.Sum(row => row.Cost), (long)same.Sum(row => row.Clicks)));
}
