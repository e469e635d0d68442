using System.Globalization;
using System.Text.RegularExpressions;

namespace Fendrik.Core.AdText;

/// <summary>
/// A line of a responsive ad: free to stand anywhere, or kept to one place. It is written with the place behind it, in lists and in
/// files as well: <c>Ask For A Price [1]</c>.
/// </summary>
/// <param name="Text">What it says.</param>
/// <param name="Place">The place that it is kept to, from 1; none when it is free.</param>
public readonly partial record struct PlacedLine(string Text, int? Place)
{
    /// <summary>Places that a line can be kept to.</summary>
    public const int MostPlaces = 4;

    /// <summary>
    /// True where it may stand: a line that is kept to a place stands there alone, and where lines are kept to a place, no others
    /// stand there.
    /// </summary>
    /// <param name="place">The place, from 1.</param>
    /// <param name="among">All lines of the ad.</param>
    public bool MayStandAt(int place, IReadOnlyList<PlacedLine> among)
    {
        if (Place is { } own)
        {
            return own == place;
        }

        foreach (var other in among)
        {
            if (other.Place == place)
            {
                return false;
            }
        }

        return true;
    }

    /// <summary>Reads a line as it is written.</summary>
    public static PlacedLine Of(string written) =>
        Notation().Match(written) is { Success: true } read
            ? new PlacedLine(
                read.Groups["text"].Value,
                int.Parse(read.Groups["place"].ValueSpan, CultureInfo.InvariantCulture)
            )
            : new PlacedLine(written, null);

    /// <summary>The line as it is written.</summary>
    public override string ToString() =>
        Place is { } place ? $"{Text} [{place.ToString(CultureInfo.InvariantCulture)}]" : Text;

    /// <summary>How a place is written behind a text, as a regular expression.</summary>
    public const string AtTheEnd = @"\s*\[(?:[1-4])\]$";

    [GeneratedRegex(@"^(?<text>.+?)\s*\[(?<place>[1-4])\]$", RegexOptions.CultureInvariant)]
    private static partial Regex Notation();
}
