using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Intake;
using Fendrik.Data.Model;
using Fendrik.Data.Steps;
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

        using var rows = TableFile.Rows(IntakeFile.Open(reading, intakeId)).GetEnumerator();
        var sample = TakeSample(rows, out var more);
        if (sample.Length == 0)
        {
            throw new IntakeFileException("There are no rows in it. Copy the cells with their contents and try again.");
        }

        var guess = ColumnGuess.Of(sample, account.Currency, intake.FieldsChosen ? intake.HasHeader : null);
        var fields = intake.FieldsChosen ? [.. intake.Fields.Select(field => (IntakeField)field)] : guess.Fields;
        var reader = new RowReader(
            fields,
            account.Currency,
            new IntakeDefaults(intake.DefaultCampaign, intake.DefaultAdGroup, intake.BareMatch, intake.NegativeMatch)
        );
        long number = 0;
        await using (var writer = await StagingWriter.BeginAsync(writing, intakeId, cancellation))
        {
            var skip = (intake.FieldsChosen ? intake.HasHeader : guess.HasHeader) ? 1 : 0;
            foreach (var cells in sample.Select(cells => new ArraySegment<string>(cells)).Concat(more))
            {
                number++;
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
            update intake set state = 2, problem = null, sample = @sample::jsonb, has_header = @header, fields = @fields,
              rows_read = @number, judged_at_step = (select last_step_id from account where id = account_id)
            where id = @intakeId and state in (1, 2)
            """,
            new
            {
                intakeId,
                sample = System.Text.Json.JsonSerializer.Serialize(
                    sample.Select(row => row.Select(IntakeRecords.WithoutControls).ToArray())
                ),
                header = intake.FieldsChosen ? intake.HasHeader : guess.HasHeader,
                fields = fields.Select(field => (int)field).ToArray(),
                number,
            }
        );
        await transaction.CommitAsync(cancellation);
        await progress(number);
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
