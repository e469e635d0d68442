using System.Security.Cryptography;
using System.Text;

namespace Fendrik.Core.Tracking.Books;

/// <summary>By what the books know where a conversion came from.</summary>
public enum BookKeyKind
{
    /// <summary>The id of the click, which the link carried.</summary>
    Click = 1,

    /// <summary>A telephone number that called, and when.</summary>
    Call = 2,

    /// <summary>An e-mail address that was left on the site, hashed so that nobody reads it on the way.</summary>
    Address = 3,
}

/// <summary>What a conversion from outside is found by.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Value">The click id in lower case; the number by ITU-T E.164; or the hash of the address, 64 hexadecimal digits in lower case.</param>
/// <param name="CalledAt">When it was called; none for others.</param>
public sealed record BookKey(BookKeyKind Kind, string Value, DateTimeOffset? CalledAt = null)
{
    /// <summary>How far the clocks of a client's telephone and of the carrier may be apart.</summary>
    public static readonly TimeSpan CallTolerance = TimeSpan.FromMinutes(5);

    private const int DigitsOfHash = 64;

    /// <summary>A click.</summary>
    public static BookKey OfClick(string id)
    {
        ArgumentNullException.ThrowIfNull(id);
        return new BookKey(BookKeyKind.Click, id.ToLowerInvariant());
    }

    /// <summary>
    /// The hash of an address: SHA-256 (FIPS 180-4) of its letters in lower case without blanks around; what is a hash already is taken as it is. None for
    /// what is neither.
    /// </summary>
    public static string? HashOf(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var plain = text.Trim().ToLowerInvariant();
        if (plain.Length == DigitsOfHash && plain.All(char.IsAsciiHexDigit))
        {
            return plain;
        }

        var at = plain.IndexOf('@', StringComparison.Ordinal);
        return at > 0 && at == plain.LastIndexOf('@') && at < plain.Length - 1 && !plain.Any(char.IsWhiteSpace)
            ? Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(plain)))
            : null;
    }
}
