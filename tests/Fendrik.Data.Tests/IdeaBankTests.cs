using Fendrik.Core.AdText;
using Fendrik.Core.Reporting;
using Fendrik.Core.Serving;
using Fendrik.Data.Writing;

namespace Fendrik.Data.Tests;

/// <summary>Phrases of one's own with where they are used, and what rivals were seen to say.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class IdeaBankTests(WorkingCopyFixture fixture)
{
    private const string List = """
        item,campaign,daily budget,ad group,ad group max cpc,headline 1,headline 2,headline 3,description 1,description 2,landing page
        text ad,North,25,Tuning,1.00,Piano Tuning,Book Today,,Pay after the last note.,,https://a.example/tuning
        responsive ad,North,25,Tuning,1.00,Piano Tuning [1],Out Of Tune?,Book Today,Pay after the last note.,We come to you.,https://a.example/tuning
        text ad,North,25,Hire,1.00,Piano Hire,Book today,,From £48 a month.,,https://a.example/hire
        """;

    private readonly IdeaBank _bank = new(fixture.Source, TimeProvider.System);

    private async Task<int> AccountAsync()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, List);
        return account;
    }

    private Task<IReadOnlyList<OwnPhrase>> OwnAsync(int account) =>
        _bank.OwnAsync(account, null, null, CancellationToken.None);

    private static SearchTrace Traced(params TracedBidder[] ladder) =>
        new("piano tuner", [], "", true, [], [], null, [], null, new TracedAuction(ladder, "", []), null, []);

    [Fact]
    public async Task A_phrase_counts_wherever_it_is_used_whatever_its_letters_and_places()
    {
        var own = await OwnAsync(await AccountAsync());

        var book = own.Single(each => each.Text.Equals("book today", StringComparison.OrdinalIgnoreCase));
        (book.Kind, book.AsHeadline, book.AsDescription, book.AdGroups).ShouldBe((PhraseKind.CallToAction, 3, 0, 2));
        own.Single(each => each.Text == "Piano Tuning").AsHeadline.ShouldBe(2);
        own.Single(each => each.Text == "Pay after the last note.").AsDescription.ShouldBe(2);
        own.Single(each => each.Text == "From £48 a month.").Kind.ShouldBe(PhraseKind.Offer);
    }

    [Fact]
    public async Task A_kept_phrase_is_there_once_and_says_where_it_is_used()
    {
        var account = await AccountAsync();
        await _bank.KeepAsync(account, "morag", "  Tuned  by Friday ", CancellationToken.None);
        await _bank.KeepAsync(account, "morag", "tuned by friday", CancellationToken.None);
        await _bank.KeepAsync(account, "morag", "Piano Hire", CancellationToken.None);

        var own = await OwnAsync(account);
        own.Where(each => each.Id is not null)
            .Select(each => (each.Text, each.AsHeadline))
            .ShouldBe([("Piano Hire", 1), ("Tuned by Friday", 0)]);
        await _bank.LetGoAsync(account, own.Single(each => each.Text == "Tuned by Friday").Id!.Value, default);
        (await OwnAsync(account)).ShouldNotContain(each => each.Text == "Tuned by Friday");
    }

    [Theory]
    [InlineData("   ")]
    [InlineData("a\u0007b")]
    public async Task What_is_no_phrase_is_not_kept(string text)
    {
        var account = await fixture.NewAccountAsync();
        (
            await Should.ThrowAsync<InvalidChangeException>(() =>
                _bank.KeepAsync(account, "morag", text, CancellationToken.None)
            )
        ).Message.ShouldContain("1 to 400");
    }

    [Fact]
    public async Task What_rivals_say_is_remembered_where_their_ads_showed()
    {
        var account = await fixture.NewAccountAsync();
        TracedBidder Rival(string name, int? place) =>
            new(name, false, 1, 6, 6, place, true, 1, null, "Tuned by Thursday", "Book in a minute.");
        var trace = Traced(
            Rival("Northern Strings", 1),
            Rival("Hidden", null),
            new("You", true, 1, 6, 6, 2, true, 1, null)
        );

        await _bank.NoteAsync(account, trace, CancellationToken.None);
        await _bank.NoteAsync(account, trace, CancellationToken.None);

        var text = (await _bank.RivalsAsync(account, CancellationToken.None)).ShouldHaveSingleItem();
        (text.Rival, text.Searches).ShouldBe(("Northern Strings", 2));
        text.Kinds.ShouldBe([PhraseKind.Other, PhraseKind.CallToAction]);
    }

    [Fact]
    public async Task Another_account_sees_none_of_it()
    {
        var account = await AccountAsync();
        await _bank.KeepAsync(account, "morag", "Tuned by Friday", CancellationToken.None);
        (await OwnAsync(await fixture.NewAccountAsync())).ShouldBeEmpty();
    }
}
