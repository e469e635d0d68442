using System.Text.Json;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace Fendrik.Data.Model;

/// <summary>A value kept in one jsonb column.</summary>
internal static class Json<T>
{
    public static readonly ValueConverter<T, string> Converter = new(
        value => JsonSerializer.Serialize(value, JsonSerializerOptions.Default),
        text => JsonSerializer.Deserialize<T>(text, JsonSerializerOptions.Default)!
    );

    public static readonly ValueComparer<T> Comparer = new(
        (left, right) =>
            JsonSerializer.Serialize(left, JsonSerializerOptions.Default)
            == JsonSerializer.Serialize(right, JsonSerializerOptions.Default),
        value => JsonSerializer.Serialize(value, JsonSerializerOptions.Default).GetHashCode(StringComparison.Ordinal),
        value => value
    );
}
