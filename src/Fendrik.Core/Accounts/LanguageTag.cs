using System.Text.Json;
using System.Text.RegularExpressions;

namespace Fendrik.Core.Accounts;

/// <summary>
/// A language that people speak, by a tag of BCP 47: <c>en</c>, <c>en-GB</c>, <c>zh-Hant-TW</c>. Of the standard's forms those that tell
/// languages apart are known: a language of ISO 639-1, a script, a region.
/// </summary>
public sealed partial record LanguageTag
{
    private static readonly IReadOnlyDictionary<string, string> Names = Load();

    /// <summary>Two codes can stand for one name (Akan has two): the first is taken.</summary>
    private static readonly IReadOnlyDictionary<string, string> Codes = Names
        .GroupBy(each => each.Value, StringComparer.OrdinalIgnoreCase)
        .ToDictionary(
            same => same.Key,
            same => same.Select(each => each.Key).Min(StringComparer.Ordinal)!,
            StringComparer.OrdinalIgnoreCase
        );

    private LanguageTag(string tag) => Tag = tag;

    /// <summary>The tag as RFC 5646 writes it: language small, script with a capital, region in capitals.</summary>
    public string Tag { get; }

    /// <summary>The language's English name; with script and region in brackets where it has these.</summary>
    public string Name
    {
        get
        {
            var parts = Tag.Split('-');
            var name = Names[parts[0]];
            return parts.Length == 1 ? name : $"{name} ({string.Join(", ", parts.Skip(1))})";
        }
    }

    /// <summary>The codes of ISO 639-1 with the English names of the languages.</summary>
    public static IReadOnlyDictionary<string, string> Known => Names;

    /// <summary>The tag that a text is, by its form or by the English name of a language; none where it is neither.</summary>
    public static LanguageTag? Read(string text)
    {
        var trimmed = text.Trim();
        if (Codes.TryGetValue(trimmed, out var code))
        {
            return new LanguageTag(code);
        }

        // RFC 5646, section 2.1: langtag = language ["-" script] ["-" region].
        var match = Form().Match(trimmed.Replace('_', '-'));
        if (!match.Success || !Names.ContainsKey(match.Groups["language"].Value.ToLowerInvariant()))
        {
            return null;
        }

        // Section 2.1.1: how the parts are written.
        var script = match.Groups["script"].Value;
        var region = match.Groups["region"].Value;
        return new LanguageTag(
            match.Groups["language"].Value.ToLowerInvariant()
                + (script.Length > 0 ? $"-{char.ToUpperInvariant(script[0])}{script[1..].ToLowerInvariant()}" : "")
                + (region.Length > 0 ? $"-{region.ToUpperInvariant()}" : "")
        );
    }

    /// <summary>
    /// True when this tag, taken as a range, reaches another: by basic filtering (RFC 4647, section 3.3.1) it does when the other is the same
    /// or begins with it and a hyphen, whatever the capitals. <c>de-DE</c> reaches <c>de-DE-1996</c>, not <c>de-Deva</c> and not <c>de</c>.
    /// </summary>
    public bool Reaches(string tag) => Reaches(Tag, tag);

    /// <summary>The same for any two tags.</summary>
    public static bool Reaches(string range, string tag) =>
        tag.StartsWith(range, StringComparison.OrdinalIgnoreCase)
        && (tag.Length == range.Length || tag[range.Length] == '-');

    /// <summary>The tag.</summary>
    public override string ToString() => Tag;

    [GeneratedRegex(
        "^(?<language>[a-z]{2})(-(?<script>[a-z]{4}))?(-(?<region>[a-z]{2}|[0-9]{3}))?$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Form();

    private static Dictionary<string, string> Load()
    {
        using var stream = typeof(LanguageTag).Assembly.GetManifestResourceStream(
            "Fendrik.Core.Accounts.languages.json"
        )!;
        return JsonSerializer.Deserialize<Dictionary<string, string>>(stream)!;
    }
}
