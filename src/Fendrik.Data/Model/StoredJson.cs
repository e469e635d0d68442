using System.Text.Json;
using System.Text.Json.Serialization;

namespace Fendrik.Data.Model;

/// <summary>How requests are kept in the database: as they travel, with names for the values of enumerations.</summary>
internal static class StoredJson
{
    public static JsonSerializerOptions Options { get; } =
        new(JsonSerializerDefaults.Web) { Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) } };
}
