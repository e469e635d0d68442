using Dapper;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Sheets;

/// <summary>
/// Sums of figures by item for the days that sheets show, kept until the next report: they do not change with edits, and adding
/// up millions of days for each page would. Kept in unlogged tables; what is lost is added up again.
/// </summary>
internal static class SheetFigures
{
    /// <summary>Periods kept of a kind in an account; the oldest goes first.</summary>
    private const int MostKept = 8;

    /// <summary>Sums of a kind's items from the facts: parameters <c>account</c>, <c>figuresFrom</c> and <c>figuresTo</c>.</summary>
    private static string Sums(string column) =>
        $"""
            select {column} as item_id, sum(impressions)::bigint as impressions, sum(clicks)::bigint as clicks, sum(cost) as cost, sum(conversions) as conversions, sum(value) as value
            from performance_day where account_id = @account and day between @figuresFrom and @figuresTo and {column} is not null group by {column}
            """;

    /// <summary>What joins the kept sums of a kind to its rows as row <c>f</c>.</summary>
    public static string Join(ItemTable table) =>
        $" left join figure_sum f on f.period_id = {PeriodOf(table)} and f.item_id = i.id";

    /// <summary>Adds up what is not kept yet, of the kinds that a sheet filters or sorts by figures.</summary>
    public static async Task EnsureAsync(NpgsqlConnection connection, SheetGround ground, SheetRequest request)
    {
        if (!SheetSql.ReadsFigures(request))
        {
            return;
        }

        var parameters = SheetSql.Parameters(new SheetRequest(), ground);
        foreach (var table in SheetSql.TablesOf(request).Where(table => table.Type.FigureColumn is not null))
        {
            if (await connection.ExecuteScalarAsync<long?>($"select {PeriodOf(table)}", parameters) is null)
            {
                await AddUpAsync(connection, table, parameters);
            }
        }
    }

    /// <summary>The kept sums of a kind for days, added up now where they are not kept: the period that they are found by.</summary>
    public static async Task<long> KeptAsync(
        NpgsqlConnection connection,
        int accountId,
        ItemTable table,
        Core.Reporting.Period days,
        CancellationToken cancellation
    )
    {
        while (true)
        {
            var revision = await connection.QuerySingleAsync<long>(
                new CommandDefinition(
                    "select report_revision from account where id = @accountId",
                    new { accountId },
                    cancellationToken: cancellation
                )
            );
            var parameters = new DynamicParameters(
                new
                {
                    account = accountId,
                    figuresFrom = days.First,
                    figuresTo = days.Last,
                    reportRevision = revision,
                }
            );
            if (await connection.ExecuteScalarAsync<long?>($"select {PeriodOf(table)}", parameters) is { } kept)
            {
                return kept;
            }

            await AddUpAsync(connection, table, parameters);
        }
    }

    /// <summary>The kept period of a kind that the parameters name.</summary>
    public static string PeriodOf(ItemTable table) =>
        $"(select p.id from figure_period p where p.account_id = @account and p.kind = {table.Number} and p.first_day = @figuresFrom and p.last_day = @figuresTo and p.report_revision = @reportRevision)";

    /// <summary>In one statement, so that nobody sees a period without its sums; of two who add up at once, one waits.</summary>
    private static Task AddUpAsync(NpgsqlConnection connection, ItemTable table, DynamicParameters parameters) =>
        connection.ExecuteAsync(
            $"""
            delete from figure_period where id in (
              select id from figure_period where account_id = @account and kind = {table.Number} order by id desc offset {MostKept
                - 1});
            with period as (
              insert into figure_period (account_id, kind, first_day, last_day, report_revision)
              values (@account, {table.Number}, @figuresFrom, @figuresTo, @reportRevision) on conflict do nothing returning id)
            insert into figure_sum (period_id, item_id, impressions, clicks, cost, conversions, value)
              select period.id, s.* from period, ({Sums(table.Type.FigureColumn!)}) s
            """,
            parameters
        );
}
