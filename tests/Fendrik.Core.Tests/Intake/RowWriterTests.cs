using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.Intake;

namespace Fendrik.Core.Tests.Intake;

public class RowWriterTests
{
    private static readonly Currency Pounds = Currency.Of("GBP");

    private static readonly IReadOnlyList<IntakeField> All = RowWriter.ColumnsFor(
        AdTextRoom.Headlines,
        AdTextRoom.Descriptions
    );

    private static IntakeRow There(IntakeRow row)
    {
        var cells = new string[All.Count];
        new RowWriter(All, Pounds).Write(row, cells);
        return new RowReader(All, Pounds, new IntakeDefaults()).Read(cells, 2).ShouldNotBeNull();
    }

    [Fact]
    public void A_keyword_is_read_back_as_it_was()
    {
        var row = There(
            new IntakeRow
            {
                RowNumber = 0,
                Kind = ItemKind.Keyword,
                Campaign = "=Leeds",
                AdGroup = "-Grands-",
                Text = "@home tuning",
                Match = MatchType.AllWords,
                MaxCpc = 1234.5m,
                State = ItemState.Paused,
                FinalUrl = "https://tarnandfell.example/a",
                Labels = ["a", "b c"],
            }
        );

        (row.Problem, row.Kind, row.Campaign, row.AdGroup, row.Text, row.Match).ShouldBe(
            (null, ItemKind.Keyword, "=Leeds", "-Grands-", "@home tuning", MatchType.AllWords)
        );
        (row.MaxCpc, row.State, row.FinalUrl).ShouldBe((1234.5m, ItemState.Paused, "https://tarnandfell.example/a"));
        row.Labels.ShouldBe(["a", "b c"]);
    }

    [Fact]
    public void Fifteen_headlines_and_four_descriptions_keep_their_order()
    {
        var headlines = Enumerable.Range(1, 15).Select(number => $"Headline no {number}").ToArray();
        var row = There(
            new IntakeRow
            {
                RowNumber = 0,
                Kind = ItemKind.TextAd,
                Campaign = "Leeds",
                AdGroup = "Grands",
                Headlines = headlines,
                Descriptions = ["a", "b", "c", "d"],
                DisplayPath = ["x", "y"],
                DevicePreference = Device.Tablet,
                State = ItemState.Running,
            }
        );

        row.Headlines.ShouldBe(headlines);
        row.Descriptions.ShouldBe(["a", "b", "c", "d"]);
        (row.DisplayPath[1], row.DevicePreference, row.FinalUrl).ShouldBe(("y", Device.Tablet, null));
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

        new RowWriter(All, currency).Write(
            new IntakeRow
            {
                RowNumber = 0,
                Kind = ItemKind.AdGroup,
                Campaign = "A",
                AdGroup = "B",
                AdGroupMaxCpc = 120m,
            },
            cells
        );

        cells[All.ToList().IndexOf(IntakeField.MaxCpc)].ShouldBe(written);
    }

    [Fact]
    public void Any_amount_is_read_back_in_any_currency() =>
        Gen.Select(Gen.OneOfConst("JPY", "GBP", "KWD"), Gen.Int[1, 900_000_000])
            .Sample(
                (code, units) =>
                {
                    var currency = Currency.Of(code);
                    var amount = Math.Min(units * currency.SmallestAmount, 1_000_000m);
                    var cells = new string[All.Count];
                    new RowWriter(All, currency).Write(
                        new IntakeRow
                        {
                            RowNumber = 0,
                            Kind = ItemKind.Campaign,
                            Campaign = "A",
                            DailyBudget = amount,
                            Networks = SiteKinds.Search,
                        },
                        cells
                    );
                    return new RowReader(All, currency, new IntakeDefaults()).Read(cells, 2)!.DailyBudget == amount;
                }
            );

    [Fact]
    public void Every_header_names_its_own_field()
    {
        var writer = new RowWriter(JsonItems.Columns, Pounds);

        foreach (var field in JsonItems.Columns)
        {
            ColumnGuess.FieldOfHeader(writer.Header(field)).ShouldBe(field);
        }
    }

    [Fact]
    public void Only_as_many_text_columns_are_written_as_ads_need() =>
        RowWriter
            .ColumnsFor(5, 2)
            .Count(column => IntakeFieldName.LabelOf(column).StartsWith("Headline", StringComparison.Ordinal))
            .ShouldBe(5);
}
