using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Estimates;

/// <summary>
/// Estimates what a keyword brings at other bids. What it brought is the ground; the network's estimate, which is often wrong by a factor
/// but mostly right in its shape, carries it to other bids, or else a rule. Without history the network's estimate is taken, corrected by
/// how its earlier ones turned out. The further from the bid that was made, the wider the range.
/// </summary>
public static class Estimator
{
    /// <summary>Fewer impressions are no history.</summary>
    public const int LeastImpressions = 20;

    /// <summary>How far Fendrik's own estimates err before enough were compared: by a fifth.</summary>
    public const double UsualSpread = 0.2;

    /// <summary>How far a network's estimates err before enough were compared: by half.</summary>
    public const double UsualSpreadOfNetwork = 0.5;

    internal const double SpreadOfBid = 0.3;
    private const int DaysOfWeek = 7;

    /// <summary>How bids are varied around one: these many times.</summary>
    private static readonly decimal[] Around = [0.4m, 0.6m, 0.8m, 1, 1.25m, 1.6m, 2.2m, 3];

    /// <summary>Bids around one, each once, none below the lowest.</summary>
    public static IReadOnlyList<decimal> BidsAround(decimal bid, Currency currency, decimal least) =>
        [.. Around.Select(times => Math.Max(least, currency.Round(bid * times))).Distinct()];

