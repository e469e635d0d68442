using Fendrik.Core.Changes;
using Fendrik.Data.Publishing;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Fendrik.Server.Jobs;
using Fendrik.Server.Publishing;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api;

/// <summary>Changes that a colleague is asked to look at.</summary>
/// <param name="Items">The changes.</param>
/// <param name="Note">What is said with it.</param>
public sealed record LookWish(IReadOnlyList<ItemReference> Items, string? Note = null);

/// <summary>A second look as a list shows it.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="AskedBy">Who asked.</param>
/// <param name="IsMine">True for who asks now.</param>
/// <param name="Note">What they said.</param>
/// <param name="State">How it stands.</param>
/// <param name="Items">How many changes it is about.</param>
/// <param name="Remarks">How many remarks there are.</param>
/// <param name="MadeAt">When it was asked for.</param>
/// <param name="AnsweredBy">Who answered.</param>
/// <param name="AnsweredAt">When.</param>
public sealed record LookView(
    long Id,
    string AskedBy,
    bool IsMine,
    string Note,
    LookState State,
    int Items,
    int Remarks,
    DateTimeOffset MadeAt,
    string? AnsweredBy,
    DateTimeOffset? AnsweredAt
);

/// <summary>A second look with what it is about.</summary>
/// <param name="Look">The look.</param>
/// <param name="Lines">Those of its changes that still are.</param>
/// <param name="Gone">How many are no more: published, or taken back.</param>
/// <param name="ChangedSince">Those that were changed since it was asked for.</param>
/// <param name="Remarks">What was said.</param>
/// <param name="AsOf">The newest step when they were read, or one before.</param>
public sealed record LookAnswer(
    LookView Look,
    IReadOnlyList<ChangeLine> Lines,
    int Gone,
    IReadOnlyList<ItemReference> ChangedSince,
    IReadOnlyList<LookRemark> Remarks,
    long AsOf
);

/// <summary>A look that was asked for.</summary>
/// <param name="Id">Its identity.</param>
public sealed record AskedLook(long Id);

/// <summary>Something to be said.</summary>
/// <param name="Text">What.</param>
/// <param name="About">The item that it is about; none for the whole.</param>
public sealed record RemarkText(string Text, ItemReference? About = null);

/// <summary>What a publisher saw of a look.</summary>
/// <param name="Shown">What stood there.</param>
public sealed record LookSeen(ShownPreview Shown);

/// <summary>Second looks: an editor asks, a publisher sees just these changes, and publishes or returns them.</summary>
internal static class LookEndpoints
{
    public static void MapLooks(this RouteGroupBuilder account)
    {
        account.MapGet("/looks", ListAsync).WithName("listLooks");
        account.MapPost("/looks", AskAsync).WithName("askLook");
        account.MapGet("/looks/{lookId:long}", ReadAsync).WithName("readLook");
        account.MapPost("/looks/{lookId:long}/remarks", RemarkAsync).WithName("remarkOnLook");
        account.MapPost("/looks/{lookId:long}/return", ReturnAsync).WithName("returnLook").Needs(AccountRight.Publish);
        account
            .MapPost("/looks/{lookId:long}/publish", PublishAsync)
            .WithName("publishLook")
            .Needs(AccountRight.Publish);
        account.MapPost("/looks/{lookId:long}/again", AgainAsync).WithName("askLookAgain");
        account.MapPost("/looks/{lookId:long}/withdraw", WithdrawAsync).WithName("withdrawLook");
    }

    private static LookView ViewOf(KeptLook look, HttpContext context) =>
        new(
            look.Id,
            look.AskedByName,
            look.AskedBy == context.User.PersonId(),
            look.Note,
            look.State,
            look.Items,
            look.Remarks,
            look.MadeAt,
            look.AnsweredBy,
            look.AnsweredAt
        );

