using Fendrik.Core.Accounts;

namespace Fendrik.Core.Bidding;

/// <summary>
/// Amounts that are more likely slips of the keyboard than decisions: common practice, no source. They are cautions, never in
/// the way.
/// </summary>
public static class UnusualAmounts
{
    /// <summary>How many times the ad group's max CPC a keyword's own may be, and a budget the one before.</summary>
    public const int ManyTimes = 10;

    /// <summary>What is unusual about a bid, in a sentence that says what to do; none when nothing is.</summary>
    /// <param name="bid">Max CPC of a keyword or an ad group.</param>
    /// <param name="adGroupBid">Max CPC of the ad group that a keyword is in; none for an ad group, or where it has none.</param>
    /// <param name="dailyBudget">Daily budget of the campaign; none when it has none.</param>
    /// <param name="currency">Currency of all three.</param>
    public static string? OfBid(decimal? bid, decimal? adGroupBid, decimal? dailyBudget, Currency currency) =>
        bid is not { } amount ? null
        : dailyBudget is { } budget && amount > budget
            ? $"A max CPC of {new Money(amount, currency)} is above the campaign’s daily budget of {new Money(budget, currency)}: one click would spend the day."
        : adGroupBid is { } usual && amount > ManyTimes * usual
            ? $"A max CPC of {new Money(amount, currency)} is more than ten times the ad group’s {new Money(usual, currency)}. Check the decimal point."
        : null;

    /// <summary>What is unusual about a new daily budget, or none.</summary>
    /// <param name="budget">Daily budget now.</param>
    /// <param name="before">Daily budget before; none when there was none.</param>
    /// <param name="currency">Currency of both.</param>
    public static string? OfBudget(decimal? budget, decimal? before, Currency currency) =>
        budget is { } now && before is { } then && now >= ManyTimes * then
            ? $"A daily budget of {new Money(now, currency)} is ten times the {new Money(then, currency)} before, or more. Check the decimal point."
            : null;
}
