using Fendrik.Core.Accounts;
using Fendrik.Core.Budgets;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Tests.Budgets;

/// <summary>How a budget is shared among ad groups.</summary>
public class SpreadTests
{
    private static readonly DateOnly Monday = new(2026, 5, 4);

    private static GroupDay Group(
        long id,
        long shown,
        long lostToRank,
        long lostToBudget,
        long clicks,
        decimal cost,
        decimal conversions
    ) =>
        new(
            id,
            Monday,
            new Standing(shown, 0, 0, shown, lostToRank, lostToBudget),
            new Figures(shown, clicks, cost, conversions, 0)
        );

    private static SpreadReport Of(decimal budget, params GroupDay[] groups) =>
        SpreadReport.Of(CampaignDemand.Of(groups, Monday.AddDays(27), null), budget, Currency.Of("GBP"));

    /// <summary>
    /// The Horizontal Merger Guidelines of the US Department of Justice and the Federal Trade Commission, 2010, section 5.3: a market of four with shares of
    /// 30, 30, 20 and 20 per cent has an index of 2,600 (quoted from memory); of 10,000 as there, its reciprocal is 3.85.
    /// </summary>
    [Fact]
    public void The_effective_number_is_the_reciprocal_of_the_index_of_concentration()
    {
        SpreadReport.EffectiveNumberOf([30, 30, 20, 20])!.Value.ShouldBe(10_000 / 2_600.0, 1e-9);
    }

    [Fact]
    public void Equal_parts_count_as_what_they_are_and_one_alone_as_one()
    {
        SpreadReport.EffectiveNumberOf([7, 7, 7])!.Value.ShouldBe(3, 1e-9);
        SpreadReport.EffectiveNumberOf([7, 0, 0])!.Value.ShouldBe(1, 1e-9);
        SpreadReport.EffectiveNumberOf([0, 0]).ShouldBeNull();
    }

    [Fact]
    public void A_good_ad_group_whose_searches_the_budget_misses_is_starved_and_deserves_a_campaign()
    {
        var report = Of(20, Group(1, 1_000, 0, 0, 400, 400, 20), Group(2, 300, 0, 300, 100, 100, 25));

        var good = report.Groups.Single(group => group.Demand.AdGroupId == 2);
        good.Verdict.ShouldBe(SpreadVerdict.Starved);
        good.CouldHave.ShouldBe(2 * good.Share, 0.02);
        report.Split!.AdGroupId.ShouldBe(2);
        // £100 got and about £100 missed on 28 days.
        report.Split.Budget.ShouldBe(7.14m, 0.2m);
        (report.Split.Budget + report.Split.Rest).ShouldBe(20);
        report.Split.Gain.Likely.ShouldBeGreaterThan(0);
    }

    [Fact]
    public void The_one_that_takes_most_and_sells_dearer_crowds_the_others()
    {
        var report = Of(20, Group(1, 1_000, 0, 100, 400, 400, 20), Group(2, 300, 0, 30, 100, 100, 25));

        report.Groups[0].Verdict.ShouldBe(SpreadVerdict.Crowding);
        report.Groups[1].Verdict.ShouldBe(SpreadVerdict.Even);
    }

    [Fact]
    public void Where_bids_win_no_place_money_is_not_what_is_missing()
    {
        var report = Of(20, Group(1, 1_000, 0, 0, 400, 400, 20), Group(2, 10, 490, 0, 1, 1, 0));

        report.Groups[1].Verdict.ShouldBe(SpreadVerdict.Outbid);
        report.Split.ShouldBeNull();
    }

    [Fact]
    public void A_dear_ad_group_is_not_given_more()
    {
        var report = Of(20, Group(1, 1_000, 0, 0, 400, 400, 40), Group(2, 300, 0, 300, 100, 100, 1));

        report.Groups[1].Verdict.ShouldBe(SpreadVerdict.Even);
        report.Split.ShouldBeNull();
    }

    [Fact]
    public void Next_to_nothing_is_said_of_few_searches()
    {
        Of(20, Group(1, 1_000, 0, 0, 400, 400, 20), Group(2, 2, 0, 20, 1, 1, 1))
            .Groups[1]
            .Verdict.ShouldBe(SpreadVerdict.Even);
    }
}
