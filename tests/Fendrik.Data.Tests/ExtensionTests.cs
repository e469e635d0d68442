using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Core.Checks;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Fendrik.Core.Serving;
using Fendrik.Data.Extensions;
using Fendrik.Data.Results;

namespace Fendrik.Data.Tests;

/// <summary>Where extensions stand, what that means for the ads below, and adding them in many places at once.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class ExtensionTests(WorkingCopyFixture fixture)
{
    private const string List = """
        item,campaign,ad group,daily budget,ad group max cpc,callout,sitelink,landing page,call number,extension hours
        callout,,,,,28 years,,,,
        callout,,,,,Insured,,,,
        callout,North,,25,,Same-week visits,,,,
        callout,North,Tuning,,1.10,Evening visits,,,,
        ad group,North,Hire,,1.10,,,,,
        ad group,South,Hire,20,1.10,,,,,
        sitelink,,,,,,Our pianos,https://tarnandfell.example/sales,,
        call extension,South,,,,,,,0131 496 0118,Mon-Fri 9-17
        """;

    private readonly ExtensionCoverage _coverage = new(fixture.Source);
    private readonly ExtensionFigures _figures = new(fixture.Source);

    private async Task<int> AccountAsync(string network = "ostrel")
    {
        var account = await fixture.NewAccountAsync(network);
        await fixture.KeepAsync(account, List);
        return account;
    }

    private Task<Coverage> CoverageAsync(int account) =>
        _coverage.ReadAsync(account, null, null, 100, CancellationToken.None);

    private static string[] InReach(Coverage coverage, ItemKind kind) =>
        [
            .. coverage.Rows.Select(row =>
            {
                var cell = row.Cells.Single(each => each.Kind == kind);
                var from = string.Join(" + ", cell.From.Select(each => $"{each.Count} {each.Level}"));
                return $"{row.Name}: {cell.Here} here, {cell.InReach} = {from}";
            }),
        ];

    [Fact]
    public async Task Levels_add_up_where_the_network_pools_them() =>
        InReach(await CoverageAsync(await AccountAsync()), ItemKind.Callout)
            .ShouldBe([
                "Tarn & Fell Pianos: 2 here, 2 = 2 Account",
                "North: 1 here, 3 = 1 Campaign + 2 Account",
                "Hire: 0 here, 3 = 1 Campaign + 2 Account",
                "Tuning: 1 here, 4 = 1 AdGroup + 1 Campaign + 2 Account",
                "South: 0 here, 2 = 2 Account",
                "Hire: 0 here, 2 = 2 Account",
            ]);

    [Fact]
    public async Task The_nearest_level_replaces_the_farther_ones_where_the_network_says_so() =>
        InReach(await CoverageAsync(await AccountAsync("pellow")), ItemKind.Callout)
            .ShouldBe([
                "Tarn & Fell Pianos: 2 here, 2 = 2 Account",
                "North: 1 here, 1 = 1 Campaign",
                "Hire: 0 here, 1 = 1 Campaign",
                "Tuning: 1 here, 1 = 1 AdGroup",
                "South: 0 here, 2 = 2 Account",
                "Hire: 0 here, 2 = 2 Account",
            ]);

    [Fact]
    public async Task Gaps_are_counted_over_all_ad_groups()
    {
        var pooled = await CoverageAsync(await AccountAsync());
        var nearest = await CoverageAsync(await AccountAsync("pellow"));

        pooled.Gaps.Single(gap => gap.Kind == ItemKind.Callout).ShouldBe(new(ItemKind.Callout, 2, 0, 4, 2));
        nearest.Gaps.Single(gap => gap.Kind == ItemKind.Callout).ShouldBe(new(ItemKind.Callout, 2, 2, 3, 1));
    }

    [Fact]
    public async Task One_text_is_added_to_the_account_campaigns_and_ad_groups_in_one_step()
    {
        var account = await AccountAsync();
        var rows = (await CoverageAsync(account)).Rows;
        var add = new AddItems(
            ItemKind.Callout,
            [
                new Dictionary<string, FieldInput> { ["text"] = "Pay after the last note" },
                new Dictionary<string, FieldInput> { ["text"] = "INSURED", ["hours"] = "weekdays 8-18" },
            ],
            new ItemPlaces(
                [.. rows.Where(row => row.Level == Level.Campaign).Select(row => row.CampaignId!.Value)],
                [.. rows.Where(row => row.AdGroupId is not null).Select(row => row.AdGroupId!.Value)],
                OnAccount: true
            )
        );

        var done = await fixture.DoAsync(account, add);

        // Two campaigns, three ad groups and the account; the account says it already.
        (done.Items, done.Label, done.RefusedCount).ShouldBe((11, "Add 11 callouts", 1));
        done.Refused.ShouldHaveSingleItem().Name.ShouldBe("INSURED");
        (await fixture.DoAsync(account, add, preview: true)).Items.ShouldBe(0);
    }

    [Theory]
    [InlineData("text", "", "Callout 1: Callout is empty")]
    [InlineData("hours", "whenever", "Callout 1: Hours")]
    public async Task What_cannot_be_read_names_the_item_and_the_field(string field, string text, string told)
    {
        var account = await AccountAsync();
        var item = new Dictionary<string, FieldInput> { ["text"] = "Insured", [field] = text };

        (
            await Should.ThrowAsync<InvalidChangeException>(() =>
                fixture.DoAsync(account, new AddItems(ItemKind.Callout, [item], new ItemPlaces()))
            )
        ).Message.ShouldStartWith(told);
    }

    [Fact]
    public async Task Ads_are_added_in_several_ad_groups_and_a_twin_is_named_by_its_headlines()
    {
        var account = await AccountAsync();
        var groups = (await CoverageAsync(account)).Rows.Where(row => row.AdGroupId is not null).ToArray();
        var add = new AddItems(
            ItemKind.TextAd,
            [
                new Dictionary<string, FieldInput>
                {
                    ["headlines"] = new[] { "Piano Tuning", "Book Today" },
                    ["descriptions"] = new[] { "We come to you." },
                    ["landingPage"] = "https://tarnandfell.example/tuning",
                },
            ],
            new ItemPlaces(AdGroupIds: [groups[0].AdGroupId!.Value, groups[1].AdGroupId!.Value])
        );
        (await fixture.DoAsync(account, add)).Items.ShouldBe(2);

        var again = await fixture.DoAsync(
            account,
            add with
            {
                Places = new ItemPlaces(AdGroupIds: [.. groups.Select(group => group.AdGroupId!.Value)]),
            }
        );

        (again.Items, again.Refused.ShouldHaveSingleItem().Name).ShouldBe((1, "Piano Tuning | Book Today"));
    }

    [Fact]
    public async Task A_number_shows_in_its_campaign_within_its_hours()
    {
        var account = await AccountAsync();
        var south = (await fixture.RowAsync(account, "South")).Id;
        async Task<bool> ShowsAsync(int hour) =>
            (
                await _figures.ConsiderAsync(
                    account,
                    south,
                    null,
                    new ShownAt(Device.Phone, new DateOnly(2026, 5, 12), hour * 60),
                    CancellationToken.None
                )
            )
                .Single(each => each.Kind == ItemKind.CallExtension)
                .Shows;

        (await ShowsAsync(10)).ShouldBeTrue();
        (await ShowsAsync(18)).ShouldBeFalse();
    }

    [Fact]
    public async Task Texts_are_ranked_by_what_a_conversion_costs_beside_them()
    {
        var account = await AccountAsync();
        var callouts = await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Callout });
        var day = new DateOnly(2026, 5, 12);
        ExtensionRow Row(string text, decimal cost, decimal conversions) =>
            new(
                day,
                1,
                1,
                ItemKind.Callout,
                callouts.Single(row => row.Name == text).Id,
                1000,
                50,
                0,
                cost,
                40,
                conversions,
                0
            );
        await using (var connection = await fixture.Source.OpenConnectionAsync())
        {
            await Dapper.SqlMapper.ExecuteAsync(
                connection,
                "update account set reported_to = @day where id = @account",
                new { day, account }
            );
        }

        await new DayReports(fixture.Source).StoreAsync(
            account,
            new Period(day, day),
            new[] { Row("28 years", 60, 2), Row("Insured", 50, 5) }.ToAsyncEnumerable(),
            CancellationToken.None
        );

        var figures = await _figures.ReadAsync(account, null, null, CancellationToken.None);

        figures
            .Take(2)
            .Select(each => (each.Says, each.Figures.CostPerConversion))
            .ShouldBe([("Insured", 10m), ("28 years", 30m)]);
        figures[0].AgainstUsual.ShouldBe(1.25m);
        figures.Count.ShouldBe(6);
    }
}
