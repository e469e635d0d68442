using System.Text;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Serving;
using Fendrik.Data.Accounts;
using Fendrik.Data.Checking;
using Fendrik.Data.Steps;
using Fendrik.Data.Tracing;

namespace Fendrik.Data.Tests;

/// <summary>Searches that are kept as tests of an account, run when a change can touch them.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class SavedSearchTests(WorkingCopyFixture fixture)
{
    private static SavedSearch Search(string text, Expectation expected, long? group = null, string? place = null) =>
        new(text, Device.Phone, SiteKinds.Search, place, expected, group);

    private Task<int> SaveAsync(TunedAccount account, params SavedSearch[] searches) =>
        fixture.Searches.SaveAsync(account.Id, WorkingCopyFixture.Person, searches, CancellationToken.None);

    private Task<IReadOnlyList<ListedSearch>> ListAsync(TunedAccount account) =>
        fixture.Searches.ListAsync(account.Id, CancellationToken.None);

    private async Task<IReadOnlyList<AccountFinding>> FoundAsync(TunedAccount account)
    {
        await fixture.Checks.CountsAsync(account.Id, CancellationToken.None);
        return await fixture.Checks.ListOfAccountAsync(account.Id, 100, CancellationToken.None);
    }

    [Fact]
    public async Task One_that_fails_is_a_caution_until_the_account_passes_it_again()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        await SaveAsync(
            account,
            Search("piano hire", Expectation.Shows),
            Search("cheap accordion", Expectation.ShowsNot)
        );
        (await FoundAsync(account)).ShouldBeEmpty();

        await fixture.KeepAsync(account.Id, "campaign,keyword,match\nNorth,-hire,phrase\nSouth,-hire,phrase\n");
        var counts = await fixture.Checks.CountsAsync(account.Id, CancellationToken.None);

        var found = (await FoundAsync(account)).ShouldHaveSingleItem();
        (found.Weight, found.Code).ShouldBe((Weight.Caution, SavedSearch.Fails));
        found.Detail.ShouldStartWith("“piano hire” should show. Nothing shows.");
        (await ListAsync(account))
            .Select(each => (each.Search.Text, each.Holds))
            .ShouldBe([("piano hire", false), ("cheap accordion", true)]);
        await account.UndoAsync();
        (await FoundAsync(account)).ShouldBeEmpty();
        counts.Cautions.ShouldBeGreaterThan(
            (await fixture.Checks.CountsAsync(account.Id, CancellationToken.None)).Cautions
        );
    }

    [Fact]
    public async Task Only_those_that_a_change_can_touch_are_run_again()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        await SaveAsync(
            account,
            Search("piano tuning", Expectation.Shows),
            Search("piano hire", Expectation.Shows),
            Search("organ repair", Expectation.ShowsNot)
        );
        await FoundAsync(account);
        await using var connection = await fixture.Source.OpenConnectionAsync();
        await connection.ExecuteAsync(
            "update saved_search set told = 'as before' where account_id = @Id",
            new { account.Id }
        );

        await fixture.KeepAsync(account.Id, "campaign,ad group,keyword,match,max cpc\nNorth,Tuning,organ,broad,0.70\n");
        await FoundAsync(account);

        (await ListAsync(account))
            .ToDictionary(each => each.Search.Text, each => each.Told == "as before")
            .ShouldBe(
                new Dictionary<string, bool>
                {
                    ["organ repair"] = false,
                    ["piano tuning"] = false, // its ad group has another keyword
                    ["piano hire"] = true,
                },
                ignoreOrder: true
            );
    }

    [Fact]
    public async Task Is_run_on_the_day_that_the_account_is_in()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        await fixture.KeepAsync(account.Id, "campaign,end date\nNorth,2026-05-12\nSouth,2026-05-12\n");
        await using var connection = await fixture.Source.OpenConnectionAsync();
        Task ClockAsync(string now) =>
            connection.ExecuteAsync(
                "update account set network_now = @now::timestamptz where id = @Id; insert into check_due values (@Id, 0, 0)",
                new { account.Id, now }
            );
        await ClockAsync("2026-05-12 22:30Z"); // half past eleven in London
        await SaveAsync(account, Search("piano hire", Expectation.Shows));
        (await FoundAsync(account)).ShouldBeEmpty();

        await ClockAsync("2026-05-12 23:30Z");

        (await FoundAsync(account)).ShouldHaveSingleItem().Detail.ShouldContain("ended on 12 May 2026");
    }

    [Fact]
    public async Task The_same_search_saved_again_gets_the_new_expectation_and_a_removed_one_leaves_no_caution()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        (
            await SaveAsync(
                account,
                Search("Piano  Hire", Expectation.ShowsNot),
                Search("piano hire", Expectation.ShowsNot)
            )
        ).ShouldBe(1);
        (await SaveAsync(account, Search("piano hire", Expectation.ShowsNot))).ShouldBe(0);
        (await FoundAsync(account)).ShouldHaveSingleItem();

        (
            await SaveAsync(
                account,
                Search("piano hire", Expectation.Shows),
                Search("piano hire", Expectation.ShowsNot, null, "york")
            )
        ).ShouldBe(2);
        var failing = (await FoundAsync(account)).ShouldHaveSingleItem();

        var removed = await fixture.Searches.RemoveAsync(
            account.Id,
            WorkingCopyFixture.Person,
            [failing.SavedSearchId!.Value],
            CancellationToken.None
        );
        removed.ShouldHaveSingleItem().Place.ShouldBe("york");
        (await FoundAsync(account)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Refuses_all_when_one_names_an_ad_group_of_another_account()
    {
        var (account, other) = (await TunedAccount.MakeAsync(fixture), await TunedAccount.MakeAsync(fixture));
        var foreign = (await other.RowsAsync(ItemKind.AdGroup))[0].Id;

        var error = await Should.ThrowAsync<InvalidChangeException>(() =>
            SaveAsync(
                account,
                Search("piano hire", Expectation.Shows),
                Search("piano tuning", Expectation.ShowsFrom, foreign)
            )
        );

        error.Field.ShouldBe("searches[1].adGroupId");
        error.Message.ShouldStartWith("Search 2: the ad group that should answer is not in this account.");
        (await ListAsync(account)).ShouldBeEmpty();
        (
            await fixture.Searches.RemoveAsync(
                other.Id,
                WorkingCopyFixture.Person,
                [.. (await ListAsync(account)).Select(each => each.Id)],
                CancellationToken.None
            )
        ).ShouldBeEmpty();
    }

    [Fact]
    public async Task An_account_without_a_payer_is_a_caution_and_fails_what_should_show()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        await SaveAsync(account, Search("piano hire", Expectation.Shows));
        await using var connection = await fixture.Source.OpenConnectionAsync();
        await connection.ExecuteAsync(
            "update account set payer = null where id = @Id; insert into check_due values (@Id, 0, 0)",
            new { account.Id }
        );

        (await FoundAsync(account))
            .Select(each => (each.Code, each.Detail))
            .ShouldBe([
                (
                    AcrossAccount.PayerMissing,
                    "Nobody pays for this account on Ostrel Search: what is published is reviewed, but nothing of it shows. Name a payer."
                ),
                (SavedSearch.Fails, "“piano hire” should show. Nothing shows: the account has no payer."),
            ]);
    }

    [Fact]
    public async Task Many_searches_are_traced_as_each_would_be_alone()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var day = new DateOnly(2026, 5, 12);
        string[] terms = ["piano tuning", "free piano tuning", "piano hire leeds", "accordion", "piano tuning"];
        var alone = new List<string>();
        foreach (var text in terms)
        {
            alone.Add(
                (
                    await new WorkingCopyTrace(fixture.Source, fixture.Keywords).TraceAsync(
                        account.Id,
                        new TraceWish(text, Device.Phone, SiteKinds.Search),
                        day,
                        CancellationToken.None
                    )
                ).Outcome
            );
        }

        var together = new List<TracedTerm>();
        await foreach (
            var term in new TermTrace(fixture.Source, fixture.Keywords).TraceAsync(
                account.Id,
                terms,
                Device.Phone,
                SiteKinds.Search,
                day,
                CancellationToken.None
            )
        )
        {
            together.Add(term);
        }

        together.Select(each => each.Text).ShouldBe(terms);
        together
            .Select(each => each.Kind == AnswerKind.Answers ? $"“{each.Keyword}” answers" : each.Kind.ToString())
            .ShouldBe(
                alone.Select(outcome =>
                    outcome switch
                    {
                        "Blocked by a negative" => nameof(AnswerKind.Blocked),
                        "No keyword matches" => nameof(AnswerKind.NothingMatches),
                        "Keywords match, but none may answer" => nameof(AnswerKind.MayNotAnswer),
                        _ => outcome,
                    }
                )
            );
        together.Select(each => each.Kind).Distinct().Count().ShouldBeGreaterThan(2);
    }

    [Theory]
    [InlineData("Day,Search term,Clicks\n2026-05-12,piano tuner york,3\n2026-05-12,,1\n2026-05-13,used pianos,2\n")]
    [InlineData("piano tuner york\n\nused pianos")]
    [InlineData("piano tuner york\t12\nused pianos\t9\n")]
    public async Task Searches_are_read_from_a_list_in_whatever_form(string file)
    {
        using var content = new MemoryStream(Encoding.UTF8.GetBytes(file));

        (await TermFile.ReadAsync(content, CancellationToken.None)).ShouldBe(["piano tuner york", "used pianos"]);
    }

    [Fact]
    public async Task A_list_with_a_search_that_is_too_long_names_the_row()
    {
        using var content = new MemoryStream(Encoding.UTF8.GetBytes("piano\n" + new string('a', 401)));

        (
            await Should.ThrowAsync<InvalidChangeException>(() => TermFile.ReadAsync(content, CancellationToken.None))
        ).Message.ShouldBe("Row 2: a search has at most 400 characters. Shorten it or leave it out.");
    }
}
