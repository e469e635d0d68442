using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Core.Matching;
using Fendrik.Core.Reporting;
using Fendrik.Data.Cleaning;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Tests;

[Collection(nameof(WorkingCopyFixture))]
public class CleaningTests(WorkingCopyFixture fixture)
{
    private static readonly DateOnly Day = new(2026, 11, 20);

    private Task<DuplicateReport> DuplicatesAsync(
        int account,
        DuplicateSense sense,
        DuplicateScope scope,
        bool across
    ) =>
        new Duplicates(fixture.Source).FindAsync(
            account,
            new DuplicateRequest(sense, scope, across),
            CancellationToken.None
        );

    private Task<NegativeReport> ReviewAsync(TunedAccount account) =>
        new NegativeReview(fixture.Source).RunAsync(account.Id, CancellationToken.None);

    [Theory]
    [InlineData(DuplicateSense.SameText, DuplicateScope.AdGroup, false, 0)]
    [InlineData(DuplicateSense.SameText, DuplicateScope.AdGroup, true, 1)]
    [InlineData(DuplicateSense.SameText, DuplicateScope.Account, true, 2)]
    [InlineData(DuplicateSense.SameWords, DuplicateScope.Campaign, false, 1)]
    [InlineData(DuplicateSense.SameMeaning, DuplicateScope.Campaign, false, 2)]
    public async Task Finds_duplicates_in_the_sense_and_the_place_that_are_asked(
        DuplicateSense sense,
        DuplicateScope scope,
        bool across,
        int sets
    )
    {
        var account = await TunedAccount.MakeAsync(fixture);
        await account.DoAsync(
            Change.Keywords(
                (await account.TheAsync(ItemKind.AdGroup, "Hire", "North")).Id,
                "[piano-tuning]\n\"near me piano tuners\"",
                MatchType.Phrase
            )
        );

        (await DuplicatesAsync(account.Id, sense, scope, across)).Sets.ShouldBe(sets);
    }

    [Fact]
    public async Task Finds_the_keywords_that_may_answer_a_search_that_people_made()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        await SearchedAsync(
            account,
            ("piano hire", 9m),
            ("piano tuner near me today", 20m),
            ("piano tuning", 12m),
            ("piano tuning leeds", 3m)
        );

        var all = await DuplicatesAsync(account.Id, DuplicateSense.SharedSearches, DuplicateScope.Account, false);
        var within = await DuplicatesAsync(account.Id, DuplicateSense.SharedSearches, DuplicateScope.Campaign, false);

