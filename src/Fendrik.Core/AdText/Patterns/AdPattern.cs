using System.Text.RegularExpressions;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.AdText.Patterns;

/// <summary>One ad with fields, from which an ad is made for each of many ad groups.</summary>
/// <param name="Kind">Kind of ad.</param>
/// <param name="Slots">
/// By the name of a field, its slots; for each, what it may say, in the order in which it is tried: what does not fit is followed by
/// what is shorter.
/// </param>
/// <param name="Label">What all of them are labelled with, so that they are found and compared again; none for nothing.</param>
public sealed record AdPattern(
    ItemKind Kind,
    IReadOnlyDictionary<string, IReadOnlyList<IReadOnlyList<string>>> Slots,
    string? Label = null
);

/// <summary>What the fields of a pattern stand for in an ad group.</summary>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="AdGroup">Its name.</param>
/// <param name="Campaign">Name of its campaign.</param>
/// <param name="Values">By the name of a field in small letters; a field that is not there is not known.</param>
public sealed record PatternGround(
    long AdGroupId,
    string AdGroup,
    string Campaign,
    IReadOnlyDictionary<string, string> Values
)
{
    /// <summary>Fields that every ad group has.</summary>
    public static IReadOnlyList<string> Known { get; } = ["theme", "keyword", "campaign", "page"];
}

/// <summary>An ad that a pattern made.</summary>
/// <param name="Ground">For which ad group.</param>
/// <param name="Values">What it says.</param>
/// <param name="Shortened">Slots that say something else than what was written first.</param>
/// <param name="Problem">Why it cannot be made, a sentence; none when it can.</param>
public sealed record PatternedAd(PatternGround Ground, ItemValues Values, int Shortened, string? Problem);

/// <summary>Makes ads from a pattern: each slot says the first of its alternatives whose fields are known and that fits.</summary>
/// <param name="pattern">The pattern.</param>
/// <param name="report">The network and the currency that the ads are for.</param>
public sealed partial class PatternMaker(AdPattern pattern, CheckReport report)
{
    /// <summary>Most alternatives of a slot.</summary>
    public const int MostAlternatives = 12;

    private readonly ItemType _type = ItemTypes.Of(pattern.Kind);
    private readonly ReadingGround _reading = ReadingGround.Plain(report.Currency);

    /// <summary>The fields that a pattern asks for, in small letters.</summary>
    public static IReadOnlySet<string> FieldsOf(AdPattern pattern) =>
        pattern
            .Slots.Values.SelectMany(slots => slots)
            .SelectMany(slot => slot)
            .SelectMany(text => Named().Matches(text).Select(match => KeyOf(match.Groups["name"].Value)))
            .ToHashSet(StringComparer.Ordinal);

    /// <summary>The name of a field as it is looked up.</summary>
    public static string KeyOf(string name) => TextIdentity.Of(name).Replace('_', ' ');

    /// <summary>Makes the ad of an ad group.</summary>
    public PatternedAd Make(PatternGround ground)
    {
        var values = new ItemValues(_type);
        var shortened = 0;
        foreach (var (name, slots) in pattern.Slots)
        {
            var field = _type[name];
            var parts = new List<string>();
            foreach (var (number, slot) in slots.Where(slot => slot.Count > 0).Index())
            {
                var (text, place, why) = Chosen(field, slot, ground);
                if (text is not null)
                {
                    parts.Add(text);
                    shortened += place > 0 ? 1 : 0;
                }
                else if (number < FewestOf(field))
                {
                    return new PatternedAd(ground, values, shortened, $"{field.Label} {number + 1}: {why}");
                }
                else
                {
                    // A slot that the network can do without stays empty.
                    shortened++;
                }
            }

            var reading = field.Read(parts, _reading);
            if (reading.Problem is { } problem)
            {
                return new PatternedAd(ground, values, shortened, $"{field.Label} {problem}.");
            }

            values[field] = reading.Value;
        }

        if (pattern.Label is { Length: > 0 } label)
        {
            var reading = _type["labels"].Read(label, _reading);
            if (reading.Problem is { } problem)
            {
                return new PatternedAd(ground, values, shortened, $"The label {problem}.");
            }

            values["labels"] = reading.Value;
        }

        values.WithDefaults();
        return new PatternedAd(
            ground,
            values,
            shortened,
            _type
                .Check(values, report)
                .Where(finding => finding.Weight == Weight.Blocker)
                .Select(finding => finding.Detail)
                .FirstOrDefault()
        );
    }

    private int FewestOf(Field field) =>
        field.Type is LinesValue ? report.Network.LimitsOf(_type, field).Fewest ?? 0
        : field.IsNeeded ? 1
        : 0;

    private (string? Text, int Place, string Why) Chosen(Field field, IReadOnlyList<string> slot, PatternGround ground)
    {
        var limits = report.Network.LimitsOf(_type, field);
        var longest = limits.Length ?? int.MaxValue;
        var why = "nothing is written.";
        foreach (var (place, alternative) in slot.Index())
        {
            var (text, missing) = Filled(alternative, ground);
            if (text is null)
            {
                why = $"there is no [{missing}] for “{ground.AdGroup}”.";
                continue;
            }

            var length = field.Type is LinesValue lines ? lines.LengthOf(text, limits) : limits.LengthOf(text);
            if (length <= longest)
            {
                return (text, place, "");
            }

            why = $"“{text}” has {length} characters; at most {longest} are taken. Write a shorter alternative.";
        }

        return (null, -1, why);
    }

    /// <summary>A text with its fields filled in. A field that begins with a large letter gives every word one.</summary>
    private static (string? Text, string? Missing) Filled(string text, PatternGround ground)
    {
        string? missing = null;
        var filled = Named()
            .Replace(
                text,
                match =>
                {
                    var name = match.Groups["name"].Value;
                    if (ground.Values.GetValueOrDefault(KeyOf(name)) is not { Length: > 0 } value)
                    {
                        missing ??= name;
                        return "";
                    }

                    return char.IsUpper(name[0]) ? Letters.EachWord(value) : value;
                }
            );
        return missing is null ? (filled, null) : (null, missing);
    }

    [GeneratedRegex(@"\[(?<name>\p{L}[\p{L}\p{Nd} _-]{0,40})\]", RegexOptions.CultureInvariant)]
    private static partial Regex Named();
}
