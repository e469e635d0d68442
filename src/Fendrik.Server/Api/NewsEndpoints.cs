using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Fendrik.Server.Live;

namespace Fendrik.Server.Api;

/// <summary>An account has moved.</summary>
/// <param name="Revision">Where it is now.</param>
/// <param name="Mine">True when the person who listens did it.</param>
/// <param name="Person">Who did it.</param>
/// <param name="Label">What was done, in words.</param>
public sealed record AccountMoved(long Revision, bool Mine, string Person, string Label);

internal static class NewsEndpoints
{
    public static void MapNews(this RouteGroupBuilder account) =>
        account.MapGet("/news", Listen).WithName("listenToAccount").ExcludeFromDescription();

    private static IResult Listen(
        int accountId,
        HttpContext context,
        AccountNews news,
        StepHistory history,
        CancellationToken cancellation
    )
    {
        // A proxy must not hold the events back.
        context.Response.Headers["X-Accel-Buffering"] = "no";
        return TypedResults.ServerSentEvents(
            TellAsync(accountId, context.User.PersonId(), news, history, cancellation)
        );
    }

    private static async IAsyncEnumerable<SseItem<AccountMoved>> TellAsync(
        int accountId,
        string personId,
        AccountNews news,
        StepHistory history,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        await foreach (var revision in news.ListenAsync(accountId, cancellation))
        {
            yield return await NewestAsync(revision);
        }

        async Task<SseItem<AccountMoved>> NewestAsync(long revision)
        {
            var newest = await history.NewestAsync(accountId, cancellation);
            return new SseItem<AccountMoved>(
                new AccountMoved(
                    revision,
                    newest is null || newest.PersonId == personId,
                    newest?.Person ?? "",
                    newest?.Label ?? ""
                ),
                "moved"
            );
        }
    }
}
