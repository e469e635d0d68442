using System.Net;
using Fendrik.Core.Networks;
using Fendrik.Data.Steps;

namespace Fendrik.Server.Networks;

/// <summary>Accounts that exist on networks, opened by the code that a network gave to their owner.</summary>
public sealed class NetworkDirectory(IHttpClientFactory clients)
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(100);

    /// <summary>The accounts that a code opens.</summary>
    /// <exception cref="InvalidChangeException">It opens none.</exception>
    /// <exception cref="NetworkUnavailableException">The network does not answer.</exception>
    public async Task<IReadOnlyList<NetworkAccountOffer>> OpenAsync(
        AccountOpening opening,
        CancellationToken cancellation
    ) =>
        await AskAsync(
            opening.Network,
            async http =>
            {
                using var answer = await http.PostAsJsonAsync("v1/openings", opening, cancellation);
                Refuse(answer.StatusCode);
                return await answer.Content.ReadFromJsonAsync<NetworkAccountOffer[]>(cancellation) ?? [];
            }
        );

    /// <summary>From now on the network knows an account by the name that it has here.</summary>
    /// <exception cref="InvalidChangeException">The code does not open it.</exception>
    /// <exception cref="NetworkUnavailableException">The network does not answer.</exception>
    public async Task LinkAsync(int accountId, AccountLink link, CancellationToken cancellation) =>
        await AskAsync(
            link.Network,
            async http =>
            {
                using var answer = await http.PutAsJsonAsync(
                    $"{HttpSearchNetwork.Of(accountId)}/link",
                    link,
                    cancellation
                );
                Refuse(answer.StatusCode);
                return true;
            }
        );

    private static void Refuse(HttpStatusCode status)
    {
        if (status == HttpStatusCode.NotFound)
        {
            throw new InvalidChangeException(
                "code",
                "The network opens nothing by this code. Ask the owner of the account for it, and look whether it is the right network."
            );
        }

        if ((int)status >= StatusCodes.Status400BadRequest)
        {
            throw new HttpRequestException($"The network answered {(int)status}.");
        }
    }

    private async Task<T> AskAsync<T>(string networkId, Func<HttpClient, Task<T>> ask)
    {
        if (!NetworkProfile.All.ContainsKey(networkId ?? ""))
        {
            throw new InvalidChangeException("network", "Choose one of the networks.");
        }

        try
        {
            // The network looks through whole accounts before it answers.
            var http = clients.CreateClient("network " + networkId);
            http.Timeout = Patience;
            return await ask(http);
        }
        catch (Exception error)
            when (error is HttpRequestException || error is TaskCanceledException { InnerException: TimeoutException })
        {
            throw new NetworkUnavailableException(
                "The network does not answer. Nothing was made; try again in a moment.",
                error
            );
        }
    }
}
