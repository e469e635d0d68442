using System.Data;
using System.Text;
using System.Text.Json;
using CsvHelper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Outtakes;

/// <summary>
/// Writes the working copy, or a part of it, into a file from which an intake makes the same items again. It is one view
/// of the account, however long the writing takes and whatever changes meanwhile.
/// </summary>
public sealed class OuttakeFile(NpgsqlDataSource source, WorkingCopy workingCopy)
{
    private const int FlushEvery = 2_000;

    /// <summary>Writes the file to a stream; memory does not grow with it.</summary>
    /// <exception cref="InvalidChangeException">Nothing matches what was asked for.</exception>
    public async Task WriteAsync(int accountId, OuttakeWish wish, Stream target, CancellationToken cancellation)
    {
        var account = await workingCopy.FactsAsync(accountId, cancellation);
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(
            IsolationLevel.RepeatableRead,
            cancellation
        );
        if (!wish.IsWhole)
        {
            await ItemSelection.TakeAsync(
                connection,
                accountId,
                new ItemSet(wish.Items ?? [], wish.Where),
                cancellation
            );
        }

        var items = new AccountItems(connection, accountId, !wish.IsWhole, cancellation);
        await (
            wish.Form switch
            {
                OuttakeForm.Json => JsonAsync(items, account, target, cancellation),
                OuttakeForm.Xlsx => XlsxAsync(items, account, target, cancellation),
                _ => CsvAsync(items, account, target, cancellation),
            }
        );
    }

    private static async Task CsvAsync(
        AccountItems items,
        AccountFacts account,
        Stream target,
        CancellationToken cancellation
    )
    {
        var writer = await WriterAsync(items, account);
        await target.WriteAsync(Encoding.UTF8.Preamble.ToArray(), cancellation);
        await using var csv = CsvWriter.Create(target, new CsvWriterOptions(), leaveOpen: true);
        await csv.WriteRecordAsync(Headers(writer), cancellation);
        var cells = new string[writer.Columns.Count];
        await foreach (var row in items.RowsAsync())
        {
            writer.Write(row, cells);
            await csv.WriteRecordAsync(cells, cancellation);
        }
    }

    private static async Task XlsxAsync(
        AccountItems items,
        AccountFacts account,
        Stream target,
        CancellationToken cancellation
    )
    {
        var writer = await WriterAsync(items, account);
        var count = await items.CountAsync();
        await using var rows = items.RowsAsync().GetAsyncEnumerator(cancellation);
        var columns = writer
            .Columns.Select(column => new WorkbookColumn(writer.Header(column), HeldBy(column)))
            .ToArray();
        var sheets = new List<WorkbookSheet>();
        for (long first = 0; first == 0 || first < count; first += Workbook.RowsInSheet)
        {
            sheets.Add(
                new WorkbookSheet(
                    first == 0 ? "Items" : $"Items {first / Workbook.RowsInSheet + 1}",
                    columns,
                    CellsAsync(rows, writer, Workbook.RowsInSheet)
                )
            );
        }

        await Workbook.WriteAsync(target, sheets, cancellation);
    }

    /// <summary>The next rows. The one array is filled anew for each: it is written before the next is asked for.</summary>
    private static async IAsyncEnumerable<string[]> CellsAsync(
        IAsyncEnumerator<ListRow> rows,
        RowWriter writer,
        int most
    )
    {
        var cells = new string[writer.Columns.Count];
        for (var row = 0; row < most && await rows.MoveNextAsync(); row++)
        {
            writer.Write(rows.Current, cells);
            yield return cells;
        }
    }

    private static CellContent HeldBy(ListColumn column) =>
        column.IsAmount ? CellContent.Number
        : column.IsDay ? CellContent.Day
        : CellContent.Text;

    private static async Task JsonAsync(
        AccountItems items,
        AccountFacts account,
        Stream target,
        CancellationToken cancellation
    )
    {
        await using var json = new Utf8JsonWriter(target, new JsonWriterOptions { SkipValidation = true });
        json.WriteStartObject();
        json.WriteString("format", AccountFile.Format);
        json.WriteNumber("version", AccountFile.Version);
        json.WriteString("account", account.Name);
        json.WriteString("currency", account.Currency.Code);
        json.WriteString("timeZone", account.TimeZone);
        json.WriteStartArray("items");
        var number = 0;
        await foreach (var row in items.RowsAsync())
        {
            AccountFile.Write(json, row);
            if (++number % FlushEvery == 0)
            {
                await json.FlushAsync(cancellation);
            }
        }

        json.WriteEndArray();
        json.WriteEndObject();
        await json.FlushAsync(cancellation);
    }

    private static async Task<RowWriter> WriterAsync(AccountItems items, AccountFacts account)
    {
        return new RowWriter(RowWriter.ColumnsFor(await items.PartsAsync()), account.Ground);
    }

    private static string[] Headers(RowWriter writer) => [.. writer.Columns.Select(writer.Header)];
}
