using Fendrik.Core.Accounts;
using Fendrik.Core.Tracking;

namespace Fendrik.Core.Tests.Tracking;

public class NightRoundTests
{
    private static readonly AccountDay Leeds = new("Europe/London");

    private static DateTimeOffset At(string moment) =>
        DateTimeOffset.Parse(moment, System.Globalization.CultureInfo.InvariantCulture);

    [Fact]
    public void It_is_due_in_the_night_of_the_account()
    {
        NightRound.IsDue(1, Leeds, null, At("2026-07-01T00:59Z")).ShouldBeTrue();
        NightRound.IsDue(1, Leeds, null, At("2026-07-01T12:00Z")).ShouldBeFalse();
        // 01:59 in Leeds is 20:59 of the evening before in New York.
        NightRound.IsDue(1, new AccountDay("America/New_York"), null, At("2026-07-01T00:59Z")).ShouldBeFalse();
    }

    [Fact]
    public void It_is_due_once_a_night()
    {
        NightRound.IsDue(1, Leeds, At("2026-07-01T01:10Z"), At("2026-07-01T03:00Z")).ShouldBeFalse();
        NightRound.IsDue(1, Leeds, At("2026-06-30T01:10Z"), At("2026-07-01T03:00Z")).ShouldBeTrue();
    }

    [Fact]
    public void A_server_that_was_down_all_night_does_not_catch_up_by_day() =>
        NightRound.IsDue(1, Leeds, At("2026-06-20T01:10Z"), At("2026-07-01T04:00Z")).ShouldBeFalse();

    [Fact]
    public void As_many_accounts_as_there_are_minutes_begin_one_after_another()
    {
        var begins = Enumerable
            .Range(1, NightRound.Spread)
            .Select(account =>
                Enumerable
                    .Range(0, 300)
                    .First(minute => NightRound.IsDue(account, Leeds, null, At("2026-01-10T00:00Z").AddMinutes(minute)))
            );
        begins.Distinct().Count().ShouldBe(NightRound.Spread);
    }
}
