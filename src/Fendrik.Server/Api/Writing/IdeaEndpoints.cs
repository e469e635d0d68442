using Fendrik.Core.AdText;
using Fendrik.Data.Writing;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Writing;

/// <summary>A phrase to keep.</summary>
public sealed record IdeaToKeep(string Text);

/// <summary>A phrase of one's own.</summary>
/// <param name="Id">The kept phrase; none for one that is only used.</param>
/// <param name="Text">The phrase.</param>
/// <param name="Kind">What it does.</param>
/// <param name="AsHeadline">Ads that have it as a headline.</param>
/// <param name="AsDescription">Ads that have it as a description.</param>
/// <param name="AdGroups">Ad groups of these ads.</param>
/// <param name="Impressions">Times it showed in 28 days.</param>
/// <param name="Ctr">Clicks for each time it showed.</param>
/// <param name="CostPerConversion">What a conversion cost.</param>
public sealed record IdeaRow(
    long? Id,
    string Text,
    PhraseKind Kind,
    int AsHeadline,
    int AsDescription,
    int AdGroups,
    long Impressions,
    decimal? Ctr,
    decimal? CostPerConversion
);

/// <summary>Phrases for ads.</summary>
/// <param name="Own">One's own, the most used first.</param>
/// <param name="Rivals">What rivals were seen to say.</param>
public sealed record IdeasAnswer(IReadOnlyList<IdeaRow> Own, IReadOnlyList<RivalText> Rivals);

/// <summary>Phrases for ads.</summary>
internal static class IdeaEndpoints
{
    public static void MapIdeas(this RouteGroupBuilder account)
    {
        account.MapGet("/ideas", ReadAsync).WithName("readIdeas");
        account.MapPost("/ideas", KeepAsync).WithName("keepIdea");
        account.MapDelete("/ideas/{ideaId:long}", LetGoAsync).WithName("letIdeaGo");
    }

    private static async Task<Ok<IdeasAnswer>> ReadAsync(
        int accountId,
        long? campaignId,
        long? adGroupId,
        IdeaBank bank,
        CancellationToken cancellation
    )
    {
        var own = await bank.OwnAsync(accountId, campaignId, adGroupId, cancellation);
        return TypedResults.Ok(
            new IdeasAnswer(
                [
                    .. own.Select(each => new IdeaRow(
                        each.Id,
                        each.Text,
                        each.Kind,
                        each.AsHeadline,
                        each.AsDescription,
                        each.AdGroups,
                        each.Figures.Impressions,
                        each.Figures.ClickThroughRate,
                        each.Figures.CostPerConversion
                    )),
                ],
                await bank.RivalsAsync(accountId, cancellation)
            )
        );
    }

    private static async Task<NoContent> KeepAsync(
        int accountId,
        IdeaToKeep idea,
        HttpContext context,
        IdeaBank bank,
        CancellationToken cancellation
    )
    {
        await bank.KeepAsync(accountId, context.User.PersonId(), idea.Text ?? "", cancellation);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> LetGoAsync(
        int accountId,
        long ideaId,
        IdeaBank bank,
        CancellationToken cancellation
    )
    {
        await bank.LetGoAsync(accountId, ideaId, cancellation);
        return TypedResults.NoContent();
    }
}
