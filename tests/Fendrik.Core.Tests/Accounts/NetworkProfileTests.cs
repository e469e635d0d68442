using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;

namespace Fendrik.Core.Tests.Accounts;

public class NetworkProfileTests
{
    [Fact]
    public void Knows_two_networks_with_different_limits()
    {
        var (ostrel, pellow) = (NetworkProfile.Of("ostrel"), NetworkProfile.Of("pellow"));

        (ostrel.HeadlineLength, pellow.HeadlineLength).ShouldBe((30, 28));
        ostrel.Places.ShouldNotBe(pellow.Places);
    }

    [Fact]
    public void Says_which_network_it_does_not_know() =>
        Should.Throw<ArgumentException>(() => NetworkProfile.Of("nowhere")).Message.ShouldContain("nowhere");

    [Theory]
    [InlineData("Click here!", "click here")]
    [InlineData("CLICK-HERE", "click here")]
    [InlineData("Number one tuner", "number one")]
    public void Finds_a_refused_wording_however_it_is_written(string text, string wording) =>
        NetworkProfile.Of("ostrel").RefusedWordingIn(text).ShouldBe(wording);

    public static TheoryData<string> Networks => [.. NetworkProfile.All.Keys];

    /// <summary>At the limit is taken, one character beyond is not: for each network and each limit of a text.</summary>
    [Theory]
    [MemberData(nameof(Networks))]
    public void Takes_texts_up_to_the_limit_and_none_beyond(string network)
    {
        var profile = NetworkProfile.Of(network);
        TextAd Ad(int headline, int description, int path) =>
            new(
                1,
                1,
                ItemState.Running,
                [.. Enumerable.Repeat(new string('h', headline), profile.HeadlinesMax)],
                [.. Enumerable.Repeat(new string('d', description), profile.DescriptionsMax)],
                [.. Enumerable.Repeat(new string('p', path), profile.PathParts)],
                "tarnandfell.example",
                null
            );

        ItemChecks
            .Of(Ad(profile.HeadlineLength, profile.DescriptionLength, profile.PathLength), profile)
            .ShouldBeEmpty();
        ItemChecks
            .Of(Ad(profile.HeadlineLength + 1, profile.DescriptionLength, profile.PathLength), profile)
            .Count()
            .ShouldBe(profile.HeadlinesMax);
        ItemChecks
            .Of(Ad(profile.HeadlineLength, profile.DescriptionLength + 1, profile.PathLength), profile)
            .Count()
            .ShouldBe(profile.DescriptionsMax);
        ItemChecks
            .Of(Ad(profile.HeadlineLength, profile.DescriptionLength, profile.PathLength + 1), profile)
            .Count()
            .ShouldBe(profile.PathParts);
    }

    [Theory]
    [MemberData(nameof(Networks))]
    public void Takes_amounts_from_the_least_on_and_none_below(string network)
    {
        var profile = NetworkProfile.Of(network);
        AdGroup Group(decimal maxCpc) => new(1, 1, "Tuning", ItemState.Running, maxCpc);
        Campaign North(decimal budget) => new(1, "North", ItemState.Running, budget, null, null, SiteKinds.Search);

        ItemChecks.Of(Group(profile.MinimumCpc), profile).ShouldBeEmpty();
        ItemChecks.Of(Group(profile.MinimumCpc - 0.01m), profile).ShouldHaveSingleItem().Code.ShouldBe("max-cpc-low");
        ItemChecks.Of(North(profile.MinimumDailyBudget), profile).ShouldBeEmpty();
        ItemChecks
            .Of(North(profile.MinimumDailyBudget - 0.01m), profile)
            .ShouldHaveSingleItem()
            .Code.ShouldBe("budget-low");
    }

    [Theory]
    [MemberData(nameof(Networks))]
    public void Takes_keywords_up_to_their_length_and_number_of_words(string network)
    {
        var profile = NetworkProfile.Of(network);
        Keyword Of(string text) => new(1, 1, text, MatchType.Broad, ItemState.Running, null, null);

        ItemChecks.Of(Of(new string('k', profile.KeywordLength)), profile).ShouldBeEmpty();
        ItemChecks
            .Of(Of(new string('k', profile.KeywordLength + 1)), profile)
            .ShouldHaveSingleItem()
            .Code.ShouldBe("text-long");
        ItemChecks
            .Of(Of(string.Join(' ', Enumerable.Repeat("k", profile.KeywordWords + 1))), profile)
            .ShouldHaveSingleItem()
            .Code.ShouldBe("words-many");
    }
}
