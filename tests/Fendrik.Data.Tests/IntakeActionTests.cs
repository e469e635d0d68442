using Fendrik.Core.Accounts;
using Fendrik.Core.Lists;
using Fendrik.Data.Intakes;
using Fendrik.Data.Model;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

/// <summary>What a list does to what is there: add, change, remove, take values away; lists, labels, remembered columns.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class IntakeActionTests(WorkingCopyFixture fixture)
{
    private const string Start = """
        campaign,ad group,daily budget,keyword,match type,max cpc,landing page,labels
        York,,20.00,,,,,
        York,Tuning,,piano tuning,exact,1.00,https://tarnandfell.example/tuning,spring
        York,Tuning,,piano tuner,phrase,1.10,,
        York,Hire,,piano hire,exact,0.90,,
        """;

    [Fact]
    public async Task A_row_without_an_action_adds_what_is_new_and_changes_what_is_there()
    {
        var account = await StartedAsync();

        await fixture.KeepAsync(
            account,
            "campaign,ad group,keyword,match type,max cpc\nYork,Tuning,piano tuning,exact,1.50\nYork,Tuning,grand tuning,exact,2\n"
        );

        (await BidsAsync(account)).ShouldBe([
            "grand tuning 2",
            "piano hire 0.9",
            "piano tuner 1.1",
            "piano tuning 1.5",
        ]);
    }

    [Fact]
    public async Task Rows_that_add_leave_what_is_there_as_it_is()
    {
        var account = await StartedAsync();

        await fixture.KeepAsync(
            account,
            "action,campaign,ad group,keyword,match type,max cpc\nadd,York,Tuning,piano tuning,exact,1.50\nadd,York,Tuning,grand tuning,exact,2\n"
        );

        (await BidsAsync(account)).ShouldBe(["grand tuning 2", "piano hire 0.9", "piano tuner 1.1", "piano tuning 1"]);
    }

    [Fact]
    public async Task Rows_that_change_add_nothing_and_say_what_is_not_there()
    {
        var account = await StartedAsync();
        var intake = await fixture.PasteAsync(
            account,
            "action,campaign,ad group,keyword,match type,max cpc\nchange,York,Tuning,piano tuning,exact,1.50\nchange,York,Tuning,grand tuning,exact,2\nchange,Leeds,Tuning,piano tuning,exact,2\n"
        );

        var view = await fixture.ViewAsync(account, intake);
        view.Refused.Select(row => (row.RowNumber, row.Outcome))
            .ShouldBe([(3, IntakeOutcome.NotThere), (4, IntakeOutcome.NotThere)]);
        await fixture.DoAsync(account, new KeepIntake(intake));

        (await BidsAsync(account)).ShouldBe(["piano hire 0.9", "piano tuner 1.1", "piano tuning 1.5"]);
        (await CampaignsAsync(account)).ShouldBe(["York"]);
    }

    [Fact]
    public async Task Rows_that_remove_take_items_away_and_one_undo_brings_them_back()
    {
        var account = await StartedAsync();
        var before = await fixture.StateAsync(account);

        await fixture.KeepAsync(
            account,
            "action,campaign,ad group,keyword,match type\nremove,York,Tuning,piano tuner,phrase\nremove,York,Hire,,\n"
        );

        (await BidsAsync(account)).ShouldBe(["piano tuning 1"]);
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        (await fixture.StateAsync(account)).ShouldBe(before);
    }

    [Fact]
    public async Task A_whole_list_can_be_said_to_remove()
    {
        var account = await StartedAsync();
        var intake = await fixture.PasteAsync(
            account,
            "campaign,ad group,keyword,match type\nYork,Tuning,piano tuner,phrase\n"
        );

        await SetAsync(account, intake, RowIntent.Remove, emptyClears: false);
        (await fixture.DoAsync(account, new KeepIntake(intake))).Label.ShouldBe("Remove 1 items by list");

        (await BidsAsync(account)).ShouldBe(["piano hire 0.9", "piano tuning 1"]);
    }

    [Fact]
    public async Task The_same_removals_again_change_nothing()
    {
        var account = await StartedAsync();
        const string list = "action,campaign,ad group,keyword,match type\nremove,York,Tuning,piano tuner,phrase\n";
        await fixture.KeepAsync(account, list);

        var view = await fixture.ViewAsync(account, await fixture.PasteAsync(account, list));

        view.Counts.ShouldNotContain(count =>
            count.Outcome == IntakeOutcome.Removed
            || count.Outcome == IntakeOutcome.New
            || count.Outcome == IntakeOutcome.Edit
        );
    }

    [Fact]
    public async Task A_row_inside_of_what_the_list_removes_is_refused_with_the_reason()
    {
        var account = await StartedAsync();

        var view = await fixture.ViewAsync(
            account,
            await fixture.PasteAsync(
                account,
                "action,campaign,ad group,keyword,match type,max cpc\nremove,York,Tuning,,,\n,York,Tuning,piano tuning,exact,3\nremove,York,Tuning,piano tuner,phrase,\n"
            )
        );

        var refused = view.Refused.ShouldHaveSingleItem();
        refused.RowNumber.ShouldBe(3);
        refused.Reason.ShouldNotBeNull().ShouldContain("the list removes what it belongs to");
    }

    [Fact]
    public async Task Empty_cells_say_nothing_unless_they_are_said_to_take_away()
    {
        var account = await StartedAsync();
        const string list =
            "campaign,ad group,keyword,match type,max cpc,landing page,labels\nYork,Tuning,piano tuning,exact,,,\n";
        (await fixture.ViewAsync(account, await fixture.PasteAsync(account, list))).Counts.ShouldAllBe(count =>
            count.Outcome == IntakeOutcome.Same
        );

        var intake = await fixture.PasteAsync(account, list);
        await SetAsync(account, intake, RowIntent.AddAndChange, emptyClears: true);
        await fixture.DoAsync(account, new KeepIntake(intake));

        var row = await fixture.RowAsync(account, "piano tuning");
        (row.MaxCpc, row.LandingPage, row.Labels.Length).ShouldBe((null, null, 0));
        (await fixture.RowAsync(account, "York")).DailyBudget.ShouldBe(20m);
    }

    [Fact]
    public async Task A_list_of_negatives_comes_in_with_its_campaigns_and_leaves_one_by_a_row()
    {
        var account = await StartedAsync();
        await fixture.KeepAsync(
            account,
            "negative list,campaign,negative keyword,match type,labels\nNot buyers,,,,shared\nNot buyers,York,,,\nNot buyers,Leeds,,,\nNot buyers,,jobs,exact,\nNot buyers,,free,,\n"
        );
        var list = (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.NegativeList })).Single();
        list.CampaignIds!.Length.ShouldBe(2);
        list.Labels.ShouldBe(["shared"]);
        (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.NegativeKeyword }))
            .Select(row => (row.Name, row.Match, row.List))
            .ShouldBe([("free", MatchType.Phrase, "Not buyers"), ("jobs", MatchType.Exact, "Not buyers")]);

        await fixture.KeepAsync(account, "action,negative list,campaign\nremove,Not buyers,Leeds\n");

        var york = await fixture.RowAsync(account, "York");
        (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.NegativeList }))
            .Single()
            .CampaignIds.ShouldBe([york.Id]);
    }

    [Fact]
    public async Task A_list_of_negatives_is_removed_with_what_is_in_it()
    {
        var account = await StartedAsync();
        await fixture.KeepAsync(account, "negative list,negative keyword\nNot buyers,jobs\nNot buyers,free\n");

        await fixture.KeepAsync(account, "action,item,negative list\nremove,negative list,Not buyers\n");

        (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.NegativeKeyword })).ShouldBeEmpty();
        (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.NegativeList })).ShouldBeEmpty();
    }

    [Fact]
    public async Task Columns_are_remembered_for_the_next_list_with_the_same_headers()
    {
        var account = await StartedAsync();
        const string list = "Kampagnenname,Gruppe X,Suchwort,Preis\nYork,Tuning,grand tuning,2.00\n";
        await SetColumnsOnceAsync(account, list);

        var view = await fixture.ViewAsync(account, await fixture.PasteAsync(account, list.ToUpperInvariant()));

        (view.Remembered, view.HasHeader).ShouldBe((true, true));
        view.Columns.ShouldBe(["campaign", "adGroup", "keyword", "maxCpc"]);
    }

    [Fact]
    public async Task Remembered_columns_are_of_one_account()
    {
        var (account, other) = (await StartedAsync(), await StartedAsync());
        const string list = "campaign,ad group,keyword,remark\nYork,Tuning,grand tuning,2.00\n";
        await SetColumnsOnceAsync(account, list);

        (await fixture.ViewAsync(other, await fixture.PasteAsync(other, list))).Columns[3].ShouldBe("");
        (await fixture.ViewAsync(account, await fixture.PasteAsync(account, list))).Columns[3].ShouldBe("maxCpc");
    }

    [Fact]
    public async Task Says_which_columns_have_anything_in_them()
    {
        var account = await fixture.NewAccountAsync();

        var view = await fixture.ViewAsync(
            account,
            await fixture.PasteAsync(
                account,
                "campaign,ad group,keyword,max cpc,labels\nYork,Tuning,piano,,\nYork,Tuning,organ,,x\n"
            )
        );

        view.UsedColumns.ShouldBe([0, 1, 2, 4]);
    }

    [Fact]
    public async Task Names_the_list_that_came_in_last()
    {
        var account = await StartedAsync();

        var last = (await fixture.Intakes.LastAsync(account, CancellationToken.None)).ShouldNotBeNull();

        (last.FileName, last.Items).ShouldBe(("list", 6));
        (
            await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Keyword, StepId = last.StepId })
        ).Count.ShouldBe(3);
    }

    /// <summary>A person says that the four columns are campaign, ad group, keyword and max CPC.</summary>
    private async Task SetColumnsOnceAsync(int account, string list)
    {
        var first = await fixture.PasteAsync(account, list);
        await fixture.Intakes.SetColumnsAsync(
            account,
            first,
            new IntakeColumns(
                true,
                ["campaign", "adGroup", "keyword", "maxCpc"],
                null,
                null,
                MatchType.Exact,
                MatchType.Phrase
            ),
            CancellationToken.None
        );
    }

    private async Task<int> StartedAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, Start);
        return account;
    }

    private async Task SetAsync(int account, long intake, RowIntent intent, bool emptyClears)
    {
        var view = await fixture.ViewAsync(account, intake);
        await fixture.Intakes.SetColumnsAsync(
            account,
            intake,
            new IntakeColumns(
                view.HasHeader,
                view.Columns,
                null,
                null,
                view.BareMatch,
                view.NegativeMatch,
                intent,
                emptyClears
            ),
            CancellationToken.None
        );
        await fixture.Reading.ReadAsync(intake, _ => Task.CompletedTask, CancellationToken.None);
    }

    private async Task<IEnumerable<string>> BidsAsync(int account) =>
        (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Keyword })).Select(row =>
            FormattableString.Invariant($"{row.Name} {row.MaxCpc:0.##}")
        );

    private async Task<IEnumerable<string>> CampaignsAsync(int account) =>
        (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Campaign })).Select(row => row.Name);
}
