using Fendrik.Core.Checks;
using Fendrik.Core.Networks;
using Fendrik.Core.Places;

namespace Fendrik.Core.Items.Values;

/// <summary>A place that the networks know, kept by its full name: <c>Leeds, Yorkshire, England, United Kingdom</c>.</summary>
public sealed class PlaceValue() : TextValue(LongestName)
{
    private const int MostNamed = 4;

    /// <inheritdoc/>
    public override bool CapitalsCount => false;

    /// <inheritdoc/>
    public override bool IsText => false;

    /// <inheritdoc/>
    public override Reading Read(string text, ReadingGround ground)
    {
        var read = base.Read(text, ground);
        if (read.Problem is not null)
        {
            return read;
        }

        var found = Gazetteer.Find((string)read.Value!);
        return found.Count switch
        {
            1 => new Reading(found[0].FullName),
            0 => Reading.Wrong(
                $"“{Reading.Shortened(text)}” is no place that the networks know; write a country, a region or a town of it"
            ),
            _ => Reading.Wrong(
                $"“{Reading.Shortened(text)}” may be {string.Join(" or ", found.Take(MostNamed).Select(place => $"“{place.FullName}”"))}; write which"
            ),
        };
    }

    internal override IEnumerable<Finding> Check(Field field, object value, FieldLimits limits, CheckReport report)
    {
        if (Gazetteer.Find((string)value) is not [_])
        {
            yield return report.Blocker(
                field,
                "unknown",
                "no place that the network knows",
                $"“{Reading.Shortened((string)value)}” is no place that {report.Network.Name} knows. Choose it again."
            );
        }
    }
}
