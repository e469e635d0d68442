using System.Net.Http.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Network;
using Fendrik.Network.Serving;
using Microsoft.AspNetCore.Builder;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace Fendrik.Tests.Shared;

/// <summary>The network stand-in as it ships, over HTTP on loopback with a database of its own.</summary>
public sealed class NetworkHost : IAsyncDisposable
{
    public const string Key = "a-key-for-tests";

    private readonly WebApplication _application;

    private NetworkHost(WebApplication application, string database) =>
        (_application, Database) = (application, database);

    public string Database { get; }

    public string Address => _application.Urls.First() + "/";

    public static async Task<NetworkHost> StartAsync()
    {
        var database = await TestDatabase.CreateAsync(
            "network",
            async prepared =>
            {
                await using var source = NpgsqlDataSource.Create(prepared);
                await new NetworkStore(source).PrepareAsync();
            }
        );
        var application = NetworkApplication.Build([
            "--urls=http://127.0.0.1:0",
            $"--Network:Database={database}",
            $"--Network:Key={Key}",
            "--Logging:LogLevel:Default=None",
        ]);
        await application.Services.GetRequiredService<NetworkStore>().PrepareAsync();
        await application.StartAsync();
        return new NetworkHost(application, database);
    }

    public HttpClient Client(string key = Key)
    {
        var client = new HttpClient { BaseAddress = new Uri(Address) };
        client.DefaultRequestHeaders.Add(NetworkApplication.KeyHeader, key);
        return client;
    }

    public async ValueTask DisposeAsync() => await _application.DisposeAsync();
}

/// <summary>What tests ask of the network, in a line each.</summary>
public sealed class NetworkVisitor(HttpClient http, string account)
{
    public static readonly DateTimeOffset Monday = new(2026, 3, 16, 0, 0, 0, TimeSpan.Zero);

    private int _batches;

    public string AccountId => account;

    public async Task SetUpAsync(
        long seed = 1,
        string network = "ostrel",
        DateTimeOffset? startAt = null,
        string? payer = "Tarn & Fell Pianos"
    )
    {
        var setUp = new AccountSetUp(network, "GBP", "Europe/London", startAt ?? Monday, seed, payer);
        (await http.PutAsJsonAsync($"v1/accounts/{account}", setUp)).EnsureSuccessStatusCode();
    }

    public async Task<List<NetworkAnswer>> SendAsync(string key, params NetworkChange[] changes)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, $"v1/accounts/{account}/batches")
        {
            Content = JsonContent.Create(changes),
        };
        request.Headers.Add("Idempotency-Key", key);
        using var response = await http.SendAsync(request);
        response.EnsureSuccessStatusCode();
        return (await response.Content.ReadFromJsonAsync<List<NetworkAnswer>>())!;
    }

    /// <summary>Somebody changes items on the network itself.</summary>
    public async Task EditFromOutsideAsync(params NetworkChange[] changes) =>
        (await http.PostAsJsonAsync($"v1/accounts/{account}/outside-edits", changes)).EnsureSuccessStatusCode();

    public Task<NetworkItems?> ChangesAsync(long after) =>
        http.GetFromJsonAsync<NetworkItems>($"v1/accounts/{account}/changes?after={after}");

    public Task<List<SearchTermRow>?> SearchTermsAsync(DateOnly first, DateOnly last) =>
        http.GetFromJsonAsync<List<SearchTermRow>>(
            $"v1/accounts/{account}/search-terms?first={first:yyyy-MM-dd}&last={last:yyyy-MM-dd}"
        );

    public Task<List<NetworkAnswer>> PutAsync(params object[] items) =>
        SendAsync($"batch {_batches++}", [.. items.Select(Put)]);

    public static NetworkChange Put(object item)
    {
        var (kind, id) = item switch
        {
            (ItemKind of, PlacedExtension placed) => (of, placed.Id),
            Campaign campaign => (ItemKind.Campaign, campaign.Id),
            AdGroup group => (ItemKind.AdGroup, group.Id),
            Keyword keyword => (ItemKind.Keyword, keyword.Id),
            NegativeKeyword negative => (ItemKind.NegativeKeyword, negative.Id),
            NegativeList list => (ItemKind.NegativeList, list.Id),
            Ad ad => (ad.Kind, ad.Id),
            PlacedSite each => (ItemKind.Placement, each.Id),
            PlacedAudience each => (ItemKind.Audience, each.Id),
            PlacedPlace each => (ItemKind.Place, each.Id),
            ConversionAction each => (ItemKind.ConversionAction, each.Id),
            _ => throw new ArgumentException("Not an item.", nameof(item)),
        };
        item = item is (ItemKind, PlacedExtension extension) ? extension : item;
        return new NetworkChange(
            kind,
            id,
            ChangeAction.Put,
            System.Text.Json.JsonSerializer.SerializeToElement(item, item.GetType(), NetworkStore.Json)
        );
    }

    /// <summary>Asks for another reader of an ad.</summary>
    public async Task<AppealAnswer> AppealAsync(long ad)
    {
        using var response = await http.PostAsJsonAsync(
            $"v1/accounts/{AccountId}/appeals",
            new Appeal(ItemKind.TextAd, ad, "Please read it word for word.")
        );
        response.EnsureSuccessStatusCode();
        return await response.Content.ReadFromJsonAsync<AppealAnswer>();
    }

    public async Task<NetworkClock> AdvanceAsync(int hours)
    {
        using var response = await http.PostAsJsonAsync($"v1/accounts/{account}/clock/advance", new ClockStep(hours));
        response.EnsureSuccessStatusCode();
        return (await response.Content.ReadFromJsonAsync<NetworkClock>())!;
    }

    public async Task<List<PerformanceRow>> ReportAsync(DateOnly day) =>
        (
            await http.GetFromJsonAsync<List<PerformanceRow>>(
                $"v1/accounts/{account}/reports?first={day:yyyy-MM-dd}&last={day:yyyy-MM-dd}"
            )
        )!;

    public async Task<List<StandingRow>> StandingsAsync(DateOnly day) =>
        (
            await http.GetFromJsonAsync<List<StandingRow>>(
                $"v1/accounts/{account}/standings?first={day:yyyy-MM-dd}&last={day:yyyy-MM-dd}"
            )
        )!;

    public async Task<IReadOnlyList<NetworkReview>> ReviewsAsync() => (await ReviewsSinceAsync(0)).Reviews;

    public async Task<NetworkReviews> ReviewsSinceAsync(long after) =>
        (await http.GetFromJsonAsync<NetworkReviews>($"v1/accounts/{account}/reviews?after={after}"))!;

    public async Task FaultAsync(string kind, int times, int milliseconds = 0, string? wording = null) =>
        (
            await http.PostAsJsonAsync(
                $"v1/accounts/{account}/faults",
                new
                {
                    kind,
                    times,
                    milliseconds,
                    wording,
                }
            )
        ).EnsureSuccessStatusCode();

    public async Task<int> ItemCountAsync() =>
        (await http.GetFromJsonAsync<List<System.Text.Json.JsonElement>>($"v1/accounts/{account}/items"))!.Count;
}
