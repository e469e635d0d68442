using Fendrik.Data.Sheets.Conditions;

namespace Fendrik.Data.Tests;

/// <summary>A text that an account, a campaign, an ad group and a keyword may have, each taking it from above.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class TrackingTemplateTests(WorkingCopyFixture fixture)
{
    private const string Name = "trackingTemplate";

    private async Task<int> AccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(
            account,
            "campaign,daily budget,ad group,ad group max cpc,keyword,tracking template\nNorth,25,Tuning,1.00,piano tuning,\nNorth,25,Tuning,1.00,piano tuner,https://count.example/tuner\n"
        );
        return account;
    }

    private async Task SetAsync(int account, ItemKind kind, string text)
    {
        var row = (await fixture.RowsAsync(account, new SheetRequest { Kind = kind }))[0];
        await fixture.DoAsync(account, Change.Set([WorkingCopyFixture.Reference(row)], Name, text));
    }

    private async Task<(object? Own, object? Inherited)> OfAsync(int account, string keyword)
    {
        var row = await fixture.RowAsync(account, keyword);
        return (row.Values.GetValueOrDefault(Name), row.Inherited.GetValueOrDefault(Name));
    }

    [Fact]
    public async Task Comes_from_the_nearest_that_has_one_up_to_the_account()
    {
        var account = await AccountAsync();
        (await OfAsync(account, "piano tuning")).ShouldBe((null, null));

        await SetAsync(account, ItemKind.Account, "https://count.example/account");
        (await OfAsync(account, "piano tuning")).ShouldBe((null, "https://count.example/account"));
        await SetAsync(account, ItemKind.Campaign, "https://count.example/campaign");
        (await OfAsync(account, "piano tuning")).ShouldBe((null, "https://count.example/campaign"));
        await SetAsync(account, ItemKind.AdGroup, "https://count.example/group");
        (await OfAsync(account, "piano tuning")).ShouldBe((null, "https://count.example/group"));
        (await OfAsync(account, "piano tuner")).ShouldBe(("https://count.example/tuner", null));
    }

    [Fact]
    public async Task Is_found_by_what_a_keyword_inherits()
    {
        var account = await AccountAsync();
        await SetAsync(account, ItemKind.Account, "https://count.example/account");

        var rows = await fixture.RowsAsync(
            account,
            new SheetRequest { Kind = ItemKind.Keyword, Conditions = [new(Name, SheetTest.Ends, ["account"])] }
        );

        rows.Select(row => row.Name).ShouldBe(["piano tuning"]);
    }

    [Fact]
    public async Task Of_the_account_is_undone_as_every_edit_is()
    {
        var account = await AccountAsync();
        var before = await fixture.StateAsync(account);
        await SetAsync(account, ItemKind.Account, "https://count.example/account");

        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);

        (await fixture.StateAsync(account)).ShouldBe(before);
    }

    [Fact]
    public async Task Longer_than_the_network_takes_stops_publishing()
    {
        var account = await AccountAsync();
        await SetAsync(account, ItemKind.Account, "https://count.example/" + new string('a', 1800));

        (await fixture.FindingsAsync(account)).ShouldContain(finding =>
            finding.Code == "tracking-template-long" && finding.Kind == ItemKind.Account
        );
    }
}
