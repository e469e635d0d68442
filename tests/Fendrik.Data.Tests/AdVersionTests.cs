using Fendrik.Data.Commands.Copying;
using Fendrik.Data.Sheets;
using Fendrik.Data.Writing;

namespace Fendrik.Data.Tests;

/// <summary>What an ad can be held against: what it was, and the others of its ad group.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class AdVersionTests(WorkingCopyFixture fixture)
{
    private const string List = """
        campaign,daily budget,ad group,ad group max cpc,headline 1,headline 2,description 1,landing page
        North,25,Tuning,1.00,Piano Tuning,Book Today,We tune at home.,https://tarnandfell.example/tuning
        North,25,Tuning,1.00,Tuned At Home,Book Today,We tune at home.,https://tarnandfell.example/tuning
        North,25,Hire,1.00,Piano Hire,Book Today,We hire out.,https://tarnandfell.example/hire
        """;

    private readonly AdVersions _versions = new(fixture.Source);

    private async Task<(int Account, ItemReference Ad)> AdAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        var rows = await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.TextAd });
        return (account, WorkingCopyFixture.Reference(rows.First(row => row.Headlines![0] == "Piano Tuning")));
    }

    private static string Second(System.Text.Json.JsonElement ad) => ad.GetProperty("headlines")[1].GetString()!;

    [Fact]
    public async Task Each_version_was_there_until_a_step_changed_it_and_undo_makes_no_version_of_the_same()
    {
        var (account, ad) = await AdAsync();
        await fixture.DoAsync(account, Change.Set([ad], "headlines", "Piano Tuning | Call Today"));
        await fixture.DoAsync(account, Change.Set([ad], "state", "paused"));

        var history = (await _versions.ReadAsync(account, ad.Id, CancellationToken.None))!;

        Second(history.Now).ShouldBe("Call Today");
        history.Past.Select(past => Second(past.Item)).ShouldBe(["Call Today", "Book Today"]);
        history.Past[0].Label.ShouldBe("Pause 1 ad");
    }

    [Fact]
    public async Task The_others_are_those_of_its_ad_group()
    {
        var (account, ad) = await AdAsync();
        var history = (await _versions.ReadAsync(account, ad.Id, CancellationToken.None))!;
        history.Others.Select(other => other.Item.GetProperty("headlines")[0].GetString()).ShouldBe(["Tuned At Home"]);
        history.Past.ShouldBeEmpty();
    }

    [Fact]
    public async Task An_ad_of_another_account_is_not_found()
    {
        var (_, ad) = await AdAsync();
        (await _versions.ReadAsync(await fixture.NewAccountAsync(), ad.Id, CancellationToken.None)).ShouldBeNull();
    }

    [Fact]
    public async Task A_copy_that_is_only_shown_knows_its_original()
    {
        var (account, ad) = await AdAsync();
        var copy = new CopyItems(
            new[] { ad },
            new CopyPlace([], []),
            new CopyEdits { Replace = [new CopyReplacement("Book Today", "Call Now")] }
        );

        var shown = await fixture.WorkingCopy.ApplyAsync(account, "a-person", copy, true, CancellationToken.None);

        var change = shown.Changes.ShouldHaveSingleItem();
        (Second(change.After!.Value), Second(change.Original!.Value)).ShouldBe(("Call Now", "Book Today"));
        change.Original!.Value.GetProperty("id").GetInt64().ShouldBe(ad.Id);
    }
}
