using System.Buffers.Binary;
using System.Security.Cryptography;

namespace Fendrik.Network.Simulation.Counting;

/// <summary>
/// Names of clicks, as links carry them: nobody can make one up or tell what it stands for, and the account that made it can. The search is
/// enciphered with zeros behind it (AES, FIPS 197, one block); what deciphers to anything else was never given out.
/// </summary>
internal static class ClickIds
{
    private const int Block = 16;

    /// <summary>The id of the click that a search led to.</summary>
    public static string Of(long seed, ulong search)
    {
        Span<byte> block = stackalloc byte[Block];
        BinaryPrimitives.WriteUInt64BigEndian(block, search);
        using var cipher = CipherOf(seed);
        return Convert.ToHexStringLower(cipher.EncryptEcb(block, PaddingMode.None));
    }

    /// <summary>The search that an id was given out for; none when it is not one of the account.</summary>
    public static ulong? SearchOf(long seed, string id)
    {
        Span<byte> block = stackalloc byte[Block];
        if (
            id.Length != 2 * Block
            || Convert.FromHexString(id, block, out _, out _) != System.Buffers.OperationStatus.Done
        )
        {
            return null;
        }

        using var cipher = CipherOf(seed);
        var plain = cipher.DecryptEcb(block, PaddingMode.None);
        return plain.AsSpan(sizeof(ulong)).ContainsAnyExcept((byte)0)
            ? null
            : BinaryPrimitives.ReadUInt64BigEndian(plain);
    }

    private static Aes CipherOf(long seed)
    {
        Span<byte> text = stackalloc byte[sizeof(long)];
        BinaryPrimitives.WriteInt64BigEndian(text, seed);
        var cipher = Aes.Create();
        cipher.Key = SHA256.HashData(text)[..Block];
        return cipher;
    }
}
