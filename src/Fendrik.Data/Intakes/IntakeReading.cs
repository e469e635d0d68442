using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Data.Model;
using Fendrik.Data.Steps;
using Fendrik.Data.Tables;
using Npgsql;

namespace Fendrik.Data.Intakes;

/// <summary>
/// Reads the file of an intake into the staging table, row by row, and has the rows judged. Nothing of the account is
/// written. Reading again (with other columns) starts over from the kept file.
/// </summary>
public sealed class IntakeReading(NpgsqlDataSource source, WorkingCopy workingCopy)
{
    private const int SampleRows = 50;
    private const int ProgressEvery = 2_000;

    /// <summary>Most rows of one list, the empty ones counted in.</summary>
    private const int MostRows = 3_000_000;

    /// <param name="intakeId">The intake.</param>
    /// <param name="progress">Told the number of rows read so far.</param>
    /// <param name="cancellation">Stops the reading; staged rows are gone then.</param>
    /// <exception cref="IntakeFileException">The file cannot be read as a table.</exception>
    public async Task ReadAsync(long intakeId, Func<long, Task> progress, CancellationToken cancellation)
    {
        await using var reading = await source.OpenConnectionAsync(cancellation);
        await using var writing = await source.OpenConnectionAsync(cancellation);
        var intake = await IntakeRecords.LoadAsync(reading, intakeId);
        var account = await workingCopy.FactsAsync(intake.AccountId, cancellation);
        await using var transaction = await writing.BeginTransactionAsync(cancellation);
        await IntakeRecords.ClearStagingAsync(writing, intakeId);

        var file = TableFile.Open(IntakeFile.Open(reading, intakeId));
        using var rows = file.Rows.GetEnumerator();
        var sample = TakeSample(rows, out var more);
        if (sample.Length == 0)
        {
            throw new IntakeFileException("There are no rows in it. Copy the cells with their contents and try again.");
        }

        var columns = await ColumnsAsync(reading, intake, sample, account.Ground);
        var reader = new RowReader([.. columns.Names.Select(ListColumns.Find)], account.Ground, intake.Defaults);
        long number = 0;
        var used = new bool[TableFile.MostColumns];
        await using (var writer = await StagingWriter.BeginAsync(writing, intakeId, cancellation))
        {
            var skip = columns.HasHeader ? 1 : 0;
            foreach (var cells in sample.Select(cells => new ArraySegment<string>(cells)).Concat(more))
            {
                number++;
                if (number > MostRows)
                {
                    throw new IntakeFileException(
                        $"The list has more than {MostRows:N0} rows. Split it and bring in the parts one by one."
                    );
                }

                if (number > skip)
                {
                    Mark(used, cells);
                }

                if (number > skip && reader.Read(cells, (int)number) is { } row)
                {
                    await writer.WriteAsync(row, cells, cancellation);
                }

                if (number % ProgressEvery == 0)
                {
                    cancellation.ThrowIfCancellationRequested();
                    await progress(number);
                }
            }

            await writer.CompleteAsync(cancellation);
        }

        await writing.ExecuteAsync(new CommandDefinition("analyze intake_row", cancellationToken: cancellation));
        await IntakeJudgement.JudgeAsync(writing, intakeId, cancellation);
        await writing.ExecuteAsync(
            """
            update intake set state = 2, problem = null, sample = @sample::jsonb, has_header = @header, columns = @columns, remembered = @remembered, used_columns = @used,
              rows_read = @number, encoding = @encoding, judged_at_step = (select last_step_id from account where id = account_id)
            where id = @intakeId and state in (1, 2)
            """,
            new
            {
                intakeId,
                sample = System.Text.Json.JsonSerializer.Serialize(
                    sample.Select(row => row.Select(IntakeRecords.WithoutControls).ToArray())
                ),
                header = columns.HasHeader,
                remembered = columns.Remembered,
                used = Enumerable.Range(0, used.Length).Where(column => used[column]).ToArray(),
                columns = columns.Names.ToArray(),
                number,
                encoding = file.Encoding,
            }
        );
        await transaction.CommitAsync(cancellation);
        await progress(number);
    }

    private static void Mark(bool[] used, ArraySegment<string> cells)
    {
        for (var column = 0; column < cells.Count; column++)
        {
            used[column] |= cells[column].Length > 0;
        }
    }

    private sealed record Columns(bool HasHeader, IReadOnlyList<string> Names, bool Remembered);

    /// <summary>The columns as a person has set them: for this list, or for one with the same headers before; else guessed.</summary>
    private static async Task<Columns> ColumnsAsync(
        NpgsqlConnection connection,
        IntakeSettings intake,
        string[][] sample,
        ReadingGround ground
    )
    {
        var guess = ColumnGuess.Of(sample, ground, intake.ColumnsChosen ? intake.HasHeader : null);
        var columns = new Columns(guess.HasHeader, [.. guess.Columns.Select(column => column?.Name ?? "")], false);
        if (intake.ColumnsChosen)
        {
            columns = new Columns(intake.HasHeader, intake.Columns, false);
        }
        else if (await IntakeMappings.FindAsync(connection, intake.AccountId, sample[0]) is { } known)
        {
            columns = new Columns(true, known, true);
        }

        if (columns.HasHeader)
        {
            RefuseOtherCurrency(sample[0], columns.Names, ground.Currency);
        }

        return columns;
    }

    private static void RefuseOtherCurrency(string[] headers, IReadOnlyList<string> columns, Currency currency)
    {
        foreach (var (header, column) in headers.Zip(columns))
        {
            if (
                ListColumns.Find(column)?.IsAmount == true
                && ColumnGuess.CurrencyOfHeader(header) is { } other
                && other != currency.Code
            )
            {
                throw new IntakeFileException(
                    $"The column “{header}” is in {other}, the account is in {currency.Code}. Convert the amounts and write {currency.Code} in the header."
                );
            }
        }
    }

    private static string[][] TakeSample(
        IEnumerator<ArraySegment<string>> rows,
        out IEnumerable<ArraySegment<string>> more
    )
    {
        var sample = new List<string[]>(SampleRows);
        while (sample.Count < SampleRows && rows.MoveNext())
        {
            sample.Add([.. rows.Current]);
        }

        more = Rest(rows);
        return [.. sample];
    }

    private static IEnumerable<ArraySegment<string>> Rest(IEnumerator<ArraySegment<string>> rows)
    {
        while (rows.MoveNext())
        {
            yield return rows.Current;
        }
    }
}
