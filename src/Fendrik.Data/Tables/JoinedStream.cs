namespace Fendrik.Data.Tables;

/// <summary>The first bytes of a stream, already read, and the rest of it, as one.</summary>
internal sealed class JoinedStream(ReadOnlyMemory<byte> head, Stream rest) : ForwardOnlyStream
{
    private int _at;

    public override int Read(byte[] buffer, int offset, int count)
    {
        if (_at == head.Length)
        {
            return rest.Read(buffer, offset, count);
        }

        var length = Math.Min(count, head.Length - _at);
        head.Span.Slice(_at, length).CopyTo(buffer.AsSpan(offset));
        _at += length;
        return length;
    }
}
