using Fendrik.Data.Model;
using Fendrik.Data.People;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;

namespace Fendrik.Server.Api.People;

/// <summary>A sign-in of the person who asks.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="MadeAt">When it was made.</param>
/// <param name="SeenAt">When it was last used.</param>
/// <param name="Address">From which address it was made.</param>
/// <param name="Browser">With which browser.</param>
/// <param name="IsThis">True for the one that asks.</param>
public sealed record SignInView(
    Guid Id,
    DateTimeOffset MadeAt,
    DateTimeOffset SeenAt,
    string Address,
    string Browser,
    bool IsThis
);

/// <summary>Sign-ins of a person, and what was tried.</summary>
/// <param name="SignIns">Those that hold, the last used first.</param>
/// <param name="Attempts">The last attempts, the newest first.</param>
public sealed record SignInsAnswer(IReadOnlyList<SignInView> SignIns, IReadOnlyList<SignInAttempt> Attempts);

/// <summary>A new password.</summary>
/// <param name="Current">The one that holds.</param>
/// <param name="Next">The one that is to hold.</param>
public sealed record NewPassword(string Current, string Next);

/// <summary>What a person sees and ends of their own sign-ins, and their password.</summary>
internal static class SignInEndpoints
{
    public static void MapSignIns(this IEndpointRouteBuilder routes)
    {
        var own = routes
            .MapGroup("/api/session")
            .RequireAuthorization()
            .AddEndpointFilter(AccountAccess.OnlyWithTokenAsync);
        own.MapGet("/sign-ins", ListAsync).WithName("listSignIns");
        own.MapDelete("/sign-ins/{signInId:guid}", EndAsync).WithName("endSignIn");
        own.MapDelete("/sign-ins", EndOthersAsync).WithName("endOtherSignIns");
        own.MapPut("/password", ChangePasswordAsync).WithName("changePassword");
        own.MapSecondFactor();
    }

    private static async Task<Ok<SignInsAnswer>> ListAsync(
        HttpContext context,
        SignInBook book,
        CancellationToken cancellation
    )
    {
        var person = context.User.PersonId();
        return TypedResults.Ok(
            new SignInsAnswer(
                [
                    .. (await book.ListAsync(person, cancellation)).Select(each => new SignInView(
                        each.Id,
                        each.MadeAt,
                        each.SeenAt,
                        each.Address,
                        each.Browser,
                        each.Id == SignInTickets.IdOf(context)
                    )),
                ],
                await book.AttemptsAsync(person, cancellation)
            )
        );
    }

    private static async Task<Results<NoContent, NotFound>> EndAsync(
        Guid signInId,
        HttpContext context,
        SignInBook book,
        CancellationToken cancellation
    ) =>
        await book.EndAsync(context.User.PersonId(), signInId, null, cancellation) > 0
            ? TypedResults.NoContent()
            : TypedResults.NotFound();

    private static async Task<NoContent> EndOthersAsync(
        HttpContext context,
        SignInBook book,
        CancellationToken cancellation
    )
    {
        await book.EndAsync(context.User.PersonId(), null, SignInTickets.IdOf(context), cancellation);
        return TypedResults.NoContent();
    }

    /// <summary>A new password ends all sign-ins but the one that asks.</summary>
    private static async Task<NoContent> ChangePasswordAsync(
        NewPassword body,
        HttpContext context,
        UserManager<Person> people,
        SignInManager<Person> manager,
        PasswordDesk desk,
        SignInBook book,
        CancellationToken cancellation
    )
    {
        var person =
            await people.GetUserAsync(context.User)
            ?? throw new InvalidChangeException("current", "You are not signed in any more.");
        // Attempts count here as they do where people sign in: who took over a screen cannot try passwords at leisure.
        var showing = await desk.LookAsync(person.UserName!, body.Current ?? "", null, context, cancellation);
        // Whoever is signed in has shown the second factor: the password is enough here.
        if (showing.How is Shown.Wrong or Shown.Waits)
        {
            throw new InvalidChangeException(
                "current",
                showing.How == Shown.Waits ? showing.WaitText : "That is not your password."
            );
        }

        var changed = await people.ChangePasswordAsync(person, body.Current ?? "", body.Next ?? "");
        if (!changed.Succeeded)
        {
            throw new InvalidChangeException(
                "next",
                string.Join(" ", changed.Errors.Select(error => error.Description))
            );
        }

        await book.EndAsync(person.Id, null, SignInTickets.IdOf(context), cancellation);
        // The security stamp is another now: the one that asks goes on under it.
        await manager.RefreshSignInAsync(person);
        return TypedResults.NoContent();
    }
}
