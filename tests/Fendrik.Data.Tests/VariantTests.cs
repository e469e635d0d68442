using System.Text.RegularExpressions;
using Dapper;
using Fendrik.Core.Changes;
using Fendrik.Data.Commands.Funding;
using Fendrik.Data.Conversions;
using Fendrik.Data.Intakes;
using Fendrik.Data.Live;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Data.Terms;
using Fendrik.Data.Variants;

namespace Fendrik.Data.Tests;

/// <summary>A campaign that is shown: what is proposed for it, how that reads, and what becomes of it.</summary>
[Collection(nameof(WorkingCopyFixture))]
public partial class VariantTests(WorkingCopyFixture fixture)
{
    private const string Colleague = "a-colleague";

    private const string OneCampaign = """
        campaign,daily budget,ad group,ad group max cpc,keyword,match type,max cpc,headline 1,headline 2,description 1,landing page
        North,25,Tuning,1.00,piano tuning,exact,1.30,,,,
        North,,Tuning,,piano tuning,phrase,,,,,
        North,,Tuning,,,,,Piano Tuning,Book Today,We tune pianos at home.,https://tarnandfell.example/tuning
        North,,Hire,1.10,piano hire,exact,,,,,
        North,,,,-free,,,,,,
        """;

    private sealed record Story(TunedAccount Account, long Campaign, long Look)
    {
        public int Id => Account.Id;
    }

