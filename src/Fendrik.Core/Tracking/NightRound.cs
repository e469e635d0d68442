using Fendrik.Core.Accounts;

namespace Fendrik.Core.Tracking;

/// <summary>
/// When what is done every night is due for an account: in its own night, when its landing pages have few visitors. Accounts begin
/// at different minutes, so that not all of them ask at once.
/// </summary>
public static class NightRound
{
    private const int FirstHour = 1;
    private const int LastHour = 5;

    /// <summary>The minutes over which the beginnings of accounts are spread.</summary>
    public const int Spread = 180;

    /// <summary>True when it is due.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="days">Its days.</param>
    /// <param name="last">When it was begun last, by anybody; none for never.</param>
    /// <param name="now">The moment.</param>
    public static bool IsDue(int accountId, AccountDay days, DateTimeOffset? last, DateTimeOffset now)
    {
        var (day, hour) = days.At(now);
        var minute = (hour * 60) + days.MinuteAt(now);
        // Neighbours are far apart: 37 and the spread have no common divisor.
        var begin = (FirstHour * 60) + (int)((uint)accountId * 37 % Spread);
        return minute >= begin && hour < LastHour && (last is not { } moment || days.At(moment).Day < day);
    }
}
