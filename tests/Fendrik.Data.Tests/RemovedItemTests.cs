using Fendrik.Data.Commands;
using Fendrik.Data.Sheets;

namespace Fendrik.Data.Tests;

/// <summary>Where removed items went, and how they come back.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class RemovedItemTests(WorkingCopyFixture fixture)
{
    private const string List =
        "campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc\nNorth,25,Tuning,1.00,piano tuning,exact,0.80\nNorth,25,Tuning,1.00,piano tuner,exact,\nNorth,25,Hire,1.00,piano hire,exact,\n";

    private async Task<int> AccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        return account;
    }

    private async Task<ItemReference> OfAsync(int account, string name) =>
        WorkingCopyFixture.Reference(await fixture.RowAsync(account, name));

    private Task<SheetPage> RemovedAsync(int account, ItemKind? kind) =>
        fixture.Sheet.ReadAsync(account, new SheetRequest { Kind = kind, Removed = true }, CancellationToken.None);

    private async Task<string[]> StandingAsync(int account) =>
        [
            .. (await fixture.Sheet.ReadAsync(account, new SheetRequest(), CancellationToken.None)).Rows.Select(row =>
                row.Name
            ),
        ];

    [Fact]
    public async Task Are_listed_with_their_values_their_place_and_the_step_that_removed_them()
    {
        var account = await AccountAsync();
        var removal = await fixture.DoAsync(account, new RemoveItems([await OfAsync(account, "piano tuning")]));

        var row = (await RemovedAsync(account, ItemKind.Keyword)).Rows.ShouldHaveSingleItem();

        (row.Name, row.Campaign, row.AdGroup, row.MaxCpc).ShouldBe(("piano tuning", "North", "Tuning", 0.80m));
        row.Removal.ShouldNotBeNull().StepId.ShouldBe(removal.StepId!.Value);
        row.Removal.Label.ShouldBe("Remove 1 keyword");
    }

    [Fact]
    public async Task Stand_in_the_outline_under_what_they_stood_in()
    {
        var account = await AccountAsync();
        await fixture.DoAsync(account, new RemoveItems([await OfAsync(account, "Hire")]));

        (await RemovedAsync(account, null)).Rows.Select(row => row.Name).ShouldBe(["North", "Hire", "piano hire"]);
    }

    [Fact]
    public async Task Come_back_with_all_that_went_with_them_and_with_nothing_else()
    {
        var account = await AccountAsync();
        await fixture.DoAsync(account, new RemoveItems([await OfAsync(account, "piano tuner")]));
        var campaign = await OfAsync(account, "North");
        await fixture.DoAsync(account, new RemoveItems([campaign]));

        var back = await fixture.DoAsync(account, new BringBack([campaign]));

        back.Label.ShouldBe("Bring back 1 campaign and 4 in them");
        (await StandingAsync(account)).ShouldBe(["North", "Hire", "piano hire", "Tuning", "piano tuning"]);
    }

    [Fact]
    public async Task Stay_away_while_what_they_stood_in_is_removed()
    {
        var account = await AccountAsync();
        var keyword = await OfAsync(account, "piano hire");
        await fixture.DoAsync(account, new RemoveItems([await OfAsync(account, "Hire")]));

        var back = await fixture.DoAsync(account, new BringBack([keyword]));

        back.Items.ShouldBe(0);
        back.Refused.ShouldHaveSingleItem().Reason.ShouldContain("ad group is removed too");
    }

    [Fact]
    public async Task Stay_away_while_a_twin_stands_in_their_place()
    {
        var account = await AccountAsync();
        var keyword = await OfAsync(account, "piano hire");
        var group = await OfAsync(account, "Hire");
        await fixture.DoAsync(account, new RemoveItems([keyword]));
        await fixture.DoAsync(account, Change.Keywords(group.Id, "piano hire", MatchType.Exact));

        var back = await fixture.DoAsync(account, new BringBack([keyword]));

        back.Refused.ShouldHaveSingleItem().Reason.ShouldContain("same words");
    }

    [Fact]
    public async Task Of_another_account_do_not_come_back()
    {
        var account = await AccountAsync();
        var keyword = await OfAsync(account, "piano hire");
        await fixture.DoAsync(account, new RemoveItems([keyword]));

        await Should.ThrowAsync<InvalidChangeException>(async () =>
            await fixture.DoAsync(await AccountAsync(), new BringBack([keyword]))
        );
    }
}