    private async Task<Story> BeginAsync()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var campaign = await account.TheAsync(ItemKind.Campaign, "North");
        return new Story(
            account,
            campaign.Id,
            await fixture.Looks.ShowAsync(
                account.Id,
                WorkingCopyFixture.Person,
                campaign.Id,
                "Is it too broad?",
                CancellationToken.None
            )
        );
    }

    private Task<StepResult> ProposeAsync(Story story, IWorkingCopyChange change, bool preview = false) =>
        fixture.Variants.ProposeAsync(story.Id, story.Look, Colleague, change, preview, null, CancellationToken.None);

    private Task<IReadOnlyList<KeptProposal>> ListAsync(Story story) =>
        fixture.Variants.ListAsync(story.Id, story.Look, CancellationToken.None);

    private async Task<StepResult> TakeAsync(Story story, params KeptProposal[] proposals) =>
        await story.Account.DoAsync(new TakeProposals(story.Look, [.. proposals.Select(each => each.Id)]));

    private async Task<IReadOnlyList<SheetRow>> RowsAsync(Story story, ItemKind kind) =>
        (
            await fixture.VariantSheets.ReadAsync(
                story.Id,
                new SheetRequest
                {
                    Kind = kind,
                    CampaignId = story.Campaign,
                    Variant = story.Look,
                },
                CancellationToken.None
            )
        ).Rows;

    private static decimal? BidOf(SheetRow row) => row.Values.GetValueOrDefault("maxCpc") as decimal?;

    [Fact]
    public async Task What_is_proposed_leaves_the_working_copy_as_it_is_and_reads_as_it_would_be()
    {
        var story = await BeginAsync();
        var state = await story.Account.StateAsync();
        var hire = await story.Account.TheAsync(ItemKind.Keyword, "piano hire", "North");

        await ProposeAsync(story, Change.Set([hire], "maxCpc", "0.45"));

        (await story.Account.StateAsync()).ShouldBe(state);
        var row = (await RowsAsync(story, ItemKind.Keyword)).Single(each => each.Id == hire.Id);
        (BidOf(row), row.Proposed).ShouldBe((0.45m, RowChange.Edited));
        (await RowsAsync(story, ItemKind.Keyword)).Count(each => each.Proposed != RowChange.None).ShouldBe(1);
    }

    [Fact]
    public async Task Steps_on_top_of_one_another_come_to_one_proposal_of_an_item()
    {
        var story = await BeginAsync();
        var hire = await story.Account.TheAsync(ItemKind.Keyword, "piano hire", "North");
        await ProposeAsync(story, Change.Set([hire], "maxCpc", "0.40"));

        await ProposeAsync(story, Change.Set([hire], "maxCpc", "+50%"));
        await ProposeAsync(story, Change.Set([hire], "match", "phrase"));

        var only = (await ListAsync(story)).ShouldHaveSingleItem();
        only.Change.After!.Value.GetProperty("maxCpc").GetDecimal().ShouldBe(0.6m);
        only.Change.Before!.Value.GetProperty("maxCpc").ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null);
        (await RowsAsync(story, ItemKind.Keyword)).Single(row => row.Id == hire.Id).Values["match"].ShouldBe("phrase");
    }

    [Fact]
    public async Task An_item_that_is_proposed_as_it_is_is_proposed_no_more()
    {
        var story = await BeginAsync();
        var tuning = await story.Account.TheAsync(ItemKind.Keyword, "piano tuning", "North");
        await ProposeAsync(story, Change.Set([tuning], "maxCpc", "0.40"));

        await ProposeAsync(story, Change.Set([tuning], "maxCpc", "1.30"));

        (await ListAsync(story)).ShouldBeEmpty();
    }

    [Fact]
    public async Task What_is_new_can_hold_what_is_new_and_is_taken_over_with_it()
    {
        var story = await BeginAsync();
        await ProposeAsync(
            story,
            new PutItem(
                ItemKind.AdGroup,
                new Dictionary<string, FieldInput> { ["name"] = "Restoration", ["maxCpc"] = "1.20" },
                new ItemPlaces([story.Campaign])
            )
        );
        var group = (await RowsAsync(story, ItemKind.AdGroup)).Single(row => row.Name == "Restoration");
        await ProposeAsync(
            story,
            new AddWords(ItemKind.Keyword, "piano restoration", MatchType.Exact, new ItemPlaces(AdGroupIds: [group.Id]))
        );
        var word = (await ListAsync(story)).Single(each => each.Change.Kind == ItemKind.Keyword);

        await TakeAsync(story, word);

        var kept = (await story.Account.RowsAsync(ItemKind.Keyword)).Single(row => row.Name == "piano restoration");
        (kept.AdGroup, kept.Id).ShouldBe(("Restoration", word.Change.Id));
        (await ListAsync(story)).ShouldAllBe(each => each.State == ProposalState.Taken);
    }

    [Fact]
    public async Task Just_the_chosen_items_are_taken_over_and_an_undo_opens_them_again()
    {
        var story = await BeginAsync();
        var state = await story.Account.StateAsync();
        var (tuning, hire) = (
            await story.Account.TheAsync(ItemKind.Keyword, "piano tuning", "North"),
            await story.Account.TheAsync(ItemKind.Keyword, "piano hire", "North")
        );
        await ProposeAsync(story, Change.Set([tuning, hire], "maxCpc", "0.45"));
        var proposals = await ListAsync(story);

        await TakeAsync(story, proposals.Single(each => each.Change.Id == hire.Id));

        var rows = await story.Account.RowsAsync(ItemKind.Keyword);
        BidOf(rows.Single(row => row.Id == hire.Id)).ShouldBe(0.45m);
        BidOf(rows.Single(row => row.Id == tuning.Id)).ShouldBe(1.30m);
        (await ListAsync(story)).Single(each => each.Change.Id == hire.Id).State.ShouldBe(ProposalState.Taken);

        await story.Account.UndoAsync();

        (await story.Account.StateAsync()).ShouldBe(state);
        (await ListAsync(story)).ShouldAllBe(each => each.State == ProposalState.Open && each.Problem == null);
    }

    [Fact]
    public async Task A_field_that_was_changed_since_is_not_overwritten_and_another_of_the_same_item_is_no_reason()
    {
        var story = await BeginAsync();
        var (tuning, hire) = (
            await story.Account.TheAsync(ItemKind.Keyword, "piano tuning", "North"),
            await story.Account.TheAsync(ItemKind.Keyword, "piano hire", "North")
        );
        await ProposeAsync(story, Change.Set([tuning, hire], "maxCpc", "0.45"));
        await story.Account.DoAsync(Change.Set([tuning], "maxCpc", "0.99"));
        await story.Account.DoAsync(Change.Set([hire], "match", "phrase"));
        var proposals = await ListAsync(story);

        proposals
            .Single(each => each.Change.Id == tuning.Id)
            .Problem.ShouldBe("Its max CPC is £0.99 now; it was £1.30 when this was proposed.");
        var result = await TakeAsync(story, [.. proposals]);

        result.Refused.ShouldHaveSingleItem().Id.ShouldBe(tuning.Id);
        var rows = await story.Account.RowsAsync(ItemKind.Keyword);
        BidOf(rows.Single(row => row.Id == tuning.Id)).ShouldBe(0.99m);
        var taken = rows.Single(row => row.Id == hire.Id);
        (BidOf(taken), taken.Values["match"]).ShouldBe((0.45m, "phrase"));
    }

    [Fact]
    public async Task What_is_proposed_on_top_of_an_item_that_moved_on_elsewhere_keeps_both()
    {
        var story = await BeginAsync();
        var hire = await story.Account.TheAsync(ItemKind.Keyword, "piano hire", "North");
        await ProposeAsync(story, Change.Set([hire], "maxCpc", "0.45"));
        await story.Account.DoAsync(Change.Set([hire], "match", "phrase"));

        await ProposeAsync(story, Change.Set([hire], "landingPage", "https://tarnandfell.example/hire"));

        var only = (await ListAsync(story)).ShouldHaveSingleItem();
        only.Problem.ShouldBeNull();
        only.Change.Before!.Value.GetProperty("maxCpc").ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null);
        await TakeAsync(story, only);
        var row = (await story.Account.RowsAsync(ItemKind.Keyword)).Single(each => each.Id == hire.Id);
        (BidOf(row), row.Values["match"], row.Values["landingPage"]).ShouldBe(
            (0.45m, "phrase", "https://tarnandfell.example/hire")
        );
    }

    [Fact]
    public async Task What_is_proposed_otherwise_since_it_was_looked_at_is_not_taken_over_unseen()
    {
        var story = await BeginAsync();
        var hire = await story.Account.TheAsync(ItemKind.Keyword, "piano hire", "North");
        await ProposeAsync(story, Change.Set([hire], "maxCpc", "0.45"));
        var seen = (await ListAsync(story)).Single();
        await ProposeAsync(story, Change.Set([hire], "maxCpc", "9.50"));

        var error = await Should.ThrowAsync<InvalidChangeException>(() =>
            story.Account.DoAsync(new TakeProposals(story.Look, [seen.Id], seen.MadeAt))
        );
        error.Message.ShouldContain("“piano hire” was proposed otherwise meanwhile");
        BidOf((await story.Account.RowsAsync(ItemKind.Keyword)).Single(row => row.Id == hire.Id)).ShouldBeNull();

        var now = (await ListAsync(story)).Single();
        await story.Account.DoAsync(new TakeProposals(story.Look, [now.Id], now.MadeAt));
        BidOf((await story.Account.RowsAsync(ItemKind.Keyword)).Single(row => row.Id == hire.Id)).ShouldBe(9.5m);
    }

    [Fact]
    public async Task A_keyword_that_came_meanwhile_is_not_doubled()
    {
        var story = await BeginAsync();
        var group = await story.Account.TheAsync(ItemKind.AdGroup, "Hire", "North");
        var words = new AddWords(
            ItemKind.Keyword,
            "hire a piano",
            MatchType.Exact,
            new ItemPlaces(AdGroupIds: [group.Id])
        );
        await ProposeAsync(story, words);
        await story.Account.DoAsync(words);

        (await ListAsync(story)).ShouldHaveSingleItem().Problem.ShouldBe("The same is there already.");
        (await RowsAsync(story, ItemKind.Keyword)).Count(row => row.Name == "hire a piano").ShouldBe(1);
    }

    [Fact]
    public async Task A_removed_ad_group_is_one_proposal_with_all_that_is_in_it()
    {
        var story = await BeginAsync();
        var group = await story.Account.TheAsync(ItemKind.AdGroup, "Tuning", "North");
        await ProposeAsync(story, new RemoveItems([group]));

        var only = (await ListAsync(story)).ShouldHaveSingleItem();
        (await RowsAsync(story, ItemKind.Keyword))
            .Where(row => row.AdGroupId == group.Id)
            .ShouldAllBe(row => row.Proposed == RowChange.Removed);
        await TakeAsync(story, only);

        (await story.Account.RowsAsync(ItemKind.Keyword)).ShouldNotContain(row => row.AdGroupId == group.Id);
    }

    [Fact]
    public async Task A_change_of_what_is_to_go_can_be_taken_over_by_itself_and_goes_with_the_rest()
    {
        var story = await BeginAsync();
        var group = await story.Account.TheAsync(ItemKind.AdGroup, "Tuning", "North");
        var word = await story.Account.TheAsync(ItemKind.Keyword, "piano tuning", "North");
        await ProposeAsync(story, Change.Set([word], "maxCpc", "0.45"));
        await ProposeAsync(story, new RemoveItems([group]));
        var proposals = await ListAsync(story);

        proposals.ShouldAllBe(each => each.Problem == null);
        await TakeAsync(story, proposals.Single(each => each.Change.Id == word.Id && each.Change.Kind == word.Kind));
        BidOf((await story.Account.RowsAsync(ItemKind.Keyword)).Single(row => row.Id == word.Id)).ShouldBe(0.45m);
        await story.Account.UndoAsync();
        (await TakeAsync(story, [.. proposals])).RefusedCount.ShouldBe(0);

        (await ListAsync(story)).ShouldAllBe(each => each.State == ProposalState.Taken);
        (await story.Account.RowsAsync(ItemKind.Keyword)).ShouldNotContain(row => row.AdGroupId == group.Id);
    }

    [Fact]
    public async Task Nothing_outside_of_the_campaign_can_be_proposed()
    {
        var story = await BeginAsync();
        var south = await story.Account.TheAsync(ItemKind.Keyword, "piano hire", "South");

        var error = await Should.ThrowAsync<InvalidChangeException>(() =>
            ProposeAsync(story, Change.Set([south], "maxCpc", "0.45"))
        );

        error.Message.ShouldContain("“piano hire” is not in the campaign that is shown");
        (await ListAsync(story)).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_preview_of_a_proposal_keeps_nothing()
    {
        var story = await BeginAsync();
        var hire = await story.Account.TheAsync(ItemKind.Keyword, "piano hire", "North");

        var result = await ProposeAsync(story, Change.Set([hire], "maxCpc", "0.45"), preview: true);

        result.Changes.ShouldHaveSingleItem().Id.ShouldBe(hire.Id);
        (await ListAsync(story)).ShouldBeEmpty();
    }

    [Fact]
    public async Task What_is_left_as_it_is_is_laid_over_no_more()
    {
        var story = await BeginAsync();
        var hire = await story.Account.TheAsync(ItemKind.Keyword, "piano hire", "North");
        await ProposeAsync(story, Change.Set([hire], "maxCpc", "0.45"));
        var proposal = (await ListAsync(story)).Single();

        await fixture.Variants.LeaveAsync(
            story.Id,
            story.Look,
            WorkingCopyFixture.Person,
            [proposal.Id],
            null,
            CancellationToken.None
        );

        BidOf((await RowsAsync(story, ItemKind.Keyword)).Single(row => row.Id == hire.Id)).ShouldBeNull();
        (await ListAsync(story)).Single().State.ShouldBe(ProposalState.Left);
        await Should.ThrowAsync<InvalidChangeException>(() => TakeAsync(story, proposal));
    }

    [Fact]
    public async Task Only_ones_own_proposals_are_taken_back()
    {
        var story = await BeginAsync();
        var hire = await story.Account.TheAsync(ItemKind.Keyword, "piano hire", "North");
        await ProposeAsync(story, Change.Set([hire], "maxCpc", "0.45"));
        var proposal = (await ListAsync(story)).Single();
        Task TakeBackAsync(string person) =>
            fixture.Variants.TakeBackAsync(story.Id, story.Look, person, proposal.Id, CancellationToken.None);

        await Should.ThrowAsync<InvalidChangeException>(() => TakeBackAsync("somebody-else"));
        await TakeBackAsync(Colleague);

        (await ListAsync(story)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Nothing_is_proposed_once_the_campaign_is_shown_no_more()
    {
        var story = await BeginAsync();
        var hire = await story.Account.TheAsync(ItemKind.Keyword, "piano hire", "North");
        var (look, _, _) = await fixture.Looks.ReadAsync(story.Id, story.Look, CancellationToken.None);
        await fixture.Looks.GoOnAsync(
            story.Id,
            look,
            LookState.Closed,
            WorkingCopyFixture.Person,
            null,
            CancellationToken.None
        );

        await Should.ThrowAsync<InvalidChangeException>(() =>
            ProposeAsync(story, Change.Set([hire], "maxCpc", "0.45"))
        );
    }

    [Fact]
    public async Task A_look_of_one_account_shows_nothing_in_another()
    {
        var story = await BeginAsync();
        var other = await fixture.NewAccountAsync();

        await Should.ThrowAsync<InvalidChangeException>(() =>
            fixture.Variants.ListAsync(other, story.Look, CancellationToken.None)
        );
        await Should.ThrowAsync<InvalidChangeException>(() =>
            fixture.VariantSheets.ReadAsync(
                other,
                new SheetRequest { Kind = ItemKind.Keyword, Variant = story.Look },
                CancellationToken.None
            )
        );
    }

    [Fact]
    public async Task A_remark_is_about_something_in_the_campaign()
    {
        var story = await BeginAsync();
        Task SayAsync(ItemReference about) =>
            fixture.Looks.RemarkAsync(story.Id, story.Look, Colleague, "Too dear?", about, CancellationToken.None);

        await SayAsync(await story.Account.TheAsync(ItemKind.Keyword, "piano hire", "North"));
        var south = await story.Account.TheAsync(ItemKind.Keyword, "piano hire", "South");
        await Should.ThrowAsync<InvalidChangeException>(() => SayAsync(south));

        var (_, _, remarks) = await fixture.Looks.ReadAsync(story.Id, story.Look, CancellationToken.None);
        remarks.ShouldHaveSingleItem().Name.ShouldBe("piano hire");
    }

    /// <summary>Commands that reach beyond a campaign by what they are, or that decide something for those who work here.</summary>
    private static readonly Type[] NotForOneCampaign =
    [
        typeof(SetWorth),
        typeof(SplitOut),
        typeof(AddNegativeList),
        typeof(DecideTerms),
        typeof(DecideLive),
        typeof(TakeBackChanges),
        typeof(BringBack),
        typeof(KeepIntake),
        typeof(TakeProposals),
    ];

    public static TheoryData<string> Proposable =>
        [.. AnyCommand.All.Keys.Except(NotForOneCampaign).Select(type => type.Name)];

    /// <summary>Whatever is proposed: nothing changes until it is taken over, and then it is what the command itself would have done.</summary>
    [Theory]
    [MemberData(nameof(Proposable))]
    public async Task What_is_taken_over_is_what_the_command_itself_does(string command)
    {
        var id = await fixture.NewAccountAsync();
        await fixture.KeepAsync(id, OneCampaign);
        var account = new TunedAccount(fixture, id);
        await account.DoAsync(new AddNegativeList("Shared", [], "free", MatchType.Phrase));
        foreach (var (name, counts) in new[] { ("Form", "yes"), ("List seen", "no") })
        {
            await account.DoAsync(
                new PutItem(
                    ItemKind.ConversionAction,
                    new Dictionary<string, FieldInput> { ["name"] = name, ["accountGoal"] = counts },
                    new ItemPlaces()
                )
            );
        }

        var any = new AnyCommand(fixture, id);
        var campaign = (await account.TheAsync(ItemKind.Campaign, "North")).Id;
        for (var seed = 0; seed < 300; seed++)
        {
            if (await IsSameAsync(account, campaign, await any.DrawAsync(command, seed)))
            {
                return;
            }
        }

        Assert.Fail("No draw of it could be proposed.");
    }

    /// <summary>Holds one command to it, and undoes it where it took the campaign with it; false where it cannot be proposed.</summary>
    private async Task<bool> IsSameAsync(TunedAccount account, long campaign, IWorkingCopyChange change)
    {
        var look = await fixture.Looks.ShowAsync(account.Id, Colleague, campaign, null, CancellationToken.None);
        var story = new Story(account, campaign, look);
        var before = await WholeAsync(account.Id);
        var known = before.Keys.ToHashSet();
        try
        {
            await ProposeAsync(story, change);
        }
        catch (InvalidChangeException)
        {
            (await WholeAsync(account.Id)).ShouldBe(before);
            return false;
        }

        (await WholeAsync(account.Id)).ShouldBe(before);
        var proposals = await ListAsync(story);
        if (proposals.Count == 0)
        {
            return false;
        }

        proposals.ShouldAllBe(each => each.Problem == null);
        var taken = await TakeAsync(story, [.. proposals]);
        taken.RefusedCount.ShouldBe(0);
        var after = Told(await WholeAsync(account.Id), known);
        await account.UndoAsync();
        (await WholeAsync(account.Id)).ShouldBe(before);

        await account.DoAsync(change);

        var done = await WholeAsync(account.Id);
        after.ShouldBe(Told(done, known));
        if (!done.ContainsKey(("campaign", campaign)))
        {
            await account.UndoAsync();
        }

        return true;
    }

    /// <summary>Every row that is not removed, as its table has it.</summary>
    private async Task<Dictionary<(string Table, long Id), string>> WholeAsync(int account)
    {
        await using var connection = await fixture.Source.OpenConnectionAsync();
        var rows = await connection.QueryAsync<(string Table, long Id, string Row)>(
            string.Join(
                " union all ",
                ItemTypes.All.Select(type =>
                    $"select '{type.Table}' as kept, id, (to_jsonb(i) - 'changed_by' - 'live' - 'is_live' - 'live_version')::text from {type.Table} i where account_id = @account and not removed"
                )
            ) + " order by 1, 2",
            new { account }
        );
        return rows.ToDictionary(row => (row.Table, row.Id), row => row.Row);
    }

    /// <summary>Rows in an order of their own, with identities that were not known before written as new.</summary>
    private static string Told(
        Dictionary<(string Table, long Id), string> rows,
        HashSet<(string Table, long Id)> known
    ) =>
        string.Join(
            '\n',
            rows.Select(row =>
                    $"{row.Key.Table} {Identity().Replace(row.Value, match => known.Contains((TableOf(match.Groups[1].Value) ?? row.Key.Table, long.Parse(match.Groups[2].ValueSpan, System.Globalization.CultureInfo.InvariantCulture))) ? match.Value : $"\"{match.Groups[1].Value}\": new")}"
                )
                .Order(StringComparer.Ordinal)
        );

    private static string? TableOf(string column) =>
        column switch
        {
            "campaign_id" => "campaign",
            "ad_group_id" => "ad_group",
            "list_id" => "negative_list",
            _ => null,
        };

    [GeneratedRegex(
        """
            "(id|campaign_id|ad_group_id|list_id)": (\d+)
            """
    )]
    private static partial Regex Identity();
}
