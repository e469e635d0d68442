using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Changes;
using Fendrik.Data.Commands.Copying;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

[Collection(nameof(WorkingCopyFixture))]
public class StepTests(WorkingCopyFixture fixture)
{
    private const string List = """
        campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc
        North,25,Tuning,1.00,piano tuning,exact,1.30
        North,25,Tuning,1.00,piano tuning,phrase,
        North,25,Tuning,1.00,piano tuner,phrase,0.80
        North,25,Hire,,piano hire,exact,
        North,25,,,-free,,
        South,,Hire,0.90,piano hire,broad,
        """;

    private async Task<int> AccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        return account;
    }

    private async Task<ItemReference[]> KeywordsAsync(int account) =>
        [
            .. (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Keyword })).Select(
                WorkingCopyFixture.Reference
            ),
        ];

    [Fact]
    public async Task Sets_a_bid_on_many_and_takes_it_back()
    {
        var account = await AccountAsync();
        var before = await fixture.StateAsync(account);

        var result = await fixture.DoAsync(
            account,
            Change.Amount(await KeywordsAsync(account), "maxCpc", AmountOperation.Set, 1.5m)
        );

        result.Items.ShouldBe(5);
        result.Label.ShouldBe("Set max CPC to £1.50 on 5 keywords");
        (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Keyword })).ShouldAllHold(row =>
            row.MaxCpc == 1.5m
        );
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        (await fixture.StateAsync(account)).ShouldBe(before);
    }

    [Fact]
    public async Task Does_again_what_was_taken_back()
    {
        var account = await AccountAsync();
        await fixture.DoAsync(account, Change.State(await KeywordsAsync(account), ItemState.Paused));
        var after = await fixture.StateAsync(account);

        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        await fixture.History.RedoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);

        (await fixture.StateAsync(account)).ShouldBe(after);
    }

    [Fact]
    public async Task Offers_no_redo_after_something_new_was_done()
    {
        var account = await AccountAsync();
        await fixture.DoAsync(account, Change.Campaign("East", null));
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        await fixture.DoAsync(account, Change.Campaign("West", null));

        (await fixture.History.RedoAsync(account, WorkingCopyFixture.Person, CancellationToken.None)).ShouldBeNull();
    }

    [Fact]
    public async Task Shows_in_a_preview_just_what_will_happen_and_does_none_of_it()
    {
        var account = await AccountAsync();
        var before = await fixture.StateAsync(account);
        var change = Change.Amount(await KeywordsAsync(account), "maxCpc", AmountOperation.AddPercent, 10);

        var preview = await fixture.DoAsync(account, change, preview: true);

        (await fixture.StateAsync(account)).ShouldBe(before);
        var done = await fixture.DoAsync(account, change);
        (preview.Items, preview.Label).ShouldBe((done.Items, done.Label));
        preview.Changes.Count.ShouldBe(4); // two of them from what they inherit
        preview.Refused.Count.ShouldBe(1); // one keyword has no max CPC to raise, nor has its ad group
    }

    [Fact]
    public async Task Leaves_a_keyword_that_would_become_a_twin_as_it_was()
    {
        var account = await AccountAsync();

        var result = await fixture.DoAsync(account, Change.Match(await KeywordsAsync(account), MatchType.Exact));

        result.Refused.ShouldHaveSingleItem().Name.ShouldBe("piano tuning");
        result.Items.ShouldBe(2);
    }

    [Fact]
    public async Task Removes_a_campaign_with_all_in_it_as_one_step()
    {
        var account = await AccountAsync();
        var before = await fixture.StateAsync(account);
        var campaign = await fixture.RowAsync(account, "North", ItemKind.Campaign);

        await fixture.DoAsync(account, new RemoveItems([WorkingCopyFixture.Reference(campaign)]));

        (await fixture.RowsAsync(account)).ShouldAllBe(row => row.Campaign == "South");
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        (await fixture.StateAsync(account)).ShouldBe(before);
    }

    [Fact]
    public async Task Refuses_a_second_campaign_of_the_same_name_and_says_so()
    {
        var account = await AccountAsync();

        var problem = await Should.ThrowAsync<InvalidChangeException>(() =>
            fixture.DoAsync(account, Change.Campaign("north ", 10))
        );

        problem.Message.ShouldContain("There is a campaign of this name already");
    }

    [Fact]
    public async Task Lets_a_name_be_used_again_after_its_campaign_was_removed()
    {
        var account = await AccountAsync();
        await fixture.DoAsync(
            account,
            new RemoveItems([WorkingCopyFixture.Reference(await fixture.RowAsync(account, "South", ItemKind.Campaign))])
        );

        (await fixture.DoAsync(account, Change.Campaign("South", 10))).StepId.ShouldNotBeNull();
    }

    [Fact]
    public async Task Touches_no_item_of_another_account()
    {
        var mine = await AccountAsync();
        var other = await AccountAsync();
        var before = await fixture.StateAsync(other);

        IWorkingCopyChange[] changes =
        [
            Change.Amount(await KeywordsAsync(other), "maxCpc", AmountOperation.Set, 9),
            new RemoveItems(await KeywordsAsync(other)),
            new EditTexts(await KeywordsAsync(other), ["text"], TextOperation.Append, "x"),
            new SetLabels(await KeywordsAsync(other), ["x"], []),
            new CopyItems(
                await KeywordsAsync(other),
                new CopyPlace([], []),
                new CopyEdits { Set = new Dictionary<string, FieldInput> { ["match"] = "broad" } }
            ),
        ];

        foreach (var change in changes)
        {
            await Should.ThrowAsync<InvalidChangeException>(() => fixture.DoAsync(mine, change));
        }

        await fixture.DoAsync(mine, new SetCells([new((await KeywordsAsync(other))[0], "maxCpc", "9")]));
        (await fixture.StateAsync(other)).ShouldBe(before);
    }

    [Fact]
    public async Task Adds_keywords_in_the_trades_notation_and_says_which_were_there()
    {
        var account = await AccountAsync();
        var group = await fixture.RowAsync(account, "Tuning");

        var result = await fixture.DoAsync(
            account,
            Change.Keywords(group.Id, "[piano tuning]\n\"piano tuners\"\n+tune +piano\n", MatchType.Broad)
        );

        result.Items.ShouldBe(2);
        result.Refused.ShouldHaveSingleItem().Reason.ShouldContain("1 were there already");
    }

    [Fact]
    public async Task Records_what_a_step_changed_for_later()
    {
        var account = await AccountAsync();
        var keyword = await fixture.RowAsync(account, "piano tuner");
        var first = await fixture.DoAsync(
            account,
            Change.Amount([WorkingCopyFixture.Reference(keyword)], "maxCpc", AmountOperation.Set, 1.1m)
        );
        await fixture.DoAsync(
            account,
            Change.Amount([WorkingCopyFixture.Reference(keyword)], "maxCpc", AmountOperation.Set, 2.2m)
        );

        var change = (
            await fixture.History.ChangesOfAsync(account, first.StepId!.Value, 100, CancellationToken.None)
        )!.ShouldHaveSingleItem();

        change.Before!.Value.GetProperty("maxCpc").GetDecimal().ShouldBe(0.80m);
        change.After!.Value.GetProperty("maxCpc").GetDecimal().ShouldBe(1.1m);
    }

    [Fact]
    public async Task Lets_nothing_be_written_outside_a_step()
    {
        var account = await AccountAsync();
        await using var connection = await fixture.Source.OpenConnectionAsync();

        var error = await Should.ThrowAsync<Npgsql.PostgresException>(() =>
            connection.ExecuteAsync("update keyword set max_cpc = 9 where account_id = @account", new { account })
        );

        error.MessageText.ShouldContain("only within a step");
    }

    [Theory]
    [InlineData(AmountOperation.Set, "1.25")]
    [InlineData(AmountOperation.AddAmount, "-0.5")]
    [InlineData(AmountOperation.AddPercent, "12.5")]
    [InlineData(AmountOperation.AddPercent, "-33.3")]
    public async Task Computes_amounts_in_the_database_as_Core_does(AmountOperation operation, string value)
    {
        var account = await AccountAsync();
        var before = await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Keyword });
        var change = new BidChange(operation, decimal.Parse(value));

        await fixture.DoAsync(
            account,
            Change.Amount([.. before.Select(WorkingCopyFixture.Reference)], "maxCpc", operation, change.Value)
        );

        var after = (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Keyword })).ToDictionary(row =>
            row.Id
        );
        foreach (var row in before)
        {
            after[row.Id]
                .MaxCpc.ShouldBe(change.Apply(row.MaxCpc ?? row.InheritedMaxCpc, Currency.Of("GBP"), 0.05m), row.Name);
        }
    }
}
