using System.Text.Json;
using Fendrik.Core.Accounts;

namespace Fendrik.Core.Changes;

/// <summary>One field of an item before and after, in words.</summary>
/// <param name="Field">Name of the field for people.</param>
/// <param name="Before">Value before; none when there was none.</param>
/// <param name="After">Value after; none when there is none.</param>
public sealed record FieldDifference(string Field, string? Before, string? After);

/// <summary>Says what differs between two versions of an item's published fields.</summary>
public static class FieldDifferences
{
    private static readonly (string Name, string Label)[] Fields =
    [
        ("name", "Name"),
        ("text", "Keyword"),
        ("match", "Match type"),
        ("state", "State"),
        ("dailyBudget", "Daily budget"),
        ("maxCpc", "Max CPC"),
        ("startDate", "Start date"),
        ("endDate", "End date"),
        ("networks", "Shows on"),
        ("headlines", "Headlines"),
        ("descriptions", "Descriptions"),
        ("displayPath", "Display path"),
        ("finalUrl", "Final URL"),
        ("devicePreference", "Device preference"),
        ("campaignIds", "Shared by"),
        ("labels", "Labels"),
    ];

    /// <summary>The fields that differ, in a fixed order; all that are filled when one of the versions is missing.</summary>
    /// <param name="before">Published fields before, or none.</param>
    /// <param name="after">Published fields after, or none.</param>
    /// <param name="currency">The account's currency, to write amounts.</param>
    public static IReadOnlyList<FieldDifference> Between(JsonElement? before, JsonElement? after, Currency currency) =>
        [
            .. Fields
                .Select(field => new FieldDifference(
                    field.Label,
                    InWords(field.Name, before, currency),
                    InWords(field.Name, after, currency)
                ))
                .Where(difference => difference.Before != difference.After),
        ];

    /// <summary>Name of an item: its name, its words in match notation, or its headlines.</summary>
    public static string NameOf(ItemKind kind, JsonElement item) =>
        kind switch
        {
            ItemKind.Campaign or ItemKind.AdGroup or ItemKind.NegativeList => item.GetProperty("name").GetString()!,
            ItemKind.TextAd => string.Join(
                " – ",
                item.GetProperty("headlines").EnumerateArray().Select(line => line.GetString())
            ),
            _ => item.GetProperty("text").GetString()!,
        };

    private static string? InWords(string field, JsonElement? item, Currency currency)
    {
        if (
            item is not { } whole
            || !whole.TryGetProperty(field, out var value)
            || value.ValueKind == JsonValueKind.Null
        )
        {
            return null;
        }

        return field switch
        {
            "match" => InWords((MatchType)value.GetInt32()),
            "state" => value.GetInt32() == (int)ItemState.Running ? "running" : "paused",
            "dailyBudget" or "maxCpc" => new Money(value.GetDecimal(), currency).ToString(),
            "networks" => InWords((SiteKinds)value.GetInt32()),
            "devicePreference" => ((Device)value.GetInt32()).ToString().ToLowerInvariant(),
            "campaignIds" => value.GetArrayLength() switch
            {
                0 => null,
                1 => "1 campaign",
                var many => $"{many} campaigns",
            },
            "headlines" or "descriptions" or "displayPath" or "labels" => value.GetArrayLength() == 0
                ? null
                : string.Join(" | ", value.EnumerateArray().Select(line => line.GetString())),
            _ => value.GetString() is { Length: > 0 } text ? text : null,
        };
    }

    private static string InWords(MatchType match) =>
        match == MatchType.AllWords ? "all words" : match.ToString().ToLowerInvariant();

    private static string InWords(SiteKinds networks)
    {
        var names = new List<string>(3);
        if (networks.HasFlag(SiteKinds.Search))
        {
            names.Add("search");
        }

        if (networks.HasFlag(SiteKinds.Partners))
        {
            names.Add("partner sites");
        }

        if (networks.HasFlag(SiteKinds.Content))
        {
            names.Add("content sites");
        }

        return names.Count == 0 ? "nowhere" : string.Join(", ", names);
    }
}
