using System.Text;
using CsCheck;
using Fendrik.Core.Lists;
using Fendrik.Data.Intakes;
using Fendrik.Data.Tables;

namespace Fendrik.Data.Tests;

/// <summary>JSON files as rows: what is in the form is read, all else is said in a sentence.</summary>
public class JsonTableTests
{
    private const string Keyword =
        """{"item":"keyword","campaign":"York","adGroup":"Tuning","text":"piano tuning","matchType":"exact","maxCpc":1.3}""";

    private static string[][] Read(string json) =>
        [.. TableFile.Rows(new MemoryStream(Encoding.UTF8.GetBytes(json))).Select(row => row.ToArray())];

    private static string File(string items, string before = "") =>
        $$"""{"format":"fendrik-account","version":1,{{before}}"items":[{{items}}]}""";

    private static string Cell(string[] row, string column) =>
        row[AccountFile.Columns.ToList().FindIndex(each => each.Name == column)];

    [Fact]
    public void Gives_a_row_of_headers_and_a_row_for_each_item()
    {
        var rows = Read(File($"{Keyword},{Keyword}", "\"currency\":\"GBP\","));

        rows.Length.ShouldBe(3);
        Cell(rows[0], "maxCpc").ShouldBe("Max CPC (GBP)");
        Cell(rows[1], "keyword").ShouldBe("piano tuning");
        Cell(rows[2], "maxCpc").ShouldBe("1.3");
    }

    [Fact]
    public void Takes_white_space_a_mark_and_properties_of_others_around_the_items() =>
        Read(
            "\ufeff \n{ \"format\": \"fendrik-account\", \"note\": {\"a\": [1, 2]}, \"items\": [ "
                + Keyword
                + " ], \"made\": 7 }"
        )
            .Length.ShouldBe(2);

    [Fact]
    public void Reads_a_negative_s_words_into_the_column_of_negatives() =>
        Cell(
                Read(File("""{"text":"free","item":"negative keyword","campaign":"York","matchType":"phrase"}"""))[1],
                "negativeKeyword"
            )
            .ShouldBe("free");

    [Theory]
    [InlineData("""{"format":"else","items":[]}""", "Its “format” is not")]
    [InlineData("""{"format":"fendrik-account","version":2,"items":[]}""", "another version")]
    [InlineData("""{"format":"fendrik-account","version":"one","items":[]}""", "another version")]
    [InlineData("""{"currency":5,"items":[]}""", "“currency” is no text")]
    [InlineData("""{"items":[],"currency":"JPY"}""", "“currency” has to stand before “items”")]
    [InlineData("""{"format":"fendrik-account"}""", "It has no “items”")]
    [InlineData("""{"items":{}}""", "does not begin as the form does")]
    [InlineData("""{"items":[{"item":"keyword"}""", "breaks off")]
    [InlineData("""{"items":[{"item":"keyw""", "breaks off")]
    [InlineData("""{"items":[],"items":[]}""", "“items” twice")]
    [InlineData("""{"currency":"GBP","currency":"JPY","items":[]}""", "“currency” stands in it twice")]
    [InlineData("""{"items":[]} and more""", "something behind its end")]
    [InlineData("""{"items":[]}{"items":[]}""", "something behind its end")]
    [InlineData("""{"items":[{"item":"keyword"},{"item":""", "breaks off after item 1")]
    [InlineData("""{"items":[{"labels":[[[[[[[[[1]]]]]]]]]}]}""", "is no JSON")]
    public void Says_what_is_not_in_the_form(string json, string problem) =>
        Should.Throw<IntakeFileException>(() => Read(json)).Message.ShouldContain(problem);

    /// <summary>One item that is not in the form is a refused row; the others go on.</summary>
    [Theory]
    [InlineData("7", "item", "is no object")]
    [InlineData("""{"colour":"red"}""", "item", "has “colour”, which is no field of the form")]
    [InlineData("""{"maxCpc":[1]}""", "maxCpc", "“maxCpc” that is neither a text nor a number")]
    [InlineData("""{"maxCpc":1e400}""", "maxCpc", "more than can be kept")]
    [InlineData("""{"headlines":"one"}""", "headlines.1", "“headlines” that are no list of texts")]
    [InlineData(
        """{"headlines":["1","2","3","4","5","6","7","8","9","10","11","12","13","14","15","16"]}""",
        "headlines.1",
        "has 16 headlines; there is room for 14"
    )]
    [InlineData("""{"labels":["a;b"]}""", "labels", "no list of texts without “;”")]
    [InlineData("""{"campaign":"York","campaign":"Leeds"}""", "campaign", "has “campaign” twice")]
    [InlineData("""{"item":"keyword","text":"half \ud83d"}""", "keyword", "half a character")]
    [InlineData("""{"item":"keyword","half \ud83d":"text"}""", "item", "half a character")]
    public void Refuses_an_item_that_is_not_in_the_form_and_reads_the_others(string item, string column, string problem)
    {
        var rows = Read(File($"{item},{Keyword}"));

        UnreadableCell.ReasonOf(Cell(rows[1], column)).ShouldNotBeNull().ShouldContain(problem);
        Cell(rows[2], "keyword").ShouldBe("piano tuning");
    }

    [Fact]
    public void Holds_no_item_of_more_than_a_million_characters() =>
        Should
            .Throw<IntakeFileException>(() => Read(File("{\"campaign\":\"" + new string('x', 3 << 20) + "\"}")))
            .Message.ShouldContain("longer than a million characters");

    [Fact]
    public void Never_throws_anything_else_at_whatever_is_cut_or_changed()
    {
        var whole = File($"{Keyword},{Keyword}", "\"currency\":\"GBP\",\"timeZone\":\"Europe/London\",");
        Gen.Select(Gen.Int[1, whole.Length - 1], Gen.Char["{}[]\",:\\0a"])
            .Sample(
                (at, put) =>
                {
                    foreach (var broken in new[] { whole[..at], whole[..at] + put + whole[(at + 1)..] })
                    {
                        try
                        {
                            Read(broken);
                        }
                        catch (IntakeFileException)
                        {
                            // Said in a sentence.
                        }
                    }
                }
            );
    }
}
