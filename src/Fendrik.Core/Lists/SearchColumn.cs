using Fendrik.Core.Matching;

namespace Fendrik.Core.Lists;

/// <summary>Which column of a table holds searches.</summary>
public static class SearchColumn
{
    private static readonly HashSet<string> Headers = [.. KnownHeaders.Of("keyword"), "keyword"];

    /// <summary>The column whose header says that it holds searches; none when the first row is no head, and searches stand in the first column.</summary>
    /// <param name="first">Cells of the first row.</param>
    public static int? In(IEnumerable<string> first)
    {
        var at = first.Select(cell => string.Join(' ', Words.Of(cell))).ToList().FindIndex(Headers.Contains);
        return at < 0 ? null : at;
    }
}
