using System.Runtime.CompilerServices;
using Fendrik.Core.Reporting;

namespace Fendrik.Server.Networks;

/// <summary>What the network reports of days, row by row as it is read.</summary>
internal sealed partial class HttpSearchNetwork
{
    public IAsyncEnumerable<ClickedRow> ClicksAsync(int accountId, Period days, CancellationToken cancellation) =>
        StreamAsync<ClickedRow>(accountId, $"clicks?{Within(days)}", cancellation);

    public IAsyncEnumerable<StandingRow> StandingsAsync(int accountId, Period days, CancellationToken cancellation) =>
        StreamAsync<StandingRow>(accountId, $"standings?{Within(days)}", cancellation);

    public IAsyncEnumerable<PaceRow> PacesAsync(int accountId, Period days, CancellationToken cancellation) =>
        StreamAsync<PaceRow>(accountId, $"paces?{Within(days)}", cancellation);

    public IAsyncEnumerable<ExtensionRow> ExtensionsAsync(int accountId, Period days, CancellationToken cancellation) =>
        StreamAsync<ExtensionRow>(accountId, $"extensions?{Within(days)}", cancellation);

    public IAsyncEnumerable<CombinationRow> CombinationsAsync(
        int accountId,
        Period days,
        CancellationToken cancellation
    ) => StreamAsync<CombinationRow>(accountId, $"combinations?{Within(days)}", cancellation);

    public IAsyncEnumerable<ReachedRow> ReachedAsync(int accountId, Period days, CancellationToken cancellation) =>
        StreamAsync<ReachedRow>(accountId, $"reached?{Within(days)}", cancellation);

    public IAsyncEnumerable<ConversionRow> ConversionsAsync(
        int accountId,
        Period days,
        CancellationToken cancellation
    ) => StreamAsync<ConversionRow>(accountId, $"conversions?{Within(days)}", cancellation);

    public IAsyncEnumerable<CallRow> CallsAsync(int accountId, Period days, CancellationToken cancellation) =>
        StreamAsync<CallRow>(accountId, $"calls?{Within(days)}", cancellation);

    public IAsyncEnumerable<RivalRow> RivalsAsync(int accountId, Period days, CancellationToken cancellation) =>
        StreamAsync<RivalRow>(accountId, $"rivals?{Within(days)}", cancellation);

    public IAsyncEnumerable<QualityRow> QualitiesAsync(int accountId, Period days, CancellationToken cancellation) =>
        StreamAsync<QualityRow>(accountId, $"qualities?{Within(days)}", cancellation);

    public IAsyncEnumerable<SearchTermRow> SearchTermsAsync(
        int accountId,
        Period days,
        CancellationToken cancellation
    ) => StreamAsync<SearchTermRow>(accountId, $"search-terms?{Within(days)}", cancellation);

    public IAsyncEnumerable<PerformanceRow> ReportAsync(int accountId, Period days, CancellationToken cancellation) =>
        StreamAsync<PerformanceRow>(accountId, $"reports?{Within(days)}", cancellation);

    /// <summary>
    /// Rows as they come, never gathered. Only the beginning is tried again: who has taken rows already must begin anew, since
    /// they may not be the same rows again.
    /// </summary>
    private async IAsyncEnumerable<T> StreamAsync<T>(
        int accountId,
        string what,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        using var response = await AgainAsync(
            async stop =>
            {
                var answer = await http.GetAsync(
                    $"{Of(accountId)}/{what}",
                    HttpCompletionOption.ResponseHeadersRead,
                    stop
                );
                return answer.EnsureSuccessStatusCode();
            },
            cancellation
        );

        // The client's own time limit ends with the headers: each row has as long as a whole answer has elsewhere.
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(cancellation);
        await using var rows = response
            .Content.ReadFromJsonAsAsyncEnumerable<T>(patience.Token)
            .GetAsyncEnumerator(patience.Token);
        while (true)
        {
            patience.CancelAfter(http.Timeout);
            if (!await OnceAsync(async _ => await rows.MoveNextAsync(), cancellation))
            {
                yield break;
            }

            patience.CancelAfter(Timeout.InfiniteTimeSpan);
            yield return rows.Current!;
        }
    }
}
