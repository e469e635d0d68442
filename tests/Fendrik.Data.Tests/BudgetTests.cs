using Dapper;
using Fendrik.Core.Budgets;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Fendrik.Data.Commands.Funding;
using Fendrik.Data.Results;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

/// <summary>Budgets of campaigns: what they missed, moved in one step, and split.</summary>
[Collection(nameof(WorkingCopyFixture))]
public sealed class BudgetTests(WorkingCopyFixture fixture)
{
    private const string List = """
        item,campaign,ad group,daily budget,ad group max cpc,keyword,match,headline 1,headline 2,description 1,landing page,callout,phone modifier
        campaign,North,,25,,,,,,,,,-20%
        campaign,South,,20,,,,,,,,,
        ad group,North,Tuning,,0.60,,,,,,,,
        ad group,North,Moving,,0.40,,,,,,,,
        ad group,South,Hire,,0.60,,,,,,,,
        keyword,North,Tuning,,,piano tuning,phrase,,,,,,
        keyword,North,Moving,,,piano moving,phrase,,,,,,
        negative,North,,,,free,phrase,,,,,,
        negative,North,Tuning,,,guitar,phrase,,,,,,
        callout,North,,,,,,,,,,Evening visits,
        text ad,North,Tuning,,,,,Piano Tuning,Same Week,We come.,https://a.example/,,
        text ad,North,Moving,,,,,Piano Moving,Same Week,We come.,https://a.example/,,
        """;

