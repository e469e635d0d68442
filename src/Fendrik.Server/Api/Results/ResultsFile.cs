using CsvHelper;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Core.Reporting.Measures;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Own;
using Fendrik.Data.Steps;

namespace Fendrik.Server.Api.Results;

/// <summary>Results as rows of a CSV file.</summary>
internal static class ResultsFile
{
    private const int MostExported = 1_000_000;

    public static async Task ExportAsync(
        int accountId,
        [AsParameters] AskedResults asked,
        string level,
        string? condition,
        string? view,
        string? columns,
        HttpContext context,
        ResultsReader reader,
        ResultsItems items,
        MeasureBook book,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var currency = (await workingCopy.FactsAsync(accountId, cancellation)).Currency.Code;
        var measures = Comparing.Chosen(await book.AllAsync(accountId, cancellation), columns);
        var report = await reader.ReadAsync(
            accountId,
            await items.KeepAsync(accountId, context, asked.Of(level), condition, view, cancellation),
            MostExported,
            cancellation
        );
        await using var writer = CsvAnswer.Begin(
            context,
            $"results-{asked.First:yyyy-MM-dd}-{asked.Last:yyyy-MM-dd}.csv"
        );
        await using var csv = CsvWriter.Create(writer, new CsvWriterOptions(), leaveOpen: true);
        await csv.WriteRecordAsync(
            [
                "Campaign",
                "Ad group",
                "Name",
                "Match type",
                .. measures.Select(measure => SpreadsheetCell.Guard(Comparing.HeaderOf(measure, currency))),
                .. measures.Select(measure => SpreadsheetCell.Guard(Comparing.HeaderOf(measure, currency) + " before")),
            ],
            cancellation
        );
        foreach (var line in report.Lines)
        {
            var (now, before) = (line.MeasuredNow, line.MeasuredBefore);
            await csv.WriteRecordAsync(
                [
                    SpreadsheetCell.Guard(line.Campaign),
                    SpreadsheetCell.Guard(line.AdGroup ?? ""),
                    SpreadsheetCell.Guard(line.Name),
                    line.Match is { } match ? Choices.NameOf(match) : "",
                    .. measures.Select(measure => Comparing.Number(measure.Of(now))),
                    .. measures.Select(measure => Comparing.Number(measure.Of(before))),
                ],
                cancellation
            );
        }
    }
}
