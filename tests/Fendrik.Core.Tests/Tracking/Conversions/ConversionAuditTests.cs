using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Checks;
using Fendrik.Core.Tracking.Conversions;
using Shouldly;
using Xunit;

namespace Fendrik.Core.Tests.Tracking.Conversions;

public sealed class ConversionAuditTests
{
    private static readonly DateOnly Day = new(2026, 5, 1);
    private static readonly ConversionAction Form = ConversionRuleTests.Action(ConversionSource.Form, "Form", 1);
    private static readonly ConversionAction Call = ConversionRuleTests.Action(ConversionSource.CallFromAd, "Call", 2);
    private static readonly ConversionAction Page = ConversionRuleTests.Action(
        ConversionSource.PageReached,
        "Page",
        3
    ) with
    {
        Address = "a.example/list",
        AccountGoal = YesNo.No,
    };

    /// <summary>By Poisson’s distribution nothing comes with probability e^−m where m are expected; e^−5 = 0.00674, e^−4 = 0.01832 (printed tables).</summary>
    [Theory]
    [InlineData(5, ActionState.Silent, 0.00674)]
    [InlineData(4, ActionState.Works, 0.01832)]
    public void A_silence_is_told_when_chance_hardly_brings_it(int days, ActionState state, double chance)
    {
        // One a day for forty days, and then nothing.
        var health = ActionHealth.Of(
            Form,
            [.. Enumerable.Range(0, 40 + days).Select(at => (Day.AddDays(at), 20.0, at < 40 ? 1.0 : 0))]
        );

        (health.State, health.LastDay).ShouldBe((state, Day.AddDays(39)));
        health.Chance.ShouldBe(chance, 0.00001);
        health.Missed.ShouldBe(days, 1e-9);
    }

    [Fact]
    public void Days_without_clicks_make_no_action_silent() =>
        ActionHealth
            .Of(
                Form,
                [.. Enumerable.Range(0, 60).Select(at => (Day.AddDays(at), at < 40 ? 20.0 : 0, at < 40 ? 1.0 : 0))]
            )
            .State.ShouldBe(ActionState.Works);

    [Theory]
    [InlineData(14, 3, ActionState.NeverCounted)]
    [InlineData(13, 3, ActionState.TooNew)]
    [InlineData(14, 2, ActionState.TooNew)]
    public void An_action_that_never_counted_is_told_after_a_fortnight_and_thirty_clicks(
        int days,
        int clicks,
        ActionState state
    ) =>
        ActionHealth
            .Of(Form, [.. Enumerable.Range(0, days).Select(at => (Day.AddDays(at), (double)clicks, 0.0))])
            .State.ShouldBe(state);

    [Fact]
    public void An_action_that_counts_nearly_every_visit_counts_visits()
    {
        (DateOnly, double, double)[] days = [.. Enumerable.Range(0, 20).Select(at => (Day.AddDays(at), 10.0, 9.0))];

        ActionHealth.Of(Form, days).State.ShouldBe(ActionState.EveryVisit);
        ActionHealth.Of(Page, days).State.ShouldBe(ActionState.Works);
    }

    [Fact]
    public void A_strategy_that_steers_by_a_silent_action_alone_is_a_blocker()
    {
        var campaign = Campaign("Form") with { Bidding = new StrategyPlan(BidStrategy.MaximiseConversions) };

        var found = Codes([(Form, ActionState.Silent), (Call, ActionState.Works)], campaign);

        found.ShouldContain((Weight.Blocker, "dead-goal"));
        Codes([(Form, ActionState.Silent), (Call, ActionState.Works)], campaign with { Goals = null })
            .ShouldNotContain((Weight.Blocker, "dead-goal"));
    }

    [Fact]
    public void A_campaign_that_counts_page_views_alone_is_a_caution() =>
        Codes([(Form, ActionState.Works), (Page, ActionState.Works)], Campaign("Page"))
            .ShouldBe([(Weight.Caution, "goal-page")]);

    [Fact]
    public void A_goal_that_no_action_is_called_by_is_a_blocker_which_the_goals_of_the_account_mend()
    {
        var finding = Audit([(Form, ActionState.Works)], Campaign("Gone")).ShouldHaveSingleItem();

        (finding.Weight, finding.Code).ShouldBe((Weight.Blocker, "goal-unknown"));
        finding
            .Repairs.ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(
                repair => repair.Kind.ShouldBe(ItemKind.Campaign),
                repair => (repair.Field, repair.Text).ShouldBe(("goals", ""))
            );
    }

    [Theory]
    [InlineData("Form", Objective.Calls, BidStrategy.ManualCpc, "goal-objective")]
    [InlineData("Call", Objective.Calls, BidStrategy.ManualCpc, "")]
    [InlineData(null, Objective.Calls, BidStrategy.ManualCpc, "")]
    [InlineData("Form", Objective.Leads, BidStrategy.MaximiseConversions, "")]
    [InlineData("Page", Objective.Leads, BidStrategy.MaximiseConversions, "goal-page goal-steers")]
    public void Goals_are_held_against_the_objective_and_the_strategy(
        string? goals,
        Objective objective,
        BidStrategy strategy,
        string codes
    )
    {
        var known = new ConversionGoals([Form, Call, Page with { Steers = YesNo.No }]);

        string.Join(
                ' ',
                GoalChecks.Of(1, "Sales", goals, new StrategyPlan(strategy), objective, known).Select(each => each.Code)
            )
            .ShouldBe(codes);
        GoalChecks
            .Of(1, "Sales", goals, new StrategyPlan(strategy), objective, new ConversionGoals([]))
            .ShouldBeEmpty();
    }

