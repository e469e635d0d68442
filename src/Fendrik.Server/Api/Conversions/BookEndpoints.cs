using System.Globalization;
using CsvHelper;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Core.Networks;
using Fendrik.Core.Tracking.Books;
using Fendrik.Data.Accounts;
using Fendrik.Data.Conversions;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Fendrik.Server.Api.Pricing;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace Fendrik.Server.Api.Conversions;

/// <summary>How many lines came to something.</summary>
/// <param name="Verdict">What.</param>
/// <param name="Says">In words.</param>
/// <param name="Lines">How many.</param>
public sealed record BookCount(BookVerdict Verdict, string Says, int Lines);

/// <summary>What own books come to.</summary>
/// <param name="Rows">Rows behind the headers that say something.</param>
/// <param name="Counts">Lines by what became of them.</param>
/// <param name="Problems">Rows that cannot be taken, and lines that do not count, the first of them.</param>
/// <param name="ProblemCount">How many there are in all.</param>
/// <param name="Changes">Lines that change something.</param>
public sealed record BooksAnswer(
    int Rows,
    IReadOnlyList<BookCount> Counts,
    IReadOnlyList<BookProblem> Problems,
    int ProblemCount,
    int Changes
);

/// <summary>Sales that the client brings from outside, and the click ids by which they are known.</summary>
internal static class BookEndpoints
{
    private const long LargestFile = 20L << 20;
    private const int MostProblems = 200;
    private const int UsualWeeks = 4;

    public static void MapBooks(this RouteGroupBuilder account)
    {
        account
            .MapPost("/conversions/books", TakeAsync)
            .WithName("bringInBooks")
            .RequireRateLimiting(RequestLimits.Uploads)
            .WithMetadata(new RequestSizeLimitAttribute(LargestFile))
            .Accepts<Stream>("application/octet-stream");
        account
            .MapGet("/conversions/clicks/file", ClicksAsync)
            .WithName("exportClicks")
            .Produces(StatusCodes.Status200OK, contentType: "text/csv");
    }

    /// <summary>The body is the list or file as it is. With a preview nothing is changed.</summary>
    private static async Task<Ok<BooksAnswer>> TakeAsync(
        int accountId,
        bool? preview,
        HttpContext context,
        ConversionReader reader,
        SearchNetworks networks,
        WorkingCopy workingCopy,
        BookTotals book,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var network = await networks.OfAccountAsync(accountId, cancellation);
        var actions = await reader.ActionsAsync(accountId, cancellation);
        var ground = new BookGround(
            facts.Ground,
            new AccountDay(facts.TimeZone),
            (await network.ClockAsync(accountId, cancellation)).Now,
            [.. actions.Select(action => action.Name)]
        );
        var (lines, totals, problems) = await BookFile.ReadAsync(context.Request.Body, ground, cancellation);
        if (totals.Count > 0)
        {
            return TypedResults.Ok(await TotalsAsync(accountId, totals, problems, book, preview == true, cancellation));
        }

        var idOf = actions.ToDictionary(action => action.Name, action => action.Id, StringComparer.Ordinal);
        var verdicts =
            lines.Count == 0
                ? []
                : await network.TellBooksAsync(
                    accountId,
                    new BookedConversions(
                        [
                            .. lines.Select(line => new BookedConversion(
                                line.Reference,
                                line.From,
                                idOf[line.Action],
                                line.At,
                                line.Value,
                                line.Change == BookChange.TakenBack
                            )),
                        ],
                        preview == true
                    ),
                    cancellation
                );
        var told = lines.Zip(verdicts).ToArray();
        problems.AddRange(told.Select(each => ProblemOf(each.First, each.Second)).OfType<BookProblem>());
        return TypedResults.Ok(
            new BooksAnswer(
                lines.Count + problems.Count - told.Count(each => ProblemOf(each.First, each.Second) is not null),
                [
                    .. told.GroupBy(each => each.Second)
                        .OrderBy(same => same.Key)
                        .Select(same => new BookCount(same.Key, InWords(same.Key), same.Count())),
                ],
                [.. problems.OrderBy(problem => problem.Row).Take(MostProblems)],
                problems.Count,
                told.Count(each => each.Second is BookVerdict.Counted or BookVerdict.NewValue or BookVerdict.TakenBack)
            )
        );
    }

