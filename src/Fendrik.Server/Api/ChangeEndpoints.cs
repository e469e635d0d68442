using System.Text.Json;
using Fendrik.Core.AdText;
using Fendrik.Core.Changes;
using Fendrik.Data.Accounts;
using Fendrik.Data.People;
using Fendrik.Data.Publishing;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace Fendrik.Server.Api;

internal static class ChangeEndpoints
{
    private const int LargestPage = 500;

    public static void MapChanges(this RouteGroupBuilder account)
    {
        account.MapPost("/commands", CommandAsync).WithName("runCommand");
        account.MapGet("/commands/{requestId:guid}", RequestAsync).WithName("readRequest");
        account.MapGet("/commands/{requestId:guid}/ahead", AheadAsync).WithName("listAhead");
        account.MapPost("/undo", UndoAsync).WithName("undo");
        account.MapPost("/redo", RedoAsync).WithName("redo");
        account.MapGet("/history", HistoryAsync).WithName("listHistory");
        account.MapGet("/history/compare", CompareAsync).WithName("compareMoments");
        account.MapPost("/history/{stepId:long}/take-back", TakeBackAsync).WithName("takeBackStep");
        account.MapPost("/history/{stepId:long}/go-back", GoBackAsync).WithName("goBackToStep");
        account.MapGet("/history/{stepId:long}", StepAsync).WithName("readStep");
        account.MapGet("/pending", PendingAsync).WithName("listPending");
    }

    private static async Task<Results<Ok<CommandAnswer>, ProblemHttpResult>> CommandAsync(
        int accountId,
        Command command,
        bool? preview,
        [FromHeader(Name = "X-Fendrik-Request")] Guid? requestId,
        HttpContext context,
        MemberBook members,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var account = await workingCopy.FactsAsync(accountId, cancellation);
        var change = command.ToChange();
        if (change.OtherAccountId is { } other)
        {
            await AccountAccess.RefuseOthersAsync(
                members,
                context.User,
                other,
                AccountRight.Look,
                "with.accountId",
                cancellation
            );
        }

        try
        {
            var result = await workingCopy.ApplyAsync(
                accountId,
                context.User.PersonId(),
                change,
                preview == true,
                cancellation,
                seen: command.Seen,
                requestId: preview == true ? null : requestId,
                shown: preview == true ? null : command.Shown
            );
            return TypedResults.Ok(Answer(result, account));
        }
        catch (StaleEditException stale)
        {
            return TypedResults.Problem(
                title: stale.Message,
                statusCode: StatusCodes.Status409Conflict,
                extensions: new Dictionary<string, object?>
                {
                    ["conflicts"] = stale.Items.Select(item => new EditConflict(
                        item.Kind,
                        item.Id,
                        (item.Now ?? item.Before) is { } fields
                            ? FieldDifferences.NameOf(ItemTypes.Of(item.Kind), fields)
                            : "",
                        item.Person,
                        item.Label,
                        item.Version,
                        FieldDifferences.Between(ItemTypes.Of(item.Kind), item.Before, item.Now, account.Currency)
                    )),
                }
            );
        }
    }

    /// <summary>What became of a command whose answer did not arrive: it was done, or nothing was.</summary>
    private static async Task<Results<Ok<CommandAnswer>, NotFound>> RequestAsync(
        int accountId,
        Guid requestId,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var account = await workingCopy.FactsAsync(accountId, cancellation);
        return await workingCopy.FindAsync(accountId, requestId, cancellation) is { } result
            ? TypedResults.Ok(Answer(result, account))
            : TypedResults.NotFound();
    }

    /// <summary>Whose work a command waits for; nobody's when it is being done.</summary>
    private static async Task<Ok<IReadOnlyList<AheadInQueue>>> AheadAsync(
        int accountId,
        Guid requestId,
        AccountQueue queue,
        CancellationToken cancellation
    ) => TypedResults.Ok(await queue.AheadOfAsync(requestId, cancellation));

    private static async Task<Ok<CommandAnswer>> UndoAsync(
        int accountId,
        [FromHeader(Name = "X-Fendrik-Request")] Guid? requestId,
        HttpContext context,
        StepHistory history,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    ) =>
        await RevertAsync(
            await history.UndoAsync(accountId, context.User.PersonId(), cancellation, requestId),
            "There is nothing to undo.",
            accountId,
            workingCopy,
            cancellation
        );

    private static async Task<Ok<CommandAnswer>> RedoAsync(
        int accountId,
        [FromHeader(Name = "X-Fendrik-Request")] Guid? requestId,
        HttpContext context,
        StepHistory history,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    ) =>
        await RevertAsync(
            await history.RedoAsync(accountId, context.User.PersonId(), cancellation, requestId),
            "There is nothing to redo.",
            accountId,
            workingCopy,
            cancellation
        );

