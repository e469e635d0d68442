using Fendrik.Core.Reporting;

namespace Fendrik.Core.Bidding.Evidence;

/// <summary>What the figures of a segment say.</summary>
public enum SegmentVerdict
{
    /// <summary>Nothing was spent in it.</summary>
    NothingSpent = 1,

    /// <summary>There is nothing to hold it against: no conversion yet, and nobody said what one may cost.</summary>
    NoYardstick = 2,

    /// <summary>It is as the whole, or so near that it would take very much more to tell.</summary>
    AsItIs = 3,

    /// <summary>It looks otherwise than the whole, but may well not be.</summary>
    NotYet = 4,

    /// <summary>It surely is otherwise than the whole.</summary>
    Sure = 5,
}

/// <summary>What a segment brought, and what follows for its modifier.</summary>
/// <param name="Segment">The segment.</param>
/// <param name="Figures">Its figures.</param>
/// <param name="ShareOfCost">Its share of what was spent: 0 to 1.</param>
/// <param name="Verdict">What they say.</param>
/// <param name="Now">Its modifier now in per cent.</param>
/// <param name="Proposed">The modifier that follows, in whole per cent; none where nothing does.</param>
/// <param name="Unshrunk">What would follow if all that is counted were the truth, what overlaps it taken into account; none without conversions.</param>
/// <param name="Drawn">How far it was drawn towards the whole: 0 to 1.</param>
/// <param name="LowCost">Lowest cost of a conversion that it may well have with its modifier now; none without a yardstick.</param>
/// <param name="LikelyCost">The likeliest.</param>
/// <param name="HighCost">The highest.</param>
/// <param name="MoreCost">About how much more has to be spent in it before this means anything; none where that is no question.</param>
/// <param name="Times">How many times the usual cost was spent for each conversion, or for none.</param>
/// <param name="TradeProposed">What the rule of the trade makes of it in per cent; none where it says nothing.</param>
public sealed record SegmentEvidence(
    Segment Segment,
    Figures Figures,
    decimal ShareOfCost,
    SegmentVerdict Verdict,
    decimal Now,
    decimal? Proposed,
    decimal? Unshrunk,
    decimal Drawn,
    decimal? LowCost,
    decimal? LikelyCost,
    decimal? HighCost,
    decimal? MoreCost,
    decimal? Times,
    decimal? TradeProposed
);

/// <summary>Figures of a segment's part, as they are read.</summary>
/// <param name="Device">Number of the device.</param>
/// <param name="Block">Number of the block of hours.</param>
/// <param name="Site">Number of the kind of site.</param>
/// <param name="Figures">The figures.</param>
/// <param name="Multiplier">What modifiers multiplied bids by while they were made: 1 for none.</param>
public sealed record SegmentFigures(int Device, int Block, int Site, Figures Figures, decimal Multiplier = 1)
{
    private const decimal LeastMultiplier = 0.01m;

    /// <summary>
    /// Where it lies, with what is weighed of it: its cost as it would have been without modifiers, if prices go with bids. So a modifier
    /// that was set on evidence is not proposed again on the same evidence.
    /// </summary>
    public SegmentCell Cell =>
        new(
            Device,
            Block,
            Site,
            (double)(Figures.Cost / Math.Max(LeastMultiplier, Multiplier)),
            (double)Figures.Conversions
        );
}

/// <summary>Figures of a place or an audience while one modifier held.</summary>
/// <param name="Name">The place or the audience.</param>
/// <param name="Figures">The figures.</param>
/// <param name="Multiplier">What its modifier multiplied bids by while they were made: 1 for none.</param>
public sealed record PartFigures(string Name, Figures Figures, decimal Multiplier = 1)
{
    private const decimal LeastMultiplier = 0.01m;

    /// <summary>Its cost as it would have been without the modifier, if prices go with bids.</summary>
    public double PlainCost => (double)(Figures.Cost / Math.Max(LeastMultiplier, Multiplier));
}

/// <summary>All segments of what is looked at.</summary>
/// <param name="Total">The figures of the whole.</param>
/// <param name="UsualCost">What a conversion costs there at bids without modifiers, or may cost; none where neither is known.</param>
/// <param name="IsTarget">True where that is what somebody said it may cost.</param>
/// <param name="Segments">The segments by kind and number.</param>
public sealed record EvidenceReport(
    Figures Total,
    decimal? UsualCost,
    bool IsTarget,
    IReadOnlyList<SegmentEvidence> Segments
);
