using Fendrik.Core.Networks;
using Fendrik.Data.Accounts;
using Fendrik.Server.Access;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Writing;

/// <summary>Asks for another reader of what reviewers refused.</summary>
internal static class AppealEndpoints
{
    public static void MapAppeals(this RouteGroupBuilder account) =>
        account.MapPost("/appeals", AppealAsync).WithName("appeal").Needs(AccountRight.Publish);

    private static async Task<NoContent> AppealAsync(
        int accountId,
        Appeal request,
        SearchNetworks networks,
        LiveCopy live,
        CancellationToken cancellation
    )
    {
        var appeal = request with { Word = request.Word?.Trim() ?? "" };
        if (appeal.Problem is { } problem)
        {
            throw new InvalidChangeException("word", problem);
        }

        var network = await networks.OfAccountAsync(accountId, cancellation);
        var answer = await network.AppealAsync(accountId, appeal, cancellation);
        await live.ReadReviewsAsync(accountId, cancellation);
        return answer switch
        {
            AppealAnswer.Taken => TypedResults.NoContent(),
            AppealAnswer.NotRefused => throw new InvalidChangeException(
                "word",
                "It is not refused any more. What the network says of it was read anew."
            ),
            AppealAnswer.ReadAgainBefore => throw new InvalidChangeException(
                "word",
                "Another reviewer has read it already. Change the text, and publish it again."
            ),
        };
    }
}
