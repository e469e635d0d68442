namespace Fendrik.Core.Reporting.Moved;

/// <summary>Effects as they are shown: in whole units, and still adding up to the change that is shown.</summary>
public static class RoundedEffects
{
    /// <summary>Rounds effects down to units and gives what is left over to those with the largest remainders.</summary>
    /// <param name="effects">The effects.</param>
    /// <param name="change">What they are to add up to, in whole units.</param>
    /// <param name="unit">The unit, such as a penny.</param>
    public static IReadOnlyList<decimal> Of(IReadOnlyList<double> effects, decimal change, decimal unit)
    {
        if (effects.Count == 0)
        {
            return [];
        }

        decimal[] whole = [.. effects.Select(effect => Math.Floor((decimal)effect / unit))];
        var left = (int)(Math.Round(change / unit) - whole.Sum());
        int[] byRemainder =
        [
            .. Enumerable
                .Range(0, effects.Count)
                .OrderByDescending(at => (decimal)effects[at] / unit - whole[at])
                .ThenBy(at => at),
        ];
        // Rounded ends differ from the exact ones by a unit at most: a round or two is all that it takes.
        for (var step = 0; step < Math.Abs(left); step++)
        {
            var at = left > 0 ? byRemainder[step % effects.Count] : byRemainder[^(step % effects.Count + 1)];
            whole[at] += Math.Sign(left);
        }

        return [.. whole.Select(each => each * unit)];
    }
}
