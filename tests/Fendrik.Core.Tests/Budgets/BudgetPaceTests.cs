using Fendrik.Core.Budgets;

namespace Fendrik.Core.Tests.Budgets;

public class BudgetPaceTests
{
    private static SpentHour Hour(decimal spent, double rate = 1, double ran = 1, double weight = 1) =>
        new(spent, rate, ran, weight);

    [Fact]
    public void Takes_part_in_everything_before_anything_is_known() =>
        BudgetPace.RateFor(10, BudgetPace.CostOfUsualHour([]), 12).ShouldBe(1);

    [Fact]
    public void Takes_part_in_nothing_with_nothing_left() => BudgetPace.RateFor(0, 5, 12).ShouldBe(0);

    [Fact]
    public void Takes_part_in_so_many_searches_that_the_budget_lasts() =>
        // 2 an hour for 10 hours would be 20; 5 is left.
        BudgetPace.RateFor(5, BudgetPace.CostOfUsualHour([Hour(2), Hour(2)]), 10).ShouldBe(0.25, 1e-12);

    [Fact]
    public void Takes_an_hour_that_was_throttled_or_stopped_for_what_it_would_have_cost_in_full() =>
        BudgetPace.CostOfUsualHour([Hour(1, rate: 0.5), Hour(1, ran: 0.5)]).ShouldBe((2 + 1) / 1.5);

    [Fact]
    public void Takes_a_busy_hour_for_more_than_a_usual_one() =>
        BudgetPace.CostOfUsualHour([Hour(6, weight: 3), Hour(2)]).ShouldBe(2);

    [Fact]
    public void As_fast_as_possible_takes_part_in_everything_until_nothing_is_left()
    {
        BudgetPace.RateFor(5, 2, 10, BudgetDelivery.Fast).ShouldBe(1);
        BudgetPace.RateFor(0, 2, 10, BudgetDelivery.Fast).ShouldBe(0);
    }

    [Fact]
    public void Goes_on_learning_however_little_is_left() =>
        BudgetPace.RateFor(0.01m, 100, 20).ShouldBe(BudgetPace.LeastRate);
}
