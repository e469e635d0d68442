using Fendrik.Core.Accounts;
using Fendrik.Core.Intake;

namespace Fendrik.Core.Tests.Intake;

public class ColumnGuessTests
{
    private static readonly Currency Pound = Currency.Of("GBP");

    [Theory]
    [InlineData("Campain", IntakeField.Campaign)] // misspelt
    [InlineData("camp.", IntakeField.Campaign)]
    [InlineData("ad-group", IntakeField.AdGroup)]
    [InlineData("Max. CPC (GBP)", IntakeField.MaxCpc)]
    [InlineData("search words", IntakeField.Keyword)]
    [InlineData("Headlnie 1", IntakeField.Headline1)] // letters swapped
    [InlineData("note", IntakeField.LeaveOut)]
    [InlineData("", IntakeField.LeaveOut)]
    public void Knows_a_column_by_its_header(string header, IntakeField field) =>
        ColumnGuess.FieldOfHeader(header).ShouldBe(field);

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
        guess.Fields.ShouldBe([IntakeField.AdGroup, IntakeField.Keyword, IntakeField.Campaign, IntakeField.LeaveOut]);
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
        guess.Fields.ShouldBe([
            IntakeField.Campaign,
            IntakeField.AdGroup,
            IntakeField.Keyword,
            IntakeField.MatchType,
            IntakeField.MaxCpc,
        ]);
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
            .Fields.ShouldBe([IntakeField.Keyword]);

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
            .Fields.Count(field => field == IntakeField.Keyword)
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
