namespace Fendrik.Core.Bidding.Evidence;

/// <summary>
/// The rule of the trade for money that was spent without enough to show for it: by how many times the usual cost of a conversion was
/// spent for each, the bid is cut by half, by 90% or altogether (common practice, no source; from how many times on is for the person to
/// say).
/// </summary>
/// <param name="Half">Times the usual cost from which on it is cut by half.</param>
/// <param name="NineTenths">From which on by 90%.</param>
/// <param name="Never">From which on altogether.</param>
public sealed record TradeRule(decimal Half = 2.5m, decimal NineTenths = 4, decimal Never = 6)
{
    /// <summary>What is wrong with it, as a sentence; none when all is well.</summary>
    public string? Problem =>
        Half < 1 ? "Cutting by half begins at once the usual cost at the earliest."
        : NineTenths < Half || Never < NineTenths ? "Each cut has to come at no less than the one before it."
        : null;

    /// <summary>What it makes of so many times the usual cost; none where that is too little.</summary>
    public decimal? CutAt(decimal times) =>
        times >= Never ? -100
        : times >= NineTenths ? -90
        : times >= Half ? -50
        : null;
}
