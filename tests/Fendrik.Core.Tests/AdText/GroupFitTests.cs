using Fendrik.Core.AdText.Fit;
using Fendrik.Core.Auctions;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Tests.AdText;

public class GroupFitTests
{
    private static readonly NetworkProfile Ostrel = NetworkProfile.Of("ostrel");

    private static readonly KeywordToFit[] Keywords =
    [
        new("piano tuning leeds", 9, "a.example/tuning"),
        new("grand piano tuner", 0, "a.example/tuning"),
    ];

    private static TextAd Ad(string headline) =>
        new(1, 2, ItemState.Running, [headline], [], [], "a.example/tuning", null);

    private static PageText Page(string address, string body, int milliseconds = 1_000, bool contact = true) =>
        new(address, "Pianos", ["Tuning"], body, contact, milliseconds);

    private static GroupFit Fit(string headline, params PageText[] pages) =>
        GroupFit.Of("Tuning", "North", Keywords, [Ad(headline)], pages, Ostrel.Reach);

    /// <summary>By hand: 2 of 3 words for the keyword with 9 clicks, 1 of 3 for the one without; weighed 10 to 1.</summary>
    [Fact]
    public void Text_fit_is_the_share_of_the_keywords_words_by_their_clicks() =>
        Fit("Piano Tuning").TextFit.ShouldBe((10 * (2 / 3m) + (1 / 3m)) / 11, 0.000001m);

    [Fact]
    public void Inserted_words_say_what_the_keyword_says() =>
        Fit("{{ keyword | default: \"Pianos\" }}").TextFit.ShouldBe(1);

    /// <summary>All words of both keywords, quick, and a way to get in touch: the whole of each part.</summary>
    [Fact]
    public void A_page_that_says_it_all_at_once_fits_wholly()
    {
        var fit = Fit("Piano", Page("a.example/tuning", "Piano tuning in Leeds, and a grand piano tuner."));

        fit.PageFit.ShouldBe(1);
        fit.PageStanding.ShouldBe(PartStanding.AboveAverage);
        fit.Advice.ShouldBeEmpty();
    }

    [Fact]
    public void It_says_what_would_raise_a_page_and_which_fits_better()
    {
        var fit = Fit(
            "Piano",
            Page("a.example/tuning", "We tune.", 4_200, contact: false),
            Page("a.example/leeds", "Piano tuning in Leeds, and a grand piano tuner.")
        );

        fit.Advice.ShouldBe([
            "The page does not say: leeds, grand, tuner.",
            "It takes 4.2 s on a phone until it can be used.",
            "Nobody can get in touch there on a phone: no form that works, no booking, no number.",
            "a.example/leeds says more of what is searched for here.",
        ]);
        fit.Pages.Select(page => (page.Address, page.IsOwn))
            .ShouldBe([("a.example/leeds", false), ("a.example/tuning", true)]);
    }

    [Fact]
    public void Pages_that_were_not_read_have_no_fit() => Fit("Piano").PageFit.ShouldBeNull();
}
