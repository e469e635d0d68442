using Fendrik.Data.Checking;
using Fendrik.Data.Publishing;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Fendrik.Server.Jobs;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api;

public sealed record ClockMove(int Hours);

internal static class ShipEndpoints
{
    private const int MostFindings = 1_000;
    private const int MostHours = 24 * 92;

    public static void MapShip(this RouteGroupBuilder account)
    {
        account.MapGet("/checks", ChecksAsync).WithName("listChecks");
        account.MapPost("/publishes", PublishAsync).WithName("publish");
        account.MapGet("/publishes", PublishesAsync).WithName("listPublishes");
        account.MapGet("/publishes/{publishId:long}/refused", RefusedAsync).WithName("listRefused");
        account.MapGet("/jobs/{jobId:long}", JobAsync).WithName("readJob");
        account.MapPost("/jobs/{jobId:long}/cancel", CancelAsync).WithName("cancelJob");
        account.MapPost("/clock", MoveClockAsync).WithName("moveClock");
    }

    private static async Task<Ok<IReadOnlyList<NamedFinding>>> ChecksAsync(
        int accountId,
        AccountChecks checks,
        CancellationToken cancellation
    ) => TypedResults.Ok(await checks.ListAsync(accountId, MostFindings, cancellation));

    private static async Task<Ok<JobView>> PublishAsync(
        int accountId,
        HttpContext context,
        AccountChecks checks,
        PublishRecords records,
        LiveCopy live,
        JobDesk jobs,
        CancellationToken cancellation
    )
    {
        await ReadFirstAsync(accountId, live, cancellation);
        if ((await checks.CountsAsync(accountId, cancellation)).Blockers is var blockers and > 0)
        {
            throw new InvalidChangeException(
                "blockers",
                blockers == 1
                    ? "1 blocker stops publishing. Clear it first."
                    : $"{blockers} blockers stop publishing. Clear them first."
            );
        }

        var publish =
            await records.BeginAsync(accountId, context.User.PersonId(), cancellation)
            ?? throw new InvalidChangeException(
                "changes",
                "There is nothing to publish: the working copy and the live copy are the same."
            );
        var total = (await records.ListAsync(accountId, cancellation)).First(each => each.Id == publish).Total;
        return TypedResults.Ok(
            await jobs.BeginAsync(accountId, context.User.PersonId(), "publish", publish, total, null, cancellation)
        );
    }

    /// <summary>What the network changed by itself is known before anything is sent; if it does not answer now, the publish will say so.</summary>
    private static async Task ReadFirstAsync(int accountId, LiveCopy live, CancellationToken cancellation)
    {
        try
        {
            await live.ReadAsync(accountId, cancellation);
        }
        catch (NetworkUnavailableException)
        {
            // The publish begins all the same and waits for the network as one that was interrupted.
        }
    }

    private static async Task<Ok<IReadOnlyList<PublishSummary>>> PublishesAsync(
        int accountId,
        PublishRecords records,
        CancellationToken cancellation
    ) => TypedResults.Ok(await records.ListAsync(accountId, cancellation));

    private static async Task<Ok<IReadOnlyList<RefusedByNetwork>>> RefusedAsync(
        int accountId,
        long publishId,
        PublishRecords records,
        CancellationToken cancellation
    ) => TypedResults.Ok(await records.RefusedAsync(accountId, publishId, cancellation));

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
        JobDesk jobs,
        CancellationToken cancellation
    ) => await jobs.CancelAsync(accountId, jobId, cancellation) ? TypedResults.NoContent() : TypedResults.NotFound();

    private static async Task<Ok<JobView>> MoveClockAsync(
        int accountId,
        ClockMove move,
        HttpContext context,
        SearchNetworks networks,
        JobDesk jobs,
        CancellationToken cancellation
    )
    {
        if (move.Hours is < 1 or > MostHours)
        {
            throw new InvalidChangeException("hours", $"The clock moves by 1 to {MostHours} hours at once.");
        }

        // The moment to be reached is written down, not the hours: a job taken up again must not go too far.
        var target = (
            await (await networks.OfAccountAsync(accountId, cancellation)).ClockAsync(accountId, cancellation)
        ).Now.AddHours(move.Hours);
        return TypedResults.Ok(
            await jobs.BeginAsync(
                accountId,
                context.User.PersonId(),
                "clock",
                0,
                move.Hours,
                target.ToString("O"),
                cancellation
            )
        );
    }
}
