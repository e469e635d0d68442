using MathNet.Numerics.Distributions;

namespace Fendrik.Core.Bidding.Evidence;

/// <summary>By what figures are parted.</summary>
public enum SegmentKind
{
    /// <summary>The device.</summary>
    Device = 1,

    /// <summary>The part of the week.</summary>
    Hours = 2,

    /// <summary>The kind of site.</summary>
    Site = 3,

    /// <summary>Where people were.</summary>
    Place = 4,

    /// <summary>An audience.</summary>
    Audience = 5,
}

/// <summary>A segment: one value of one kind.</summary>
/// <param name="Kind">By what.</param>
/// <param name="Key">Number of the device, block or kind of site; of a place or audience its place in the report.</param>
public readonly record struct Segment(SegmentKind Kind, int Key);

/// <summary>Cost and conversions where one device, one part of the week and one kind of site come together.</summary>
/// <param name="Device">Number of the device.</param>
/// <param name="Block">Number of the block of hours.</param>
/// <param name="Site">Number of the kind of site.</param>
/// <param name="Cost">What clicks cost, or would have cost at bids without modifiers.</param>
/// <param name="Conversions">What came of them.</param>
public readonly record struct SegmentCell(int Device, int Block, int Site, double Cost, double Conversions)
{
    /// <summary>The segment of a kind that it lies in.</summary>
    /// <exception cref="ArgumentOutOfRangeException">Places and audiences are not told apart in cells.</exception>
    public Segment Of(SegmentKind kind) =>
        kind switch
        {
            SegmentKind.Device => new Segment(kind, Device),
            SegmentKind.Hours => new Segment(kind, Block),
            SegmentKind.Site => new Segment(kind, Site),
            SegmentKind.Place or SegmentKind.Audience => throw new ArgumentOutOfRangeException(nameof(kind)),
        };
}

/// <summary>What is known of a segment: how much it brings for its money against the whole.</summary>
/// <param name="Counted">Conversions that it brought.</param>
/// <param name="Expected">Conversions that its cost would have brought at the usual price, the other segments that it overlaps taken into account.</param>
public readonly record struct SegmentFactor(double Counted, double Expected)
{
    /// <summary>
    /// As many conversions at the usual price as every segment is taken to have seen before anything is counted: how much it is drawn
    /// towards the whole. Fendrik's own choice; with it, four times the usual cost spent for nothing halves a bid.
    /// </summary>
    public const double Prior = 4;

    /// <summary>How sure the interval is: nine times in ten.</summary>
    public const double Sure = 0.9;

    /// <summary>What it brings for its money against the whole, drawn towards it: 1 is as much.</summary>
    public double Mean => (Counted + Prior) / (Expected + Prior);

    /// <summary>How far it is drawn towards the whole: 1 for wholly, 0 for not at all.</summary>
    public double Drawn => Prior / (Expected + Prior);

    /// <summary>
    /// Where that may well lie: counts follow Poisson's distribution, their rate a gamma distribution, which stays one when counts come in
    /// (Gelman et al., Bayesian Data Analysis, 2.6; quoted from memory).
    /// </summary>
    public (double Low, double High) Interval
    {
        get
        {
            var (shape, rate) = (Counted + Prior, Expected + Prior);
            return (Gamma.InvCDF(shape, rate, (1 - Sure) / 2), Gamma.InvCDF(shape, rate, (1 + Sure) / 2));
        }
    }

    /// <summary>True when it surely is not so many times the whole: when that lies outside the interval.</summary>
    public bool IsSurelyNot(double times)
    {
        // Where a value lies in a distribution is quicker to tell than where its quantiles are.
        var below = Gamma.CDF(Counted + Prior, Expected + Prior, times);
        return below < (1 - Sure) / 2 || below > (1 + Sure) / 2;
    }

    /// <summary>The same if so many times as much had been spent, and all went on as it did.</summary>
    public SegmentFactor Times(double times) => new(Counted * times, Expected * times);

    /// <summary>
    /// How many times as much has to be spent until it surely is not <paramref name="against"/>, if all goes on as it does; none within
    /// <paramref name="most"/>.
    /// </summary>
    public double? TimesUntilSure(double against, double most)
    {
        if (!Times(most).IsSurelyNot(against))
        {
            return null;
        }

        var (low, high) = (1.0, most);
        while (high - low > 0.01 * low)
        {
            var middle = (low + high) / 2;
            (low, high) = Times(middle).IsSurelyNot(against) ? (low, middle) : (middle, high);
        }

        return high;
    }
}

