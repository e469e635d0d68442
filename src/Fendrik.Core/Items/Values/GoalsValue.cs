using System.Text.Json;
using Fendrik.Core.Accounts;

namespace Fendrik.Core.Items.Values;

/// <summary>Names of conversion actions, kept as one text in the order of the alphabet: <c>Ask for a price; Call from an ad</c>.</summary>
public sealed class GoalsValue : ValueType
{
    /// <summary>Stands between names.</summary>
    public const char Separator = ';';

    /// <summary>More are a sign that something else was pasted.</summary>
    public const int Most = 40;

    /// <inheritdoc/>
    public override Storage Storage => Storage.Text;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Text;

    /// <summary>The names in a text that was kept; nothing for none.</summary>
    public static IReadOnlyList<string> NamesIn(string? kept) =>
        kept is null
            ? []
            : kept.Split(Separator, StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);

    /// <summary>Names as they are kept.</summary>
    public static string Kept(IEnumerable<string> names) =>
        string.Join($"{Separator} ", names.DistinctBy(TextIdentity.Of).Order(StringComparer.OrdinalIgnoreCase));

    /// <inheritdoc/>
    public override Reading Read(string text, ReadingGround ground)
    {
        var names = NamesIn(Single(text));
        return names.Count == 0 ? Reading.Wrong("names no action; leave it empty for the goals of the account")
            : names.Count > Most ? Reading.Wrong($"names {names.Count} actions; {Most} at most")
            : names.Select(name => ProblemOf(name, TextValue.LongestName)).FirstOrDefault(each => each is not null)
                is { } problem
                ? Reading.Wrong(problem)
            : new Reading(Kept(names));
    }

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) => (string)value;

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) => Json.Text(element);

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) => json.WriteStringValue((string)value);
}
