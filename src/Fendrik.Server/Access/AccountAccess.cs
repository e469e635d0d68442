using System.Security.Claims;
using Fendrik.Data.Accounts;
using Fendrik.Data.Model;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.EntityFrameworkCore;

namespace Fendrik.Server.Access;

/// <summary>Who may do what: a signed-in person, with a token against forged requests, on accounts that the person belongs to.</summary>
public static class AccountAccess
{
    private const string NotYours = "There is no such account, or it is not yours.";

    /// <summary>Endpoints of one account. To others it is not there.</summary>
    public static RouteGroupBuilder MapAccount(this IEndpointRouteBuilder routes) =>
        routes
            .MapGroup("/api/accounts/{accountId:int}")
            .RequireAuthorization()
            .AddEndpointFilter(OnlyMembersAsync)
            .AddEndpointFilter(OnlyWithTokenAsync)
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity);

    public static string PersonId(this ClaimsPrincipal person) => person.FindFirstValue(ClaimTypes.NameIdentifier)!;

    private static async ValueTask<object?> OnlyMembersAsync(
        EndpointFilterInvocationContext invocation,
        EndpointFilterDelegate next
    )
    {
        var context = invocation.HttpContext;
        var accountId = int.Parse((string)context.Request.RouteValues["accountId"]!);
        var database = context.RequestServices.GetRequiredService<FendrikContext>();
        return await IsMemberAsync(database, context.User, accountId, context.RequestAborted)
            ? await next(invocation)
            : Results.Problem(NotYours, statusCode: StatusCodes.Status404NotFound);
    }

    /// <summary>Refuses a second account that a request names, where it is not the person's.</summary>
    /// <exception cref="InvalidChangeException">It is not.</exception>
    public static async Task RefuseOthersAsync(
        FendrikContext database,
        ClaimsPrincipal person,
        int accountId,
        string field,
        CancellationToken cancellation
    )
    {
        if (!await IsMemberAsync(database, person, accountId, cancellation))
        {
            throw new InvalidChangeException(field, NotYours);
        }
    }

    private static Task<bool> IsMemberAsync(
        FendrikContext database,
        ClaimsPrincipal person,
        int accountId,
        CancellationToken cancellation
    )
    {
        var personId = person.PersonId();
        return database.AccountMembers.AnyAsync(
            member => member.AccountId == accountId && member.PersonId == personId,
            cancellation
        );
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
