using System.Buffers;
using System.Text;
using Sylvan.Data.Csv;
using UtfUnknown;

namespace Fendrik.Data.Tables;

/// <summary>
/// Rows of a pasted list or a file, whatever its form: CSV or TSV (RFC 4180; comma, semicolon or tab; in any usual encoding),
/// XLSX or JSON. Rows are streamed; memory does not grow with the file.
/// </summary>
public static class TableFile
{
    /// <summary>Longest line of text; what is longer is cut and marked so that its row is refused.</summary>
    public const int LongestLine = 256 * 1024;

    /// <summary>Most columns that are looked at.</summary>
    public const int MostColumns = 200;

    private const int HeadLength = 64 * 1024;
    private const float SureOfForeign = 0.7f;
    private const float SureOfWestern = 0.8f;

    /// <summary>A file that is being read.</summary>
    /// <param name="Rows">Its rows. The arrays are the reader's own and may be reused: copy what is kept.</param>
    /// <param name="Encoding">Name of the encoding where the file is in another than UTF-8.</param>
    public sealed record Content(IEnumerable<ArraySegment<string>> Rows, string? Encoding);

    /// <summary>Reads all rows. The arrays are the reader's own and may be reused: copy what is kept.</summary>
    /// <exception cref="IntakeFileException">The file is no table, or unfolds to more than it may.</exception>
    public static IEnumerable<ArraySegment<string>> Rows(Stream content) => Open(content).Rows;

    /// <summary>Begins to read a file.</summary>
    /// <exception cref="IntakeFileException">The file is no table; or, while rows are read, unfolds to more than it may.</exception>
    public static Content Open(Stream content)
    {
        var head = new byte[HeadLength];
        var filled = content.ReadAtLeast(head, HeadLength, throwOnEndOfStream: false);
        var whole = new JoinedStream(head.AsMemory(0, filled), content);
        var start = head.AsSpan(0, filled);
        if (start.StartsWith("PK\u0003\u0004"u8))
        {
            return new Content(WorkbookRows.Read(whole), null);
        }

        if (IsJson(start))
        {
            return new Content(JsonTable.Rows(WithoutMark(whole, start)), null);
        }

        var encoding = EncodingOf(start);
        return new Content(Text(whole, start, encoding), NameOf(encoding));
    }

    /// <summary>A list may well begin with a brace, but not with one that a property's name follows.</summary>
    private static bool IsJson(ReadOnlySpan<byte> start)
    {
        start = start.StartsWith(Utf8Mark) ? start[3..] : start;
        start = start.TrimStart(" \t\r\n"u8);
        return start.Length > 1 && start[0] == '{' && start[1..].TrimStart(" \t\r\n"u8) is [(byte)'"', ..];
    }

    private static ReadOnlySpan<byte> Utf8Mark => [0xef, 0xbb, 0xbf];

    private static Stream WithoutMark(Stream content, ReadOnlySpan<byte> start)
    {
        if (start.StartsWith(Utf8Mark))
        {
            content.ReadExactly(new byte[Utf8Mark.Length]);
        }

        return content;
    }

    /// <summary>As people know it.</summary>
    private static string? NameOf(Encoding encoding) =>
        encoding.CodePage == Encoding.UTF8.CodePage ? null
        : encoding.CodePage == Encoding.Unicode.CodePage || encoding.CodePage == Encoding.BigEndianUnicode.CodePage
            ? "UTF-16"
        : encoding.CodePage == WesternFallback.Western.CodePage ? "Windows-1252 (Latin-1)"
        : encoding.WebName;

    private static IEnumerable<ArraySegment<string>> Text(Stream content, ReadOnlySpan<byte> head, Encoding encoding)
    {
        var start = encoding.GetString(head).TrimStart('\ufeff');
        var reader = new LineLimitingReader(
            new StreamReader(content, encoding, detectEncodingFromByteOrderMarks: true, bufferSize: 1 << 16)
        );
        var delimiter = DelimiterOf(start);

        // On a clipboard, "piano tuner" in a cell is as often the notation for a phrase as it is a quoted cell.
        return Delimited(reader, delimiter, quotesAreNotation: delimiter == '\t' && !start.StartsWith('"'));
    }

    private static IEnumerable<ArraySegment<string>> Delimited(
        TextReader reader,
        char delimiter,
        bool quotesAreNotation
    )
    {
        using var csv = CsvDataReader.Create(
            reader,
            new CsvDataReaderOptions
            {
                HasHeaders = false,
                Delimiter = delimiter,
                BufferSize = 1 << 16,
                MaxBufferSize = 8 * LongestLine,
                CsvStyle = CsvStyle.Standard,
            }
        );
        var cells = new string[MostColumns];
        while (Next(csv))
        {
            var count = Math.Min(csv.RowFieldCount, MostColumns);
            for (var column = 0; column < count; column++)
            {
                cells[column] = csv.GetString(column);
            }

            if (quotesAreNotation)
            {
                RestoreNotation(csv.GetRawRecordSpan(), cells.AsSpan(0, count));
            }

            yield return new ArraySegment<string>(cells, 0, count);
        }
    }

