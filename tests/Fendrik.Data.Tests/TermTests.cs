using Dapper;
using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Fendrik.Core.Searches;
using Fendrik.Data.Commands;
using Fendrik.Data.Results;
using Fendrik.Data.Sheets.Conditions;
using Fendrik.Data.Terms;
using Fendrik.Data.Tracing;

namespace Fendrik.Data.Tests;

/// <summary>What people typed: added up, found, decided and remembered.</summary>
[Collection(nameof(WorkingCopyFixture))]
public sealed class TermTests : IDisposable
{
    private const string List = """
        item,campaign,ad group,daily budget,ad group max cpc,keyword,match
        campaign,North,,25,,,
        ad group,North,Tuning,,0.60,,
        ad group,North,Uprights,,0.40,,
        keyword,North,Tuning,,,piano tuning,phrase
        keyword,North,Uprights,,,used upright piano,broad
        """;

    private static readonly DateOnly Last = new(2026, 5, 10);
    private readonly WorkingCopyFixture _fixture;
    private readonly KeywordMemory _memory = new();
    private readonly TermSums _sums;
    private readonly TermReader _reader;

    public TermTests(WorkingCopyFixture fixture)
    {
        _fixture = fixture;
        _sums = new TermSums(fixture.Source);
        _reader = new TermReader(fixture.Source, _sums);
    }

    public void Dispose() => _memory.Dispose();

    private async Task<(int Account, long Tuning, long Uprights)> AccountAsync(params SearchTermRow[] more)
    {
        var account = await _fixture.NewAccountAsync();
        await _fixture.KeepAsync(account, List);
        var (campaign, tuning, uprights) = (
            (await _fixture.RowAsync(account, "North", ItemKind.Campaign)).Id,
            (await _fixture.RowAsync(account, "Tuning", ItemKind.AdGroup)).Id,
            (await _fixture.RowAsync(account, "Uprights", ItemKind.AdGroup)).Id
        );
        var (phrase, broad) = (
            (await _fixture.RowAsync(account, "piano tuning", ItemKind.Keyword)).Id,
            (await _fixture.RowAsync(account, "used upright piano", ItemKind.Keyword)).Id
        );
        SearchTermRow Row(int before, string term, long group, long clicks, decimal cost, decimal conversions) =>
            new(
                Last.AddDays(-before),
                term,
                campaign,
                group,
                group == tuning ? phrase : broad,
                clicks * 10,
                clicks,
                cost,
                conversions,
                conversions * 80
            );
        await StoreAsync(
            account,
            [
                Row(0, "piano tuning leeds", tuning, 20, 12, 4),
                Row(9, "piano tuning leeds", tuning, 10, 6, 1),
                Row(0, "piano tuning lessons", tuning, 14, 9.5m, 0),
                Row(1, "cheap piano lessons", uprights, 6, 4, 0),
                Row(2, "used upright piano leeds", uprights, 5, 3, 1),
                Row(2, "used upright piano leeds", tuning, 2, 1.5m, 0),
                Row(40, "piano tuning lessons", tuning, 3, 2, 0),
                .. more,
            ]
        );
        return (account, tuning, uprights);
    }

    private async Task StoreAsync(int account, SearchTermRow[] rows)
    {
        var days = new Period(rows.Min(row => row.Day), rows.Max(row => row.Day));
        await new DayReports(_fixture.Source).StoreAsync(
            account,
            days,
            rows.ToAsyncEnumerable(),
            CancellationToken.None
        );
        await new PerformanceStore(_fixture.Source).StoreAsync(
            account,
            days,
            Array.Empty<PerformanceRow>().ToAsyncEnumerable(),
            CancellationToken.None
        );
    }

    private static TermScope Scope(int account) => new(account, new Period(Last.AddDays(-27), Last));

    private async Task<TermPage> ReadAsync(int account, TermRequest? request = null) =>
        await _reader.ReadAsync(Scope(account), request ?? new TermRequest(), CancellationToken.None);

    private static string[] TermsOf(TermPage page) => [.. page.Rows.Select(row => row.Term)];

