using System.Globalization;
using CsvHelper;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;
using Fendrik.Data.Accounts;
using Fendrik.Data.Tracing;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace Fendrik.Server.Api.Tracing;

/// <summary>How many searches came to something.</summary>
/// <param name="Kind">What came of them.</param>
/// <param name="Searches">How many.</param>
public sealed record TermCount(AnswerKind Kind, int Searches);

/// <summary>How many searches an ad group answers.</summary>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="AdGroup">Its name.</param>
/// <param name="Campaign">Name of its campaign.</param>
/// <param name="CampaignId">Its campaign.</param>
/// <param name="Searches">How many.</param>
public sealed record AnsweringGroup(long AdGroupId, string AdGroup, string Campaign, long CampaignId, int Searches);

/// <summary>What came of many searches.</summary>
/// <param name="Searches">How many there were.</param>
/// <param name="Counts">By what came of them, in the order of the kinds; those that none came to are left out.</param>
/// <param name="Groups">The ad groups that answer most, and how many searches each.</param>
/// <param name="Rows">The first of those that nothing answers, then the first of the others.</param>
public sealed record TracedTerms(
    int Searches,
    IReadOnlyList<TermCount> Counts,
    IReadOnlyList<AnsweringGroup> Groups,
    IReadOnlyList<TracedTerm> Rows
);

/// <summary>In which account, on which device and kind of site many searches are traced.</summary>
internal sealed record TermsAsked(int AccountId, string Device, string Site, TermTrace Trace, AccountToday Today);

internal static class TermEndpoints
{
    private const int MostRows = 300;
    private const int MostGroups = 50;

    public static void MapTerms(this RouteGroupBuilder account)
    {
        account
            .MapPost("/trace/terms", CountAsync)
            .WithName("traceTerms")
            .RequireRateLimiting(RequestLimits.WholeReads)
            .Needs(AccountRight.Look)
            .WithMetadata(new RequestSizeLimitAttribute(TermFile.LargestFile))
            .Accepts<Stream>("application/octet-stream");
        account
            .MapPost("/trace/terms/file", FileAsync)
            .WithName("traceTermsToFile")
            .WithMetadata(new RequestSizeLimitAttribute(TermFile.LargestFile))
            .Accepts<Stream>("application/octet-stream")
            .ExcludeFromDescription();
    }

    /// <summary>The body is the list or file as it is. What comes of its searches is counted.</summary>
    private static async Task<Ok<TracedTerms>> CountAsync(
        [AsParameters] TermsAsked asked,
        HttpContext context,
        CancellationToken cancellation
    )
    {
        var counts = new Dictionary<AnswerKind, int>();
        var groups = new Dictionary<long, AnsweringGroup>();
        var (unanswered, others) = (new List<TracedTerm>(), new List<TracedTerm>());
        await foreach (var term in await AskedAsync(asked, context, cancellation))
        {
            counts[term.Kind] = counts.GetValueOrDefault(term.Kind) + 1;
            if (term.Kind == AnswerKind.Answers)
            {
                var known =
                    groups.GetValueOrDefault(term.AdGroupId!.Value)
                    ?? new AnsweringGroup(
                        term.AdGroupId.Value,
                        term.AdGroup!,
                        term.Campaign!,
                        term.CampaignId!.Value,
                        0
                    );
                groups[known.AdGroupId] = known with { Searches = known.Searches + 1 };
            }

            var rows = term.Kind == AnswerKind.Answers ? others : unanswered;
            if (rows.Count < MostRows)
            {
                rows.Add(term);
            }
        }

        return TypedResults.Ok(
            new TracedTerms(
                counts.Values.Sum(),
                [.. counts.OrderBy(each => each.Key).Select(each => new TermCount(each.Key, each.Value))],
                [
                    .. groups
                        .Values.OrderByDescending(each => each.Searches)
                        .ThenBy(each => each.AdGroupId)
                        .Take(MostGroups),
                ],
                [.. unanswered.Concat(others).Take(MostRows)]
            )
        );
    }

    /// <summary>The same, each search a row of a CSV file.</summary>
    private static async Task FileAsync(
        [AsParameters] TermsAsked asked,
        HttpContext context,
        CancellationToken cancellation
    )
    {
        // What is wrong with the list is told before the first row goes out.
        var traced = await AskedAsync(asked, context, cancellation);
        context.Response.ContentType = "text/csv; charset=utf-8";
        context.Response.Headers.ContentDisposition = "attachment; filename=\"traced searches.csv\"";
        await using var writer = new StreamWriter(
            context.Response.Body,
            new System.Text.UTF8Encoding(encoderShouldEmitUTF8Identifier: true)
        );
        await using var csv = CsvWriter.Create(writer, new CsvWriterOptions(), leaveOpen: true);
        await csv.WriteRecordAsync(
            [
                "Search",
                "Outcome",
                "Campaign",
                "Ad group",
                "Keyword",
                "Match type",
                "Keywords that match",
                "What happens",
            ],
            cancellation
        );
        await foreach (var term in traced)
        {
            await csv.WriteRecordAsync(
                [
                    SpreadsheetCell.Guard(term.Text),
                    InWords(term.Kind),
                    SpreadsheetCell.Guard(term.Campaign ?? ""),
                    SpreadsheetCell.Guard(term.AdGroup ?? ""),
                    SpreadsheetCell.Guard(term.Keyword ?? ""),
                    term.Match is { } match ? Choices.NameOf(match) : "",
                    term.Matching.ToString(CultureInfo.InvariantCulture),
                    SpreadsheetCell.Guard(term.Told),
                ],
                cancellation
            );
        }
    }

    private static async Task<IAsyncEnumerable<TracedTerm>> AskedAsync(
        TermsAsked asked,
        HttpContext context,
        CancellationToken cancellation
    )
    {
        var (onDevice, onSite) = (
            QueryChoice.Of<Device>(asked.Device, "device")!.Value,
            QueryChoice.Of<SiteKinds>(asked.Site, "site")!.Value
        );
        var terms = await TermFile.ReadAsync(context.Request.Body, cancellation);
        if (new TraceWish(terms[0], onDevice, onSite).Problem is { } problem)
        {
            throw new InvalidChangeException(problem.Field, problem.Message);
        }

        return asked.Trace.TraceAsync(
            asked.AccountId,
            terms,
            onDevice,
            onSite,
            await asked.Today.ReadAsync(asked.AccountId, cancellation),
            cancellation
        );
    }

    private static string InWords(AnswerKind kind) =>
        kind switch
        {
            AnswerKind.Answers => "shows",
            AnswerKind.NoPayer => "no payer",
            AnswerKind.NothingMatches => "no keyword matches",
            AnswerKind.KeptByBudget => "kept away by the budget",
            AnswerKind.Blocked => "blocked by a negative",
            AnswerKind.MayNotAnswer => "matches, but may not answer",
        };
}
