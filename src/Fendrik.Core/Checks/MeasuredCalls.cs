using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Checks;

/// <summary>Whether calls to a number can be counted.</summary>
internal static class MeasuredCalls
{
    /// <summary>A caution where calls are to be counted and the network has no numbers for it.</summary>
    /// <param name="number">The field with the number.</param>
    /// <param name="measured">The field that says whether calls are to be counted.</param>
    /// <param name="values">The item.</param>
    /// <param name="report">What is gone by.</param>
    public static IEnumerable<Finding> Check(Field number, Field measured, ItemValues values, CheckReport report)
    {
        if (
            values[number] is string said
            && values[measured] is (short)YesNo.Yes
            && !report.Network.Extensions.Measures(said)
        )
        {
            yield return report.Caution(
                measured,
                "calls-not-measured",
                "calls cannot be counted",
                $"{report.Network.Name} has no measured numbers for the country of {PhoneValue.National(said)}: the number itself shows, and its calls are not counted."
            );
        }
    }
}
