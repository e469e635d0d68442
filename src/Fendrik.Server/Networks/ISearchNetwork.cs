using Fendrik.Core.Changes;
using Fendrik.Core.Reporting;
using Fendrik.Core.Serving;
using Fendrik.Data.Model;
using Fendrik.Data.Publishing;

namespace Fendrik.Server.Networks;

/// <summary>
/// What Fendrik asks of a search network, whichever it is. Accounts are named by Fendrik's own numbers; how the network names
/// them, and how an item is worded on the way, is the implementation's.
/// </summary>
/// <exception cref="NetworkUnavailableException">Any of it, when the network does not answer as it should.</exception>
public interface ISearchNetwork
{
    /// <summary>Makes the account known there; nothing happens when it is.</summary>
    Task SetUpAsync(AccountRow account, DateTimeOffset startAt, long seed, CancellationToken cancellation);

    /// <summary>The network's clock.</summary>
    Task<NetworkClock> ClockAsync(int accountId, CancellationToken cancellation);

    /// <summary>Who pays the account there.</summary>
    Task<AccountPayer> PayerAsync(int accountId, CancellationToken cancellation);

    /// <summary>Somebody else pays the account from now on, or nobody.</summary>
    Task SetPayerAsync(int accountId, AccountPayer payer, CancellationToken cancellation);

    /// <summary>The numbers that the carrier forwards for an account, and what it has.</summary>
    Task<CarrierNumbers> NumbersAsync(int accountId, CancellationToken cancellation);

    /// <summary>Rents numbers. Asked once: whoever gets no answer looks what is there.</summary>
    /// <returns>The numbers, or why there are none.</returns>
    Task<(IReadOnlyList<string> Numbers, string? Problem)> RentAsync(
        int accountId,
        NumberWish wish,
        CancellationToken cancellation
    );

    /// <summary>Gives a number back; one that is not there any more is given back already.</summary>
    Task GiveBackAsync(int accountId, string number, CancellationToken cancellation);

    /// <summary>Asks for another reader of what reviewers refused. Asked twice, it is taken once.</summary>
    Task<AppealAnswer> AppealAsync(int accountId, Appeal appeal, CancellationToken cancellation);

    /// <summary>Moves the simulated clock. Not sent again by itself: twice would be twice as far.</summary>
    Task<NetworkClock> AdvanceAsync(int accountId, int hours, CancellationToken cancellation);

    /// <summary>Sends a batch, with a key by which it may be sent again; an answer for each change.</summary>
    Task<IReadOnlyList<NetworkAnswer>> ChangeAsync(int accountId, PublishBatch batch, CancellationToken cancellation);

    /// <summary>
    /// Asks for the answers of a batch, and sees to it that it is not carried out any more when it has not been.
    /// </summary>
    /// <returns>The answers; none when nothing of the batch was carried out or ever will be.</returns>
    Task<IReadOnlyList<NetworkAnswer>?> CloseAsync(int accountId, string batchKey, CancellationToken cancellation);

    /// <summary>What the reviewers said after a review that has been read, a page at a time in the order of their saying it.</summary>
    Task<NetworkReviews> ReviewsAsync(int accountId, long after, CancellationToken cancellation);

    /// <summary>What changed on the network after a change that has been read.</summary>
    Task<NetworkItems> ItemsChangedAsync(int accountId, long after, CancellationToken cancellation);

    /// <summary>The places that the network knows.</summary>
    Task<IReadOnlyList<NetworkPlace>> PlacesAsync(CancellationToken cancellation);

    /// <summary>What the network would do with a search now.</summary>
    Task<SearchTrace> TraceAsync(int accountId, TraceWish wish, CancellationToken cancellation);

    /// <summary>What the network did with a search of the past; none when nobody made it.</summary>
    /// <exception cref="PastGoneException">It cannot be made again.</exception>
    Task<SearchTrace?> PastTraceAsync(int accountId, long search, CancellationToken cancellation);

    /// <summary>Searches of a day of the past.</summary>
    /// <exception cref="PastGoneException">They cannot be made again.</exception>
    Task<IReadOnlyList<SampleSearch>> SamplesAsync(
        int accountId,
        SampleQuestion question,
        CancellationToken cancellation
    );

    /// <summary>What the network estimates that keywords would bring.</summary>
    Task<IReadOnlyList<NetworkEstimate>> EstimateAsync(
        int accountId,
        EstimateWish wish,
        CancellationToken cancellation
    );

