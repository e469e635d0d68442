using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Core.Reporting;
using Fendrik.Data.Sheets;
using Fendrik.Data.Sheets.Conditions;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

[Collection(nameof(WorkingCopyFixture))]
public class SheetFilterTests(WorkingCopyFixture fixture)
{
    [Theory]
    [InlineData("name", SheetTest.Contains, "tun", 3)]
    [InlineData("name", SheetTest.Lacks, "tun", 2)]
    [InlineData("name", SheetTest.Starts, "PIANO H", 2)]
    [InlineData("name", SheetTest.Ends, "near me", 1)]
    [InlineData("name", SheetTest.Is, "Piano  Tuning", 2)]
    [InlineData("name", SheetTest.IsNot, "piano tuning", 3)]
    [InlineData("name", SheetTest.Matches, "^piano (hire|tuner)", 3)]
    [InlineData("name", SheetTest.MatchesNot, "hire$", 3)]
    [InlineData("name", SheetTest.Contains, "100%", 0)]
    [InlineData("campaign", SheetTest.Is, "south", 1)]
    [InlineData("adGroup", SheetTest.Contains, "hir", 2)]
    [InlineData("match", SheetTest.Is, "exact", 2)]
    [InlineData("match", SheetTest.IsNot, "exact", 3)]
    [InlineData("state", SheetTest.Is, "paused", 0)]
    [InlineData("maxCpc", SheetTest.Above, "1.00", 2)]
    [InlineData("maxCpc", SheetTest.AtMost, "0.90", 2)]
    [InlineData("ownMaxCpc", SheetTest.Empty, "", 3)]
    [InlineData("landingPage", SheetTest.Empty, "", 5)]
    [InlineData("change", SheetTest.Is, "new", 5)]
    [InlineData("change", SheetTest.IsNot, "new", 0)]
    [InlineData("words", SheetTest.Above, "2", 1)]
    [InlineData("characters", SheetTest.Is, "10", 2)]
    [InlineData("labels", SheetTest.Filled, "", 0)]
    public async Task Filters_keywords_by_any_field(string field, SheetTest test, string value, int rows)
    {
        var account = await TunedAccount.MakeAsync(fixture);
        string[] values = value.Length == 0 ? [] : [value];

        (await account.RowsAsync(ItemKind.Keyword, new SheetCondition(field, test, values))).Count.ShouldBe(rows);
    }

    [Fact]
    public async Task Lets_through_what_fulfils_all_conditions_with_any_of_their_values()
    {
        var account = await TunedAccount.MakeAsync(fixture);

        var names = await account.NamesAsync(
            ItemKind.Keyword,
            new SheetCondition("name", SheetTest.Contains, ["tuner", "hire"]),
            new SheetCondition("campaign", SheetTest.Is, ["North"])
        );

        names.ShouldBe(["piano hire", "piano tuner near me"]);
    }

    [Fact]
    public async Task Filters_by_figures_of_a_chosen_period()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var (tuning, hire) = (
            await account.TheAsync(ItemKind.Keyword, "piano tuner near me"),
            await account.TheAsync(ItemKind.Keyword, "piano hire", "North")
        );
        var day = new DateOnly(2026, 11, 20);
        await fixture.Performance.StoreAsync(
            account.Id,
            new Period(day, day),
            new[] { Row(tuning.Id, 25m, 0), Row(hire.Id, 30m, 2) }.ToAsyncEnumerable(),
            CancellationToken.None
        );
        SheetCondition[] wasted = [new("cost", SheetTest.Above, ["20"]), new("conversions", SheetTest.Is, ["0"])];

        (await account.NamesAsync(ItemKind.Keyword, wasted)).ShouldBe(["piano tuner near me"]);
        var before = new SheetRequest
        {
            Kind = ItemKind.Keyword,
            Conditions = wasted,
            FiguresFrom = day.AddDays(-9),
            FiguresTo = day.AddDays(-1),
        };
        (await fixture.RowsAsync(account.Id, before)).ShouldBeEmpty();
        var byCost = await fixture.RowsAsync(
            account.Id,
            new SheetRequest
            {
                Kind = ItemKind.Keyword,
                Sort = "cost",
                Descending = true,
            }
        );
        byCost.Take(2).Select(row => row.Cost).ShouldBe([30m, 25m]);

