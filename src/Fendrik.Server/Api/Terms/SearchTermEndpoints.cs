using System.Globalization;
using CsvHelper;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Core.Reporting;
using Fendrik.Data.Accounts;
using Fendrik.Data.Commands;
using Fendrik.Data.Results;
using Fendrik.Data.Terms;
using Fendrik.Server.Access;
using Fendrik.Server.Api.Pricing;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Terms;

/// <summary>Chosen search terms.</summary>
/// <param name="Weeks">Weeks of figures.</param>
/// <param name="Terms">The terms.</param>
public sealed record ChosenTerms(int Weeks, IReadOnlyList<string> Terms);

/// <summary>Negatives that are thought of.</summary>
/// <param name="Weeks">Weeks in which they are tried.</param>
/// <param name="Lines">The negatives, one on each line.</param>
/// <param name="Match">Match type of bare words.</param>
/// <param name="Places">Where they are to stand.</param>
public sealed record NegativesThoughtOf(int Weeks, string Lines, MatchType Match, ItemPlaces Places);

/// <summary>What people typed, and what becomes of it.</summary>
internal static class SearchTermEndpoints
{
    public static void MapSearchTerms(this RouteGroupBuilder account)
    {
        account.MapPost("/terms", ReadAsync).WithName("readSearchTerms").Needs(AccountRight.Look);
        account.MapGet("/terms/words", WordsAsync).WithName("readTermWords");
        account.MapPost("/terms/proposal", ProposalAsync).WithName("proposeForTerms").Needs(AccountRight.Look);
        account.MapPost("/terms/negatives", NegativesAsync).WithName("forecastNegatives").Needs(AccountRight.Look);
        account
            .MapPost("/terms/file", FileAsync)
            .WithName("exportSearchTerms")
            .RequireRateLimiting(RequestLimits.WholeReads)
            .Needs(AccountRight.Look)
            .Produces(StatusCodes.Status200OK, contentType: "text/csv");
    }

    /// <summary>No page before anything was reported.</summary>
    private static async Task<Results<Ok<TermPage>, NoContent>> ReadAsync(
        int accountId,
        TermRequest request,
        TermReader reader,
        PerformanceStore store,
        CancellationToken cancellation
    ) =>
        await ScopeAsync(store, accountId, request.Weeks, cancellation, request.CampaignId, request.AdGroupId)
            is { } scope
            ? TypedResults.Ok(await reader.ReadAsync(scope, request, cancellation))
            : TypedResults.NoContent();

    private static async Task<Ok<IReadOnlyList<TermWord>>> WordsAsync(
        int accountId,
        int weeks,
        int size,
        long? campaignId,
        long? adGroupId,
        bool? unsold,
        TermReader reader,
        PerformanceStore store,
        CancellationToken cancellation
    )
    {
        if (size is < 1 or > 3)
        {
            throw new InvalidChangeException("size", "Choose single words, pairs or threes.");
        }

        return TypedResults.Ok(
            await ScopeAsync(store, accountId, weeks, cancellation, campaignId, adGroupId) is { } scope
                ? await reader.WordsAsync(scope, size, unsold == true, cancellation)
                : []
        );
    }

    private static async Task<Ok<TermsProposal>> ProposalAsync(
        int accountId,
        ChosenTerms request,
        TermProposals proposals,
        PerformanceStore store,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok(
            await ScopeAsync(store, accountId, request.Weeks, cancellation) is { } scope
                ? await proposals.FindAsync(scope, request.Terms, cancellation)
                : new TermsProposal([], [], [], [])
        );

    private static async Task<Ok<NegativeOutlook>> NegativesAsync(
        int accountId,
        NegativesThoughtOf request,
        NegativeForecast forecast,
        PerformanceStore store,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok(
            await ScopeAsync(store, accountId, request.Weeks, cancellation) is { } scope
                ? await forecast.OfAsync(scope, request.Lines, request.Match, request.Places, cancellation)
                : new NegativeOutlook(0, [], Figures.Zero, 0, [])
        );

    /// <summary>All terms that the filter lets through, as rows of a CSV file.</summary>
    private static async Task FileAsync(
        int accountId,
        TermRequest request,
        TermReader reader,
        PerformanceStore store,
        HttpContext context,
        CancellationToken cancellation
    )
    {
        var scope = await ScopeAsync(
            store,
            accountId,
            request.Weeks,
            cancellation,
            request.CampaignId,
            request.AdGroupId
        );
        // What is wrong with the filter is told before the first row goes out.
        if (scope is not null)
        {
            await reader.ReadAsync(scope, request with { Offset = 0, Limit = 1 }, cancellation);
        }

        await using var writer = CsvAnswer.Begin(context, "search terms.csv");
        await using var csv = CsvWriter.Create(writer, new CsvWriterOptions(), leaveOpen: true);
        await csv.WriteRecordAsync(
            [
                "Search term",
                "Campaigns",
                "Ad groups",
                "Keyword",
                "Match type",
                "Impressions",
                "Clicks",
                "Cost",
                "Conversions",
                "Value",
                "First seen",
                "Decided",
            ],
            cancellation
        );
        if (scope is null)
        {
            return;
        }

        await foreach (var row in reader.AllAsync(scope, request, cancellation))
        {
            await csv.WriteRecordAsync(CellsOf(row), cancellation);
        }
    }

    private static string[] CellsOf(SearchTerm term)
    {
        static string Number(decimal number) => number.ToString(CultureInfo.InvariantCulture);
        string Names(Func<TermPart, string?> of) =>
            SpreadsheetCell.Guard(string.Join("; ", term.Parts.Select(of).Where(name => name is not null).Distinct()));
        var first = term.Parts.Count > 0 ? term.Parts[0] : null;
        return
        [
            SpreadsheetCell.Guard(term.Term),
            Names(part => part.Campaign),
            Names(part => part.AdGroup),
            SpreadsheetCell.Guard(first?.Keyword ?? ""),
            first?.Match is { } match ? Choices.NameOf(match) : "",
            Number(term.Figures.Impressions),
            Number(term.Figures.Clicks),
            Number(term.Figures.Cost),
            Number(term.Figures.Conversions),
            Number(term.Figures.Value),
            term.FirstSeen.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            SpreadsheetCell.Guard(term.Said ?? (term.BlockedBy is { } by ? $"negative {by}" : "")),
        ];
    }

    private static async Task<TermScope?> ScopeAsync(
        PerformanceStore store,
        int accountId,
        int weeks,
        CancellationToken cancellation,
        long? campaignId = null,
        long? adGroupId = null
    ) =>
        await PricingPeriod.OfAsync(store, accountId, weeks, cancellation) is { } days
            ? new TermScope(accountId, days, campaignId, adGroupId)
            : null;
}
