using Fendrik.Core.Tracking.Books;
using Fendrik.Data.Accounts;
using Fendrik.Data.Tables;

namespace Fendrik.Data.Conversions;

/// <summary>Own books in a pasted list or a file of any form that lists come in.</summary>
public static class BookFile
{
    /// <summary>Most lines that are brought in at once.</summary>
    public const int MostLines = 20_000;

    /// <summary>Reads them; rows that cannot be taken are told, and the others stand. A list is of lines, or of totals.</summary>
    /// <exception cref="InvalidChangeException">A needed column is missing, there is no line, or there are too many.</exception>
    /// <exception cref="IntakeFileException">The file is no table.</exception>
    public static async Task<(List<BookLine> Lines, List<BookTotal> Totals, List<BookProblem> Problems)> ReadAsync(
        Stream content,
        BookGround ground,
        CancellationToken cancellation
    )
    {
        await using var file = TemporaryFile.Create();
        await content.CopyToAsync(file, cancellation);
        file.Position = 0;
        var (lines, totals, problems) = (new List<BookLine>(), new List<BookTotal>(), new List<BookProblem>());
        BookReader? reader = null;
        BookTotalReader? adding = null;
        var row = 0;
        foreach (var cells in TableFile.Rows(file))
        {
            cancellation.ThrowIfCancellationRequested();
            row++;
            if (reader is null && adding is null)
            {
                reader = BookReader.Begin([.. cells], ground, out var missing);
                adding = reader is null ? BookTotalReader.Begin([.. cells], ground) : null;
                if (reader is null && adding is null)
                {
                    throw new InvalidChangeException("books", missing!);
                }

                continue;
            }

            BookProblem? problem = null;
            if (reader?.Read(row, cells, out problem) is { } line)
            {
                lines.Add(line);
            }
            else if (adding?.Read(row, cells, out problem) is { } total)
            {
                totals.Add(total);
            }
            else if (problem is not null)
            {
                problems.Add(problem);
            }

            if (lines.Count + totals.Count > MostLines)
            {
                throw new InvalidChangeException(
                    "books",
                    $"At most {MostLines:N0} lines are brought in at once. Split the list at row {row:N0}."
                );
            }
        }

        return lines.Count + totals.Count + problems.Count > 0
            ? (lines, totals, problems)
            : throw new InvalidChangeException("books", "There is no line in it behind the headers.");
    }
}
