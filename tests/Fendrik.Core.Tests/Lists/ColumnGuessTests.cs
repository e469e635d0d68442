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
}
