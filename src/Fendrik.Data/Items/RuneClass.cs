using System.Globalization;
using System.Text;

namespace Fendrik.Data.Items;

/// <summary>Sets of characters that Core knows by a function, written out as the class of a regular expression of PostgreSQL.</summary>
internal static class RuneClass
{
    /// <summary>The characters for which something holds, as what stands between square brackets.</summary>
    public static string Of(Func<Rune, bool> holds)
    {
        var ranges = new StringBuilder();
        int? first = null;
        var last = 0;
        foreach (var rune in All().Where(holds))
        {
            if (first is null || rune.Value != last + 1)
            {
                Close(ranges, first, last);
                first = rune.Value;
            }

            last = rune.Value;
        }

        Close(ranges, first, last);
        return ranges.ToString();
    }

    /// <summary>Every character that Unicode may give a meaning that matters here: the planes above hold ideographs alone.</summary>
    private static IEnumerable<Rune> All() =>
        Enumerable
            .Range(1, 0x1FFFF)
            .Concat(Enumerable.Range(0xE0000, 0x1000))
            .Where(Rune.IsValid)
            .Select(value => new Rune(value));

    private static void Close(StringBuilder ranges, int? first, int last)
    {
        if (first is not { } from)
        {
            return;
        }

        ranges.Append(Escape(from));
        if (last > from)
        {
            ranges.Append('-').Append(Escape(last));
        }
    }

    private static string Escape(int value) => string.Create(CultureInfo.InvariantCulture, $"\\U{value:x8}");
}
