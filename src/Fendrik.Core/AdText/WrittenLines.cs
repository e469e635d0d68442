using System.Text.Json;
using Fendrik.Core.Changes;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.AdText;

/// <summary>All lines of a field of an ad against those of another ad.</summary>
/// <param name="Label">The field.</param>
/// <param name="Lines">Its lines, with what the other ad does not say.</param>
public sealed record WrittenLines(string Label, IReadOnlyList<IReadOnlyList<TextPart>> Lines)
{
    /// <summary>The lines of an ad that shows only some of them at a time; none of one that shows them all, since its picture tells.</summary>
    /// <param name="type">The kind of both ads.</param>
    /// <param name="item">The ad as it is kept.</param>
    /// <param name="against">The other ad.</param>
    /// <exception cref="JsonException">A value has another form than its field.</exception>
    public static IReadOnlyList<WrittenLines> Of(ItemType type, JsonElement item, JsonElement against)
    {
        var (own, others) = (ItemValues.ReadStored(type, item), ItemValues.ReadStored(type, against));
        return
        [
            .. type
                .Fields.Where(field => field.Type is LinesValue { Places: not null })
                .Select(field => new WrittenLines(
                    field.Label,
                    TextChange.Parts(Seen(others, field), Seen(own, field))
                )),
        ];
    }

    private static IReadOnlyList<string> Seen(ItemValues values, Field field) =>
        [.. values.Lines(field.Name).Select(((LinesValue)field.Type).SeenOf)];
}
