using Fendrik.Core.Accounts;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

[Collection(nameof(WorkingCopyFixture))]
public class NegativeChangeTests(WorkingCopyFixture fixture)
{
    [Fact]
    public async Task Adds_one_list_of_negatives_to_several_places_with_one_match_type_for_all()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var (north, south, hire) = (
            await account.TheAsync(ItemKind.Campaign, "North"),
            await account.TheAsync(ItemKind.Campaign, "South"),
            await account.TheAsync(ItemKind.AdGroup, "Hire", "South")
        );

        var result = await account.DoAsync(
            Change.Negatives(
                new ItemPlaces([north.Id, south.Id], [hire.Id], []),
                "free\n[jobs]\n-sheet music",
                MatchType.Phrase,
                matchForAll: true
            )
        );

        (result.Items, result.RefusedCount).ShouldBe((8, 1)); // “free” is on North already
        (await account.RowsAsync(ItemKind.NegativeKeyword)).ShouldAllHold(row => row.Match == MatchType.Phrase);
    }

    [Fact]
    public async Task Shares_a_list_with_campaigns_and_stops_sharing_it()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var (north, south) = (
            await account.TheAsync(ItemKind.Campaign, "North"),
            await account.TheAsync(ItemKind.Campaign, "South")
        );
        await account.DoAsync(new AddNegativeList("Not buyers", [north.Id], "jobs\ncourse", MatchType.Phrase));
        var list = await account.TheAsync(ItemKind.NegativeList, "Not buyers");

        await account.DoAsync(new ChangeReferences([list], "campaignIds", [south.Id], true));
        await account.DoAsync(new ChangeReferences([list], "campaignIds", [north.Id], false));

        (await account.RowsAsync(ItemKind.NegativeList)).Single().CampaignIds.ShouldBe([south.Id]);
        var inList = await fixture.RowsAsync(
            account.Id,
            new SheetRequest { Kind = ItemKind.NegativeKeyword, ListId = list.Id }
        );
        inList.Select(row => row.Name).ShouldBe(["course", "jobs"]);
        inList.ShouldAllBe(row => row.List == "Not buyers" && row.CampaignId == null);
    }

    [Fact]
    public async Task Removes_a_list_with_its_negatives_and_brings_both_back()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        await account.DoAsync(new AddNegativeList("Not buyers", [], "jobs", MatchType.Phrase));
        var before = await account.StateAsync();

        var removal = await account.DoAsync(
            new RemoveItems([await account.TheAsync(ItemKind.NegativeList, "Not buyers")])
        );
        await account.UndoAsync();

        removal.Items.ShouldBe(2);
        (await account.StateAsync()).ShouldBe(before);
    }

    [Fact]
    public async Task Makes_exact_keywords_of_one_ad_group_negatives_in_its_siblings()
    {
        var account = await TunedAccount.MakeAsync(fixture);

        var result = await account.DoAsync(new CrossNegatives([await account.TheAsync(ItemKind.Campaign, "North")]));

        result.Items.ShouldBe(2);
        var negatives = (await account.RowsAsync(ItemKind.NegativeKeyword)).Where(row => row.AdGroup is not null);
        negatives
            .Select(row => (row.AdGroup, row.Name, row.Match))
            .ShouldBe(
                [("Hire", "piano tuning", MatchType.Exact), ("Tuning", "piano hire", MatchType.Exact)],
                ignoreOrder: true
            );
        (
            await account.DoAsync(new CrossNegatives([await account.TheAsync(ItemKind.Campaign, "North")]))
        ).Items.ShouldBe(0);
    }

    // Common practice, no source: an exact negative beside a phrase keyword of the same words steers the search to its neighbour.
    [Theory]
    [InlineData("phrase", MatchType.Exact, 1)]
    [InlineData("exact", MatchType.Exact, 0)]
    [InlineData("broad", MatchType.Phrase, 1)]
    [InlineData("phrase", MatchType.Phrase, 0)]
    public async Task Cross_negatives_steer_past_a_sibling_with_the_same_words_but_never_keep_it_from_all_its_searches(
        string sibling,
        MatchType match,
        int added
    )
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(
            account,
            $"campaign,ad group,keyword,match,max cpc\nNorth,Tuning,piano tuning,exact,1.20\nNorth,Rest,piano tuning,{sibling},0.40\n"
        );

        var campaign = await fixture.RowAsync(account, "North", ItemKind.Campaign);
        await fixture.DoAsync(account, new CrossNegatives([new ItemReference(ItemKind.Campaign, campaign.Id)], match));

        (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.NegativeKeyword }))
            .Count(row => row.AdGroup == "Rest")
            .ShouldBe(added);
    }

    [Fact]
    public async Task Combines_word_lists_into_keywords_of_several_match_types()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var group = await account.TheAsync(ItemKind.AdGroup, "Hire", "South");

        var result = await account.DoAsync(
            new AddCombinedWords(
                [group.Id],
                [
                    ["leeds", "york"],
                    ["piano hire", "piano"],
                    ["", "cheap"],
                ],
                [MatchType.Exact, MatchType.Phrase],
                null
            )
        );

        result.Items.ShouldBe(16);
        (await account.NamesAsync(ItemKind.Keyword)).ShouldContain("york piano hire cheap");
    }

    [Fact]
    public async Task Adds_the_other_match_types_beside_a_keyword_with_a_bid_by_factor()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var keyword = await account.TheAsync(ItemKind.Keyword, "piano hire", "North");

        await account.DoAsync(new AddMatchTypes([keyword], [MatchType.Exact, MatchType.Broad], 0.3m));

        var forms = (await account.RowsAsync(ItemKind.Keyword)).Where(row =>
            row is { Name: "piano hire", Campaign: "North" }
        );
        forms
            .Select(row => (row.Match, row.MaxCpc))
            .ShouldBe([(MatchType.Exact, null), (MatchType.Broad, 0.33m)], ignoreOrder: true);
    }

    [Fact]
    public async Task Splits_an_ad_group_by_match_type_with_its_ads()
    {
        var account = await TunedAccount.MakeAsync(fixture);

        var result = await account.DoAsync(new SplitByMatchType([await account.TheAsync(ItemKind.AdGroup, "Tuning")]));

        result.Label.ShouldBe("Split by match type into 1 more ad groups");
        var rows = await fixture.RowsAsync(account.Id);
        rows.Where(row => row.AdGroup == "Tuning – phrase" && row.Kind == ItemKind.Keyword)
            .Select(row => row.Name)
            .ShouldBe(["piano tuner near me", "piano tuning"]);
        rows.Count(row => row.AdGroup == "Tuning" && row.Kind == ItemKind.Keyword).ShouldBe(1);
        rows.Count(row => row.AdGroup == "Tuning – phrase" && row.Kind == ItemKind.TextAd).ShouldBe(1);
    }
}