    [Fact]
    public async Task Terms_are_added_up_over_days_and_keywords_the_dearest_first_and_come_to_the_reported_sum()
    {
        var (account, _, _) = await AccountAsync();

        var page = await ReadAsync(account);

        page.Rows.Select(row => (row.Term, row.Figures.Clicks, row.Figures.Cost, row.AdGroups))
            .ShouldBe([
                ("piano tuning leeds", 30, 18m, 1),
                ("piano tuning lessons", 14, 9.5m, 1),
                ("used upright piano leeds", 7, 4.5m, 2),
                ("cheap piano lessons", 6, 4m, 1),
            ]);
        await using var connection = await _fixture.Source.OpenConnectionAsync();
        page.Sum.Cost.ShouldBe(
            await connection.QuerySingleAsync<decimal>(
                "select sum(cost) from search_term_day where account_id = @account and day between @from and @to",
                new
                {
                    account,
                    from = Last.AddDays(-27),
                    to = Last,
                }
            )
        );
    }

    [Fact]
    public async Task A_term_says_through_which_keywords_it_came()
    {
        var (account, _, _) = await AccountAsync();

        (await ReadAsync(account, new TermRequest { Several = true }))
            .Rows.ShouldHaveSingleItem()
            .Parts.Select(part => (part.Keyword, part.Match, part.AdGroup, part.Figures.Cost))
            .ShouldBe([
                ("used upright piano", MatchType.Broad, "Uprights", 3m),
                ("piano tuning", MatchType.Phrase, "Tuning", 1.5m),
            ]);
    }

    [Fact]
    public async Task Filters_find_text_words_in_a_row_figures_and_what_is_no_keyword()
    {
        var (account, _, _) = await AccountAsync(new SearchTermRow(Last, "Piano Tuning", 1, 1, 1, 5, 1, 1, 0, 0));

        TermsOf(await ReadAsync(account, new TermRequest { Text = "LESS" }))
            .ShouldBe(["piano tuning lessons", "cheap piano lessons"]);
        TermsOf(await ReadAsync(account, new TermRequest { Word = "piano lessons" })).ShouldBe(["cheap piano lessons"]);
        TermsOf(
                await ReadAsync(
                    account,
                    new TermRequest
                    {
                        Conditions =
                        [
                            new SheetCondition("conversions", SheetTest.Is, ["0"]),
                            new SheetCondition("clicks", SheetTest.AtLeast, ["10"]),
                        ],
                    }
                )
            )
            .ShouldBe(["piano tuning lessons"]);
        TermsOf(await ReadAsync(account, new TermRequest { WithoutKeyword = true })).ShouldNotContain("Piano Tuning");
    }

    [Theory]
    [InlineData("name")]
    [InlineData("nothing")]
    public async Task A_condition_on_what_is_no_figure_is_refused(string field)
    {
        var (account, _, _) = await AccountAsync();

        (
            await Should.ThrowAsync<InvalidChangeException>(() =>
                ReadAsync(account, new TermRequest { Conditions = [new SheetCondition(field, SheetTest.Is, ["0"])] })
            )
        ).Field.ShouldBe("conditions");
    }

    [Fact]
    public async Task Words_and_pairs_say_what_all_terms_with_them_cost_and_which_part_of_it_sold()
    {
        var (account, _, _) = await AccountAsync();

        var words = await _reader.WordsAsync(Scope(account), 1, false, CancellationToken.None);
        words.Single(word => word.Word == "lessons").ShouldBe(new TermWord("lessons", 2, 20, 13.5m, 0, 0));
        words.Single(word => word.Word == "leeds").ShouldBe(new TermWord("leeds", 2, 37, 22.5m, 22.5m, 6));
        (await _reader.WordsAsync(Scope(account), 2, false, CancellationToken.None))
            .Select(word => word.Word)
            .ShouldBe(["piano tuning"]);
        (await _reader.WordsAsync(Scope(account), 1, true, CancellationToken.None))
            .Select(word => word.Word)
            .ShouldBe(["lessons"]);
    }

    [Fact]
    public async Task What_was_decided_is_remembered_until_the_step_is_taken_back_and_again_when_it_is_done_again()
    {
        var (account, _, _) = await AccountAsync();
        var leave = new DecideTerms(TermDecision.Leave, ["cheap piano lessons"]);

        (await _fixture.DoAsync(account, leave)).Label.ShouldBe("Leave 1 search term");

        var undecided = new TermRequest { Decided = false, Text = "lessons" };
        TermsOf(await ReadAsync(account, undecided)).ShouldBe(["piano tuning lessons"]);
        await _fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        TermsOf(await ReadAsync(account, undecided)).Length.ShouldBe(2);
        await _fixture.History.RedoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        TermsOf(await ReadAsync(account, new TermRequest { Decided = true })).ShouldBe(["cheap piano lessons"]);
    }

