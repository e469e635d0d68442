using System.Globalization;
using System.IO.Compression;
using System.Xml;

namespace Fendrik.Data.Tables;

/// <summary>
/// How large a workbook says that its sheets are, looked at before it is opened: a row that names itself the two thousand
/// millionth would have as many empty ones made before it.
/// </summary>
internal static class WorkbookSize
{
    /// <summary>Rows and columns that a sheet of an XLSX may have (ECMA-376; every program that writes them holds to it).</summary>
    private const int MostRows = 1_048_576;

    private const int MostColumns = 16_384;

    /// <summary>Cells of a sheet as a rectangle, the empty ones counted in.</summary>
    private const long MostCells = 100_000_000;

    private static readonly XmlReaderSettings Plain = new()
    {
        DtdProcessing = DtdProcessing.Prohibit,
        IgnoreComments = true,
        IgnoreWhitespace = true,
    };

    /// <exception cref="IntakeFileException">A sheet is larger than sheets are.</exception>
    public static void Refuse(ZipArchive archive)
    {
        foreach (var entry in archive.Entries)
        {
            if (
                entry.FullName.StartsWith("xl/worksheets/", StringComparison.OrdinalIgnoreCase)
                && entry.FullName.EndsWith(".xml", StringComparison.OrdinalIgnoreCase)
            )
            {
                using var part = entry.Open();
                using var xml = XmlReader.Create(part, Plain);
                RefuseSheet(xml);
            }
        }
    }

    private static void RefuseSheet(XmlReader xml)
    {
        long rows = 0;
        long columns = 0;
        while (xml.Read())
        {
            if (xml.NodeType != XmlNodeType.Element)
            {
                continue;
            }

            switch (xml.LocalName)
            {
                case "row":
                    rows = Math.Max(rows + 1, xml.GetAttribute("r") is { } number ? RowOf(number) : 0);
                    break;
                case "c" when xml.GetAttribute("r") is { } cell:
                    columns = Math.Max(columns, ColumnOf(cell));
                    break;
                case "dimension" when xml.GetAttribute("ref") is { } size:
                    var last = size[(size.IndexOf(':', StringComparison.Ordinal) + 1)..];
                    columns = Math.Max(columns, ColumnOf(last));
                    rows = Math.Max(rows, RowOf(last.TrimStart(Letters)));
                    break;
            }

            if (rows > MostRows || columns > MostColumns)
            {
                throw new IntakeFileException(
                    $"The workbook names a {(rows > MostRows ? $"row {rows:N0}" : $"column {columns:N0}")}; a sheet ends at row {MostRows:N0} and column {MostColumns:N0}. Save it again, or copy the cells and paste them here."
                );
            }

            if (rows * columns > MostCells)
            {
                throw new IntakeFileException(
                    $"A sheet of the workbook spans {rows:N0} rows and {columns:N0} columns, nearly all of them empty. Delete the empty rows and columns behind the list and save it again."
                );
            }
        }
    }

    private static readonly char[] Letters = [.. "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz$"];

    private static long RowOf(string number) =>
        long.TryParse(number, NumberStyles.None, CultureInfo.InvariantCulture, out var row) ? row
        : number.All(char.IsAsciiDigit) && number.Length > 0 ? long.MaxValue / MostColumns
        : 0;

    /// <summary>A is 1, Z is 26, AA is 27.</summary>
    private static long ColumnOf(string cell)
    {
        long column = 0;
        foreach (var character in cell)
        {
            if (!char.IsAsciiLetter(character))
            {
                break;
            }

            column = Math.Min((column * 26) + (char.ToUpperInvariant(character) - 'A' + 1), MostColumns + 1);
        }

        return column;
    }
}