        // Exact and phrase both answer “piano tuning”; “piano hire” is exact in North and broad in South.
        all.Shown.Select(set => (set.Form, set.Keywords.Count)).ShouldBe([("piano tuning", 2), ("piano hire", 2)]);
        all.Spare.ShouldBe(0);
        within.Shown.ShouldHaveSingleItem().Form.ShouldBe("piano tuning");
    }

    [Fact]
    public async Task Paused_keywords_answer_nothing_and_compete_with_none()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        await SearchedAsync(account, ("piano hire", 9m));
        await account.DoAsync(
            Change.State([await account.TheAsync(ItemKind.Keyword, "piano hire", "South")], ItemState.Paused)
        );

        (await DuplicatesAsync(account.Id, DuplicateSense.SharedSearches, DuplicateScope.Account, false)).Sets.ShouldBe(
            0
        );
    }

    [Fact]
    public async Task Puts_the_duplicate_that_brought_conversions_first()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var south = await account.TheAsync(ItemKind.Keyword, "piano hire", "South");
        await fixture.Performance.StoreAsync(
            account.Id,
            new Period(Day, Day),
            new[]
            {
                new PerformanceRow(Day, 9, 1, 1, south.Id, 1, Device.Phone, SiteKinds.Search, 90, 9, 8m, 2, 150),
            }.ToAsyncEnumerable(),
            CancellationToken.None
        );

        var report = await DuplicatesAsync(account.Id, DuplicateSense.SameText, DuplicateScope.Account, true);

        var set = report.Shown.Single(each => each.Form == "piano hire");
        (set.Keywords[0].Id, set.Keywords[0].CostPerConversion).ShouldBe((south.Id, 4m));
        report.Spare.ShouldBe(2);
    }

    [Fact]
    public async Task Says_which_negatives_block_which_own_keywords_at_which_level()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var north = await account.TheAsync(ItemKind.Campaign, "North");
        await account.DoAsync(new AddNegativeList("Not us", [north.Id], "near me", MatchType.Phrase));

        var report = await ReviewAsync(account);

        var conflict = report.Conflicts.ShouldHaveSingleItem();
        (conflict.Negative.Level, conflict.Negative.Place).ShouldBe(("list", "Not us"));
        conflict.Examples.ShouldHaveSingleItem().Text.ShouldBe("piano tuner near me");
    }

    [Fact]
    public async Task Leaves_out_what_a_list_blocks_in_campaigns_that_do_not_share_it()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var south = await account.TheAsync(ItemKind.Campaign, "South");
        await account.DoAsync(new AddNegativeList("Not us", [south.Id], "near me", MatchType.Phrase));

        (await ReviewAsync(account)).ConflictCount.ShouldBe(0);
    }

    [Fact]
    public async Task Names_negatives_that_a_broader_one_makes_needless_across_levels()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var hire = await account.TheAsync(ItemKind.AdGroup, "Hire", "North");
        await account.DoAsync(
            Change.Negatives(
                new ItemPlaces([], [hire.Id], []),
                "[free piano hire]\nfree delivery",
                MatchType.Phrase,
                false
            )
        );

        var needless = (await ReviewAsync(account)).Needless;

        needless.Select(each => each.Negative.Text).ShouldBe(["free piano hire", "free delivery"], ignoreOrder: true);
        needless.ShouldAllBe(each => each.Broader.Text == "free" && each.Broader.Level == "campaign");
    }

    [Fact]
    public async Task Says_what_a_negative_would_have_saved_and_lost_of_the_last_days_searches()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        await SearchedAsync(
            account,
            ("piano hire free", 3.20m),
            ("free piano hire leeds", 1.10m),
            ("piano hire leeds", 9m)
        );

        var effect = (await ReviewAsync(account)).Effects.ShouldHaveSingleItem();

        (effect.Terms, effect.Figures.Cost, effect.Figures.Conversions).ShouldBe((2, 4.30m, 1m));
        effect.Examples.ShouldBe(["piano hire free", "free piano hire leeds"]);
    }

    [Fact]
    public async Task Offers_beside_a_negative_the_near_words_that_people_typed_with_their_clicks()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        await SearchedAsync(
            account,
            ("piano tuning course", 3m),
            ("piano tuning courses leeds", 1m),
            ("corse of piano tuning", 1m),
            ("courses", 1m)
        );

        (await NearAsync(account, "\"tuning course\"")).ShouldBe([
            ("\"tuning courses\"", NearForm.Plural, 2),
            ("\"tuning corse\"", NearForm.Misspelling, 1),
        ]);
    }

    [Fact]
    public async Task Offers_the_other_form_of_a_word_that_nobody_typed_but_not_of_one_that_everybody_types_in_one_form()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        await SearchedAsync(account, ("piano tuning", 3m), ("piano tuning leeds", 1m));

        (await NearAsync(account, "job\ntuning")).ShouldBe([("jobs", NearForm.Plural, null)]);
    }

    [Fact]
    public async Task Does_not_offer_what_stands_there_already()
    {
        var account = await TunedAccount.MakeAsync(fixture);

        (await NearAsync(account, "job\njobs")).ShouldBeEmpty();
    }

    private async Task<IEnumerable<(string Text, NearForm Form, long? Clicks)>> NearAsync(
        TunedAccount account,
        string lines
    ) =>
        (await new NegativeForms(fixture.Source).FindAsync(account.Id, lines, CancellationToken.None)).Select(form =>
            (form.Text, form.Form, form.Clicks)
        );

    /// <summary>What people searched for on the last reported day, each once, and what it cost; those under 2 brought a conversion.</summary>
    private async Task SearchedAsync(TunedAccount account, params (string Term, decimal Cost)[] searches)
    {
        var row = (await account.RowsAsync(ItemKind.Keyword)).First(each =>
            each.Name == "piano hire" && each.Campaign == "North"
        );
        var day = new Period(Day, Day);
        await fixture.Performance.StoreAsync(
            account.Id,
            day,
            AsyncEnumerable.Empty<PerformanceRow>(),
            CancellationToken.None
        );
        await new DayReports(fixture.Source).StoreAsync(
            account.Id,
            day,
            searches
                .Select(search => new SearchTermRow(
                    Day,
                    search.Term,
                    row.CampaignId!.Value,
                    row.AdGroupId!.Value,
                    row.Id,
                    10,
                    1,
                    search.Cost,
                    search.Cost < 2 ? 1 : 0,
                    0
                ))
                .ToAsyncEnumerable(),
            CancellationToken.None
        );
    }
}
