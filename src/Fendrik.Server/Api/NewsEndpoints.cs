using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Fendrik.Data.People;
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
        SignInBook signIns,
        MemberBook members,
        CancellationToken cancellation
    )
    {
        // A proxy must not hold the events back.
        context.Response.Headers["X-Accel-Buffering"] = "no";
        var personId = context.User.PersonId();
        return TypedResults.ServerSentEvents(
            TellAsync(accountId, personId, news, history, MayStillAsync, cancellation)
        );

        // Who was let in when the stream began may have been signed out or removed since.
        async Task<bool> MayStillAsync() =>
            SignInTickets.IdOf(context) is { } signIn
            && await signIns.HoldsAsync(signIn, cancellation)
            && await members.RoleAsync(accountId, personId, cancellation) is not null;
    }

    private static async IAsyncEnumerable<SseItem<AccountMoved>> TellAsync(
        int accountId,
        string personId,
        AccountNews news,
        StepHistory history,
        Func<Task<bool>> mayStill,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        long? told = null;
        await foreach (var revision in news.ListenAsync(accountId, cancellation))
        {
            if (!await mayStill())
            {
                yield break;
            }

            yield return await NewestAsync(revision);
        }

        async Task<SseItem<AccountMoved>> NewestAsync(long revision)
        {
            var newest = await history.NewestAsync(accountId, cancellation);
            // What moved it may be no step: an answer of the network, a proposal. Then nothing is told of the step before.
            var isOld = newest?.Id == told;
            told = newest?.Id;
            return new SseItem<AccountMoved>(
                new AccountMoved(
                    revision,
                    newest is null || newest.PersonId == personId,
                    newest?.Person ?? "",
                    isOld ? "" : newest?.Label ?? ""
                ),
                "moved"
            );
        }
    }
}
