using System.Text.Json;
using CsvHelper;
using Fendrik.Core.Lists;
using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Breakdowns;
using Fendrik.Core.Reporting.Measures;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Breakdowns;
using Fendrik.Data.Results.Own;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Results;

/// <summary>By what figures can be told apart.</summary>
/// <param name="By">The breakdown.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Crosses">What each of its parts can be told apart by.</param>
public sealed record BreakdownChoice(Breakdown By, string Name, IReadOnlyList<Breakdown> Crosses);

/// <summary>A part of what was told apart.</summary>
/// <param name="Key">The part.</param>
/// <param name="Label">What it is called.</param>
/// <param name="Figures">Its figures.</param>
/// <param name="Parts">What it is made of, where it is told apart once more.</param>
/// <param name="Point">Where it lies, of a place that has a point on the map; none for all else.</param>
public sealed record BreakdownRow(
    string Key,
    string Label,
    IReadOnlyDictionary<string, ComparedFigure> Figures,
    IReadOnlyList<BreakdownRow> Parts,
    PlaceOnMap? Point
);

/// <summary>Figures told apart.</summary>
/// <param name="Name">What the parts are.</param>
/// <param name="Rows">The parts.</param>
/// <param name="Total">All of them together.</param>
/// <param name="More">True where there are more than these.</param>
public sealed record BreakdownAnswer(
    string Name,
    IReadOnlyList<BreakdownRow> Rows,
    IReadOnlyDictionary<string, ComparedFigure> Total,
    bool More
);

/// <summary>Tells figures apart, by one thing or by two.</summary>
internal static class BreakdownEndpoints
{
    private const int MostParts = 1_000;

    /// <summary>Told apart once more, each row is many lines.</summary>
    private const int MostCrossed = 100;
    private const int MostExported = 1_000_000;

    public static void MapBreakdowns(this RouteGroupBuilder account)
    {
        account.MapGet("/results/breakdowns", Choices).WithName("readBreakdowns");
        account.MapGet("/results/breakdown", ReadAsync).WithName("readBreakdown");
        account
            .MapGet("/results/breakdown.csv", ExportAsync)
            .WithName("exportBreakdown")
            .RequireRateLimiting(RequestLimits.WholeReads)
            .Produces(StatusCodes.Status200OK, contentType: "text/csv");
    }

    /// <param name="accountId">The account; the same hold in any.</param>
    private static Ok<IReadOnlyList<BreakdownChoice>> Choices(int accountId) =>
        TypedResults.Ok<IReadOnlyList<BreakdownChoice>>([
            .. Enum.GetValues<Breakdown>()
                .Select(by => new BreakdownChoice(
                    by,
                    BreakdownRules.NameOf(by),
                    [.. Enum.GetValues<Breakdown>().Where(then => BreakdownRules.ProblemOf(by, then) is null)]
                )),
        ]);

    private static async Task<Ok<BreakdownAnswer>> ReadAsync(
        int accountId,
        string by,
        string? then,
        [AsParameters] AskedResults asked,
        string? condition,
        string? view,
        HttpContext context,
        BreakdownReader reader,
        ResultsItems items,
        MeasureBook book,
        CancellationToken cancellation
    )
    {
        var kept = await items.KeepAsync(
            accountId,
            context,
            asked.Of(ItemKind.Campaign),
            condition,
            view,
            cancellation
        );
        var request = Request(by, then, kept);
        var report = await reader.ReadAsync(
            accountId,
            request,
            request.Then is null ? MostParts : MostCrossed,
            cancellation
        );
        var measures = await book.AllAsync(accountId, cancellation);
        return TypedResults.Ok(
            new BreakdownAnswer(
                BreakdownRules.NameOf(request.By),
                [.. report.Parts.Select(part => RowOf(measures, part, request.By, request.Then))],
                Comparing.All(measures, report.Now, report.Before),
                report.More
            )
        );
    }

