using Dapper;
using Fendrik.Data.Model;
using Fendrik.Data.People;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Npgsql;

namespace Fendrik.Server.Api.People;

/// <summary>What somebody shows to sign in.</summary>
/// <param name="Email">Who they say they are.</param>
/// <param name="Password">Their password.</param>
/// <param name="Code">A code of their second factor, or a recovery code, where they have one.</param>
public sealed record SignIn(string Email, string Password, string? Code = null);

public sealed record AccountSummary(
    int Id,
    string Name,
    string Currency,
    string CurrencySign,
    int MinorUnits,
    string TimeZone,
    string NetworkName,
    string DecimalMark,
    AccountRole Role,
    bool MayChange,
    bool MayPublish,
    bool MayInvite,
    bool IsArchived
);

/// <summary>Who is signed in, with a token that requests that change something must carry.</summary>
public sealed record Session(string? Person, string? Initials, string Token, IReadOnlyList<AccountSummary> Accounts);

internal static class SessionEndpoints
{
    private const string CodeMissing = "Type the code that your device shows, or a recovery code.";

    public static void MapSession(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/session", ReadAsync).AllowAnonymous().WithName("readSession");
        routes
            .MapPost("/api/session", SignInAsync)
            .AllowAnonymous()
            .AddEndpointFilter(AccountAccess.OnlyWithTokenAsync)
            .WithName("signIn")
            .RequireRateLimiting(RequestLimits.Entrance);
        routes
            .MapDelete("/api/session", SignOutAsync)
            .RequireAuthorization()
            .AddEndpointFilter(AccountAccess.OnlyWithTokenAsync)
            .WithName("signOut");
    }

    private static async Task<Ok<Session>> ReadAsync(
        HttpContext context,
        IAntiforgery antiforgery,
        UserManager<Person> people,
        NpgsqlDataSource source
    )
    {
        var token = antiforgery.GetAndStoreTokens(context).RequestToken!;
        var person = context.User.Identity?.IsAuthenticated == true ? await people.GetUserAsync(context.User) : null;
        if (person is null)
        {
            return TypedResults.Ok(new Session(null, null, token, []));
        }

        await using var connection = await source.OpenConnectionAsync();
        var accounts = await connection.QueryAsync<(
            int Id,
            string Name,
            string Currency,
            string TimeZone,
            string NetworkId,
            string Language,
            AccountRole Role,
            bool IsArchived
        )>(
            "select a.id, a.name, a.currency, a.time_zone, a.network_id, a.language, m.role, a.archived_at is not null from account a join account_member m on m.account_id = a.id where m.person_id = @Id order by a.name",
            new { person.Id }
        );
        return TypedResults.Ok(
            new Session(
                person.DisplayName,
                Initials(person.DisplayName),
                token,
                [
                    .. accounts.Select(account =>
                    {
                        var currency = Core.Accounts.Currency.Of(account.Currency);
                        return new AccountSummary(
                            account.Id,
                            account.Name,
                            currency.Code,
                            currency.Sign,
                            currency.MinorUnits,
                            account.TimeZone,
                            NetworkProfile.Of(account.NetworkId).Name,
                            Core.Accounts.AccountLanguage.Of(account.Language).DecimalMark.ToString(),
                            account.Role,
                            account.Role.May(AccountRight.Change) && !account.IsArchived,
                            account.Role.May(AccountRight.Publish) && !account.IsArchived,
                            account.Role.May(AccountRight.People),
                            account.IsArchived
                        );
                    }),
                ]
            )
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SignInAsync(
        SignIn signIn,
        SignInManager<Person> manager,
        PasswordDesk desk,
        SignInBook book,
        HttpContext context,
        CancellationToken cancellation
    )
    {
        if (context.User.Identity?.IsAuthenticated == true)
        {
            // A sign-in keeps its key: whoever has a copy of it from before must not become somebody else by it.
            await manager.SignOutAsync();
            const string Again = "Somebody was signed in here. They are signed out now: sign in once more.";
            return TypedResults.Problem(Again, statusCode: StatusCodes.Status409Conflict, title: Again);
        }

        var showing = await desk.LookAsync(
            signIn.Email ?? "",
            signIn.Password ?? "",
            signIn.Code,
            context,
            cancellation
        );
        if (showing is { Person.Id: { } personId, How: Shown.Right or Shown.Wrong })
        {
            // Somebody who is there learns of it; of others nothing is written down. It is written when the answer is gone: the time it takes tells nothing.
            var address = SignInTickets.AddressOf(context);
            var browser = context.Request.Headers.UserAgent.ToString();
            context.Response.OnCompleted(() =>
                book.LogAsync(personId, showing.How == Shown.Right, address, browser, CancellationToken.None)
            );
        }

        if (showing.How == Shown.Right)
        {
            await manager.SignInAsync(showing.Person!, isPersistent: true);
        }

        if (showing.How == Shown.Waits)
        {
            context.Response.Headers.RetryAfter = $"{Math.Ceiling(showing.Wait.TotalSeconds)}";
        }

        return showing.How switch
        {
            Shown.Right => TypedResults.NoContent(),
            Shown.NeedsCode => TypedResults.Problem(
                title: CodeMissing,
                statusCode: StatusCodes.Status401Unauthorized,
                extensions: new Dictionary<string, object?>
                {
                    ["errors"] = new Dictionary<string, string[]> { ["code"] = [CodeMissing] },
                }
            ),
            Shown.Waits => TypedResults.Problem(
                title: showing.WaitText,
                statusCode: StatusCodes.Status429TooManyRequests
            ),
            Shown.Wrong => TypedResults.Problem(
                title: string.IsNullOrWhiteSpace(signIn.Code)
                    ? "The e-mail address or the password is not right."
                    : "The e-mail address, the password or the code is not right.",
                statusCode: StatusCodes.Status401Unauthorized
            ),
        };
    }

    private static async Task<NoContent> SignOutAsync(SignInManager<Person> manager)
    {
        await manager.SignOutAsync();
        return TypedResults.NoContent();
    }

    private static string Initials(string name) =>
        string.Concat(
            name.Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .Take(2)
                .Select(part => char.ToUpperInvariant(part[0]))
        );
}