        PerformanceRow Row(long keyword, decimal cost, decimal conversions) =>
            new(day, 9, 1, 1, keyword, 1, Device.Phone, SiteKinds.Search, 100, 10, cost, conversions, 0);
    }

    [Fact]
    public async Task Adds_up_the_figures_of_all_that_match_counting_each_click_once()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var keyword = (await account.RowsAsync(ItemKind.Keyword)).First(row => row.Name == "piano hire");
        var day = new DateOnly(2026, 11, 20);
        await fixture.Performance.StoreAsync(
            account.Id,
            new Period(day, day),
            new[]
            {
                new PerformanceRow(
                    day,
                    9,
                    keyword.CampaignId!.Value,
                    keyword.AdGroupId!.Value,
                    keyword.Id,
                    1,
                    Device.Phone,
                    SiteKinds.Search,
                    50,
                    5,
                    7.5m,
                    1,
                    90
                ),
            }.ToAsyncEnumerable(),
            CancellationToken.None
        );

        var all = await fixture.Sheet.TotalsAsync(account.Id, new SheetRequest(), CancellationToken.None);
        var chosen = await fixture.Sheet.TotalsAsync(
            account.Id,
            [
                new ItemReference(ItemKind.Keyword, keyword.Id),
                new ItemReference(ItemKind.Campaign, keyword.CampaignId.Value),
            ],
            new SheetRequest(),
            CancellationToken.None
        );

        all.Items.ShouldBe(13);
        all.Figures.ShouldBe(new Figures(50, 5, 7.5m, 1, 90));
        chosen.ShouldBe(new SheetTotals(2, all.Figures));
    }

    [Theory]
    [InlineData("name", SheetTest.Matches, "([a-z", "regular expression")]
    [InlineData("maxCpc", SheetTest.Above, "much", "“much” is not a number")]
    [InlineData("match", SheetTest.Is, "fuzzy", "never “fuzzy”")]
    [InlineData("match", SheetTest.Contains, "exact", "another test")]
    [InlineData("price", SheetTest.Is, "1", "no field")]
    [InlineData("startDate", SheetTest.Above, "soon", "not a date")]
    public async Task Says_what_is_wrong_with_a_condition(string field, SheetTest test, string value, string said)
    {
        var account = await TunedAccount.MakeAsync(fixture);

        var error = await Should.ThrowAsync<InvalidChangeException>(() =>
            account.RowsAsync(ItemKind.Keyword, new SheetCondition(field, test, [value]))
        );

        error.Message.ShouldContain(said);
    }

    [Fact]
    public async Task Stops_a_regular_expression_that_would_run_for_ever()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        await account.DoAsync(
            Change.AdGroup(
                (await account.TheAsync(ItemKind.Campaign, "North")).Id,
                string.Concat(Enumerable.Range(0, 12).Select(_ => Guid.NewGuid().ToString("N"))),
                null
            )
        );

        var error = await Should.ThrowAsync<InvalidChangeException>(() =>
            account.RowsAsync(
                ItemKind.AdGroup,
                new SheetCondition("name", SheetTest.Matches, [@"^(.+)(.+)(.+)(.+)\4\3\2\1$"])
            )
        );

        error.Message.ShouldContain("takes too long");
    }

    [Fact]
    public async Task Changes_all_that_match_without_their_being_named_but_those_left_out()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var kept = await account.TheAsync(ItemKind.Keyword, "piano hire", "South");

        var result = await account.DoAsync(
            Change.State(
                new ItemSet([kept], new SheetRequest { Kind = ItemKind.Keyword, Text = "piano" }),
                ItemState.Paused
            )
        );

        result.Items.ShouldBe(4);
        (await account.RowsAsync(ItemKind.Keyword, new SheetCondition("state", SheetTest.Is, ["running"])))
            .ShouldHaveSingleItem()
            .Id.ShouldBe(kept.Id);
    }

    [Fact]
    public async Task Finds_the_place_of_an_item_in_the_outline_and_in_a_list()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        foreach (var view in new ItemKind?[] { null, ItemKind.Keyword })
        {
            var request = new SheetRequest { Kind = view };
            var rows = await fixture.RowsAsync(account.Id, request);
            foreach (var (place, row) in rows.Index().Where(each => !each.Item.IsHeading))
            {
                (
                    await fixture.Sheet.PlaceAsync(
                        account.Id,
                        request,
                        new ItemReference(row.Kind, row.Id),
                        CancellationToken.None
                    )
                ).ShouldBe(place);
            }
        }
    }
}
