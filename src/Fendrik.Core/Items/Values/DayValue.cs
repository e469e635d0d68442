using System.Globalization;
using System.Text.Json;
using Fendrik.Core.Accounts;

namespace Fendrik.Core.Items.Values;

/// <summary>A day in the account's time zone.</summary>
public sealed class DayValue : ValueType
{
    private const string Written = "yyyy-MM-dd";

    private static readonly string[] Formats =
    [
        Written,
        "yyyy-MM-dd HH:mm:ss",
        "d/M/yyyy",
        "d.M.yyyy",
        "d MMM yyyy",
        "d MMMM yyyy",
    ];

    /// <inheritdoc/>
    public override Storage Storage => Storage.Day;

    /// <inheritdoc/>
    public override ValueForm Form => ValueForm.Day;

    /// <summary>Reads a date: ISO 8601, or day before month as in British use.</summary>
    public static bool TryRead(string text, out DateOnly day) =>
        DateOnly.TryParseExact(text.Trim(), Formats, CultureInfo.InvariantCulture, DateTimeStyles.None, out day);

    /// <inheritdoc/>
    public override Reading Read(string text, ReadingGround ground) =>
        TryRead(text, out var day)
            ? new Reading(day)
            : Reading.Wrong($"“{Reading.Shortened(text)}” is not a date; write it like 2026-05-31");

    /// <inheritdoc/>
    public override string Write(object value, ReadingGround ground) =>
        ((DateOnly)value).ToString(Written, CultureInfo.InvariantCulture);

    /// <inheritdoc/>
    public override object? ReadStored(JsonElement element) =>
        Json.Text(element) is not { } text ? null
        : DateOnly.TryParseExact(text, Written, CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) ? day
        : throw new JsonException("A day is written like 2026-05-31.");

    /// <inheritdoc/>
    public override void WriteFile(Utf8JsonWriter json, object value) =>
        json.WriteStringValue(((DateOnly)value).ToString(Written, CultureInfo.InvariantCulture));

    /// <inheritdoc/>
    public override object ForScreen(object value) => ((DateOnly)value).ToString(Written, CultureInfo.InvariantCulture);
}