    [Fact]
    public async Task Terms_first_seen_after_the_last_decisions_are_new()
    {
        var (account, tuning, _) = await AccountAsync();
        (await ReadAsync(account)).Rows.ShouldAllBe(row => row.IsNew);
        await _fixture.DoAsync(account, new DecideTerms(TermDecision.Leave, ["cheap piano lessons"]));

        await StoreAsync(account, [new SearchTermRow(Last.AddDays(1), "pedal repair", 1, tuning, 1, 5, 1, 1, 0, 0)]);

        var scope = new TermScope(account, new Period(Last.AddDays(-27), Last.AddDays(1)));
        TermsOf(await _reader.ReadAsync(scope, new TermRequest { New = true }, CancellationToken.None))
            .ShouldBe(["pedal repair"]);
    }

    [Fact]
    public async Task Terms_become_keywords_each_in_its_ad_group_with_a_bid_of_their_own()
    {
        var (account, tuning, uprights) = await AccountAsync();

        var step = await _fixture.DoAsync(
            account,
            new DecideTerms(TermDecision.Keyword, ["piano tuning leeds", "used upright piano leeds"])
            {
                Keywords =
                [
                    new TermsForGroup(tuning, ["piano tuning leeds"]),
                    new TermsForGroup(uprights, ["used upright piano leeds"]),
                ],
                Values = new Dictionary<string, FieldInput> { ["maxCpc"] = "0.85" },
            }
        );

        step.Label.ShouldBe("Add 2 keywords from 2 search terms");
        var keyword = await _fixture.RowAsync(account, "used upright piano leeds", ItemKind.Keyword);
        (keyword.AdGroup, keyword.Values["match"], keyword.Values["maxCpc"]).ShouldBe(("Uprights", "exact", 0.85m));
        (await ReadAsync(account, new TermRequest { Decided = true }))
            .Rows.Select(row => (row.Said, row.IsKeyword))
            .ShouldBe([("keyword in Tuning", true), ("keyword in Uprights", true)]);
    }

    [Theory]
    [InlineData("???")]
    [InlineData("")]
    public async Task A_term_that_cannot_be_a_keyword_is_named_and_nothing_changes(string term)
    {
        var (account, tuning, _) = await AccountAsync();
        var before = await _fixture.StateAsync(account);

        var refused = await Should.ThrowAsync<InvalidChangeException>(() =>
            _fixture.DoAsync(
                account,
                new DecideTerms(TermDecision.Keyword, [term]) { Keywords = [new TermsForGroup(tuning, [term])] }
            )
        );

        refused.Message.ShouldContain(term.Length == 0 ? "Choose search terms" : $"“{term}” cannot be a keyword");
        (await _fixture.StateAsync(account)).ShouldBe(before);
    }

    [Fact]
    public async Task A_term_without_an_ad_group_to_go_to_is_refused_and_nothing_changes()
    {
        var (account, tuning, _) = await AccountAsync();
        var before = await _fixture.StateAsync(account);

        (
            await Should.ThrowAsync<InvalidChangeException>(() =>
                _fixture.DoAsync(
                    account,
                    new DecideTerms(TermDecision.Keyword, ["piano tuning leeds", "cheap piano lessons"])
                    {
                        Keywords = [new TermsForGroup(tuning, ["piano tuning leeds"])],
                    }
                )
            )
        ).Message.ShouldContain("“cheap piano lessons” has no ad group to go to");
        (await _fixture.StateAsync(account)).ShouldBe(before);
    }

