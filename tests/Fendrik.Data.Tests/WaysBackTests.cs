using Dapper;
using Fendrik.Data.Intakes;

namespace Fendrik.Data.Tests;

/// <summary>Whose step is taken back, for how long, and who has to wait for whom.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class WaysBackTests(WorkingCopyFixture fixture)
{
    private const string Colleague = "a-colleague";

    private const string List =
        "campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc\nNorth,25,Tuning,1.00,piano tuning,exact,0.80\n";

    private async Task<int> AccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        return account;
    }

    private async Task<ItemReference> KeywordAsync(int account) =>
        WorkingCopyFixture.Reference(await fixture.RowAsync(account, "piano tuning"));

    private async Task<decimal?> BidAsync(int account) => (await fixture.RowAsync(account, "piano tuning")).MaxCpc;

    [Fact]
    public async Task Undo_takes_back_ones_own_last_step_and_not_a_colleagues()
    {
        var account = await AccountAsync();
        var keyword = await KeywordAsync(account);
        await fixture.DoAsync(account, Change.Set([keyword], "state", "paused"));
        await fixture.WorkingCopy.ApplyAsync(
            account,
            Colleague,
            Change.Set([keyword], "maxCpc", "2"),
            false,
            CancellationToken.None
        );

        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);

        var row = await fixture.RowAsync(account, "piano tuning");
        (row.State, row.MaxCpc).ShouldBe((ItemState.Running, 2m));
        (await fixture.History.NextUndoAsync(account, Colleague, CancellationToken.None))!.Label.ShouldContain("£2.00");
    }

    [Fact]
    public async Task A_step_whose_rows_were_removed_since_can_still_be_read_and_taken_back_or_not_but_never_fails()
    {
        var account = await AccountAsync();
        var keyword = await KeywordAsync(account);
        var bid = await fixture.DoAsync(account, Change.Set([keyword], "maxCpc", "2"));
        await fixture.DoAsync(account, new RemoveItems([keyword]));

        await fixture.History.TakeBackAsync(
            account,
            WorkingCopyFixture.Person,
            bid.StepId!.Value,
            false,
            CancellationToken.None
        );

        foreach (var step in await fixture.History.ListAsync(account, null, 50, CancellationToken.None))
        {
            (await fixture.History.ChangesOfAsync(account, step.Id, 100, CancellationToken.None)).ShouldNotBeNull();
        }
    }

    [Fact]
    public async Task A_preview_waits_for_nobody_who_holds_the_account()
    {
        var account = await AccountAsync();
        var keyword = await KeywordAsync(account);
        await using var connection = await fixture.Source.OpenConnectionAsync();
        await using var held = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select from account where id = @account for no key update", new { account });

        var preview = await fixture
            .DoAsync(account, Change.Set([keyword], "maxCpc", "2"), preview: true)
            .WaitAsync(TimeSpan.FromSeconds(20));

        preview.Items.ShouldBe(1);
    }

    [Fact]
    public async Task Steps_older_than_is_kept_are_told_and_can_no_longer_be_taken_back()
    {
        var account = await AccountAsync();
        await fixture.DoAsync(account, Change.Set([await KeywordAsync(account)], "maxCpc", "2"));
        await using var connection = await fixture.Source.OpenConnectionAsync();
        await connection.ExecuteAsync(
            "update step set made_at = made_at - interval '100 days' where account_id = @account",
            new { account }
        );

        await new KeptHistory(fixture.Source, TimeProvider.System).ForgetAsync(90, CancellationToken.None);

        var entries = await fixture.History.ListAsync(account, null, 50, CancellationToken.None);
        entries.Count.ShouldBe(2);
        entries.ShouldAllBe(entry => !entry.CanUndo);
        (await BidAsync(account)).ShouldBe(2m);
    }

    [Theory]
    [InlineData("+10%", 0.88)]
    [InlineData("−0.10", 0.70)]
    [InlineData("1,234", 1234)]
    [InlineData("2", 2)]
    public async Task A_cell_raises_lowers_and_sets_as_the_panel_does(string text, double bid)
    {
        var account = await AccountAsync();
        var keyword = await KeywordAsync(account);
        await fixture.DoAsync(account, Change.Cell(keyword, "maxCpc", text));
        var byCell = await BidAsync(account);
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        await fixture.DoAsync(account, Change.Set([keyword], "maxCpc", text));

        (byCell, await BidAsync(account)).ShouldBe(((decimal)bid, (decimal)bid));
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task An_emptied_daily_budget_is_none_typed_or_pasted(bool pasted)
    {
        var account = await AccountAsync();
        var campaign = WorkingCopyFixture.Reference(await fixture.RowAsync(account, "North"));

        await fixture.DoAsync(
            account,
            pasted ? Change.Cell(campaign, "dailyBudget", "") : Change.Set([campaign], "dailyBudget", "")
        );

        (await fixture.RowAsync(account, "North")).DailyBudget.ShouldBeNull();
    }

    [Fact]
    public async Task Eight_per_cent_less_of_a_small_amount_takes_off_the_smallest_coin()
    {
        var account = await AccountAsync();
        var keyword = await KeywordAsync(account);
        await fixture.DoAsync(account, Change.Set([keyword], "maxCpc", "0.06"));

        await fixture.DoAsync(account, Change.Set([keyword], "maxCpc", "−8%"));

        (await BidAsync(account)).ShouldBe(0.05m);
    }

    private Task<StepResult?> TakeBackAsync(int account, StepResult step, bool preview = false) =>
        fixture.History.TakeBackAsync(
            account,
            WorkingCopyFixture.Person,
            step.StepId!.Value,
            preview,
            CancellationToken.None
        );

    private Task<StepResult> ByColleagueAsync(int account, IWorkingCopyChange change) =>
        fixture.WorkingCopy.ApplyAsync(account, Colleague, change, false, CancellationToken.None);

    [Fact]
    public async Task Undoing_just_one_step_takes_back_the_rows_that_can_go_and_names_the_one_that_was_changed_again()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List + "North,25,Tuning,1.00,piano tuner,exact,0.90\n");
        var tuning = await KeywordAsync(account);
        var tuner = WorkingCopyFixture.Reference(await fixture.RowAsync(account, "piano tuner"));
        var raised = await fixture.DoAsync(account, Change.Set([tuning, tuner], "maxCpc", "2"));
        await ByColleagueAsync(account, Change.Set([tuner], "maxCpc", "3"));

        var back = (await TakeBackAsync(account, raised))!;

        (await BidAsync(account)).ShouldBe(0.80m);
        (await fixture.RowAsync(account, "piano tuner")).MaxCpc.ShouldBe(3m);
        back.Items.ShouldBe(1);
        var left = back.Refused.ShouldHaveSingleItem();
        left.Name.ShouldBe("piano tuner");
        left.Reason.ShouldContain("changed it again since");
    }

    [Fact]
    public async Task Undo_after_undoing_just_one_step_takes_back_just_that()
    {
        var account = await AccountAsync();
        var keyword = await KeywordAsync(account);
        var raised = await fixture.DoAsync(account, Change.Set([keyword], "maxCpc", "2"));
        await fixture.DoAsync(account, Change.Set([keyword], "state", "paused"));
        await TakeBackAsync(account, raised);

        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);

        var row = await fixture.RowAsync(account, "piano tuning");
        (row.State, row.MaxCpc).ShouldBe((ItemState.Paused, 2m));
    }

    [Fact]
    public async Task A_step_taken_back_in_part_can_be_taken_back_again_once_nothing_stands_in_the_way()
    {
        var account = await AccountAsync();
        var keyword = await KeywordAsync(account);
        var raised = await fixture.DoAsync(account, Change.Set([keyword], "maxCpc", "2"));
        await fixture.DoAsync(account, Change.Set([keyword], "maxCpc", "3"));
        (await TakeBackAsync(account, raised))!.Items.ShouldBe(0);
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);

        (await TakeBackAsync(account, raised))!.Items.ShouldBe(1);

        (await BidAsync(account)).ShouldBe(0.80m);
    }

    [Fact]
    public async Task An_ad_group_that_holds_what_came_later_stays_when_the_list_that_made_it_is_taken_back()
    {
        var account = await fixture.NewAccountAsync();
        var intake = await fixture.PasteAsync(account, List);
        var made = await fixture.DoAsync(account, new KeepIntake(intake));
        await fixture.KeepAsync(account, "campaign,ad group,keyword,match type\nNorth,Tuning,piano tuner,exact\n");

        var back = (await TakeBackAsync(account, made))!;

        (await fixture.RowsAsync(account)).Select(row => row.Name).ShouldBe(["North", "Tuning", "piano tuner"]);
        back.Refused.Select(row => row.Name).ShouldBe(["North", "Tuning"], ignoreOrder: true);
    }

    [Fact]
    public async Task A_keyword_does_not_come_back_beside_its_twin()
    {
        var account = await AccountAsync();
        var removed = await fixture.DoAsync(account, new RemoveItems([await KeywordAsync(account)]));
        await fixture.KeepAsync(account, List);

        var back = (await TakeBackAsync(account, removed))!;

        back.Items.ShouldBe(0);
        back.Refused.ShouldHaveSingleItem().Reason.ShouldBe("the same is there again");
    }

    [Fact]
    public async Task What_was_said_yes_to_is_not_done_when_a_colleague_changed_one_of_its_rows_since()
    {
        var account = await AccountAsync();
        var keyword = await KeywordAsync(account);
        var change = Change.Set([keyword], "state", "paused");
        var preview = await fixture.DoAsync(account, change, preview: true);
        await ByColleagueAsync(account, Change.Set([keyword], "maxCpc", "2"));

        var refused = await Should.ThrowAsync<PreviewMovedException>(() => DoAsShownAsync(account, change, preview));

        refused.Names.ShouldBe(["piano tuning"]);
        (await fixture.RowAsync(account, "piano tuning")).State.ShouldBe(ItemState.Running);
    }

    [Fact]
    public async Task What_was_said_yes_to_is_not_done_when_its_filter_lets_through_more_by_now()
    {
        var account = await AccountAsync();
        var change = new RemoveItems(new ItemSet([], new SheetRequest { Kind = ItemKind.Keyword }));
        var preview = await fixture.DoAsync(account, change, preview: true);
        await ByColleagueAsync(
            account,
            new KeepIntake(await fixture.PasteAsync(account, List.Replace("piano tuning", "piano tuner")))
        );

        await Should.ThrowAsync<PreviewMovedException>(() => DoAsShownAsync(account, change, preview));
    }

    [Fact]
    public async Task What_was_said_yes_to_is_done_when_a_colleague_was_busy_elsewhere()
    {
        var account = await AccountAsync();
        var change = Change.Set([await KeywordAsync(account)], "state", "paused");
        var preview = await fixture.DoAsync(account, change, preview: true);
        var campaign = WorkingCopyFixture.Reference(await fixture.RowAsync(account, "North"));
        await ByColleagueAsync(account, Change.Set([campaign], "dailyBudget", "30"));

        (await DoAsShownAsync(account, change, preview)).Items.ShouldBe(1);
    }

    private Task<StepResult> DoAsShownAsync(int account, IWorkingCopyChange change, StepResult preview) =>
        fixture.WorkingCopy.ApplyAsync(
            account,
            WorkingCopyFixture.Person,
            change,
            false,
            CancellationToken.None,
            shown: new ShownPreview(preview.AsOf, preview.Items)
        );
}
