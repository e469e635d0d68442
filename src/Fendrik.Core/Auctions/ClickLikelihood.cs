namespace Fendrik.Core.Auctions;

/// <summary>Clicks that were made and clicks that such places usually bring.</summary>
/// <param name="Made">Clicks, the older ones counted for less.</param>
/// <param name="Expected">Clicks expected at those places, likewise.</param>
public readonly record struct ClickRecord(double Made, double Expected)
{
    /// <summary>Both together.</summary>
    public static ClickRecord operator +(ClickRecord left, ClickRecord right) =>
        new(left.Made + right.Made, left.Expected + right.Expected);

    /// <summary>The same, counted for a share only.</summary>
    public static ClickRecord operator *(ClickRecord record, double share) =>
        new(record.Made * share, record.Expected * share);
}

/// <summary>
/// How likely clicks are against what their places usually bring, learnt from few clicks with care: what is known of the level
/// above counts as much as <see cref="Firmness"/> expected clicks. So a keyword without a past stands where its ad group stands.
/// </summary>
/// <remarks>
/// The posterior mean of a Poisson rate with a gamma prior (Gelman et al., “Bayesian Data Analysis”, 3rd edition, section 2.6):
/// prior shape a = firmness × prior mean and rate b = firmness give (a + made) ÷ (b + expected).
/// </remarks>
public static class ClickLikelihood
{
    /// <summary>Expected clicks that the level above is worth.</summary>
    public const double Firmness = 12;

    /// <summary>The likelihood against the usual one, which is 1.</summary>
    /// <param name="record">What is known of the thing itself.</param>
    /// <param name="above">The likelihood of the level above it.</param>
    public static double Of(ClickRecord record, double above) =>
        (record.Made + Firmness * above) / (record.Expected + Firmness);

    /// <summary>As a part of the quality score: 0.5 for a usual likelihood, towards 1 for a high one.</summary>
    public static decimal PartOf(double likelihood) => (decimal)(likelihood / (1 + likelihood));
}
