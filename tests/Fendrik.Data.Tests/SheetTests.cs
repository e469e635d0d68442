using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Data.Sheets;

namespace Fendrik.Data.Tests;

[Collection(nameof(WorkingCopyFixture))]
public class SheetTests(WorkingCopyFixture fixture)
{
    private async Task<int> AccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(
            account,
            """
            campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc,headline 1,headline 2,description 1,url
            North,25,Tuning,1.00,piano tuning,exact,1.30,,,,
            North,,Tuning,,piano tuner,phrase,0.80,,,,
            North,,Tuning,,,,,Piano Tuning,Ask Us,Same week.,tarnandfell.example
            North,,Hire,1.10,piano hire,exact,,,,,
            North,,,,-free,,,,,,
            South,20,Sales,0.90,used piano,broad,,,,,
            """
        );
        return account;
    }

    [Fact]
    public async Task Folds_what_a_campaign_holds_besides_ad_groups_as_a_group_of_its_own()
    {
        var account = await AccountAsync();
        var page = await fixture.Sheet.ReadAsync(account, new SheetRequest(), CancellationToken.None);
        var heading = page.Rows.Single(row => row.IsHeading);

        var folded = await fixture.Sheet.ReadAsync(
            account,
            new SheetRequest { FoldedBesides = [heading.CampaignId!.Value] },
            CancellationToken.None
        );

        (heading.Name, heading.Inside).ShouldBe(("Negatives", 1));
        folded.Rows.Select(row => row.Name).ShouldBe(page.Rows.Select(row => row.Name).Where(name => name != "free"));
        folded.Counts.ShouldBe(page.Counts);
    }

    [Fact]
    public async Task Lays_out_campaigns_with_their_negatives_ad_groups_keywords_and_ads()
    {
        var account = await AccountAsync();

        var page = await fixture.Sheet.ReadAsync(account, new SheetRequest(), CancellationToken.None);

        page.Rows.Select(row => row.Name)
            .ShouldBe([
                "North",
                "Hire",
                "piano hire",
                "Tuning",
                "piano tuner",
                "piano tuning",
                "Piano Tuning · Ask Us",
                "Negatives",
                "free",
                "South",
                "Sales",
                "used piano",
            ]);
        page.Counts.Where(count => count.Count > 0)
            .Select(count => (count.Kind, count.Count))
            .ShouldBe([
                (ItemKind.Campaign, 2),
                (ItemKind.AdGroup, 3),
                (ItemKind.Keyword, 4),
                (ItemKind.NegativeKeyword, 1),
                (ItemKind.TextAd, 1),
            ]);
    }

    [Fact]
    public async Task Gives_any_window_as_a_part_of_the_whole()
    {
        var account = await AccountAsync();
        var all = (await fixture.RowsAsync(account)).Select(row => (row.Kind, row.Id)).ToArray();
        for (var offset = 0; offset < all.Length; offset++)
        {
            var page = await fixture.Sheet.ReadAsync(
                account,
                new SheetRequest { Offset = offset, Limit = 3 },
                CancellationToken.None
            );

            page.Rows.Select(row => (row.Kind, row.Id)).ShouldBe(all.Skip(offset).Take(3));
            page.Total.ShouldBe(all.Length);
        }
    }

    [Fact]
    public async Task Leaves_out_what_is_folded()
    {
        var account = await AccountAsync();
        var north = await fixture.RowAsync(account, "North");

        (await fixture.RowsAsync(account, new SheetRequest { FoldedCampaigns = [north.Id] }))
            .Select(row => row.Name)
            .ShouldBe(["North", "South", "Sales", "used piano"]);
    }

    [Fact]
    public async Task Keeps_the_parents_of_what_a_filter_lets_through()
    {
        var account = await AccountAsync();

        (await fixture.RowsAsync(account, new SheetRequest { Text = "TUNER" }))
            .Select(row => row.Name)
            .ShouldBe(["North", "Tuning", "piano tuner"]);
    }

    [Fact]
    public async Task Takes_signs_in_a_filter_for_what_they_are()
    {
        var account = await AccountAsync();

        (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Keyword, Text = "p%o" })).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("name", false, "piano hire")]
    [InlineData("name", true, "used piano")]
    [InlineData("maxCpc", true, "piano tuning")]
    [InlineData("maxCpc", false, "piano tuner")]
    [InlineData("campaign", true, "used piano")]
    [InlineData("match", true, "used piano")]
    [InlineData("nonsense; drop table keyword", false, "piano hire")]
    public async Task Sorts_a_flat_list_by_any_column(string sort, bool descending, string first)
    {
        var account = await AccountAsync();

        (
            await fixture.RowsAsync(
                account,
                new SheetRequest
                {
                    Kind = ItemKind.Keyword,
                    Sort = sort,
                    Descending = descending,
                }
            )
        )[0].Name.ShouldBe(first);
    }

    [Fact]
    public async Task Shows_beside_a_keyword_without_bid_the_one_of_its_ad_group()
    {
        var account = await AccountAsync();

        var row = await fixture.RowAsync(account, "piano hire");

        (row.MaxCpc, row.InheritedMaxCpc).ShouldBe((null, 1.10m));
    }

    [Fact]
    public async Task Shows_what_a_row_needs_once_the_checks_have_run()
    {
        var account = await AccountAsync();
        await fixture.Checks.CountsAsync(account, CancellationToken.None);

        (await fixture.RowAsync(account, "Hire")).Needs.ShouldHaveSingleItem().Message.ShouldBe("no ads");
        (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.AdGroup, Needs = true }))
            .Select(row => row.Name)
            .ShouldBe(["Hire", "Sales"]);
    }

    [Fact]
    public async Task Stops_publishing_for_a_missing_budget_and_a_negative_against_ones_own_keyword_is_a_caution()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(
            account,
            "campaign,ad group,keyword,max cpc\nNorth,Tuning,free piano tuning,1.20\nNorth,,-free,\n"
        );

        var findings = await fixture.FindingsAsync(account);

        findings
            .Select(finding => (finding.Weight, finding.Code, finding.Name))
            .ShouldBe([
                (Weight.Blocker, "daily-budget-missing", "North"),
                (Weight.Caution, "shows-everywhere", "North"),
                (Weight.Caution, "no-ads", "Tuning"),
                (Weight.Caution, "blocked-by-negative", "free piano tuning"),
            ]);
    }

    [Theory]
    [InlineData("-[piano tuning]", "phrase", null)]
    [InlineData("-\"piano tuning\"", "all words", Weight.Hint)]
    [InlineData("-[piano tuning]", "exact", Weight.Caution)]
    [InlineData("-\"tuning\"", "broad", Weight.Caution)]
    public async Task Says_of_a_negative_how_much_of_an_own_keyword_it_keeps_away(
        string negative,
        string match,
        Weight? weight
    )
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(
            account,
            $"campaign,ad group,keyword,match,max cpc\nNorth,Tuning,piano tuning,{match},1.20\nNorth,,\"{negative.Replace("\"", "\"\"")}\",,\n"
        );

        (await fixture.FindingsAsync(account))
            .Where(finding => finding.Code == "blocked-by-negative")
            .Select(finding => (Weight?)finding.Weight)
            .SingleOrDefault()
            .ShouldBe(weight);
    }

    [Fact]
    public async Task Checks_anew_after_each_change()
    {
        var account = await AccountAsync();
        var before = await fixture.Checks.CountsAsync(account, CancellationToken.None);
        await fixture.DoAsync(account, Change.Campaign("East", null));

        var after = await fixture.Checks.CountsAsync(account, CancellationToken.None);

        (after.Blockers - before.Blockers).ShouldBe(1);
    }

    [Fact]
    public async Task Checks_once_and_answers_alike_when_many_ask_at_the_same_time()
    {
        var account = await AccountAsync();
        await fixture.DoAsync(account, Change.Campaign("East", null));

        var counts = await Task.WhenAll(
            Enumerable.Range(0, 8).Select(_ => fixture.Checks.CountsAsync(account, CancellationToken.None))
        );

        counts.Distinct().ShouldHaveSingleItem().Blockers.ShouldBe(1);
    }
}
