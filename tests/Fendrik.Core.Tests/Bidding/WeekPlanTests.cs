using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Tests.Bidding;

public class WeekPlanTests
{
    private static readonly Gen<PlanChange> Change = Gen.Select(
        Gen.Int[0, 6],
        Gen.Int[0, WeekPlan.QuartersOfDay - 1],
        Gen.Int[1, WeekPlan.QuartersOfDay],
        Gen.OneOfConst<bool?>(true, false, null),
        Gen.OneOfConst<decimal?>(null, 0, -100, 22.5m, 300),
        (day, from, length, shows, percent) =>
            new PlanChange(
                (DayOfWeek)day,
                from * 15,
                Math.Min(from + length, WeekPlan.QuartersOfDay) * 15,
                shows,
                percent
            )
    );

    private static string? Problem(string text)
    {
        WeekPlan.Read(text, out var problem);
        return problem;
    }

    [Theory]
    [InlineData("Mon-Fri 8-17:30", "Mon-Fri 08:00-17:30")]
    [InlineData(
        "Mon-Fri 08:00-12:00 +20 %, 12:00-17:30; sat 9-12 −20,5%",
        "Mon-Fri 08:00-12:00 +20%, 12:00-17:30; Sat 09:00-12:00 -20.5%"
    )]
    [InlineData("daily 22:00-02:00 -100%", "daily 00:00-02:00 -100%, 22:00-24:00 -100%")]
    [InlineData("Mon 8-10; Mon 10-12", "Mon 08:00-12:00")]
    [InlineData("Mon 8-10 +10%; Mon 9-12 +10%", "Mon 08:00-12:00 +10%")]
    public void Reads_a_plan_as_people_write_it(string text, string kept) =>
        WeekPlan.Of(text).ToString().ShouldBe(kept);

    [Theory]
    [InlineData("Mon 8-12 +20%; Mon 11-13", "two modifiers for Mon 11:00")]
    [InlineData("Mon 08:10-12:00", "go by quarters")]
    [InlineData("Mon 8-8", "not a time of the day")]
    [InlineData("Mon 8-12 -101%", "between −100% and")]
    [InlineData("Blursday 8-12", "not a time of the week")]
    [InlineData("", "says no hours")]
    public void Says_what_is_wrong_with_a_plan(string text, string problem) =>
        Problem(text).ShouldNotBeNull().ShouldContain(problem);

    [Theory]
    [InlineData(" ")]
    [InlineData("Mon 8-9, ")]
    [InlineData("-")]
    [InlineData("8-9+1%")]
    public void A_hostile_text_is_refused_at_once(string piece)
    {
        var text = "a" + string.Concat(Enumerable.Repeat(piece, 3_990 / piece.Length));
        WeekPlan.Read(text, out var problem).ShouldBeNull();
        problem!.Length.ShouldBeLessThan(300);
    }

    [Fact]
    public void Forty_hours_are_23_8_percent_of_a_week() =>
        // Common practice, no source.
        decimal.Round(WeekPlan.Of("Mon-Fri 9-17").ShareOfWeek * 100, 1).ShouldBe(23.8m);

    [Fact]
    public void Changes_come_on_top_of_what_is_planned_and_leave_the_rest()
    {
        var plan = WeekPlan
            .Of("Mon-Fri 8-18")
            .With(
                [
                    new PlanChange(DayOfWeek.Monday, 12 * 60, 13 * 60, false, null),
                    new PlanChange(DayOfWeek.Tuesday, 8 * 60, 10 * 60, null, 22),
                    new PlanChange(DayOfWeek.Saturday, 9 * 60, 10 * 60, null, 22),
                    new PlanChange(DayOfWeek.Sunday, 9 * 60, 10 * 60, true, null),
                ],
                out _
            );

        plan!
            .ToString()
            .ShouldBe(
                "Mon 08:00-12:00, 13:00-18:00; Tue 08:00-10:00 +22%, 10:00-18:00; Wed-Fri 08:00-18:00; Sun 09:00-10:00"
            );
    }