    /// <summary>Gives cells back the quotation marks that no rule of quoting needed: nothing inside had to be quoted.</summary>
    private static void RestoreNotation(ReadOnlySpan<char> record, Span<string> cells)
    {
        record = record.TrimEnd("\r\n");
        if (!record.Contains('"') || record.ContainsAny('\r', '\n') || record.Count('\t') != cells.Length - 1)
        {
            return;
        }

        var column = 0;
        foreach (var range in record.Split('\t'))
        {
            var raw = record[range];
            if (raw.Length > 2 && raw[0] == '"' && raw[^1] == '"' && !raw[1..^1].Contains('"'))
            {
                cells[column] = raw.ToString();
            }

            column++;
        }
    }

    private static bool Next(CsvDataReader csv)
    {
        try
        {
            return csv.Read();
        }
        catch (CsvRecordTooLargeException)
        {
            throw new IntakeFileException(
                $"Row {csv.RowNumber + 1:N0} never ends: a quotation mark is opened and not closed. Close it and try again."
            );
        }
        catch (CsvFormatException)
        {
            throw new IntakeFileException(
                $"Row {csv.RowNumber + 1:N0} has text behind a closing quotation mark. Double the quotation marks inside the cell."
            );
        }
    }

    private static Encoding EncodingOf(ReadOnlySpan<byte> head)
    {
        if (head.StartsWith((ReadOnlySpan<byte>)[0xff, 0xfe]))
        {
            return Encoding.Unicode;
        }

        if (head.StartsWith((ReadOnlySpan<byte>)[0xfe, 0xff]))
        {
            return Encoding.BigEndianUnicode;
        }

        // Without a mark, Latin text in UTF-16 shows by zeros in every second byte.
        var zeros = (Even: 0, Odd: 0);
        for (var at = 0; at < head.Length; at++)
        {
            if (head[at] == 0)
            {
                zeros = at % 2 == 0 ? (zeros.Even + 1, zeros.Odd) : (zeros.Even, zeros.Odd + 1);
            }
        }

        if (zeros.Odd > head.Length / 4 && zeros.Even < head.Length / 50)
        {
            return Encoding.Unicode;
        }

        if (zeros.Even > head.Length / 4 && zeros.Odd < head.Length / 50)
        {
            return Encoding.BigEndianUnicode;
        }

        var controls = 0;
        foreach (var value in head)
        {
            controls += value < 32 && value is not (9 or 10 or 13) ? 1 : 0;
        }

        return controls > Math.Max(8, head.Length / 100)
            ? throw new IntakeFileException(
                "This is not a table of text. Bring in a CSV, TSV or XLSX file, or paste the cells."
            )
            : EncodingOfBytes(head);
    }

    /// <summary>
    /// UTF-8 when the bytes can be that. If not, what the detector is sure of. Lists in a western language have few letters that
    /// it could go by, and a pound sign before a digit looks like Chinese to it: those are Windows-1252 as a rule.
    /// </summary>
    private static Encoding EncodingOfBytes(ReadOnlySpan<byte> head)
    {
        // The head may end in the middle of a character.
        var status = Utf8Status(head);
        if (status is OperationStatus.Done or OperationStatus.NeedMoreData)
        {
            return WesternFallback.Utf8;
        }

        var foreign = CountAboveAscii(head) > head.Length / 5;
        var detected = CharsetDetector.DetectFromBytes(head.ToArray()).Detected;
        return
            detected is not null
            && detected.Confidence >= (foreign ? SureOfForeign : SureOfWestern)
            && CodePagesEncodingProvider.Instance.GetEncoding(detected.EncodingName) is { } encoding
            && (foreign || encoding.IsSingleByte)
            ? encoding
            : WesternFallback.Western;
    }

    private static int CountAboveAscii(ReadOnlySpan<byte> bytes)
    {
        var count = 0;
        foreach (var value in bytes)
        {
            count += value >> 7;
        }

        return count;
    }

    private static OperationStatus Utf8Status(ReadOnlySpan<byte> bytes)
    {
        while (!bytes.IsEmpty)
        {
            var status = Rune.DecodeFromUtf8(bytes, out _, out var length);
            if (status != OperationStatus.Done)
            {
                return status;
            }

            bytes = bytes[length..];
        }

        return OperationStatus.Done;
    }

    /// <summary>The separator that splits the first lines most evenly; a tab wins over others, as the clipboard gives it.</summary>
    private static char DelimiterOf(string start)
    {
        var best = (Delimiter: ',', Score: 0.0);
        foreach (var delimiter in "\t;,")
        {
            var counts = new List<int> { 0 };
            var quoted = false;
            foreach (var character in start)
            {
                if (character == '"')
                {
                    quoted = !quoted;
                }
                else if (!quoted && character == delimiter)
                {
                    counts[^1]++;
                }
                else if (!quoted && character == '\n')
                {
                    counts.Add(0);
                    if (counts.Count > 50)
                    {
                        break;
                    }
                }
            }

            var most = counts.GroupBy(count => count).Where(group => group.Key > 0).MaxBy(group => group.Count());
            var score = most is null ? 0 : most.Count() + (delimiter == '\t' ? 0.5 : 0);
            if (score > best.Score)
            {
                best = (delimiter, score);
            }
        }

        return best.Delimiter;
    }
}
