using Fendrik.Core.Tracking.Conversions;
using Shouldly;
using Xunit;

namespace Fendrik.Core.Tests.Tracking.Conversions;

public sealed class ConversionRuleTests
{
    private static readonly DateTimeOffset Clicked = new(2026, 5, 12, 9, 0, 0, TimeSpan.Zero);

    /// <summary>A buyer who pays for calls of 60 seconds counts from 70: common practice, no source.</summary>
    [Theory]
    [InlineData(69, NotCounted.TooShort)]
    [InlineData(70, NotCounted.Counts)]
    public void A_call_counts_from_the_seconds_of_its_action(int seconds, NotCounted expected) =>
        ConversionRule
            .Of(
                Action(ConversionSource.CallFromAd) with
                {
                    LeastSeconds = 70,
                },
                new TrackedEvent(ConversionSource.CallFromAd, null, seconds, 0, Clicked.AddMinutes(1)),
                Clicked
            )
            .ShouldBe(expected);

    [Fact]
    public void A_call_that_nobody_answered_never_counts() =>
        ConversionRule
            .Of(
                Action(ConversionSource.CallFromSite),
                new TrackedEvent(ConversionSource.CallFromSite, "a.example", 0, 0, Clicked.AddMinutes(1)),
                Clicked
            )
            .ShouldBe(NotCounted.TooShort);

    [Theory]
    [InlineData(7, 0, NotCounted.Counts)]
    [InlineData(7, 1, NotCounted.OutsideWindow)]
    [InlineData(0, -1, NotCounted.OutsideWindow)]
    public void It_counts_within_the_window_to_the_second(int days, int seconds, NotCounted expected) =>
        ConversionRule
            .Of(
                Action(ConversionSource.Form) with
                {
                    Window = 7,
                },
                new TrackedEvent(ConversionSource.Form, "a.example", 0, 0, Clicked.AddDays(days).AddSeconds(seconds)),
                Clicked
            )
            .ShouldBe(expected);

    [Theory]
    [InlineData("a.example/shop", "a.example/shop/thanks", NotCounted.Counts)]
    [InlineData("a.example/shop", "a.example/shopping", NotCounted.Elsewhere)]
    [InlineData("a.example", "www.a.example/x", NotCounted.Counts)]
    [InlineData("a.example", "b.example", NotCounted.Elsewhere)]
    [InlineData(null, "b.example", NotCounted.Counts)]
    public void It_counts_on_its_site_and_below(string? site, string done, NotCounted expected) =>
        ConversionRule
            .Of(
                Action(ConversionSource.Form) with
                {
                    Address = site,
                },
                new TrackedEvent(ConversionSource.Form, done, 0, 0, Clicked),
                Clicked
            )
            .ShouldBe(expected);

    [Fact]
    public void A_paused_action_counts_nothing() =>
        ConversionRule
            .Of(
                Action(ConversionSource.Form) with
                {
                    State = ItemState.Paused,
                },
                new TrackedEvent(ConversionSource.Form, "a.example", 0, 0, Clicked),
                Clicked
            )
            .ShouldBe(NotCounted.Paused);

    [Theory]
    [InlineData(ConversionCounting.OneForClick, 1)]
    [InlineData(ConversionCounting.Each, 3)]
    public void Several_after_one_click_count_once_or_each_time(ConversionCounting counting, int expected) =>
        ConversionRule
            .Counted(Action(ConversionSource.Form) with { Counting = counting }, [1, 2, 3])
            .Count()
            .ShouldBe(expected);

    [Theory]
    [InlineData(ConversionWorth.Fixed, 60)]
    [InlineData(ConversionWorth.Sent, 2490)]
    [InlineData(ConversionWorth.ByHand, 0)]
    public void It_is_worth_what_the_action_or_the_order_says(ConversionWorth worth, decimal expected) =>
        ConversionRule
            .ValueOf(
                Action(ConversionSource.Sale) with
                {
                    Worth = worth,
                },
                new TrackedEvent(ConversionSource.Sale, "a.example", 0, 2490, Clicked)
            )
            .ShouldBe(expected);

    internal static ConversionAction Action(ConversionSource source, string name = "Action", long id = 1) =>
        new(
            id,
            name,
            ItemState.Running,
            source,
            null,
            ConversionHearing.Tag,
            null,
            60,
            ConversionWorth.Fixed,
            ConversionCounting.OneForClick,
            null,
            YesNo.Yes,
            YesNo.Yes
        );
}
