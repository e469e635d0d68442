using System.Globalization;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;
using Fendrik.Data.Steps;
using Fendrik.Data.Tracing;
using Fendrik.Data.Writing;
using Fendrik.Server.Access;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Tracing;

/// <summary>Which copy of the account a search is traced in.</summary>
public enum TracedCopy
{
    /// <summary>What is being edited.</summary>
    Working = 1,

    /// <summary>What the network serves.</summary>
    Live = 2,
}

/// <summary>A search to be traced.</summary>
/// <param name="Text">What is typed: 1 to 400 characters.</param>
/// <param name="Device">On which device.</param>
/// <param name="Site">On which kind of site; just one.</param>
/// <param name="Copy">In which copy.</param>
/// <param name="Day">For the working copy: on which day; none for the network's today.</param>
/// <param name="Place">For the live copy: where the person is; none for nowhere in particular.</param>
/// <param name="Hour">For the live copy: hour of the account's clock, 0 to 23; none for now.</param>
/// <param name="Page">The page of a content site; none for none in particular.</param>
/// <param name="Audiences">Audiences that the person is of; none for none.</param>
/// <param name="Language">The person's language, by its English name or a tag; none for any.</param>
public sealed record TraceRequest(
    string Text,
    Device Device,
    SiteKinds Site,
    TracedCopy Copy,
    DateOnly? Day = null,
    string? Place = null,
    int? Hour = null,
    string? Page = null,
    IReadOnlyList<string>? Audiences = null,
    string? Language = null
);

internal static class TraceEndpoints
{
    private const int MostSamples = 60;
    private static readonly SiteValue Page = new();

    public static void MapTrace(this RouteGroupBuilder account)
    {
        account.MapPost("/trace", TraceAsync).WithName("traceSearch").Needs(AccountRight.Look);
        account.MapGet("/trace/places", PlacesAsync).WithName("tracePlaces");
        account.MapGet("/trace/past", SamplesAsync).WithName("pastSearches");
        account.MapGet("/trace/past/{search}", PastAsync).WithName("tracePastSearch");
    }

    /// <summary>Where a search may be made.</summary>
    private static async Task<Ok<IReadOnlyList<NetworkPlace>>> PlacesAsync(
        int accountId,
        SearchNetworks networks,
        CancellationToken cancellation
    ) => TypedResults.Ok(await (await networks.OfAccountAsync(accountId, cancellation)).PlacesAsync(cancellation));

    /// <summary>Searches of a day of the past, to be opened.</summary>
    private static async Task<Ok<IReadOnlyList<SampleSearch>>> SamplesAsync(
        int accountId,
        DateOnly day,
        string? fate,
        long? keywordId,
        string? term,
        SearchNetworks networks,
        CancellationToken cancellation
    )
    {
        if (term is { Length: > TraceWish.LongestText })
        {
            throw new InvalidChangeException("term", $"A search has at most {TraceWish.LongestText} characters.");
        }

        var network = await networks.OfAccountAsync(accountId, cancellation);
        return TypedResults.Ok(
            await network.SamplesAsync(
                accountId,
                new SampleQuestion(day, QueryChoice.Of<SearchFate>(fate, "fate"), keywordId, term, MostSamples),
                cancellation
            )
        );
    }

    private static async Task<Results<Ok<SearchTrace>, NotFound>> PastAsync(
        int accountId,
        string search,
        SearchNetworks networks,
        IdeaBank ideas,
        CancellationToken cancellation
    )
    {
        // Names of searches are greater than the numbers that a browser can hold.
        if (!long.TryParse(search, NumberStyles.None, CultureInfo.InvariantCulture, out var name))
        {
            return TypedResults.NotFound();
        }

        var network = await networks.OfAccountAsync(accountId, cancellation);
        if (await network.PastTraceAsync(accountId, name, cancellation) is not { } trace)
        {
            return TypedResults.NotFound();
        }

        await ideas.NoteAsync(accountId, trace, cancellation);
        return TypedResults.Ok(trace);
    }

    private static async Task<Ok<SearchTrace>> TraceAsync(
        int accountId,
        TraceRequest request,
        WorkingCopyTrace workingCopy,
        SearchNetworks networks,
        AccountToday today,
        IdeaBank ideas,
        CancellationToken cancellation
    )
    {
        var wish = new TraceWish(
            request.Text.Trim(),
            request.Device,
            request.Site,
            request.Place,
            request.Hour,
            PageOf(request),
            request.Audiences,
            request.Language
        );
        if (wish.Problem is { } problem)
        {
            throw new InvalidChangeException(problem.Field, problem.Message);
        }

        var network = await networks.OfAccountAsync(accountId, cancellation);
        if (wish.Place is { } place && (await network.PlacesAsync(cancellation)).All(each => each.Name != place))
        {
            throw new InvalidChangeException("place", $"The network knows no place “{place}”.");
        }

        var trace = request.Copy switch
        {
            TracedCopy.Working => await workingCopy.TraceAsync(
                accountId,
                wish,
                request.Day ?? await today.ReadAsync(accountId, cancellation),
                cancellation
            ),
            TracedCopy.Live => await network.TraceAsync(accountId, wish, cancellation),
        };
        await ideas.NoteAsync(accountId, trace, cancellation);
        return TypedResults.Ok(trace);
    }

    /// <summary>The page of a content site as placements have it; elsewhere there is none.</summary>
    private static string? PageOf(TraceRequest request)
    {
        if (request.Site != SiteKinds.Content || string.IsNullOrWhiteSpace(request.Page))
        {
            return null;
        }

        var read = Page.Read(request.Page.Trim(), ReadingGround.Plain(Currency.Of("GBP")));
        return read.Problem is { } problem
            ? throw new InvalidChangeException("page", $"The page {problem}.")
            : (string)read.Value!;
    }
}
