using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Changes;
using Fendrik.Data.Commands.Copying;
using Fendrik.Data.Sheets;
using Fendrik.Data.Sheets.Conditions;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

[Collection(nameof(WorkingCopyFixture))]
public class HistoryTests(WorkingCopyFixture fixture)
{
    private static readonly ItemSet AllKeywords = TunedAccount.All(ItemKind.Keyword);

    private Task<StepResult?> TakeBackAsync(TunedAccount account, long step) =>
        fixture.History.TakeBackAsync(account.Id, WorkingCopyFixture.Person, step, false, CancellationToken.None);

    [Fact]
    public async Task Takes_back_a_step_in_the_middle_and_keeps_what_came_later()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var bids = await account.DoAsync(Change.Amount(AllKeywords, "maxCpc", AmountOperation.Set, 2m));
        await account.DoAsync(Change.State(AllKeywords, ItemState.Paused));

        var result = await TakeBackAsync(account, bids.StepId!.Value);

        result!.Items.ShouldBe(5);
        var rows = await account.RowsAsync(ItemKind.Keyword);
        rows.ShouldAllHold(row => row.State == ItemState.Paused);
        rows.Select(row => row.MaxCpc).Where(bid => bid is not null).ShouldBe([1.30m, 0.80m], ignoreOrder: true);
    }

    [Fact]
    public async Task Takes_back_all_but_what_a_later_step_changed_again_and_names_it()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var first = await account.DoAsync(Change.Amount(AllKeywords, "maxCpc", AmountOperation.Set, 2m));
        await account.DoAsync(
            Change.Amount(
                [await account.TheAsync(ItemKind.Keyword, "piano tuner near me")],
                "maxCpc",
                AmountOperation.Set,
                3m
            )
        );

        var back = (await TakeBackAsync(account, first.StepId!.Value))!;

        back.Refused.Select(row => row.Name).ShouldBe(["piano tuner near me"]);
        var bids = (await account.RowsAsync(ItemKind.Keyword)).Select(row => row.MaxCpc).ToArray();
        bids.Count(bid => bid == 3m).ShouldBe(1);
        bids.ShouldNotContain(2m);
    }

    [Fact]
    public async Task Refuses_to_take_back_an_ad_group_that_has_got_keywords_since()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var campaign = await account.TheAsync(ItemKind.Campaign, "North");
        var added = await account.DoAsync(Change.AdGroup(campaign.Id, "Moving", 1m));
        var group = await account.TheAsync(ItemKind.AdGroup, "Moving");
        await account.DoAsync(Change.Keywords(group.Id, "piano movers", MatchType.Phrase));

        var back = (await TakeBackAsync(account, added.StepId!.Value))!;

        var left = back.Refused.ShouldHaveSingleItem();
        (left.Name, left.Reason).ShouldBe(("Moving", "holds keywords that stay"));
        (await account.TheAsync(ItemKind.AdGroup, "Moving")).Id.ShouldBe(group.Id);
    }

    [Fact]
    public async Task Goes_back_to_any_step_and_forward_again()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var step = await account.DoAsync(Change.Campaign("East", 5m));
        var then = await account.StateAsync();
        await account.DoAsync(Change.Amount(AllKeywords, "maxCpc", AmountOperation.Set, 2m));
        await account.DoAsync(new RemoveItems([await account.TheAsync(ItemKind.Campaign, "North")]));
        await account.DoAsync(Change.Campaign("West", 5m));
        var last = await account.StateAsync();

        await fixture.History.GoBackAsync(
            account.Id,
            WorkingCopyFixture.Person,
            step.StepId!.Value,
            false,
            CancellationToken.None
        );

        (await account.StateAsync()).ShouldBe(then);
        await account.UndoAsync();
        (await account.StateAsync()).ShouldBe(last);
    }

    [Fact]
    public async Task Compares_two_moments_by_what_differs_between_them()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var from = await account.DoAsync(Change.Campaign("East", 5m));
        await account.DoAsync(Change.Amount(AllKeywords, "maxCpc", AmountOperation.Set, 2m));
        await account.DoAsync(
            Change.Cell(await account.TheAsync(ItemKind.Keyword, "piano tuner near me"), "name", "piano tuner leeds")
        );
        var to = await account.DoAsync(new RemoveItems([await account.TheAsync(ItemKind.Campaign, "East")]));
        await account.DoAsync(Change.Campaign("West", 5m));

        var comparison = await fixture.History.CompareAsync(
            account.Id,
            from.StepId!.Value,
            to.StepId!.Value,
            100,
            CancellationToken.None
        );

        comparison.Total.ShouldBe(6);
        comparison.Changes.Single(change => change.Kind == ItemKind.Campaign).After.ShouldBeNull();
        comparison
            .Changes.Single(change =>
                change.Before?.TryGetProperty("text", out var text) == true && text.GetString() == "piano tuner near me"
            )
            .After!.Value.GetProperty("text")
            .GetString()
            .ShouldBe("piano tuner leeds");
    }

    [Fact]
    public async Task Tells_both_versions_when_a_row_has_moved_on_and_changes_nothing()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var row = (await account.RowsAsync(ItemKind.Keyword)).First(each => each.Name == "piano tuner near me");
        var item = WorkingCopyFixture.Reference(row);
        var edit = Change.Amount([item], "maxCpc", AmountOperation.Set, 1.20m);
        await account.DoAsync(Change.Amount([item], "maxCpc", AmountOperation.Set, 1.40m));

        var error = await Should.ThrowAsync<StaleEditException>(() => DoSeenAsync(row.Version));

        var stale = error.Items.ShouldHaveSingleItem();
        stale.Before!.Value.GetProperty("maxCpc").GetDecimal().ShouldBe(0.80m);
        stale.Now!.Value.GetProperty("maxCpc").GetDecimal().ShouldBe(1.40m);
        (await account.RowsAsync(ItemKind.Keyword)).Single(each => each.Id == row.Id).MaxCpc.ShouldBe(1.40m);
        (await DoSeenAsync(stale.Version)).Items.ShouldBe(1);

        Task<StepResult> DoSeenAsync(long version) =>
            fixture.WorkingCopy.ApplyAsync(
                account.Id,
                WorkingCopyFixture.Person,
                edit,
                false,
                CancellationToken.None,
                seen: [new SeenItem(item.Kind, item.Id, version)]
            );
    }

    [Fact]
    public async Task Brings_any_sequence_of_bulk_changes_back_to_the_first_state()
    {
        var changes = new Func<IWorkingCopyChange>[]
        {
            () => Change.Amount(AllKeywords, "maxCpc", AmountOperation.AddPercent, 15, 0.05m, 0.5m, 3m),
            () => new EditTexts(AllKeywords, ["text"], TextOperation.Append, " leeds"),
            () => new EditTexts(TunedAccount.All(ItemKind.TextAd), ["headlines"], TextOperation.UpperCase, ""),
            () => new SetLabels(TunedAccount.All(null), ["x"], []),
            () =>
                new CopyItems(
                    TunedAccount.All(ItemKind.Campaign),
                    new CopyPlace([], []),
                    new CopyEdits { NamePattern = "{name}+" }
                ),
            () => new AddMatchTypes(AllKeywords, [MatchType.Broad], null),
            () => new CrossNegatives(TunedAccount.All(ItemKind.Campaign)),
            () => new SplitByMatchType(TunedAccount.All(ItemKind.AdGroup)),
            () =>
                new RemoveItems(TunedAccount.All(ItemKind.AdGroup, new SheetCondition("name", SheetTest.Is, ["Hire"]))),
            () => new AddNegativeList($"List {Guid.NewGuid():N}", [], "jobs", MatchType.Exact),
        };
        var random = new Random(20261125);
        for (var round = 0; round < 6; round++)
        {
            var account = await TunedAccount.MakeAsync(fixture);
            var before = await account.StateAsync();
            var done = new List<string>();
            for (var turn = 0; turn < 5; turn++)
            {
                var change = changes[random.Next(changes.Length)]();
                try
                {
                    var result = await account.DoAsync(change);
                    done.AddRange(result.StepId is null ? [] : [result.Label]);
                }
                catch (InvalidChangeException)
                {
                    // Nothing left to change in this way: nothing was done either.
                }
            }

            for (var step = 0; step < done.Count; step++)
            {
                await account.UndoAsync();
            }

            (await account.StateAsync()).ShouldBe(before, string.Join(", ", done));
        }
    }
}
