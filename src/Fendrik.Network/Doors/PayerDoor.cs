using Fendrik.Core.Networks;
using Fendrik.Network.Serving;

namespace Fendrik.Network.Doors;

/// <summary>Where it is said who pays an account.</summary>
internal static class PayerDoor
{
    public static void Map(RouteGroupBuilder account)
    {
        account.MapGet("/payer", ReadAsync);
        account.MapPut("/payer", SetAsync);
    }

    private static async Task<IResult> ReadAsync(string accountId, NetworkStore store, CancellationToken cancellation)
    {
        await using var connection = await store.OpenAsync(cancellation);
        return await NetworkStore.FindAsync(connection, accountId) is null
            ? Results.NotFound()
            : Results.Ok(new AccountPayer(await Payers.AtAsync(connection, accountId)));
    }

    private static async Task<IResult> SetAsync(
        string accountId,
        AccountPayer payer,
        NetworkStore store,
        CancellationToken cancellation
    )
    {
        if (payer.Problem is { } problem)
        {
            return Results.Problem(problem, statusCode: StatusCodes.Status400BadRequest);
        }

        await using var connection = await store.OpenAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        if (await NetworkStore.FindAsync(connection, accountId, locking: true) is not { } account)
        {
            return Results.NotFound();
        }

        await Payers.SetAsync(connection, account, payer.Name);
        await transaction.CommitAsync(cancellation);
        return Results.NoContent();
    }
}
