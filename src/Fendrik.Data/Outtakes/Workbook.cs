using System.Globalization;
using System.Text.RegularExpressions;
using Fendrik.Data.Tables;
using SpreadCheetah;
using SpreadCheetah.Styling;
using SpreadCheetah.Worksheets;

namespace Fendrik.Data.Outtakes;

/// <summary>One sheet of a workbook.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Columns">Its columns, in order.</param>
/// <param name="Rows">Cells as text, taken as they are written.</param>
internal sealed record WorkbookSheet(
    string Name,
    IReadOnlyList<WorkbookColumn> Columns,
    IAsyncEnumerable<string[]> Rows
);

/// <summary>A column of a sheet.</summary>
/// <param name="Title">What stands above it; the row of titles stays in sight.</param>
/// <param name="Holds">What its cells hold.</param>
internal sealed record WorkbookColumn(string Title, CellContent Holds = CellContent.Text);

/// <summary>What a cell holds.</summary>
internal enum CellContent
{
    Text,
    Number,
    Day,
}

/// <summary>Writes tables into a workbook. Amounts are numbers and days are dates, so that a spreadsheet can work with them.</summary>
internal static partial class Workbook
{
    /// <summary>Rows that a spreadsheet takes in one sheet, beside the headers.</summary>
    public const int RowsInSheet = 1_048_575;

    private const int NarrowestColumn = 9;
    private const int WidestColumn = 42;

    /// <summary>Room for what usually stands in a column, beside its title.</summary>
    private const int UsualText = 18;

    /// <summary>Writes the sheets one after the other.</summary>
    public static async Task WriteAsync(
        Stream target,
        IEnumerable<WorkbookSheet> sheets,
        CancellationToken cancellation
    )
    {
        // A workbook is a ZIP, whose end is written without waiting: it goes to a file first, and from there on its way.
        await using var file = TemporaryFile.Create();
        await using (
            var workbook = await Spreadsheet.CreateNewAsync(
                file,
                new SpreadCheetahOptions { DefaultDateTimeFormat = NumberFormat.Custom("yyyy-mm-dd") },
                cancellation
            )
        )
        {
            var title = workbook.AddStyle(new Style { Font = { Bold = true } });
            foreach (var sheet in sheets)
            {
                await WriteAsync(workbook, sheet, title, cancellation);
            }

            await workbook.FinishAsync(cancellation);
        }

        file.Position = 0;
        await file.CopyToAsync(target, cancellation);
    }

    private static async Task WriteAsync(
        Spreadsheet workbook,
        WorkbookSheet sheet,
        StyleId title,
        CancellationToken cancellation
    )
    {
        var options = new WorksheetOptions { FrozenRows = 1 };
        for (var column = 0; column < sheet.Columns.Count; column++)
        {
            options.Column(column + 1).Width = WidthOf(sheet.Columns[column]);
        }

        await workbook.StartWorksheetAsync(sheet.Name, options, cancellation);
        var cells = new Cell[sheet.Columns.Count];
        for (var column = 0; column < cells.Length; column++)
        {
            cells[column] = new Cell(sheet.Columns[column].Title, title);
        }

        await workbook.AddRowAsync(cells, cancellation);
        await foreach (var row in sheet.Rows.WithCancellation(cancellation))
        {
            for (var column = 0; column < cells.Length; column++)
            {
                cells[column] = CellOf(sheet.Columns[column].Holds, row[column]);
            }

            await workbook.AddRowAsync(cells, cancellation);
        }
    }

    private static Cell CellOf(CellContent holds, string text) =>
        text.Length == 0
            ? default
            : holds switch
            {
                CellContent.Number => new Cell(decimal.Parse(text.Replace(',', '.'), CultureInfo.InvariantCulture)),
                CellContent.Day => new Cell(DateTime.ParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture)),
                CellContent.Text => new Cell(EscapeSign().Replace(text, "_x005F_")),
            };

    /// <summary>
    /// An underscore that readers would take for the beginning of an escaped character is escaped itself (ISO/IEC 29500-1,
    /// 22.9.2.19, ST_Xstring).
    /// </summary>
    [GeneratedRegex("_(?=x[0-9A-Fa-f]{4}_)")]
    private static partial Regex EscapeSign();

    private static double WidthOf(WorkbookColumn column) =>
        Math.Clamp(
            Math.Max(column.Title.Length + 2, column.Holds == CellContent.Text ? UsualText : 0),
            NarrowestColumn,
            WidestColumn
        );
}
