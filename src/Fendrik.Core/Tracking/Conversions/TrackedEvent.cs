namespace Fendrik.Core.Tracking.Conversions;

/// <summary>Something that somebody did after a click, and that can be counted.</summary>
/// <param name="Source">What it was.</param>
/// <param name="Address">Where it was done: domain and path; none for a call.</param>
/// <param name="Seconds">How long people talked; 0 for what is no call.</param>
/// <param name="Value">The sum that the site sends with it, in the account's currency; 0 for none.</param>
/// <param name="At">When it was done.</param>
public sealed record TrackedEvent(
    ConversionSource Source,
    string? Address,
    int Seconds,
    decimal Value,
    DateTimeOffset At
);
