using System.IO.Compression;
using System.Text;
using CsCheck;
using Fendrik.Core.Lists;
using Fendrik.Data.Intakes;
using Fendrik.Data.Tables;

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

    /// <summary>Code pages by the framework's own tables, which follow the vendors' mappings published by Unicode.</summary>
    [Theory]
    [InlineData("windows-1252", "Keyword;Max CPC\nStimmung für Flügel;£1,30\n")]
    [InlineData("windows-1252", "Keyword;Max CPC\npiano tuning – café;€1,30\n")]
    [InlineData("windows-1252", "Keyword;Max CPC\naccord à Orléans;1,30 €\nréglage d’un piano à queue;2,10 €\n")]
    [InlineData(
        "koi8-r",
        "Слово;Ставка\nнастройка фортепиано недорого;1,30\nнастройка рояля на дому;2,10\nремонт пианино;0,90\n"
    )]
    [InlineData("shift_jis", "キーワード;入札\nピアノ調律;130\nグランドピアノ調律;210\n")]
    [InlineData(
        "iso-8859-2",
        "Słowo;Stawka\nstrojenie pianina Łódź;1,30\nstrojenie fortepianów;2,10\nnaprawa pianin Częstochowa;0,90\n"
    )]
    public void Reads_old_lists_in_the_encoding_of_their_time(string name, string list) =>
        string.Join('\n', Read(Old(name).GetBytes(list)).Select(row => string.Join(';', row)))
            .ShouldBe(list.TrimEnd('\n'));

    [Fact]
    public void Takes_pound_signs_before_digits_for_what_they_are()
    {
        var rows = string.Concat(Enumerable.Range(0, 200).Select(row => $"piano tuning {row};£1.{row}\n"));

        Read(Old("windows-1252").GetBytes(rows))[7].ShouldBe(["piano tuning 7", "£1.7"]);
    }

    [Fact]
    public void Reads_an_old_list_whose_first_accent_comes_late()
    {
        var rows = string.Concat(Enumerable.Range(0, 20_000).Select(row => $"piano tuning {row};1\n"));

        Read(Old("windows-1252").GetBytes(rows + "café piano;£2\n"))[^1].ShouldBe(["café piano", "£2"]);
    }

    private static Encoding Old(string name) => CodePagesEncodingProvider.Instance.GetEncoding(name)!;

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

    // A workbook by ISO/IEC 29500, put together part by part here and not by the library that reads it.
    [Fact]
    public void Reads_a_workbook_that_another_writer_wrote()
    {
        const string cells = """
            <row r="1"><c r="A1" t="inlineStr"><is><t>Keyword</t></is></c><c r="B1" t="s"><v>0</v></c></row>
            <row r="2"><c r="A2" t="inlineStr"><is><t>piano tuning</t></is></c><c r="B2"><v>1.3</v></c></row>
            <row r="3"><c r="A3" t="inlineStr"><is><t>=1+1</t></is></c><c r="B3"><f>0.1+0.2</f><v>0.30000000000000004</v></c></row>
            """;

        Read(Workbook(cells, "<si><t>Bid</t></si>"))
            .ShouldBe([
                ["Keyword", "Bid"],
                ["piano tuning", "1.3"],
                ["=1+1", "0.3"],
            ]);
    }

    internal static byte[] Workbook(string rows, string sharedStrings)
    {
        const string main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
        const string relationships = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
        const string package = "http://schemas.openxmlformats.org/package/2006";
        const string type = "application/vnd.openxmlformats-officedocument.spreadsheetml";
        var file = new MemoryStream();
        using (var archive = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true))
        {
            void Part(string name, string content)
            {
                using var writer = new StreamWriter(archive.CreateEntry(name).Open());
                writer.Write($"""<?xml version="1.0" encoding="UTF-8"?>{content}""");
            }

            Part(
                "[Content_Types].xml",
                $"""<Types xmlns="{package}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/xl/workbook.xml" ContentType="{type}.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="{type}.worksheet+xml"/><Override PartName="/xl/sharedStrings.xml" ContentType="{type}.sharedStrings+xml"/></Types>"""
            );
            Part(
                "_rels/.rels",
                $"""<Relationships xmlns="{package}/relationships"><Relationship Id="r1" Type="{relationships}/officeDocument" Target="xl/workbook.xml"/></Relationships>"""
            );
            Part(
                "xl/workbook.xml",
                $"""<workbook xmlns="{main}" xmlns:r="{relationships}"><sheets><sheet name="pianos" sheetId="1" r:id="r1"/></sheets></workbook>"""
            );
            Part(
                "xl/_rels/workbook.xml.rels",
                $"""<Relationships xmlns="{package}/relationships"><Relationship Id="r1" Type="{relationships}/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="r2" Type="{relationships}/sharedStrings" Target="sharedStrings.xml"/></Relationships>"""
            );
            Part("xl/sharedStrings.xml", $"""<sst xmlns="{main}">{sharedStrings}</sst>""");
            Part(
                "xl/worksheets/sheet1.xml",
                $"""<worksheet xmlns="{main}"><sheetData>{rows}</sheetData></worksheet>"""
            );
        }

        return file.ToArray();
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
        rows[1][0].ShouldEndWith(UnreadableCell.Mark.ToString());
        rows[2].ShouldBe(["piano", "2"]);
    }

    [Fact]
    public void Cuts_a_monstrous_quoted_cell_and_goes_on_with_the_next_line()
    {
        var rows = Read("keyword,bid\n\"" + new string('x', 1 << 20) + "\",1\npiano,2\n");

        rows[^1].ShouldBe(["piano", "2"]);
    }
}
