using System.Globalization;
using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Measures;

namespace Fendrik.Server.Api.Results;

/// <summary>Figures of a period beside those of another, by measure. Shares and changes are from 0 to 1.</summary>
internal static class Comparing
{
    /// <summary>Each measure by its key.</summary>
    public static IReadOnlyDictionary<string, ComparedFigure> All(
        IReadOnlyList<Measure> measures,
        Measured now,
        Measured before
    ) => measures.ToDictionary(measure => measure.Key, measure => One(measure, now, before));

    /// <summary>Each measure of figures of which nothing else is known.</summary>
    public static IReadOnlyDictionary<string, ComparedFigure> All(
        IReadOnlyList<Measure> measures,
        Figures now,
        Figures before
    ) => All(measures, new Measured(now, null), new Measured(before, null));

    /// <summary>What counted a conversion was neither shown nor clicked: it has no such figures, which is not that they are 0.</summary>
    public static IReadOnlyDictionary<string, ComparedFigure> OfConversions(
        IReadOnlyList<Measure> measures,
        Figures now,
        Figures before
    )
    {
        var (after, earlier) = (new Measured(now, null), new Measured(before, null));
        return measures.ToDictionary(
            measure => measure.Key,
            measure =>
                measure.IsOfConversionsAlone ? One(measure, after, earlier) : new ComparedFigure(null, null, null)
        );
    }

    /// <summary>The measures of named keys in that order; all of them where none is named.</summary>
    public static IReadOnlyList<Measure> Chosen(IReadOnlyList<Measure> measures, string? columns) =>
        columns is null
            ? measures
            :
            [
                .. columns
                    .Split(',')
                    .Select(key => measures.FirstOrDefault(measure => measure.Key == key))
                    .OfType<Measure>()
                    .Distinct(),
            ];

    /// <summary>What a measure is called at the head of a column, with the currency where it is money.</summary>
    public static string HeaderOf(Measure measure, string currency) =>
        measure.Form == MeasureForm.Money ? $"{measure.Title} {currency}" : measure.Title;

    /// <summary>A figure as a cell of a file.</summary>
    public static string Number(decimal? figure) => figure?.ToString("0.####", CultureInfo.InvariantCulture) ?? "";

    private static ComparedFigure One(Measure measure, Measured now, Measured before)
    {
        var (after, earlier) = (measure.Of(now), measure.Of(before));
        return new ComparedFigure(after, earlier, Figures.Change(earlier, after));
    }
}
