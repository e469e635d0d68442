namespace Fendrik.Core.Reporting.Moved;

/// <summary>A figure whose change is split into causes.</summary>
public enum MovedFigure
{
    /// <summary>What a conversion costs.</summary>
    CostPerConversion = 1,

    /// <summary>How many conversions there are.</summary>
    Conversions = 2,

    /// <summary>Value less cost.</summary>
    Profit = 3,
}

/// <summary>What can move a figure.</summary>
public enum Cause
{
    /// <summary>How often ads were shown in all.</summary>
    Impressions = 1,

    /// <summary>How these, or the clicks, were shared among the items.</summary>
    Mix = 2,

    /// <summary>Clicks for an impression.</summary>
    ClickThroughRate = 3,

    /// <summary>The price of a click.</summary>
    AverageCpc = 4,

    /// <summary>Conversions for a click.</summary>
    ConversionRate = 5,

    /// <summary>Value of a conversion.</summary>
    ValuePerConversion = 6,
}

/// <summary>An item with what it brought in two periods.</summary>
/// <param name="Id">The item.</param>
/// <param name="Name">Its name.</param>
/// <param name="Before">What it brought before.</param>
/// <param name="Now">What it brings now.</param>
public sealed record MovedItem(long Id, string Name, Figures Before, Figures Now);

/// <summary>What a cause did to a figure.</summary>
/// <param name="Cause">The cause.</param>
/// <param name="Effect">What it added to the figure, in its unit.</param>
public readonly record struct CauseEffect(Cause Cause, double Effect);

/// <summary>What an item did to a figure.</summary>
/// <param name="Item">The item.</param>
/// <param name="Effect">What it added to the figure.</param>
/// <param name="Causes">By cause; together they are the effect.</param>
public sealed record ItemEffect(MovedItem Item, double Effect, IReadOnlyList<CauseEffect> Causes)
{
    /// <summary>The cause that did most of it.</summary>
    public Cause Mostly => Causes.MaxBy(cause => Math.Sign(Effect) * cause.Effect).Cause;
}

