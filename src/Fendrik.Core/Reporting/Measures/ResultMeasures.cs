namespace Fendrik.Core.Reporting.Measures;

/// <summary>The figures that results are read by, in the order in which they follow from each other.</summary>
public static class ResultMeasures
{
    private static readonly MeasureUnit Money = new(Money: 1);
    private static readonly MeasureUnit Impressions = new(Impressions: 1);
    private static readonly MeasureUnit Clicks = new(Clicks: 1);
    private static readonly MeasureUnit Conversions = new(Conversions: 1);
    private static readonly MeasureUnit Searches = new(Searches: 1);

    /// <summary>What ads brought.</summary>
    private static readonly Measure[] Brought =
    [
        Counted("impressions", "Impressions", "Impr.", "Times an ad was shown.", Impressions, f => f.Impressions),
        Counted("clicks", "Clicks", "Clicks", "Times an ad was clicked.", Clicks, f => f.Clicks),
        Ratio(
            "clickThroughRate",
            "CTR",
            "CTR",
            "Clicks ÷ impressions.",
            Clicks / Impressions,
            MeasureForm.Share,
            f => f.ClickThroughRate
        ),
        Ratio(
            "averageCpc",
            "Average CPC",
            "Avg CPC",
            "Cost ÷ clicks.",
            Money / Clicks,
            MeasureForm.Money,
            f => f.AverageCpc
        ),
        Ratio("cost", "Cost", "Cost", "What the clicks cost.", Money, MeasureForm.Money, f => f.Cost),
        Ratio(
            "conversions",
            "Conversions",
            "Conv.",
            "Conversions that followed a click.",
            Conversions,
            MeasureForm.Number,
            f => f.Conversions
        ) with
        {
            IsOfConversionsAlone = true,
        },
        Ratio(
            "conversionRate",
            "Conversion rate",
            "Rate",
            "Conversions ÷ clicks.",
            Conversions / Clicks,
            MeasureForm.Share,
            f => f.ConversionRate
        ),
        Ratio(
            "costPerConversion",
            "Cost per conversion",
            "Cost / conv.",
            "Cost ÷ conversions.",
            Money / Conversions,
            MeasureForm.Money,
            f => f.CostPerConversion
        ),
        Ratio(
            "breakEven",
            "Breaks even at",
            "Breaks even",
            "Value ÷ conversions: at that cost a conversion wins nothing and loses nothing.",
            Money / Conversions,
            MeasureForm.Money,
            f => f.BreakEven
        ) with
        {
            IsOfConversionsAlone = true,
        },
        Ratio("value", "Value", "Value", "What the conversions are worth.", Money, MeasureForm.Money, f => f.Value) with
        {
            IsOfConversionsAlone = true,
            IsUsual = false,
        },
        Ratio(
            "returnOnSpend",
            "Return on spend",
            "ROAS",
            "Value ÷ cost: 100% brings back what was spent.",
            MeasureUnit.None,
            MeasureForm.Share,
            f => f.ReturnOnSpend
        ) with
        {
            IsUsual = false,
        },
        Ratio(
            "profit",
            "Value less cost",
            "Left over",
            "Value − cost.",
            Money,
            MeasureForm.Money,
            f => f.Value - f.Cost
        ) with
        {
            IsUsual = false,
        },
    ];

    /// <summary>What the own books say by totals.</summary>
    private static readonly Measure[] OfBooks =
    [
        Book(
            "ownSales",
            "Own sales",
            "Sales by the own books, brought in as totals.",
            Conversions,
            MeasureForm.Number,
            measured => measured.Booked?.Sales
        ),
        Book(
            "ownValue",
            "Own value",
            "What these are worth by the own books.",
            Money,
            MeasureForm.Money,
            measured => measured.Booked?.Value
        ),
        Book(
            "costPerOwnSale",
            "Cost per own sale",
            "Cost ÷ own sales.",
            Money / Conversions,
            MeasureForm.Money,
            measured => measured.Booked is { Sales: > 0 } booked ? measured.Figures.Cost / booked.Sales : null
        ),
    ];

    /// <summary>Where ads stood.</summary>
    private static readonly Measure[] Stood =
    [
        Stand(
            "impressionShare",
            "Impression share",
            "Impr. share",
            "Impressions ÷ searches that the keywords could have answered.",
            Impressions / Searches,
            MeasureForm.Share,
            s => s.ImpressionShare
        ),
        Stand(
            "rankLossShare",
            "Lost to rank",
            "To rank",
            "Share of these searches in which bid × quality won no place.",
            MeasureUnit.None,
            MeasureForm.Share,
            s => s.RankLossShare
        ),
        Stand(
            "budgetLossShare",
            "Lost to budget",
            "To budget",
            "Share of these searches that the daily budget did not reach for.",
            MeasureUnit.None,
            MeasureForm.Share,
            s => s.BudgetLossShare
        ),
        Stand(
            "topShare",
            "Above the results",
            "Above",
            "Share of impressions above the results.",
            MeasureUnit.None,
            MeasureForm.Share,
            s => s.TopShare
        ),
        Stand(
            "firstShare",
            "First of all",
            "First",
            "Share of impressions in the first place.",
            MeasureUnit.None,
            MeasureForm.Share,
            s => s.FirstShare
        ),
        Stand(
            "averagePlace",
            "Average place",
            "Place",
            "Average place on the page; 1 is the first.",
            MeasureUnit.None,
            MeasureForm.Number,
            s => s.AveragePlace
        ),
        Stand(
            "searches",
            "Searches",
            "Searches",
            "Searches that the keywords could have answered.",
            Searches,
            MeasureForm.Whole,
            s => s.Searches
        ) with
        {
            IsUsual = false,
        },
    ];

    /// <summary>All of them.</summary>
    public static IReadOnlyList<Measure> All { get; } = [.. Brought, .. OfBooks, .. Stood];

    /// <summary>The measure of a key; none where there is none.</summary>
    public static Measure? Find(string key) => All.FirstOrDefault(measure => measure.Key == key);

    private static Measure Counted(
        string key,
        string title,
        string brief,
        string how,
        MeasureUnit unit,
        Func<Figures, decimal?> of
    ) => Ratio(key, title, brief, how, unit, MeasureForm.Whole, of);

    private static Measure Ratio(
        string key,
        string title,
        string brief,
        string how,
        MeasureUnit unit,
        MeasureForm form,
        Func<Figures, decimal?> of
    ) =>
        new(key, title, brief, how, unit, form, MeasureGroup.Brought, measured => of(measured.Figures))
        {
            IsUsual = true,
        };

    private static Measure Book(
        string key,
        string title,
        string how,
        MeasureUnit unit,
        MeasureForm form,
        Func<Measured, decimal?> of
    ) => new(key, title, title, how, unit, form, MeasureGroup.Brought, of);

    private static Measure Stand(
        string key,
        string title,
        string brief,
        string how,
        MeasureUnit unit,
        MeasureForm form,
        Func<Standing, decimal?> of
    ) =>
        new(
            key,
            title,
            brief,
            how,
            unit,
            form,
            MeasureGroup.Stood,
            measured => measured.Standing is { } standing ? of(standing) : null
        )
        {
            IsUsual = true,
        };
}
