using System.Runtime.CompilerServices;
using Dapper;
using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Evidence;
using Fendrik.Core.Reporting;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>What figures are read for: the days, and a part of the account.</summary>
/// <param name="Days">The days.</param>
/// <param name="Campaigns">Only of these campaigns; none for all.</param>
/// <param name="AdGroupId">Only of this ad group.</param>
public sealed record EvidenceScope(Period Days, IReadOnlyList<long>? Campaigns, long? AdGroupId = null);

/// <summary>An hour of the week with what it brought.</summary>
/// <param name="Day">Day of the week by ISO 8601: 1 for Monday to 7.</param>
/// <param name="Hour">Hour of the clock on the wall.</param>
/// <param name="Figures">The figures.</param>
public sealed record HourFigures(int Day, int Hour, Figures Figures);

/// <summary>Reads figures by the segments in which devices, hours and kinds of site come together.</summary>
public sealed class EvidenceReader(NpgsqlDataSource source)
{
    internal const string Sums =
        "sum(p.impressions)::bigint as impressions, sum(p.clicks)::bigint as clicks, sum(p.cost) as cost, sum(p.conversions) as conversions, sum(p.value) as value";

    private const string Scope = """
        p.account_id = @accountId and p.day between @First and @Last
          and (@Campaigns::bigint[] is null or p.campaign_id = any(@Campaigns)) and (@AdGroupId::bigint is null or p.ad_group_id = @AdGroupId)
        """;

    private const string Weekend = "extract(isodow from p.day) >= 6";

    private const string Modifiers =
        "left join modifier_day m on m.account_id = p.account_id and m.day = p.day and m.campaign_id = p.campaign_id";

    /// <summary>The block of an hour, as Core parts the week.</summary>
    internal static readonly string Block =
        $"case when {Weekend} then {HourBlock.OfDay} else 0 end + width_bucket(p.hour, array[{string.Join(", ", HourBlock.All.Take(HourBlock.OfDay).Select(block => block.From))}]::smallint[]) - 1";

    /// <summary>Figures where segments come together.</summary>
    public async Task<IReadOnlyList<SegmentFigures>> SegmentsAsync(
        int accountId,
        EvidenceScope scope,
        CancellationToken cancellation
    ) => await ReadAsync(accountId, scope, Block, null, InBlock, cancellation);

    /// <summary>The same with a part of the week against the rest: its block is 1, the rest 0.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="scope">What is read.</param>
    /// <param name="hours">The hours of the part, from 0 for Monday at midnight to 167.</param>
    /// <param name="cancellation">Stops the reading.</param>
    public async Task<IReadOnlyList<SegmentFigures>> PartAsync(
        int accountId,
        EvidenceScope scope,
        int[] hours,
        CancellationToken cancellation
    ) =>
        await ReadAsync(
            accountId,
            scope,
            "case when (extract(isodow from p.day)::int - 1) * 24 + p.hour = any(@hours) then 1 else 0 end",
            hours,
            (block, plan) => AverageOf(plan, hour => (Array.IndexOf(hours, hour) >= 0) == (block == 1)),
            cancellation
        );

    /// <summary>The same for all campaigns of an account.</summary>
    public async Task<IReadOnlyDictionary<long, IReadOnlyList<SegmentFigures>>> ByCampaignAsync(
        int accountId,
        Period days,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var asked = new EvidenceScope(days, null);
        // The modifiers of a day are looked up for campaigns that had any: few do, and it is dear.
        var modified = (
            await connection.QueryAsync<long>(
                new CommandDefinition(
                    "select distinct campaign_id from modifier_day where account_id = @accountId and day between @First and @Last",
                    Parameters(accountId, asked, null),
                    cancellationToken: cancellation
                )
            )
        ).ToArray();
        var found = new Dictionary<long, IReadOnlyList<SegmentFigures>>();
        async Task AddAsync(string modifiers, string join, string among, string segments)
        {
            var cells = ReadAsync(
                connection,
                $"""
                select p.campaign_id, p.device, {Block}, p.site, {modifiers}, {Sums} from performance p {join} where {Scope}
                  {(modified.Length > 0 ? $"and p.campaign_id {among}(@modified)" : "")} group by {segments}
                """,
                Parameters(accountId, asked, null, modified),
                InBlock,
                cancellation
            );
            await foreach (var (campaign, figures) in cells)
            {
                if (!found.TryGetValue(campaign, out var list))
                {
                    found.Add(campaign, list = new List<SegmentFigures>());
                }

                ((List<SegmentFigures>)list).Add(figures);
            }
        }

        await AddAsync("null::text, null::numeric, null::numeric, null::numeric", "", "<> all", "1, 2, 3, 4");
        if (modified.Length > 0)
        {
            await AddAsync("m.hours, m.desktop, m.phone, m.tablet", Modifiers, "= any", "1, 2, 3, 4, 5, 6, 7, 8");
        }

        return found;
    }

