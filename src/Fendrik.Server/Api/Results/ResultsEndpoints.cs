using System.Globalization;
using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Measures;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Own;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Results;

/// <summary>One figure of a period, of the period before, and the change as a share of the latter.</summary>
public sealed record ComparedFigure(decimal? Now, decimal? Before, decimal? Change);

/// <summary>The quality score of a keyword in a period: the last one, and how it came there.</summary>
public sealed record QualityInPeriod(QualityDay Last, IReadOnlyList<QualityDay> Days);

public sealed record ResultsRow(
    long Id,
    string Name,
    MatchType? Match,
    string Campaign,
    long CampaignId,
    string? AdGroup,
    long? AdGroupId,
    bool Removed,
    IReadOnlyDictionary<string, ComparedFigure> Figures,
    QualityInPeriod? Quality
);

/// <summary>What a page of a content site or an audience brought.</summary>
public sealed record ReachedResult(string Name, IReadOnlyDictionary<string, ComparedFigure> Figures);

/// <summary>A part of a chart over time.</summary>
/// <param name="Day">Its first day.</param>
/// <param name="Last">Its last.</param>
/// <param name="Label">What it is called.</param>
/// <param name="DayBefore">The first day of what it is compared with; none where there is nothing.</param>
/// <param name="LastBefore">The last.</param>
/// <param name="Figures">Its figures.</param>
public sealed record ChartDay(
    DateOnly Day,
    DateOnly Last,
    string Label,
    DateOnly? DayBefore,
    DateOnly? LastBefore,
    IReadOnlyDictionary<string, ComparedFigure> Figures
);

public sealed record ResultsAnswer(
    DateOnly First,
    DateOnly Last,
    DateOnly BeforeFirst,
    DateOnly BeforeLast,
    int DaysNow,
    int DaysBefore,
    IReadOnlyDictionary<string, ComparedFigure> Total,
    IReadOnlyList<ChartDay> Days,
    IReadOnlyList<ResultsRow> Rows,
    bool More
);

internal static class ResultsEndpoints
{
    private const int MostRows = 500;

    /// <summary>What results can be asked for, as the API writes kinds of items; negatives have no figures of their own.</summary>
    public static void MapResults(this RouteGroupBuilder account)
    {
        account.MapGet("/results", ReadAsync).WithName("readResults");
        account
            .MapGet(
                "/results/changes",
                async (
                    int accountId,
                    DateOnly first,
                    DateOnly last,
                    long? campaignId,
                    OwnChangeReader changes,
                    CancellationToken cancellation
                ) =>
                    TypedResults.Ok(
                        await changes.ReadAsync(
                            accountId,
                            new AskedResults(first, last).Of(ItemKind.Campaign).Period,
                            campaignId,
                            cancellation
                        )
                    )
            )
            .WithName("readOwnChanges")
            .WithTags(nameof(ResultsEndpoints));
        account.MapBreakdowns();
        account.MapMeasures();
        account.MapAlerts();
        account
            .MapGet(
                "/results/conditions",
                async (int accountId, CampaignConditions conditions, CancellationToken cancellation) =>
                    TypedResults.Ok(await conditions.ReadAsync(accountId, cancellation))
            )
            .WithName("readCampaignConditions")
            .WithTags(nameof(ResultsEndpoints));
        account.MapGet("/results/rivals", RivalsAsync).WithName("readRivals");
        account.MapGet("/results/reached", ReachedAsync).WithName("readReached");
        account
            .MapGet("/results.csv", ResultsFile.ExportAsync)
            .WithName("exportResults")
            .RequireRateLimiting(RequestLimits.WholeReads)
            .Produces(StatusCodes.Status200OK, contentType: "text/csv");
    }

