using Fendrik.Data.Model;
using Fendrik.Data.People;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;

namespace Fendrik.Server.Api.People;

/// <summary>What a link opens.</summary>
/// <param name="Account">The account to join.</param>
/// <param name="Email">Who was asked.</param>
/// <param name="RoleName">What they will be.</param>
/// <param name="Meaning">What somebody of that role does.</param>
/// <param name="AskedBy">Who asked.</param>
/// <param name="IsKnown">True where they sign in already: they join when they have signed in.</param>
/// <param name="IsSelf">True where they are signed in.</param>
public sealed record InvitationView(
    string Account,
    string Email,
    string RoleName,
    string Meaning,
    string AskedBy,
    bool IsKnown,
    bool IsSelf
);

/// <summary>How somebody joins; whoever signs in already says nothing more.</summary>
/// <param name="Name">What they are called.</param>
/// <param name="Password">By what they will sign in.</param>
public sealed record Joining(string? Name = null, string? Password = null);

/// <summary>What the account was that was joined.</summary>
/// <param name="AccountId">The account.</param>
public sealed record Joined(int AccountId);

/// <summary>Joining an account by the link of an invitation. Whoever has the link may open it, until it is used, taken back or too old.</summary>
internal static class InvitationEndpoints
{
    private const int LongestName = 80;
    private const string Gone = "This link was used, taken back, or is too old. Ask for a new one.";

    public static void MapInvitations(this IEndpointRouteBuilder routes)
    {
        routes
            .MapGet("/api/invitations/{key}", ReadAsync)
            .AllowAnonymous()
            .WithName("readInvitation")
            .RequireRateLimiting(RequestLimits.Entrance);
        routes
            .MapPost("/api/invitations/{key}", JoinAsync)
            .AllowAnonymous()
            .AddEndpointFilter(AccountAccess.OnlyWithTokenAsync)
            .WithName("joinByInvitation")
            .RequireRateLimiting(RequestLimits.Entrance);
    }

    private static async Task<Results<Ok<InvitationView>, ProblemHttpResult>> ReadAsync(
        string key,
        HttpContext context,
        InvitationBook book,
        UserManager<Person> people,
        CancellationToken cancellation
    ) =>
        await book.FindAsync(PeopleEndpoints.HashOf(key), cancellation) is not { } open
            ? TypedResults.Problem(title: Gone, statusCode: StatusCodes.Status404NotFound)
            : TypedResults.Ok(
                new InvitationView(
                    open.Account,
                    open.Email,
                    AccountRoles.NameOf(open.Role),
                    AccountRoles.MeaningOf(open.Role),
                    open.AskedBy,
                    open.IsKnown,
                    await SelfAsync(context, people) is { } self && IsOf(open, self)
                )
            );

    private static async Task<Results<Ok<Joined>, ProblemHttpResult>> JoinAsync(
        string key,
        Joining body,
        HttpContext context,
        InvitationBook book,
        UserManager<Person> people,
        SignInManager<Person> manager,
        CancellationToken cancellation
    )
    {
        var hash = PeopleEndpoints.HashOf(key);
        if (await book.FindAsync(hash, cancellation) is not { } open)
        {
            return TypedResults.Problem(title: Gone, statusCode: StatusCodes.Status404NotFound);
        }

        if (await SelfAsync(context, people) is { } self)
        {
            return !IsOf(open, self)
                    ? Conflict(
                        $"This invitation is for {open.Email}, and you are signed in as {self.Email}. Sign out, then open the link again."
                    )
                : await book.JoinAsync(hash, self.Id, cancellation) ? TypedResults.Ok(new Joined(open.AccountId))
                : TypedResults.Problem(title: Gone, statusCode: StatusCodes.Status404NotFound);
        }

        if (open.IsKnown)
        {
            return Conflict($"{open.Email} signs in here already. Sign in, then open the link again.");
        }

        var name = (body.Name ?? "").Trim();
        if (name.Length is 0 or > LongestName)
        {
            throw new InvalidChangeException("name", $"Say what you are called, in at most {LongestName} characters.");
        }

        var person = new Person
        {
            UserName = open.Email,
            Email = open.Email,
            DisplayName = name,
        };
        var made = await people.CreateAsync(person, body.Password ?? "");
        if (!made.Succeeded)
        {
            throw new InvalidChangeException(
                "password",
                string.Join(" ", made.Errors.Select(error => error.Description))
            );
        }

        if (!await book.JoinAsync(hash, person.Id, cancellation))
        {
            // Taken back in this moment: nobody is left who belongs nowhere.
            await people.DeleteAsync(person);
            return TypedResults.Problem(title: Gone, statusCode: StatusCodes.Status404NotFound);
        }

        await manager.SignInAsync(person, isPersistent: true);
        return TypedResults.Ok(new Joined(open.AccountId));
    }

    private static ProblemHttpResult Conflict(string title) =>
        TypedResults.Problem(title: title, statusCode: StatusCodes.Status409Conflict);

    private static async Task<Person?> SelfAsync(HttpContext context, UserManager<Person> people) =>
        context.User.Identity?.IsAuthenticated == true ? await people.GetUserAsync(context.User) : null;

    private static bool IsOf(OpenInvitation open, Person self) =>
        string.Equals(open.Email, self.Email, StringComparison.OrdinalIgnoreCase);
}
