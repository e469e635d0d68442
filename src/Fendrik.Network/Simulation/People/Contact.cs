using System.Globalization;
using Fendrik.Network.Simulation.Counting;

namespace Fendrik.Network.Simulation.People;

/// <summary>By what people can be reached: always the same of a person, and of an account's world.</summary>
internal static class Contact
{
    /// <summary>What Ofcom sets aside for drama: numbers that nobody has.</summary>
    private static readonly string[] Ranges = ["+441134960", "+441914980", "+441314960", "+441614960", "+441632960"];

    private const int NumbersOfRange = 1_000;
    private const int DigitsOfName = 14;

    /// <summary>The telephone number that a person calls from, by ITU-T E.164.</summary>
    public static string NumberOf(long seed, ulong person)
    {
        var code = Convert.ToUInt32(ClickIds.Of(seed, person)[..8], 16);
        return Ranges[code % Ranges.Length]
            + (code / Ranges.Length % NumbersOfRange).ToString("000", CultureInfo.InvariantCulture);
    }

    /// <summary>The e-mail address of a person.</summary>
    public static string AddressOf(long seed, ulong person) =>
        $"{ClickIds.Of(seed, person)[..DigitsOfName]}@post.example";
}
