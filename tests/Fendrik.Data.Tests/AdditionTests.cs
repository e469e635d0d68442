using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Data.Model;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

/// <summary>What a person adds and edits one by one in the sheet.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class AdditionTests(WorkingCopyFixture fixture)
{
    private async Task<(int Account, SheetRow Group)> GroupAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.DoAsync(account, Change.Campaign("North", 25m));
        var campaign = await fixture.RowAsync(account, "North");
        await fixture.DoAsync(account, Change.AdGroup(campaign.Id, "Tuning", 1.10m));
        return (account, await fixture.RowAsync(account, "Tuning"));
    }

    private Task<StepResult> WriteAdAsync(int account, long group, long? ad, params string[] headlines) =>
        fixture.DoAsync(
            account,
            Change.Ad(group, ad, headlines, ["Same week."], ["tuning"], "tarnandfell.example/tuning")
        );

    [Fact]
    public async Task Adds_a_campaign_that_runs_on_search_and_an_ad_group_in_it()
    {
        var (account, group) = await GroupAsync();

        var campaign = await fixture.RowAsync(account, "North");
        (campaign.State, campaign.Networks[0], campaign.DailyBudget, campaign.Change).ShouldBe(
            (ItemState.Running, "search", 25m, RowChange.New)
        );
        (group.CampaignId, group.MaxCpc).ShouldBe((campaign.Id, 1.10m));
    }

    [Fact]
    public async Task Adds_negatives_to_a_campaign_and_to_an_ad_group_without_mixing_them_up()
    {
        var (account, group) = await GroupAsync();

        await fixture.DoAsync(
            account,
            Change.Negatives(new ItemPlaces([group.CampaignId!.Value]), "free", MatchType.Phrase)
        );
        await fixture.DoAsync(
            account,
            Change.Negatives(new ItemPlaces(AdGroupIds: [group.Id]), "free", MatchType.Phrase)
        );

        var negatives = await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.NegativeKeyword });
        negatives.Select(row => row.AdGroupId).ShouldBe([null, group.Id], ignoreOrder: true);
    }

    [Theory]
    [InlineData("", "at least one")]
    [InlineData("[piano", "square bracket")]
    [InlineData("-free", "is a negative")]
    public async Task Says_which_line_cannot_be_a_keyword(string lines, string problem)
    {
        var (account, group) = await GroupAsync();

        var error = await Should.ThrowAsync<InvalidChangeException>(() =>
            fixture.DoAsync(account, Change.Keywords(group.Id, lines, MatchType.Broad))
        );

        (error.Field, error.Message.Contains(problem)).ShouldBe(("lines", true));
    }

    [Fact]
    public async Task Adds_nothing_to_an_ad_group_of_another_account()
    {
        var (_, group) = await GroupAsync();
        var other = await fixture.NewAccountAsync();

        await Should.ThrowAsync<InvalidChangeException>(() =>
            fixture.DoAsync(other, Change.Keywords(group.Id, "piano", MatchType.Broad))
        );
        await Should.ThrowAsync<InvalidChangeException>(() => WriteAdAsync(other, group.Id, null, "A", "B"));
        await Should.ThrowAsync<InvalidChangeException>(() =>
            fixture.DoAsync(other, Change.AdGroup(group.CampaignId!.Value, "Mine", null))
        );
    }

    [Fact]
    public async Task Writes_an_ad_and_changes_it()
    {
        var (account, group) = await GroupAsync();
        await WriteAdAsync(account, group.Id, null, "Piano Tuning", "Ask Us");
        var ad = await fixture.RowAsync(account, "Piano Tuning · Ask Us");

        await WriteAdAsync(account, group.Id, ad.Id, "Piano Tuning", "Ask For A Price");

        (await fixture.RowAsync(account, "Piano Tuning · Ask For A Price")).Id.ShouldBe(ad.Id);
    }

    [Fact]
    public async Task Refuses_a_second_ad_of_the_same_content_in_the_ad_group()
    {
        var (account, group) = await GroupAsync();
        await WriteAdAsync(account, group.Id, null, "Piano Tuning", "Ask Us");

        (
            await Should.ThrowAsync<InvalidChangeException>(() =>
                WriteAdAsync(account, group.Id, null, "PIANO tuning", "Ask us")
            )
        ).Message.ShouldContain("this very ad");
    }

    [Fact]
    public async Task Reads_the_notation_when_a_keyword_is_reworded()
    {
        var (account, group) = await GroupAsync();
        await fixture.DoAsync(account, Change.Keywords(group.Id, "piano", MatchType.Broad));
        var keyword = await fixture.RowAsync(account, "piano");

        await fixture.DoAsync(account, Change.Cell(WorkingCopyFixture.Reference(keyword), "name", "\"piano tuner\""));

        (await fixture.RowAsync(account, "piano tuner")).Match.ShouldBe(MatchType.Phrase);
    }

    [Theory]
    [InlineData("", "empty")]
    [InlineData("bad\u0007name", "control characters")]
    public async Task Says_what_is_wrong_with_a_name(string name, string problem)
    {
        var (account, group) = await GroupAsync();

        (
            await Should.ThrowAsync<InvalidChangeException>(() =>
                fixture.DoAsync(account, Change.Cell(WorkingCopyFixture.Reference(group), "name", name))
            )
        ).Message.ShouldContain(problem);
    }

    private static SetFields SettingsOf(long campaign, DateOnly start, DateOnly end) =>
        new(
            new[] { new ItemReference(ItemKind.Campaign, campaign) },
            new Dictionary<string, FieldInput>
            {
                ["startDate"] = $"{start:yyyy-MM-dd}",
                ["endDate"] = $"{end:yyyy-MM-dd}",
                ["networks"] = new[] { "search", "partners" },
            }
        );

    [Fact]
    public async Task Sets_dates_and_networks_of_a_campaign_and_stops_dates_the_wrong_way_round_from_being_published()
    {
        var (account, group) = await GroupAsync();
        var (first, last) = (new DateOnly(2026, 5, 1), new DateOnly(2026, 6, 1));

        await fixture.DoAsync(account, SettingsOf(group.CampaignId!.Value, first, last));

        var campaign = await fixture.RowAsync(account, "North");
        campaign.Networks.ShouldBe(["search", "partners"]);
        (campaign.StartDate, campaign.EndDate).ShouldBe((first, last));
        await fixture.DoAsync(account, SettingsOf(group.CampaignId!.Value, last, first));
        var findings = await fixture.FindingsAsync(account);
        findings.ShouldContain(finding => finding.Code == "end-date-reversed" && finding.Weight == Weight.Blocker);
    }

    [Fact]
    public async Task Sets_and_clears_the_landing_page_of_a_keyword()
    {
        var (account, group) = await GroupAsync();
        await fixture.DoAsync(account, Change.Keywords(group.Id, "piano", MatchType.Broad));
        ItemReference[] keyword = [WorkingCopyFixture.Reference(await fixture.RowAsync(account, "piano"))];

        await fixture.DoAsync(account, Change.Set(keyword, "landingPage", "tarnandfell.example/tuning"));
        (await fixture.RowAsync(account, "piano")).LandingPage.ShouldBe("tarnandfell.example/tuning");
        await fixture.DoAsync(account, Change.Set(keyword, "landingPage", " "));

        (await fixture.RowAsync(account, "piano")).LandingPage.ShouldBeNull();
        await Should.ThrowAsync<InvalidChangeException>(() =>
            fixture.DoAsync(account, Change.Set(keyword, "landingPage", "javascript:alert(1)"))
        );
    }

    [Fact]
    public async Task Records_no_step_when_nothing_changes()
    {
        var (account, group) = await GroupAsync();

        var result = await fixture.DoAsync(
            account,
            Change.Amount([WorkingCopyFixture.Reference(group)], "maxCpc", AmountOperation.Set, 1.10m)
        );

        (result.StepId, result.Items).ShouldBe((null, 0));
        (await fixture.History.ListAsync(account, null, 10, CancellationToken.None)).Count.ShouldBe(2);
    }

    [Fact]
    public async Task Leaves_negatives_out_of_pausing_and_says_so()
    {
        var (account, group) = await GroupAsync();
        await fixture.DoAsync(
            account,
            Change.Negatives(new ItemPlaces([group.CampaignId!.Value]), "free", MatchType.Phrase)
        );
        var rows = await fixture.RowsAsync(account);

        var result = await fixture.DoAsync(
            account,
            Change.State([.. rows.Where(row => !row.IsHeading).Select(WorkingCopyFixture.Reference)], ItemState.Paused)
        );

        result.Items.ShouldBe(2);
        result.Refused.ShouldHaveSingleItem().Kind.ShouldBe(ItemKind.NegativeKeyword);
    }

    [Fact]
    public async Task Lists_the_history_newest_first_with_undos_in_it()
    {
        var (account, _) = await GroupAsync();
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);

        var history = await fixture.History.ListAsync(account, null, 10, CancellationToken.None);

        history
            .Select(entry => (entry.Kind, entry.Label, entry.Reverted))
            .ShouldBe([
                (StepKind.Undo, "Undo “Add ad group “Tuning””", false),
                (StepKind.Change, "Add ad group “Tuning”", true),
                (StepKind.Change, "Add campaign “North”", false),
            ]);
    }

    [Fact]
    public async Task Undoes_and_does_again_as_often_as_one_likes()
    {
        var empty = await fixture.StateAsync(await fixture.NewAccountAsync());
        var (account, _) = await GroupAsync();
        var after = await fixture.StateAsync(account);
        for (var round = 0; round < 3; round++)
        {
            await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
            await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
            (await fixture.StateAsync(account)).Split('\n').Length.ShouldBe(empty.Split('\n').Length);
            await fixture.History.RedoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
            await fixture.History.RedoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        }

        (await fixture.StateAsync(account)).ShouldBe(after);
    }
}
