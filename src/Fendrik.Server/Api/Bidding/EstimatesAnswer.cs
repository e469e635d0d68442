using Fendrik.Core.Estimates;
using Fendrik.Core.Networks;

namespace Fendrik.Server.Api.Bidding;

/// <summary>A figure with its range, as it is shown.</summary>
public sealed record RangeLine(decimal Low, decimal Likely, decimal High)
{
    internal static RangeLine Of(EstimateRange range, int digits) =>
        new(Rounded(range.Low, digits), Rounded(range.Likely, digits), Rounded(range.High, digits));

    private static decimal Rounded(double value, int digits) => Math.Round((decimal)Math.Min(value, 1e12), digits);
}

/// <summary>A week at a bid by Fendrik, with its ranges, and by the network; either may be none.</summary>
/// <param name="Bid">The bid; of several keywords their average.</param>
/// <param name="Impressions">Impressions.</param>
/// <param name="Clicks">Clicks.</param>
/// <param name="Cost">Cost.</param>
/// <param name="Conversions">Conversions.</param>
public sealed record WeekLine(
    decimal Bid,
    RangeLine Impressions,
    RangeLine Clicks,
    RangeLine Cost,
    RangeLine Conversions
)
{
    internal static WeekLine Of(WeekEstimate week, Currency currency) =>
        new(
            currency.Round(week.Bid),
            RangeLine.Of(week.Impressions, 0),
            RangeLine.Of(week.Clicks, 1),
            RangeLine.Of(week.Cost, currency.MinorUnits),
            RangeLine.Of(week.Conversions, 1)
        );
}

/// <summary>A week at a bid by the network.</summary>
public sealed record NetworkWeekLine(decimal Bid, decimal Impressions, decimal Clicks, decimal Cost)
{
    internal static NetworkWeekLine Of(EstimatedWeek week, Currency currency) =>
        new(
            week.Bid,
            Math.Round((decimal)week.Impressions, 0),
            Math.Round((decimal)week.Clicks, 1),
            currency.Round(week.Cost)
        );
}

/// <summary>A keyword with its estimates at its bid.</summary>
/// <param name="Id">The keyword; 0 for one that is planned.</param>
/// <param name="Text">Its words.</param>
/// <param name="Match">Its match type.</param>
/// <param name="AdGroup">Its ad group.</param>
/// <param name="Bid">The bid.</param>
/// <param name="Own">By Fendrik; none where it has none.</param>
/// <param name="OwnReason">Why not.</param>
/// <param name="Network">By the network; none where it has none.</param>
/// <param name="NetworkReason">Why not.</param>
/// <param name="AskedOn">When the network was asked.</param>
public sealed record EstimateLine(
    long Id,
    string Text,
    MatchType Match,
    string AdGroup,
    decimal? Bid,
    WeekLine? Own,
    string? OwnReason,
    NetworkWeekLine? Network,
    string? NetworkReason,
    DateOnly? AskedOn
);

/// <summary>Estimates over the bid: of one keyword, or of several together.</summary>
/// <param name="Title">Of what.</param>
/// <param name="Own">By Fendrik, the lowest bid first.</param>
/// <param name="Network">By the network.</param>
/// <param name="RestsOn">What Fendrik's rests on.</param>
/// <param name="Now">Fendrik's at the bid of now; none where that is not known.</param>
/// <param name="Planned">Fendrik's at the bid that is planned; none where none is.</param>
/// <param name="Problem">What is wrong with the bid that is planned.</param>
public sealed record EstimateCurve(
    string Title,
    IReadOnlyList<WeekLine> Own,
    IReadOnlyList<NetworkWeekLine> Network,
    IReadOnlyList<string> RestsOn,
    WeekLine? Now,
    WeekLine? Planned,
    string? Problem
);

/// <summary>An estimate beside what came.</summary>
public sealed record ComparedLine(
    long KeywordId,
    string Text,
    DateOnly AskedOn,
    decimal? NetworkClicks,
    decimal? OwnClicks,
    decimal CameClicks,
    decimal FullClicks
);

/// <summary>Estimates of a campaign.</summary>
/// <param name="Keywords">Its keywords, the dearest first.</param>
/// <param name="More">True when there are more.</param>
/// <param name="Curve">Over the bid.</param>
/// <param name="NetworkErrs">How the network's estimates turned out, in words.</param>
/// <param name="OwnErrs">How Fendrik's did.</param>
/// <param name="Compared">Estimates beside what came, the latest first.</param>
/// <param name="AtOnce">How many keywords the network answers at once.</param>
public sealed record EstimatesAnswer(
    IReadOnlyList<EstimateLine> Keywords,
    bool More,
    EstimateCurve Curve,
    string NetworkErrs,
    string OwnErrs,
    IReadOnlyList<ComparedLine> Compared,
    int AtOnce
);

/// <summary>Asks about keywords that are not there yet.</summary>
/// <param name="Text">Keywords, one in each line, in any notation of match types.</param>
/// <param name="Bid">The bid, as it is typed; none for the usual one.</param>
public sealed record PlannedWish(string Text, string? Bid);
