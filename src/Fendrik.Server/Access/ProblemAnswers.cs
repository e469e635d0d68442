using Fendrik.Data.Intakes;
using Fendrik.Data.Steps;
using Fendrik.Data.Tables;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;

namespace Fendrik.Server.Access;

/// <summary>Turns what a person can mend into problem details (RFC 9457) that name the field; the rest stays in the log.</summary>
public sealed partial class ProblemAnswers(IProblemDetailsService problems, ILogger<ProblemAnswers> logger)
    : IExceptionHandler
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
            AccountBusyException busy => (StatusCodes.Status423Locked, busy.Message, null),
            NetworkUnavailableException network => (StatusCodes.Status502BadGateway, network.Message, null),
            BadHttpRequestException bad => (bad.StatusCode, bad.Message, null),
            // A command of a kind that there is none of.
            NotSupportedException => (StatusCodes.Status400BadRequest, "The request cannot be read.", null),
            _ => (
                StatusCodes.Status500InternalServerError,
                $"Something went wrong here. Nothing was changed; try again. If it stays so, tell whoever runs Fendrik: {httpContext.TraceIdentifier}",
                (string?)null
            ),
        };
        if (status == StatusCodes.Status500InternalServerError)
        {
            LogUnexpected(exception, httpContext.TraceIdentifier, httpContext.Request.Method, httpContext.Request.Path);
        }

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

    [LoggerMessage(LogLevel.Error, "{Id}: {Method} {Path} failed.")]
    private partial void LogUnexpected(Exception exception, string id, string method, string path);
}
