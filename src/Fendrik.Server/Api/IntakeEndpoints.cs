using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Data.Accounts;
using Fendrik.Data.Intakes;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Fendrik.Server.Jobs;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace Fendrik.Server.Api;

public sealed record IntakeBegun(long IntakeId, JobView Job);

/// <summary>What there is of lists.</summary>
/// <param name="IntakeId">The newest that is neither kept nor left.</param>
/// <param name="Last">The last that came in.</param>
/// <param name="Waiting">All of the person's own that were read and wait.</param>
public sealed record OpenIntake(long? IntakeId, LastIntake? Last, IReadOnlyList<WaitingList> Waiting);

public sealed record ColumnChoice(
    string Name,
    string Label,
    string Meaning,
    ValueForm? Form,
    bool IsName,
    bool IsPlace
);

internal static class IntakeEndpoints
{
    public static void MapIntakes(this RouteGroupBuilder account)
    {
        account
            .MapPost("/intakes", BeginAsync)
            .WithName("beginIntake")
            .RequireRateLimiting(RequestLimits.Uploads)
            .WithMetadata(new RequestSizeLimitAttribute(IntakeFile.LargestFile + 1))
            .Accepts<Stream>("application/octet-stream");
        account.MapGet("/intakes/open", OpenAsync).WithName("readOpenIntake");
        account.MapGet("/intakes/columns", ListColumnChoices).WithName("listIntakeColumns");
        account.MapGet("/intakes/{intakeId:long}", ReadAsync).WithName("readIntake");
        account.MapGet("/intakes/{intakeId:long}/rows", RowsAsync).WithName("listIntakeRows");
        account.MapPut("/intakes/{intakeId:long}/columns", ColumnsAsync).WithName("setIntakeColumns");
        account.MapPost("/intakes/{intakeId:long}/mend", MendAsync).WithName("mendIntakeCell");
        account.MapPost("/intakes/{intakeId:long}/fill", FillAsync).WithName("fillIntake");
        account.MapPost("/intakes/{intakeId:long}/keep", KeepAsync).WithName("keepIntake");
        account.MapDelete("/intakes/{intakeId:long}", LeaveAsync).WithName("leaveIntake");
    }

    /// <summary>The body is the file as it is: nothing of it is kept in memory.</summary>
    private static async Task<Ok<IntakeBegun>> BeginAsync(
        int accountId,
        string? fileName,
        HttpContext context,
        IntakeDesk desk,
        JobDesk jobs,
        CancellationToken cancellation
    )
    {
        var name = string.IsNullOrWhiteSpace(fileName) ? "pasted list" : IntakeName(fileName);
        var id = await desk.BeginAsync(accountId, context.User.PersonId(), name, context.Request.Body, cancellation);
        return TypedResults.Ok(
            new IntakeBegun(
                id,
                await jobs.BeginAsync(
                    new JobOrder(accountId, context.User.PersonId(), JobKind.Intake, id),
                    cancellation
                )
            )
        );
    }

    private static Ok<List<ColumnChoice>> ListColumnChoices(int accountId) =>
        TypedResults.Ok(
            ListColumns
                .All.Select(column => new ColumnChoice(
                    column.Name,
                    column.Label,
                    column.Meaning,
                    column.Fields is [var field, ..] ? field.Type.Form : null,
                    column.Fields.Any(each => each == each.Of.NameField),
                    column.Level is not null
                ))
                .ToList()
        );

    private static string IntakeName(string fileName)
    {
        var name = new string([.. Path.GetFileName(fileName).Where(character => !char.IsControl(character))]);
        return name.Length > 120 ? name[..120] : name;
    }

    private static async Task<Ok<OpenIntake>> OpenAsync(
        int accountId,
        HttpContext context,
        IntakeDesk desk,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok(
            new OpenIntake(
                await desk.OpenAsync(accountId, context.User.PersonId(), cancellation),
                await desk.LastAsync(accountId, cancellation),
                await desk.WaitingAsync(accountId, context.User.PersonId(), cancellation)
            )
        );

    private static async Task<Results<Ok<IntakeView>, NotFound>> ReadAsync(
        int accountId,
        long intakeId,
        IntakeDesk desk,
        CancellationToken cancellation
    ) =>
        await desk.ReadAsync(accountId, intakeId, cancellation) is { } view
            ? TypedResults.Ok(view)
            : TypedResults.NotFound();

    private static async Task<Results<Ok<IReadOnlyList<IntakeListRow>>, NotFound>> RowsAsync(
        int accountId,
        long intakeId,
        int offset,
        int limit,
        string? shown,
        IntakeDesk desk,
        CancellationToken cancellation
    ) =>
        await desk.RowsAsync(accountId, intakeId, offset, limit, cancellation, ShownOf(shown)) is { } rows
            ? TypedResults.Ok(rows)
            : TypedResults.NotFound();

    /// <summary>Which rows are asked for; words in an address are not told apart by capitals.</summary>
    private static IntakeShown ShownOf(string? word) =>
        word is null ? IntakeShown.All
        : Enum.TryParse<IntakeShown>(word, ignoreCase: true, out var shown) && Enum.IsDefined(shown) ? shown
        : throw new InvalidChangeException(
            "shown",
            $"“{Core.Items.Values.Reading.Shortened(word)}” is none of all, new, changed, same, leftOut, removed."
        );

    private static async Task<Results<Ok<JobView>, NotFound>> ColumnsAsync(
        int accountId,
        long intakeId,
        IntakeColumns columns,
        HttpContext context,
        IntakeDesk desk,
        JobDesk jobs,
        CancellationToken cancellation
    ) =>
        await desk.SetColumnsAsync(accountId, intakeId, columns, cancellation)
            ? TypedResults.Ok(
                await jobs.BeginAsync(
                    new JobOrder(accountId, context.User.PersonId(), JobKind.Intake, intakeId),
                    cancellation
                )
            )
            : TypedResults.NotFound();

    private static async Task<Results<NoContent, NotFound>> MendAsync(
        int accountId,
        long intakeId,
        IntakeMend mend,
        IntakeDesk desk,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    ) =>
        await desk.MendAsync(await workingCopy.FactsAsync(accountId, cancellation), intakeId, mend, cancellation)
            ? TypedResults.NoContent()
            : TypedResults.NotFound();

    private static async Task<Results<NoContent, NotFound>> FillAsync(
        int accountId,
        long intakeId,
        IntakeFillIn fill,
        IntakeDesk desk,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var ground = (await workingCopy.FactsAsync(accountId, cancellation)).Ground;
        return await desk.FillAsync(new AccountFillContext(accountId, intakeId, ground), fill, cancellation)
            ? TypedResults.NoContent()
            : TypedResults.NotFound();
    }

    private static async Task<Results<Ok<JobView>, NotFound>> KeepAsync(
        int accountId,
        long intakeId,
        HttpContext context,
        IntakeDesk desk,
        JobDesk jobs,
        CancellationToken cancellation
    ) =>
        await desk.IsOfAsync(accountId, intakeId, cancellation)
            ? TypedResults.Ok(
                await jobs.BeginAsync(
                    new JobOrder(accountId, context.User.PersonId(), JobKind.Keep, intakeId),
                    cancellation
                )
            )
            : TypedResults.NotFound();

    private static async Task<Results<NoContent, NotFound>> LeaveAsync(
        int accountId,
        long intakeId,
        IntakeDesk desk,
        CancellationToken cancellation
    ) => await desk.LeaveAsync(accountId, intakeId, cancellation) ? TypedResults.NoContent() : TypedResults.NotFound();
}