    private async Task<int> AccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        return account;
    }

    private async Task<long> IdAsync(int account, string name, ItemKind kind) =>
        (await fixture.RowAsync(account, name, kind)).Id;

    private async Task<Dictionary<string, decimal?>> BudgetsAsync(int account) =>
        (await new BudgetReader(fixture.Source).CampaignsAsync(account, 100, CancellationToken.None)).ToDictionary(
            campaign => campaign.Name,
            campaign => campaign.Budget
        );

    private async Task<MoveMoney> MoveAsync(int account, string north, string south, bool keepsSum = true) =>
        new(
            [
                new BudgetInput(await IdAsync(account, "North", ItemKind.Campaign), north),
                new BudgetInput(await IdAsync(account, "South", ItemKind.Campaign), south),
            ],
            keepsSum
        );

    [Fact]
    public async Task Money_moves_in_one_step_that_can_be_undone()
    {
        var account = await AccountAsync();

        var step = await fixture.DoAsync(account, await MoveAsync(account, "30", "15"));

        step.Label.ShouldBe("Move £5.00 a day among 2 campaigns");
        (await BudgetsAsync(account)).ShouldBe(new Dictionary<string, decimal?> { ["North"] = 30, ["South"] = 15 });
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        (await BudgetsAsync(account)).ShouldBe(new Dictionary<string, decimal?> { ["North"] = 25, ["South"] = 20 });
    }

    [Fact]
    public async Task A_move_that_changes_the_sum_is_refused_as_a_whole_unless_it_may()
    {
        var account = await AccountAsync();

        var refused = await Should.ThrowAsync<InvalidChangeException>(async () =>
            await fixture.DoAsync(account, await MoveAsync(account, "30", "16"))
        );

        refused.Message.ShouldContain("come to £46.00 a day, and were £45.00");
        (await BudgetsAsync(account))["North"].ShouldBe(25);
        (await fixture.DoAsync(account, await MoveAsync(account, "30", "16", keepsSum: false))).Label.ShouldBe(
            "Set daily budget of 2 campaigns"
        );
    }

    [Theory]
    [InlineData("")]
    [InlineData("x")]
    [InlineData("0")]
    [InlineData("-5")]
    public async Task A_budget_that_is_none_is_refused_where_it_stands(string text)
    {
        var account = await AccountAsync();

        (
            await Should.ThrowAsync<InvalidChangeException>(async () =>
                await fixture.DoAsync(account, await MoveAsync(account, "45", text, keepsSum: false))
            )
        ).Field.ShouldBe("budgets[1].budget");
        (await BudgetsAsync(account))["North"].ShouldBe(25);
    }

    [Theory]
    [InlineData(0)]
    [InlineData(long.MaxValue)]
    public async Task A_campaign_that_is_not_there_is_refused(long id)
    {
        var account = await AccountAsync();

        (
            await Should.ThrowAsync<InvalidChangeException>(() =>
                fixture.DoAsync(account, new MoveMoney([new BudgetInput(id, "5")], KeepsSum: false))
            )
        ).Message.ShouldContain("is not there any more");
    }

    [Theory]
    [InlineData("x", "15", "budget")]
    [InlineData("10", "x", "rest")]
    [InlineData("10", "", "rest")]
    public async Task A_budget_of_a_split_is_refused_where_it_stands(string own, string rest, string field)
    {
        var account = await AccountAsync();
        var split = new SplitOut(
            await IdAsync(account, "North", ItemKind.Campaign),
            [await IdAsync(account, "Tuning", ItemKind.AdGroup)],
            "New",
            own,
            rest
        );

        (await Should.ThrowAsync<InvalidChangeException>(() => fixture.DoAsync(account, split))).Field.ShouldBe(field);
    }

    [Fact]
    public async Task Campaigns_of_others_are_not_reached()
    {
        var (mine, other) = (await AccountAsync(), await AccountAsync());

        await Should.ThrowAsync<InvalidChangeException>(async () =>
            await fixture.DoAsync(mine, await MoveAsync(other, "30", "15"))
        );

        (await BudgetsAsync(other))["North"].ShouldBe(25);
    }

    [Fact]
    public async Task An_ad_group_gets_a_campaign_with_all_that_holds_for_it_and_the_rest_stays()
    {
        var account = await AccountAsync();
        var north = await IdAsync(account, "North", ItemKind.Campaign);

        var step = await fixture.DoAsync(
            account,
            new SplitOut(north, [await IdAsync(account, "Tuning", ItemKind.AdGroup)], "North tuning", "10", "15")
        );

        step.Label.ShouldBe("Split 1 ad group out into “North tuning”");
        (await BudgetsAsync(account)).ShouldBe(
            new Dictionary<string, decimal?>
            {
                ["North"] = 15,
                ["North tuning"] = 10,
                ["South"] = 20,
            },
            ignoreOrder: true
        );
        var made = await IdAsync(account, "North tuning", ItemKind.Campaign);
        async Task<string[]> InAsync(long campaign)
        {
            await using var connection = await fixture.Source.OpenConnectionAsync();
            return
            [
                .. await connection.QueryAsync<string>(
                    """
                    select 'ad group ' || name from ad_group where campaign_id = @campaign and not removed
                    union all select 'keyword ' || k.text from keyword k join ad_group g on g.id = k.ad_group_id where g.campaign_id = @campaign and not k.removed
                    union all select 'negative ' || text from negative_keyword where campaign_id = @campaign and not removed
                    union all select 'callout ' || text from callout where campaign_id = @campaign and not removed
                    union all select 'ad ' || a.headlines[1] from text_ad a join ad_group g on g.id = a.ad_group_id where g.campaign_id = @campaign and not a.removed
                    union all select 'phones ' || phone_modifier::float from campaign where id = @campaign
                    order by 1
                    """,
                    new { campaign }
                ),
            ];
        }

        (await InAsync(made)).ShouldBe([
            "ad Piano Tuning",
            "ad group Tuning",
            "callout Evening visits",
            "keyword piano tuning",
            "negative free",
            "negative guitar",
            "phones -20",
        ]);
        (await InAsync(north)).ShouldBe([
            "ad Piano Moving",
            "ad group Moving",
            "callout Evening visits",
            "keyword piano moving",
            "negative free",
            "phones -20",
        ]);
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        (await InAsync(north)).Length.ShouldBe(10);
        (await BudgetsAsync(account)).Keys.ShouldBe(["North", "South"]);
    }

    [Fact]
    public async Task A_split_that_leaves_nothing_or_takes_a_name_is_refused_as_a_whole()
    {
        var account = await AccountAsync();
        var (north, south) = (
            await IdAsync(account, "North", ItemKind.Campaign),
            await IdAsync(account, "South", ItemKind.Campaign)
        );
        var (tuning, hire) = (
            await IdAsync(account, "Tuning", ItemKind.AdGroup),
            await IdAsync(account, "Hire", ItemKind.AdGroup)
        );
        async Task<string> RefusedAsync(SplitOut split) =>
            (await Should.ThrowAsync<InvalidChangeException>(() => fixture.DoAsync(account, split))).Message;

        (await RefusedAsync(new SplitOut(south, [hire], "Hire", "5", "15"))).ShouldStartWith("These are all ad groups");
        (await RefusedAsync(new SplitOut(north, [hire], "Hire", "5", "15"))).ShouldStartWith("An ad group is not in");
        (await RefusedAsync(new SplitOut(north, [tuning], "south", "5", "15"))).ShouldContain("is there already");
        (await RefusedAsync(new SplitOut(north, [tuning], "New", "", "15"))).ShouldStartWith("Say a daily budget");
        (await RefusedAsync(new SplitOut(north, [tuning], "New", "x", "15"))).ShouldStartWith("Daily budget");
        (await BudgetsAsync(account)).ShouldBe(new Dictionary<string, decimal?> { ["North"] = 25, ["South"] = 20 });
    }

    private static readonly DateOnly Last = new(2026, 5, 31);

    /// <summary>Weeks of a campaign in two ad groups, of which the budget missed as many searches as it answered in the last one.</summary>
    private async Task<(int Account, long Campaign)> ReportedAsync(int weeks = 2)
    {
        var account = await AccountAsync();
        var campaign = await IdAsync(account, "North", ItemKind.Campaign);
        var (tuning, moving) = (
            await IdAsync(account, "Tuning", ItemKind.AdGroup),
            await IdAsync(account, "Moving", ItemKind.AdGroup)
        );
        var days = new Period(Last.AddDays(1 - 7 * weeks), Last);
        DateOnly[] each = [.. Enumerable.Range(0, 7 * weeks).Select(days.First.AddDays)];
        var reports = new DayReports(fixture.Source);
        await reports.StoreAsync(
            account,
            days,
            each.SelectMany(day =>
                    new[]
                    {
                        new StandingRow(day, campaign, tuning, 1, 60, 0, 0, 60, 40, day > Last.AddDays(-7) ? 100 : 0),
                        new StandingRow(day, campaign, moving, 2, 10, 0, 0, 10, 0, 0),
                    }
                )
                .ToAsyncEnumerable(),
            CancellationToken.None
        );
        await reports.StoreAsync(
            account,
            days,
            each.SelectMany(day =>
                    new[]
                    {
                        new PaceRow(day, 9, campaign, 25, 50, 20, 0, null),
                        new PaceRow(day, 17, campaign, 12, 20, 20, day > Last.AddDays(-7) ? 100 : 0, 20),
                    }
                )
                .ToAsyncEnumerable(),
            CancellationToken.None
        );
        await new PerformanceStore(fixture.Source).StoreAsync(
            account,
            days,
            each.SelectMany(day =>
                    new[]
                    {
                        new PerformanceRow(
                            day,
                            9,
                            campaign,
                            tuning,
                            1,
                            1,
                            Device.Phone,
                            SiteKinds.Search,
                            60,
                            10,
                            10,
                            1,
                            0
                        ),
                        new PerformanceRow(
                            day,
                            9,
                            campaign,
                            moving,
                            2,
                            1,
                            Device.Phone,
                            SiteKinds.Search,
                            10,
                            2,
                            2,
                            0,
                            0
                        ),
                    }
                )
                .ToAsyncEnumerable(),
            CancellationToken.None
        );
        return (account, campaign);
    }

    [Fact]
    public async Task What_a_budget_missed_is_read_ad_group_by_ad_group_and_day_by_day()
    {
        var (account, campaign) = await ReportedAsync();
        var money = await new AccountDemand(new BudgetReader(fixture.Source)).ReadAsync(
            account,
            new Period(Last.AddDays(-6), Last),
            CancellationToken.None
        );

        var north = money.Campaigns.Single(each => each.Campaign.Id == campaign);
        north
            .Demand.Days.Select(day => (day.Day, day.Got.Cost))
            .ShouldBe(Enumerable.Range(0, 7).Select(day => (Last.AddDays(day - 6), 12.0)));
        // 100 searches a day at one click in ten for £1, as the ad group's own, drawn a little towards the campaign.
        north.Curve.Demand.ShouldBe(22, 0.5);
        north.RanOut.ShouldBe(new RunningOut(7, 7, 17 * 60 + 20));
        // The week before nothing was missed: it knew of £12 a day, and £12 were spent.
        money.Trial.CostError!.Value.ShouldBe(0, 1e-9);
        money.Campaigns.Single(each => each.Campaign.Name == "South").Demand.Days.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_budget_that_changed_is_found_with_what_came_of_it()
    {
        var (account, campaign) = await ReportedAsync(weeks: 4);
        var demand = new AccountDemand(new BudgetReader(fixture.Source));
        (await demand.MovesAsync(account, Last, 5, CancellationToken.None)).ShouldBeEmpty();
        var days = new Period(Last.AddDays(-6), Last);
        await new DayReports(fixture.Source).StoreAsync(
            account,
            days,
            Enumerable
                .Range(0, 7)
                .Select(day => new PaceRow(days.First.AddDays(day), 17, campaign, 20, 70, 40, 0, null))
                .ToAsyncEnumerable(),
            CancellationToken.None
        );

        var move = (await demand.MovesAsync(account, Last, 5, CancellationToken.None)).ShouldHaveSingleItem();

        move.Day.ShouldBe(days.First);
        move.Budgets.ShouldBe([new ChangedBudget(campaign, 12, 20)]);
        // Nothing was missed in the weeks before: more money was not expected to be spent, and it was not.
        move.Cost.Likely.ShouldBe(84, 1e-6);
        move.Came.ShouldBe(new Outcome(84, 84, 7));
        move.CameTrue.ShouldBe(true);
    }

    [Fact]
    public async Task Hours_of_a_day_tell_what_was_spent_and_missed()
    {
        var (account, campaign) = await ReportedAsync();

        var hours = await new BudgetReader(fixture.Source).HoursAsync(
            account,
            campaign,
            new Period(Last, Last),
            CancellationToken.None
        );

        hours.Count.ShouldBe(24);
        hours
            .Where(hour => hour.Spent > 0 || hour.Missed > 0)
            .ShouldBe([new BudgetHour(9, 12, 0), new BudgetHour(17, 0, 100)]);
    }

    [Fact]
    public async Task The_month_is_that_of_the_account_and_adds_up_its_days()
    {
        var (account, _) = await ReportedAsync();
        await fixture.KeepAsync(account, "item,budget of a month\naccount,3300");

        var month = await new BudgetReader(fixture.Source).MonthAsync(
            account,
            new DateOnly(2026, 5, 20),
            new DateOnly(2026, 5, 30),
            CancellationToken.None
        );

        (month.Amount, month.Spent).ShouldBe((3_300, 120));
    }
}
