using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Tests.Bidding.Strategies;

public class StrategyJudgementTests
{
    private static readonly Currency Pounds = Currency.Of("GBP");

    private static Figures Of(decimal cost, decimal conversions, decimal value = 0) =>
        new(10_000, 500, cost, conversions, value);

    private static StrategyFacts Facts(
        Figures? recent = null,
        BidStrategy runs = BidStrategy.ManualCpc,
        int? since = 60,
        Figures? ofRun = null,
        Objective objective = Objective.Leads,
        decimal inAccount = 40,
        decimal? budget = 20
    ) => new(recent ?? Of(480, 40, 4_000), inAccount, budget, runs, since, ofRun ?? recent ?? Of(480, 40), objective);

    private static Readiness Worst(StrategyPlan plan, StrategyFacts facts) =>
        StrategyReadiness.Of(plan, facts, Pounds).Select(point => point.Standing).Append(Readiness.Ready).Max();

    /// <summary>Limits of a Poisson mean, 90%: 10 events 5.43 to 16.96 (Garwood, Biometrika 28, 1936; quoted from memory).</summary>
    [Fact]
    public void The_cost_of_a_conversion_lies_where_printed_limits_of_counts_say()
    {
        var interval = CostInterval.Of(100, 10);
        interval.Low.ShouldBe(100 / 16.96m, 0.01m);
        interval.High!.Value.ShouldBe(100 / 5.43m, 0.02m);
    }

    [Fact]
    public void Without_a_conversion_there_is_no_highest_cost()
    {
        var interval = CostInterval.Of(30, 0);
        interval.High.ShouldBeNull();
        interval.Low.ShouldBe(10, 0.05m);
    }

    [Theory]
    [InlineData(BidStrategy.NudgedCpc)]
    [InlineData(BidStrategy.MaximiseConversions)]
    [InlineData(BidStrategy.TargetCpa)]
    [InlineData(BidStrategy.MaximiseValue)]
    [InlineData(BidStrategy.TargetRoas)]
    public void What_goes_by_conversions_is_refused_where_the_account_counts_none(BidStrategy strategy)
    {
        Worst(new StrategyPlan(strategy, 10, 400), Facts(Of(480, 0), inAccount: 0)).ShouldBe(Readiness.NotReady);
        StrategyChecks
            .Of(1, new StrategyPlan(strategy), Objective.Sales, false, false)
            .ShouldContain(finding => finding.Code == StrategyChecks.Uncounted && finding.Weight == Weight.Blocker);
    }

    [Fact]
    public void A_strategy_that_runs_already_holds_nothing_else_up() =>
        StrategyChecks
            .Of(1, new StrategyPlan(BidStrategy.TargetCpa), Objective.Leads, false, false, runs: true)
            .Single()
            .Weight.ShouldBe(Weight.Caution);

    [Theory]
    [InlineData(BidStrategy.ManualCpc)]
    [InlineData(BidStrategy.MaximiseClicks)]
    public void What_goes_by_clicks_needs_no_conversions(BidStrategy strategy) =>
        StrategyChecks.Of(1, new StrategyPlan(strategy), Objective.Visits, false, false).ShouldBeEmpty();

    [Fact]
    public void Few_conversions_ask_for_care() =>
        Worst(new StrategyPlan(BidStrategy.MaximiseConversions), Facts(Of(480, 5))).ShouldBe(Readiness.Careful);

    [Fact]
    public void Enough_conversions_and_a_budget_that_is_spent_are_ready() =>
        Worst(new StrategyPlan(BidStrategy.MaximiseConversions), Facts()).ShouldBe(Readiness.Ready);

    [Fact]
    public void Value_that_is_never_counted_is_nothing_to_go_by() =>
        Worst(new StrategyPlan(BidStrategy.MaximiseValue), Facts(objective: Objective.Sales, recent: Of(480, 40)))
            .ShouldBe(Readiness.NotReady);

    [Fact]
    public void A_budget_of_which_little_is_spent_asks_for_a_cap()
    {
        var facts = Facts(budget: 100);
        Worst(new StrategyPlan(BidStrategy.MaximiseConversions), facts).ShouldBe(Readiness.Careful);
        Worst(new StrategyPlan(BidStrategy.MaximiseConversions, HighestBid: 2), facts).ShouldBe(Readiness.Ready);
    }

