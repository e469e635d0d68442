using Fendrik.Core.Networks;
using Fendrik.Core.Serving;
using Fendrik.Data.Tracing;

namespace Fendrik.Data.Tests;

/// <summary>A search traced in the working copy, which moves between one trace and the next.</summary>
[Collection(nameof(WorkingCopyFixture))]
public sealed class TraceTests(WorkingCopyFixture fixture) : IDisposable
{
    private const string List =
        "campaign,daily budget,ad group,keyword,match,max cpc,headline 1,headline 2,description 1,landing page\n"
        + "North,40,Tuning,piano tuning,phrase,1.20,,,,\n"
        + "North,40,Tuning,tuner,broad,0.60,,,,\n"
        + "North,40,Tuning,,,,Piano Tuning,Same Week,Pay after the last note.,https://tarnandfell.example/tuning\n";

    private readonly KeywordMemory _memory = new();

    public void Dispose() => _memory.Dispose();

    private Task<SearchTrace> TraceAsync(int account, string text) =>
        new WorkingCopyTrace(fixture.Source, _memory).TraceAsync(
            account,
            new TraceWish(text, Device.Phone, SiteKinds.Search),
            new DateOnly(2026, 5, 12),
            CancellationToken.None
        );

    private async Task<int> AccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        return account;
    }

    [Fact]
    public async Task Names_the_keyword_that_answers_and_says_what_only_the_network_knows()
    {
        var trace = await TraceAsync(await AccountAsync(), "piano tuning york");

        trace.Keywords.Select(each => (each.Text, each.Answers)).ShouldBe([("piano tuning", true), ("tuner", false)]);
        trace.Ad!.Headlines.ShouldBe(["Piano Tuning", "Same Week"]);
        trace.Auction.ShouldBeNull();
        trace.Notes.Count.ShouldBe(2);
    }

    [Theory]
    [InlineData("Welsh", HindranceKind.OtherLanguage)]
    [InlineData("cy", HindranceKind.OtherLanguage)]
    [InlineData("en-GB", null)]
    [InlineData(null, null)]
    public async Task A_language_keeps_campaigns_away_that_are_for_others(string? language, HindranceKind? hindrance)
    {
        var account = await AccountAsync();
        await fixture.KeepAsync(account, "campaign,languages\nNorth,en\n");

        var trace = await new WorkingCopyTrace(fixture.Source, _memory).TraceAsync(
            account,
            new TraceWish("piano tuning", Device.Phone, SiteKinds.Search, Language: language),
            new DateOnly(2026, 5, 12),
            CancellationToken.None
        );

        (trace.Campaigns.ShouldHaveSingleItem().Hindrance?.Kind).ShouldBe(hindrance);
        trace.Shows.ShouldBe(hindrance is null);
    }

    [Fact]
    public void A_language_that_nobody_knows_is_told_with_what_to_write()
    {
        var problem = new TraceWish("piano", Device.Phone, SiteKinds.Search, Language: "Klingonish").Problem;

        problem!.Value.Field.ShouldBe("language");
        problem.Value.Message.ShouldContain("write its English name, or a tag such as cy or en-GB");
    }

    [Fact]
    public async Task Takes_in_what_was_changed_added_removed_and_undone_since_the_last_trace()
    {
        var account = await AccountAsync();
        (await TraceAsync(account, "piano restorer")).Keywords.ShouldBeEmpty();

        await fixture.KeepAsync(
            account,
            "campaign,ad group,keyword,match,max cpc\nNorth,Tuning,piano restorer,exact,1.00\n"
        );
        (await TraceAsync(account, "piano restorer")).Keywords.ShouldHaveSingleItem().Answers.ShouldBeTrue();
        await fixture.KeepAsync(account, "campaign,ad group,keyword,match\nNorth,,-restorer,phrase\n");
        (await TraceAsync(account, "piano restorer")).Outcome.ShouldBe("Blocked by a negative");
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        await fixture.History.UndoAsync(account, WorkingCopyFixture.Person, CancellationToken.None);
        (await TraceAsync(account, "piano restorer")).Keywords.ShouldBeEmpty();
    }

    [Fact]
    public async Task Reaches_by_the_accounts_own_related_words_as_soon_as_they_are_there()
    {
        var account = await AccountAsync();
        await fixture.KeepAsync(
            account,
            "campaign,ad group,keyword,match,max cpc\nNorth,Tuning,piano mover,broad,0.50\n"
        );
        (await TraceAsync(account, "joanna mover")).Keywords.ShouldBeEmpty();

        await fixture.KeepAsync(account, "related words,stands for 1,nearness\njoanna,piano,synonym\n");

        (await TraceAsync(account, "joanna mover"))
            .Keywords.ShouldHaveSingleItem()
            .Why.ShouldBe("“piano” by “joanna”, a synonym (95 %)");
    }

    [Fact]
    public async Task Knows_nothing_of_another_account()
    {
        await AccountAsync();

        (await TraceAsync(await fixture.NewAccountAsync(), "piano tuning")).Outcome.ShouldBe("No keyword matches");
    }
}
