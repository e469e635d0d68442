using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Changes;

/// <summary>One field that differs between two versions of an item, in words for a person.</summary>
/// <param name="Field">Label of the field.</param>
/// <param name="Before">Value before, or none.</param>
/// <param name="After">Value after, or none.</param>
public sealed record FieldDifference(string Field, string? Before, string? After);

/// <summary>Compares items as they are kept and travel to the network: JSON objects with the names of their fields.</summary>
public static class FieldDifferences
{
    /// <summary>The fields that differ, in the order in which a kind has them.</summary>
    /// <param name="type">The kind of the item.</param>
    /// <param name="before">The item before; none when it was not there.</param>
    /// <param name="after">The item after; none when it is gone.</param>
    /// <param name="currency">The account's currency, for amounts.</param>
    public static IReadOnlyList<FieldDifference> Between(
        ItemType type,
        JsonElement? before,
        JsonElement? after,
        Currency currency
    ) =>
        [
            .. type
                .Fields.Select(field => new FieldDifference(
                    field.Label,
                    InWords(field, before, currency),
                    InWords(field, after, currency)
                ))
                .Where(difference => difference.Before != difference.After),
        ];

    /// <summary>How an item is called in lists: its name, its words, or its headlines.</summary>
    public static string NameOf(ItemType type, JsonElement item) =>
        type.NameField is not { } field ? type.Noun
        : !item.TryGetProperty(field.Name, out var value) ? ""
        : field.Type.ReadStored(value) switch
        {
            string[] lines => string.Join(NameSeparator, lines),
            string text => text,
            _ => "",
        };

    /// <summary>Stands between the texts of an item that is known by several.</summary>
    public const string NameSeparator = " · ";

    private static string? InWords(Field field, JsonElement? item, Currency currency) =>
        item is { } whole
        && whole.TryGetProperty(field.Name, out var stored)
        && field.Type.ReadStored(stored) is { } value
        && !field.Type.IsNothing(value)
            ? field.Type.InWords(value, currency)
            : null;
}
