using System.Buffers.Binary;
using System.Security.Cryptography;
using System.Text;

namespace Fendrik.Data.Cleaning;

/// <summary>128 bits that stand for a text in a place, so that millions can be told apart in little memory.</summary>
internal static class Fingerprint
{
    public static UInt128 Of(string text, long place, int match)
    {
        Span<byte> bytes = stackalloc byte[512];
        var length = Encoding.UTF8.GetByteCount(text) + sizeof(long) + sizeof(int);
        var buffer = length <= bytes.Length ? bytes[..length] : new byte[length];
        BitConverter.TryWriteBytes(buffer, place);
        BitConverter.TryWriteBytes(buffer[sizeof(long)..], match);
        Encoding.UTF8.GetBytes(text, buffer[(sizeof(long) + sizeof(int))..]);
        Span<byte> hash = stackalloc byte[SHA256.HashSizeInBytes];
        SHA256.HashData(buffer, hash);
        return BinaryPrimitives.ReadUInt128LittleEndian(hash);
    }
}
