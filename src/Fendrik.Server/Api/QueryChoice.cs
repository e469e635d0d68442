using Fendrik.Data.Steps;

namespace Fendrik.Server.Api;

/// <summary>Reads one of several values from an address, by the names that the API writes everywhere.</summary>
internal static class QueryChoice
{
    /// <summary>The value; none where nothing is asked.</summary>
    /// <param name="text">What the address has.</param>
    /// <param name="field">Name of the parameter.</param>
    /// <exception cref="InvalidChangeException">There is no such value.</exception>
    public static T? Of<T>(string? text, string field)
        where T : struct, Enum
    {
        if (text is null)
        {
            return null;
        }

        var names = Enum.GetValues<T>().ToDictionary(NameOf, value => value, StringComparer.Ordinal);
        return names.TryGetValue(text, out var value)
            ? value
            : throw new InvalidChangeException(field, $"“{text}” is none of {string.Join(", ", names.Keys)}.");
    }

    private static string NameOf<T>(T value)
        where T : struct, Enum => System.Text.Json.JsonNamingPolicy.CamelCase.ConvertName(value.ToString());
}