    [Fact]
    public async Task A_negative_decides_every_term_that_it_keeps_away_and_leaves_what_it_lets_through()
    {
        var (account, _, uprights) = await AccountAsync();
        var campaign = (await _fixture.RowAsync(account, "North", ItemKind.Campaign)).Id;
        await ReadAsync(account);

        var step = await _fixture.DoAsync(
            account,
            new DecideTerms(TermDecision.Negative, ["cheap piano lessons", "used upright piano leeds"])
            {
                Negatives = "\"lessons\"",
                Places = new ItemPlaces([campaign]),
            }
        );

        step.Label.ShouldBe("Add 1 negative for 2 search terms");
        var rows = (await ReadAsync(account)).Rows.ToDictionary(row => row.Term);
        rows["cheap piano lessons"].Said.ShouldBe("negative “lessons”");
        rows["piano tuning lessons"].Said.ShouldBe("negative “lessons”");
        rows["used upright piano leeds"].Decision.ShouldBeNull();

        // In one of two ad groups alone it lets the term through in the other: nobody decided that one.
        await _fixture.DoAsync(
            account,
            new DecideTerms(TermDecision.Negative, ["piano tuning leeds"])
            {
                Negatives = "leeds",
                Match = MatchType.Phrase,
                Places = new ItemPlaces(AdGroupIds: [uprights]),
            }
        );
        var later = (await ReadAsync(account)).Rows.ToDictionary(row => row.Term);
        later["used upright piano leeds"].Decision.ShouldBeNull();
        later["piano tuning leeds"].Decision.ShouldBe(TermDecision.Negative);
    }

    [Fact]
    public async Task A_negative_that_was_there_before_shows_at_the_terms_that_it_keeps_away()
    {
        var (account, _, _) = await AccountAsync();
        await _fixture.KeepAsync(account, "campaign,negative,match\nNorth,lessons,phrase\n");

        (await ReadAsync(account))
            .Rows.Where(row => row.BlockedBy is not null)
            .Select(row => (row.Term, row.BlockedBy, row.Decision))
            .ShouldBe([
                ("piano tuning lessons", "\"lessons\"", (TermDecision?)null),
                ("cheap piano lessons", "\"lessons\"", null),
            ]);
    }

    [Fact]
    public async Task Proposals_say_where_a_term_belongs_and_what_would_keep_terms_away()
    {
        var (account, tuning, uprights) = await AccountAsync();

        var proposal = await new TermProposals(_fixture.Source, _sums, _memory).FindAsync(
            Scope(account),
            ["used upright piano leeds", "cheap piano lessons", "piano tuning lessons"],
            CancellationToken.None
        );

        var shared = proposal.Terms.Single(term => term.Term == "used upright piano leeds");
        shared.Answering.Select(group => group.AdGroupId).ShouldBe([uprights, tuning]);
        shared.Homes[0].AdGroupId.ShouldBe(uprights);
        // “lessons” never sold and is in no keyword: it stands for two terms. “upright”, “used” and “leeds” are not to be had.
        proposal
            .Negatives.Select(negative => (negative.Text, negative.Match, negative.Stops))
            .ShouldBe([("lessons", MatchType.Phrase, 2), ("used upright piano leeds", MatchType.Exact, 1)]);
    }

    [Fact]
    public async Task A_forecast_of_negatives_counts_what_they_save_lose_and_block()
    {
        var (account, _, _) = await AccountAsync();
        var campaign = (await _fixture.RowAsync(account, "North", ItemKind.Campaign)).Id;
        var forecast = new NegativeForecast(_sums);
        Task<NegativeOutlook> OfAsync(string lines, ItemPlaces places) =>
            forecast.OfAsync(Scope(account), lines, MatchType.Phrase, places, CancellationToken.None);

        var lessons = await OfAsync("lessons", new ItemPlaces([campaign]));
        (lessons.Terms, lessons.Figures.Cost, lessons.Figures.Conversions, lessons.Keywords).ShouldBe((2, 13.5m, 0, 0));
        var tuning = await OfAsync("tuning", new ItemPlaces([campaign]));
        (tuning.Terms, tuning.Figures.Conversions, tuning.Keywords).ShouldBe((2, 5, 1));
        tuning.KeywordExamples.ShouldBe(["\"piano tuning\""]);
        (
            await Should.ThrowAsync<InvalidChangeException>(() => OfAsync("a\n[b", new ItemPlaces([campaign])))
        ).Message.ShouldStartWith("Line 2");
    }

    [Fact]
    public async Task A_colleagues_decision_since_the_page_was_read_is_told_and_ones_own_is_not()
    {
        var (account, _, _) = await AccountAsync();
        var page = await ReadAsync(account);
        var leave = new DecideTerms(TermDecision.Leave, ["cheap piano lessons"]) { AsOf = page.AsOf };
        await _fixture.DoAsync(account, leave);
        await _fixture.DoAsync(account, leave);

        const string colleague = "a-colleague";
        (
            await Should.ThrowAsync<InvalidChangeException>(() =>
                _fixture.WorkingCopy.ApplyAsync(account, colleague, leave, preview: false, CancellationToken.None)
            )
        ).Message.ShouldContain("decided “cheap piano lessons” meanwhile: leave");
        var anew = leave with { AsOf = (await ReadAsync(account)).AsOf };
        (
            await _fixture.WorkingCopy.ApplyAsync(account, colleague, anew, preview: false, CancellationToken.None)
        ).Items.ShouldBe(1);
    }

