using Fendrik.Data.Checking;
using Fendrik.Data.People;
using Fendrik.Data.Publishing;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Fendrik.Server.Jobs;
using Fendrik.Server.Live;
using Fendrik.Server.Networks;
using Fendrik.Server.Publishing;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api;

/// <param name="Hours">How many hours on; 0 until the day is over and its reports are there.</param>
public sealed record ClockMove(int Hours);

/// <summary>What the checks found.</summary>
/// <param name="Checking">True while the newest changes are still being looked at; the findings are those of before.</param>
/// <param name="Findings">What lies in items, blockers first.</param>
/// <param name="OfAccount">What lies in no single item, the heaviest first.</param>
public sealed record CheckAnswer(
    bool Checking,
    IReadOnlyList<NamedFinding> Findings,
    IReadOnlyList<AccountFinding> OfAccount
);

/// <summary>A part of the changes that is to be published.</summary>
/// <param name="Items">What is published, with what it cannot do without on the network; none for all but what is held back.</param>
/// <param name="Shown">What was seen before pressing: the newest step, and how many changes would go out. None to send what stands now.</param>
public sealed record PublishWish(IReadOnlyList<ItemReference>? Items = null, ShownPreview? Shown = null);

/// <summary>Changes that are held back from publishing, or let go.</summary>
public sealed record HoldWish(IReadOnlyList<ItemReference> Items, bool Hold);

/// <summary>How many changes were held back or let go.</summary>
public sealed record HoldAnswer(int Items);

internal static class ShipEndpoints
{
    private const int MostFindings = 1_000;
    private const int MostHours = 24 * 92;

    public static void MapShip(this RouteGroupBuilder account)
    {
        account.MapGet("/checks", ChecksAsync).WithName("listChecks");
        account.MapPost("/pending/hold", HoldAsync).WithName("holdChanges");
        account.MapPost("/publishes", PublishAsync).WithName("publish").Needs(AccountRight.Publish);
        account.MapGet("/publishes", PublishesAsync).WithName("listPublishes");
        account
            .MapPost("/publishes/{publishId:long}/continue", ContinueAsync)
            .WithName("continuePublish")
            .Needs(AccountRight.Publish);
        account
            .MapPost("/publishes/{publishId:long}/abandon", AbandonAsync)
            .WithName("abandonPublish")
            .Needs(AccountRight.Publish);
        account.MapGet("/publishes/{publishId:long}/unpublished", UnpublishedAsync).WithName("listUnpublished");
        account.MapGet("/jobs/{jobId:long}", JobAsync).WithName("readJob");
        account.MapPost("/jobs/{jobId:long}/cancel", CancelAsync).WithName("cancelJob");
        account.MapPost("/clock", MoveClockAsync).WithName("moveClock").Needs(AccountRight.Publish);
    }

    private static async Task<Ok<CheckAnswer>> ChecksAsync(
        int accountId,
        string? code,
        AccountChecks checks,
        StatusCounts counts,
        CancellationToken cancellation
    )
    {
        var isUpToDate = await counts.IsUpToDateAsync(accountId, StatusCounts.PatienceOfPages, cancellation);
        return TypedResults.Ok(
            new CheckAnswer(
                !isUpToDate,
                await checks.ListAsync(accountId, MostFindings, cancellation, code),
                await checks.ListOfAccountAsync(accountId, MostFindings, cancellation, code)
            )
        );
    }

    private static async Task<Ok<HoldAnswer>> HoldAsync(
        int accountId,
        HoldWish wish,
        HttpContext context,
        HeldChanges held,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok(
            new HoldAnswer(await held.SetAsync(accountId, context.User.PersonId(), wish.Items, wish.Hold, cancellation))
        );

    private static async Task<Ok<JobView>> PublishAsync(
        int accountId,
        PublishWish wish,
        HttpContext context,
        PublishDesk desk,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok(
            await desk.BeginAsync(accountId, context.User.PersonId(), cancellation, wish.Items, wish.Shown)
        );

    private static async Task<Ok<JobView>> ContinueAsync(
        int accountId,
        long publishId,
        HttpContext context,
        PublishDesk desk,
        CancellationToken cancellation
    ) => TypedResults.Ok(await desk.ContinueAsync(accountId, context.User.PersonId(), publishId, cancellation));

    private static async Task<NoContent> AbandonAsync(
        int accountId,
        long publishId,
        PublishDesk desk,
        CancellationToken cancellation
    )
    {
        await desk.AbandonAsync(accountId, publishId, cancellation);
        return TypedResults.NoContent();
    }

    private static async Task<Ok<IReadOnlyList<PublishSummary>>> PublishesAsync(
        int accountId,
        PublishRecords records,
        CancellationToken cancellation
    ) => TypedResults.Ok(await records.ListAsync(accountId, cancellation));

    private static async Task<Ok<IReadOnlyList<UnpublishedItem>>> UnpublishedAsync(
        int accountId,
        long publishId,
        PublishRecords records,
        CancellationToken cancellation
    ) => TypedResults.Ok(await records.UnpublishedAsync(accountId, publishId, cancellation));

    private static async Task<Results<Ok<JobView>, NotFound>> JobAsync(
        int accountId,
        long jobId,
        JobDesk jobs,
        CancellationToken cancellation
    ) =>
        await jobs.FindAsync(accountId, jobId, cancellation) is { } job
            ? TypedResults.Ok(job)
            : TypedResults.NotFound();

    private static async Task<Results<NoContent, NotFound>> CancelAsync(
        int accountId,
        long jobId,
        HttpContext context,
        JobDesk jobs,
        MemberBook members,
        CancellationToken cancellation
    )
    {
        if (await jobs.FindAsync(accountId, jobId, cancellation) is not { } job)
        {
            return TypedResults.NotFound();
        }

        // Whoever may not begin such work does not stop it either.
        await AccountAccess.RefuseOthersAsync(
            members,
            context.User,
            accountId,
            JobKinds.Of(job.Kind).Right(),
            "jobId",
            cancellation
        );
        return await jobs.CancelAsync(accountId, jobId, cancellation)
            ? TypedResults.NoContent()
            : TypedResults.NotFound();
    }

    private static async Task<Ok<JobView>> MoveClockAsync(
        int accountId,
        ClockMove move,
        HttpContext context,
        SearchNetworks networks,
        WorkingCopy workingCopy,
        JobDesk jobs,
        CancellationToken cancellation
    )
    {
        if (move.Hours is < 0 or > MostHours)
        {
            throw new InvalidChangeException("hours", $"The clock moves by 1 to {MostHours} hours at once.");
        }

        // The moment to be reached is written down, not the hours: a job taken up again must not go too far.
        var now = (
            await (await networks.OfAccountAsync(accountId, cancellation)).ClockAsync(accountId, cancellation)
        ).Now;
        var target =
            move.Hours > 0
                ? now.AddHours(move.Hours)
                : EndOfDay(now, new AccountDay((await workingCopy.FactsAsync(accountId, cancellation)).TimeZone));
        return TypedResults.Ok(
            await jobs.BeginAsync(
                new JobOrder(
                    accountId,
                    context.User.PersonId(),
                    JobKind.Clock,
                    Total: (long)Math.Ceiling((target - now).TotalHours),
                    Message: target.ToString("O")
                ),
                cancellation
            )
        );
    }

    /// <summary>The clock moves by whole hours: the first of them at which the day is over.</summary>
    private static DateTimeOffset EndOfDay(DateTimeOffset now, AccountDay days) =>
        now.AddHours(Math.Ceiling((days.StartOf(days.At(now).Day.AddDays(1)) - now).TotalHours));
}