    [Fact]
    public void A_target_far_below_what_conversions_cost_asks_for_care()
    {
        var facts = Facts(runs: BidStrategy.MaximiseConversions);
        Worst(new StrategyPlan(BidStrategy.TargetCpa, 11), facts).ShouldBe(Readiness.Ready);
        Worst(new StrategyPlan(BidStrategy.TargetCpa, 6), facts).ShouldBe(Readiness.Careful);
    }

    [Theory]
    [InlineData(BidStrategy.MaximiseClicks, Objective.Leads)]
    [InlineData(BidStrategy.MaximiseConversions, Objective.Sales)]
    [InlineData(BidStrategy.TargetRoas, Objective.Calls)]
    [InlineData(BidStrategy.TargetCpa, Objective.Visits)]
    public void A_strategy_that_contradicts_the_objective_is_found(BidStrategy strategy, Objective objective) =>
        StrategyChecks
            .Of(1, new StrategyPlan(strategy), objective, false, true)
            .ShouldHaveSingleItem()
            .Weight.ShouldBe(Weight.Caution);

    [Fact]
    public void Modifiers_that_a_strategy_takes_no_notice_of_are_a_hint() =>
        StrategyChecks
            .Of(1, new StrategyPlan(BidStrategy.TargetCpa), Objective.Leads, true, true)
            .ShouldHaveSingleItem()
            .Weight.ShouldBe(Weight.Hint);

    [Theory]
    [InlineData(7.07, 7.1)]
    [InlineData(0.437, 0.44)]
    [InlineData(123.4, 120)]
    [InlineData(9.97, 10)]
    [InlineData(412, 410)]
    public void A_target_is_rounded_to_two_digits(decimal exact, decimal rounded) =>
        FirstTarget.Rounded(exact).ShouldBe(rounded);

    [Fact]
    public void No_target_is_proposed_before_conversions_were_maximised()
    {
        Figures[] months = [Of(480, 40)];
        FirstTarget.Of(BidStrategy.TargetCpa, months, 1, Facts(), Pounds).Target.ShouldBeNull();
        FirstTarget
            .Of(BidStrategy.TargetCpa, months, 1, Facts(runs: BidStrategy.MaximiseConversions, since: 10), Pounds)
            .Target.ShouldBeNull();
        FirstTarget
            .Of(BidStrategy.TargetCpa, months, 1, Facts(runs: BidStrategy.MaximiseConversions), Pounds)
            .Target.ShouldBe(12);
    }

    [Fact]
    public void A_return_is_proposed_from_what_spend_returned() =>
        FirstTarget
            .Of(BidStrategy.TargetRoas, [Of(480, 40, 2_000)], 1, Facts(runs: BidStrategy.MaximiseValue), Pounds)
            .Target.ShouldBe(420);

    [Fact]
    public void A_season_that_was_dearer_a_year_ago_is_noted()
    {
        Figures[] months = [.. Enumerable.Range(0, 13).Select(back => Of(back is 0 or 12 ? 600 : 400, 40))];
        FirstTarget
            .Of(BidStrategy.TargetCpa, months, 1, Facts(runs: BidStrategy.MaximiseConversions), Pounds)
            .Season!.ShouldContain("dearer");
    }

    private static StrategyReport Report(decimal cost, decimal conversions, decimal target) =>
        StrategyReport.Of(
            new StrategyPlan(BidStrategy.TargetCpa, target),
            new StrategyRow(1, BidStrategy.TargetCpa, new DateOnly(2026, 5, 1), 1.25, 7, 40, 12, false),
            Of(cost, conversions),
            20,
            28,
            Pounds
        );

    [Theory]
    [InlineData(480, 40, 12, TargetVerdict.Met)]
    [InlineData(480, 40, 6, TargetVerdict.Missed)]
    [InlineData(480, 40, 25, TargetVerdict.Surpassed)]
    [InlineData(60, 4, 14, TargetVerdict.NotYetKnown)]
    public void A_target_is_met_where_the_interval_has_it(
        decimal cost,
        decimal conversions,
        decimal target,
        TargetVerdict verdict
    ) => Report(cost, conversions, target).Verdict.ShouldBe(verdict);

    [Fact]
    public void A_strategy_says_what_it_bids_and_why() =>
        Report(480, 40, 12)
            .Sentences[0]
            .ShouldBe(
                "It bids the target of £12.00 × how likely the click is to convert, × 1.25: clicks cost less than is bid for them, or convert more often than predicted, and the target is meant on the whole."
            );
}