    private static async Task<Ok<CommandAnswer>> RevertAsync(
        StepResult? result,
        string nothing,
        int accountId,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok(
            Answer(
                result ?? throw new InvalidChangeException("step", nothing),
                await workingCopy.FactsAsync(accountId, cancellation)
            )
        );

    private static async Task<Ok<IReadOnlyList<HistoryEntry>>> HistoryAsync(
        int accountId,
        long? before,
        string? person,
        StepHistory history,
        CancellationToken cancellation
    ) => TypedResults.Ok(await history.ListAsync(accountId, before, 100, cancellation, person));

    private static async Task<Ok<ComparisonAnswer>> CompareAsync(
        int accountId,
        long from,
        long to,
        StepHistory history,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var comparison = await history.CompareAsync(
            accountId,
            Math.Min(from, to),
            Math.Max(from, to),
            LargestPage,
            cancellation
        );
        var account = await workingCopy.FactsAsync(accountId, cancellation);
        return TypedResults.Ok(
            new ComparisonAnswer(comparison.Total, [.. comparison.Changes.Select(change => Line(change, account))])
        );
    }

    private static Task<Results<Ok<CommandAnswer>, NotFound>> TakeBackAsync(
        int accountId,
        long stepId,
        bool? preview,
        long? asOf,
        int? items,
        [FromHeader(Name = "X-Fendrik-Request")] Guid? requestId,
        HttpContext context,
        StepHistory history,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    ) =>
        FoundAsync(
            history.TakeBackAsync(
                accountId,
                context.User.PersonId(),
                stepId,
                preview == true,
                cancellation,
                requestId,
                ShownOf(asOf, items)
            ),
            accountId,
            workingCopy,
            cancellation
        );

    private static Task<Results<Ok<CommandAnswer>, NotFound>> GoBackAsync(
        int accountId,
        long stepId,
        bool? preview,
        long? asOf,
        int? items,
        [FromHeader(Name = "X-Fendrik-Request")] Guid? requestId,
        HttpContext context,
        StepHistory history,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    ) =>
        FoundAsync(
            history.GoBackAsync(
                accountId,
                context.User.PersonId(),
                stepId,
                preview == true,
                cancellation,
                requestId,
                ShownOf(asOf, items)
            ),
            accountId,
            workingCopy,
            cancellation
        );

    private static async Task<Results<Ok<CommandAnswer>, NotFound>> FoundAsync(
        Task<StepResult?> step,
        int accountId,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    ) =>
        await step is { } result
            ? TypedResults.Ok(Answer(result, await workingCopy.FactsAsync(accountId, cancellation)))
            : TypedResults.NotFound();

    private static async Task<Results<Ok<List<ChangeLine>>, NotFound>> StepAsync(
        int accountId,
        long stepId,
        StepHistory history,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var changes = await history.ChangesOfAsync(accountId, stepId, LargestPage, cancellation);
        var account = await workingCopy.FactsAsync(accountId, cancellation);
        return changes is null
            ? TypedResults.NotFound()
            : TypedResults.Ok(changes.Select(change => Line(change, account)).ToList());
    }

    /// <summary>A pending change as pages show it.</summary>
    internal static ChangeLine LineOf(PendingChange change, AccountFacts account) =>
        new(
            change.Kind,
            change.Id,
            change.Name,
            change.Campaign,
            change.AdGroup,
            change.Change,
            FieldDifferences.Between(
                ItemTypes.Of(change.Kind),
                change.Before,
                change.After,
                account.Currency,
                account.Network
            ),
            change.ReviewReason,
            change.IsHeld,
            AdOf(change.Kind, change.Before, change.After, account)
        );

    private static async Task<Ok<PendingAnswer>> PendingAsync(
        int accountId,
        int? offset,
        PendingChanges pending,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var account = await workingCopy.FactsAsync(accountId, cancellation);
        // First of all: what moves while the rest is read is held against this.
        var asOf = await pending.AsOfAsync(accountId, cancellation);
        var counts = await pending.CountAsync(accountId, cancellation);
        var outlook = await pending.OutlookAsync(accountId, cancellation);
        var changes = await pending.ListAsync(accountId, Math.Max(0, offset ?? 0), LargestPage, cancellation);
        return TypedResults.Ok(
            new PendingAnswer(
                counts,
                [.. changes.Select(change => LineOf(change, account))],
                outlook.GoesOut,
                outlook.Held,
                asOf
            )
        );
    }

    private static ShownPreview? ShownOf(long? asOf, int? items) =>
        asOf is { } step && items is { } count ? new ShownPreview(step, count) : null;

    internal static CommandAnswer Answer(StepResult result, AccountFacts account) =>
        new(
            result.StepId,
            result.Label,
            result.Items,
            result.Refused,
            result.RefusedCount,
            [.. result.Changes.Select(change => Line(change, account))],
            result.Warnings,
            result.AsOf
        );

    internal static ChangeLine Line(ItemChange change, AccountFacts account) =>
        new(
            change.Kind,
            change.Id,
            (change.After ?? change.Before) is { } item ? FieldDifferences.NameOf(ItemTypes.Of(change.Kind), item) : "",
            change.Place?.List ?? change.Place?.Campaign,
            change.Place?.AdGroup,
            change.Before is null ? RowChange.New
                : change.After is null ? RowChange.Removed
                : RowChange.Edited,
            FieldDifferences.Between(
                ItemTypes.Of(change.Kind),
                change.Before ?? change.Original,
                change.After,
                account.Currency,
                account.Network
            ),
            null,
            Ad: AdOf(change.Kind, change.Before, change.After, account, change.Original),
            CopyOf: change.Original is { } original
                ? FieldDifferences.NameOf(ItemTypes.Of(change.Kind), original)
                : null
        );

    /// <summary>A new ad as an ad; a copy with what is new in it.</summary>
    private static SeenAd? AdOf(
        ItemKind kind,
        JsonElement? before,
        JsonElement? after,
        AccountFacts account,
        JsonElement? original = null
    )
    {
        SeenAd? Seen(JsonElement item) => SeenAd.Of(ItemTypes.Of(kind), item, account.Network);
        var ad = before is null && after is { } made ? Seen(made) : null;
        return ad is not null && original is { } of && Seen(of) is { } twin ? ad.After(twin) : ad;
    }
}
