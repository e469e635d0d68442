using Fendrik.Core.Lists;

namespace Fendrik.Data.Tables;

/// <summary>
/// Passes text on, but no line longer than <see cref="TableFile.LongestLine"/>: the rest of such a line is dropped and a
/// mark left in its place, so that one monstrous line costs one row and not the file. Zeros are passed on as U+FFFD.
/// </summary>
internal sealed class LineLimitingReader(TextReader inner) : TextReader
{
    private readonly char[] _raw = new char[1 << 15];
    private int _at;
    private int _end;
    private int _lineLength;
    private bool _quoted;
    private int _pendingQuote = -1;

    public override int Read(char[] buffer, int index, int count) => Read(buffer.AsSpan(index, count));

    public override int Read(Span<char> buffer)
    {
        var written = 0;
        if (_pendingQuote >= 0 && buffer.Length > 0)
        {
            buffer[written++] = (char)_pendingQuote;
            _pendingQuote = -1;
        }

        while (written < buffer.Length)
        {
            if (_at == _end)
            {
                (_at, _end) = (0, inner.Read(_raw, 0, _raw.Length));
                if (_end == 0)
                {
                    return written;
                }
            }

            var character = _raw[_at++];
            if (character == '"')
            {
                _quoted = !_quoted;
            }

            if (character == '\n')
            {
                _lineLength = 0;
            }
            else if (++_lineLength == TableFile.LongestLine)
            {
                buffer[written++] = UnreadableCell.Mark;
                if (_quoted)
                {
                    // The rest is dropped, the closing quotation mark with it: close the cell here.
                    _quoted = false;
                    if (written == buffer.Length)
                    {
                        _pendingQuote = '"';
                        return written;
                    }

                    buffer[written++] = '"';
                }

                continue;
            }
            else if (_lineLength > TableFile.LongestLine)
            {
                _quoted = false;
                continue;
            }

            buffer[written++] = character == '\0' ? '\ufffd' : character;
        }

        return written;
    }

    public override int Read()
    {
        Span<char> one = stackalloc char[1];
        return Read(one) == 0 ? -1 : one[0];
    }

    protected override void Dispose(bool disposing)
    {
        if (disposing)
        {
            inner.Dispose();
        }

        base.Dispose(disposing);
    }
}
