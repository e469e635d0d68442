using Fendrik.Core.Bidding.Evidence;
using Fendrik.Core.Bidding.Strategies;

namespace Fendrik.Network.Simulation;

/// <summary>A click that strategies learn from.</summary>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="Hour">Hour of the clock on the wall.</param>
/// <param name="Spot">What answered.</param>
/// <param name="Term">What was searched for.</param>
/// <param name="Device">The device.</param>
/// <param name="Site">The kind of site.</param>
/// <param name="Place">Where the person was; none where nobody was reached by a place.</param>
/// <param name="Price">What it cost, in minor units.</param>
/// <param name="Told">When the first conversion of it that steers bids was told; none where none was.</param>
/// <param name="Value">What those that steer are worth.</param>
/// <param name="Bought">What a strategy bid, and for what; none for manual bids.</param>
public readonly record struct KnownClick(
    DateOnly Day,
    int Hour,
    Spot Spot,
    string Term,
    Device Device,
    SiteKinds Site,
    string? Place,
    long Price,
    DateTimeOffset? Told,
    double Value,
    BoughtClick? Bought
)
{
    /// <summary>Number of the block of hours that it falls in.</summary>
    public int Block => HourBlock.Of(Day.DayOfWeek, Hour).Number;
}

/// <summary>What a strategy bid for a click, and for what.</summary>
/// <param name="Strategy">The strategy.</param>
/// <param name="Bid">Its bid in minor units.</param>
/// <param name="Units">Clicks, likely conversions or likely value that it bought.</param>
public readonly record struct BoughtClick(BidStrategy Strategy, long Bid, double Units);