    /// <summary>Totals are kept here, beside the figures: no network takes sales that it cannot lay to a click.</summary>
    private static async Task<BooksAnswer> TotalsAsync(
        int accountId,
        IReadOnlyList<BookTotal> totals,
        List<BookProblem> problems,
        BookTotals book,
        bool preview,
        CancellationToken cancellation
    )
    {
        var outcome = await book.TakeAsync(accountId, totals, preview, cancellation);
        problems.AddRange(outcome.Problems);
        BookCount[] counts =
        [
            new BookCount(BookVerdict.Counted, "totals kept beside the figures", outcome.Changed),
            new BookCount(BookVerdict.Known, "there already", outcome.Known),
        ];
        return new BooksAnswer(
            totals.Count + problems.Count - outcome.Problems.Count,
            [.. counts.Where(count => count.Lines > 0)],
            [.. problems.OrderBy(problem => problem.Row).Take(MostProblems)],
            problems.Count,
            outcome.Changed
        );
    }

    private static BookProblem? ProblemOf(BookLine line, BookVerdict verdict)
    {
        BookProblem Wrong(string field, string what) => new(line.Row, field, $"Row {line.Row}, {field}: {what}");
        return verdict switch
        {
            BookVerdict.Counted or BookVerdict.Known or BookVerdict.NewValue or BookVerdict.TakenBack => null,
            BookVerdict.UnknownClick => Wrong("click id", "the network never gave it out for this account."),
            BookVerdict.UnknownCall => Wrong(
                "caller",
                "no call of this number at that time came by an ad. Look at the time of the call."
            ),
            BookVerdict.UnknownAddress => Wrong("address", "nobody who came by an ad left it on the site."),
            BookVerdict.UnknownAction => Wrong(
                "conversion action",
                $"the network does not know “{line.Action}” yet. Publish it first."
            ),
            BookVerdict.OutsideWindow => Wrong(
                "time",
                "it is before the click, or later than the window of the action allows."
            ),
            BookVerdict.NothingThere => Wrong("reference", "there is nothing of it to be taken back."),
            BookVerdict.OncePerClick => Wrong(
                "reference",
                $"“{line.Action}” counts once for a click, and another line of this click is there."
            ),
            BookVerdict.PausedAction => Wrong("conversion action", $"“{line.Action}” is paused and counts nothing."),
        };
    }

    private static string InWords(BookVerdict verdict) =>
        verdict switch
        {
            BookVerdict.Counted => "counted",
            BookVerdict.Known => "there already",
            BookVerdict.NewValue => "with another value",
            BookVerdict.TakenBack => "taken back",
            BookVerdict.UnknownClick => "with an unknown click id",
            BookVerdict.UnknownCall => "without a call of that number",
            BookVerdict.UnknownAddress => "of an address that nobody left",
            BookVerdict.UnknownAction => "of an action that is not published",
            BookVerdict.OutsideWindow => "outside the window",
            BookVerdict.NothingThere => "without anything to take back",
            BookVerdict.PausedAction => "of a paused action",
            BookVerdict.OncePerClick => "of a click that counts already",
        };

    /// <summary>The clicks of the last weeks with their ids, as CSV (RFC 4180), for the own books.</summary>
    private static async Task ClicksAsync(
        int accountId,
        int? weeks,
        ConversionReader reader,
        PerformanceStore store,
        SearchNetworks networks,
        HttpContext context,
        CancellationToken cancellation
    )
    {
        var period = await PricingPeriod.OfAsync(store, accountId, weeks ?? UsualWeeks, cancellation);
        var names = await reader.NamesAsync(accountId, cancellation);
        var network = await networks.OfAccountAsync(accountId, cancellation);
        await using var writer = CsvAnswer.Begin(context, "clicks.csv");
        await using var csv = CsvWriter.Create(writer, new CsvWriterOptions(), leaveOpen: true);
        await csv.WriteRecordAsync(
            ["Click id", "Time", "Campaign", "Ad group", "Keyword", "Ad", "Device"],
            cancellation
        );
        if (period is not { } days)
        {
            return;
        }

        await foreach (var click in network.ClicksAsync(accountId, days, cancellation))
        {
            await csv.WriteRecordAsync(
                [
                    click.ClickId,
                    click.At.ToString("yyyy-MM-dd HH:mm:sszzz", CultureInfo.InvariantCulture),
                    SpreadsheetCell.Guard(names.GetValueOrDefault((ItemKind.Campaign, click.CampaignId), "")),
                    SpreadsheetCell.Guard(names.GetValueOrDefault((ItemKind.AdGroup, click.AdGroupId), "")),
                    SpreadsheetCell.Guard(names.GetValueOrDefault((ItemKind.Keyword, click.KeywordId), "")),
                    click.AdId.ToString(CultureInfo.InvariantCulture),
                    Choices.NameOf(Choices.Device, (int)click.Device),
                ],
                cancellation
            );
        }
    }
}
