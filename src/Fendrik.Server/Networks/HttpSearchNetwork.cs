using System.Net;
using System.Runtime.CompilerServices;
using Fendrik.Core.Changes;
using Fendrik.Core.Reporting;
using Fendrik.Core.Serving;
using Fendrik.Data.Model;
using Fendrik.Data.Publishing;
using Microsoft.AspNetCore.Mvc;
using Polly;
using Polly.Retry;

namespace Fendrik.Server.Networks;

/// <summary>
/// A search network over HTTP. Requests that change something carry a key, so that they may be sent again after an answer was
/// lost.
/// </summary>
internal sealed partial class HttpSearchNetwork(HttpClient http) : ISearchNetwork
{
    // The pipeline holds the whole exchange, the body of the answer with it: a connection may break in the middle of that.
    private static readonly ResiliencePipeline Again = new ResiliencePipelineBuilder()
        .AddRetry(
            new RetryStrategyOptions
            {
                MaxRetryAttempts = 3,
                Delay = TimeSpan.FromMilliseconds(200),
                BackoffType = DelayBackoffType.Exponential,
                UseJitter = true,
                ShouldHandle = arguments =>
                    ValueTask.FromResult(
                        arguments.Outcome.Exception is { } error
                            && IsTransport(error, arguments.Context.CancellationToken)
                            && !IsTheCallersFault(error)
                    ),
            }
        )
        .Build();

