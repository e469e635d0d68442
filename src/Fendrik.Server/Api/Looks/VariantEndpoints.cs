using Fendrik.Data.Accounts;
using Fendrik.Data.Steps;
using Fendrik.Data.Variants;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace Fendrik.Server.Api;

/// <summary>
/// What is proposed for a campaign that is shown: everybody of the account may propose whatever a command can do, and who changes
/// the working copy takes it over item by item.
/// </summary>
internal static class VariantEndpoints
{
    public static void MapVariants(this RouteGroupBuilder account)
    {
        account
            .MapPost("/looks/{lookId:long}/proposals", ProposeAsync)
            .WithName("propose")
            .Needs(AccountRight.Look)
            .RequireRateLimiting(RequestLimits.WholeReads);
        account.MapPost("/looks/{lookId:long}/proposals/take", TakeAsync).WithName("takeProposals");
        account.MapPost("/looks/{lookId:long}/proposals/leave", LeaveAsync).WithName("leaveProposals");
        account
            .MapDelete("/looks/{lookId:long}/proposals/{proposalId:long}", TakeBackAsync)
            .WithName("takeBackProposal")
            .Needs(AccountRight.Look);
    }

    /// <summary>A proposal as pages show it.</summary>
    public static ProposalView ViewOf(KeptProposal proposal, AccountFacts account, HttpContext context) =>
        new(
            proposal.Id,
            ChangeEndpoints.Line(proposal.Change, account),
            proposal.Person,
            proposal.PersonId == context.User.PersonId(),
            proposal.MadeAt,
            proposal.State,
            proposal.DecidedBy,
            proposal.DecidedAt,
            proposal.Problem
        );

    private static async Task<Ok<CommandAnswer>> ProposeAsync(
        int accountId,
        long lookId,
        Command command,
        bool? preview,
        HttpContext context,
        VariantBook variants,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        if (command.WhyNotProposed is { } reason)
        {
            throw new InvalidChangeException("type", reason);
        }

        var account = await workingCopy.FactsAsync(accountId, cancellation);
        var result = await variants.ProposeAsync(
            accountId,
            lookId,
            context.User.PersonId(),
            command.ToChange(),
            preview == true,
            preview == true ? null : command.Shown,
            cancellation
        );
        return TypedResults.Ok(ChangeEndpoints.Answer(result, account));
    }

    private static async Task<Ok<CommandAnswer>> TakeAsync(
        int accountId,
        long lookId,
        ProposalChoice choice,
        bool? preview,
        [FromHeader(Name = "X-Fendrik-Request")] Guid? requestId,
        HttpContext context,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var account = await workingCopy.FactsAsync(accountId, cancellation);
        var result = await workingCopy.ApplyAsync(
            accountId,
            context.User.PersonId(),
            new TakeProposals(lookId, choice.Proposals, choice.AsOf),
            preview == true,
            cancellation,
            requestId: preview == true ? null : requestId
        );
        return TypedResults.Ok(ChangeEndpoints.Answer(result, account));
    }

    private static async Task<NoContent> LeaveAsync(
        int accountId,
        long lookId,
        ProposalChoice choice,
        HttpContext context,
        VariantBook variants,
        CancellationToken cancellation
    )
    {
        await variants.LeaveAsync(
            accountId,
            lookId,
            context.User.PersonId(),
            choice.Proposals,
            choice.AsOf,
            cancellation
        );
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> TakeBackAsync(
        int accountId,
        long lookId,
        long proposalId,
        HttpContext context,
        VariantBook variants,
        CancellationToken cancellation
    )
    {
        await variants.TakeBackAsync(accountId, lookId, context.User.PersonId(), proposalId, cancellation);
        return TypedResults.NoContent();
    }
}
