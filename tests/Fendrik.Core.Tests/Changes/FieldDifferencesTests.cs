using System.Text.Json;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;

namespace Fendrik.Core.Tests.Changes;

public class FieldDifferencesTests
{
    private static readonly Currency Pound = Currency.Of("GBP");
    private static readonly ItemType Campaign = ItemTypes.Of(ItemKind.Campaign);
    private static readonly ItemType Keyword = ItemTypes.Of(ItemKind.Keyword);

    private static JsonElement Json(object item) => JsonSerializer.SerializeToElement(item);

    [Fact]
    public void Says_nothing_of_what_stays()
    {
        var item = Json(
            new
            {
                name = "North",
                state = 1,
                dailyBudget = 25,
            }
        );

        FieldDifferences.Between(Campaign, item, item, Pound).ShouldBeEmpty();
    }

    [Fact]
    public void Says_all_that_is_filled_of_an_item_that_is_new() =>
        FieldDifferences
            .Between(
                Campaign,
                null,
                Json(
                    new
                    {
                        name = "North",
                        state = 2,
                        dailyBudget = 25,
                        startDate = (string?)null,
                        networks = 3,
                    }
                ),
                Pound
            )
            .ShouldBe([
                new("Name", null, "North"),
                new("State", null, "paused"),
                new("Daily budget", null, "£25.00"),
                new("Networks", null, "search, partners"),
            ]);

    [Fact]
    public void Writes_amounts_in_the_currency_of_the_account() =>
        FieldDifferences
            .Between(Keyword, Json(new { maxCpc = 100 }), Json(new { maxCpc = 130 }), Currency.Of("JPY"))
            .ShouldBe([new("Max CPC", "¥100", "¥130")]);

    [Fact]
    public void Tells_an_amount_taken_away_from_one_of_zero() =>
        FieldDifferences
            .Between(Keyword, Json(new { maxCpc = 1.1 }), Json(new { maxCpc = (decimal?)null }), Pound)
            .ShouldBe([new("Max CPC", "£1.10", null)]);

    [Fact]
    public void Writes_the_lines_of_an_ad_beside_each_other() =>
        FieldDifferences
            .Between(
                ItemTypes.Of(ItemKind.TextAd),
                Json(new { headlines = new[] { "A", "B" }, displayPath = Array.Empty<string>() }),
                Json(new { headlines = new[] { "A", "C" }, displayPath = new[] { "x" } }),
                Pound
            )
            .ShouldBe([new("Headline", "A | B", "A | C", InPicture: true), new("Path", null, "x", InPicture: true)]);

    [Theory]
    [InlineData(0, "shows nowhere")]
    [InlineData(4, "content")]
    [InlineData(7, "search, partners, content")]
    public void Names_the_networks(int networks, string words) =>
        FieldDifferences
            .Between(Campaign, Json(new { networks = 1 }), Json(new { networks }), Pound)
            .ShouldBe([new("Networks", "search", words)]);

    [Fact]
    public void Names_an_item_by_what_a_person_knows_it_by()
    {
        FieldDifferences.NameOf(Campaign, Json(new { name = "North" })).ShouldBe("North");
        FieldDifferences.NameOf(Keyword, Json(new { text = "piano" })).ShouldBe("piano");
        FieldDifferences
            .NameOf(ItemTypes.Of(ItemKind.TextAd), Json(new { headlines = new[] { "A", "B" } }))
            .ShouldBe("A · B");
    }
}
