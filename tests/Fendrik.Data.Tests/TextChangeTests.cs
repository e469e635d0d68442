using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Data.Sheets;
using Fendrik.Data.Sheets.Conditions;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

[Collection(nameof(WorkingCopyFixture))]
public class TextChangeTests(WorkingCopyFixture fixture)
{
    [Fact]
    public async Task Replaces_in_the_chosen_fields_of_ads_only()
    {
        var account = await TunedAccount.MakeAsync(fixture);

        var result = await account.DoAsync(
            new EditTexts(TunedAccount.All(ItemKind.TextAd), ["headlines"], TextOperation.Replace, "Upright", "piano")
        );

        result.Items.ShouldBe(2);
        var ads = await account.RowsAsync(ItemKind.TextAd);
        ads.Select(ad => ad.Headlines![0]).ShouldBe(["Upright Hire", "Upright Tuning"], ignoreOrder: true);
        ads.ShouldAllHold(ad => ad.Descriptions![0].Contains("piano", StringComparison.OrdinalIgnoreCase));
    }

    [Fact]
    public async Task Refuses_what_would_become_a_twin_and_changes_the_others()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        await account.DoAsync(
            Change.Keywords(
                (await account.TheAsync(ItemKind.AdGroup, "Tuning")).Id,
                "\"grand tuning\"",
                MatchType.Phrase
            )
        );

        var result = await account.DoAsync(
            new EditTexts(
                TunedAccount.All(ItemKind.Keyword),
                ["text"],
                TextOperation.Replace,
                "grand",
                "piano",
                WholeWords: true
            )
        );

        result.Refused.ShouldHaveSingleItem().Name.ShouldBe("piano tuning");
        result.Items.ShouldBe(4);
    }

    [Fact]
    public async Task Says_that_nothing_would_be_left_of_a_name()
    {
        var account = await TunedAccount.MakeAsync(fixture);

        var result = await account.DoAsync(
            new EditTexts(
                TunedAccount.All(ItemKind.Campaign),
                ["name"],
                TextOperation.Replace,
                "",
                "^North$",
                IsExpression: true
            )
        );

        (result.Items, result.Refused.Single().Reason).ShouldBe((0, "Nothing would be left of it."));
    }

    [Fact]
    public async Task Leaves_all_as_it_was_when_a_regular_expression_runs_too_long()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        await account.DoAsync(
            Change.AdGroup((await account.TheAsync(ItemKind.Campaign, "North")).Id, new string('a', 60) + "!", null)
        );
        var before = await account.StateAsync();

        var error = await Should.ThrowAsync<InvalidChangeException>(() =>
            account.DoAsync(
                new EditTexts(
                    TunedAccount.All(ItemKind.AdGroup),
                    ["name"],
                    TextOperation.Replace,
                    "b",
                    "^(a+)+$",
                    IsExpression: true
                )
            )
        );

        error.Message.ShouldContain("runs too long");
        (await account.StateAsync()).ShouldBe(before);
    }

    [Fact]
    public async Task Puts_labels_on_and_takes_them_off_and_the_network_sees_nothing_of_it()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var all = TunedAccount.All(ItemKind.Keyword, new SheetCondition("name", SheetTest.Contains, ["hire"]));

        await account.DoAsync(new SetLabels(all, ["summer", "stage"], []));
        await account.DoAsync(new SetLabels(all, [], ["stage"]));

        var labelled = await account.RowsAsync(
            ItemKind.Keyword,
            new SheetCondition("labels", SheetTest.Is, ["summer"])
        );
        labelled.Count.ShouldBe(2);
        labelled.ShouldAllHold(row => row.Labels.Length == 1);
        var pending = await fixture.Pending.ListAsync(account.Id, 0, 100, CancellationToken.None);
        pending.ShouldAllBe(change => !change.After!.Value.GetRawText().Contains("summer"));
    }

    [Fact]
    public async Task Pastes_a_block_into_cells_as_one_step()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var (first, second) = (
            await account.TheAsync(ItemKind.Keyword, "piano hire", "North"),
            await account.TheAsync(ItemKind.Keyword, "piano tuner near me")
        );

        var result = await account.DoAsync(
            new SetCells([
                new(first, "name", "[grand piano hire]"),
                new(first, "maxCpc", "£2.40"),
                new(second, "name", "piano tuner leeds"),
                new(second, "maxCpc", ""),
                new(second, "labels", "b; a"),
            ])
        );

        result.Items.ShouldBe(2);
        var rows = await account.RowsAsync(ItemKind.Keyword);
        rows.Single(row => row.Id == first.Id)
            .ShouldSatisfyAllConditions(
                row => row.Name.ShouldBe("grand piano hire"),
                row => row.Match.ShouldBe(MatchType.Exact),
                row => row.MaxCpc.ShouldBe(2.40m)
            );
        rows.Single(row => row.Id == second.Id)
            .ShouldSatisfyAllConditions(
                row => row.Name.ShouldBe("piano tuner leeds"),
                row => row.MaxCpc.ShouldBeNull(),
                row => row.Labels.ShouldBe(["a", "b"])
            );
    }

    [Theory]
    [InlineData("maxCpc", "a lot", "is not an amount in GBP")]
    [InlineData("match", "fuzzy", "none of exact")]
    [InlineData("dailyBudget", "5", "no such cell")]
    [InlineData("landingPage", "not a page", "is not a web address")]
    public async Task Names_the_cell_that_cannot_be_pasted_and_leaves_all_as_it_was(
        string field,
        string text,
        string said
    )
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var item = await account.TheAsync(ItemKind.Keyword, "piano hire", "North");
        var before = await account.StateAsync();

        var error = await Should.ThrowAsync<InvalidChangeException>(() =>
            account.DoAsync(new SetCells([new(item, "name", "other"), new(item, field, text)]))
        );

        error.Message.ShouldContain("Cell 2");
        error.Message.ShouldContain(said);
        (await account.StateAsync()).ShouldBe(before);
    }
}
