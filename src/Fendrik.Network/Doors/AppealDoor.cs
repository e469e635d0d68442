using Dapper;
using Fendrik.Core.Networks;
using Fendrik.Network.Serving;

namespace Fendrik.Network.Doors;

/// <summary>Where somebody asks for another reader of what was refused.</summary>
internal static class AppealDoor
{
    public static void Map(RouteGroupBuilder account) => account.MapPost("/appeals", AppealAsync);

    private static async Task<IResult> AppealAsync(
        string accountId,
        Appeal appeal,
        NetworkStore store,
        CancellationToken cancellation
    )
    {
        if (appeal.Problem is { } problem)
        {
            return Results.Problem(problem, statusCode: StatusCodes.Status400BadRequest);
        }

        await using var connection = await store.OpenAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        if (await NetworkStore.FindAsync(connection, accountId, locking: true) is not { } account)
        {
            return Results.NotFound();
        }

        var item = await connection.QueryFirstOrDefaultAsync<(short Review, bool Appealed)?>(
            "select review, appealed from item where account_id = @accountId and kind = @kind and item_id = @ItemId",
            new
            {
                accountId,
                kind = (short)appeal.Kind,
                appeal.ItemId,
            }
        );
        var answer =
            item is not (var review, var appealed) || review != (short)ReviewState.Refused ? AppealAnswer.NotRefused
            : appealed ? AppealAnswer.ReadAgainBefore
            : AppealAnswer.Taken;
        if (answer == AppealAnswer.Taken)
        {
            await Reviewers.ReadAgainAsync(connection, account, appeal.Kind, appeal.ItemId);
        }

        await transaction.CommitAsync(cancellation);
        return Results.Ok(answer);
    }
}