    public Task SetUpAsync(AccountRow account, DateTimeOffset startAt, long seed, CancellationToken cancellation) =>
        AgainAsync(
            async stop =>
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
                        payer = account.Payer,
                    },
                    stop
                );
                response.EnsureSuccessStatusCode();
                return true;
            },
            cancellation
        );

    public Task<NetworkClock> ClockAsync(int accountId, CancellationToken cancellation) =>
        ReadAsync<NetworkClock>(accountId, "clock", cancellation);

    public Task<NetworkToday> TodayAsync(int accountId, CancellationToken cancellation) =>
        ReadAsync<NetworkToday>(accountId, "today", cancellation);

    public Task<AccountPayer> PayerAsync(int accountId, CancellationToken cancellation) =>
        ReadAsync<AccountPayer>(accountId, "payer", cancellation);

    public Task SetPayerAsync(int accountId, AccountPayer payer, CancellationToken cancellation) =>
        AgainAsync(
            async stop =>
            {
                using var response = await http.PutAsJsonAsync($"{Of(accountId)}/payer", payer, stop);
                response.EnsureSuccessStatusCode();
                return true;
            },
            cancellation
        );

    public Task<CarrierNumbers> NumbersAsync(int accountId, CancellationToken cancellation) =>
        ReadAsync<CarrierNumbers>(accountId, "numbers", cancellation);

    public Task<(IReadOnlyList<string> Numbers, string? Problem)> RentAsync(
        int accountId,
        NumberWish wish,
        CancellationToken cancellation
    ) =>
        OnceAsync<(IReadOnlyList<string>, string?)>(
            async stop =>
            {
                using var response = await http.PostAsJsonAsync($"{Of(accountId)}/numbers", wish, stop);
                if (response.StatusCode == System.Net.HttpStatusCode.BadRequest)
                {
                    var told = await response.Content.ReadFromJsonAsync<Microsoft.AspNetCore.Mvc.ProblemDetails>(stop);
                    return ([], told?.Detail ?? "The carrier has no such numbers.");
                }

                response.EnsureSuccessStatusCode();
                return ((await response.Content.ReadFromJsonAsync<List<string>>(stop))!, null);
            },
            cancellation
        );

    public Task GiveBackAsync(int accountId, string number, CancellationToken cancellation) =>
        AgainAsync(
            async stop =>
            {
                using var response = await http.DeleteAsync(
                    $"{Of(accountId)}/numbers/{Uri.EscapeDataString(number)}",
                    stop
                );
                if (response.StatusCode != System.Net.HttpStatusCode.NotFound)
                {
                    response.EnsureSuccessStatusCode();
                }

                return true;
            },
            cancellation
        );

    public Task<AppealAnswer> AppealAsync(int accountId, Appeal appeal, CancellationToken cancellation) =>
        OnceAsync(
            async stop =>
            {
                using var response = await http.PostAsJsonAsync($"{Of(accountId)}/appeals", appeal, stop);
                response.EnsureSuccessStatusCode();
                return await response.Content.ReadFromJsonAsync<AppealAnswer>(stop);
            },
            cancellation
        );

    public Task<NetworkClock> AdvanceAsync(int accountId, int hours, CancellationToken cancellation) =>
        OnceAsync(
            async stop =>
            {
                using var response = await http.PostAsJsonAsync($"{Of(accountId)}/clock/advance", new { hours }, stop);
                response.EnsureSuccessStatusCode();
                return (await response.Content.ReadFromJsonAsync<NetworkClock>(stop))!;
            },
            cancellation
        );

    public Task<IReadOnlyList<NetworkAnswer>> ChangeAsync(
        int accountId,
        PublishBatch batch,
        CancellationToken cancellation
    ) =>
        AgainAsync<IReadOnlyList<NetworkAnswer>>(
            async stop =>
            {
                using var request = new HttpRequestMessage(HttpMethod.Post, $"{Of(accountId)}/batches")
                {
                    Content = JsonContent.Create(batch.Changes),
                };
                request.Headers.Add("Idempotency-Key", batch.Key);
                using var response = await http.SendAsync(request, stop);
                response.EnsureSuccessStatusCode();
                return (await response.Content.ReadFromJsonAsync<List<NetworkAnswer>>(stop))!;
            },
            cancellation
        );

    public Task<IReadOnlyList<NetworkAnswer>?> CloseAsync(
        int accountId,
        string batchKey,
        CancellationToken cancellation
    ) =>
        AgainAsync<IReadOnlyList<NetworkAnswer>?>(
            async stop =>
            {
                using var response = await http.PostAsync(
                    $"{Of(accountId)}/batches/{Uri.EscapeDataString(batchKey)}/close",
                    null,
                    stop
                );
                response.EnsureSuccessStatusCode();
                return await response.Content.ReadFromJsonAsync<List<NetworkAnswer>?>(stop);
            },
            cancellation
        );

    public async Task<IReadOnlyList<NetworkPlace>> PlacesAsync(CancellationToken cancellation) =>
        await AgainAsync(
            async stop => (await http.GetFromJsonAsync<List<NetworkPlace>>("v1/places", stop))!,
            cancellation
        );

    public Task<SearchTrace> TraceAsync(int accountId, TraceWish wish, CancellationToken cancellation) =>
        AgainAsync<SearchTrace>(
            async stop =>
            {
                using var response = await http.PostAsJsonAsync($"{Of(accountId)}/traces", wish, stop);
                response.EnsureSuccessStatusCode();
                return (await response.Content.ReadFromJsonAsync<SearchTrace>(stop))!;
            },
            cancellation
        );

    public Task<SearchTrace?> PastTraceAsync(int accountId, long search, CancellationToken cancellation) =>
        AgainAsync<SearchTrace?>(
            async stop =>
            {
                using var response = await http.GetAsync($"{Of(accountId)}/searches/{search}/trace", stop);
                if (response.StatusCode == HttpStatusCode.NotFound)
                {
                    return null;
                }

                await RefuseGoneAsync(response, stop);
                response.EnsureSuccessStatusCode();
                return await response.Content.ReadFromJsonAsync<SearchTrace>(stop);
            },
            cancellation
        );

    public async Task<IReadOnlyList<SampleSearch>> SamplesAsync(
        int accountId,
        SampleQuestion question,
        CancellationToken cancellation
    )
    {
        var asked =
            $"searches?day={question.Day:yyyy-MM-dd}&most={question.Most}"
            + (question.Fate is { } fate ? $"&fate={(int)fate}" : "")
            + (question.KeywordId is { } keyword ? $"&keyword={keyword}" : "")
            + (question.Term is { } term ? $"&term={Uri.EscapeDataString(term)}" : "");
        return await AgainAsync<IReadOnlyList<SampleSearch>>(
            async stop =>
            {
                using var response = await http.GetAsync($"{Of(accountId)}/{asked}", stop);
                await RefuseGoneAsync(response, stop);
                response.EnsureSuccessStatusCode();
                return (await response.Content.ReadFromJsonAsync<List<SampleSearch>>(stop))!;
            },
            cancellation
        );
    }

    public Task<IReadOnlyList<NetworkEstimate>> EstimateAsync(
        int accountId,
        EstimateWish wish,
        CancellationToken cancellation
    ) =>
        AgainAsync<IReadOnlyList<NetworkEstimate>>(
            async stop =>
            {
                using var response = await http.PostAsJsonAsync($"{Of(accountId)}/estimates", wish, stop);
                response.EnsureSuccessStatusCode();
                return (await response.Content.ReadFromJsonAsync<List<NetworkEstimate>>(stop))!;
            },
            cancellation
        );

    public async Task<IReadOnlyList<BookVerdict>> TellBooksAsync(
        int accountId,
        BookedConversions books,
        CancellationToken cancellation
    ) => await AskAsync<List<BookVerdict>>(accountId, "books", books, cancellation);

    public Task<string> TestClickAsync(int accountId, CancellationToken cancellation) =>
        AskAsync<string>(accountId, "test-clicks", null, cancellation);

    public Task<ToldAnswer> TellAsync(int accountId, ToldEvent told, CancellationToken cancellation) =>
        AskAsync<ToldAnswer>(accountId, "test-clicks/told", told, cancellation);

    /// <summary>Posts something that may be posted again.</summary>
    private Task<T> AskAsync<T>(int accountId, string what, object? body, CancellationToken cancellation) =>
        AgainAsync(
            async stop =>
            {
                using var response = await http.PostAsJsonAsync($"{Of(accountId)}/{what}", body, stop);
                response.EnsureSuccessStatusCode();
                return (await response.Content.ReadFromJsonAsync<T>(stop))!;
            },
            cancellation
        );

    public async Task<IReadOnlyList<StrategyRow>> StrategiesAsync(int accountId, CancellationToken cancellation) =>
        await ReadAsync<List<StrategyRow>>(accountId, "strategies", cancellation);

    public async Task<IReadOnlyList<DateOnly>> ReportDaysAsync(
        int accountId,
        DateTimeOffset since,
        CancellationToken cancellation
    ) =>
        await ReadAsync<List<DateOnly>>(
            accountId,
            $"reports/days?since={Uri.EscapeDataString(since.UtcDateTime.ToString("O"))}",
            cancellation
        );

    public Task<NetworkReviews> ReviewsAsync(int accountId, long after, CancellationToken cancellation) =>
        ReadAsync<NetworkReviews>(accountId, $"reviews?after={after}", cancellation);

    public Task<NetworkItems> ItemsChangedAsync(int accountId, long after, CancellationToken cancellation) =>
        ReadAsync<NetworkItems>(accountId, $"changes?after={after}", cancellation);

    public Task EditFromOutsideAsync(
        int accountId,
        IReadOnlyList<NetworkChange> changes,
        CancellationToken cancellation
    ) =>
        OnceAsync(
            async stop =>
            {
                using var response = await http.PostAsJsonAsync($"{Of(accountId)}/outside-edits", changes, stop);
                response.EnsureSuccessStatusCode();
                return true;
            },
            cancellation
        );

    /// <exception cref="PastGoneException">The network says that a search cannot be made again, and why.</exception>
    private static async Task RefuseGoneAsync(HttpResponseMessage response, CancellationToken cancellation)
    {
        if (response.StatusCode == HttpStatusCode.Gone)
        {
            var problem = await response.Content.ReadFromJsonAsync<ProblemDetails>(cancellation);
            throw new PastGoneException(problem?.Detail ?? "These searches cannot be made again.");
        }
    }

    internal static string Of(int accountId) => $"v1/accounts/fendrik-{accountId}";

    private static string Within(Period days) => $"first={days.First:yyyy-MM-dd}&last={days.Last:yyyy-MM-dd}";

    private Task<T> ReadAsync<T>(int accountId, string what, CancellationToken cancellation) =>
        AgainAsync(async stop => (await http.GetFromJsonAsync<T>($"{Of(accountId)}/{what}", stop))!, cancellation);

    private static Task<T> AgainAsync<T>(Func<CancellationToken, Task<T>> send, CancellationToken cancellation) =>
        OnceAsync(async stop => await Again.ExecuteAsync(async token => await send(token), stop), cancellation);

    private static async Task<T> OnceAsync<T>(Func<CancellationToken, Task<T>> send, CancellationToken cancellation)
    {
        try
        {
            return await send(cancellation);
        }
        catch (Exception error) when (IsTransport(error, cancellation))
        {
            throw error is HttpRequestException { StatusCode: { } status }
                ? new NetworkUnavailableException($"The network answered with an error ({(int)status}).", error)
                : new NetworkUnavailableException("The network does not answer.", error);
        }
    }

    private static bool IsTransport(Exception error, CancellationToken cancellation) =>
        error is HttpRequestException or IOException
        || (error is OperationCanceledException && !cancellation.IsCancellationRequested);

    private static bool IsTheCallersFault(Exception error) =>
        error
            is HttpRequestException
            {
                StatusCode: >= HttpStatusCode.BadRequest and < HttpStatusCode.InternalServerError
            };
}