    private static decimal InBlock(int block, WeekPlan plan) =>
        HourBlock.All[block].Within(plan) is var (low, high) ? (low + high) / 2 : 0;

    /// <summary>What each hour of the week brought; hours that brought nothing are left out.</summary>
    public async Task<IReadOnlyList<HourFigures>> WeekAsync(
        int accountId,
        EvidenceScope scope,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<(
            int Day,
            int Hour,
            long Impressions,
            long Clicks,
            decimal Cost,
            decimal Conversions,
            decimal Value
        )>(
            new CommandDefinition(
                $"select extract(isodow from p.day)::int, p.hour::int, {Sums} from performance p where {Scope} group by 1, 2",
                Parameters(accountId, scope, null),
                cancellationToken: cancellation
            )
        );
        return
        [
            .. rows.Select(row => new HourFigures(
                row.Day,
                row.Hour,
                new Figures(row.Impressions, row.Clicks, row.Cost, row.Conversions, row.Value)
            )),
        ];
    }

    private async Task<IReadOnlyList<SegmentFigures>> ReadAsync(
        int accountId,
        EvidenceScope scope,
        string block,
        int[]? hours,
        Func<int, WeekPlan, decimal> percentIn,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await ReadAsync(
                connection,
                $"""
                select 0::bigint, p.device, {block}, p.site, m.hours, m.desktop, m.phone, m.tablet, {Sums}
                from performance p {Modifiers} where {Scope} group by 2, 3, 4, 5, 6, 7, 8
                """,
                Parameters(accountId, scope, hours),
                percentIn,
                cancellation
            )
            .Select(cell => cell.Figures)
            .ToListAsync(cancellation);
    }

    /// <summary>Reads cells in the order of columns that all readings have: campaign, segments, modifiers, sums.</summary>
    private static async IAsyncEnumerable<(long Campaign, SegmentFigures Figures)> ReadAsync(
        NpgsqlConnection connection,
        string sql,
        object parameters,
        Func<int, WeekPlan, decimal> percentIn,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        await using var reader = await connection.ExecuteReaderAsync(
            new CommandDefinition(sql, parameters, cancellationToken: cancellation)
        );
        while (await reader.ReadAsync(cancellation))
        {
            decimal? Modifier(int column) => reader.IsDBNull(column) ? null : reader.GetDecimal(column);
            var block = reader.GetInt32(2);
            var device = (Device)reader.GetInt16(1) switch
            {
                Device.Desktop => Modifier(5),
                Device.Phone => Modifier(6),
                Device.Tablet => Modifier(7),
            };
            var hour = reader.IsDBNull(4) ? 0 : percentIn(block, WeekPlan.Of(reader.GetString(4)));
            yield return (
                reader.GetInt64(0),
                new SegmentFigures(
                    reader.GetInt16(1),
                    block,
                    reader.GetInt16(3),
                    new Figures(
                        reader.GetInt64(8),
                        reader.GetInt64(9),
                        reader.GetDecimal(10),
                        reader.GetDecimal(11),
                        reader.GetDecimal(12)
                    ),
                    (1 + (device ?? 0) / 100) * (1 + hour / 100)
                )
            );
        }
    }

    private static decimal AverageOf(WeekPlan plan, Func<int, bool> holds)
    {
        decimal[] percents =
        [
            .. Enumerable
                .Range(0, 7 * 24)
                .Where(holds)
                .Select(hour => plan.At((DayOfWeek)((hour / 24 + 1) % 7), hour % 24 * 60))
                .OfType<decimal>(),
        ];
        return percents.Length == 0 ? 0 : percents.Average();
    }

    private static object Parameters(int accountId, EvidenceScope scope, int[]? hours, long[]? modified = null) =>
        new
        {
            accountId,
            scope.Days.First,
            scope.Days.Last,
            Campaigns = scope.Campaigns?.ToArray(),
            scope.AdGroupId,
            hours,
            modified,
        };
}
