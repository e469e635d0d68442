using Dapper;
using Fendrik.Core.Reporting;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>What a combination of a responsive ad brought.</summary>
/// <param name="Headlines">Its headlines as they are written.</param>
/// <param name="Descriptions">Its descriptions.</param>
/// <param name="Figures">What came of it.</param>
/// <param name="AgainstUsual">Clicks against those that its places usually bring; none before any were expected.</param>
public sealed record CombinationFigure(
    IReadOnlyList<string> Headlines,
    IReadOnlyList<string> Descriptions,
    Figures Figures,
    decimal? AgainstUsual
);

/// <summary>Reads which lines of a responsive ad the network showed together.</summary>
public sealed class CombinationFigures(NpgsqlDataSource source)
{
    /// <summary>Days that count.</summary>
    public const int Days = 28;

    /// <summary>The combinations of an ad that showed, those that showed most first.</summary>
    public async Task<IReadOnlyList<CombinationFigure>> ReadAsync(
        int accountId,
        long adId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<(
            string[] Headlines,
            string[] Descriptions,
            long Impressions,
            long Clicks,
            decimal Cost,
            decimal Conversions,
            decimal Value,
            decimal Expected
        )>(
            new CommandDefinition(
                """
                select c.headlines, c.descriptions, sum(c.impressions)::bigint, sum(c.clicks)::bigint, sum(c.cost), sum(c.conversions), sum(c.value), sum(c.expected)
                from combination_day c join account a on a.id = c.account_id
                where c.account_id = @accountId and c.ad_id = @adId and c.day > a.reported_to - @Days
                group by 1, 2 order by 3 desc, 1, 2
                """,
                new
                {
                    accountId,
                    adId,
                    Days,
                },
                cancellationToken: cancellation
            )
        );
        return
        [
            .. rows.Select(row => new CombinationFigure(
                row.Headlines,
                row.Descriptions,
                new Figures(row.Impressions, row.Clicks, row.Cost, row.Conversions, row.Value),
                row.Expected == 0 ? null : row.Clicks / row.Expected
            )),
        ];
    }
}
