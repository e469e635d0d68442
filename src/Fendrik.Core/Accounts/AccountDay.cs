using NodaTime;

namespace Fendrik.Core.Accounts;

/// <summary>Days and hours in the time zone of an account. A day there has 23, 24 or 25 hours.</summary>
public sealed class AccountDay
{
    private readonly DateTimeZone _zone;

    /// <summary>Days in this IANA time zone, for example <c>Europe/London</c>.</summary>
    /// <exception cref="ArgumentException">The zone is not in the IANA database.</exception>
    public AccountDay(string timeZone) =>
        _zone =
            DateTimeZoneProviders.Tzdb.GetZoneOrNull(timeZone)
            ?? throw new ArgumentException($"“{timeZone}” is not an IANA time zone.", nameof(timeZone));

    /// <summary>The day and the hour of the clock on the wall (0 to 23) at a moment.</summary>
    public (DateOnly Day, int Hour) At(DateTimeOffset moment)
    {
        var local = Instant.FromDateTimeOffset(moment).InZone(_zone);
        return (new DateOnly(local.Year, local.Month, local.Day), local.Hour);
    }

    /// <summary>The minute of the clock on the wall at a moment: 0 to 59; zones with half hours are not at 0 when others are.</summary>
    public int MinuteAt(DateTimeOffset moment) => Instant.FromDateTimeOffset(moment).InZone(_zone).Minute;

    /// <summary>The moment at which a day begins: midnight, or the first moment after it where the clock skips midnight.</summary>
    public DateTimeOffset StartOf(DateOnly day) =>
        _zone.AtStartOfDay(new LocalDate(day.Year, day.Month, day.Day)).ToInstant().ToDateTimeOffset();

    /// <summary>
    /// The moment at which the clock on the wall shows a time: the first of two where it shows it twice, and as much later as it skips where it
    /// never shows it.
    /// </summary>
    public DateTimeOffset MomentOf(DateTime wall) =>
        LocalDateTime.FromDateTime(wall).InZoneLeniently(_zone).ToDateTimeOffset();

    /// <summary>Days that have not 24 hours, from a day on, with how many they have.</summary>
    /// <param name="first">The first day.</param>
    /// <param name="days">How many days are looked at.</param>
    public IEnumerable<(DateOnly Day, int Hours)> OddDays(DateOnly first, int days) =>
        from day in Enumerable.Range(0, days).Select(first.AddDays)
        let hours = (int)Math.Round((StartOf(day.AddDays(1)) - StartOf(day)).TotalHours)
        where hours != 24
        select (day, hours);

    /// <summary>
    /// The hours of a day in order, as the clock on the wall shows them. On the day the clock goes forward one is
    /// missing, on the day it goes back one comes twice.
    /// </summary>
    public IReadOnlyList<int> HoursOf(DateOnly day)
    {
        var start = Instant.FromDateTimeOffset(StartOf(day));
        var end = Instant.FromDateTimeOffset(StartOf(day.AddDays(1)));
        var hours = new List<int>(25);
        for (var moment = start; moment < end; moment += Duration.FromHours(1))
        {
            hours.Add(moment.InZone(_zone).Hour);
        }

        return hours;
    }
}
