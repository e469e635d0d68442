using System.Collections.Concurrent;
using Dapper;
using Npgsql;

namespace Fendrik.Server.Networks;

/// <summary>The search networks that Fendrik talks to: one for each profile, chosen by the account.</summary>
public sealed class SearchNetworks(IServiceProvider services, NpgsqlDataSource source)
{
    /// <summary>An account stays on its network for good, so it is asked for once.</summary>
    private readonly ConcurrentDictionary<int, string> _networkOf = new();

    /// <summary>The network with a profile of this name.</summary>
    /// <exception cref="InvalidOperationException">There is none.</exception>
    public ISearchNetwork Of(string networkId) => services.GetRequiredKeyedService<ISearchNetwork>(networkId);

    /// <summary>The network that an account is on.</summary>
    public async Task<ISearchNetwork> OfAccountAsync(int accountId, CancellationToken cancellation)
    {
        if (!_networkOf.TryGetValue(accountId, out var networkId))
        {
            await using var connection = await source.OpenConnectionAsync(cancellation);
            networkId = await connection.ExecuteScalarAsync<string?>(
                new CommandDefinition(
                    "select network_id from account where id = @accountId",
                    new { accountId },
                    cancellationToken: cancellation
                )
            );
            _networkOf[accountId] = networkId ?? throw new InvalidOperationException($"No account {accountId}.");
        }

        return Of(networkId);
    }

    /// <summary>True when every network answers that it is well.</summary>
    public async Task<bool> AllAnswerAsync(CancellationToken cancellation)
    {
        foreach (var id in NetworkProfile.All.Keys)
        {
            try
            {
                using var http = services.GetRequiredService<IHttpClientFactory>().CreateClient("network " + id);
                using var answer = await http.GetAsync("health", cancellation);
                if (!answer.IsSuccessStatusCode)
                {
                    return false;
                }
            }
            catch (Exception error) when (error is HttpRequestException or OperationCanceledException)
            {
                return false;
            }
        }

        return true;
    }

    /// <summary>
    /// Registers one network for each profile. Its address and key are those under <c>Fendrik:Networks:{id}</c>, or else the
    /// stand-in's, which serves them all.
    /// </summary>
    internal static void Add(IServiceCollection services, IConfiguration configuration)
    {
        services.AddSingleton<SearchNetworks>();
        services.AddSingleton<NetworkDirectory>();
        foreach (var id in NetworkProfile.All.Keys)
        {
            var address = new Uri(Setting(configuration, id, "Address", "Fendrik:Network"));
            var key = Setting(configuration, id, "Key", "Fendrik:NetworkKey");
            var client = "network " + id;
            services.AddHttpClient(
                client,
                http =>
                {
                    http.BaseAddress = address;
                    http.Timeout = TimeSpan.FromSeconds(configuration.GetValue("Fendrik:NetworkTimeoutSeconds", 100));
                    http.DefaultRequestHeaders.Add("X-Network-Key", key);
                }
            );
            services.AddKeyedTransient<ISearchNetwork>(
                id,
                (provider, _) =>
                    new HttpSearchNetwork(provider.GetRequiredService<IHttpClientFactory>().CreateClient(client))
            );
        }
    }

    private static string Setting(IConfiguration configuration, string id, string name, string fallback) =>
        configuration[$"Fendrik:Networks:{id}:{name}"]
        ?? configuration[fallback]
        ?? throw new InvalidOperationException($"The setting {fallback} is missing.");
}