    [Fact]
    public void A_day_becomes_like_another_and_the_rest_stays()
    {
        var plan = WeekPlan.Of("Mon 8-12 +20%; Wed 9-10");

        plan.With(DayOfWeek.Tuesday, DayOfWeek.Monday, out _)!
            .ToString()
            .ShouldBe("Mon-Tue 08:00-12:00 +20%; Wed 09:00-10:00");
        plan.With(DayOfWeek.Monday, DayOfWeek.Sunday, out _)!.ToString().ShouldBe("Wed 09:00-10:00");
        WeekPlan.Of("Mon 8-9").With(DayOfWeek.Monday, DayOfWeek.Sunday, out var problem).ShouldBeNull();
        problem.ShouldNotBeNull();
    }

    [Fact]
    public void Nothing_left_of_the_week_is_refused()
    {
        WeekPlan
            .Of("Mon 8-9")
            .With([new PlanChange(DayOfWeek.Monday, 0, 1_440, false, null)], out var problem)
            .ShouldBeNull();
        problem.ShouldNotBeNull().ShouldContain("Pause the campaign");
    }

    [Fact]
    public void Whatever_is_changed_reads_back_as_it_was_written() =>
        Change
            .Array[1, 12]
            .Sample(changes =>
            {
                if (WeekPlan.Always.With(changes, out _) is { } plan)
                {
                    WeekPlan.Of(plan.ToString()).ShouldBe(plan);
                }
            });

    [Fact]
    public void A_change_decides_its_own_minutes_and_no_others() =>
        Gen.Select(Change.Array[0, 6], Change)
            .Sample(
                (before, last) =>
                {
                    if (
                        WeekPlan.Always.With(before, out _) is not { } plan
                        || plan.With([last], out _) is not { } changed
                    )
                    {
                        return;
                    }

                    for (var minute = 0; minute < 7 * 1_440; minute += 5)
                    {
                        var (day, at) = ((DayOfWeek)(minute / 1_440), minute % 1_440);
                        var was = plan.At(day, at);
                        var within = day == last.Day && last.From <= at && at < last.To;
                        changed
                            .At(day, at)
                            .ShouldBe(
                                !within ? was
                                : last.Shows ?? was is not null ? last.Percent ?? was ?? 0
                                : null
                            );
                    }
                }
            );

    [Fact]
    public void An_hour_that_the_clock_skips_never_comes_and_one_that_comes_twice_counts_twice()
    {
        // IANA: Europe/London goes forward at 1:00 on 29 March 2026 and back at 2:00 on 25 October 2026.
        var nights = WeekPlan.Of("daily 0-3");
        var london = new AccountDay("Europe/London");

        nights.TimeOn(new DateOnly(2026, 3, 29), london).ShouldBe(TimeSpan.FromHours(2));
        nights.TimeOn(new DateOnly(2026, 5, 12), london).ShouldBe(TimeSpan.FromHours(3));
        nights.TimeOn(new DateOnly(2026, 10, 25), london).ShouldBe(TimeSpan.FromHours(4));
    }

    [Fact]
    public void A_plan_for_the_whole_week_as_it_is_says_nothing() =>
        new WeekPlanValue()
            .Read("daily 0-24", new ReadingGround(Currency.Of("GBP"), AccountLanguage.Of("en-GB")))
            .Value.ShouldBe("");

    [Theory]
    [InlineData("Mon 8-9 +900%", "hours-high")]
    [InlineData("Mon 8-9 -100%", "hours-never")]
    [InlineData("Mon 8-9 +300%", null)]
    public void A_plan_that_the_network_does_not_take_or_that_never_shows_is_found(string plan, string? code)
    {
        var type = ItemTypes.Of(ItemKind.Campaign);
        var values = new ItemValues(type)
        {
            ["name"] = "Tuning",
            ["state"] = (short)1,
            ["dailyBudget"] = 20m,
            ["networks"] = (short)1,
            ["hours"] = WeekPlan.Of(plan).ToString(),
        };
        var found = type.Check(
            values,
            new CheckReport(ItemKind.Campaign, 1, NetworkProfile.Of("ostrel"), Currency.Of("GBP"))
        );
        found.SingleOrDefault()?.Code.ShouldBe(code);
        found.Count.ShouldBe(code is null ? 0 : 1);
    }
}
