using Fendrik.Core.Networks;
using Fendrik.Data.Accounts;
using Fendrik.Data.Model;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Fendrik.Server.Jobs;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.People;

/// <summary>A network that an account can be on.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Name">What it is called.</param>
public sealed record NetworkChoice(string Id, string Name);

/// <summary>What can be chosen for a new account.</summary>
/// <param name="Networks">The networks.</param>
/// <param name="Currencies">Currencies, by their codes.</param>
/// <param name="TimeZones">Time zones.</param>
public sealed record AccountChoices(
    IReadOnlyList<NetworkChoice> Networks,
    IReadOnlyList<string> Currencies,
    IReadOnlyList<string> TimeZones
);

/// <summary>An account that was made or connected.</summary>
/// <param name="AccountId">Its identity.</param>
/// <param name="JobId">What reads it; none where there is nothing to read.</param>
public sealed record MadeAccount(int AccountId, long? JobId);

/// <summary>A new name.</summary>
/// <param name="Name">The name.</param>
public sealed record AccountName(string Name);

/// <summary>Whether an account is put away.</summary>
/// <param name="Archived">True for put away.</param>
public sealed record AccountArchived(bool Archived);

/// <summary>Accounts are made, connected, renamed, put away and brought back.</summary>
internal static class AccountEndpoints
{
    public static void MapAccounts(this IEndpointRouteBuilder routes)
    {
        var accounts = routes
            .MapGroup("/api/accounts")
            .RequireAuthorization()
            .AddEndpointFilter(AccountAccess.OnlyWithTokenAsync);
        accounts.MapGet("/choices", Choices).WithName("readAccountChoices");
        accounts.MapPost("", MakeAsync).WithName("makeAccount").RequireRateLimiting(RequestLimits.Uploads);
        accounts
            .MapPost("/openings", OpenAsync)
            .WithName("openNetworkAccounts")
            .RequireRateLimiting(RequestLimits.Entrance);
        accounts
            .MapPost("/connected", ConnectAsync)
            .WithName("connectAccount")
            .RequireRateLimiting(RequestLimits.Entrance);
    }

    public static void MapAccountItself(this RouteGroupBuilder account)
    {
        account.MapPut("/name", RenameAsync).WithName("renameAccount").Needs(AccountRight.People);
        account.MapPut("/archived", ArchiveAsync).WithName("archiveAccount").Needs(AccountRight.People);
    }

    private static Ok<AccountChoices> Choices() =>
        TypedResults.Ok(
            new AccountChoices(
                [.. NetworkProfile.All.Select(each => new NetworkChoice(each.Key, each.Value.Name))],
                [.. Currency.Codes.Order(StringComparer.Ordinal)],
                NewAccount.TimeZones
            )
        );

    private static async Task<Ok<MadeAccount>> MakeAsync(
        NewAccount body,
        HttpContext context,
        AccountRegister register,
        SearchNetworks networks,
        TimeProvider clock,
        CancellationToken cancellation
    )
    {
        var payer = string.IsNullOrWhiteSpace(body.Payer) ? null : body.Payer.Trim();
        var account = body with { Payer = payer };
        var now = clock.GetUtcNow();
        var id = await register.AddAsync(
            account,
            null,
            context.User.PersonId(),
            made =>
                networks
                    .Of(account.NetworkId)
                    .SetUpAsync(
                        new AccountRow
                        {
                            Id = made,
                            Name = account.Name,
                            Currency = account.Currency,
                            TimeZone = account.TimeZone,
                            NetworkId = account.NetworkId,
                            Payer = payer,
                        },
                        // The network's clock moves by whole hours.
                        new DateTimeOffset(now.Year, now.Month, now.Day, now.Hour, 0, 0, TimeSpan.Zero),
                        made,
                        cancellation
                    ),
            null,
            cancellation
        );
        return TypedResults.Ok(new MadeAccount(id, null));
    }

    private static async Task<Ok<IReadOnlyList<NetworkAccountOffer>>> OpenAsync(
        AccountOpening body,
        NetworkDirectory directory,
        CancellationToken cancellation
    ) => TypedResults.Ok(await directory.OpenAsync(body, cancellation));

    private static async Task<Ok<MadeAccount>> ConnectAsync(
        AccountLink body,
        HttpContext context,
        NetworkDirectory directory,
        AccountRegister register,
        JobDesk jobs,
        JobBell bell,
        CancellationToken cancellation
    )
    {
        var offers = await directory.OpenAsync(new AccountOpening(body.Network, body.Code), cancellation);
        var offer =
            offers.FirstOrDefault(each => each.Id == body.Account)
            ?? throw new InvalidChangeException("account", "Choose one of the accounts that the code opens.");
        long? job = null;
        var id = await register.AddAsync(
            new NewAccount(
                offer.Name.Length > NewAccount.LongestName ? offer.Name[..NewAccount.LongestName] : offer.Name,
                offer.Currency,
                offer.TimeZone,
                body.Network,
                offer.Payer
            ),
            offer.Id,
            context.User.PersonId(),
            made => directory.LinkAsync(made, body, cancellation),
            async (connection, made) =>
                job = await jobs.BeginAsync(connection, new JobOrder(made, context.User.PersonId(), JobKind.Connect)),
            cancellation
        );
        bell.Ring(JobKind.Connect.Lane());
        return TypedResults.Ok(new MadeAccount(id, job));
    }

    private static async Task<NoContent> RenameAsync(
        int accountId,
        AccountName body,
        AccountRegister register,
        CancellationToken cancellation
    )
    {
        await register.RenameAsync(accountId, body.Name, cancellation);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> ArchiveAsync(
        int accountId,
        AccountArchived body,
        AccountRegister register,
        CancellationToken cancellation
    )
    {
        await register.ArchiveAsync(accountId, body.Archived, cancellation);
        return TypedResults.NoContent();
    }
}
