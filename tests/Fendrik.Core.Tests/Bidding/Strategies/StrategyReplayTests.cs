using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding.Strategies;

namespace Fendrik.Core.Tests.Bidding.Strategies;

public class StrategyReplayTests
{
    private static readonly Currency Pounds = Currency.Of("GBP");

    private static ClickCell Cell(long keyword, double clicks, double conversions) =>
        new(1, keyword, Device.Desktop, 1, SiteKinds.Search, clicks, conversions, conversions * 50);

    /// <summary>One keyword converts at 10%, the other at 1%, at the same bid and price.</summary>
    private static IReadOnlyList<ReplayWeek> Weeks()
    {
        var before = new ConversionRates([Cell(1, 2_000, 200), Cell(2, 2_000, 20)], [], []);
        return
        [
            .. Enumerable
                .Range(0, 4)
                .Select(week => new ReplayWeek(
                    new DateOnly(2026, 4, 6).AddDays(7 * week),
                    before,
                    [new ReplayCell(Cell(1, 100, 10), 50, 0.8m), new ReplayCell(Cell(2, 100, 1), 50, 0.8m)]
                )),
        ];
    }

    [Fact]
    public void Manual_bids_would_have_brought_what_they_brought()
    {
        var report = StrategyReplay.Of(new StrategyPlan(BidStrategy.ManualCpc), 20, Weeks(), Pounds);
        report.Would.ShouldBe(report.Was);
        report.Was.Conversions.ShouldBe(44);
    }

    [Fact]
    public void Maximising_conversions_spends_the_same_on_what_converts()
    {
        var report = StrategyReplay.Of(new StrategyPlan(BidStrategy.MaximiseConversions), 100 / 7m, Weeks(), Pounds);
        report.Would.Cost.ShouldBe(report.Was.Cost, 4);
        report.Would.Conversions.ShouldBeGreaterThan(report.Was.Conversions * 1.15);
    }

    [Fact]
    public void A_lower_target_buys_fewer_conversions_at_a_lower_cost()
    {
        ReplayedFigures At(decimal target) =>
            StrategyReplay.Of(new StrategyPlan(BidStrategy.TargetCpa, target), null, Weeks(), Pounds).Would;
        var (low, high) = (At(4), At(12));
        low.Conversions.ShouldBeLessThan(high.Conversions);
        (low.Cost / low.Conversions).ShouldBeLessThan(high.Cost / high.Conversions);
    }

    [Fact]
    public void No_more_is_spent_than_the_budget_allows() =>
        StrategyReplay
            .Of(new StrategyPlan(BidStrategy.TargetCpa, 40), 5, Weeks(), Pounds)
            .Weeks.ShouldAllBe(week => week.Would.Cost <= 35.01);

    [Fact]
    public void The_range_has_what_is_likeliest_in_it_and_says_what_is_not_known()
    {
        var report = StrategyReplay.Of(new StrategyPlan(BidStrategy.MaximiseClicks), 20, Weeks(), Pounds);
        report.Would.Conversions.ShouldBeInRange(report.Low.Conversions, report.High.Conversions);
        report.High.Conversions.ShouldBeGreaterThan(report.Low.Conversions);
        report.CannotKnow.ShouldContain(said => said.Contains("rivals", StringComparison.Ordinal));
    }
}
