using Fendrik.Core.Accounts;
using Fendrik.Data.Commands.Copying;
using Fendrik.Data.Sheets;
using Fendrik.Data.Sheets.Conditions;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

[Collection(nameof(WorkingCopyFixture))]
public class CopyTests(WorkingCopyFixture fixture)
{
    private static readonly CopyPlace InPlace = new([], []);

    [Fact]
    public async Task Copies_ads_beside_their_twins_for_phones_with_another_call_to_action()
    {
        var account = await TunedAccount.MakeAsync(fixture);

        var result = await account.DoAsync(
            new CopyItems(
                TunedAccount.All(ItemKind.TextAd),
                InPlace,
                new CopyEdits
                {
                    Set = new Dictionary<string, FieldInput> { ["devicePreference"] = "phone" },
                    Replace = [new CopyReplacement("Book Today", "Call Now")],
                }
            )
        );

        result.Items.ShouldBe(2);
        var copies = await fixture.RowsAsync(
            account.Id,
            new SheetRequest { Kind = ItemKind.TextAd, StepId = result.StepId }
        );
        copies.Count.ShouldBe(2);
        copies.ShouldAllHold(ad => ad.DevicePreference == Device.Phone && ad.Headlines![1] == "Call Now");
        copies.Select(ad => ad.AdGroup).ShouldBe(["Tuning", "Hire"], ignoreOrder: true);
    }

    [Fact]
    public async Task Refuses_a_copy_that_would_be_the_twin_of_what_is_there()
    {
        var account = await TunedAccount.MakeAsync(fixture);

        var result = await account.DoAsync(new CopyItems(TunedAccount.All(ItemKind.TextAd), InPlace, new CopyEdits()));

        (result.Items, result.RefusedCount).ShouldBe((0, 2));
        result.Refused[0].Reason.ShouldContain("this very ad already");
    }

    [Fact]
    public async Task Copies_a_campaign_with_all_in_it_under_a_name_by_pattern()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var north = await account.TheAsync(ItemKind.Campaign, "North");

        var result = await account.DoAsync(
            new CopyItems([north], InPlace, new CopyEdits { NamePattern = "{name} · phones", BidFactor = 1.5m })
        );

        result.Items.ShouldBe(10); // the campaign, 2 ad groups, 4 keywords, 1 negative, 2 ads
        var copies = (await fixture.RowsAsync(account.Id)).Where(row => row.Campaign == "North · phones").ToArray();
        copies.Count(row => row.Kind == ItemKind.Keyword).ShouldBe(4);
        copies.Single(row => row is { Kind: ItemKind.AdGroup, Name: "Tuning" }).MaxCpc.ShouldBe(1.5m);
        copies.Single(row => row is { Name: "piano tuning", Match: MatchType.Exact }).MaxCpc.ShouldBe(1.95m);
        copies.Single(row => row is { Name: "piano tuning", Match: MatchType.Phrase }).MaxCpc.ShouldBeNull();
        copies.Single(row => row.Kind == ItemKind.NegativeKeyword).Name.ShouldBe("free");
    }

    [Fact]
    public async Task Copies_ad_groups_into_another_campaign_and_refuses_names_that_are_taken()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var south = await account.TheAsync(ItemKind.Campaign, "South");

        var result = await account.DoAsync(
            new CopyItems(
                [
                    await account.TheAsync(ItemKind.AdGroup, "Tuning"),
                    await account.TheAsync(ItemKind.AdGroup, "Hire", "North"),
                ],
                new CopyPlace([south.Id], []),
                new CopyEdits()
            )
        );

        result.Items.ShouldBe(5); // Tuning with 3 keywords and an ad
        result.Refused.ShouldHaveSingleItem().Name.ShouldBe("Hire");
    }

    [Fact]
    public async Task Copies_keywords_into_ad_groups_with_match_type_and_bid_changed()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var target = (await account.TheAsync(ItemKind.AdGroup, "Hire", "South")).Id;

        var result = await account.DoAsync(
            new CopyItems(
                TunedAccount.All(ItemKind.Keyword, new SheetCondition("adGroup", SheetTest.Is, ["Tuning"])),
                new CopyPlace([], [target]),
                new CopyEdits
                {
                    Set = new Dictionary<string, FieldInput> { ["match"] = "broad" },
                    BidFactor = 0.5m,
                }
            )
        );

        // The exact and the phrase form become one and the same: one of the two is refused.
        (result.Items, result.RefusedCount).ShouldBe((2, 1));
        var copies = (await account.RowsAsync(ItemKind.Keyword)).Where(row => row.AdGroupId == target).ToArray();
        copies.Single(row => row.Name == "piano tuner near me").MaxCpc.ShouldBe(0.40m);
        copies.ShouldAllHold(row => row.Match == MatchType.Broad);
    }

    [Fact]
    public async Task Takes_a_copy_back_whole()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var before = await account.StateAsync();
        await account.DoAsync(
            new CopyItems(
                TunedAccount.All(ItemKind.Campaign),
                InPlace,
                new CopyEdits { NamePattern = "Copy of {name}" }
            )
        );

        await account.UndoAsync();

        (await account.StateAsync()).ShouldBe(before);
    }

    [Fact]
    public async Task Asks_for_the_name_in_a_pattern()
    {
        var account = await TunedAccount.MakeAsync(fixture);

        (
            await Should.ThrowAsync<InvalidChangeException>(() =>
                account.DoAsync(
                    new CopyItems(
                        TunedAccount.All(ItemKind.Campaign),
                        InPlace,
                        new CopyEdits { NamePattern = "Phones" }
                    )
                )
            )
        ).Field.ShouldBe("namePattern");
    }
}