/// <summary>The change of a figure from one period to another, split into causes and items with no remainder.</summary>
/// <param name="Figure">The figure.</param>
/// <param name="Before">What it was.</param>
/// <param name="Now">What it is.</param>
/// <param name="Causes">What each cause added; together they are the change.</param>
/// <param name="Items">What each item added, what did most first; together they are the change.</param>
public sealed record MovedReport(
    MovedFigure Figure,
    double Before,
    double Now,
    IReadOnlyList<CauseEffect> Causes,
    IReadOnlyList<ItemEffect> Items
)
{
    /// <summary>Splits a change.</summary>
    /// <param name="figure">The figure.</param>
    /// <param name="items">The items, which make up the whole.</param>
    /// <returns>None where the figure is not known in both periods: a cost per conversion without conversions.</returns>
    public static MovedReport? Of(MovedFigure figure, IReadOnlyList<MovedItem> items)
    {
        var (before, now) = (Sum(items, item => item.Before), Sum(items, item => item.Now));
        return figure switch
        {
            MovedFigure.Conversions => Report(
                figure,
                (double)before.Conversions,
                (double)now.Conversions,
                items,
                Products(items, before, now, Shown, [Cause.ClickThroughRate, Cause.ConversionRate])
            ),
            MovedFigure.Profit => Report(
                figure,
                (double)(before.Value - before.Cost),
                (double)(now.Value - now.Cost),
                items,
                Less(
                    Products(
                        items,
                        before,
                        now,
                        Shown,
                        [Cause.ClickThroughRate, Cause.ConversionRate, Cause.ValuePerConversion]
                    ),
                    Products(items, before, now, Shown, [Cause.ClickThroughRate, Cause.AverageCpc])
                )
            ),
            MovedFigure.CostPerConversion => before.CostPerConversion is { } was && now.CostPerConversion is { } @is
                ? Report(figure, (double)was, (double)@is, items, OfRatio(items, before, now, (double)was, (double)@is))
                : null,
        };
    }

    /// <summary>
    /// Cost per conversion is price of a click ÷ conversion rate, each a mean over the items by their share of the clicks: its logarithm changes by that of
    /// the one less that of the other.
    /// </summary>
    private static List<Dictionary<Cause, double>> OfRatio(
        IReadOnlyList<MovedItem> items,
        Figures before,
        Figures now,
        double was,
        double @is
    )
    {
        static double Of(decimal? ratio) => (double)(ratio ?? 0);
        var mean = LogMeanSplit.LogMean(was, @is);
        List<Dictionary<Cause, double>> Scaled(Cause cause, double meanOf) =>
            [
                .. Products(items, before, now, Clicked, [cause])
                    .Select(effects => effects.ToDictionary(each => each.Key, each => mean * each.Value / meanOf)),
            ];
        // Where nothing was paid before or now, the price has no logarithm: all of the change is the price's.
        return was <= 0 || @is <= 0
            ? Products(items, before, now, Clicked, [Cause.AverageCpc]) is var priced
            && priced.Sum(each => each.Values.Sum()) is var all and not 0
                ?
                [
                    .. priced.Select(effects => new Dictionary<Cause, double>
                    {
                        [Cause.AverageCpc] = effects.Values.Sum() / all * (@is - was),
                    }),
                ]
                : [.. items.Select(_ => new Dictionary<Cause, double>())]
            : Less(
                Scaled(Cause.AverageCpc, LogMeanSplit.LogMean(Of(before.AverageCpc), Of(now.AverageCpc))),
                Scaled(Cause.ConversionRate, LogMeanSplit.LogMean(Of(before.ConversionRate), Of(now.ConversionRate)))
            );
    }

    /// <summary>What the shares of items are shares of.</summary>
    private sealed record Base(Cause? Whole, Func<Figures, long> Of);

    private static readonly Base Shown = new(Cause.Impressions, figures => figures.Impressions);
    private static readonly Base Clicked = new(null, figures => figures.Clicks);

    /// <summary>The effects of the whole (where it counts), of the share that each item has in it, and of the ratios that follow.</summary>
    private static List<Dictionary<Cause, double>> Products(
        IReadOnlyList<MovedItem> items,
        Figures before,
        Figures now,
        Base of,
        IReadOnlyList<Cause> ratios
    )
    {
        Cause[] causes = [.. of.Whole is { } whole ? new[] { whole } : [], Cause.Mix, .. ratios];
        IReadOnlyList<double> FactorsOf(Figures all, Figures figures, Figures other) =>
            [
                .. of.Whole is null ? [] : new[] { (double)of.Of(all) },
                of.Of(all) == 0 ? 0 : (double)of.Of(figures) / of.Of(all),
                .. ratios.Select(ratio => RatioOf(ratio, figures) ?? RatioOf(ratio, other) ?? 1),
            ];
        var effects = LogMeanSplit.Of([
            .. items.Select(item => (FactorsOf(before, item.Before, item.Now), FactorsOf(now, item.Now, item.Before))),
        ]);
        return [.. effects.Select(item => causes.Zip(item).ToDictionary(each => each.First, each => each.Second))];
    }

    private static double? RatioOf(Cause cause, Figures figures) =>
        cause switch
        {
            Cause.ClickThroughRate => (double?)figures.ClickThroughRate,
            Cause.AverageCpc => (double?)figures.AverageCpc,
            Cause.ConversionRate => (double?)figures.ConversionRate,
            Cause.ValuePerConversion => figures.Conversions == 0 ? null : (double)(figures.Value / figures.Conversions),
            Cause.Impressions or Cause.Mix => null,
        };

    private static List<Dictionary<Cause, double>> Less(
        List<Dictionary<Cause, double>> from,
        List<Dictionary<Cause, double>> less
    ) =>
        [
            .. from.Zip(
                less,
                (one, other) =>
                    one
                        .Keys.Union(other.Keys)
                        .ToDictionary(
                            cause => cause,
                            cause => one.GetValueOrDefault(cause) - other.GetValueOrDefault(cause)
                        )
            ),
        ];

    private static Figures Sum(IEnumerable<MovedItem> items, Func<MovedItem, Figures> of) =>
        items.Aggregate(Figures.Zero, (sum, item) => sum + of(item));

    private static MovedReport Report(
        MovedFigure figure,
        double before,
        double now,
        IReadOnlyList<MovedItem> items,
        List<Dictionary<Cause, double>> effects
    ) =>
        new(
            figure,
            before,
            now,
            [
                .. effects
                    .SelectMany(item => item)
                    .GroupBy(each => each.Key, each => each.Value)
                    .OrderBy(cause => cause.Key)
                    .Select(cause => new CauseEffect(cause.Key, cause.Sum())),
            ],
            [
                .. items
                    .Zip(effects)
                    .Where(each => each.Second.Count > 0)
                    .Select(each => new ItemEffect(
                        each.First,
                        each.Second.Values.Sum(),
                        [
                            .. each
                                .Second.OrderBy(cause => cause.Key)
                                .Select(cause => new CauseEffect(cause.Key, cause.Value)),
                        ]
                    ))
                    .OrderByDescending(item => Math.Abs(item.Effect))
                    .ThenBy(item => item.Item.Id),
            ]
        );
}
