using Fendrik.Core.Accounts;
using Fendrik.Core.Budgets;
using Fendrik.Core.Calls;
using Fendrik.Core.Checks;
using Fendrik.Core.Desk;
using Fendrik.Core.Reporting;
using Fendrik.Core.Tracking.Conversions;

namespace Fendrik.Core.Tests.Desk;

/// <summary>What is worth doing, by the money in it.</summary>
public class DeskRulesTests
{
    private static readonly Currency Pounds = Currency.Of("GBP");

    /// <summary>Ten of a hundred clicks convert.</summary>
    private static readonly Figures Account = new(10_000, 1_000, 800, 100, 0);

    private static string[] Words(params UnsoldWord[] words) =>
        [.. DeskRules.OfWords(words, [], Account, 13, Pounds, 5).Select(item => item.Name!)];

    /// <summary>Of 30 clicks without a conversion the rate is below 10 % nineteen times of twenty: the rule of three (Hanley and Lippman-Hand, JAMA 249, 1983).</summary>
    [Fact]
    public void A_word_is_told_from_three_conversions_that_did_not_come()
    {
        Words(new UnsoldWord("lessons", 9, 30, 20)).ShouldBe(["lessons"]);
        Words(new UnsoldWord("lessons", 9, 29, 20)).ShouldBeEmpty();
    }

    [Fact]
    public void Words_that_say_nothing_are_not_told() =>
        Words(new UnsoldWord("a", 90, 300, 200), new UnsoldWord("the", 90, 300, 200)).ShouldBeEmpty();

    [Fact]
    public void Its_money_is_what_it_costs_a_week()
    {
        var item = DeskRules
            .OfWords([new UnsoldWord("lessons", 9, 40, 130)], [], Account, 13, Pounds, 5)
            .ShouldHaveSingleItem();

        (item.MoneyAWeek, item.Worth).ShouldBe((10m, "£10.00 a week"));
        item.Says.ShouldBe(
            "9 different searches with it, 40 clicks, no conversion: 4 should have come at the account's rate."
        );
    }

    [Fact]
    public void Two_words_of_the_same_searches_are_told_once()
    {
        UnsoldWord[] words = [new("ride", 10, 100, 80), new("test", 11, 101, 82), new("shoes", 3, 60, 50)];

        DeskRules
            .OfWords(words, [new UnsoldWord("ride test", 10, 100, 80)], Account, 13, Pounds, 5)
            .Select(item => item.Name)
            .ShouldBe(["ride test", "shoes"]);
    }

    [Theory]
    // Cost per conversion 10, then 20 at the same cost: 5 against 10 of 15, by the binomial distribution 15 times of a hundred.
    [InlineData(100, 10, 100, 5, false)]
    // 20 against 40 of 60: less than once in a hundred times.
    [InlineData(400, 40, 400, 20, true)]
    // A tenth dearer is no quarter.
    [InlineData(40_000, 4_000, 44_000, 4_000, false)]
    // Four conversions before are too few.
    [InlineData(100, 4, 900, 0, false)]
    [InlineData(100, 10, 100, 0, true)]
    public void A_campaign_is_told_when_its_conversions_became_dearer_than_chance_explains(
        int costBefore,
        int before,
        int cost,
        int now,
        bool isTold
    ) =>
        (
            DeskRules.OfDearer(
                1,
                "Tuning",
                new Figures(0, 0, cost, now, 0),
                new Figures(0, 0, costBefore, before, 0),
                1,
                Pounds
            )
            is not null
        ).ShouldBe(isTold);

    [Fact]
    public void Conversions_that_are_still_to_come_make_nothing_dearer()
    {
        DeskItem? Told(double share) =>
            DeskRules.OfDearer(
                1,
                "Tuning",
                new Figures(0, 0, 400, 20, 0),
                new Figures(0, 0, 400, 40, 0),
                share,
                Pounds
            );

        Told(1).ShouldNotBeNull();
        // Half of them are told of: forty are to be expected.
        Told(0.5).ShouldBeNull();
    }

