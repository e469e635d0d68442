using System.Globalization;
using Fendrik.Core.Reporting;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Results;

/// <summary>One figure of a period, of the period before, and the change as a share of the latter.</summary>
public sealed record ComparedFigure(decimal? Now, decimal? Before, decimal? Change);

/// <summary>All figures of a line. Shares (CTR, conversion rate, changes) are from 0 to 1.</summary>
public sealed record ComparedFigures(
    ComparedFigure Impressions,
    ComparedFigure Clicks,
    ComparedFigure ClickThroughRate,
    ComparedFigure Cost,
    ComparedFigure AverageCpc,
    ComparedFigure Conversions,
    ComparedFigure ConversionRate,
    ComparedFigure CostPerConversion,
    ComparedFigure BreakEven,
    ComparedFigure ImpressionShare,
    ComparedFigure RankLossShare,
    ComparedFigure BudgetLossShare,
    ComparedFigure TopShare,
    ComparedFigure FirstShare,
    ComparedFigure AveragePlace
);

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
    ComparedFigures Figures,
    QualityInPeriod? Quality
);

/// <summary>What a page of a content site or an audience brought.</summary>
public sealed record ReachedResult(string Name, ComparedFigures Figures);

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
    ComparedFigures Figures
);

public sealed record ResultsAnswer(
    DateOnly First,
    DateOnly Last,
    DateOnly BeforeFirst,
    DateOnly BeforeLast,
    ComparedFigures Total,
    IReadOnlyList<ChartDay> Days,
    IReadOnlyList<ResultsRow> Rows,
    bool More
);

internal static class ResultsEndpoints
{
    private const int MostRows = 500;
    private const int MostDays = 800;

    /// <summary>What results can be asked for, as the API writes kinds of items; negatives have no figures of their own.</summary>
    public static void MapResults(this RouteGroupBuilder account)
    {
        account.MapGet("/results", ReadAsync).WithName("readResults");
        account.MapBreakdowns();
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
            .Produces(StatusCodes.Status200OK, contentType: "text/csv");
    }

    private static async Task<Ok<ResultsAnswer>> ReadAsync(
        int accountId,
        DateOnly first,
        DateOnly last,
        string level,
        long? campaignId,
        long? adGroupId,
        string? against,
        string? grain,
        string? condition,
        ResultsReader reader,
        MarketReader market,
        CampaignConditions conditions,
        CancellationToken cancellation
    )
    {
        var request = await conditions.KeepAsync(
            accountId,
            Request(first, last, level, campaignId, adGroupId, against),
            condition,
            cancellation
        );
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
                first,
                last,
                request.Before.First,
                request.Before.Last,
                Compare(report.Now, report.Before, report.StandingNow, report.StandingBefore),
                [.. ChartPart.Of(request.Period, request.Before, fine).Select(part => ChartOf(part, fine, report))],
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
                        Compare(line.Now, line.Before, line.StandingNow, line.StandingBefore),
                        qualities?.GetValueOrDefault(line.Id) is { Count: > 0 } days
                            ? new QualityInPeriod(days[^1], days)
                            : null
                    )),
                ],
                report.More
            )
        );
    }

    private static ChartDay ChartOf(ChartPart part, ChartGrain grain, ResultsReport report)
    {
        var now = Together(report.Days, part.Now);
        var before = part.Before is { } earlier ? Together(report.DaysBefore, earlier) : (Figures.Zero, Standing.Zero);
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
            Compare(now.Item1, before.Item1, now.Item2, before.Item2)
        );
    }

    private static (Figures, Standing) Together(IEnumerable<ResultsDay> days, Period period) =>
        days.Where(day => period.First <= day.Day && day.Day <= period.Last)
            .Aggregate(
                (Figures.Zero, Standing.Zero),
                (sum, day) => (sum.Item1 + day.Figures, sum.Item2 + day.Standing)
            );

    /// <summary>Who else showed, whatever the level.</summary>
    private static async Task<Ok<IReadOnlyList<RivalLine>>> RivalsAsync(
        int accountId,
        DateOnly first,
        DateOnly last,
        long? campaignId,
        long? adGroupId,
        string? against,
        MarketReader market,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok(
            await market.RivalsAsync(
                accountId,
                Request(first, last, NetworkProfile.KeyOf(ItemKind.Campaign), campaignId, adGroupId, against),
                cancellation
            )
        );

    /// <summary>What pages of content sites or audiences brought, whatever the level.</summary>
    private static async Task<Ok<IReadOnlyList<ReachedResult>>> ReachedAsync(
        int accountId,
        string by,
        DateOnly first,
        DateOnly last,
        long? campaignId,
        long? adGroupId,
        string? against,
        MarketReader market,
        CancellationToken cancellation
    )
    {
        var lines = await market.ReachedAsync(
            accountId,
            QueryChoice.Of<ReachedBy>(by, "by") ?? ReachedBy.Placement,
            Request(first, last, NetworkProfile.KeyOf(ItemKind.Campaign), campaignId, adGroupId, against),
            cancellation
        );
        return TypedResults.Ok<IReadOnlyList<ReachedResult>>([
            .. lines.Select(line => new ReachedResult(line.Name, Compare(line.Now, line.Before, null, null))),
        ]);
    }

    internal static ResultsRequest Request(
        DateOnly first,
        DateOnly last,
        string level,
        long? campaignId,
        long? adGroupId,
        string? against
    )
    {
        if (last < first || last.DayNumber - first.DayNumber >= MostDays)
        {
            throw new InvalidChangeException(
                "last",
                $"Choose a last day after the first, and at most {MostDays} days."
            );
        }

        var levels = ItemTypes.All.Where(type => type.FigureColumn is not null);
        return levels.FirstOrDefault(type => NetworkProfile.KeyOf(type.Kind) == level) is { } type
            ? new ResultsRequest(
                new Period(first, last),
                type.Kind,
                campaignId,
                adGroupId,
                QueryChoice.Of<Comparison>(against, "against") ?? Comparison.DaysBefore
            )
            : throw new InvalidChangeException(
                "level",
                $"“{level}” is none of {string.Join(", ", levels.Select(each => NetworkProfile.KeyOf(each.Kind)))}."
            );
    }

    internal static string Number(decimal? figure) => figure?.ToString("0.####", CultureInfo.InvariantCulture) ?? "";

    internal static ComparedFigures Compare(Figures now, Figures before, Standing? stood, Standing? stoodBefore)
    {
        static ComparedFigure One(decimal? now, decimal? before) => new(now, before, Figures.Change(before, now));
        return new ComparedFigures(
            One(now.Impressions, before.Impressions),
            One(now.Clicks, before.Clicks),
            One(now.ClickThroughRate, before.ClickThroughRate),
            One(now.Cost, before.Cost),
            One(now.AverageCpc, before.AverageCpc),
            One(now.Conversions, before.Conversions),
            One(now.ConversionRate, before.ConversionRate),
            One(now.CostPerConversion, before.CostPerConversion),
            One(now.BreakEven, before.BreakEven),
            One(stood?.ImpressionShare, stoodBefore?.ImpressionShare),
            One(stood?.RankLossShare, stoodBefore?.RankLossShare),
            One(stood?.BudgetLossShare, stoodBefore?.BudgetLossShare),
            One(stood?.TopShare, stoodBefore?.TopShare),
            One(stood?.FirstShare, stoodBefore?.FirstShare),
            One(stood?.AveragePlace, stoodBefore?.AveragePlace)
        );
    }
}
