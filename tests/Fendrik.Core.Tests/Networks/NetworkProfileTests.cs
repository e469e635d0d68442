using Fendrik.Core.Accounts;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Tests.Networks;

public class NetworkProfileTests
{
    [Fact]
    public void Knows_two_networks_with_different_limits()
    {
        var (ostrel, pellow) = (NetworkProfile.Of("ostrel"), NetworkProfile.Of("pellow"));

        (
            ostrel.LimitsOf(ItemKind.TextAd, "headlines").Length,
            pellow.LimitsOf(ItemKind.TextAd, "headlines").Length
        ).ShouldBe((32, 28));
        ostrel.TopPlaces.ShouldNotBe(pellow.TopPlaces);
    }

    [Fact]
    public void Says_which_network_it_does_not_know() =>
        Should.Throw<ArgumentException>(() => NetworkProfile.Of("nowhere")).Message.ShouldContain("nowhere");

    public static TheoryData<string> Networks => [.. NetworkProfile.All.Keys];

    public static TheoryData<string, ItemKind, string> Limited =>
        [
            .. NetworkProfile.All.Keys.SelectMany(network =>
                ItemTypes.All.SelectMany(type =>
                    type.Fields.Where(each =>
                            each.IsPublished && each.Type is (TextValue and not PlaceValue) or LinesValue
                        )
                        .Select(each => (network, type.Kind, each.Name))
                )
            ),
        ];

    /// <summary>At the limit is taken, one character beyond is not: of each text that any kind has, on each network.</summary>
    [Theory]
    [MemberData(nameof(Limited))]
    public void Takes_texts_up_to_the_limit_and_none_beyond(string network, ItemKind kind, string name)
    {
        var profile = NetworkProfile.Of(network);
        var (type, field) = (ItemTypes.Of(kind), ItemTypes.Of(kind)[name]);
        var longest = profile.LimitsOf(type, field).Length.ShouldNotBeNull();
        bool Passes(int length)
        {
            var text =
                field.Type is AddressValue ? "a.example/" + new string('x', length - 10) : new string('x', length);
            var values = new ItemValues(type) { [field] = field.Type.Form == ValueForm.Lines ? new[] { text } : text };
            return !ItemParts
                .Found(values, profile)
                .Any(finding => finding.Field == name && finding.Code.EndsWith("-long", StringComparison.Ordinal));
        }

        (Passes(longest), Passes(longest + 1)).ShouldBe((true, false));
    }

    [Theory]
    [MemberData(nameof(Networks))]
    public void Takes_as_many_parts_of_an_ad_as_it_says(string network)
    {
        var profile = NetworkProfile.Of(network);
        foreach (var name in new[] { "headlines", "descriptions", "displayPath" })
        {
            var limits = profile.LimitsOf(ItemKind.TextAd, name);
            string[] Codes(int parts) =>
                [
                    .. ItemParts
                        .Found(
                            new ItemValues(ItemTypes.Of(ItemKind.TextAd))
                            {
                                [name] = Enumerable.Repeat("x", parts).ToArray(),
                            },
                            profile
                        )
                        .Where(finding => finding.Field == name)
                        .Select(finding => finding.Code.Split('-')[^1]),
                ];

            Codes(limits.Most!.Value).ShouldBeEmpty();
            Codes(limits.Most!.Value + 1).ShouldBe(["many"]);
            Codes(limits.Fewest!.Value).ShouldBeEmpty();
        }
    }

    [Theory]
    [InlineData("GBP", "0.04", "0.03")]
    [InlineData("JPY", "7", "6")]
    [InlineData("KWD", "0.015", "0.014")]
    [InlineData("SEK", "0.05", "0.04")] // not listed: five of its smallest amounts
    public void The_least_max_CPC_depends_on_the_currency_and_is_said_in_its_decimals(
        string code,
        string least,
        string below
    )
    {
        var profile = NetworkProfile.Of("ostrel");
        ItemValues Group(string maxCpc) =>
            new(ItemTypes.Of(ItemKind.AdGroup)) { ["name"] = "Tuning", ["maxCpc"] = decimal.Parse(maxCpc) };

        ItemParts.Found(Group(least), profile, code).ShouldBeEmpty();
        var finding = ItemParts.Found(Group(below), profile, code).ShouldHaveSingleItem();
        finding.Code.ShouldBe("max-cpc-low");
        finding.Detail.ShouldContain(new Money(decimal.Parse(least), Currency.Of(code)).ToString());
    }

    [Theory]
    [MemberData(nameof(Networks))]
    public void Takes_as_many_words_of_a_keyword_as_it_says(string network)
    {
        var profile = NetworkProfile.Of(network);
        var words = profile.LimitsOf(ItemKind.Keyword, "text").Words!.Value;
        Finding[] Of(int count) =>
            ItemParts.Found(
                ItemParts.Item(
                    ItemKind.Keyword,
                    ("text", string.Join(' ', Enumerable.Repeat("k", count))),
                    ("match", "broad")
                ),
                profile
            );

        Of(words).ShouldBeEmpty();
        Of(words + 1).ShouldHaveSingleItem().Code.ShouldBe("text-words");
    }
}
