using Fendrik.Core.Accounts;

namespace Fendrik.Network.Simulation;

/// <summary>
/// The clock on the wall through an hour of the world. In zones with half or quarter hours, and where the clock is moved by half an
/// hour, the hour and the day change within it.
/// </summary>
public sealed class HourClock
{
    private const int SecondsOfQuarter = 900;
    private const int Quarters = 4;

    /// <summary>The last second of an hour.</summary>
    public const int LastSecond = SecondsOfQuarter * Quarters - 1;

    private readonly (DateOnly Day, int Hour, int Minute)[] _quarters = new (DateOnly, int, int)[Quarters];

    /// <param name="days">The account's days.</param>
    /// <param name="hour">Hours since 1970.</param>
    public HourClock(AccountDay days, long hour)
    {
        Hour = hour;
        Start = hour * Quarters * SecondsOfQuarter;
        for (var quarter = 0; quarter < Quarters; quarter++)
        {
            var moment = DateTimeOffset.FromUnixTimeSeconds(Start + quarter * SecondsOfQuarter);
            var (day, wallHour) = days.At(moment);
            _quarters[quarter] = (day, wallHour, days.MinuteAt(moment));
        }
    }

    /// <summary>Hours since 1970.</summary>
    public long Hour { get; }

    /// <summary>Seconds since 1970 at its beginning.</summary>
    public long Start { get; }

    /// <summary>The day at a second of it.</summary>
    public DateOnly DayAt(int second) => _quarters[second / SecondsOfQuarter].Day;

    /// <summary>The hour of the clock on the wall.</summary>
    public int HourAt(int second) => _quarters[second / SecondsOfQuarter].Hour;

    /// <summary>The same with its minutes as a fraction.</summary>
    public double WallAt(int second)
    {
        var (_, hour, minute) = _quarters[second / SecondsOfQuarter];
        return hour + (minute + second % SecondsOfQuarter / 60.0) / 60;
    }
}