    [Fact]
    public async Task A_negative_leaves_what_was_decided_otherwise_as_it_was_decided()
    {
        var (account, _, _) = await AccountAsync();
        var campaign = (await _fixture.RowAsync(account, "North", ItemKind.Campaign)).Id;
        await _fixture.DoAsync(account, new DecideTerms(TermDecision.Leave, ["piano tuning lessons"]));

        await _fixture.DoAsync(
            account,
            new DecideTerms(TermDecision.Negative, ["cheap piano lessons"])
            {
                Negatives = "\"lessons\"",
                Places = new ItemPlaces([campaign]),
            }
        );

        (await ReadAsync(account, new TermRequest { Decided = true }))
            .Rows.Select(row => (row.Term, row.Decision))
            .ShouldBe([
                ("piano tuning lessons", (TermDecision?)TermDecision.Leave),
                ("cheap piano lessons", TermDecision.Negative),
            ]);
    }

    [Fact]
    public async Task Negatives_whose_places_are_gone_are_refused()
    {
        var (account, _, _) = await AccountAsync();

        (
            await Should.ThrowAsync<InvalidChangeException>(() =>
                _fixture.DoAsync(
                    account,
                    new DecideTerms(TermDecision.Negative, ["cheap piano lessons"])
                    {
                        Negatives = "lessons",
                        Places = new ItemPlaces([long.MaxValue]),
                    }
                )
            )
        ).Field.ShouldBe("places");
    }

    [Fact]
    public async Task An_ad_group_without_a_word_of_the_term_answers_it_all_the_same()
    {
        var (account, tuning, uprights) = await AccountAsync();
        await StoreAsync(
            account,
            [
                new SearchTermRow(Last, "upright", 1, uprights, 1, 5, 1, 1, 0, 0),
                new SearchTermRow(Last, "upright", 1, tuning, 1, 5, 1, 1, 0, 0),
            ]
        );
        var campaign = (await _fixture.RowAsync(account, "North", ItemKind.Campaign)).Id;
        await using var connection = await _fixture.Source.OpenConnectionAsync();
        await connection.ExecuteAsync(
            "update search_term_day set campaign_id = @campaign where account_id = @account",
            new { account, campaign }
        );

        (
            await new TermProposals(_fixture.Source, _sums, _memory).FindAsync(
                Scope(account),
                ["upright"],
                CancellationToken.None
            )
        )
            .Terms.Single()
            .Answering.Select(group => (group.AdGroupId, group.Closeness > 0))
            .ShouldBe([(uprights, true), (tuning, false)]);
    }

    [Fact]
    public async Task Pages_are_whole_while_other_periods_push_them_out_and_reports_come()
    {
        var (account, _, _) = await AccountAsync();

        await Task.WhenAll(
            Enumerable
                .Range(0, 6)
                .Select(async person =>
                {
                    for (var round = 0; round < 12; round++)
                    {
                        var days = new Period(Last.AddDays(-27 - (person * 12 + round) % 17), Last);
                        var page = await _reader.ReadAsync(
                            new TermScope(account, days),
                            new TermRequest(),
                            CancellationToken.None
                        );
                        (page.Terms, page.Count, page.Rows.Count(row => row.Parts.Count > 0)).ShouldBe((4, 4, 4));
                        if (round % 4 == 0)
                        {
                            await using var connection = await _fixture.Source.OpenConnectionAsync();
                            await connection.ExecuteAsync(
                                "update account set report_revision = report_revision + 1 where id = @account",
                                new { account }
                            );
                        }
                    }
                })
        );
    }

    [Fact]
    public async Task Another_accounts_terms_and_decisions_are_not_seen()
    {
        var (account, _, _) = await AccountAsync();
        var (other, _, _) = await AccountAsync();
        await _fixture.DoAsync(other, new DecideTerms(TermDecision.Leave, ["cheap piano lessons"]));

        (await ReadAsync(account, new TermRequest { Decided = true })).Count.ShouldBe(0);
        (await ReadAsync(account)).Sum.Cost.ShouldBe((await ReadAsync(other)).Sum.Cost);
    }
}
