using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Reporting;
using Fendrik.Core.Tracking.Conversions;
using Npgsql;

namespace Fendrik.Data.Conversions;

/// <summary>How long after their clicks conversions are told of.</summary>
internal static class ConversionDelays
{
    private const double HoursOfDay = 24;

    /// <summary>Days that are told of as still coming in.</summary>
    private const int OpenDays = 14;

    /// <summary>Reads it; each click counts once, by its first conversion that counts.</summary>
    /// <param name="connection">To the database.</param>
    /// <param name="accountId">The account.</param>
    /// <param name="days">The days whose clicks are followed.</param>
    /// <param name="clicks">The clicks of these days.</param>
    /// <param name="heard">The moment up to which the network's reports are known.</param>
    /// <param name="zone">The account's days.</param>
    /// <param name="cancellation">Stops the reading.</param>
    public static async Task<(DelayCurve Curve, IReadOnlyList<OpenDay> Open)> ReadAsync(
        NpgsqlConnection connection,
        int accountId,
        Period days,
        ClickDays clicks,
        DateTimeOffset heard,
        AccountDay zone,
        CancellationToken cancellation
    )
    {
        var converted = (
            await connection.QueryAsync<(DateOnly Day, double Hours, double Clicks)>(
                new CommandDefinition(
                    """
                    select day, hours, count(*)::float8 from (
                      select day, click_id, ceil(extract(epoch from min(told - clicked_at)) / 3600)::float8 as hours from conversion
                      where account_id = @accountId and day between @First and @Last and counts group by 1, 2
                    ) c group by 1, 2
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
        ).AsList();
        var led = converted.GroupBy(row => row.Day).ToDictionary(same => same.Key, same => same.Sum(row => row.Clicks));
        // Clicks of a day are taken as made in the middle of it.
        double AgeOf(DateOnly day) => Math.Max(0, (heard - zone.StartOf(day)).TotalDays - 0.5);
        var curve = new DelayCurve(
            converted
                .Select(row => new AgedClicks(row.Hours / HoursOfDay, row.Clicks, 0))
                .Concat(
                    clicks.All.Select(day => new AgedClicks(
                        AgeOf(day.Key),
                        0,
                        Math.Max(0, day.Value - led.GetValueOrDefault(day.Key))
                    ))
                )
        );
        return (
            curve,
            [
                .. clicks
                    .All.OrderByDescending(day => day.Key)
                    .Take(OpenDays)
                    .Select(day => new OpenDay(day.Key, day.Value, led.GetValueOrDefault(day.Key), AgeOf(day.Key))),
            ]
        );
    }
}
