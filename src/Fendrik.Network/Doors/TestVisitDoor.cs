using System.Security.Cryptography;
using Fendrik.Core.Networks;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Network.Serving;
using Fendrik.Network.Simulation;
using Fendrik.Network.Simulation.Counting;

namespace Fendrik.Network.Doors;

/// <summary>Where a test click is asked for, and told what came of it. What is tested is in no report.</summary>
internal static class TestVisitDoor
{
    /// <summary>No search of people has a name so high.</summary>
    private const ulong Test = 1UL << 63;

    public static void Map(RouteGroupBuilder account)
    {
        account.MapPost("/test-clicks", ClickAsync);
        account.MapPost("/test-clicks/told", TellAsync);
    }

    private static async Task<IResult> ClickAsync(string accountId, NetworkStore store, CancellationToken cancellation)
    {
        await using var connection = await store.OpenAsync(cancellation);
        return await NetworkStore.FindAsync(connection, accountId) is { } account
            ? Results.Ok(ClickIds.Of(account.Seed, Test | (uint)RandomNumberGenerator.GetInt32(int.MaxValue)))
            : Results.NotFound();
    }

    private static async Task<IResult> TellAsync(
        string accountId,
        ToldEvent told,
        NetworkStore store,
        CancellationToken cancellation
    )
    {
        await using var connection = await store.OpenAsync(cancellation);
        if (await NetworkStore.FindAsync(connection, accountId) is not { } account)
        {
            return Results.NotFound();
        }

        if (told.ClickId is not { } id || ClickIds.SearchOf(account.Seed, id) is not { } search || (search & Test) == 0)
        {
            return Results.Ok(new ToldAnswer(false, []));
        }

        var live = await LiveAccounts.ReadAsync(connection, account);
        var done = new TrackedEvent(told.Source, told.Address, told.Seconds, 0, account.Clock);
        return Results.Ok(
            new ToldAnswer(
                true,
                [
                    .. live
                        .Goals.Actions.Where(action =>
                            ConversionRule.Of(action, done, account.Clock) == NotCounted.Counts
                        )
                        .Select(action => action.Id),
                ]
            )
        );
    }
}
