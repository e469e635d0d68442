using Dapper;
using Fendrik.Core.Reporting;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>Reads what variants of ads brought, which their labels tell apart.</summary>
public sealed class VariantReader(NpgsqlDataSource source)
{
    private const int DaysOfHistory = 365;
    private const int DaysOfPace = 28;
    private const double WeeksOfPace = 4;

    /// <summary>Labels that at least two ads of an account have: what can be compared.</summary>
    public async Task<IReadOnlyList<string>> LabelsAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return
        [
            .. await connection.QueryAsync<string>(
                new CommandDefinition(
                    $"""
                    select label from ({AdTables.Where(
                        "account_id = @accountId and not removed"
                    )}) ads, unnest(labels) label
                    group by label having count(*) > 1 order by label limit 200
                    """,
                    new { accountId },
                    cancellationToken: cancellation
                )
            ),
        ];
    }

    /// <summary>Compares the ads of one label with those of another, over all ad groups that have both.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="one">The one label.</param>
    /// <param name="other">The other.</param>
    /// <param name="measure">By what.</param>
    /// <param name="cancellation">Nobody waits any more.</param>
    /// <returns>None when no ad group has shown both.</returns>
    public async Task<ComparedVariants?> CompareAsync(
        int accountId,
        string one,
        string other,
        AdMeasure measure,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = (
            await connection.QueryAsync<Row>(
                new CommandDefinition(
                    $"""
                    with ads as (
                      select id, ad_group_id, @one = any(labels) as is_one from ({AdTables.Where(
                        "account_id = @accountId and not removed and (@one = any(labels)) <> (@other = any(labels))"
                    )}) a),
                    shown as materialized (
                      select p.ad_group_id, a.is_one, p.device, p.day, sum(p.impressions) as impressions, sum(p.clicks) as clicks, sum(p.cost) as cost,
                        sum(p.conversions) as conversions, sum(p.value) as value
                      from performance_day p join ads a on a.id = p.ad_id and a.ad_group_id = p.ad_group_id
                      where p.account_id = @accountId and p.day > (select reported_to - @DaysOfHistory from account where id = @accountId)
                      group by 1, 2, 3, 4 having sum(p.impressions) > 0),
                    met as (
                      select ad_group_id, device, greatest(min(day) filter (where is_one), min(day) filter (where not is_one)) as since,
                        least(max(day) filter (where is_one), max(day) filter (where not is_one)) as until
                      from shown group by 1, 2 having bool_or(is_one) and bool_or(not is_one))
                    select s.ad_group_id, s.is_one, sum(s.impressions)::bigint as impressions, sum(s.clicks)::bigint as clicks, sum(s.cost) as cost,
                      sum(s.conversions) as conversions, sum(s.value) as value,
                      coalesce(sum(s.impressions) filter (where s.day > a.reported_to - @DaysOfPace), 0)::bigint as of_late
                    from shown s join met b on b.ad_group_id = s.ad_group_id and b.device = s.device and s.day between b.since and b.until
                    join account a on a.id = @accountId group by 1, 2
                    """,
                    new
                    {
                        accountId,
                        one,
                        other,
                        DaysOfHistory,
                        DaysOfPace,
                    },
                    commandTimeout: 60,
                    cancellationToken: cancellation
                )
            )
        ).AsList();
        return VariantComparison.Compare(
            rows.GroupBy(row => row.AdGroupId)
                .Select(group => new VariantsInGroup(
                    group.FirstOrDefault(row => row.IsOne)?.Figures ?? Nothing,
                    group.FirstOrDefault(row => !row.IsOne)?.Figures ?? Nothing
                )),
            measure,
            rows.Sum(row => row.OfLate) / WeeksOfPace
        );
    }

    private static readonly Figures Nothing = new(0, 0, 0, 0, 0);

    [method: ExplicitConstructor]
    private sealed record Row(
        long AdGroupId,
        bool IsOne,
        long Impressions,
        long Clicks,
        decimal Cost,
        decimal Conversions,
        decimal Value,
        long OfLate
    )
    {
        public Figures Figures => new(Impressions, Clicks, Cost, Conversions, Value);
    }
}
