using System.Net;
using System.Runtime.CompilerServices;
using Fendrik.Core.Changes;
using Fendrik.Core.Reporting;
using Fendrik.Data.Model;
using Fendrik.Data.Publishing;

namespace Fendrik.Server.Networks;

/// <summary>The network cannot be reached or does not answer as it should; the message is for a person.</summary>
public sealed class NetworkUnavailableException(string message, Exception? inner = null) : Exception(message, inner);

/// <summary>Talks to a search network over HTTP. Requests that change something carry a key, so that they may be sent again.</summary>
public sealed class SearchNetwork(HttpClient http)
{
    private const int Attempts = 4;

    private static readonly TimeSpan FirstPause = TimeSpan.FromMilliseconds(200);

    public Task SetUpAsync(AccountRow account, DateTimeOffset startAt, long seed, CancellationToken cancellation) =>
        AgainAsync(
            async () =>
            {
                using var response = await http.PutAsJsonAsync(
                    Of(account.Id),
                    new
                    {
                        network = account.NetworkId,
                        currency = account.Currency,
                        timeZone = account.TimeZone,
                        startAt,
                        seed,
                    },
                    cancellation
                );
                response.EnsureSuccessStatusCode();
                return true;
            },
            cancellation
        );

    public Task<NetworkClock> ClockAsync(int accountId, CancellationToken cancellation) =>
        AgainAsync(
            async () => (await http.GetFromJsonAsync<NetworkClock>($"{Of(accountId)}/clock", cancellation))!,
            cancellation
        );

    /// <summary>Moves the simulated clock. Not sent again by itself: twice would be twice as far.</summary>
    public async Task<NetworkClock> AdvanceAsync(int accountId, int hours, CancellationToken cancellation)
    {
        try
        {
            using var response = await http.PostAsJsonAsync(
                $"{Of(accountId)}/clock/advance",
                new { hours },
                cancellation
            );
            response.EnsureSuccessStatusCode();
            return (await response.Content.ReadFromJsonAsync<NetworkClock>(cancellation))!;
        }
        catch (Exception error) when (IsTransport(error, cancellation))
        {
            throw Unavailable(error);
        }
    }

    public Task<IReadOnlyList<NetworkAnswer>> ChangeAsync(
        int accountId,
        PublishBatch batch,
        CancellationToken cancellation
    ) =>
        AgainAsync<IReadOnlyList<NetworkAnswer>>(
            async () =>
            {
                using var request = new HttpRequestMessage(HttpMethod.Post, $"{Of(accountId)}/batches")
                {
                    Content = JsonContent.Create(batch.Changes),
                };
                request.Headers.Add("Idempotency-Key", batch.Key);
                using var response = await http.SendAsync(request, cancellation);
                response.EnsureSuccessStatusCode();
                return (await response.Content.ReadFromJsonAsync<List<NetworkAnswer>>(cancellation))!;
            },
            cancellation
        );

    public Task<List<NetworkReview>> ReviewsAsync(int accountId, CancellationToken cancellation) =>
        AgainAsync(
            async () => (await http.GetFromJsonAsync<List<NetworkReview>>($"{Of(accountId)}/reviews", cancellation))!,
            cancellation
        );

    /// <summary>What changed on the network after a change that has been read.</summary>
    public Task<NetworkItems> ItemsChangedAsync(int accountId, long after, CancellationToken cancellation) =>
        AgainAsync(
            async () =>
                (await http.GetFromJsonAsync<NetworkItems>($"{Of(accountId)}/changes?after={after}", cancellation))!,
            cancellation
        );

    /// <summary>Acts as somebody who changes items on the network itself: only the stand-in has such a door.</summary>
    public async Task EditFromOutsideAsync(
        int accountId,
        IReadOnlyList<NetworkChange> changes,
        CancellationToken cancellation
    )
    {
        using var response = await http.PostAsJsonAsync($"{Of(accountId)}/outside-edits", changes, cancellation);
        response.EnsureSuccessStatusCode();
    }

    public Task<List<SearchTermRow>> SearchTermsAsync(int accountId, Period days, CancellationToken cancellation) =>
        AgainAsync(
            async () =>
                (
                    await http.GetFromJsonAsync<List<SearchTermRow>>(
                        $"{Of(accountId)}/search-terms?first={days.First:yyyy-MM-dd}&last={days.Last:yyyy-MM-dd}",
                        cancellation
                    )
                )!,
            cancellation
        );

    public async IAsyncEnumerable<PerformanceRow> ReportAsync(
        int accountId,
        Period days,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        var rows = await AgainAsync(
            async () =>
                (
                    await http.GetFromJsonAsync<List<PerformanceRow>>(
                        $"{Of(accountId)}/reports?first={days.First:yyyy-MM-dd}&last={days.Last:yyyy-MM-dd}",
                        cancellation
                    )
                )!,
            cancellation
        );
        foreach (var row in rows)
        {
            yield return row;
        }
    }

    private static string Of(int accountId) => $"v1/accounts/fendrik-{accountId}";

    private static async Task<T> AgainAsync<T>(Func<Task<T>> send, CancellationToken cancellation)
    {
        var pause = FirstPause;
        for (var attempt = 1; ; attempt++)
        {
            try
            {
                return await send();
            }
            catch (Exception error) when (IsTransport(error, cancellation))
            {
                if (
                    attempt == Attempts
                    || error
                        is HttpRequestException
                        {
                            StatusCode: >= HttpStatusCode.BadRequest and < HttpStatusCode.InternalServerError
                        }
                )
                {
                    throw Unavailable(error);
                }
            }

            await Task.Delay(pause, cancellation);
            pause *= 2;
        }
    }

    private static bool IsTransport(Exception error, CancellationToken cancellation) =>
        error is HttpRequestException or IOException
        || (error is TaskCanceledException && !cancellation.IsCancellationRequested);

    private static NetworkUnavailableException Unavailable(Exception error) =>
        error is HttpRequestException { StatusCode: { } status }
            ? new($"The network answered with an error ({(int)status}).", error)
            : new("The network does not answer.", error);
}
