using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Items.Values;

/// <summary>Languages by tags of BCP 47, kept as one text: <c>de-CH; en</c>.</summary>
public sealed class LanguagesValue : ValueType
{
    /// <summary>More are a sign that something else was pasted.</summary>
    public const int Most = 40;

    private const string Separator = "; ";

    /// <inheritdoc/>
    public override Storage Storage => Storage.Text;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Text;

    /// <summary>The languages in a text that was kept.</summary>
    public static IReadOnlyList<string> TagsOf(string? kept) => kept is null ? [] : kept.Split(Separator);

    /// <summary>Reads tags and English names of languages, in any order, with commas, semicolons or + between them.</summary>
    public override Reading Read(string text, ReadingGround ground)
    {
        var tags = new SortedSet<string>(StringComparer.Ordinal);
        foreach (
            var part in text.Split(
                [';', ',', '+'],
                StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries
            )
        )
        {
            if (LanguageTag.Read(part) is not { } tag)
            {
                return Reading.Wrong(
                    $"“{Reading.Shortened(part)}” is no language; write tags such as en or de-CH, or names such as German"
                );
            }

            tags.Add(tag.Tag);
        }

        return tags.Count == 0 ? Reading.Wrong("is empty; leave it out for every language")
            : tags.Count > Most ? Reading.Wrong($"are {tags.Count}; {Most} at most, or leave it out for every language")
            : new Reading(string.Join(Separator, tags));
    }

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) => (string)value;

    /// <inheritdoc/>
    public override string InWords(object value, Currency currency) =>
        string.Join(", ", TagsOf((string)value).Select(tag => LanguageTag.Read(tag)?.Name ?? tag));

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) => Json.Text(element);

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) => json.WriteStringValue((string)value);

    internal override IEnumerable<Finding> Check(Field field, object value, FieldLimits limits, CheckReport report) =>
        [];
}