    private static async Task<Ok<ResultsAnswer>> ReadAsync(
        int accountId,
        [AsParameters] AskedResults asked,
        string level,
        string? grain,
        string? condition,
        string? view,
        HttpContext context,
        ResultsReader reader,
        MarketReader market,
        ResultsItems items,
        MeasureBook book,
        CancellationToken cancellation
    )
    {
        var measures = await book.AllAsync(accountId, cancellation);
        var request = await items.KeepAsync(accountId, context, asked.Of(level), condition, view, cancellation);
        var fine = QueryChoice.Of<ChartGrain>(grain, "grain") ?? ChartGrain.Day;
        var report = await reader.ReadAsync(accountId, request, MostRows, cancellation);
        var qualities =
            request.Level == ItemKind.Keyword
                ? await market.QualitiesAsync(
                    accountId,
                    [.. report.Lines.Select(line => line.Id)],
                    request.Period,
                    cancellation
                )
                : null;
        return TypedResults.Ok(
            new ResultsAnswer(
                asked.First,
                asked.Last,
                request.Before.First,
                request.Before.Last,
                request.Period.Days,
                request.Before.Days,
                Comparing.All(measures, report.MeasuredNow, report.MeasuredBefore),
                [
                    .. ChartPart
                        .Of(request.Period, request.Before, fine)
                        .Select(part => ChartOf(measures, part, fine, report)),
                ],
                [
                    .. report.Lines.Select(line => new ResultsRow(
                        line.Id,
                        line.Name,
                        line.Match,
                        line.Campaign,
                        line.CampaignId,
                        line.AdGroup,
                        line.AdGroupId,
                        line.Removed,
                        Comparing.All(measures, line.MeasuredNow, line.MeasuredBefore),
                        qualities?.GetValueOrDefault(line.Id) is { Count: > 0 } days
                            ? new QualityInPeriod(days[^1], days)
                            : null
                    )),
                ],
                report.More
            )
        );
    }

    private static ChartDay ChartOf(
        IReadOnlyList<Measure> measures,
        ChartPart part,
        ChartGrain grain,
        ResultsReport report
    )
    {
        var now = Together(report.Days, part.Now);
        var before = part.Before is { } earlier
            ? Together(report.DaysBefore, earlier)
            : new Measured(Figures.Zero, Standing.Zero);
        return new ChartDay(
            part.Now.First,
            part.Now.Last,
            grain switch
            {
                ChartGrain.Day or ChartGrain.Week => part.Now.First.ToString("d MMM", CultureInfo.InvariantCulture),
                ChartGrain.Month => part.Now.First.ToString("MMM yyyy", CultureInfo.InvariantCulture),
            },
            part.Before?.First,
            part.Before?.Last,
            Comparing.All(measures, now, before)
        );
    }

    private static Measured Together(IEnumerable<ResultsDay> days, Period period) =>
        ResultsDay.Together(days.Where(day => period.First <= day.Day && day.Day <= period.Last));

    /// <summary>Who else showed, whatever the level.</summary>
    private static async Task<Ok<IReadOnlyList<RivalLine>>> RivalsAsync(
        int accountId,
        [AsParameters] AskedResults asked,
        MarketReader market,
        CancellationToken cancellation
    ) => TypedResults.Ok(await market.RivalsAsync(accountId, asked.Of(ItemKind.Campaign), cancellation));

    /// <summary>What pages of content sites or audiences brought, whatever the level.</summary>
    private static async Task<Ok<IReadOnlyList<ReachedResult>>> ReachedAsync(
        int accountId,
        string by,
        [AsParameters] AskedResults asked,
        MarketReader market,
        MeasureBook book,
        CancellationToken cancellation
    )
    {
        var measures = await book.AllAsync(accountId, cancellation);
        var lines = await market.ReachedAsync(
            accountId,
            QueryChoice.Of<ReachedBy>(by, "by") ?? ReachedBy.Placement,
            asked.Of(ItemKind.Campaign),
            cancellation
        );
        return TypedResults.Ok<IReadOnlyList<ReachedResult>>([
            .. lines.Select(line => new ReachedResult(line.Name, Comparing.All(measures, line.Now, line.Before))),
        ]);
    }
}
