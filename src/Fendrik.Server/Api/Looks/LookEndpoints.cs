using Fendrik.Core.Changes;
using Fendrik.Data.Publishing;
using Fendrik.Data.Steps;
using Fendrik.Data.Variants;
using Fendrik.Server.Access;
using Fendrik.Server.Jobs;
using Fendrik.Server.Publishing;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api;

/// <summary>Second looks: an editor asks, a publisher sees just these changes, and publishes or returns them.</summary>
internal static class LookEndpoints
{
    public static void MapLooks(this RouteGroupBuilder account)
    {
        account.MapGet("/looks", ListAsync).WithName("listLooks");
        account.MapPost("/looks", AskAsync).WithName("askLook");
        account.MapPost("/looks/campaign", ShowAsync).WithName("showCampaign");
        account.MapGet("/looks/{lookId:long}", ReadAsync).WithName("readLook");
        account.MapPost("/looks/{lookId:long}/remarks", RemarkAsync).WithName("remarkOnLook").Needs(AccountRight.Look);
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
            look.AnsweredAt,
            look.CampaignId,
            look.Campaign,
            look.Proposed
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

    private static async Task<Ok<AskedLook>> ShowAsync(
        int accountId,
        CampaignToShow wish,
        HttpContext context,
        LookBook looks,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok(
            new AskedLook(
                await looks.ShowAsync(accountId, context.User.PersonId(), wish.CampaignId, wish.Note, cancellation)
            )
        );

    private static async Task<Ok<LookAnswer>> ReadAsync(
        int accountId,
        long lookId,
        HttpContext context,
        LookBook looks,
        VariantBook variants,
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
        var proposals =
            look.Subject == LookSubject.Campaign ? await variants.ListAsync(accountId, lookId, cancellation) : [];
        ProposalView[] views = [.. proposals.Select(each => VariantEndpoints.ViewOf(each, account, context))];
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
                [
                    .. remarks.Select(remark =>
                        remark with
                        {
                            // What is proposed anew stands in no table yet.
                            Name =
                                remark.Name
                                ?? views
                                    .FirstOrDefault(view =>
                                        view.Line.Kind == remark.Kind && view.Line.Id == remark.ItemId
                                    )
                                    ?.Line.Name,
                        }
                    ),
                ],
                views,
                views.Length == 0 ? null : views.Max(view => view.MadeAt),
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
        var (look, _, _) = await looks.ReadAsync(accountId, lookId, cancellation);
        if (look.Subject != LookSubject.Changes)
        {
            throw new InvalidChangeException("lookId", "A campaign that is shown is not returned. Say it as a remark.");
        }

        await looks.RemarkAsync(accountId, lookId, person, body.Text, body.About, cancellation);
        await looks.GoOnAsync(accountId, look, LookState.Returned, person, null, cancellation);
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
        if (!look.State.MayBecome(LookState.Published, look.Subject))
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

        await looks.GoOnAsync(accountId, look, LookState.Published, person, job.SubjectId, cancellation);
        return TypedResults.Ok(job);
    }

    private static Task<NoContent> AgainAsync(
        int accountId,
        long lookId,
        HttpContext context,
        LookBook looks,
        CancellationToken cancellation
    ) => OwnAsync(accountId, lookId, _ => LookState.Open, context, looks, cancellation);

    private static Task<NoContent> WithdrawAsync(
        int accountId,
        long lookId,
        HttpContext context,
        LookBook looks,
        CancellationToken cancellation
    ) =>
        OwnAsync(
            accountId,
            lookId,
            subject =>
                subject switch
                {
                    LookSubject.Changes => LookState.Withdrawn,
                    LookSubject.Campaign => LookState.Closed,
                },
            context,
            looks,
            cancellation
        );

    private static async Task<NoContent> OwnAsync(
        int accountId,
        long lookId,
        Func<LookSubject, LookState> to,
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

        await looks.GoOnAsync(accountId, look, to(look.Subject), person, null, cancellation);
        return TypedResults.NoContent();
    }
}
