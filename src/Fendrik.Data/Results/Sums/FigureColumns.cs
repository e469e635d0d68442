using Fendrik.Core.Reporting;

namespace Fendrik.Data.Results.Sums;

/// <summary>Figures as columns of a row that is read.</summary>
internal abstract class FigureColumns
{
    public long Impressions { get; init; }
    public long Clicks { get; init; }
    public decimal Cost { get; init; }
    public decimal Conversions { get; init; }
    public decimal Value { get; init; }

    public Figures Figures => new(Impressions, Clicks, Cost, Conversions, Value);
}
