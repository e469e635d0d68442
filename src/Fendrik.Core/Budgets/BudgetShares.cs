using Fendrik.Core.Accounts;

namespace Fendrik.Core.Budgets;

/// <summary>A campaign whose budget may change.</summary>
/// <param name="Now">Its daily budget.</param>
/// <param name="Curve">What it brings with any.</param>
public sealed record FundedCampaign(decimal Now, BudgetCurve Curve);

/// <summary>Shares a sum of daily budgets among campaigns, to the last minor unit.</summary>
public static class BudgetShares
{
    /// <summary>No campaign is given less than this part of what it has in one move, nor more than so many times.</summary>
    /// <remarks>Fendrik's own choice: what is known of a campaign holds near where it was seen.</remarks>
    public const int MostTimes = 2;

    private const int Steps = 400;

    /// <summary>
    /// Keeps the sum: what the budgets that somebody chose take or leave, the others give or get, in proportion to what they have.
    /// </summary>
    /// <param name="budgets">Each budget now, and what was chosen for it; none for what may give or get.</param>
    /// <param name="currency">The currency.</param>
    /// <returns>The budgets then; none when the others cannot give as much and keep the smallest amount each.</returns>
    public static IReadOnlyList<decimal>? KeepSum(
        IReadOnlyList<(decimal Now, decimal? Chosen)> budgets,
        Currency currency
    )
    {
        var total = budgets.Sum(each => each.Now);
        var rest = total - budgets.Sum(each => each.Chosen ?? 0);
        var open = budgets.Where(each => each.Chosen is null).ToArray();
        if (open.Length == 0)
        {
            return rest == 0 ? [.. budgets.Select(each => each.Chosen!.Value)] : null;
        }

        if (rest < open.Length * currency.SmallestAmount)
        {
            return null;
        }

        var shared = new Queue<decimal>(
            SomeForEach(Share(rest, [.. open.Select(each => each.Now)], currency), currency)
        );
        return [.. budgets.Select(each => each.Chosen ?? shared.Dequeue())];
    }

    /// <summary>
    /// The budgets of the same sum that bring most conversions: from the least that each may have on, money goes bit by bit to where the next bit brings
    /// most. What brings nothing anywhere stays where it is.
    /// </summary>
    /// <param name="campaigns">The campaigns.</param>
    /// <param name="currency">The currency.</param>
    public static IReadOnlyList<decimal> Best(IReadOnlyList<FundedCampaign> campaigns, Currency currency)
    {
        var total = campaigns.Sum(each => each.Now);
        decimal[] least =
        [
            .. campaigns.Select(each => Math.Max(currency.SmallestAmount, currency.Round(each.Now / MostTimes))),
        ];
        decimal[] most = [.. campaigns.Select(each => currency.Round(each.Now * MostTimes))];
        decimal[] given = [.. least];
        var left = total - given.Sum();
        if (left <= 0)
        {
            return [.. campaigns.Select(each => each.Now)];
        }

        var step = Math.Max(currency.SmallestAmount, currency.Round(left / Steps));
        while (left > 0)
        {
            var best = -1;
            double bestGain = 0;
            for (var at = 0; at < given.Length; at++)
            {
                var bit = Math.Min(Math.Min(step, left), most[at] - given[at]);
                if (bit <= 0)
                {
                    continue;
                }

                var curve = campaigns[at].Curve;
                var gain = (curve.PerDay(given[at] + bit) - curve.PerDay(given[at])).Conversions / (double)bit;
                if (gain > bestGain)
                {
                    (best, bestGain) = (at, gain);
                }
            }

            if (best < 0)
            {
                break;
            }

            var more = Math.Min(Math.Min(step, left), most[best] - given[best]);
            given[best] += more;
            left -= more;
        }

        if (left > 0)
        {
            // Nobody can use it: it stays where it is.
            var rest = Share(left, [.. campaigns.Select((each, at) => Math.Max(0, each.Now - given[at]))], currency);
            for (var at = 0; at < given.Length; at++)
            {
                given[at] += rest[at];
            }
        }

        return given;
    }

    /// <summary>Shares an amount in proportion to weights: each gets whole minor units, and the largest remainders what is left over.</summary>
    private static decimal[] Share(decimal amount, decimal[] weights, Currency currency)
    {
        var units = currency.ToMinor(amount);
        var sum = weights.Sum();
        decimal[] exact =
        [
            .. weights.Select(weight => sum > 0 ? units * weight / sum : (decimal)units / weights.Length),
        ];
        long[] whole = [.. exact.Select(each => (long)Math.Floor(each))];
        foreach (
            var at in Enumerable
                .Range(0, whole.Length)
                .OrderByDescending(at => exact[at] - whole[at])
                .ThenBy(at => at)
                .Take((int)(units - whole.Sum()))
        )
        {
            whole[at]++;
        }

        return [.. whole.Select(currency.FromMinor)];
    }

    /// <summary>Nobody ends with nothing while somebody has more than the least.</summary>
    private static decimal[] SomeForEach(decimal[] amounts, Currency currency)
    {
        for (var at = 0; at < amounts.Length; at++)
        {
            if (amounts[at] < currency.SmallestAmount)
            {
                amounts[Array.IndexOf(amounts, amounts.Max())] -= currency.SmallestAmount;
                amounts[at] += currency.SmallestAmount;
            }
        }

        return amounts;
    }
}
