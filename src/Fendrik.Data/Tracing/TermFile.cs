using Fendrik.Core.Lists;
using Fendrik.Core.Networks;
using Fendrik.Data.Accounts;
using Fendrik.Data.Tables;

namespace Fendrik.Data.Tracing;

/// <summary>Searches in a pasted list or a file of any form that lists come in.</summary>
public static class TermFile
{
    /// <summary>Largest file taken.</summary>
    public const long LargestFile = 20L << 20;

    /// <summary>Most searches in one.</summary>
    public const int Most = 200_000;

    /// <summary>Reads them: the column whose header says so, else the first; empty cells are passed over.</summary>
    /// <exception cref="InvalidChangeException">There are none, too many, or one is too long; the row is named.</exception>
    /// <exception cref="IntakeFileException">The file is no table.</exception>
    public static async Task<IReadOnlyList<string>> ReadAsync(Stream content, CancellationToken cancellation)
    {
        await using var file = TemporaryFile.Create();
        await content.CopyToAsync(file, cancellation);
        file.Position = 0;
        var terms = new List<string>();
        var (row, column) = (0, 0);
        foreach (var cells in TableFile.Rows(file))
        {
            cancellation.ThrowIfCancellationRequested();
            row++;
            if (row == 1 && SearchColumn.In(cells) is { } head)
            {
                column = head;
                continue;
            }

            if (cells.ElementAtOrDefault(column)?.Trim() is not { Length: > 0 } term)
            {
                continue;
            }

            if (term.Length > TraceWish.LongestText)
            {
                throw new InvalidChangeException(
                    "terms",
                    $"Row {row:N0}: a search has at most {TraceWish.LongestText} characters. Shorten it or leave it out."
                );
            }

            if (terms.Count == Most)
            {
                throw new InvalidChangeException(
                    "terms",
                    $"At most {Most:N0} searches are traced at once. Split the list at row {row:N0}."
                );
            }

            terms.Add(term);
        }

        return terms.Count > 0
            ? terms
            : throw new InvalidChangeException("terms", "There is no search in it. Give one search a row.");
    }
}
