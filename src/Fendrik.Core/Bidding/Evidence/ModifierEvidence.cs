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
/// <param name="Unshrunk">What would follow if all that is counted were the truth; none without conversions.</param>
/// <param name="Drawn">How far it was drawn towards the whole: 0 to 1.</param>
/// <param name="LowCost">Lowest cost of a conversion that it may well have; none without a yardstick.</param>
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
public sealed record SegmentFigures(int Device, int Block, int Site, Figures Figures)
{
    /// <summary>Where it lies, with what is weighed of it.</summary>
    public SegmentCell Cell => new(Device, Block, Site, (double)Figures.Cost, (double)Figures.Conversions);
}

/// <summary>All segments of what is looked at.</summary>
/// <param name="Total">The figures of the whole.</param>
/// <param name="UsualCost">What a conversion costs there, or may cost; none where neither is known.</param>
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
        var own = total.Conversions >= 1 ? total.CostPerConversion : null;
        var usual =
            own is > 0 ? own
            : target is > 0 ? target
            : null;
        SegmentCell[] cells = [.. figures.Select(each => each.Cell)];
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

        var (low, high) = factor.Interval;
        var next = Modifier(now, factor.Mean, highest);
        var isNear = Math.Abs((1 + next / 100) / Math.Max(0.01m, 1 + now / 100) - 1) * 100 < LeastChange;
        var more = factor.IsSure || isNear ? null : factor.TimesUntilSure(MostTimes);
        var verdict =
            isNear ? SegmentVerdict.AsItIs
            : factor.IsSure ? SegmentVerdict.Sure
            : more is null ? SegmentVerdict.AsItIs
            : SegmentVerdict.NotYet;
        // What one conversion is still owed counts as one: half a usual cost spent for nothing says nothing.
        var times = figures.Cost / Math.Max(1, figures.Conversions) / usualCost;
        return new SegmentEvidence(
            segment,
            figures,
            share,
            verdict,
            now,
            verdict == SegmentVerdict.Sure ? next : null,
            figures.CostPerConversion is { } each
                ? Modifier(now, (double)(usualCost / Math.Max(each, 0.0001m)), highest)
                : null,
            (decimal)factor.Drawn,
            usualCost / (decimal)high,
            usualCost / (decimal)factor.Mean,
            usualCost / (decimal)Math.Max(low, 1e-6),
            more is { } so ? figures.Cost * (decimal)(so - 1) : null,
            times,
            rule.CutAt(times)
        );
    }

    /// <summary>A modifier on top of the one that held while the figures were made, in whole per cent.</summary>
    private static decimal Modifier(decimal now, double factor, decimal highest) =>
        Math.Clamp(
            decimal.Round((Math.Max(0.01m, 1 + now / 100) * (decimal)Math.Min(factor, 1e6) - 1) * 100),
            -100,
            highest
        );
}
