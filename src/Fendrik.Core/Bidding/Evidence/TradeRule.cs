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

    /// <summary>The cuts of the trade in per cent, the smallest first.</summary>
    public static IReadOnlyList<decimal> Cuts { get; } = [-50, -90, -100];

    /// <summary>What it makes of so many times the usual cost; none where that is too little.</summary>
    public decimal? CutAt(decimal times) =>
        times >= Never ? Cuts[2]
        : times >= NineTenths ? Cuts[1]
        : times >= Half ? Cuts[0]
        : null;
}