    [Fact]
    public void What_dearer_conversions_cost_is_told_by_the_price_of_before() =>
        DeskRules
            .OfDearer(1, "Tuning", new Figures(0, 0, 400, 20, 0), new Figures(0, 0, 400, 40, 0), 1, Pounds)!
            .MoneyAWeek.ShouldBe(200);

    [Fact]
    public void Calls_in_vain_cost_what_their_clicks_cost_a_week()
    {
        var hours = WeekHours.Of("Mon-Fri 08:00-17:30");
        var missed = new MissedCalls(10, 10, 40, 10, 17 * 60 + 30, 0, null, 3);

        var item = DeskRules.OfCalls(missed, hours, 8, Pounds)!;

        (item.Title, item.Worth).ShouldBe(("10 of 10 missed calls came after 17:30", "£5.00 a week"));
        DeskRules.OfCalls(missed, null, 8, Pounds).ShouldBeNull();
    }

    [Theory]
    [InlineData(false, "£5.00", -0.5)]
    [InlineData(true, "ROAS 4.0", 3)]
    public void An_account_is_judged_by_the_return_where_it_counts_sales(bool bySales, string judged, double change)
    {
        var standing = AccountStanding.Of(new Figures(0, 0, 100, 20, 400), new Figures(0, 0, 100, 10, 100), bySales);

        standing.InWords(Pounds).ShouldBe(judged);
        ((double)standing.Change!.Value).ShouldBe(change);
        AccountStanding.Of(Figures.Zero, Figures.Zero, bySales).InWords(Pounds).ShouldBeNull();
    }

    [Fact]
    public void Blockers_come_first_and_the_rest_by_the_money_in_it()
    {
        DeskItem Item(string title, Weight weight, decimal? money) =>
            new(DeskTopic.Word, weight, title, "", money, null);

        DeskItem
            .Ranked([
                Item("cheap", Weight.Caution, 2),
                Item("unpriced", Weight.Caution, null),
                Item("dear", Weight.Caution, 30),
                Item("blind", Weight.Blocker, 1),
            ])
            .Select(item => item.Title)
            .ShouldBe(["blind", "dear", "cheap", "unpriced"]);
    }

    [Fact]
    public void Only_an_audit_that_blocks_makes_blind()
    {
        AuditFinding Found(Weight weight) => new(weight, "silent", 1, null, "silent since Thu 23 Apr", "…", []);

        DeskRules.OfTracking(Found(Weight.Caution), "Booking", 300, Pounds).ShouldBeNull();
        DeskRules.OfTracking(Found(Weight.Blocker), "Booking", 300, Pounds)!.Worth.ShouldBe("blind for £300.00 a week");
    }

    [Fact]
    public void A_budget_that_lasts_is_not_told()
    {
        var day = new DateOnly(2026, 5, 11);
        CampaignDemand Demand(long missed) =>
            CampaignDemand.Of(
                [
                    .. Enumerable
                        .Range(0, 7)
                        .Select(back => new GroupDay(
                            1,
                            day.AddDays(-back),
                            new Standing(100, 0, 0, 0, 0, missed),
                            new Figures(100, 20, 20, 2, 0)
                        )),
                ],
                day,
                null
            );

        DeskRules.OfBudget(1, "Tuning", Demand(0), new RunningOut(0, 7, null), Pounds).ShouldBeNull();
        var item = DeskRules.OfBudget(1, "Tuning", Demand(50), new RunningOut(5, 7, 17 * 60 + 20), Pounds)!;
        item.Title.ShouldBe("Tuning ran out of money, usually at 17:20");
        // Half as many searches as were answered, at their price and rate.
        item.MoneyAWeek.ShouldBe(70);
        item.Worth.ShouldBe("+7 conv. a week");
    }
}
