using System.Globalization;
using Fendrik.Data.Intakes;
using Fendrik.Data.Tables;
using MiniExcelLibs;
using MiniExcelLibs.OpenXml;

namespace Fendrik.Data.Outtakes;

/// <summary>Writes tables into a workbook. Amounts are numbers and days are dates, so that a spreadsheet can work with them.</summary>
internal static class Workbook
{
    /// <summary>Rows that a spreadsheet takes in one sheet, beside the headers.</summary>
    public const int RowsInSheet = 1_048_575;

    private static readonly OpenXmlConfiguration Plain = new() { AutoFilter = false, TableStyles = TableStyles.None };

    /// <summary>Writes the sheets one after the other, their rows taken as they are written.</summary>
    public static async Task WriteAsync(
        Stream target,
        IReadOnlyDictionary<string, object> sheets,
        CancellationToken cancellation
    )
    {
        // A workbook is a ZIP whose parts are finished one by one: it goes to a file first, and from there on its way.
        await using var file = TemporaryFile.Create();

        // The library asks for rows without waiting, and a request's thread must not stand still meanwhile.
        await Task.Run(() => file.SaveAs(sheets, true, "Items", ExcelType.XLSX, Plain), cancellation);
        file.Position = 0;
        await file.CopyToAsync(target, cancellation);
    }

    /// <summary>Rows of one sheet. The one dictionary is filled anew for each row: it is written before the next is asked for.</summary>
    /// <param name="headers">Titles of the columns.</param>
    /// <param name="rows">Cells as text.</param>
    /// <param name="valueOf">What a cell holds: a number, a date or text, by column.</param>
    public static IEnumerable<IDictionary<string, object?>> Sheet(
        IReadOnlyList<string> headers,
        IEnumerable<string[]> rows,
        Func<int, string, object?> valueOf
    )
    {
        var values = headers.ToDictionary(header => header, _ => (object?)null);
        var any = false;
        foreach (var row in rows)
        {
            any = true;
            for (var column = 0; column < headers.Count; column++)
            {
                values[headers[column]] = row[column].Length == 0 ? null : valueOf(column, row[column]);
            }

            yield return values;
        }

        // The library writes headers with the first row.
        if (!any)
        {
            yield return values;
        }
    }

    public static object Number(string text) => decimal.Parse(text.Replace(',', '.'), CultureInfo.InvariantCulture);

    public static object Date(string text) => DateTime.ParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture);
}
