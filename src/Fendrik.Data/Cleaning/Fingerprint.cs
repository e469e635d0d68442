using System.IO.Hashing;
using System.Runtime.InteropServices;
using System.Text;

namespace Fendrik.Data.Cleaning;

/// <summary>128 bits that stand for a text in a place, so that millions can be told apart in little memory.</summary>
internal static class Fingerprint
{
    private const int LongestOnStack = 512;

    public static UInt128 Of(string text, long place, int match)
    {
        Span<long> where = [place, match];
        var hash = new XxHash128();
        hash.Append(MemoryMarshal.AsBytes(where));
        Span<byte> bytes = stackalloc byte[LongestOnStack];
        var length = Encoding.UTF8.GetByteCount(text);
        var buffer = length <= bytes.Length ? bytes[..length] : new byte[length];
        Encoding.UTF8.GetBytes(text, buffer);
        hash.Append(buffer);
        return hash.GetCurrentHashAsUInt128();
    }
}