    private static async Task<Ok<IReadOnlyList<LookView>>> ListAsync(
        int accountId,
        HttpContext context,
        LookBook looks,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok<IReadOnlyList<LookView>>([
            .. (await looks.ListAsync(accountId, cancellation)).Select(look => ViewOf(look, context)),
        ]);

    private static async Task<Ok<AskedLook>> AskAsync(
        int accountId,
        LookWish wish,
        HttpContext context,
        LookBook looks,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok(
            new AskedLook(await looks.AskAsync(accountId, context.User.PersonId(), wish.Items, wish.Note, cancellation))
        );

    private static async Task<Ok<LookAnswer>> ReadAsync(
        int accountId,
        long lookId,
        HttpContext context,
        LookBook looks,
        PendingChanges pending,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var account = await workingCopy.FactsAsync(accountId, cancellation);
        // First of all: what moves while the rest is read is held against this.
        var asOf = await pending.AsOfAsync(accountId, cancellation);
        var (look, items, remarks) = await looks.ReadAsync(accountId, lookId, cancellation);
        var changes = await pending.ListAsync(accountId, 0, SecondLook.MostItems, cancellation, items);
        return TypedResults.Ok(
            new LookAnswer(
                ViewOf(look, context),
                [.. changes.Select(change => ChangeEndpoints.LineOf(change, account))],
                items.Count - changes.Count,
                [
                    .. changes
                        .Where(change => change.ChangedBy > look.AsOf)
                        .Select(change => new ItemReference(change.Kind, change.Id)),
                ],
                remarks,
                asOf
            )
        );
    }

    private static async Task<NoContent> RemarkAsync(
        int accountId,
        long lookId,
        RemarkText body,
        HttpContext context,
        LookBook looks,
        CancellationToken cancellation
    )
    {
        await looks.RemarkAsync(accountId, lookId, context.User.PersonId(), body.Text, body.About, cancellation);
        return TypedResults.NoContent();
    }

    /// <summary>What is to be changed is said with it: a look that comes back without a word helps nobody.</summary>
    private static async Task<NoContent> ReturnAsync(
        int accountId,
        long lookId,
        RemarkText body,
        HttpContext context,
        LookBook looks,
        CancellationToken cancellation
    )
    {
        var person = context.User.PersonId();
        await looks.RemarkAsync(accountId, lookId, person, body.Text, body.About, cancellation);
        await looks.GoOnAsync(accountId, lookId, LookState.Returned, person, null, cancellation);
        return TypedResults.NoContent();
    }

    /// <summary>Just these go out, with what they cannot do without.</summary>
    private static async Task<Ok<JobView>> PublishAsync(
        int accountId,
        long lookId,
        LookSeen body,
        HttpContext context,
        LookBook looks,
        PendingChanges pending,
        PublishDesk desk,
        CancellationToken cancellation
    )
    {
        var person = context.User.PersonId();
        var (look, items, _) = await looks.ReadAsync(accountId, lookId, cancellation);
        if (!look.State.MayBecome(LookState.Published))
        {
            throw new InvalidChangeException("lookId", "This look is over already. Load the page again.");
        }

        var changes = await pending.ListAsync(accountId, 0, SecondLook.MostItems, cancellation, items);
        if (changes.Count == 0)
        {
            throw new InvalidChangeException("lookId", "Nothing of it is left to publish.");
        }

        var job = await desk.BeginAsync(
            accountId,
            person,
            cancellation,
            [.. changes.Select(change => new ItemReference(change.Kind, change.Id))],
            body.Shown
        );
        if (!await looks.IsSentByAsync(lookId, job.SubjectId, cancellation))
        {
            throw new InvalidChangeException(
                "lookId",
                "Another publish is under way. Wait until it is over, and publish this then."
            );
        }

        await looks.GoOnAsync(accountId, lookId, LookState.Published, person, job.SubjectId, cancellation);
        return TypedResults.Ok(job);
    }

    private static Task<NoContent> AgainAsync(
        int accountId,
        long lookId,
        HttpContext context,
        LookBook looks,
        CancellationToken cancellation
    ) => OwnAsync(accountId, lookId, LookState.Open, context, looks, cancellation);

    private static Task<NoContent> WithdrawAsync(
        int accountId,
        long lookId,
        HttpContext context,
        LookBook looks,
        CancellationToken cancellation
    ) => OwnAsync(accountId, lookId, LookState.Withdrawn, context, looks, cancellation);

    private static async Task<NoContent> OwnAsync(
        int accountId,
        long lookId,
        LookState to,
        HttpContext context,
        LookBook looks,
        CancellationToken cancellation
    )
    {
        var person = context.User.PersonId();
        var (look, _, _) = await looks.ReadAsync(accountId, lookId, cancellation);
        if (look.AskedBy != person)
        {
            throw new InvalidChangeException("lookId", $"{look.AskedByName} asked for it, and decides about it.");
        }

        await looks.GoOnAsync(accountId, lookId, to, person, null, cancellation);
        return TypedResults.NoContent();
    }
}
