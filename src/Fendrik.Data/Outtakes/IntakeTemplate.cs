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
        WorkbookSheet[] sheets =
        [
            new("Items", [.. columns.Select(column => new WorkbookColumn(writer.Header(column)))], NoRows()),
            new(
                "Columns",
                [.. Titles.Select(title => new WorkbookColumn(title))],
                columns
                    .Select(column => new[] { writer.Header(column), column.Meaning, column.Example })
                    .ToAsyncEnumerable()
            ),
        ];
        return Workbook.WriteAsync(target, sheets, cancellation);
    }

    private static IAsyncEnumerable<string[]> NoRows() => AsyncEnumerable.Empty<string[]>();
}
