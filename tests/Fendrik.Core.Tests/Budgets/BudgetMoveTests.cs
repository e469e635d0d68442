using Fendrik.Core.Accounts;
using Fendrik.Core.Budgets;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Tests.Budgets;

/// <summary>Money that was moved, against what was to be expected of it.</summary>
public class BudgetMoveTests
{
    private static readonly DateOnly First = new(2026, 4, 1);
    private static readonly DateOnly Changed = First.AddDays(28);

    /// <summary>A campaign that is searched for more than its budget pays: £1 a click, a conversion of ten clicks.</summary>
    private static IEnumerable<GroupDay> Days(long campaign, int days, Func<int, long> clicks, long missed) =>
        Enumerable
            .Range(0, days)
            .Select(day =>
            {
                var count = clicks(day);
                return new GroupDay(
                    campaign * 10,
                    First.AddDays(day),
                    new Standing(count * 10, 0, 0, 0, 0, missed * 10),
                    new Figures(count * 10, count, count, count / 10m, 0)
                );
            });

    private static IReadOnlyList<BudgetMove> Moves(
        int days,
        Func<int, long> clicks,
        DateOnly? changed = null,
        decimal became = 40
    )
    {
        var budgets = Enumerable
            .Range(0, days)
            .ToDictionary(First.AddDays, day => (decimal?)(First.AddDays(day) < (changed ?? Changed) ? 20 : became));
        return BudgetMove.Of(
            Days(1, days, clicks, 20).ToLookup(_ => 1L),
            new Dictionary<long, IReadOnlyDictionary<DateOnly, decimal?>> { [1] = budgets },
            First.AddDays(days - 1)
        );
    }

    [Fact]
    public void A_day_on_which_a_budget_changed_is_found_with_what_it_was_and_became()
    {
        var move = Moves(35, day => day < 28 ? 20 : 40).ShouldHaveSingleItem();

        move.Day.ShouldBe(Changed);
        move.Budgets.ShouldBe([new ChangedBudget(1, 20, 40)]);
    }

    [Fact]
    public void Searches_that_were_missed_before_are_expected_of_the_week()
    {
        // Twenty clicks a day were missed, at the price and rate of the others.
        var move = Moves(35, day => day < 28 ? 20 : 40).ShouldHaveSingleItem();

        move.Before.Cost.ShouldBe(140, 1e-6);
        move.Cost.Likely.ShouldBe(280, 1e-6);
        move.Conversions.Likely.ShouldBe(28, 1e-6);
        move.Came.ShouldBe(new Outcome(280, 280, 28));
        move.CameTrue.ShouldBe(true);
    }

    [Fact]
    public void A_week_that_brought_less_than_chance_explains_is_said_to_have_failed()
    {
        var move = Moves(35, day => day < 28 ? 20 : 10).ShouldHaveSingleItem();

        move.CameTrue.ShouldBe(false);
        move.InWords(Currency.Of("GBP")).ShouldContain("7 came, for £70.00: fewer.");
    }

    [Fact]
    public void A_week_that_is_not_over_is_not_judged()
    {
        var move = Moves(31, _ => 20).ShouldHaveSingleItem();

        move.CameTrue.ShouldBeNull();
        move.InWords(Currency.Of("GBP")).ShouldEndWith("3 of 7 days are over.");
    }

    [Fact]
    public void A_change_with_too_few_days_before_it_is_left_out() =>
        Moves(35, _ => 20, First.AddDays(BudgetMove.FewestDays - 1)).ShouldBeEmpty();

    [Fact]
    public void What_is_known_later_does_not_change_what_was_expected()
    {
        var few = Moves(29, _ => 20).ShouldHaveSingleItem();
        var more = Moves(60, day => day < 28 ? 20 : 3).ShouldHaveSingleItem();

        more.Conversions.ShouldBe(few.Conversions);
        more.Cost.ShouldBe(few.Cost);
    }
}
