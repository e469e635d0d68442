namespace Fendrik.Core.Searches;

/// <summary>What the searches with a word brought, all of them together.</summary>
/// <param name="Word">The word.</param>
/// <param name="Terms">How many different searches it is in.</param>
/// <param name="Clicks">Their clicks.</param>
/// <param name="Cost">Their cost, in the account's currency.</param>
/// <param name="Conversions">Their conversions.</param>
/// <param name="OwnKeywords">Keywords of the account that have the word.</param>
public sealed record WordRecord(string Word, int Terms, long Clicks, decimal Cost, decimal Conversions, int OwnKeywords)
{
    /// <summary>
    /// How likely so many clicks bring nothing if they are worth as much as the account's others: (1 − rate) to the power of the clicks, from 0 to 1.
    /// </summary>
    /// <param name="usualRate">Conversions for a click in the whole account: 0 to 1.</param>
    public double ChanceOfNothing(double usualRate) => Math.Pow(1 - Math.Clamp(usualRate, 0, 1), Clicks);
}
