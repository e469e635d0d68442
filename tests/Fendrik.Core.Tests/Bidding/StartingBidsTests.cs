using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Tests.Bidding;

public class StartingBidsTests
{
    private static readonly NetworkProfile Network = NetworkProfile.Of("ostrel");

    private static StartingBid Of(MatchType match, decimal? price = null, string currency = "GBP") =>
        StartingBids.Of(match, price, Network, Currency.Of(currency));

    /// <summary>Broad lists begin at 0.30 to 0.60, a targeted phrase list at 1.50: common practice, no source.</summary>
    [Fact]
    public void A_broad_list_begins_low_and_a_targeted_phrase_list_about_three_times_as_high()
    {
        Of(MatchType.Broad).Bid.ShouldBeInRange(0.30m, 0.60m);
        Of(MatchType.Phrase).Bid.ShouldBe(1.50m);
        (Of(MatchType.Phrase).Bid / Of(MatchType.Broad).Bid).ShouldBeInRange(2.5m, 4);
    }

    [Fact]
    public void What_clicks_on_the_same_words_cost_goes_before_the_rule() =>
        Of(MatchType.Phrase, 0.80m).Bid.ShouldBe(1.00m);

    [Fact]
    public void A_theme_moves_a_bid_no_further_than_three_times() => Of(MatchType.Phrase, 40m).Bid.ShouldBe(4.50m);

    [Fact]
    public void In_a_currency_without_minor_units_a_bid_is_whole() =>
        decimal.IsInteger(Of(MatchType.Broad, currency: "JPY").Bid).ShouldBeTrue();
}
