using Dapper;
using Fendrik.Core.Lists;
using Fendrik.Data.Accounts;
using Npgsql;

namespace Fendrik.Data.Intakes;

/// <summary>A cell of a list that a person wrote anew.</summary>
/// <param name="Place">The column, counted from 0.</param>
/// <param name="Text">What stands in it now.</param>
public sealed record MendedCell(int Place, string Text);

/// <summary>
/// Cells mended in the list itself: kept beside the file, so that they hold whenever it is read again, and judged at once.
/// </summary>
internal static class IntakeMends
{
    private const int LongestText = 4_000;

    /// <summary>All that was mended, by row.</summary>
    public static async Task<IReadOnlyDictionary<int, IReadOnlyList<MendedCell>>> LoadAsync(
        NpgsqlConnection connection,
        long intakeId
    ) =>
        (
            await connection.QueryAsync<(int Row, int Place, string Text)>(
                "select row_number, place, text from intake_mend where intake_id = @intakeId",
                new { intakeId }
            )
        )
            .GroupBy(mend => mend.Row)
            .ToDictionary(
                row => row.Key,
                row => (IReadOnlyList<MendedCell>)[.. row.Select(mend => new MendedCell(mend.Place, mend.Text))]
            );

    /// <summary>The cells of a row with those that were mended.</summary>
    public static ArraySegment<string> Apply(ArraySegment<string> cells, IReadOnlyList<MendedCell> mends)
    {
        var mended = new string[Math.Max(cells.Count, mends.Max(mend => mend.Place) + 1)];
        Array.Fill(mended, "");
        cells.CopyTo(mended);
        foreach (var mend in mends)
        {
            mended[mend.Place] = mend.Text;
        }

        return mended;
    }

    /// <summary>Mends a cell and reads its row anew, as if the file had it so.</summary>
    /// <exception cref="InvalidChangeException">There is no such cell, or it cannot be mended here.</exception>
    public static async Task MendAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        long intakeId,
        int rowNumber,
        MendedCell mend,
        CancellationToken cancellation
    )
    {
        var settings = await IntakeRecords.LoadAsync(connection, intakeId);
        if (mend.Place < 0 || mend.Place >= settings.Columns.Length || mend.Text.Length > LongestText)
        {
            throw new InvalidChangeException(
                "text",
                mend.Text.Length > LongestText ? "The text is too long for a cell." : "There is no such column."
            );
        }

        var cells = await connection.QuerySingleOrDefaultAsync<string[]>(
            new CommandDefinition(
                "select cells from intake_row where intake_id = @intakeId and row_number = @rowNumber",
                new { intakeId, rowNumber },
                cancellationToken: cancellation
            )
        );
        if (cells is null)
        {
            throw new InvalidChangeException(
                "row",
                "This row is not there any more. Press “Read again” and look once more."
            );
        }

        if (cells.Where((_, place) => place != mend.Place).Any(StagingWriter.IsShortened))
        {
            throw new InvalidChangeException(
                "row",
                "Another cell of this row is too long to be kept here whole. Mend the row in the file."
            );
        }

        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                insert into intake_mend (intake_id, row_number, place, text) values (@intakeId, @rowNumber, @Place, @text)
                on conflict (intake_id, row_number, place) do update set text = excluded.text;
                delete from intake_row where intake_id = @intakeId and row_number = @rowNumber
                """,
                new
                {
                    intakeId,
                    rowNumber,
                    mend.Place,
                    text = IntakeRecords.WithoutControls(mend.Text),
                },
                cancellationToken: cancellation
            )
        );
        var mended = Apply(cells, [mend]);
        var reader = new RowReader([.. settings.Columns.Select(ListColumns.Find)], account.Ground, settings.Defaults);
        if (reader.Read(mended, rowNumber) is { } row)
        {
            await using var writer = await StagingWriter.BeginAsync(connection, intakeId, cancellation);
            await writer.WriteAsync(row, mended, cancellation);
            await writer.CompleteAsync(cancellation);
        }

        await IntakeJudgement.JudgeAsync(connection, intakeId, cancellation);
    }
}
