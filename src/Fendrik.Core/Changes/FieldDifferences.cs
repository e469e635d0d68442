using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.AdText;
using Fendrik.Core.Items.Kinds;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Changes;

/// <summary>One field that differs between two versions of an item, in words for a person.</summary>
/// <param name="Field">Label of the field.</param>
/// <param name="Before">Value before, or none.</param>
/// <param name="After">Value after, or none.</param>
/// <param name="Lengths">The texts after, each with its length, where the network limits it; else none.</param>
/// <param name="InPicture">True for what the picture of an ad shows anyway.</param>
public sealed record FieldDifference(
    string Field,
    string? Before,
    string? After,
    IReadOnlyList<LimitedText>? Lengths = null,
    bool InPicture = false
);

/// <summary>A text whose length a network limits.</summary>
/// <param name="Text">The text.</param>
/// <param name="Length">Its length in characters as people count them.</param>
/// <param name="Longest">The longest that is taken.</param>
public sealed record LimitedText(string Text, int Length, int Longest);

/// <summary>Compares items as they are kept and travel to the network: JSON objects with the names of their fields.</summary>
public static class FieldDifferences
{
    /// <summary>The fields that differ, in the order in which a kind has them.</summary>
    /// <param name="type">The kind of the item.</param>
    /// <param name="before">The item before; none when it was not there.</param>
    /// <param name="after">The item after; none when it is gone.</param>
    /// <param name="currency">The account's currency, for amounts.</param>
    /// <param name="network">The network whose limits texts are measured by; none to leave lengths out.</param>
    public static IReadOnlyList<FieldDifference> Between(
        ItemType type,
        JsonElement? before,
        JsonElement? after,
        Currency currency,
        NetworkProfile? network = null
    ) =>
        [
            .. type
                .Fields.Select(field => new FieldDifference(
                    field.Label,
                    InWords(field, before, currency),
                    InWords(field, after, currency),
                    network is null ? null : LengthsOf(field, after, network),
                    type is AdType && SeenAd.Shows(field)
                ))
                .Where(difference => difference.Before != difference.After),
        ];

    /// <summary>How an item is called in lists: its name, its words, or its headlines.</summary>
    public static string NameOf(ItemType type, JsonElement item) =>
        type.NameField is not { } field ? type.Noun
        : !item.TryGetProperty(field.Name, out var value) ? ""
        : string.Join(
            NameSeparator,
            TextsOf(field, value).Select(text => field.Type is LinesValue lines ? lines.SeenOf(text) : text)
        );

    /// <summary>Stands between the texts of an item that is known by several.</summary>
    public const string NameSeparator = " · ";

    /// <summary>The texts of a field; none of one that holds something else.</summary>
    private static string[] TextsOf(Field field, JsonElement stored) =>
        field.Type.Storage switch
        {
            Storage.Text => field.Type.ReadStored(stored) is string { Length: > 0 } text ? [text] : [],
            Storage.Texts => field.Type.ReadStored(stored) as string[] ?? [],
            Storage.Amount or Storage.Day or Storage.Number or Storage.References => [],
        };

    private static LimitedText[]? LengthsOf(Field field, JsonElement? item, NetworkProfile network) =>
        network.LimitsOf(field.Of, field) is { Length: not null } limits
        && item is { } whole
        && whole.TryGetProperty(field.Name, out var stored)
        && TextsOf(field, stored) is { Length: > 0 } texts
            ? [.. texts.Select(text => Measured(field, text, limits))]
            : null;

    private static LimitedText Measured(Field field, string text, FieldLimits limits) =>
        new(
            text,
            field.Type is LinesValue lines ? lines.LengthOf(text, limits) : limits.LengthOf(text),
            limits.Length!.Value
        );

    private static string? InWords(Field field, JsonElement? item, Currency currency) =>
        item is { } whole
        && whole.TryGetProperty(field.Name, out var stored)
        && field.Type.ReadStored(stored) is { } value
        && !field.Type.IsNothing(value)
            ? field.Type.InWords(value, currency)
            : null;
}
