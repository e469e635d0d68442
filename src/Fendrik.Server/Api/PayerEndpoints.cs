using Fendrik.Core.Networks;
using Fendrik.Data.Accounts;
using Fendrik.Server.Access;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api;

/// <summary>Who pays the account on its network.</summary>
internal static class PayerEndpoints
{
    public static void MapPayer(this RouteGroupBuilder account)
    {
        account.MapGet("/payer", ReadAsync).WithName("readPayer");
        account.MapPut("/payer", SetAsync).WithName("setPayer").Needs(AccountRight.Publish);
    }

    private static async Task<Ok<AccountPayer>> ReadAsync(
        int accountId,
        SearchNetworks networks,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok(
            await (await networks.OfAccountAsync(accountId, cancellation)).PayerAsync(accountId, cancellation)
        );

    /// <summary>Names another payer, or none: then nothing of the account serves from now on.</summary>
    private static async Task<Ok<AccountPayer>> SetAsync(
        int accountId,
        AccountPayer request,
        SearchNetworks networks,
        LiveCopy live,
        CancellationToken cancellation
    )
    {
        var payer = new AccountPayer(request.Name?.Trim());
        if (payer.Problem is { } problem)
        {
            throw new InvalidChangeException("name", problem);
        }

        await (await networks.OfAccountAsync(accountId, cancellation)).SetPayerAsync(accountId, payer, cancellation);
        await live.ReadReviewsAsync(accountId, cancellation);
        return TypedResults.Ok(payer);
    }
}
