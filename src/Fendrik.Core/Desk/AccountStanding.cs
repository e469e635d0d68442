using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Desk;

/// <summary>An account by the one figure that it is judged by: the return on spend where it counts sales, else the cost of a conversion.</summary>
/// <param name="BySales">True where it counts sales.</param>
/// <param name="Now">The figure; none where nothing was spent or counted.</param>
/// <param name="Change">How it changed, as a share of what it was; none where it is not known.</param>
public sealed record AccountStanding(bool BySales, decimal? Now, decimal? Change)
{
    /// <summary>Judges an account.</summary>
    /// <param name="now">What it brought.</param>
    /// <param name="before">What it brought in as many days before.</param>
    /// <param name="bySales">True where it counts sales.</param>
    public static AccountStanding Of(Figures now, Figures before, bool bySales)
    {
        decimal? Of(Figures figures) =>
            !bySales ? figures.CostPerConversion
            : figures.Cost > 0 ? figures.Value / figures.Cost
            : null;
        return new AccountStanding(bySales, Of(now), Figures.Change(Of(before), Of(now)));
    }

    /// <summary>The figure as it is written; none where there is none.</summary>
    public string? InWords(Currency currency) =>
        Now is not { } figure ? null
        : BySales ? string.Create(CultureInfo.InvariantCulture, $"ROAS {figure:0.0}")
        : new Money(currency.Round(figure), currency).ToString();
}
