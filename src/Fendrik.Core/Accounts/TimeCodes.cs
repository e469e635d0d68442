using OtpNet;

namespace Fendrik.Core.Accounts;

/// <summary>
/// Codes that a person's device shows beside the password: six digits that change every thirty seconds (RFC 6238 on RFC 4226, with HMAC-SHA-1).
/// </summary>
public static class TimeCodes
{
    /// <summary>Bytes of a secret: as many as the hash has, as RFC 4226 recommends (section 4, R6).</summary>
    public const int BytesOfSecret = 20;

    /// <summary>Digits of a code.</summary>
    public const int Digits = 6;

    /// <summary>How long a code holds, in seconds.</summary>
    public const int Seconds = 30;

    /// <summary>
    /// The time step of a code that is right now, or was or will be one step away, since clocks differ (RFC 6238, section 5.2). Each code holds once: one of a
    /// step that was used, or of one before it, is not right any more.
    /// </summary>
    /// <param name="secret">What the device was given.</param>
    /// <param name="code">What was typed; blanks do not count.</param>
    /// <param name="now">The time.</param>
    /// <param name="used">The last step that was used; none for none.</param>
    /// <returns>The step; none where the code is not right.</returns>
    public static long? StepOf(byte[] secret, string code, DateTimeOffset now, long? used)
    {
        ArgumentNullException.ThrowIfNull(code);
        var typed = string.Concat(code.Where(letter => !char.IsWhiteSpace(letter)));
        if (typed.Length != Digits)
        {
            return null;
        }

        var totp = new Totp(secret, Seconds, OtpHashMode.Sha1, Digits);
        return
            totp.VerifyTotp(now.UtcDateTime, typed, out var step, new VerificationWindow(previous: 1, future: 1))
            && !(step <= used)
            ? step
            : null;
    }

    /// <summary>The secret as people type it: base 32 (RFC 4648) in groups of four.</summary>
    public static string Written(byte[] secret) =>
        string.Join(' ', Base32Encoding.ToString(secret).Chunk(4).Select(part => new string(part)));

    /// <summary>The secret as an address that devices read from a picture.</summary>
    /// <param name="secret">The secret.</param>
    /// <param name="person">Whose it is.</param>
    public static string AddressOf(byte[] secret, string person) =>
        new OtpUri(OtpType.Totp, secret, person, "Fendrik", OtpHashMode.Sha1, Digits, Seconds).ToString();
}