    /// <summary>What campaigns spent on the day that is not over.</summary>
    Task<NetworkToday> TodayAsync(int accountId, CancellationToken cancellation);

    /// <summary>Where the strategies of campaigns stand.</summary>
    Task<IReadOnlyList<StrategyRow>> StrategiesAsync(int accountId, CancellationToken cancellation);

    /// <summary>Days whose reports changed after a moment of the network's clock.</summary>
    Task<IReadOnlyList<DateOnly>> ReportDaysAsync(int accountId, DateTimeOffset since, CancellationToken cancellation);

    /// <summary>How keywords stood in the searches that they could answer.</summary>
    IAsyncEnumerable<StandingRow> StandingsAsync(int accountId, Period days, CancellationToken cancellation);

    /// <summary>How campaigns and their budgets went through the hours.</summary>
    IAsyncEnumerable<PaceRow> PacesAsync(int accountId, Period days, CancellationToken cancellation);

    /// <summary>Who else showed.</summary>
    IAsyncEnumerable<RivalRow> RivalsAsync(int accountId, Period days, CancellationToken cancellation);

    /// <summary>Quality scores that changed.</summary>
    IAsyncEnumerable<QualityRow> QualitiesAsync(int accountId, Period days, CancellationToken cancellation);

    /// <summary>What came of ads beside which extensions showed.</summary>
    IAsyncEnumerable<ExtensionRow> ExtensionsAsync(int accountId, Period days, CancellationToken cancellation);

    /// <summary>What came of responsive ads, by the lines that showed together.</summary>
    IAsyncEnumerable<CombinationRow> CombinationsAsync(int accountId, Period days, CancellationToken cancellation);

    /// <summary>What pages of content sites and audiences brought.</summary>
    IAsyncEnumerable<ReachedRow> ReachedAsync(int accountId, Period days, CancellationToken cancellation);

    /// <summary>Conversions, one by one, of clicks of these days.</summary>
    IAsyncEnumerable<ConversionRow> ConversionsAsync(int accountId, Period days, CancellationToken cancellation);

    /// <summary>Calls to tracked numbers, one by one, of clicks of these days.</summary>
    IAsyncEnumerable<CallRow> CallsAsync(int accountId, Period days, CancellationToken cancellation);

    /// <summary>Clicks of these days, with their ids.</summary>
    IAsyncEnumerable<ClickedRow> ClicksAsync(int accountId, Period days, CancellationToken cancellation);

    /// <summary>Tells conversions from outside; a verdict for each. Told twice, they are there once.</summary>
    Task<IReadOnlyList<BookVerdict>> TellBooksAsync(
        int accountId,
        BookedConversions books,
        CancellationToken cancellation
    );

    /// <summary>A click id for a test visit.</summary>
    Task<string> TestClickAsync(int accountId, CancellationToken cancellation);

    /// <summary>Tells what was done on a test visit, and hears which actions count it. It is in no report.</summary>
    Task<ToldAnswer> TellAsync(int accountId, ToldEvent told, CancellationToken cancellation);

    /// <summary>What people searched for.</summary>
    IAsyncEnumerable<SearchTermRow> SearchTermsAsync(int accountId, Period days, CancellationToken cancellation);

    /// <summary>What each item brought, by hour and segment.</summary>
    IAsyncEnumerable<PerformanceRow> ReportAsync(int accountId, Period days, CancellationToken cancellation);

    /// <summary>Acts as somebody who changes items on the network itself: only a stand-in has such a door.</summary>
    Task EditFromOutsideAsync(int accountId, IReadOnlyList<NetworkChange> changes, CancellationToken cancellation);
}

/// <summary>Which searches of a day are asked for.</summary>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="Fate">What became of them; none for any.</param>
/// <param name="KeywordId">The keyword that answered or would have; none for any.</param>
/// <param name="Term">What was typed, as normalised words; none for anything.</param>
/// <param name="Most">Most of them.</param>
public sealed record SampleQuestion(DateOnly Day, SearchFate? Fate, long? KeywordId, string? Term, int Most);

/// <summary>A search of the past cannot be made again; the message is for a person.</summary>
public sealed class PastGoneException(string message) : Exception(message);

/// <summary>The network cannot be reached or does not answer as it should; the message is for a person.</summary>
public sealed class NetworkUnavailableException(string message, Exception? inner = null) : Exception(message, inner);
