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
        var filled = new long[TableFile.MostColumns];
        var mends = await IntakeMends.LoadAsync(reading, intakeId);
        await using (var writer = await StagingWriter.BeginAsync(writing, intakeId, cancellation))
        {
            var skip = columns.HasHeader ? 1 : 0;
            foreach (var found in sample.Select(cells => new ArraySegment<string>(cells)).Concat(more))
            {
                number++;
                var cells = mends.TryGetValue((int)number, out var mended) ? IntakeMends.Apply(found, mended) : found;
                if (number > MostRows)
                {
                    throw new IntakeFileException(
                        $"The list has more than {MostRows:N0} rows. Split it and bring in the parts one by one."
                    );
                }

                if (number > skip)
                {
                    Count(filled, cells);
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

        if (number > Staging.WorthAnalysing)
        {
            await writing.ExecuteAsync(new CommandDefinition("analyze intake_row", cancellationToken: cancellation));
        }

        await IntakeJudgement.JudgeAsync(writing, intakeId, cancellation);
        await writing.ExecuteAsync(
            """
            update intake set state = 2, problem = null, sample = @sample::jsonb, has_header = @header, columns = @columns, remembered = @remembered, used_columns = @used, confidence = @confidence, filled_cells = @filled,
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
                used = Enumerable.Range(0, filled.Length).Where(column => filled[column] > 0).ToArray(),
                confidence = columns.Confidence.ToArray(),
                filled = filled[..columns.Names.Count],
                columns = columns.Names.ToArray(),
                number,
                encoding = file.Encoding,
            }
        );
        await transaction.CommitAsync(cancellation);
        await progress(number);
    }

    private static void Count(long[] filled, ArraySegment<string> cells)
    {
        for (var column = 0; column < cells.Count; column++)
        {
            filled[column] += cells[column].Length > 0 ? 1 : 0;
        }
    }

    private sealed record Columns(
        bool HasHeader,
        IReadOnlyList<string> Names,
        IReadOnlyList<int> Confidence,
        bool Remembered
    );

    /// <summary>The columns as a person has set them: for this list, or for one with the same headers before; else guessed.</summary>
    private static async Task<Columns> ColumnsAsync(
        NpgsqlConnection connection,
        IntakeSettings intake,
        string[][] sample,
        ReadingGround ground
    )
    {
        // Told only whether the first row is a header, the columns are guessed anew.
        var toldOfHeader = intake.ColumnsChosen && intake.Columns.Length == 0;
        var guess = ColumnGuess.Of(sample, ground, intake.ColumnsChosen ? intake.HasHeader : null);
        var columns = new Columns(
            guess.HasHeader,
            [.. guess.Columns.Select(column => column?.Name ?? "")],
            guess.Confidence,
            false
        );
        if (intake.ColumnsChosen && !toldOfHeader)
        {
            columns = new Columns(intake.HasHeader, intake.Columns, Certain(intake.Columns), false);
        }
        else if (!toldOfHeader && await IntakeMappings.FindAsync(connection, intake.AccountId, sample[0]) is { } known)
        {
            columns = new Columns(true, known, Certain(known), true);
        }

        if (columns.HasHeader)
        {
            RefuseOtherCurrency(sample[0], columns.Names, ground.Currency);
        }

        return columns;
    }

    /// <summary>What a person has said is certain.</summary>
    private static int[] Certain(IReadOnlyList<string> columns) =>
        [.. columns.Select(name => name.Length > 0 ? 100 : 0)];

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
