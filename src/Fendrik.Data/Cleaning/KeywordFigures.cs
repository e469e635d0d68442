using Dapper;
using Fendrik.Core.Reporting;
using Fendrik.Data.Sheets;
using Npgsql;

namespace Fendrik.Data.Cleaning;

/// <summary>What keywords brought in the period that is looked at.</summary>
internal static class KeywordFigures
{
    public static async Task<Dictionary<long, Figures>> ReadAsync(
        NpgsqlConnection connection,
        SheetGround ground,
        long[] keywords
    )
    {
        var rows = await connection.QueryAsync<(
            long Id,
            long Impressions,
            long Clicks,
            decimal Cost,
            decimal Conversions,
            decimal Value
        )>(
            """
            select keyword_id, sum(impressions)::bigint, sum(clicks)::bigint, sum(cost), sum(conversions), sum(value) from performance_day
            where account_id = @AccountId and keyword_id = any(@keywords) and day between @From and @To group by keyword_id
            """,
            new
            {
                ground.AccountId,
                keywords,
                ground.Figures.From,
                ground.Figures.To,
            }
        );
        return rows.ToDictionary(
            row => row.Id,
            row => new Figures(row.Impressions, row.Clicks, row.Cost, row.Conversions, row.Value)
        );
    }
}
