using Fendrik.Core.Reporting;
using Fendrik.Data.Accounts;
using Fendrik.Data.Results;

namespace Fendrik.Server.Api.Pricing;

/// <summary>Figures as they are shown beside hours and bids.</summary>
public sealed record PricingFigures(
    long Impressions,
    long Clicks,
    decimal Cost,
    decimal Conversions,
    decimal? CostPerConversion
)
{
    internal static PricingFigures Of(Figures figures) =>
        new(figures.Impressions, figures.Clicks, figures.Cost, figures.Conversions, figures.CostPerConversion);
}

/// <summary>The weeks up to the last that the network reported.</summary>
internal static class PricingPeriod
{
    private const int MostWeeks = 53;

    /// <summary>None before anything was reported.</summary>
    /// <exception cref="InvalidChangeException">The number of weeks cannot be.</exception>
    public static async Task<Period?> OfAsync(
        PerformanceStore store,
        int accountId,
        int weeks,
        CancellationToken cancellation
    ) =>
        weeks is < 1 or > MostWeeks ? throw new InvalidChangeException("weeks", $"Choose 1 to {MostWeeks} weeks.")
        : (await store.ReportedToAsync(accountId, cancellation)).Day is { } last
            ? new Period(last.AddDays(1 - 7 * weeks), last)
        : null;
}
