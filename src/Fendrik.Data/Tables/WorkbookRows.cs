using System.IO.Compression;
using MiniExcelLibs;

namespace Fendrik.Data.Tables;

/// <summary>Rows of a workbook: of its first sheet that has any, and of those that go on with it under the same headers.</summary>
internal static class WorkbookRows
{
    /// <summary>Beyond this, a number is no amount, and is left to its field to refuse.</summary>
    private const double MostOfANumber = 1e15;

    /// <summary>Most that an XLSX may unfold to.</summary>
    public const long LargestUnfolded = 1L << 30;

    public static IEnumerable<ArraySegment<string>> Read(Stream content)
    {
        // A workbook is read from its end, so it needs a file that can be moved about in.
        using var file = TemporaryFile.Create();
        content.CopyTo(file);
        RefuseBomb(file);
        file.Position = 0;

        // A list of more rows than a sheet holds goes on in the next one, under the same headers; other sheets are not the list.
        string[]? header = null;
        foreach (var sheet in SheetNames(file))
        {
            var first = true;
            foreach (var row in Sheet(file, sheet))
            {
                if (first && header is not null)
                {
                    if (!row.SequenceEqual(header))
                    {
                        break;
                    }

                    first = false;
                    continue;
                }

                first = false;
                header ??= [.. row];
                yield return row;
            }
        }
    }

    private static List<string> SheetNames(FileStream file)
    {
        try
        {
            return file.GetSheetNames();
        }
        catch (Exception error) when (error is not OperationCanceledException)
        {
            throw Unreadable();
        }
    }

    private static IEnumerable<ArraySegment<string>> Sheet(FileStream file, string sheet)
    {
        file.Position = 0;
        IEnumerator<dynamic> rows;
        try
        {
            rows = file.Query(useHeaderRow: false, sheetName: sheet, excelType: ExcelType.XLSX).GetEnumerator();
        }
        catch (Exception error) when (error is not IntakeFileException)
        {
            throw Unreadable();
        }

        using (rows)
        {
            while (true)
            {
                try
                {
                    if (!rows.MoveNext())
                    {
                        yield break;
                    }
                }
                catch (Exception error) when (error is not OperationCanceledException)
                {
                    throw Unreadable();
                }

                var cells = ((IDictionary<string, object?>)rows.Current)
                    .Values.Take(TableFile.MostColumns)
                    .Select(CellText)
                    .ToArray();
                yield return new ArraySegment<string>(cells);
            }
        }
    }

    private static IntakeFileException Unreadable() =>
        new("The workbook cannot be read. Save it again as XLSX, or copy the cells and paste them here.");

    private static string CellText(object? value) =>
        value switch
        {
            null => "",
            DateTime date => date.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture),
            double number when Math.Abs(number) < MostOfANumber => Core.Lists.AccountFile.PlainNumber(
                (decimal)Math.Round(number, 10)
            ),
            IFormattable number => number.ToString(null, System.Globalization.CultureInfo.InvariantCulture),
            _ => value.ToString() ?? "",
        };

    /// <summary>What a ZIP says of itself can lie, so it is unfolded once and counted.</summary>
    private static void RefuseBomb(FileStream file)
    {
        try
        {
            using var archive = new ZipArchive(file, ZipArchiveMode.Read, leaveOpen: true);
            if (archive.Entries.Count > 10_000)
            {
                throw new IntakeFileException("The workbook has more than 10,000 parts and is not opened.");
            }

            long unfolded = 0;
            var buffer = new byte[1 << 16];
            foreach (var entry in archive.Entries)
            {
                using var part = entry.Open();
                int length;
                while ((length = part.Read(buffer)) > 0)
                {
                    unfolded += length;
                    if (unfolded > LargestUnfolded || (unfolded > 50 << 20 && unfolded > file.Length * 200))
                    {
                        throw new IntakeFileException(
                            "The workbook unfolds to far more than its size and is not opened."
                        );
                    }
                }
            }

            WorkbookSize.Refuse(archive);
        }
        catch (Exception error) when (error is InvalidDataException or System.Xml.XmlException)
        {
            throw Unreadable();
        }
    }
}
