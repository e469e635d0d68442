using Fendrik.Core.Accounts;

namespace Fendrik.Core.Bidding;

/// <summary>One step of a bid: what it is for, its modifier in percent, and the bid after it.</summary>
/// <param name="Name">For a person: <c>keyword</c>, <c>phone</c>, <c>York</c>.</param>
/// <param name="Percent">The modifier: +50 multiplies by 1.5, −100 shuts the segment off. Zero for the base.</param>
/// <param name="BidAfter">The bid after this step, not yet rounded.</param>
/// <param name="Words">What the step does, where that is no modifier in percent: × 4.2%.</param>
public sealed record BidStep(string Name, decimal Percent, decimal BidAfter, string? Words = null);

/// <summary>How a bid comes about: base × modifiers. A modifier of +300% multiplies by 4 (common practice, no source).</summary>
public sealed record BidStack
{
    private BidStack(IReadOnlyList<BidStep> steps, decimal bid) => (Steps, Bid) = (steps, bid);

    /// <summary>The steps in order, the base first.</summary>
    public IReadOnlyList<BidStep> Steps { get; }

    /// <summary>The bid in the end, rounded to the currency's minor unit; zero when a segment is shut off.</summary>
    public decimal Bid { get; }

    /// <summary>A bid that came about in other steps than modifiers.</summary>
    internal static BidStack OfSteps(IReadOnlyList<BidStep> steps, decimal bid) => new(steps, bid);

    /// <summary>Computes the bid of a keyword.</summary>
    /// <param name="keywordMaxCpc">The keyword's own max CPC, if it has one.</param>
    /// <param name="adGroupMaxCpc">The ad group's default, if it has one.</param>
    /// <param name="modifiers">Modifiers in the order in which they are to be shown; each at least −100.</param>
    /// <param name="currency">The account's currency, for rounding.</param>
    /// <returns>The stack, or none when neither level has a max CPC.</returns>
    /// <exception cref="ArgumentOutOfRangeException">A modifier is below −100%.</exception>
    public static BidStack? Of(
        decimal? keywordMaxCpc,
        decimal? adGroupMaxCpc,
        IEnumerable<(string Name, decimal Percent)> modifiers,
        Currency currency
    ) => Of([("keyword", keywordMaxCpc), ("ad group", adGroupMaxCpc)], modifiers, currency);

    /// <summary>Computes a bid from the first base that there is.</summary>
    /// <param name="bases">What may have a max CPC, the one that comes before all others first.</param>
    /// <param name="modifiers">Modifiers in the order in which they are to be shown; each at least −100.</param>
    /// <param name="currency">The account's currency, for rounding.</param>
    /// <returns>The stack, or none when nothing has a max CPC.</returns>
    /// <exception cref="ArgumentOutOfRangeException">A modifier is below −100%.</exception>
    public static BidStack? Of(
        ReadOnlySpan<(string Name, decimal? MaxCpc)> bases,
        IEnumerable<(string Name, decimal Percent)> modifiers,
        Currency currency
    )
    {
        var at = 0;
        while (at < bases.Length && bases[at].MaxCpc is null)
        {
            at++;
        }

        if (at == bases.Length)
        {
            return null;
        }

        var bid = bases[at].MaxCpc!.Value;
        var steps = new List<BidStep> { new(bases[at].Name, 0, bid) };
        foreach (var (name, percent) in modifiers)
        {
            ArgumentOutOfRangeException.ThrowIfLessThan(percent, -100m);
            bid *= 1 + percent / 100m;
            steps.Add(new BidStep(name, percent, bid));
        }

        return new BidStack(steps, currency.Round(bid));
    }
}
