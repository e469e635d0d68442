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

/// <summary>Proposes modifiers on evidence, and nothing on noise.</summary>
public static class ModifierEvidence
{
    /// <summary>A modifier that differs by less is not worth a change, in per cent of the bid.</summary>
    public const decimal LeastChange = 5;

    /// <summary>From how many times as much on there is no use in waiting.</summary>
    private const double MostTimes = 40;

    private const decimal LeastBid = 0.01m;
    private const double LeastFactor = 1e-6;
    private const double MostFactor = 1e6;

    /// <summary>Weighs what segments brought.</summary>
    /// <param name="figures">Figures where segments come together.</param>
    /// <param name="target">What a conversion may cost, which counts until there is a conversion; none where nobody said.</param>
    /// <param name="now">The modifier of a segment now, in per cent; 0 for none.</param>
    /// <param name="highest">Highest modifier that the network takes, in per cent.</param>
    /// <param name="rule">The rule of the trade.</param>
    public static EvidenceReport Weigh(
        IReadOnlyCollection<SegmentFigures> figures,
        decimal? target,
        Func<Segment, decimal> now,
        decimal highest,
        TradeRule rule
    )
    {
        var total = figures.Aggregate(Figures.Zero, (sum, each) => sum + each.Figures);
        SegmentCell[] cells = [.. figures.Select(each => each.Cell)];
        var own = total.Conversions >= 1 ? (decimal)cells.Sum(cell => cell.Cost) / total.Conversions : (decimal?)null;
        var usual =
            own is > 0 ? own
            : target is > 0 ? target
            : null;
        var factors = usual is { } cost ? SegmentModel.Weigh(cells, (double)cost) : null;
        return new EvidenceReport(
            total,
            usual,
            own is not > 0 && usual is not null,
            [
                .. from kind in SegmentModel.Kinds
                from segment in figures.GroupBy(each => each.Cell.Of(kind)).OrderBy(each => each.Key.Key)
                select Of(
                    segment.Key,
                    segment.Aggregate(Figures.Zero, (sum, each) => sum + each.Figures),
                    total,
                    usual,
                    factors?[segment.Key],
                    now(segment.Key),
                    highest,
                    rule
                ),
            ]
        );
    }

    /// <summary>How many segments of some kinds have a modifier to be proposed: quicker than telling why.</summary>
    /// <param name="figures">Figures where segments come together.</param>
    /// <param name="kinds">The kinds.</param>
    /// <param name="now">The modifier of a segment now, in per cent; 0 for none.</param>
    /// <param name="highest">Highest modifier that the network takes, in per cent.</param>
    public static int CountSure(
        IReadOnlyCollection<SegmentFigures> figures,
        IReadOnlyCollection<SegmentKind> kinds,
        Func<Segment, decimal> now,
        decimal highest
    )
    {
        SegmentCell[] cells = [.. figures.Select(each => each.Cell)];
        var conversions = cells.Sum(cell => cell.Conversions);
        var cost = cells.Sum(cell => cell.Cost);
        return conversions < 1 || cost <= 0
            ? 0
            : SegmentModel
                .Weigh(cells, cost / conversions)
                .Count(each =>
                    kinds.Contains(each.Key.Kind)
                    && each.Value.Expected > 0
                    && NextOf(each.Value, BidOf(now(each.Key)), highest) is { IsNear: false, IsSure: true }
                );
    }

    private static SegmentEvidence Of(
        Segment segment,
        Figures figures,
        Figures total,
        decimal? usual,
        SegmentFactor? known,
        decimal now,
        decimal highest,
        TradeRule rule
    )
    {
        var share = total.Cost == 0 ? 0 : figures.Cost / total.Cost;
        if (figures.Cost == 0 || usual is not { } usualCost || known is not { } factor)
        {
            return new SegmentEvidence(
                segment,
                figures,
                share,
                figures.Cost == 0 ? SegmentVerdict.NothingSpent : SegmentVerdict.NoYardstick,
                now,
                null,
                null,
                1,
                null,
                null,
                null,
                null,
                null,
                null
            );
        }

        // What a modifier is held against: the bid as it is now.
        var bid = BidOf(now);
        var (low, high) = factor.Interval;
        var (next, isNear, isSure) = NextOf(factor, bid, highest);
        var more = isSure || isNear ? null : factor.TimesUntilSure(bid, MostTimes);
        var verdict =
            isNear ? SegmentVerdict.AsItIs
            : isSure ? SegmentVerdict.Sure
            : more is null ? SegmentVerdict.AsItIs
            : SegmentVerdict.NotYet;
        decimal CostAt(double times) => usualCost * (decimal)(bid / Math.Max(times, LeastFactor));
        // What one conversion is still owed counts as one: half a usual cost spent for nothing says nothing.
        var times = figures.Cost / Math.Max(1, figures.Conversions) / usualCost;
        return new SegmentEvidence(
            segment,
            figures,
            share,
            verdict,
            now,
            verdict == SegmentVerdict.Sure ? next : null,
            factor.Counted > 0 && factor.Expected > 0 ? Modifier(factor.Counted / factor.Expected, highest) : null,
            (decimal)factor.Drawn,
            CostAt(high),
            CostAt(factor.Mean),
            CostAt(low),
            more is { } so ? figures.Cost * (decimal)(so - 1) : null,
            times,
            // What is cut as far already is not cut again.
            rule.CutAt(times)
                is { } cut
            && cut < now
                ? cut
                : null
        );
    }

    private static double BidOf(decimal now) => (double)Math.Max(LeastBid, 1 + now / 100);

    private static (decimal Modifier, bool IsNear, bool IsSure) NextOf(
        SegmentFactor factor,
        double bid,
        decimal highest
    )
    {
        var next = Modifier(factor.Mean, highest);
        return (next, Math.Abs((1 + next / 100) / (decimal)bid - 1) * 100 < LeastChange, factor.IsSurelyNot(bid));
    }

    /// <summary>The modifier that makes a conversion cost what it usually does, in whole per cent.</summary>
    private static decimal Modifier(double factor, decimal highest) =>
        Math.Clamp(decimal.Round(((decimal)Math.Min(factor, MostFactor) - 1) * 100), -100, highest);
}
