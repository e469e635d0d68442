using Fendrik.Core.Accounts;
using Fendrik.Core.Calls;
using Shouldly;
using Xunit;

namespace Fendrik.Core.Tests.Calls;

public sealed class CallTests
{
    private static readonly WeekHours Hours = WeekHours.Of("Mon-Fri 08:30-17:30; Sat 09:00-12:00");

    /// <summary>A Monday.</summary>
    private static readonly DateTime Monday = new(2026, 5, 11);

    [Theory]
    [InlineData(70, CallVerdict.Counts, 0)]
    [InlineData(69, CallVerdict.TooShort, 1)]
    public void A_call_that_is_a_second_short_says_so(int talked, CallVerdict verdict, int tooShort)
    {
        var judged = new CallRules(70, 70, false).Judge([Call(9, talked)]).ShouldHaveSingleItem();

        (judged.Verdict, judged.Short).ShouldBe((verdict, tooShort));
    }

    [Fact]
    public void A_person_who_calls_again_counts_twice_or_once_by_choice()
    {
        LoggedCall[] calls = [Call(11, 300, "a"), Call(9, 200, "a"), Call(10, 100, "b")];

        new CallRules(70, 70, false)
            .Judge(calls)
            .Select(each => (each.Call.At.Hour, each.Verdict, each.Nth))
            .ShouldBe([(9, CallVerdict.Counts, 1), (10, CallVerdict.Counts, 1), (11, CallVerdict.Counts, 2)]);
        new CallRules(70, 70, true)
            .Judge(calls)
            .Select(each => each.Verdict)
            .ShouldBe([CallVerdict.Counts, CallVerdict.Counts, CallVerdict.SameCaller]);
    }

    [Fact]
    public void A_first_call_that_was_too_short_leaves_the_second_to_count() =>
        new CallRules(70, 70, true)
            .Judge([Call(9, 12, "a"), Call(10, 100, "a")])
            .Select(each => each.Verdict)
            .ShouldBe([CallVerdict.TooShort, CallVerdict.Counts]);

    [Fact]
    public void Calls_that_no_action_counts_do_not_count() =>
        new CallRules(70, null, false)
            .Judge([Call(9, 300) with { FromAd = false }])
            .ShouldHaveSingleItem()
            .Verdict.ShouldBe(CallVerdict.TooShort);

    [Fact]
    public void A_click_that_led_to_two_calls_is_paid_once()
    {
        var sums = CallSums.Of(
            new CallRules(70, 70, false).Judge([
                Call(9, 100) with
                {
                    ClickId = "x",
                },
                Call(10, 0) with
                {
                    ClickId = "x",
                },
                Call(11, 30),
            ])
        );

        sums.ShouldBe(new CallSums(3, 2, 1, 1, 0, 2.40m));
        (sums.CostPerAnswered, sums.CostPerCounted).ShouldBe((1.20m, 2.40m));
    }

    [Fact]
    public void Missed_calls_after_hours_are_told_with_what_was_paid_for_them()
    {
        // 17 after 17:30 and 7 within the hours, of which 16 more are answered and 8 of these count.
        LoggedCall[] calls =
        [
            .. Enumerable.Range(0, 17).Select(at => Call(18, 0, $"after {at}")),
            .. Enumerable.Range(0, 7).Select(at => Call(10, 0, $"within {at}")),
            .. Enumerable.Range(0, 8).Select(at => Call(11, 100, $"long {at}")),
            .. Enumerable.Range(0, 8).Select(at => Call(12, 10, $"short {at}")),
        ];

        var missed = MissedCalls.Of(new CallRules(70, 70, false).Judge(calls), Hours);

        (missed.Missed, missed.Outside, missed.After, missed.Closes).ShouldBe((24, 17, 17, 17 * 60 + 30));
        missed.OutsideCost.ShouldBe(17 * 1.20m);
        missed.InVain.ShouldBe(17 * 8 / 23.0, 1e-9);
        missed
            .InWords(Currency.Of("GBP"), Hours)
            .ShouldBe(
                (
                    "17 of 24 missed calls came after 17:30",
                    "The clicks of the 17 outside your hours cost £20.40. Of the calls within the hours enough count that about 6 customers rang in vain."
                )
            );
    }

    [Fact]
    public void A_call_at_the_minute_of_closing_is_outside_and_one_before_it_within()
    {
        MissedCalls.Of(Judged(Call(17, 0) with { At = Monday.AddHours(17.5) }), Hours).Outside.ShouldBe(1);
        MissedCalls.Of(Judged(Call(17, 0) with { At = Monday.AddHours(17.49) }), Hours).Outside.ShouldBe(0);
    }

    [Fact]
    public void An_engaged_line_is_told_with_the_hour_at_which_it_mostly_is()
    {
        var engaged = Enumerable.Range(0, 3).Select(at => Call(10, 0, $"{at}") with { End = CallEnd.Engaged });

        MissedCalls
            .Of(Judged([.. engaged]), Hours)
            .InWords(Currency.Of("GBP"), Hours)
            .Says.ShouldBe("3 calls met an engaged line, mostly Mondays at 10.");
    }

    [Fact]
    public void Without_answering_hours_no_call_is_outside_them() =>
        MissedCalls
            .Of(Judged(Call(3, 0)), null)
            .ShouldSatisfyAllConditions(
                missed => (missed.Missed, missed.Outside).ShouldBe((1, 0)),
                missed => missed.InWords(Currency.Of("GBP"), null).Says.ShouldStartWith("Say when somebody takes calls")
            );

    [Fact]
    public void Hours_of_the_day_add_up_to_all_calls()
    {
        var hours = HourOfCalls.Of([Call(9, 100), Call(9, 0), Call(23, 20)]);

        hours.Count.ShouldBe(24);
        (hours[9], hours[23]).ShouldBe((new HourOfCalls(9, 1, 1), new HourOfCalls(23, 1, 0)));
        hours.Sum(hour => hour.Answered + hour.Missed).ShouldBe(3);
    }

    private static IReadOnlyList<JudgedCall> Judged(params LoggedCall[] calls) =>
        new CallRules(70, 70, false).Judge(calls);

    private static LoggedCall Call(int hour, int talked, string caller = "somebody") =>
        new(
            Monday.AddHours(hour),
            9,
            talked,
            talked > 0 ? CallEnd.Answered : CallEnd.Missed,
            true,
            caller,
            $"{caller} {hour} {talked}",
            1.20m
        );
}
