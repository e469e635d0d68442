using System.Text.Json;
using Fendrik.Core.AdText.Combining;

namespace Fendrik.Core.Items.Values;

/// <summary>Lines that never show together, in one text.</summary>
public sealed class KeptApartValue : ValueType
{
    /// <inheritdoc/>
    public override Storage Storage => Storage.Text;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Text;

    /// <inheritdoc/>
    public override Reading Read(string text, ReadingGround ground)
    {
        if (ProblemOf(text.ReplaceLineEndings(" "), KeptApart.Longest) is { } problem)
        {
            return Reading.Wrong(problem);
        }

        var sets = KeptApart.Read(text);
        return sets.Count == 0 ? Reading.Wrong("names no two lines; write them with | between, and || before the next")
            : sets.Count > KeptApart.Most ? Reading.Wrong($"are {sets.Count}; {KeptApart.Most} at most")
            : new Reading(KeptApart.Write(sets));
    }

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) => (string)value;

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) => Json.Text(element);

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) => json.WriteStringValue((string)value);
}
