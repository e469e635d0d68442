using System.Collections;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;

namespace Fendrik.Server.Access;

/// <summary>No list of a request holds nothing in the place of something: one that does cannot be read.</summary>
internal static class WholeLists
{
    /// <summary>Looks at the lists of every object that is read.</summary>
    public static void Need(JsonTypeInfo type)
    {
        if (type.Kind != JsonTypeInfoKind.Object)
        {
            return;
        }

        var lists = type
            .Properties.Where(property =>
                property.Get is not null
                && property.PropertyType != typeof(string)
                && property.PropertyType.IsAssignableTo(typeof(IEnumerable))
            )
            .ToArray();
        if (lists.Length == 0)
        {
            return;
        }

        type.OnDeserialized += read =>
        {
            foreach (var list in lists)
            {
                if (list.Get!(read) is IEnumerable items and not IDictionary && items.Cast<object?>().Contains(null))
                {
                    throw new JsonException($"“{list.Name}” holds nothing in the place of something.");
                }
            }
        };
    }
}
