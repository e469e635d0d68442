using Fendrik.Core.Accounts;

namespace Fendrik.Core.Tests.Accounts;

// Days of 23 and 25 hours from the IANA time zone database, through NodaTime: in the United Kingdom the clocks go
// forward on the last Sunday of March at 01:00 and back on the last Sunday of October at 02:00.
public class AccountDayTests
{
    private readonly AccountDay _london = new("Europe/London");

    [Fact]
    public void Has_23_hours_when_the_clocks_go_forward()
    {
        var hours = _london.HoursOf(new DateOnly(2026, 3, 29));

        hours.Count.ShouldBe(23);
        hours.ShouldNotContain(1);
    }

    [Fact]
    public void Has_25_hours_when_the_clocks_go_back_and_one_of_them_twice()
    {
        var hours = _london.HoursOf(new DateOnly(2026, 10, 25));

        hours.Count.ShouldBe(25);
        hours.Count(hour => hour == 1).ShouldBe(2);
    }

    [Fact]
    public void Has_24_hours_on_any_other_day() =>
        _london.HoursOf(new DateOnly(2026, 5, 12)).ShouldBe(Enumerable.Range(0, 24));

    [Fact]
    public void Two_days_of_a_year_have_not_24_hours() =>
        // IANA, Europe/London 2026.
        _london
            .OddDays(new DateOnly(2026, 1, 1), 365)
            .ShouldBe([(new DateOnly(2026, 3, 29), 23), (new DateOnly(2026, 10, 25), 25)]);

    [Fact]
    public void Is_the_day_on_the_wall_and_not_in_UTC() =>
        _london.At(new DateTimeOffset(2026, 6, 30, 23, 30, 0, TimeSpan.Zero)).ShouldBe((new DateOnly(2026, 7, 1), 0));

    [Fact]
    public void Begins_at_midnight_on_the_wall() =>
        _london.StartOf(new DateOnly(2026, 7, 1)).ShouldBe(new DateTimeOffset(2026, 6, 30, 23, 0, 0, TimeSpan.Zero));

    [Fact]
    public void Refuses_a_zone_that_IANA_does_not_know() =>
        Should.Throw<ArgumentException>(() => new AccountDay("Europe/Leeds")).Message.ShouldContain("Europe/Leeds");
}