    /// <summary>Estimates a keyword.</summary>
    /// <param name="history">What is known of it; none for one that is not there yet.</param>
    /// <param name="network">The network's estimate; none where it was not asked.</param>
    /// <param name="ofNetwork">How the network's estimates of clicks turned out.</param>
    /// <param name="own">How Fendrik's own did.</param>
    /// <param name="bids">The bids, the lowest first.</param>
    public static OwnEstimate Of(
        KeywordHistory? history,
        NetworkEstimate? network,
        EstimateErrors ofNetwork,
        EstimateErrors own,
        IReadOnlyList<decimal> bids
    ) =>
        history is { Bid: { } bid, Figures.Impressions: >= LeastImpressions, Days: > 0 }
            ? FromHistory(history, bid, network is { Weeks.Count: > 0 } ? network : null, own, bids)
        : network is { Weeks.Count: > 0 } ? FromNetwork(history, network, ofNetwork, bids)
        : new OwnEstimate(
            history is null || history.Figures.Impressions == 0
                ? $"It has no history, and {(network is null ? "the network was not asked." : "the network has no estimate: " + Low(network.Reason ?? ""))}"
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"It was shown {history.Figures.Impressions} times in {history.Days} days, fewer than the {LeastImpressions} that say something, and {(network is null ? "the network was not asked." : "the network has no estimate: " + Low(network.Reason ?? ""))}"
                ),
            [],
            []
        );

    /// <summary>The estimate at a bid between those that were estimated; at the ends, that of the nearest.</summary>
    public static WeekEstimate? At(IReadOnlyList<WeekEstimate> weeks, decimal bid)
    {
        if (weeks.Count == 0)
        {
            return null;
        }

        EstimateRange Between(Func<WeekEstimate, EstimateRange> of) =>
            new(
                Interpolated(weeks, bid, week => of(week).Low),
                Interpolated(weeks, bid, week => of(week).Likely),
                Interpolated(weeks, bid, week => of(week).High)
            );
        return new WeekEstimate(
            bid,
            Between(week => week.Impressions),
            Between(week => week.Clicks),
            Between(week => week.Cost),
            Between(week => week.Conversions)
        );
    }

    /// <summary>The network's estimate at a bid between those that it was asked for.</summary>
    public static EstimatedWeek? At(NetworkEstimate network, decimal bid) =>
        network.Weeks.Count == 0
            ? null
            : new EstimatedWeek(
                bid,
                Interpolated(network.Weeks, bid, week => week.Impressions),
                Interpolated(network.Weeks, bid, week => week.Clicks),
                (decimal)Interpolated(network.Weeks, bid, week => (double)week.Cost)
            );

    /// <summary>Several keywords together, each at its own bids: as many weeks as the shortest has.</summary>
    public static IReadOnlyList<WeekEstimate> Together(IReadOnlyList<OwnEstimate> estimates)
    {
        var known = estimates.Where(each => each.Weeks.Count > 0).ToArray();
        return known.Length == 0
            ? []
            :
            [
                .. Enumerable
                    .Range(0, known.Min(each => each.Weeks.Count))
                    .Select(at =>
                    {
                        EstimateRange Sum(Func<WeekEstimate, EstimateRange> of) =>
                            EstimateRange.Sum(known.Select(each => of(each.Weeks[at])));
                        return new WeekEstimate(
                            known.Average(each => each.Weeks[at].Bid),
                            Sum(week => week.Impressions),
                            Sum(week => week.Clicks),
                            Sum(week => week.Cost),
                            Sum(week => week.Conversions)
                        );
                    }),
            ];
    }

    private static OwnEstimate FromHistory(
        KeywordHistory history,
        decimal bid,
        NetworkEstimate? network,
        EstimateErrors own,
        IReadOnlyList<decimal> bids
    )
    {
        var figures = history.Figures;
        var toWeek = DaysOfWeek / (double)history.Days;
        // With budget enough it would have shown in those searches as often as in the others.
        var asked = figures.Impressions + history.LostToRank;
        var reached = 1 + (double)history.LostToBudget / Math.Max(1, asked);
        var most = (asked + history.LostToBudget) * toWeek;
        var room = history.LostToRank / (double)figures.Impressions;
        return new OwnEstimate(
            null,
            [
                .. bids.Select(each =>
                {
                    var far = SpreadOfBid * Math.Log((double)(each / bid));
                    double Spread(double counted) => Math.Sqrt(1 / (counted + 1) + far * far + own.Spread * own.Spread);
                    var times = (double)(each / bid);
                    var impressions = Math.Min(
                        most,
                        figures.Impressions
                            * toWeek
                            * reached
                            * Shape(network, bid, each, week => week.Impressions, BidResponse.Impressions(times, room))
                    );
                    var clicks =
                        figures.Clicks
                        * toWeek
                        * reached
                        * Shape(network, bid, each, week => week.Clicks, BidResponse.Clicks(times, room));
                    var cost = Math.Min(
                        clicks * (double)each,
                        (double)figures.Cost
                            * toWeek
                            * reached
                            * Shape(
                                network,
                                bid,
                                each,
                                week => (double)week.Cost,
                                BidResponse.Clicks(times, room) * BidResponse.Price(times)
                            )
                    );
                    return new WeekEstimate(
                        each,
                        EstimateRange.Of(impressions, Spread(figures.Impressions)),
                        EstimateRange.Of(clicks, Spread(figures.Clicks)),
                        EstimateRange.Of(cost, Spread(figures.Clicks)),
                        EstimateRange.Of(clicks * history.ConversionRate, Spread((double)figures.Conversions))
                    );
                }),
            ],
            [
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{figures.Impressions:N0} impressions and {figures.Clicks:N0} clicks in {history.Days} days."
                ),
                network is null
                    ? "Carried to other bids by a rule: 10% more bid brings about 4% more clicks by better places, each 7% dearer, and wins some of the searches that were lost to rank. Ask the network for the shape of its own."
                    : "Carried to other bids by the shape of the network's estimate.",
                .. history.LostToBudget > 0
                    ? ["As with budget enough: searches that the budget missed are counted in."]
                    : Array.Empty<string>(),
                own.IsKnown
                    ? string.Create(
                        CultureInfo.InvariantCulture,
                        $"The range is as wide as {own.Compared} earlier estimates turned out to need."
                    )
                    : "How far such estimates err is not known yet: the range is a guess until some can be compared.",
            ]
        );
    }

    private static OwnEstimate FromNetwork(
        KeywordHistory? history,
        NetworkEstimate network,
        EstimateErrors ofNetwork,
        IReadOnlyList<decimal> bids
    ) =>
        new(
            null,
            [
                .. bids.Select(bid =>
                {
                    var week = At(network, bid)!;
                    EstimateRange Corrected(double value) =>
                        EstimateRange.Of(value * ofNetwork.Times, ofNetwork.Spread);
                    return new WeekEstimate(
                        bid,
                        Corrected(week.Impressions),
                        Corrected(week.Clicks),
                        Corrected((double)week.Cost),
                        EstimateRange.Of(
                            week.Clicks * ofNetwork.Times * (history?.ConversionRate ?? ConversionRates.UsualRate),
                            Math.Sqrt(ofNetwork.Spread * ofNetwork.Spread + 0.25)
                        )
                    );
                }),
            ],
            [
                "It has no history of its own: the network's estimate is all there is.",
                ofNetwork.IsKnown
                    ? $"Corrected by what {ofNetwork.Compared} earlier ones turned out to be: mostly {Against(ofNetwork.Times)}."
                    : "How far the network errs in this account is not known yet: by half, as a guess.",
            ]
        );

    /// <summary>What mostly came against what was estimated, in words.</summary>
    public static string Against(double times) =>
        Math.Abs(times - 1) < 0.03
            ? "about right"
            : string.Create(
                CultureInfo.InvariantCulture,
                $"{Math.Abs(1 / times - 1):P0} too {(times < 1 ? "high" : "low")}"
            );

    /// <summary>How many times as much one bid brings as another, by the network or by a rule.</summary>
    private static double Shape(
        NetworkEstimate? network,
        decimal from,
        decimal to,
        Func<EstimatedWeek, double> of,
        double rule
    ) =>
        network is null || Interpolated(network.Weeks, from, of) is not (> 0 and var before)
            ? rule
            : Interpolated(network.Weeks, to, of) / before;

    private static double Interpolated(
        IReadOnlyList<EstimatedWeek> weeks,
        decimal bid,
        Func<EstimatedWeek, double> of
    ) => Interpolated(weeks.Count, at => weeks[at].Bid, at => of(weeks[at]), bid);

    private static double Interpolated(IReadOnlyList<WeekEstimate> weeks, decimal bid, Func<WeekEstimate, double> of) =>
        Interpolated(weeks.Count, at => weeks[at].Bid, at => of(weeks[at]), bid);

    /// <summary>Between two bids by the logarithm of the bid; beyond the ends as at the ends.</summary>
    private static double Interpolated(int count, Func<int, decimal> bidAt, Func<int, double> valueAt, decimal bid)
    {
        if (bid <= bidAt(0))
        {
            return valueAt(0);
        }

        for (var at = 1; at < count; at++)
        {
            if (bid <= bidAt(at))
            {
                var share = Math.Log((double)(bid / bidAt(at - 1))) / Math.Log((double)(bidAt(at) / bidAt(at - 1)));
                return valueAt(at - 1) + share * (valueAt(at) - valueAt(at - 1));
            }
        }

        return valueAt(count - 1);
    }

    private static string Low(string text) => text.Length == 0 ? text : char.ToLowerInvariant(text[0]) + text[1..];
}
