using Fendrik.Core.Bidding;
using Fendrik.Core.Serving;
using Fendrik.Network.Serving;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Doors;

/// <summary>Explains searches: one that is asked about, one of the past, and samples of the past to choose from.</summary>
internal static class SearchDoor
{
    /// <summary>Most samples at once.</summary>
    public const int MostSamples = 200;

    public static void Map(RouteGroupBuilder account)
    {
        account.AddEndpointFilter(
            async (context, next) =>
            {
                try
                {
                    return await next(context);
                }
                catch (PastGoneException gone)
                {
                    return Results.Problem(gone.Message, statusCode: StatusCodes.Status410Gone);
                }
            }
        );
        account.MapPost("/traces", TraceAsync);
        account.MapGet("/searches/{name:long}/trace", PastAsync);
        account.MapGet("/searches", SamplesAsync);
        account.MapPost("/estimates", EstimateAsync);
    }

    private static async Task<IResult> EstimateAsync(
        string accountId,
        EstimateWish wish,
        EstimateDesk desk,
        CancellationToken cancellation
    )
    {
        // What any account may ask for at once is the profile's business; more than the most of all is never looked at.
        var most = NetworkProfile.All.Values.Max(each => each.EstimatesAtOnce);
        return wish.Keywords.Count > most
                ? Results.Problem($"At most {most} keywords at once.", statusCode: StatusCodes.Status400BadRequest)
            : wish.Bids.Count is 0 or > EstimateWish.MostBids
            || wish.Bids.Any(bid => bid <= 0 || bid > BidChange.Ceiling)
                ? Results.Problem(
                    $"Ask for 1 to {EstimateWish.MostBids} bids above 0.",
                    statusCode: StatusCodes.Status400BadRequest
                )
            : await desk.EstimateAsync(accountId, wish, cancellation) is { } estimates ? Results.Ok(estimates)
            : Results.NotFound();
    }

    private static async Task<IResult> TraceAsync(
        string accountId,
        TraceWish wish,
        TraceDesk desk,
        CancellationToken cancellation
    ) =>
        wish.Place is { } place && World.Shipped.Places.All(each => each.Name != place)
            ? Results.Problem($"There is no place “{place}” here.", statusCode: StatusCodes.Status400BadRequest)
        : wish.Problem is { } problem ? Results.Problem(problem.Message, statusCode: StatusCodes.Status400BadRequest)
        : await desk.TraceAsync(accountId, wish, cancellation) is { } trace ? Results.Ok(trace)
        : Results.NotFound();

    private static async Task<IResult> PastAsync(
        string accountId,
        long name,
        TraceDesk desk,
        CancellationToken cancellation
    ) => await desk.PastAsync(accountId, name, cancellation) is { } trace ? Results.Ok(trace) : Results.NotFound();

    /// <summary>Searches of a day: by what became of them, by the keyword, or by what was typed.</summary>
    private static async Task<IResult> SamplesAsync(
        string accountId,
        DateOnly day,
        SearchFate? fate,
        long? keyword,
        string? term,
        int? most,
        SampleDesk desk,
        CancellationToken cancellation
    ) =>
        fate is { } asked && !Enum.IsDefined(asked)
            ? Results.Problem("There is no such fate.", statusCode: StatusCodes.Status400BadRequest)
        : await desk.ReadAsync(
            accountId,
            new SampleWish(day, fate, keyword, term, Math.Clamp(most ?? 50, 1, MostSamples)),
            cancellation
        )
            is { } samples
            ? Results.Ok(samples)
        : Results.NotFound();
}
