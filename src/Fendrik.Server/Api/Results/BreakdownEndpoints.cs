using System.Text.Json;
using CsvHelper;
using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Breakdowns;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Breakdowns;
using Fendrik.Data.Steps;
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
public sealed record BreakdownRow(string Key, string Label, ComparedFigures Figures, IReadOnlyList<BreakdownRow> Parts);

/// <summary>Figures told apart.</summary>
/// <param name="Name">What the parts are.</param>
/// <param name="Rows">The parts.</param>
/// <param name="Total">All of them together.</param>
/// <param name="More">True where there are more than these.</param>
public sealed record BreakdownAnswer(string Name, IReadOnlyList<BreakdownRow> Rows, ComparedFigures Total, bool More);

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
        DateOnly first,
        DateOnly last,
        long? campaignId,
        long? adGroupId,
        string? against,
        BreakdownReader reader,
        CancellationToken cancellation
    )
    {
        var request = Request(by, then, first, last, campaignId, adGroupId, against);
        var report = await reader.ReadAsync(
            accountId,
            request,
            request.Then is null ? MostParts : MostCrossed,
            cancellation
        );
        return TypedResults.Ok(
            new BreakdownAnswer(
                BreakdownRules.NameOf(request.By),
                [.. report.Parts.Select(part => RowOf(part, request.By, request.Then))],
                ResultsEndpoints.Compare(report.Now, report.Before, null, null),
                report.More
            )
        );
    }

    private static async Task ExportAsync(
        int accountId,
        string by,
        string? then,
        DateOnly first,
        DateOnly last,
        long? campaignId,
        long? adGroupId,
        string? against,
        HttpContext context,
        BreakdownReader reader,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var request = Request(by, then, first, last, campaignId, adGroupId, against);
        var currency = (await workingCopy.FactsAsync(accountId, cancellation)).Currency.Code;
        var report = await reader.ReadAsync(accountId, request, MostExported, cancellation);
        await using var writer = CsvAnswer.Begin(
            context,
            $"results-by-{JsonNamingPolicy.KebabCaseLower.ConvertName(request.By.ToString())}-{first:yyyy-MM-dd}-{last:yyyy-MM-dd}.csv"
        );
        await using var csv = CsvWriter.Create(writer, new CsvWriterOptions(), leaveOpen: true);
        string[] second = request.Then is { } two ? [BreakdownRules.NameOf(two)] : [];
        await csv.WriteRecordAsync(
            [
                BreakdownRules.NameOf(request.By),
                .. second,
                "Impressions",
                "Clicks",
                "CTR",
                $"Cost {currency}",
                $"Average CPC {currency}",
                "Conversions",
                "Conversion rate",
                $"Cost per conversion {currency}",
                $"Value {currency}",
                $"Cost before {currency}",
                "Conversions before",
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
                        .. names.Select(Core.Lists.SpreadsheetCell.Guard),
                        ResultsEndpoints.Number(line.Now.Impressions),
                        ResultsEndpoints.Number(line.Now.Clicks),
                        ResultsEndpoints.Number(line.Now.ClickThroughRate),
                        ResultsEndpoints.Number(line.Now.Cost),
                        ResultsEndpoints.Number(line.Now.AverageCpc),
                        ResultsEndpoints.Number(line.Now.Conversions),
                        ResultsEndpoints.Number(line.Now.ConversionRate),
                        ResultsEndpoints.Number(line.Now.CostPerConversion),
                        ResultsEndpoints.Number(line.Now.Value),
                        ResultsEndpoints.Number(line.Before.Cost),
                        ResultsEndpoints.Number(line.Before.Conversions),
                    ],
                    cancellation
                );
            }
        }
    }

    private static BreakdownRow RowOf(BreakdownPart part, Breakdown by, Breakdown? then) =>
        new(
            part.Key,
            part.Label,
            Compare(part, by == Breakdown.Action),
            then is { } second
                ?
                [
                    .. part.Parts.Select(each => new BreakdownRow(
                        each.Key,
                        each.Label,
                        Compare(each, by == Breakdown.Action || second == Breakdown.Action),
                        []
                    )),
                ]
                : []
        );

    /// <summary>What counted a conversion was neither shown nor clicked: it has no such figures, which is not that they are 0.</summary>
    private static ComparedFigures Compare(BreakdownPart part, bool ofConversions)
    {
        var figures = ResultsEndpoints.Compare(part.Now, part.Before, null, null);
        var none = new ComparedFigure(null, null, null);
        return ofConversions
            ? figures with
            {
                Impressions = none,
                Clicks = none,
                ClickThroughRate = none,
                Cost = none,
                AverageCpc = none,
                ConversionRate = none,
                CostPerConversion = none,
            }
            : figures;
    }

    private static BreakdownRequest Request(
        string by,
        string? then,
        DateOnly first,
        DateOnly last,
        long? campaignId,
        long? adGroupId,
        string? against
    )
    {
        var days = ResultsEndpoints.Request(
            first,
            last,
            NetworkProfile.KeyOf(ItemKind.Campaign),
            campaignId,
            adGroupId,
            against
        );
        return new BreakdownRequest(
            days.Period,
            days.Before,
            QueryChoice.Of<Breakdown>(by, "by") ?? Breakdown.Device,
            QueryChoice.Of<Breakdown>(then, "then"),
            campaignId,
            adGroupId
        );
    }
}
