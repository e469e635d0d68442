using System.Text.Json;
using Fendrik.Core.Accounts;

namespace Fendrik.Core.Items.Values;

/// <summary>Hours of the week, kept as <see cref="WeekHours"/> writes them.</summary>
public sealed class WeekHoursValue : ValueType
{
    /// <inheritdoc/>
    public override Storage Storage => Storage.Text;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Text;

    /// <inheritdoc/>
    public override Reading Read(string text, ReadingGround ground) =>
        WeekHours.Read(text, out var problem) is { } hours ? new Reading(hours.ToString()) : Reading.Wrong(problem!);

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) => (string)value;

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) =>
        Json.Text(element) is not { } text ? null
        : WeekHours.Read(text, out var problem) is not null ? text
        : throw new JsonException(problem);

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) => json.WriteStringValue((string)value);
}
