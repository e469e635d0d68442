using Fendrik.Core.Lists;

namespace Fendrik.Data.Outtakes;

/// <summary>A workbook to fill in: a sheet with every column and nothing in it, and one that says what each is for.</summary>
public static class IntakeTemplate
{
    private static readonly string[] Titles = ["Column", "What stands in it", "For example"];

    public static Task WriteAsync(Stream target, AccountFacts account, CancellationToken cancellation)
    {
        var columns = AccountFile.Columns;
        var writer = new RowWriter(columns, account.Ground);
        var headers = columns.Select(writer.Header).ToArray();
        var sheets = new Dictionary<string, object>
        {
            // A row without anything in it: the headers alone would not be written.
            ["Items"] = Workbook.Sheet(
                headers,
                [
                    [.. headers.Select(_ => "")],
                ],
                (_, text) => text
            ),
            ["Columns"] = Workbook.Sheet(
                Titles,
                columns.Select(column => new[] { writer.Header(column), column.Meaning, column.Example }),
                (_, text) => text
            ),
        };
        return Workbook.WriteAsync(target, sheets, cancellation);
    }
}
