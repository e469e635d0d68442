using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Networks;
using Fendrik.Network.Customers;
using Fendrik.Network.Serving;

namespace Fendrik.Network.Doors;

/// <summary>Where customers of the network let a tool into accounts that they have.</summary>
internal static class CustomerDoor
{
    public static void Map(WebApplication app, RouteGroupBuilder account)
    {
        app.MapPost("/v1/openings", OpenAsync);
        account.MapPut("/link", LinkAsync);
    }

    private static CustomerAccount[] Opened(string network, string code) =>
        [
            .. Customer
                .All.Where(customer => string.Equals(customer.Code, code.Trim(), StringComparison.OrdinalIgnoreCase))
                .SelectMany(customer => customer.Accounts)
                .Where(each => each.Network == network),
        ];

    private static async Task<IResult> OpenAsync(
        AccountOpening opening,
        NetworkStore store,
        ChangeReceiver receiver,
        ClockMover clock,
        CancellationToken cancellation
    )
    {
        if (Opened(opening.Network, opening.Code) is not { Length: > 0 } accounts)
        {
            return Results.Problem("This code opens nothing here.", statusCode: StatusCodes.Status404NotFound);
        }

        List<NetworkAccountOffer> offers = [];
        foreach (var each in accounts)
        {
            await RunUpToNowAsync(each, store, receiver, clock, cancellation);
            offers.Add(await OfferAsync(each, store, cancellation));
        }

        return Results.Ok(offers);
    }

    private static async Task<IResult> LinkAsync(
        string accountId,
        AccountLink link,
        AccountLinks links,
        CancellationToken cancellation
    ) =>
        Opened(link.Network, link.Code).All(each => each.Id != link.Account)
            ? Results.Problem("This code opens no such account.", statusCode: StatusCodes.Status404NotFound)
        : await links.LinkAsync(accountId, link.Account, cancellation) ? Results.NoContent()
        : Results.Problem("The name stands for another account.", statusCode: StatusCodes.Status409Conflict);

    /// <summary>What has happened in the account before anybody looked: it is played when somebody first does, once.</summary>
    private static async Task RunUpToNowAsync(
        CustomerAccount customer,
        NetworkStore store,
        ChangeReceiver receiver,
        ClockMover clock,
        CancellationToken cancellation
    )
    {
        await using var connection = await store.OpenAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        // Of two who look first at once, one waits.
        await connection.ExecuteAsync("select pg_advisory_xact_lock(hashtext(@Id))", new { customer.Id });
        await AccountSetUps.MakeAsync(
            store,
            customer.Id,
            new AccountSetUp(
                customer.Network,
                customer.Currency,
                customer.TimeZone,
                customer.StartAt,
                customer.Seed,
                customer.Payer
            ),
            cancellation
        );
        await receiver.ReceiveAsync(customer.Id, "brought-along", customer.Changes(), null, cancellation);
        var account = await NetworkStore.FindAsync(connection, customer.Id);
        var left = (int)(customer.StartAt.AddHours(customer.Hours) - account!.Clock).TotalHours;
        if (left > 0)
        {
            await clock.AdvanceAsync(customer.Id, left, cancellation);
        }
    }

    private static async Task<NetworkAccountOffer> OfferAsync(
        CustomerAccount customer,
        NetworkStore store,
        CancellationToken cancellation
    )
    {
        await using var connection = await store.OpenAsync(cancellation);
        var account = await NetworkStore.FindAsync(connection, customer.Id);
        var counts = (
            await connection.QueryAsync<(short Kind, int Items)>(
                "select kind, count(*)::int from item where account_id = @Id group by kind",
                new { customer.Id }
            )
        ).ToDictionary(each => (ItemKind)each.Kind, each => each.Items);
        return new NetworkAccountOffer(
            customer.Id,
            customer.Name,
            customer.Currency,
            customer.TimeZone,
            await Payers.AtAsync(connection, customer.Id),
            counts.GetValueOrDefault(ItemKind.Campaign),
            counts.GetValueOrDefault(ItemKind.AdGroup),
            counts.GetValueOrDefault(ItemKind.Keyword),
            [
                .. customer.Writers.Select(writer => new OtherWriter(
                    writer.Name,
                    account!.Clock.AddHours(-writer.HoursBefore)
                )),
            ]
        );
    }
}
