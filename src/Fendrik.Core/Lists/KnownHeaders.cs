using System.Text.Json;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Lists;

/// <summary>
/// What columns of lists are called in the trade, in English, German, French, Spanish, Dutch and Italian, beside what the
/// descriptions of fields say: a data file. Common practice, no source.
/// </summary>
internal static class KnownHeaders
{
    private static readonly Dictionary<string, string[]> ByColumn = Load();

    /// <summary>Names of a column or field, in lower case and without punctuation.</summary>
    public static IReadOnlyList<string> Of(string name) => ByColumn.GetValueOrDefault(name) ?? [];

    private static Dictionary<string, string[]> Load()
    {
        using var stream = typeof(KnownHeaders).Assembly.GetManifestResourceStream("Fendrik.Core.Lists.headers.json")!;
        var names = JsonSerializer.Deserialize<Dictionary<string, string[]>>(stream)!;
        return names.ToDictionary(
            each => each.Key,
            each => each.Value.Select(header => string.Join(' ', Words.Of(header))).Distinct().ToArray()
        );
    }
}
