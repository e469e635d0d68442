using CsvHelper;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;

namespace Fendrik.Server.Api.Results;

/// <summary>Results as rows of a CSV file.</summary>
internal static class ResultsFile
{
    private const int MostExported = 1_000_000;

    public static async Task ExportAsync(
        int accountId,
        DateOnly first,
        DateOnly last,
        string level,
        long? campaignId,
        long? adGroupId,
        string? against,
        string? condition,
        HttpContext context,
        ResultsReader reader,
        CampaignConditions conditions,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var currency = (await workingCopy.FactsAsync(accountId, cancellation)).Currency.Code;
        var report = await reader.ReadAsync(
            accountId,
            await conditions.KeepAsync(
                accountId,
                ResultsEndpoints.Request(first, last, level, campaignId, adGroupId, against),
                condition,
                cancellation
            ),
            MostExported,
            cancellation
        );
        await using var writer = CsvAnswer.Begin(context, $"results-{first:yyyy-MM-dd}-{last:yyyy-MM-dd}.csv");
        await using var csv = CsvWriter.Create(writer, new CsvWriterOptions(), leaveOpen: true);
        await csv.WriteRecordAsync(Headers(currency), cancellation);
        foreach (var line in report.Lines)
        {
            await csv.WriteRecordAsync(Cells(line), cancellation);
        }
    }

    private static string[] Headers(string currency) =>
        [
            "Campaign",
            "Ad group",
            "Name",
            "Match type",
            "Impressions",
            "Clicks",
            "CTR",
            $"Cost {currency}",
            $"Average CPC {currency}",
            "Conversions",
            "Conversion rate",
            $"Cost per conversion {currency}",
            $"Breaks even at {currency}",
            $"Cost before {currency}",
            "Conversions before",
            "Impression share",
            "Lost to rank",
            "Lost to budget",
            "Share at the top",
            "Share at the very top",
            "Average place",
        ];

    private static string[] Cells(ResultsLine line) =>
        [
            SpreadsheetCell.Guard(line.Campaign),
            SpreadsheetCell.Guard(line.AdGroup ?? ""),
            SpreadsheetCell.Guard(line.Name),
            line.Match is { } match ? Choices.NameOf(match) : "",
            ResultsEndpoints.Number(line.Now.Impressions),
            ResultsEndpoints.Number(line.Now.Clicks),
            ResultsEndpoints.Number(line.Now.ClickThroughRate),
            ResultsEndpoints.Number(line.Now.Cost),
            ResultsEndpoints.Number(line.Now.AverageCpc),
            ResultsEndpoints.Number(line.Now.Conversions),
            ResultsEndpoints.Number(line.Now.ConversionRate),
            ResultsEndpoints.Number(line.Now.CostPerConversion),
            ResultsEndpoints.Number(line.Now.BreakEven),
            ResultsEndpoints.Number(line.Before.Cost),
            ResultsEndpoints.Number(line.Before.Conversions),
            ResultsEndpoints.Number(line.StandingNow?.ImpressionShare),
            ResultsEndpoints.Number(line.StandingNow?.RankLossShare),
            ResultsEndpoints.Number(line.StandingNow?.BudgetLossShare),
            ResultsEndpoints.Number(line.StandingNow?.TopShare),
            ResultsEndpoints.Number(line.StandingNow?.FirstShare),
            ResultsEndpoints.Number(line.StandingNow?.AveragePlace),
        ];
}
