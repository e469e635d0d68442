using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;

namespace Fendrik.Core.Tests.Lists;

public class ColumnGuessTests
{
    private static readonly ReadingGround Pound = ReadingGround.Plain(Currency.Of("GBP"));

    [Theory]
    [InlineData("Campain", "campaign")] // misspelt
    [InlineData("camp.", "campaign")]
    [InlineData("ad-group", "adGroup")]
    [InlineData("Max. CPC (GBP)", "maxCpc")]
    [InlineData("search words", "keyword")]
    [InlineData("Headlnie 1", "headlines.1")] // letters swapped
    [InlineData("note", "")]
    [InlineData("Final URL", "landingPage")] // as files of before have it
    [InlineData("", "")]
    public void Knows_a_column_by_its_header(string header, string column) =>
        (ColumnGuess.OfHeader(header)?.Name ?? "").ShouldBe(column);

    [Fact]
    public void Reads_headers_in_any_order_and_leaves_out_what_it_does_not_know()
    {
        var guess = ColumnGuess.Of(
            [
                ["theme", "search words", "camp.", "note"],
                ["Tuning", "piano tuning", "North", "from March"],
            ],
            Pound
        );

        guess.HasHeader.ShouldBeTrue();
        guess.Columns.Select(column => column?.Name ?? "").ShouldBe(["adGroup", "keyword", "campaign", ""]);
    }

    [Fact]
    public void Knows_columns_without_headers_by_their_content()
    {
        string[][] rows =
        [
            ["North", "Tuning", "piano tuning york", "exact", "1.30"],
            ["North", "Tuning", "piano tuner york", "phrase", "1.10"],
            ["North", "Hire", "piano hire", "phrase", "0.90"],
        ];

        var guess = ColumnGuess.Of(rows, Pound);

        guess.HasHeader.ShouldBeFalse();
        guess
            .Columns.Select(column => column?.Name ?? "")
            .ShouldBe(["campaign", "adGroup", "keyword", "matchType", "maxCpc"]);
    }

    [Fact]
    public void Takes_a_single_column_for_keywords() =>
        ColumnGuess
            .Of(
                [
                    ["[piano tuning]"],
                    ["piano hire"],
                ],
                Pound
            )
            .Columns.Select(column => column?.Name ?? "")
            .ShouldBe(["keyword"]);

    [Fact]
    public void Uses_no_field_twice() =>
        ColumnGuess
            .Of(
                [
                    ["keyword", "keywords"],
                    ["a", "b"],
                ],
                Pound
            )
            .Columns.Count(column => column?.Name == "keyword")
            .ShouldBe(1);

    [Fact]
    public void Believes_a_person_about_the_first_row() =>
        ColumnGuess
            .Of(
                [
                    ["campaign", "keyword"],
                    ["North", "piano"],
                ],
                Pound,
                hasHeader: false
            )
            .HasHeader.ShouldBeFalse();

    // Words of the trade in each language (common practice, no source).
    [Theory]
    [InlineData("Kampagne;Anzeigengruppe;Suchbegriff;Übereinstimmungstyp;Max. Gebot;Tagesbudget")]
    [InlineData("Campagne;Groupe d'annonces;Mot clé;Type de correspondance;Enchère;Budget quotidien")]
    [InlineData("Campaña;Grupo de anuncios;Palabra clave;Tipo de concordancia;Puja;Presupuesto diario")]
    [InlineData("Campagne;Advertentiegroep;Zoekwoord;Zoektype;Bod;Dagbudget")]
    [InlineData("Campagna;Gruppo di annunci;Parola chiave;Corrispondenza;Offerta;Budget giornaliero")]
    [InlineData("Campaign name;Ad group;Keywords;Match type;Max CPC;Daily budget")]
    public void Knows_the_headers_of_the_trade_in_six_languages(string headers)
    {
        var guess = ColumnGuess.Of([headers.Split(';'), ["North", "Tuning", "piano", "exact", "1.30", "25"]], Pound);

        guess
            .Columns.Select(column => column?.Name ?? "")
            .ShouldBe(["campaign", "adGroup", "keyword", "matchType", "maxCpc", "dailyBudget"]);
        guess.Confidence.ShouldAllBe(confidence => confidence >= ColumnGuess.Sure);
    }

    [Fact]
    public void An_exact_name_wins_and_is_less_sure_where_the_cells_are_something_else()
    {
        var guess = ColumnGuess.Of(
            [
                ["keyword", "max cpc"],
                ["piano tuning", "often"],
                ["piano hire", "rarely"],
            ],
            Pound
        );

        guess.Columns[1]!.Name.ShouldBe("maxCpc");
        guess.Confidence[1].ShouldBeLessThan(ColumnGuess.Sure);
    }

    [Fact]
    public void A_slip_of_a_name_gives_way_to_cells_that_it_cannot_be_the_name_of()
    {
        // “statu” is near “status”, and the cells are addresses.
        var guess = ColumnGuess.Of(
            [
                ["keyword", "statu"],
                ["piano", "https://a.example/x"],
                ["hire", "https://a.example/y"],
            ],
            Pound
        );

        guess.Columns[1]!.Name.ShouldBe("landingPage");
    }

    [Fact]
    public void Notation_in_some_cells_makes_a_column_of_keywords_whatever_its_header_says()
    {
        var guess = ColumnGuess.Of(
            [
                ["what we bid on", "n"],
                ["[piano tuning]", "1"],
                ["piano hire", "2"],
                ["\"grand piano\"", "3"],
            ],
            Pound
        );

        guess.Columns[0]!.Name.ShouldBe("keyword");
    }

    [Fact]
    public void A_first_row_whose_words_stand_below_it_again_is_no_header()
    {
        // “phrase” and “exact” are names of columns to some; here they are match types.
        var guess = ColumnGuess.Of(
            [
                ["piano tuning", "phrase"],
                ["piano hire", "exact"],
                ["tuner", "phrase"],
            ],
            Pound
        );

        (guess.HasHeader, guess.Columns[1]!.Name).ShouldBe((false, "matchType"));
    }

    [Fact]
    public void Is_less_sure_of_what_only_recurrence_tells_than_of_what_content_says()
    {
        var guess = ColumnGuess.Of(
            [
                ["North", "piano tuning", "exact"],
                ["North", "piano hire", "phrase"],
            ],
            Pound
        );

        guess.Confidence[0].ShouldBeLessThan(ColumnGuess.Sure);
        guess.Confidence[2].ShouldBeGreaterThanOrEqualTo(ColumnGuess.Sure);
    }

    [Fact]
    public void Guesses_anew_when_it_is_told_that_the_first_row_is_no_header()
    {
        string[][] rows =
        [
            ["keyword", "exact"],
            ["piano hire", "phrase"],
        ];

        var guess = ColumnGuess.Of(rows, Pound, hasHeader: false);

        guess.Columns.Select(column => column?.Name ?? "").ShouldBe(["keyword", "matchType"]);
    }
}
