using Fendrik.Data.Outtakes;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api;

public sealed record OuttakeAsked(Guid Id);

internal static class OuttakeEndpoints
{
    private const string Xlsx = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    public static void MapOuttakes(this RouteGroupBuilder account)
    {
        account
            .MapPost("/outtakes", AskAsync)
            .WithName("askOuttake")
            .RequireRateLimiting(RequestLimits.WholeReads)
            .Needs(AccountRight.Look);
        account.MapGet("/outtakes/{outtakeId:guid}/file", FileAsync).WithName("fetchOuttake").ExcludeFromDescription();
        account.MapGet("/intakes/template", TemplateAsync).WithName("fetchIntakeTemplate").ExcludeFromDescription();
    }

    private static async Task<Ok<OuttakeAsked>> AskAsync(
        int accountId,
        OuttakeWish wish,
        HttpContext context,
        OuttakeDesk desk,
        CancellationToken cancellation
    ) => TypedResults.Ok(new OuttakeAsked(await desk.AskAsync(accountId, context.User.PersonId(), wish, cancellation)));

    /// <summary>The file goes out as it is written. Should that break, so does the connection, and the browser says that the file is not whole.</summary>
    private static async Task<IResult> FileAsync(
        int accountId,
        Guid outtakeId,
        HttpContext context,
        OuttakeDesk desk,
        OuttakeFile file,
        WorkingCopy workingCopy,
        TimeProvider clock,
        CancellationToken cancellation
    )
    {
        if (await desk.FindAsync(accountId, context.User.PersonId(), outtakeId, cancellation) is not { } wish)
        {
            return TypedResults.NotFound();
        }

        var (type, ending) = wish.Form switch
        {
            OuttakeForm.Json => ("application/json", "json"),
            OuttakeForm.Xlsx => (Xlsx, "xlsx"),
            _ => ("text/csv; charset=utf-8", "csv"),
        };
        var account = await workingCopy.FactsAsync(accountId, cancellation);
        var day = clock.GetUtcNow().ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture);
        var part = wish.IsWhole ? "" : " part";
        return TypedResults.Stream(
            stream => file.WriteAsync(accountId, wish, stream, cancellation),
            type,
            $"{FileName(account.Name)}{part} {day}.{ending}"
        );
    }

    private static async Task<PushStreamHttpResult> TemplateAsync(
        int accountId,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var account = await workingCopy.FactsAsync(accountId, cancellation);
        return TypedResults.Stream(
            stream => IntakeTemplate.WriteAsync(stream, account, cancellation),
            Xlsx,
            "list to fill in.xlsx"
        );
    }

    private static string FileName(string account) =>
        string.Join(
            ' ',
            account.Split(
                Path.GetInvalidFileNameChars().Append('&').ToArray(),
                StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries
            )
        );
}
