using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Estimates;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Fendrik.Data.Accounts;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Strategies;
using Fendrik.Data.Steps;
using Fendrik.Server.Jobs;
using Fendrik.Server.Networks;
using Npgsql;

namespace Fendrik.Server.Estimates;

/// <summary>How estimates turned out so far: the network's of clicks, and Fendrik's own.</summary>
/// <param name="Network">The network's.</param>
/// <param name="Own">Fendrik's own.</param>
public sealed record KnownErrors(EstimateErrors Network, EstimateErrors Own)
{
    /// <summary>From estimates of clicks beside what came, as with budget enough.</summary>
    public static KnownErrors Of(IReadOnlyCollection<ComparedEstimate> compared)
    {
        EstimateErrors ErrorsOf(Func<ComparedEstimate, double?> estimated, double unknown) =>
            EstimateErrors.Of(
                compared
                    .Where(each => estimated(each) is not null)
                    .Select(each => (estimated(each)!.Value, each.FullClicks)),
                unknown
            );
        return new KnownErrors(
            ErrorsOf(each => each.NetworkClicks, Estimator.UsualSpreadOfNetwork),
            ErrorsOf(each => each.OwnClicks, Estimator.UsualSpread)
        );
    }
}

/// <summary>Estimates keywords of a campaign: what the network says beside what Fendrik makes of history.</summary>
public sealed class EstimateDesk(
    NpgsqlDataSource source,
    KeywordBidReader keywords,
    EstimateBook book,
    ReplayReader replays,
    SearchNetworks networks,
    WorkingCopy workingCopy,
    PerformanceStore store
)
{
    /// <summary>Most keywords of a campaign that are asked about.</summary>
    public const int MostKeywords = 2_000;

    private const int Weeks = 8;

    /// <summary>A keyword without any bid is asked about around this many times the lowest.</summary>
    private const int UsualAboveLowest = 20;

    /// <summary>Asks the network about the keywords of a campaign, as many at a time as it answers, and keeps what it says.</summary>
    /// <returns>In words.</returns>
    public async Task<string?> AskAsync(int accountId, long campaignId, JobProgress progress, CancellationToken stop)
    {
        var facts = await workingCopy.FactsAsync(accountId, stop);
        var network = await networks.OfAccountAsync(accountId, stop);
        var known = await ErrorsAsync(accountId, stop);
        var rows = await KeywordsAsync(accountId, campaignId, null, stop);
        var today = new AccountDay(facts.TimeZone).At((await network.ClockAsync(accountId, stop)).Now).Day;
        var done = 0;
        var without = 0;
        await progress.TellAsync(0, rows.Count, force: true);
        // A question has one list of bids: keywords that bid the same are asked about together.
        foreach (var same in rows.GroupBy(row => row.Keyword.Bid).OrderBy(group => group.Key))
        {
            var bids = BidsFor(same.Key, facts);
            foreach (var part in same.Chunk(facts.Network.EstimatesAtOnce))
            {
                var answers = await network.EstimateAsync(
                    accountId,
                    new EstimateWish(
                        campaignId,
                        [
                            .. part.Select(row => new AskedKeyword(
                                row.Keyword.Text,
                                row.Keyword.Match,
                                row.Keyword.IsLive ? row.Keyword.Id : null
                            )),
                        ],
                        bids
                    ),
                    stop
                );
                await book.KeepAsync(
                    accountId,
                    [
                        .. part.Zip(
                            answers,
                            (row, answer) =>
                                new KeptEstimate(
                                    row.Keyword.Id,
                                    campaignId,
                                    today,
                                    row.Keyword.Bid,
                                    answer,
                                    row.Keyword.Bid is { } bid ? AtOwnBid(row.History, answer, known, bid) : null
                                )
                        ),
                    ],
                    stop
                );
                without += answers.Count(answer => answer.Reason is not null);
                done += part.Length;
                await progress.TellAsync(done, rows.Count, force: true);
            }
        }

        return done == 0
            ? "The campaign has no keywords to ask about."
            : $"{facts.Network.Name} was asked about {done} keyword{(done == 1 ? "" : "s")}."
                + (without > 0 ? $" It has no estimate for {without} of them." : "");
    }

    private static WeekEstimate? AtOwnBid(
        KeywordHistory history,
        NetworkEstimate answer,
        KnownErrors known,
        decimal bid
    ) => Estimator.Of(history, answer, known.Network, known.Own, [bid]).Weeks is [var week, ..] ? week : null;

    /// <summary>How estimates of the account turned out.</summary>
    public async Task<KnownErrors> ErrorsAsync(int accountId, CancellationToken cancellation) =>
        KnownErrors.Of(await book.ComparedAsync(accountId, cancellation));

    /// <summary>Keywords of a campaign with what is known of each.</summary>
    public async Task<IReadOnlyList<(KeywordBid Keyword, KeywordHistory History)>> KeywordsAsync(
        int accountId,
        long campaignId,
        long? adGroupId,
        CancellationToken cancellation
    )
    {
        var (reported, _) = await store.ReportedToAsync(accountId, cancellation);
        var days = reported is { } last ? new Period(last.AddDays(1 - 7 * Weeks), last) : (Period?)null;
        var found = await keywords.ReadAsync(accountId, campaignId, adGroupId, null, days, MostKeywords, cancellation);
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var (first, _) = days is { } looked
            ? await replays.StoodAsync(accountId, campaignId, looked, cancellation)
            : default;
        // An account that is younger than the weeks looked at has fewer days behind its figures.
        var length = days is { } within && first is { } begun ? within.Last.DayNumber - begun.DayNumber + 1 : 0;
        var rates = reported is { } day
            ? (await StrategyReader.RatesAsync(connection, accountId, [campaignId], day.AddDays(1), cancellation))[
                campaignId
            ]
            : ConversionRates.Unknown;
        return
        [
            .. found.Select(keyword =>
                (
                    keyword,
                    new KeywordHistory(
                        keyword.Bid,
                        length,
                        keyword.Figures,
                        keyword.LostToRank,
                        keyword.LostToBudget,
                        rates.OfKeyword(keyword.AdGroupId, keyword.Id)
                    )
                )
            ),
        ];
    }

    /// <summary>The bids for which a keyword is estimated.</summary>
    public static IReadOnlyList<decimal> BidsFor(decimal? bid, AccountFacts facts)
    {
        var least = facts.Network.MinimumCpc(facts.Currency);
        return Estimator.BidsAround(bid ?? least * UsualAboveLowest, facts.Currency, least);
    }
}
