using Fendrik.Core.Accounts;
using Fendrik.Core.Budgets;

namespace Fendrik.Core.Tests.Budgets;

/// <summary>Sharing a sum of budgets.</summary>
public class BudgetSharesTests
{
    private static readonly Currency Pounds = Currency.Of("GBP");

    /// <summary>A campaign that spends what it gets up to a demand, at a cost for each conversion.</summary>
    private static FundedCampaign Campaign(decimal now, double demand, double cost) =>
        new(
            now,
            new BudgetCurve([
                new DemandDay(new DateOnly(2026, 5, 4), new Outcome(demand, demand, demand / cost), default),
            ])
        );

    [Fact]
    public void What_one_takes_the_others_give_in_proportion_to_what_they_have()
    {
        BudgetShares.KeepSum([(40, 52), (30, null), (10, null)], Pounds).ShouldBe([52, 21, 7]);
    }

    [Theory]
    [InlineData("GBP")]
    [InlineData("JPY")]
    [InlineData("KWD")]
    public void The_sum_stays_to_the_last_minor_unit(string code)
    {
        var currency = Currency.Of(code);
        var random = new Random(11);
        for (var round = 0; round < 300; round++)
        {
            (decimal Now, decimal? Chosen)[] budgets =
            [
                .. Enumerable
                    .Range(0, random.Next(2, 9))
                    .Select(_ => (currency.FromMinor(random.Next(1, 10_000)), (decimal?)null)),
            ];
            budgets[0].Chosen = currency.FromMinor(random.Next(1, 10_000));

            if (BudgetShares.KeepSum(budgets, currency) is { } then)
            {
                then.Sum().ShouldBe(budgets.Sum(each => each.Now));
                then.ShouldAllBe(amount => amount > 0 && currency.Round(amount) == amount);
                then[0].ShouldBe(budgets[0].Chosen!.Value);
            }
            else
            {
                // Refused only when the others cannot keep the smallest amount each.
                (budgets.Sum(each => each.Now) - budgets[0].Chosen!.Value).ShouldBeLessThan(
                    (budgets.Length - 1) * currency.SmallestAmount
                );
            }
        }
    }

    [Fact]
    public void What_nobody_can_give_is_refused()
    {
        BudgetShares.KeepSum([(40, 60), (15, null)], Pounds).ShouldBeNull();
        BudgetShares.KeepSum([(40, 30), (15, 15)], Pounds).ShouldBeNull();
    }

    [Fact]
    public void Money_goes_to_where_conversions_cost_least_as_far_as_people_search()
    {
        // The first could spend £30 at £5 for each conversion, the second any amount at £20.
        var then = BudgetShares.Best([Campaign(20, 30, 5), Campaign(20, 500, 20)], Pounds);

        then.Sum().ShouldBe(40);
        then[0].ShouldBe(30, 0.2m);
    }

    [Fact]
    public void No_campaign_gets_less_than_half_or_more_than_twice_what_it_has()
    {
        var random = new Random(3);
        for (var round = 0; round < 100; round++)
        {
            FundedCampaign[] campaigns =
            [
                .. Enumerable
                    .Range(0, random.Next(2, 6))
                    .Select(_ =>
                        Campaign(random.Next(500, 5_000) / 100m, random.NextDouble() * 80, 1 + random.NextDouble() * 30)
                    ),
            ];

            var then = BudgetShares.Best(campaigns, Pounds);

            then.Sum().ShouldBe(campaigns.Sum(each => each.Now));
            for (var at = 0; at < then.Count; at++)
            {
                then[at].ShouldBeInRange(campaigns[at].Now / 2 - 0.01m, campaigns[at].Now * 2 + 0.01m);
            }
        }
    }

    [Fact]
    public void A_proposal_never_brings_less_than_what_holds_now()
    {
        var random = new Random(5);
        for (var round = 0; round < 100; round++)
        {
            FundedCampaign[] campaigns =
            [
                .. Enumerable
                    .Range(0, 4)
                    .Select(_ =>
                        Campaign(random.Next(500, 5_000) / 100m, random.NextDouble() * 80, 1 + random.NextDouble() * 30)
                    ),
            ];

            var then = BudgetShares.Best(campaigns, Pounds);

            double Brings(IEnumerable<decimal> budgets) =>
                budgets.Select((budget, at) => campaigns[at].Curve.PerDay(budget).Conversions).Sum();
            // To within the bit by which money is shared.
            Brings(then).ShouldBeGreaterThanOrEqualTo(Brings(campaigns.Select(each => each.Now)) * 0.99);
        }
    }
}
