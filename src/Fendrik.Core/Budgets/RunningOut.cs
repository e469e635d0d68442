namespace Fendrik.Core.Budgets;

/// <summary>When a campaign's budget ran out on days.</summary>
/// <param name="Days">Days on which it did.</param>
/// <param name="Of">Of how many.</param>
/// <param name="UsualMinute">Minutes after midnight at which it did, half of the times earlier and half later; none where it never did.</param>
public sealed record RunningOut(int Days, int Of, int? UsualMinute)
{
    /// <summary>Adds up days.</summary>
    /// <param name="minutes">For each day the minute after midnight at which the budget ran out; none where it lasted.</param>
    public static RunningOut Over(IReadOnlyCollection<int?> minutes)
    {
        int[] ran = [.. minutes.OfType<int>().Order()];
        return new RunningOut(ran.Length, minutes.Count, ran.Length == 0 ? null : ran[(ran.Length - 1) / 2]);
    }
}
