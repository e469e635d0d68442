using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;

namespace Fendrik.Core.Tests.Lists;

public class RowWriterTests
{
    private static readonly ReadingGround Pounds = ReadingGround.Plain(Currency.Of("GBP"));

    private static readonly IReadOnlyList<ListColumn> All = RowWriter.ColumnsFor(
        ItemTypes
            .All.SelectMany(type => type.Fields)
            .Where(field => field.Type.Room is not null)
            .DistinctBy(field => field.Name)
            .ToDictionary(field => field.Name, field => field.Type.Room!.Value)
    );

    private static ListRow There(ListRow row)
    {
        var cells = new string[All.Count];
        new RowWriter(All, Pounds).Write(row, cells);
        return new RowReader(All, Pounds, new ListDefaults()).Read(cells, 2).ShouldNotBeNull();
    }

    [Fact]
    public void A_keyword_is_read_back_as_it_was()
    {
        var row = There(
            ItemParts.Row(
                ItemKind.Keyword,
                "=Leeds",
                "-Grands-",
                ("text", "@home tuning"),
                ("match", "all words"),
                ("maxCpc", "1234.5"),
                ("state", "paused"),
                ("landingPage", "https://tarnandfell.example/a"),
                ("labels", "a; b c")
            )
        );

        (row.Problem, row.Kind, row.Campaign, row.AdGroup, row.Text, row.Match).ShouldBe(
            (null, ItemKind.Keyword, "=Leeds", "-Grands-", "@home tuning", MatchType.AllWords)
        );
        (row.MaxCpc, row.State, row.LandingPage).ShouldBe((1234.5m, ItemState.Paused, "https://tarnandfell.example/a"));
        row.Labels.ShouldBe(["a", "b c"]);
    }

    [Fact]
    public void Fifteen_headlines_and_four_descriptions_keep_their_order()
    {
        var headlines = Enumerable.Range(1, 14).Select(number => $"Headline no {number}").ToArray();
        var row = There(
            ItemParts.Row(
                ItemKind.TextAd,
                "Leeds",
                "Grands",
                ("headlines", string.Join('|', headlines)),
                ("descriptions", "a|b|c|d"),
                ("displayPath", "x|y"),
                ("devicePreference", "tablet")
            )
        );

        row.Headlines.ShouldBe(headlines);
        row.Descriptions.ShouldBe(["a", "b", "c", "d"]);
        (row.DisplayPath[1], row.DevicePreference, row.LandingPage).ShouldBe(("y", Device.Tablet, null));
    }

    [Theory]
    [InlineData("JPY", 0, "120")]
    [InlineData("GBP", 2, "120.00")]
    [InlineData("KWD", 3, "120.000")]
    public void Amounts_have_the_decimal_places_of_their_currency(string code, int places, string written)
    {
        // ISO 4217 minor units: JPY 0, GBP 2, KWD 3.
        var currency = Currency.Of(code);
        currency.MinorUnits.ShouldBe(places);
        var cells = new string[All.Count];

        new RowWriter(All, ReadingGround.Plain(currency)).Write(
            ItemParts.Row(ItemKind.AdGroup, "A", "B", ("maxCpc", "120")),
            cells
        );

        cells[All.ToList().FindIndex(column => column.Name == "maxCpc")].ShouldBe(written);
    }

    [Fact]
    public void Any_amount_is_read_back_in_any_currency_and_language() =>
        Gen.Select(
                Gen.OneOfConst("JPY", "GBP", "KWD"),
                Gen.OneOfConst("en-GB", "de-DE", "fr-FR"),
                Gen.Int[1, 900_000_000]
            )
            .Sample(
                (code, language, units) =>
                {
                    var ground = new ReadingGround(Currency.Of(code), AccountLanguage.Of(language));
                    var amount = Math.Min(units * ground.Currency.SmallestAmount, 1_000_000m);
                    var cells = new string[All.Count];
                    var row = ItemParts.Row(ItemKind.Campaign, "A", "");
                    row.Values["dailyBudget"] = amount;
                    new RowWriter(All, ground).Write(row, cells);
                    return new RowReader(All, ground, new ListDefaults()).Read(cells, 2)!.DailyBudget == amount;
                }
            );

    [Fact]
    public void Every_header_names_its_own_column()
    {
        var writer = new RowWriter(AccountFile.Columns, Pounds);

        foreach (var column in AccountFile.Columns)
        {
            ColumnGuess.OfHeader(writer.Header(column))?.Name.ShouldBe(column.Name);
        }
    }

    [Fact]
    public void Only_as_many_text_columns_are_written_as_ads_need() =>
        RowWriter
            .ColumnsFor(new Dictionary<string, int> { ["headlines"] = 5 })
            .Count(column => column.Label.StartsWith("Headline", StringComparison.Ordinal))
            .ShouldBe(5);

    [Fact]
    public void An_ad_is_known_by_its_reference_and_a_keyword_by_its_words()
    {
        var ad = ItemParts.Row(ItemKind.TextAd, "A", "B", ("headlines", "x"));
        ad.Reference = 48213;

        There(ad).Reference.ShouldBe(48213);
        There(ItemParts.Row(ItemKind.Keyword, "A", "B", ("text", "x"), ("match", "exact"))).Reference.ShouldBeNull();
    }
}
