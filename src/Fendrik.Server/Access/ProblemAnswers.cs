using System.Diagnostics;
using System.Text;
using System.Text.Json;
using Fendrik.Data.Accounts;
using Fendrik.Data.Steps;
using Fendrik.Data.Tables;
using Fendrik.Server.Networks;
using Fendrik.Server.Operation;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;
using Npgsql;

namespace Fendrik.Server.Access;

/// <summary>
/// Turns what went wrong into problem details (RFC 9457): what a person can mend names the field; what nobody expected is logged
/// once, under an id that the person sees.
/// </summary>
public sealed partial class ProblemAnswers(
    IProblemDetailsService problems,
    DataDisk disk,
    ILogger<ProblemAnswers> logger
) : IExceptionHandler
{
    private const int ClientLeft = 499;
    private const int DiskIsFull = 28;

    /// <param name="Status">HTTP status.</param>
    /// <param name="Title">What happened and what to do.</param>
    /// <param name="Field">The field at fault.</param>
    private sealed record Answer(int Status, string Title, string? Field = null);

    public async ValueTask<bool> TryHandleAsync(
        HttpContext httpContext,
        Exception exception,
        CancellationToken cancellationToken
    )
    {
        if (exception is OperationCanceledException && httpContext.RequestAborted.IsCancellationRequested)
        {
            // Nobody waits for the answer.
            httpContext.Response.StatusCode = ClientLeft;
            return true;
        }

        var id = IdOf(httpContext);
        var answer = AnswerTo(exception, id);
        if (answer.Status >= StatusCodes.Status500InternalServerError)
        {
            LogFailed(exception, id, httpContext.Request.Method, httpContext.Request.Path, answer.Status);
        }

        httpContext.Response.StatusCode = answer.Status;
        var details = new ProblemDetails { Status = answer.Status, Title = answer.Title };
        if (answer.Field is { } field)
        {
            details.Extensions["errors"] = new Dictionary<string, string[]> { [field] = [answer.Title] };
        }

        return await problems.TryWriteAsync(
            new ProblemDetailsContext { HttpContext = httpContext, ProblemDetails = details }
        );
    }

    /// <summary>The id under which the request is found in logs and traces.</summary>
    public static string IdOf(HttpContext context) =>
        Activity.Current?.TraceId is { } trace ? trace.ToString() : context.TraceIdentifier;

    private Answer AnswerTo(Exception exception, string id) =>
        exception switch
        {
            InvalidChangeException change => new(Unprocessable, change.Message, change.Field),
            IntakeFileException file => new(Unprocessable, file.Message, "file"),
            PreviewMovedException moved => new(StatusCodes.Status412PreconditionFailed, moved.Message),
            AccountBusyException busy => new(StatusCodes.Status423Locked, busy.Message),
            PastGoneException gone => new(StatusCodes.Status410Gone, gone.Message),
            NetworkUnavailableException network => new(StatusCodes.Status502BadGateway, network.Message),
            BadHttpRequestException bad => Unreadable(bad),
            // A command of a kind that there is none of.
            NotSupportedException => new(StatusCodes.Status400BadRequest, "The request cannot be read."),
            IOException { HResult: var code } when (code & 0xffff) == DiskIsFull => Full(id),
            PostgresException { SqlState: PostgresErrorCodes.DiskFull } => Full(id),
            PostgresException
            {
                SqlState: PostgresErrorCodes.CharacterNotInRepertoire or PostgresErrorCodes.UntranslatableCharacter
            }
            or EncoderFallbackException => new(
                Unprocessable,
                "The request has a character that cannot be kept, such as a zero or half of a pair. Take it out."
            ),
            PostgresException { SqlState: PostgresErrorCodes.NumericValueOutOfRange } => new(
                Unprocessable,
                "A number in the request is larger than can be kept. Nothing was changed."
            ),
            PostgresException { SqlState: PostgresErrorCodes.QueryCanceled }
            or NpgsqlException { InnerException: TimeoutException } => new(
                StatusCodes.Status503ServiceUnavailable,
                $"This took longer than may be waited for, and was stopped. Nothing was changed; narrow it, or try again later. ({id})"
            ),
            NpgsqlException { IsTransient: true }
            or InvalidOperationException { InnerException: NpgsqlException { IsTransient: true } } => new(
                StatusCodes.Status503ServiceUnavailable,
                $"The database does not answer. Nothing was changed; try again in a moment. ({id})"
            ),
            _ => new(
                StatusCodes.Status500InternalServerError,
                $"Something went wrong here. Nothing was changed; try again. If it stays so, tell whoever runs Fendrik: {id}"
            ),
        };

    private const int Unprocessable = StatusCodes.Status422UnprocessableEntity;

    private Answer Full(string id) =>
        new(
            StatusCodes.Status507InsufficientStorage,
            $"The disk that holds {disk.Folder} is full. Nothing was changed; make room on it and try again. ({id})"
        );

    /// <summary>A body that is no JSON, or not of the form: the place in it is named.</summary>
    private static Answer Unreadable(BadHttpRequestException bad) =>
        bad.InnerException is JsonException { Path: { } path }
            ? new(
                bad.StatusCode,
                "The request cannot be read: it is no JSON, or not of the form that is described.",
                path.TrimStart('$', '.')
            )
            : new(bad.StatusCode, bad.Message);

    [LoggerMessage(LogLevel.Error, "{Id}: {Method} {Path} failed with {Status}.")]
    private partial void LogFailed(Exception exception, string id, string method, string path, int status);
}
