using Fendrik.Data.Intakes;
using Fendrik.Data.Steps;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;

namespace Fendrik.Server.Access;

/// <summary>Turns what a person can mend into problem details (RFC 9457) that name the field; the rest stays in the log.</summary>
public sealed class ProblemAnswers(IProblemDetailsService problems) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(
        HttpContext httpContext,
        Exception exception,
        CancellationToken cancellationToken
    )
    {
        var (status, title, field) = exception switch
        {
            InvalidChangeException change => (StatusCodes.Status422UnprocessableEntity, change.Message, change.Field),
            IntakeFileException file => (StatusCodes.Status422UnprocessableEntity, file.Message, "file"),
            NetworkUnavailableException network => (StatusCodes.Status502BadGateway, network.Message, null),
            BadHttpRequestException bad => (bad.StatusCode, bad.Message, null),
            // A command of a kind that there is none of.
            NotSupportedException => (StatusCodes.Status400BadRequest, "The request cannot be read.", null),
            _ => (
                StatusCodes.Status500InternalServerError,
                "Something went wrong here. Nothing was changed; try again.",
                (string?)null
            ),
        };
        httpContext.Response.StatusCode = status;
        var details = new ProblemDetails { Status = status, Title = title };
        if (field is not null)
        {
            details.Extensions["errors"] = new Dictionary<string, string[]> { [field] = [title] };
        }

        return await problems.TryWriteAsync(
            new ProblemDetailsContext { HttpContext = httpContext, ProblemDetails = details }
        );
    }
}
