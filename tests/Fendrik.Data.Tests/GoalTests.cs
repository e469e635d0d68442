using Dapper;
using Fendrik.Core.Changes;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Data.Accounts;
using Fendrik.Data.Calls;
using Fendrik.Data.Commands;
using Fendrik.Data.Conversions;
using Fendrik.Data.Results;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

[Collection(nameof(WorkingCopyFixture))]
public class GoalTests(WorkingCopyFixture fixture)
{
    private static readonly DateOnly Last = new(2026, 5, 11);
    private static readonly DateTimeOffset Heard = new(2026, 5, 12, 6, 0, 0, TimeSpan.Zero);

    private async Task<int> AccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        await ApplyAsync(account, Change.Campaign("Tuning", 25));
        await ApplyAsync(account, Change.Campaign("Sales", 25));
        await PutAsync(account, "Form", "form");
        await PutAsync(account, "Call", "call from an ad");
        await PutAsync(account, "List seen", "page reached", ("address", "a.example/list"), ("accountGoal", "no"));
        return account;
    }

    private Task<StepResult> ApplyAsync(int account, IWorkingCopyChange change) =>
        fixture.WorkingCopy.ApplyAsync(account, WorkingCopyFixture.Person, change, false, CancellationToken.None);

    private Task<StepResult> PutAsync(
        int account,
        string name,
        string source,
        params (string Field, string Text)[] more
    ) =>
        ApplyAsync(
            account,
            new PutItem(
                ItemKind.ConversionAction,
                more.Append(("name", name))
                    .Append(("source", source))
                    .ToDictionary(each => each.Item1, each => (FieldInput)each.Item2),
                new ItemPlaces(),
                null
            )
        );

    private async Task<long> IdAsync(int account, string name) =>
        (await fixture.RowsAsync(account))
            .Concat(await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.ConversionAction }))
            .First(row => row.Name == name)
            .Id;

    private async Task<string?> GoalsAsync(int account, string campaign)
    {
        await using var connection = await fixture.Source.OpenConnectionAsync();
        return await connection.ExecuteScalarAsync<string?>(
            "select goals from campaign where account_id = @account and name = @campaign",
            new { account, campaign }
        );
    }

    [Fact]
    public async Task Goals_of_a_campaign_are_set_in_one_step_and_taken_back()
    {
        var account = await AccountAsync();
        var campaign = await IdAsync(account, "Sales");

        var step = await ApplyAsync(
            account,
            new SetGoals([campaign], [await IdAsync(account, "List seen"), await IdAsync(account, "Form")])
        );

        step.Label.ShouldBe("Set goals of 1 campaign to Form; List seen");
        (await GoalsAsync(account, "Sales")).ShouldBe("Form; List seen");
        (await GoalsAsync(account, "Tuning")).ShouldBeNull();
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        (await GoalsAsync(account, "Sales")).ShouldBeNull();
    }

    [Fact]
    public async Task Goals_follow_an_action_that_is_called_something_else_and_come_back_with_it()
    {
        var account = await AccountAsync();
        var form = await IdAsync(account, "Form");
        await ApplyAsync(
            account,
            new SetGoals([await IdAsync(account, "Sales")], [form, await IdAsync(account, "List seen")])
        );

        await ApplyAsync(
            account,
            new PutItem(
                ItemKind.ConversionAction,
                new Dictionary<string, FieldInput> { ["name"] = "Ask for a price" },
                new ItemPlaces(),
                form
            )
        );

        (await GoalsAsync(account, "Sales")).ShouldBe("Ask for a price; List seen");
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        (await GoalsAsync(account, "Sales")).ShouldBe("Form; List seen");
    }

    [Fact]
    public async Task Goals_that_come_to_those_of_the_account_are_none_of_the_campaigns_own()
    {
        var account = await AccountAsync();
        var campaign = await IdAsync(account, "Sales");
        await ApplyAsync(account, new SetGoals([campaign], [await IdAsync(account, "Form")]));

        await ApplyAsync(
            account,
            new SetGoals([campaign], [await IdAsync(account, "Call"), await IdAsync(account, "Form")])
        );

        (await GoalsAsync(account, "Sales")).ShouldBeNull();
    }

    [Fact]
    public async Task A_campaign_without_any_goal_is_refused_and_a_goal_that_is_gone_is_told()
    {
        var account = await AccountAsync();
        var campaign = await IdAsync(account, "Sales");
        var form = await IdAsync(account, "Form");
        await ApplyAsync(account, new RemoveItems(new[] { new ItemReference(ItemKind.ConversionAction, form) }));

        (
            await Should.ThrowAsync<InvalidChangeException>(() => ApplyAsync(account, new SetGoals([campaign], [])))
        ).Message.ShouldStartWith("A campaign needs a goal");
        (
            await Should.ThrowAsync<InvalidChangeException>(() => ApplyAsync(account, new SetGoals([campaign], [form])))
        ).Message.ShouldStartWith("A conversion action among the goals is gone");
    }

    [Fact]
    public async Task What_a_lead_is_worth_is_kept_with_what_it_was_worked_out_from()
    {
        var account = await AccountAsync();
        var form = await IdAsync(account, "Form");

        var step = await ApplyAsync(account, new SetWorth(form, new TypedWorth("340", "25", "50 %")));

        step.Label.ShouldBe("Value “Form” at £42.50");
        await using var connection = await fixture.Source.OpenConnectionAsync();
        (
            await connection.QuerySingleAsync<(decimal, decimal, decimal, decimal)>(
                "select fixed_value, average_sale, closing_rate, margin from conversion_action where id = @form",
                new { form }
            )
        ).ShouldBe((42.5m, 340m, 25m, 50m));
    }

    [Theory]
    [InlineData("", "25", "50", "averageSale")]
    [InlineData("340", "101", "50", "closingRate")]
    [InlineData("340", "25", "half", "margin")]
    public async Task A_worth_that_cannot_be_names_the_part(string sale, string closing, string margin, string field)
    {
        var account = await AccountAsync();
        var form = await IdAsync(account, "Form");

        var refused = await Should.ThrowAsync<InvalidChangeException>(() =>
            ApplyAsync(account, new SetWorth(form, new TypedWorth(sale, closing, margin)))
        );

        refused.Field.ShouldBe(field);
    }

    private async Task<(int Account, long Tuning, long Form, long Call)> ReportedAsync()
    {
        var account = await AccountAsync();
        var (tuning, form, call) = (
            await IdAsync(account, "Tuning"),
            await IdAsync(account, "Form"),
            await IdAsync(account, "Call")
        );
        await using (var connection = await fixture.Source.OpenConnectionAsync())
        {
            await connection.ExecuteAsync(
                "select set_config('fendrik.step', '0', true); update conversion_action set is_live = true where account_id = @account",
                new { account }
            );
        }

        var period = new Period(Last.AddDays(-59), Last);
        var reports = new DayReports(fixture.Source);
        await reports.StoreAsync(
            account,
            period,
            Days()
                // Forms come every day up to a fortnight before the end; calls every day, on the same click as the form.
                .SelectMany(day =>
                    new[]
                    {
                        day < Last.AddDays(-13) ? Row(day, tuning, form, $"click {day:yyyyMMdd}", 1) : null,
                        Row(day, tuning, call, $"click {day:yyyyMMdd}", 2),
                    }
                )
                .OfType<ConversionRow>()
                .ToAsyncEnumerable(),
            CancellationToken.None
        );
        var store = new PerformanceStore(fixture.Source);
        await store.StoreAsync(
            account,
            period,
            Days()
                .Select(day => new PerformanceRow(
                    day,
                    9,
                    tuning,
                    1,
                    1,
                    1,
                    Device.Phone,
                    SiteKinds.Search,
                    100,
                    10,
                    12m,
                    1,
                    60
                ))
                .ToAsyncEnumerable(),
            CancellationToken.None
        );
        await store.HeardAsync(account, Heard, CancellationToken.None);
        return (account, tuning, form, call);
    }

    private static IEnumerable<DateOnly> Days() => Enumerable.Range(0, 60).Select(at => Last.AddDays(at - 59));

    private static ConversionRow Row(DateOnly day, long campaign, long action, string click, int hours)
    {
        var clicked = new DateTimeOffset(day.ToDateTime(new TimeOnly(9, 0)), TimeSpan.Zero);
        return new ConversionRow(
            day,
            10,
            campaign,
            1,
            1,
            1,
            Device.Phone,
            action,
            click,
            clicked,
            clicked.AddHours(hours),
            clicked.AddHours(hours),
            60,
            true,
            true
        );
    }

    [Fact]
    public async Task An_action_that_fell_silent_and_two_that_count_the_same_clicks_are_found()
    {
        var (account, _, form, call) = await ReportedAsync();

        var read = await new ConversionReader(fixture.Source).ReadAsync(account, 28, CancellationToken.None);

        read.Actions.Single(each => each.Action.Id == form)
            .Health.ShouldSatisfyAllConditions(
                health => health.State.ShouldBe(ActionState.Silent),
                health => health.LastDay.ShouldBe(Last.AddDays(-14)),
                health => health.Missed.ShouldBe(14, 1e-9)
            );
        read.Actions.Single(each => each.Action.Id == call).Health.State.ShouldBe(ActionState.Works);
        read.Findings.Select(finding => finding.Code).ShouldBe(["silent", "twice", "never"], ignoreOrder: true);
        read.Findings.Single(finding => finding.Code == "twice").Message.ShouldBe("14 counted twice");
    }

    [Fact]
    public async Task An_action_that_was_made_after_the_last_report_is_not_judged_by_the_weeks_before()
    {
        var (account, _, _, _) = await ReportedAsync();
        await PutAsync(account, "Brochure", "form");

        var read = await new ConversionReader(fixture.Source).ReadAsync(account, 28, CancellationToken.None);

        read.Actions.Single(each => each.Action.Name == "Brochure").Health.State.ShouldBe(ActionState.TooNew);
        read.Actions.Single(each => each.Action.Name == "List seen").Health.Days.ShouldBe(60);
    }

    [Fact]
    public async Task Goals_of_a_colleague_are_told_and_not_overwritten()
    {
        var account = await AccountAsync();
        var campaign = await IdAsync(account, "Sales");
        var seen = (await new ConversionReader(fixture.Source).ReadAsync(account, 28, CancellationToken.None)).Versions[
            (ItemKind.Campaign, campaign)
        ];
        await ApplyAsync(account, new SetGoals([campaign], [await IdAsync(account, "Form")]));

        await Should.ThrowAsync<StaleEditException>(async () =>
            await fixture.WorkingCopy.ApplyAsync(
                account,
                WorkingCopyFixture.Person,
                new SetGoals([campaign], [await IdAsync(account, "Call")]),
                false,
                CancellationToken.None,
                seen: [new SeenItem(ItemKind.Campaign, campaign, seen)]
            )
        );

        (await GoalsAsync(account, "Sales")).ShouldBe("Form");
    }

    [Fact]
    public async Task What_actions_counted_is_told_by_campaign_and_by_day()
    {
        var (account, tuning, form, call) = await ReportedAsync();

        var read = await new ConversionReader(fixture.Source).ReadAsync(account, 28, CancellationToken.None);

        read.Counted.ShouldBe(
            [new CountedInCampaign(tuning, form, 14, 840), new CountedInCampaign(tuning, call, 28, 1_680)],
            ignoreOrder: true
        );
        read.Days[form].Count().ShouldBe(14);
        read.Spent[tuning].ShouldBe((336m, 280L));
    }

    [Fact]
    public async Task How_long_conversions_take_is_known_from_those_that_were_told()
    {
        var (account, _, _, _) = await ReportedAsync();

        var read = await new ConversionReader(fixture.Source).ReadAsync(account, 28, CancellationToken.None);

        // The first of a click counts: an hour after it for days with a form, two hours for the others.
        read.Curve!.Conversions.ShouldBe(60);
        read.Curve.AgeOf(0.5).ShouldBe(1 / 24.0);
        read.Curve.AgeOf(1).ShouldBe(2 / 24.0);
        (read.Open[0].Day, read.Open[0].Clicks, read.Open[0].SoFar).ShouldBe((Last, 10, 1));
        // It was heard of at 7 o’clock in summer time, 19 hours after the middle of the day.
        read.Open[0].Age.ShouldBe(19 / 24.0, 1e-9);
    }

    [Fact]
    public async Task Another_account_sees_nothing_of_them()
    {
        await ReportedAsync();
        var other = await AccountAsync();

        var read = await new ConversionReader(fixture.Source).ReadAsync(other, 28, CancellationToken.None);

        (read.Period, read.Counted.Count, read.Curve).ShouldBe((null, 0, null));
    }

    [Fact]
    public async Task Calls_are_told_by_the_day_of_the_call_and_the_clock_on_the_wall()
    {
        var account = await AccountAsync();
        var tuning = await IdAsync(account, "Tuning");
        // In Great Britain clocks go forward on 29 March 2026: a call at 23:30 UTC on the 30th is one at half past midnight on the 31st.
        var at = new DateTimeOffset(2026, 3, 30, 23, 30, 0, TimeSpan.Zero);
        await new DayReports(fixture.Source).StoreAsync(
            account,
            new Period(new DateOnly(2026, 3, 29), new DateOnly(2026, 3, 29)),
            new[]
            {
                new CallRow(
                    new DateOnly(2026, 3, 29),
                    tuning,
                    1,
                    1,
                    1,
                    Device.Phone,
                    true,
                    "click",
                    at.AddHours(-40),
                    1.2m,
                    at,
                    6,
                    90,
                    Core.Calls.CallEnd.Answered,
                    "Leeds",
                    "somebody"
                ),
            }.ToAsyncEnumerable(),
            CancellationToken.None
        );
        var reader = new CallReader(fixture.Source);
        Task<IReadOnlyList<CallInLog>> On(int day) =>
            reader.ReadAsync(
                account,
                new Period(new DateOnly(2026, 3, day), new DateOnly(2026, 3, day)),
                null,
                null,
                CancellationToken.None
            );

        (await On(30)).ShouldBeEmpty();
        (await On(31))
            .ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(
                call => call.Call.At.ShouldBe(new DateTime(2026, 3, 31, 0, 30, 0)),
                call => (call.Campaign, call.Area, call.Call.Talked).ShouldBe(("Tuning", "Leeds", 90))
            );
    }
}
