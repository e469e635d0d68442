using Fendrik.Core.Reporting;
using Fendrik.Core.Serving;
using Fendrik.Data.Model;
using Fendrik.Data.Publishing;
using Fendrik.Server.Networks;

namespace Fendrik.Server.Tests;

/// <summary>What goes wrong, or happens, while a batch is on its way.</summary>
internal enum Fault
{
    None,
    NotSent,
    AnswerLost,
    ArrivesLate,
    StoppedByPerson,
    ServerStops,
    ServerStopsBefore,
    SessionCut,
    OutsideEdit,
    ReadMeanwhile,
    EditedMeanwhile,
}

/// <summary>The real network stand-in behind a connection that loses requests and answers, as a test says.</summary>
internal sealed class FaultyNetwork(ISearchNetwork real) : ISearchNetwork
{
    private readonly List<(int Account, PublishBatch Batch)> _late = [];

    /// <summary>The fault of the next batch of an account, and what it does.</summary>
    public Func<int, Fault> Next { get; set; } = _ => Fault.None;

    /// <summary>What happens besides, before or after the network has done its work.</summary>
    public Func<int, Fault, bool, Task> Happens { get; set; } = (_, _, _) => Task.CompletedTask;

    /// <summary>Every batch that went out, as it was.</summary>
    public Action<int, PublishBatch> Sent { get; set; } = (_, _) => { };

    public async Task<IReadOnlyList<NetworkAnswer>> ChangeAsync(
        int accountId,
        PublishBatch batch,
        CancellationToken cancellation
    )
    {
        Sent(accountId, batch);
        var fault = Next(accountId);
        if (fault == Fault.NotSent)
        {
            throw new NetworkUnavailableException("The network does not answer.");
        }

        if (fault == Fault.ArrivesLate)
        {
            _late.Add((accountId, batch));
            throw new NetworkUnavailableException("The network does not answer.");
        }

        await Happens(accountId, fault, false);
        cancellation.ThrowIfCancellationRequested();
        var answers = await real.ChangeAsync(accountId, batch, CancellationToken.None);
        await Happens(accountId, fault, true);
        cancellation.ThrowIfCancellationRequested();
        return fault == Fault.AnswerLost
            ? throw new NetworkUnavailableException("The network does not answer.")
            : answers;
    }

    /// <summary>Requests that were given up reach the network after all.</summary>
    public async Task ArriveAsync(int accountId)
    {
        foreach (var late in _late.Where(each => each.Account == accountId).ToArray())
        {
            _late.Remove(late);
            try
            {
                await real.ChangeAsync(accountId, late.Batch, CancellationToken.None);
            }
            catch (NetworkUnavailableException)
            {
                // The batch was closed before it came.
            }
        }
    }

    public Task<IReadOnlyList<NetworkAnswer>?> CloseAsync(
        int accountId,
        string batchKey,
        CancellationToken cancellation
    ) => real.CloseAsync(accountId, batchKey, cancellation);

    public Task SetUpAsync(AccountRow account, DateTimeOffset startAt, long seed, CancellationToken cancellation) =>
        real.SetUpAsync(account, startAt, seed, cancellation);

    public Task<NetworkClock> ClockAsync(int accountId, CancellationToken cancellation) =>
        real.ClockAsync(accountId, cancellation);

    public Task<AccountPayer> PayerAsync(int accountId, CancellationToken cancellation) =>
        real.PayerAsync(accountId, cancellation);

    public Task SetPayerAsync(int accountId, AccountPayer payer, CancellationToken cancellation) =>
        real.SetPayerAsync(accountId, payer, cancellation);

    public Task<CarrierNumbers> NumbersAsync(int accountId, CancellationToken cancellation) =>
        real.NumbersAsync(accountId, cancellation);

    public Task<(IReadOnlyList<string> Numbers, string? Problem)> RentAsync(
        int accountId,
        NumberWish wish,
        CancellationToken cancellation
    ) => real.RentAsync(accountId, wish, cancellation);

    public Task GiveBackAsync(int accountId, string number, CancellationToken cancellation) =>
        real.GiveBackAsync(accountId, number, cancellation);

    public Task<AppealAnswer> AppealAsync(int accountId, Appeal appeal, CancellationToken cancellation) =>
        real.AppealAsync(accountId, appeal, cancellation);

    public Task<NetworkClock> AdvanceAsync(int accountId, int hours, CancellationToken cancellation) =>
        real.AdvanceAsync(accountId, hours, cancellation);

    public Task<SearchTrace> TraceAsync(int accountId, TraceWish wish, CancellationToken cancellation) =>
        real.TraceAsync(accountId, wish, cancellation);

