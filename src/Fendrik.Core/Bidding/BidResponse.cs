namespace Fendrik.Core.Bidding;

/// <summary>
/// How clicks and prices are taken to answer to bids where nothing better is known: a higher bid wins searches that were lost to rank, and
/// better places, which are clicked more and cost more. The powers were measured on the stand-in, where the same two keywords at bids of
/// 0.45 to 3.30 brought clicks by a power of about 0.45 and prices by one of about 0.75; on another network they may differ.
/// </summary>
public static class BidResponse
{
    private const double ClicksOfPlace = 0.45;
    private const double PriceOfPlace = 0.75;
    private const double ImpressionsWon = 0.7;
    private const double ImpressionsLost = 0.15;

    /// <summary>How many times as many impressions a bid brings that is so many times as high.</summary>
    /// <param name="times">The bid against the one that was made: above 0.</param>
    /// <param name="room">Searches lost to rank for each impression: there is no more to win than these.</param>
    /// <param name="strength">1 as measured; less or more to see how much hangs on it.</param>
    public static double Impressions(double times, double room, double strength = 1) =>
        times > 1
            ? Math.Min(1 + Math.Max(0, room), Math.Pow(times, ImpressionsWon * strength))
            : Math.Pow(times, ImpressionsLost * strength);

    /// <summary>How many times as many clicks; see <see cref="Impressions"/>.</summary>
    public static double Clicks(double times, double room, double strength = 1) =>
        Impressions(times, room, strength) * Math.Pow(times, ClicksOfPlace * strength);

    /// <summary>How many times as much a click costs.</summary>
    public static double Price(double times, double strength = 1) => Math.Pow(times, PriceOfPlace * strength);
}
