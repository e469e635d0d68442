using Dapper;
using Fendrik.Core.Reporting;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>Puts what the own books say by totals beside the figures of results. Of ads the books know nothing.</summary>
internal sealed class BookedReader(
    NpgsqlConnection connection,
    int accountId,
    ResultsRequest request,
    CancellationToken cancellation
)
{
    private bool? _any;

    private string? Column =>
        request.Level is ItemKind.Campaign or ItemKind.AdGroup or ItemKind.Keyword
            ? ItemTable.Of(request.Level).Type.FigureColumn
            : null;

    private string Scope =>
        "b.account_id = @accountId and (@CampaignId::bigint is null or b.campaign_id = @CampaignId) and (@AdGroupId::bigint is null or b.ad_group_id = @AdGroupId) and (@campaigns::bigint[] is null or b.campaign_id = any(@campaigns))"
        + (
            request.Items is null ? ""
            : Column is { } column ? $" and b.{column} = any(@items)"
            : " and false"
        );

    /// <summary>The days with what was booked on them.</summary>
    public async Task<(List<ResultsDay> Now, List<ResultsDay> Before)> OnDaysAsync(
        List<ResultsDay> now,
        List<ResultsDay> before
    )
    {
        if (!await AnyAsync())
        {
            return (now, before);
        }

        var booked = (
            await connection.QueryAsync<(DateOnly Day, decimal Sales, decimal Value)>(
                Command(
                    $"select b.day, sum(b.sales), sum(b.value) from book_total b where {Scope} and {Within} group by b.day"
                )
            )
        ).ToDictionary(row => row.Day, row => new Booked(row.Sales, row.Value));
        List<ResultsDay> With(IEnumerable<ResultsDay> days) =>
            [.. days.Select(day => day with { Booked = booked.GetValueOrDefault(day.Day) })];
        return (With(now), With(before));
    }

    /// <summary>The lines with what was booked for them.</summary>
    public async Task<List<ResultsLine>> OnLinesAsync(List<ResultsLine> lines)
    {
        if (Column is not { } column || !await AnyAsync())
        {
            return lines;
        }

        var booked = (
            await connection.QueryAsync<(long Id, bool IsNow, decimal Sales, decimal Value)>(
                Command(
                    $"select b.{column}, b.day between @First and @Last, sum(b.sales), sum(b.value) from book_total b where {Scope} and {Within} and b.{column} = any(@ids) group by 1, 2",
                    [.. lines.Select(line => line.Id)]
                )
            )
        ).ToDictionary(row => (row.Id, row.IsNow), row => new Booked(row.Sales, row.Value));
        return
        [
            .. lines.Select(line =>
                line with
                {
                    BookedNow = booked.GetValueOrDefault((line.Id, true)),
                    BookedBefore = booked.GetValueOrDefault((line.Id, false)),
                }
            ),
        ];
    }

    private const string Within = "(b.day between @First and @Last or b.day between @BeforeFirst and @BeforeLast)";

    private async Task<bool> AnyAsync() =>
        _any ??= await connection.ExecuteScalarAsync<bool>(
            Command("select exists (select from book_total where account_id = @accountId)")
        );

    private CommandDefinition Command(string sql, long[]? ids = null)
    {
        var parameters = request.Parameters(accountId);
        parameters.Add("ids", ids);
        return new CommandDefinition(sql, parameters, cancellationToken: cancellation);
    }
}
