using Fendrik.Core.Lists;
using Fendrik.Data.Intakes;

namespace Fendrik.Data.Tests;

/// <summary>A list is looked through, mended where it lies, and never loses a word in silence.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class IntakeWorksheetTests(WorkingCopyFixture fixture)
{
    private const string Header = "campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc\n";

    private async Task<IReadOnlyList<IntakeListRow>> RowsAsync(int account, long intake, IntakeShown shown) =>
        (await fixture.Intakes.RowsAsync(account, intake, 0, 100, CancellationToken.None, shown))!;

    private static IntakeColumns Columns(IntakeView view) =>
        new(
            view.HasHeader,
            view.Columns,
            view.DefaultCampaign,
            view.DefaultAdGroup,
            view.BareMatch,
            view.NegativeMatch
        );

    private async Task<IntakeView> SetAsync(int account, long intake, IntakeColumns columns)
    {
        await fixture.Intakes.SetColumnsAsync(account, intake, columns, CancellationToken.None);
        await fixture.Reading.ReadAsync(intake, _ => Task.CompletedTask, CancellationToken.None);
        return await fixture.ViewAsync(account, intake);
    }

    private async Task MendAsync(int account, long intake, int row, int place, string text) =>
        await fixture.Intakes.MendAsync(
            await fixture.WorkingCopy.FactsAsync(account, CancellationToken.None),
            intake,
            new IntakeMend(row, place, text),
            CancellationToken.None
        );

    [Fact]
    public async Task A_cell_that_is_left_out_is_mended_in_place_and_judged_at_once()
    {
        var account = await fixture.NewAccountAsync();
        var intake = await fixture.PasteAsync(
            account,
            Header + "North,25,Tuning,1.00,piano tuning,exact,\"1,2O\"\nNorth,25,Tuning,1.00,piano tuner,exact,0.90\n"
        );
        var left = (await RowsAsync(account, intake, IntakeShown.LeftOut)).ShouldHaveSingleItem();
        (left.RowNumber, left.ProblemPlace).ShouldBe((2, 6));

        await MendAsync(account, intake, left.RowNumber, 6, "1.20");

        (await RowsAsync(account, intake, IntakeShown.LeftOut)).ShouldBeEmpty();
        await fixture.DoAsync(account, new KeepIntake(intake));
        (await fixture.RowAsync(account, "piano tuning")).MaxCpc.ShouldBe(1.20m);
    }

    [Fact]
    public async Task A_mended_cell_holds_when_the_list_is_read_again_with_other_columns()
    {
        var account = await fixture.NewAccountAsync();
        var intake = await fixture.PasteAsync(account, Header + "North,25,Tuning,1.00,piano tuning,exakt,1.20\n");
        await MendAsync(account, intake, 2, 5, "exact");
        var view = await fixture.ViewAsync(account, intake);

        await SetAsync(account, intake, Columns(view));

        (await RowsAsync(account, intake, IntakeShown.New)).ShouldHaveSingleItem().Cells[5].ShouldBe("exact");
    }

    [Fact]
    public async Task A_row_that_is_not_there_is_not_mended()
    {
        var account = await fixture.NewAccountAsync();
        var intake = await fixture.PasteAsync(account, Header + "North,25,Tuning,1.00,piano tuning,exact,1.20\n");

        var error = await Should.ThrowAsync<InvalidChangeException>(() => MendAsync(account, intake, 9, 5, "exact"));

        error.Message.ShouldContain("not there any more");
    }

    [Fact]
    public async Task Counts_are_filters_and_what_changes_shows_the_cell_of_before()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(
            account,
            Header + "North,25,Tuning,1.00,piano tuning,exact,0.80\nNorth,25,Tuning,1.00,piano hire,exact,0.70\n"
        );
        var intake = await fixture.PasteAsync(
            account,
            Header
                + "North,30,Tuning,1.00,piano tuning,exact,0.95\nNorth,30,Tuning,1.00,piano hire,exact,0.70\nNorth,30,Tuning,1.00,piano tuner,exact,\n"
        );

        var changed = (await RowsAsync(account, intake, IntakeShown.Changed)).ShouldHaveSingleItem();
        changed.Cells[4].ShouldBe("piano tuning");
        changed.Before.ShouldBe([null, "25.00", null, null, null, null, "0.80"]);
        (await RowsAsync(account, intake, IntakeShown.Same)).Select(row => row.Cells[4]).ShouldBe(["piano hire"]);
        (await RowsAsync(account, intake, IntakeShown.New)).Select(row => row.Cells[4]).ShouldBe(["piano tuner"]);
        (await fixture.ViewAsync(account, intake))
            .Rows.OrderBy(count => count.Outcome)
            .Select(count => (count.Outcome, count.Count))
            .ShouldBe([(IntakeOutcome.New, 1), (IntakeOutcome.Edit, 1), (IntakeOutcome.Same, 1)]);
    }

    [Fact]
    public async Task Rows_that_contradict_each_other_are_named_both()
    {
        var account = await fixture.NewAccountAsync();
        var intake = await fixture.PasteAsync(
            account,
            Header
                + "North,25,Tuning,1.00,piano tuning,exact,\nNorth,40,Tuning,1.00,piano tuner,exact,\nNorth,25,Tuning,1.50,piano hire,exact,\n"
        );

        (await fixture.ViewAsync(account, intake))
            .Contradictions.Select(each =>
                (each.Kind, each.Name, each.Field, each.FirstRow, each.First, each.OtherRow, each.Other)
            )
            .ShouldBe([
                (ItemKind.Campaign, "North", "daily budget", 2, "£25.00", 3, "£40.00"),
                (ItemKind.AdGroup, "Tuning", "max CPC", 2, "£1.00", 4, "£1.50"),
            ]);
    }

    [Fact]
    public async Task What_bare_keywords_are_is_asked_once_and_remembered_for_the_account()
    {
        var account = await fixture.NewAccountAsync();
        const string bare =
            "campaign,daily budget,ad group,ad group max cpc,keyword\nNorth,25,Tuning,1.00,piano tuning\nNorth,25,Tuning,1.00,[piano tuner]\n";
        var intake = await fixture.PasteAsync(account, bare);
        var view = await fixture.ViewAsync(account, intake);
        (view.BareKeywords, view.BareMatchKnown).ShouldBe((1, false));

        await SetAsync(account, intake, Columns(view) with { BareMatch = MatchType.AllWords, BareMatchChosen = true });

        var next = await fixture.ViewAsync(account, await fixture.PasteAsync(account, bare.Replace("piano", "organ")));
        (next.BareMatchKnown, next.BareMatch).ShouldBe((true, MatchType.AllWords));
    }

    [Theory]
    [InlineData(true, ItemState.Paused)]
    [InlineData(false, ItemState.Running)]
    public async Task New_campaigns_arrive_as_chosen_and_that_is_remembered(bool paused, ItemState state)
    {
        var account = await fixture.NewAccountAsync();
        var intake = await fixture.PasteAsync(account, Header + "North,25,Tuning,1.00,piano tuning,exact,\n");
        await SetAsync(account, intake, Columns(await fixture.ViewAsync(account, intake)) with { NewPaused = paused });
        await fixture.DoAsync(account, new KeepIntake(intake));
        await fixture.KeepAsync(account, Header + "South,25,Tuning,1.00,piano tuning,exact,\n");

        (await fixture.RowAsync(account, "North")).State.ShouldBe(state);
        (await fixture.RowAsync(account, "South")).State.ShouldBe(state);
    }

    [Fact]
    public async Task A_new_campaign_starts_today_unless_the_list_says_otherwise()
    {
        var account = await fixture.NewAccountAsync();
        var today = new DateOnly(2027, 3, 4);
        await fixture.DoAsync(
            account,
            new KeepIntake(
                await fixture.PasteAsync(account, Header + "North,25,Tuning,1.00,piano tuning,exact,\n"),
                today
            )
        );
        await fixture.DoAsync(
            account,
            new KeepIntake(
                await fixture.PasteAsync(account, "campaign,daily budget,start date\nSouth,25,2027-05-01\nWest,25,\n"),
                today
            )
        );

        (await fixture.RowAsync(account, "North")).StartDate.ShouldBe(today);
        (await fixture.RowAsync(account, "South")).StartDate.ShouldBe(new DateOnly(2027, 5, 1));
        (await fixture.RowAsync(account, "West")).StartDate.ShouldBeNull();
    }

    [Fact]
    public async Task Filled_cells_of_a_column_that_is_left_out_are_counted()
    {
        var account = await fixture.NewAccountAsync();
        var view = await fixture.ViewAsync(
            account,
            await fixture.PasteAsync(
                account,
                "campaign,note,ad group\nNorth,from March,Tuning\nNorth,,Hire\nNorth,later,Repair\n"
            )
        );

        (view.Columns[1], view.FilledCells[1]).ShouldBe(("", 2));
        view.Confidence[0].ShouldBe(100);
    }

    [Fact]
    public async Task Toggling_the_header_guesses_the_columns_anew()
    {
        var account = await fixture.NewAccountAsync();
        var intake = await fixture.PasteAsync(
            account,
            "keyword,match type\n[piano tuning],exact\n[piano hire],exact\n[tuner],exact\n[organ],exact\n"
        );
        var view = await fixture.ViewAsync(account, intake);
        view.Columns.ShouldBe(["keyword", "matchType"]);

        var anew = await SetAsync(account, intake, Columns(view) with { HasHeader = false, GuessAnew = true });

        (anew.HasHeader, anew.Columns[0], anew.Columns[1]).ShouldBe((false, "keyword", "matchType"));
        anew.Rows.Sum(count => count.Count).ShouldBe(5);
    }

    [Fact]
    public async Task Several_lists_wait_and_one_that_was_taken_back_says_so()
    {
        var account = await fixture.NewAccountAsync();
        var one = await fixture.PasteAsync(account, Header + "North,25,Tuning,1.00,piano tuning,exact,\n");
        var other = await fixture.PasteAsync(account, Header + "South,25,Tuning,1.00,piano tuning,exact,\n");
        (await fixture.Intakes.WaitingAsync(account, WorkingCopyFixture.Person, CancellationToken.None))
            .Select(list => list.Id)
            .ShouldBe([other, one]);

        await fixture.DoAsync(account, new KeepIntake(one));
        (await fixture.ViewAsync(account, one)).Done.ShouldBe(new IntakeDone(3, false));
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);

        (await fixture.ViewAsync(account, one)).Done.ShouldBe(new IntakeDone(3, true));
        (await fixture.Intakes.WaitingAsync(account, WorkingCopyFixture.Person, CancellationToken.None))
            .Select(list => list.Id)
            .ShouldBe([other]);
    }
}
