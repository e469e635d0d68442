using System.Globalization;
using System.Security.Claims;
using Fendrik.Data.Accounts;
using Fendrik.Data.People;
using Microsoft.AspNetCore.Antiforgery;

namespace Fendrik.Server.Access;

/// <summary>Who may do what: a signed-in person, with a token against forged requests, on accounts that the person belongs to, as far as their role there goes.</summary>
public static class AccountAccess
{
    private const string NotYours = "There is no such account, or it is not yours.";

    /// <summary>Endpoints of one account. To others it is not there.</summary>
    public static RouteGroupBuilder MapAccount(this IEndpointRouteBuilder routes) =>
        routes
            .MapGroup("/api/accounts/{accountId:int}")
            .RequireAuthorization()
            .WithMetadata(new OfAccount())
            .AddEndpointFilter(OnlyWithTokenAsync)
            .ProducesProblem(StatusCodes.Status403Forbidden)
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity);

    public static string PersonId(this ClaimsPrincipal person) => person.FindFirstValue(ClaimTypes.NameIdentifier)!;

    /// <summary>
    /// Lets through to endpoints of an account those whose role there may do what they need. It stands before anything of the request is read, so that nothing of a
    /// stranger's is.
    /// </summary>
    public static async Task OnlyWithRightAsync(HttpContext context, RequestDelegate next)
    {
        if (context.GetEndpoint()?.Metadata is not { } metadata || metadata.GetMetadata<OfAccount>() is null)
        {
            await next(context);
            return;
        }

        // What is no number of an account is none.
        var standing = int.TryParse(
            (string?)context.Request.RouteValues["accountId"],
            CultureInfo.InvariantCulture,
            out var accountId
        )
            ? await context
                .RequestServices.GetRequiredService<MemberBook>()
                .StandingAsync(accountId, context.User.PersonId(), context.RequestAborted)
            : null;
        var right = EndpointRight.Of(metadata, context.Request.Method);
        if (standing is not var (role, isArchived))
        {
            await Results.Problem(NotYours, statusCode: StatusCodes.Status404NotFound).ExecuteAsync(context);
        }
        else if (!role.May(right))
        {
            await Results
                .Problem(title: AccountRoles.RefusalOf(role, right), statusCode: StatusCodes.Status403Forbidden)
                .ExecuteAsync(context);
        }
        else if (isArchived && !AccountRoles.MayWhenArchived(right))
        {
            await Results
                .Problem(
                    title: "This account is put away: it can be looked at, and not changed. An owner can bring it back.",
                    statusCode: StatusCodes.Status403Forbidden
                )
                .ExecuteAsync(context);
        }
        else
        {
            await next(context);
        }
    }

    /// <summary>Marks endpoints of one account.</summary>
    private sealed record OfAccount;

    /// <summary>Refuses a second account that a request names, where it is not the person's or their role there may not do this.</summary>
    /// <exception cref="InvalidChangeException">It is not.</exception>
    public static async Task RefuseOthersAsync(
        MemberBook members,
        ClaimsPrincipal person,
        int accountId,
        AccountRight right,
        string field,
        CancellationToken cancellation
    )
    {
        var role =
            await members.RoleAsync(accountId, person.PersonId(), cancellation)
            ?? throw new InvalidChangeException(field, NotYours);
        if (!role.May(right))
        {
            throw new InvalidChangeException(field, AccountRoles.RefusalOf(role, right));
        }
    }

    /// <summary>Refuses requests that another site could have made the browser send.</summary>
    public static async ValueTask<object?> OnlyWithTokenAsync(
        EndpointFilterInvocationContext invocation,
        EndpointFilterDelegate next
    )
    {
        var context = invocation.HttpContext;
        if (HttpMethods.IsGet(context.Request.Method))
        {
            return await next(invocation);
        }

        try
        {
            await context.RequestServices.GetRequiredService<IAntiforgery>().ValidateRequestAsync(context);
        }
        catch (AntiforgeryValidationException)
        {
            return Results.Problem(
                title: "The page is out of date. Load it again.",
                statusCode: StatusCodes.Status400BadRequest
            );
        }

        return await next(invocation);
    }
}
