using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.Budgets;

namespace Fendrik.Core.Tests.Budgets;

public class BudgetOfDayTests
{
    private static readonly Currency Pounds = Currency.Of("GBP");
    private static readonly DateOnly Day = new(2026, 5, 1);

    private static decimal? Of(decimal? daily, decimal? total, decimal spent = 0, DateOnly? end = null) =>
        BudgetOfDay.Of(
            new Campaign(1, "Tuning", ItemState.Running, daily, null, end, SiteKinds.Search, TotalBudget: total),
            spent,
            Day,
            Pounds
        );

    [Fact]
    public void A_daily_budget_alone_is_what_a_day_may_spend() => Of(20, null, 9_999).ShouldBe(20);

    [Fact]
    public void A_total_alone_is_shared_evenly_among_the_days_that_are_left() =>
        Of(null, 600, 300, Day.AddDays(9)).ShouldBe(30);

    [Fact]
    public void A_total_without_an_end_may_be_spent_at_once() => Of(null, 600, 100).ShouldBe(500);

    [Fact]
    public void Of_both_the_tighter_holds()
    {
        Of(20, 600, 100).ShouldBe(20);
        Of(20, 600, 595).ShouldBe(5);
        Of(20, 600, 700).ShouldBe(0);
    }

    [Fact]
    public void Without_either_there_is_none() => Of(null, null).ShouldBeNull();

    [Fact]
    public void Days_that_spend_what_they_may_come_to_the_total() =>
        Gen.Select(Gen.Int[1, 90], Gen.Int[100, 1_000_000])
            .Sample(
                (length, pence) =>
                {
                    var (total, spent) = (pence / 100m, 0m);
                    for (var day = 0; day < length; day++)
                    {
                        var campaign = new Campaign(
                            1,
                            "Tuning",
                            ItemState.Running,
                            null,
                            null,
                            Day.AddDays(length - 1),
                            SiteKinds.Search,
                            TotalBudget: total
                        );
                        spent += BudgetOfDay.Of(campaign, spent, Day.AddDays(day), Pounds)!.Value;
                    }

                    spent.ShouldBe(total);
                }
            );
}
