using Fendrik.Data.Commands.Copying;

namespace Fendrik.Data.Tests;

/// <summary>What hangs on the account, a campaign or an ad group, and is shown under the ads there.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class AttachedItemTests(WorkingCopyFixture fixture)
{
    private const string List = """
        item,campaign,ad group,daily budget,ad group max cpc,callout
        callout,,,,,Tuned by hand
        callout,North,,25,,Same-week visits
        callout,North,Tuning,,1.10,28 years of pianos
        callout,North,Tuning,,,SAME-WEEK VISITS
        """;

    private async Task<int> AccountAsync(string list = List)
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, list);
        return account;
    }

    private Task<IReadOnlyList<SheetRow>> CalloutsAsync(int account) =>
        fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.Callout });

    [Fact]
    public async Task Come_in_from_a_list_at_the_level_that_the_row_names()
    {
        var account = await AccountAsync();

        (await CalloutsAsync(account))
            .Select(row => (row.Name, row.Level, row.Campaign, row.AdGroup))
            .ShouldBe(
                [
                    ("28 years of pianos", Level.AdGroup, "North", "Tuning"),
                    ("Same-week visits", Level.Campaign, "North", null),
                    ("SAME-WEEK VISITS", Level.AdGroup, "North", "Tuning"),
                    ("Tuned by hand", Level.Account, null, null),
                ],
                ignoreOrder: true
            );
    }

    [Fact]
    public async Task Are_the_same_only_in_one_place()
    {
        var account = await AccountAsync();
        var campaign = (await fixture.RowAsync(account, "North")).Id;
        var put = new PutItem(
            ItemKind.Callout,
            new Dictionary<string, FieldInput> { ["text"] = "same-week visits" },
            new ItemPlaces([campaign])
        );

        (await Should.ThrowAsync<InvalidChangeException>(() => fixture.DoAsync(account, put))).Message.ShouldContain(
            "The same callout is there already."
        );
        (await fixture.DoAsync(account, put with { Place = new ItemPlaces() })).Items.ShouldBe(1);
    }

    [Fact]
    public async Task Longer_than_25_characters_stop_publishing()
    {
        // Common practice with no source: at most 25 characters on both networks.
        var account = await AccountAsync();
        var row = (await CalloutsAsync(account)).First(each => each.Level == Level.Account);
        await fixture.DoAsync(
            account,
            Change.Cell(WorkingCopyFixture.Reference(row), "text", "Tuned by hand, by ear and by heart")
        );

        (await fixture.FindingsAsync(account)).ShouldContain(finding =>
            finding.Code == "text-long" && finding.Kind == ItemKind.Callout
        );
    }

    [Fact]
    public async Task Go_with_a_campaign_that_is_copied()
    {
        var account = await AccountAsync();
        var campaign = WorkingCopyFixture.Reference(await fixture.RowAsync(account, "North"));

        await fixture.DoAsync(
            account,
            new CopyItems([campaign], new CopyPlace([], []), new CopyEdits { NamePattern = "{name} copy" })
        );

        (await CalloutsAsync(account)).Count(row => row.Campaign == "North copy").ShouldBe(3);
    }

    [Fact]
    public async Task Go_with_a_campaign_that_is_removed_and_come_back_with_it()
    {
        var account = await AccountAsync();
        var before = await fixture.StateAsync(account);
        await fixture.DoAsync(
            account,
            new RemoveItems([WorkingCopyFixture.Reference(await fixture.RowAsync(account, "North"))])
        );
        (await CalloutsAsync(account)).Select(row => row.Name).ShouldBe(["Tuned by hand"]);

        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);

        (await fixture.StateAsync(account)).ShouldBe(before);
    }

    [Fact]
    public async Task A_sitelink_has_a_page_and_two_lines_from_a_list()
    {
        var account = await AccountAsync(
            "item,campaign,daily budget,sitelink,sitelink line 1,sitelink line 2,landing page\nsitelink,North,25,Grand pianos,Concert and upright,Tuned before delivery,https://tarnandfell.example/grand\n"
        );

        var row = await fixture.RowAsync(account, "Grand pianos", ItemKind.Sitelink);

        row.Values["lines"].ShouldBe(new[] { "Concert and upright", "Tuned before delivery" });
        (row.LandingPage, row.Campaign).ShouldBe(("https://tarnandfell.example/grand", "North"));
    }

    [Fact]
    public async Task A_sitelink_without_a_page_stops_publishing()
    {
        var account = await AccountAsync("item,campaign,daily budget,sitelink\nsitelink,North,25,Grand pianos\n");

        (await fixture.FindingsAsync(account)).ShouldContain(finding =>
            finding.Code == "landing-page-missing" && finding.Kind == ItemKind.Sitelink
        );
    }
}
