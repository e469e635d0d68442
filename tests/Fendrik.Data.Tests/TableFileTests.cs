using System.IO.Compression;
using System.Text;
using CsCheck;
using Fendrik.Data.Intakes;
using MiniExcelLibs;

namespace Fendrik.Data.Tests;

public class TableFileTests
{
    private static string[][] Read(byte[] file) =>
        [.. TableFile.Rows(new MemoryStream(file)).Select(row => row.ToArray())];

    private static string[][] Read(string text) => Read(Encoding.UTF8.GetBytes(text));

    // RFC 4180, section 2, rules 1, 2, 5, 6 and 7 with the RFC's own examples.
    [Theory]
    [InlineData("aaa,bbb,ccc\r\nzzz,yyy,xxx\r\n", new[] { "aaa", "bbb", "ccc" }, new[] { "zzz", "yyy", "xxx" })]
    [InlineData("aaa,bbb,ccc\r\nzzz,yyy,xxx", new[] { "aaa", "bbb", "ccc" }, new[] { "zzz", "yyy", "xxx" })]
    [InlineData("\"aaa\",\"bbb\",\"ccc\"\r\nzzz,yyy,xxx", new[] { "aaa", "bbb", "ccc" }, new[] { "zzz", "yyy", "xxx" })]
    [InlineData(
        "\"aaa\",\"b\r\nbb\",\"ccc\"\r\nzzz,yyy,xxx",
        new[] { "aaa", "b\r\nbb", "ccc" },
        new[] { "zzz", "yyy", "xxx" }
    )]
    [InlineData(
        "\"aaa\",\"b\"\"bb\",\"ccc\"\r\nzzz,yyy,xxx",
        new[] { "aaa", "b\"bb", "ccc" },
        new[] { "zzz", "yyy", "xxx" }
    )]
    public void Reads_the_examples_of_RFC_4180(string text, string[] first, string[] second) =>
        Read(text).ShouldBe([first, second]);

    [Theory]
    [InlineData("a\tb\nc\td")]
    [InlineData("a;b\nc;d")]
    [InlineData("a,b\nc,d")]
    public void Finds_the_separator(string text) =>
        Read(text)
            .ShouldBe([
                ["a", "b"],
                ["c", "d"],
            ]);

    [Theory]
    [InlineData("utf-8", true)]
    [InlineData("utf-8", false)]
    [InlineData("utf-16", true)]
    [InlineData("utf-16", false)]
    [InlineData("utf-16BE", true)]
    [InlineData("utf-16BE", false)]
    public void Reads_UTF_8_and_UTF_16_with_and_without_a_mark(string name, bool mark)
    {
        var encoding = Encoding.GetEncoding(name);
        var text = encoding.GetBytes("Keyword\tMax CPC\npiano tuning café\t£1.30\n");

        Read(mark ? [.. encoding.GetPreamble(), .. text] : text)
            .ShouldBe([
                ["Keyword", "Max CPC"],
                ["piano tuning café", "£1.30"],
            ]);
    }

    [Fact]
    public void Keeps_the_quotation_marks_of_a_phrase_on_a_clipboard() =>
        Read("words\tbid\n\"piano tuner\"\t1.10\n")
            .ShouldBe([
                ["words", "bid"],
                ["\"piano tuner\"", "1.10"],
            ]);

    [Fact]
    public void Takes_quotation_marks_as_quoting_where_a_cell_of_the_clipboard_needs_it() =>
        Read("words\tnote\n\"\"\"piano tuner\"\"\"\t\"two\nlines\"\n")
            .ShouldBe([
                ["words", "note"],
                ["\"piano tuner\"", "two\nlines"],
            ]);

    [Fact]
    public void Reads_back_whatever_an_independent_writer_writes() =>
        Gen.String[Gen.Char["ab,;\t\"\n é"], 0, 8]
            .Array[2, 4]
            .Array[2, 5]
            .Where(rows => rows.All(row => row.Length == rows[0].Length && row.Any(cell => cell.Trim().Length > 0)))
            .Sample(rows =>
            {
                // Every field quoted, as RFC 4180 allows; written here by the rule and not by the reader's library.
                var text =
                    string.Join(
                        "\r\n",
                        rows.Select(row => string.Join(',', row.Select(cell => '"' + cell.Replace("\"", "\"\"") + '"')))
                    ) + "\r\n";
                var read = Read(text);
                return read.Length == rows.Length && read.Zip(rows).All(pair => pair.First.SequenceEqual(pair.Second));
            });

    [Fact]
    public void Reads_a_workbook_that_another_library_wrote()
    {
        var file = new MemoryStream();
        file.SaveAs(new[] { new { Keyword = "piano tuning", Bid = 1.3 }, new { Keyword = "=1+1", Bid = 0.1 + 0.2 } });

        Read(file.ToArray())
            .ShouldBe([
                ["Keyword", "Bid"],
                ["piano tuning", "1.3"],
                ["=1+1", "0.3"],
            ]);
    }

    [Fact]
    public void Opens_no_zip_bomb()
    {
        var bomb = new MemoryStream();
        using (var archive = new ZipArchive(bomb, ZipArchiveMode.Create, leaveOpen: true))
        {
            using var part = archive.CreateEntry("xl/worksheets/sheet1.xml", CompressionLevel.SmallestSize).Open();
            var zeros = new byte[1 << 20];
            for (var megabyte = 0; megabyte < 120; megabyte++)
            {
                part.Write(zeros);
            }
        }

        Should.Throw<IntakeFileException>(() => Read(bomb.ToArray())).Message.ShouldContain("unfolds to far more");
    }

    [Fact]
    public void Says_that_binary_junk_is_no_table()
    {
        var junk = new byte[10_000];
        new Random(1).NextBytes(junk);

        Should.Throw<IntakeFileException>(() => Read(junk)).Message.ShouldContain("not a table of text");
    }

    [Fact]
    public void Says_that_a_broken_workbook_cannot_be_read() =>
        Should
            .Throw<IntakeFileException>(() => Read([.. "PK\u0003\u0004"u8, .. new byte[500]]))
            .Message.ShouldContain("cannot be read");

    [Fact]
    public void Cuts_a_monstrous_line_and_goes_on_with_the_next()
    {
        var rows = Read("keyword,bid\n" + new string('x', 50 << 20) + ",1\npiano,2\n");

        rows.Length.ShouldBe(3);
        rows[1][0].ShouldEndWith(TableFile.CutMark.ToString());
        rows[2].ShouldBe(["piano", "2"]);
    }

    [Fact]
    public void Cuts_a_monstrous_quoted_cell_and_goes_on_with_the_next_line()
    {
        var rows = Read("keyword,bid\n\"" + new string('x', 1 << 20) + "\",1\npiano,2\n");

        rows[^1].ShouldBe(["piano", "2"]);
    }
}