    private static async Task ExportAsync(
        int accountId,
        string by,
        string? then,
        [AsParameters] AskedResults asked,
        string? condition,
        string? view,
        string? columns,
        HttpContext context,
        BreakdownReader reader,
        ResultsItems items,
        WorkingCopy workingCopy,
        MeasureBook book,
        CancellationToken cancellation
    )
    {
        var kept = await items.KeepAsync(
            accountId,
            context,
            asked.Of(ItemKind.Campaign),
            condition,
            view,
            cancellation
        );
        var request = Request(by, then, kept);
        var currency = (await workingCopy.FactsAsync(accountId, cancellation)).Currency.Code;
        // Where ads stood is not known of parts, and what counted a conversion was neither shown nor clicked.
        var ofConversions = request.By == Breakdown.Action || request.Then == Breakdown.Action;
        Measure[] measures =
        [
            .. Comparing
                .Chosen(await book.AllAsync(accountId, cancellation), columns)
                .Where(measure =>
                    measure.Group != MeasureGroup.Stood && (!ofConversions || measure.IsOfConversionsAlone)
                ),
        ];
        var report = await reader.ReadAsync(accountId, request, MostExported, cancellation);
        await using var writer = CsvAnswer.Begin(
            context,
            $"results-by-{JsonNamingPolicy.KebabCaseLower.ConvertName(request.By.ToString())}-{asked.First:yyyy-MM-dd}-{asked.Last:yyyy-MM-dd}.csv"
        );
        await using var csv = CsvWriter.Create(writer, new CsvWriterOptions(), leaveOpen: true);
        string[] second = request.Then is { } two ? [BreakdownRules.NameOf(two)] : [];
        await csv.WriteRecordAsync(
            [
                BreakdownRules.NameOf(request.By),
                .. second,
                .. measures.Select(measure => SpreadsheetCell.Guard(Comparing.HeaderOf(measure, currency))),
                .. measures.Select(measure => SpreadsheetCell.Guard(Comparing.HeaderOf(measure, currency) + " before")),
            ],
            cancellation
        );
        foreach (var part in report.Parts)
        {
            // Told apart once more, each part of it is a line; the sums are left to whoever adds up.
            foreach (var line in request.Then is null ? [part] : part.Parts)
            {
                string[] names = request.Then is null ? [part.Label] : [part.Label, line.Label];
                await csv.WriteRecordAsync(
                    [
                        .. names.Select(SpreadsheetCell.Guard),
                        .. measures.Select(measure => Comparing.Number(measure.Of(new Measured(line.Now, null)))),
                        .. measures.Select(measure => Comparing.Number(measure.Of(new Measured(line.Before, null)))),
                    ],
                    cancellation
                );
            }
        }
    }

    private static BreakdownRow RowOf(
        IReadOnlyList<Measure> measures,
        BreakdownPart part,
        Breakdown by,
        Breakdown? then
    ) =>
        new(
            part.Key,
            part.Label,
            Compare(measures, part, by == Breakdown.Action),
            then is { } second
                ?
                [
                    .. part.Parts.Select(each => new BreakdownRow(
                        each.Key,
                        each.Label,
                        Compare(measures, each, by == Breakdown.Action || second == Breakdown.Action),
                        [],
                        BreakdownRules.PointOf(second, each.Key)
                    )),
                ]
                : [],
            BreakdownRules.PointOf(by, part.Key)
        );

    private static IReadOnlyDictionary<string, ComparedFigure> Compare(
        IReadOnlyList<Measure> measures,
        BreakdownPart part,
        bool ofConversions
    ) =>
        ofConversions
            ? Comparing.OfConversions(measures, part.Now, part.Before)
            : Comparing.All(measures, part.Now, part.Before);

    private static BreakdownRequest Request(string by, string? then, ResultsRequest campaigns) =>
        new(
            campaigns.Period,
            campaigns.Before,
            QueryChoice.Of<Breakdown>(by, "by") ?? Breakdown.Device,
            QueryChoice.Of<Breakdown>(then, "then"),
            campaigns.CampaignId,
            campaigns.AdGroupId,
            // Of what a view lets through that do one thing, both hold.
            campaigns.Items
                is { } items
            && campaigns.Campaigns is { } doing
                ? [.. items.Intersect(doing)]
                : campaigns.Items ?? campaigns.Campaigns
        );
}