    [Fact]
    public void A_booking_elsewhere_that_only_a_tag_tells_of_is_mended_by_the_link_or_the_confirmations()
    {
        var booking = ConversionRuleTests.Action(ConversionSource.Booking) with { Address = "booking.example" };

        var finding = Audit([(booking, ActionState.NeverCounted)], Campaign(null)).ShouldHaveSingleItem();

        finding.Code.ShouldBe("booked-elsewhere");
        finding.Repairs.Select(repair => repair.Text).ShouldBe(["id carried over", "sent back"]);
    }

    [Theory]
    [InlineData(11, 54, 100, true)]
    [InlineData(5, 54, 100, false)]
    [InlineData(4, 10, 100, false)]
    public void Two_actions_that_count_the_same_clicks_are_told_where_both_count(
        int both,
        int one,
        int other,
        bool told
    )
    {
        var found = ConversionAudit.Of(
            new AuditFacts(
                [Audited(Form, ActionState.Works), Audited(Call, ActionState.Works)],
                [Campaign(null)],
                [new CountedTwice(1, 2, both, one, other, 0.4)],
                []
            )
        );

        found.Any(finding => finding.Code == "twice").ShouldBe(told);
        ConversionAudit
            .Of(
                new AuditFacts(
                    [Audited(Form, ActionState.Works), Audited(Call, ActionState.Works)],
                    [Campaign("Form")],
                    [new CountedTwice(1, 2, both, one, other, 0.4)],
                    []
                )
            )
            .ShouldBeEmpty();
    }

    [Theory]
    [InlineData(26, 0)]
    [InlineData(27, 1)]
    public void Only_an_action_that_adds_hardly_anything_is_proposed_to_be_left_out(int both, int repairs) =>
        ConversionAudit
            .Of(
                new AuditFacts(
                    [Audited(Form, ActionState.Works), Audited(Call, ActionState.Works)],
                    [Campaign(null)],
                    [new CountedTwice(1, 2, both, 54, 100, 0.4)],
                    []
                )
            )
            .ShouldHaveSingleItem()
            .Repairs.Count.ShouldBe(repairs);

    [Theory]
    [InlineData(PageTag.None, "tag-missing")]
    [InlineData(PageTag.OnLoad, "tag-on-load")]
    [InlineData(PageTag.OnSend, null)]
    [InlineData(PageTag.Unread, null)]
    public void A_page_without_its_tag_is_told_when_something_is_counted_there(PageTag tag, string? code)
    {
        AuditFacts Facts(params ConversionAction[] actions) =>
            new(
                [.. actions.Select(action => Audited(action, ActionState.Works))],
                [Campaign(null)],
                [],
                [new AuditedPage("a.example/tuning", tag)]
            );

        ConversionAudit.Of(Facts(Form)).Select(finding => finding.Code).ShouldBe(code is null ? [] : [code]);
        ConversionAudit.Of(Facts(Call)).ShouldBeEmpty();
        ConversionAudit.Of(Facts(Form with { Address = "b.example" })).ShouldBeEmpty();
    }

    [Fact]
    public void Goals_of_a_campaign_come_before_those_of_the_account_whatever_their_letters()
    {
        ConversionGoals.Counts(Form, " form ;  Call").ShouldBeTrue();
        ConversionGoals.Counts(Page, null).ShouldBeFalse();
        ConversionGoals.Counts(Form, "Call").ShouldBeFalse();
        ConversionGoals.Steers(Form with { Steers = YesNo.No }, null).ShouldBeFalse();
        ConversionGoals.Steers(Form with { State = ItemState.Paused }, null).ShouldBeFalse();
    }

    [Fact]
    public void The_past_under_other_goals_is_what_these_counted()
    {
        (long, decimal, decimal)[] counted = [(3, 402, 0), (2, 4, 340), (1, 5, 300)];

        var now = GoalReading.Of(counted, id => id == 3, 199.71m, new StrategyPlan(BidStrategy.TargetCpa, 12), Pounds);
        var then = GoalReading.Of(counted, id => id != 3, 199.71m, new StrategyPlan(BidStrategy.TargetCpa, 12), Pounds);

        now.ShouldBe(new GoalReading(402, 0, 199.71m / 402, "raised towards £12.00"));
        then.ShouldBe(new GoalReading(9, 640, 22.19m, "lowered towards £12.00"));
    }

    private static Currency Pounds => Currency.Of("GBP");

    private static AuditedCampaign Campaign(string? goals) =>
        new(10, "Sales", goals, new StrategyPlan(BidStrategy.ManualCpc));

    private static AuditedAction Audited(ConversionAction action, ActionState state) =>
        new(action, new ActionHealth(state, state == ActionState.NeverCounted ? null : Day, 5, 0.001, 0.1, 5, 28));

    private static IReadOnlyList<AuditFinding> Audit(
        (ConversionAction, ActionState)[] actions,
        AuditedCampaign campaign
    ) =>
        ConversionAudit.Of(
            new AuditFacts([.. actions.Select(each => Audited(each.Item1, each.Item2))], [campaign], [], [])
        );

    private static IEnumerable<(Weight, string)> Codes(
        (ConversionAction, ActionState)[] actions,
        AuditedCampaign campaign
    ) => Audit(actions, campaign).Select(finding => (finding.Weight, finding.Code));
}
