using Fendrik.Core.Reporting;

namespace Fendrik.Core.Bidding.Evidence;

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

    /// <summary>
    /// Weighs places, or audiences, each by itself against the whole: figures tell them apart from one another, but not by device or hour.
    /// </summary>
    /// <param name="kind">Places or audiences.</param>
    /// <param name="parts">What each brought, in pieces by the modifier that held.</param>
    /// <param name="whole">The report on the whole.</param>
    /// <param name="now">The modifier of a part now, in per cent; 0 for none.</param>
    /// <param name="highest">Highest modifier that the network takes, in per cent.</param>
    /// <param name="rule">The rule of the trade.</param>
    /// <returns>The parts, the most expensive first.</returns>
    public static IReadOnlyList<(string Name, SegmentEvidence Evidence)> WeighApart(
        SegmentKind kind,
        IReadOnlyCollection<PartFigures> parts,
        EvidenceReport whole,
        Func<string, decimal> now,
        decimal highest,
        TradeRule rule
    ) =>
        [
            .. parts
                .GroupBy(part => part.Name)
                .Select(part =>
                    (part.Key, Figures: part.Aggregate(Figures.Zero, (sum, each) => sum + each.Figures), Pieces: part)
                )
                .OrderByDescending(part => part.Figures.Cost)
                .ThenBy(part => part.Key, StringComparer.Ordinal)
                .Select(
                    (part, at) =>
                        (
                            part.Key,
                            Of(
                                new Segment(kind, at),
                                part.Figures,
                                whole.Total,
                                whole.UsualCost,
                                whole.UsualCost is { } usual
                                    ? new SegmentFactor(
                                        (double)part.Figures.Conversions,
                                        part.Pieces.Sum(piece => piece.PlainCost) / (double)usual
                                    )
                                    : null,
                                now(part.Key),
                                highest,
                                rule
                            )
                        )
                ),
        ];

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