    public Task<IReadOnlyList<NetworkPlace>> PlacesAsync(CancellationToken cancellation) =>
        real.PlacesAsync(cancellation);

    public Task<SearchTrace?> PastTraceAsync(int accountId, long search, CancellationToken cancellation) =>
        real.PastTraceAsync(accountId, search, cancellation);

    public Task<IReadOnlyList<SampleSearch>> SamplesAsync(
        int accountId,
        SampleQuestion question,
        CancellationToken cancellation
    ) => real.SamplesAsync(accountId, question, cancellation);

    public Task<IReadOnlyList<NetworkEstimate>> EstimateAsync(
        int accountId,
        EstimateWish wish,
        CancellationToken cancellation
    ) => real.EstimateAsync(accountId, wish, cancellation);

    public Task<NetworkToday> TodayAsync(int accountId, CancellationToken cancellation) =>
        real.TodayAsync(accountId, cancellation);

    public Task<IReadOnlyList<StrategyRow>> StrategiesAsync(int accountId, CancellationToken cancellation) =>
        real.StrategiesAsync(accountId, cancellation);

    public Task<IReadOnlyList<DateOnly>> ReportDaysAsync(
        int accountId,
        DateTimeOffset since,
        CancellationToken cancellation
    ) => real.ReportDaysAsync(accountId, since, cancellation);

    public IAsyncEnumerable<PaceRow> PacesAsync(int accountId, Period days, CancellationToken cancellation) =>
        real.PacesAsync(accountId, days, cancellation);

    public IAsyncEnumerable<StandingRow> StandingsAsync(int accountId, Period days, CancellationToken cancellation) =>
        real.StandingsAsync(accountId, days, cancellation);

    public IAsyncEnumerable<CombinationRow> CombinationsAsync(
        int accountId,
        Period days,
        CancellationToken cancellation
    ) => real.CombinationsAsync(accountId, days, cancellation);

    public IAsyncEnumerable<ConversionRow> ConversionsAsync(
        int accountId,
        Period days,
        CancellationToken cancellation
    ) => real.ConversionsAsync(accountId, days, cancellation);

    public IAsyncEnumerable<CallRow> CallsAsync(int accountId, Period days, CancellationToken cancellation) =>
        real.CallsAsync(accountId, days, cancellation);

    public IAsyncEnumerable<ClickedRow> ClicksAsync(int accountId, Period days, CancellationToken cancellation) =>
        real.ClicksAsync(accountId, days, cancellation);

    public Task<IReadOnlyList<BookVerdict>> TellBooksAsync(
        int accountId,
        BookedConversions books,
        CancellationToken cancellation
    ) => real.TellBooksAsync(accountId, books, cancellation);

    public Task<string> TestClickAsync(int accountId, CancellationToken cancellation) =>
        real.TestClickAsync(accountId, cancellation);

    public Task<ToldAnswer> TellAsync(int accountId, ToldEvent told, CancellationToken cancellation) =>
        real.TellAsync(accountId, told, cancellation);

    public IAsyncEnumerable<ReachedRow> ReachedAsync(int accountId, Period days, CancellationToken cancellation) =>
        real.ReachedAsync(accountId, days, cancellation);

    public IAsyncEnumerable<ExtensionRow> ExtensionsAsync(int accountId, Period days, CancellationToken cancellation) =>
        real.ExtensionsAsync(accountId, days, cancellation);

    public IAsyncEnumerable<RivalRow> RivalsAsync(int accountId, Period days, CancellationToken cancellation) =>
        real.RivalsAsync(accountId, days, cancellation);

    public IAsyncEnumerable<QualityRow> QualitiesAsync(int accountId, Period days, CancellationToken cancellation) =>
        real.QualitiesAsync(accountId, days, cancellation);

    public Task<NetworkReviews> ReviewsAsync(int accountId, long after, CancellationToken cancellation) =>
        real.ReviewsAsync(accountId, after, cancellation);

    public Task<NetworkItems> ItemsChangedAsync(int accountId, long after, CancellationToken cancellation) =>
        real.ItemsChangedAsync(accountId, after, cancellation);

    public IAsyncEnumerable<SearchTermRow> SearchTermsAsync(
        int accountId,
        Period days,
        CancellationToken cancellation
    ) => real.SearchTermsAsync(accountId, days, cancellation);

    public IAsyncEnumerable<PerformanceRow> ReportAsync(int accountId, Period days, CancellationToken cancellation) =>
        real.ReportAsync(accountId, days, cancellation);

    public Task EditFromOutsideAsync(
        int accountId,
        IReadOnlyList<NetworkChange> changes,
        CancellationToken cancellation
    ) => real.EditFromOutsideAsync(accountId, changes, cancellation);
}