/// <summary>
/// Weighs segments of several kinds together, so that none is counted twice: what a segment brings is held against what was to be expected
/// of it with the factors of the others that it overlaps, in turns, until nothing changes. Phones that are used in the evening get no
/// blame for the evening.
/// </summary>
public static class SegmentModel
{
    private const int MostTurns = 200;
    private const double Settled = 1e-7;

    /// <summary>The kinds of segment.</summary>
    public static IReadOnlyList<SegmentKind> Kinds { get; } = [SegmentKind.Device, SegmentKind.Hours, SegmentKind.Site];

    /// <summary>What is known of each segment.</summary>
    /// <param name="cells">The figures where segments come together.</param>
    /// <param name="usualCost">What a conversion usually costs: above 0.</param>
    /// <exception cref="ArgumentOutOfRangeException">The usual cost is not above 0.</exception>
    public static IReadOnlyDictionary<Segment, SegmentFactor> Weigh(
        IReadOnlyCollection<SegmentCell> cells,
        double usualCost
    )
    {
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(usualCost);
        var all = cells as SegmentCell[] ?? [.. cells];
        // For each kind which of its segments a cell lies in, by numbers that make the turns quick.
        var segments = new List<Segment>[Kinds.Count];
        var places = new int[Kinds.Count][];
        for (var kind = 0; kind < Kinds.Count; kind++)
        {
            (segments[kind], places[kind]) = Numbered(all, Kinds[kind]);
        }

        var means = segments.Select(each => Enumerable.Repeat(1.0, each.Count).ToArray()).ToArray();
        var factors = segments.Select(each => new SegmentFactor[each.Count]).ToArray();
        for (var turn = 0; turn < MostTurns; turn++)
        {
            var moved = 0.0;
            for (var kind = 0; kind < Kinds.Count; kind++)
            {
                moved = Math.Max(moved, Turn(all, places, means, kind, factors[kind], usualCost));
            }

            if (moved < Settled)
            {
                break;
            }
        }

        var known = new Dictionary<Segment, SegmentFactor>();
        for (var kind = 0; kind < Kinds.Count; kind++)
        {
            for (var at = 0; at < segments[kind].Count; at++)
            {
                known.Add(segments[kind][at], factors[kind][at]);
            }
        }

        return known;
    }

    /// <summary>Holds the segments of a kind against what was to be expected of them; how far their means moved.</summary>
    private static double Turn(
        SegmentCell[] cells,
        int[][] places,
        double[][] means,
        int kind,
        SegmentFactor[] factors,
        double usualCost
    )
    {
        Span<double> counted = stackalloc double[factors.Length];
        Span<double> expected = stackalloc double[factors.Length];
        for (var at = 0; at < cells.Length; at++)
        {
            var product = cells[at].Cost / usualCost;
            for (var other = 0; other < means.Length; other++)
            {
                product *= other == kind ? 1 : means[other][places[other][at]];
            }

            counted[places[kind][at]] += cells[at].Conversions;
            expected[places[kind][at]] += product;
        }

        var moved = 0.0;
        for (var at = 0; at < factors.Length; at++)
        {
            factors[at] = new SegmentFactor(counted[at], expected[at]);
            moved = Math.Max(moved, Math.Abs(factors[at].Mean - means[kind][at]));
            means[kind][at] = factors[at].Mean;
        }

        return moved;
    }

    private static (List<Segment> Segments, int[] Places) Numbered(SegmentCell[] cells, SegmentKind kind)
    {
        var numbers = new Dictionary<Segment, int>();
        var segments = new List<Segment>();
        var places = new int[cells.Length];
        for (var at = 0; at < cells.Length; at++)
        {
            var segment = cells[at].Of(kind);
            if (!numbers.TryGetValue(segment, out var number))
            {
                numbers.Add(segment, number = segments.Count);
                segments.Add(segment);
            }

            places[at] = number;
        }

        return (segments, places);
    }
}
