using Fendrik.Core.Changes;
using Fendrik.Core.Checks;

namespace Fendrik.Data.Tests;

/// <summary>Cells that hold a part, amounts from above, and what is said of a slip before it costs money.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class CellAndWarningTests(WorkingCopyFixture fixture)
{
    private const string List = """
        campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc,headline 1,headline 2,headline 3,description,url
        North,25,Tuning,1.00,piano tuning,exact,,,,,,
        North,25,Tuning,1.00,piano tuner,exact,0.80,,,,,
        North,25,Tuning,,,,,Piano Tuning,Book Today,Since 1974,We tune at home.,tarnandfell.example/tuning
        """;

    private async Task<int> AccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        return account;
    }

    private async Task<ItemReference> TheAsync(int account, string name) =>
        WorkingCopyFixture.Reference(await fixture.RowAsync(account, name));

    private async Task<SheetRow> AdAsync(int account) =>
        (await fixture.RowsAsync(account)).Single(row => row.Kind == ItemKind.TextAd);

    private async Task<StepResult> SetPartAsync(int account, int part, string text) =>
        await fixture.DoAsync(
            account,
            new SetCells([new CellEdit(WorkingCopyFixture.Reference(await AdAsync(account)), "headlines", text, part)])
        );

    [Theory]
    [InlineData(2, "Call Now", "Piano Tuning|Call Now|Since 1974")]
    [InlineData(2, "", "Piano Tuning|Since 1974")]
    [InlineData(5, "In Leeds", "Piano Tuning|Book Today|Since 1974|In Leeds")]
    public async Task A_part_of_an_ad_is_set_and_the_others_stay(int part, string text, string headlines)
    {
        var account = await AccountAsync();

        await SetPartAsync(account, part, text);

        string.Join('|', (await AdAsync(account)).Headlines).ShouldBe(headlines);
    }

    [Fact]
    public async Task The_last_headline_cannot_be_taken_away()
    {
        var account = await AccountAsync();
        await SetPartAsync(account, 3, "");
        await SetPartAsync(account, 2, "");

        var error = await Should.ThrowAsync<InvalidChangeException>(() => SetPartAsync(account, 1, ""));

        error.Message.ShouldBe("No headline would be left. Write one.");
    }

    [Fact]
    public async Task A_field_that_has_no_parts_has_no_cell_of_one()
    {
        var account = await AccountAsync();
        var keyword = await TheAsync(account, "piano tuner");

        var error = await Should.ThrowAsync<InvalidChangeException>(() =>
            fixture.DoAsync(account, new SetCells([new CellEdit(keyword, "maxCpc", "2", 1)]))
        );

        error.Message.ShouldContain("has no such cell");
    }

    [Fact]
    public async Task Texts_set_one_headline_of_every_ad()
    {
        var account = await AccountAsync();
        var ad = WorkingCopyFixture.Reference(await AdAsync(account));

        await fixture.DoAsync(account, new EditTexts([ad], ["headlines.2"], TextOperation.Set, "Call Now"));

        (await AdAsync(account)).Headlines.ShouldBe(["Piano Tuning", "Call Now", "Since 1974"]);
    }

    [Fact]
    public async Task Texts_do_not_set_all_headlines_alike()
    {
        var account = await AccountAsync();
        var ad = WorkingCopyFixture.Reference(await AdAsync(account));

        var error = await Should.ThrowAsync<InvalidChangeException>(() =>
            fixture.DoAsync(account, new EditTexts([ad], ["headlines"], TextOperation.Set, "Call Now"))
        );

        error.Message.ShouldContain("Choose which headline is set");
    }

    [Theory]
    [InlineData("+10%", 1.10)]
    [InlineData("−20%", 0.80)]
    [InlineData("+0.25", 1.25)]
    public async Task An_inherited_bid_is_raised_and_lowered_from_what_it_inherits(string change, double bid)
    {
        var account = await AccountAsync();
        var keyword = await TheAsync(account, "piano tuning");
        await fixture.DoAsync(account, Change.Set([keyword], "maxCpc", change));
        var byPanel = (await fixture.RowAsync(account, "piano tuning")).MaxCpc;
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);

        await fixture.DoAsync(account, Change.Cell(keyword, "maxCpc", change));

        (byPanel, (await fixture.RowAsync(account, "piano tuning")).MaxCpc).ShouldBe(((decimal)bid, (decimal)bid));
    }

    [Fact]
    public async Task A_keyword_that_inherits_follows_an_ad_group_that_is_raised_along_with_it()
    {
        var account = await AccountAsync();
        await fixture.DoAsync(
            account,
            Change.Set(
                [
                    await TheAsync(account, "Tuning"),
                    await TheAsync(account, "piano tuning"),
                    await TheAsync(account, "piano tuner"),
                ],
                "maxCpc",
                "+10%"
            )
        );

        var rows = await fixture.RowsAsync(account);
        rows.Where(row => row.Kind is ItemKind.AdGroup or ItemKind.Keyword)
            .Select(row => (row.Name, row.MaxCpc))
            .ShouldBe([("Tuning", 1.10m), ("piano tuner", 0.88m), ("piano tuning", null)], ignoreOrder: true);
    }

    [Theory]
    [InlineData("piano tuner", "maxCpc", "80", "above the campaign’s daily budget of £25.00")]
    [InlineData("piano tuner", "maxCpc", "11", "more than ten times the ad group’s £1.00")]
    [InlineData("Tuning", "maxCpc", "26", "above the campaign’s daily budget")]
    [InlineData("North", "dailyBudget", "2500", "ten times the £25.00 before")]
    public async Task A_slip_is_told_where_it_is_typed(string name, string field, string text, string told)
    {
        var account = await AccountAsync();

        var step = await fixture.DoAsync(account, Change.Cell(await TheAsync(account, name), field, text));

        var warning = step.Warnings.ShouldHaveSingleItem();
        (warning.Weight, warning.Name).ShouldBe((Weight.Caution, name));
        warning.Message.ShouldContain(told);
    }

    [Fact]
    public async Task A_preview_tells_of_a_headline_that_would_be_too_long()
    {
        var account = await AccountAsync();
        var ad = WorkingCopyFixture.Reference(await AdAsync(account));
        var longest = NetworkProfile
            .Of("ostrel")
            .LimitsOf(ItemTypes.Of(ItemKind.TextAd), ItemTypes.Of(ItemKind.TextAd)["headlines"])
            .Length!.Value;

        var preview = await fixture.DoAsync(
            account,
            new EditTexts([ad], ["headlines.1"], TextOperation.Set, new string('a', longest + 1)),
            preview: true
        );

        preview.Warnings.ShouldHaveSingleItem().Weight.ShouldBe(Weight.Blocker);
    }

    [Fact]
    public async Task A_preview_of_negatives_names_the_own_keywords_that_they_would_block()
    {
        var account = await AccountAsync();
        var campaign = await TheAsync(account, "North");

        var preview = await fixture.DoAsync(
            account,
            Change.Negatives(new ItemPlaces([campaign.Id]), "tuner\njobs", MatchType.Phrase),
            preview: true
        );

        var warning = preview.Warnings.ShouldHaveSingleItem();
        warning.Name.ShouldBe("-\"tuner\"");
        warning.Message.ShouldBe("keeps one of your own keywords from showing: “piano tuner”.");
    }

    [Fact]
    public async Task A_preview_says_where_each_item_stands()
    {
        var account = await AccountAsync();

        var preview = await fixture.DoAsync(
            account,
            Change.Set([await TheAsync(account, "piano tuner")], "state", "paused"),
            preview: true
        );

        var place = preview.Changes.ShouldHaveSingleItem().Place!;
        (place.Campaign, place.AdGroup).ShouldBe(("North", "Tuning"));
    }
}
