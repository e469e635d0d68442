namespace Fendrik.Network.Simulation;

/// <summary>
/// Philox 4×32 with ten rounds (Salmon, Moraes, Dror, Shaw, “Parallel random numbers: as easy as 1, 2, 3”, SC '11): four numbers
/// that are a function of a counter and a key. Nothing is drawn before or after another, so any draw can be made again by itself.
/// </summary>
public static class Philox
{
    private const uint FirstMultiplier = 0xD2511F53;
    private const uint SecondMultiplier = 0xCD9E8D57;
    private const uint FirstWeyl = 0x9E3779B9;
    private const uint SecondWeyl = 0xBB67AE85;
    private const int Rounds = 10;

    /// <summary>The four numbers.</summary>
    public static (uint, uint, uint, uint) Draw((uint, uint, uint, uint) counter, (uint, uint) key)
    {
        var (one, two, three, four) = counter;
        var (left, right) = key;
        for (var round = 0; round < Rounds; round++)
        {
            var first = (ulong)FirstMultiplier * one;
            var second = (ulong)SecondMultiplier * three;
            (one, two, three, four) = (
                (uint)(second >> 32) ^ two ^ left,
                (uint)second,
                (uint)(first >> 32) ^ four ^ right,
                (uint)first
            );
            left += FirstWeyl;
            right += SecondWeyl;
        }

        return (one, two, three, four);
    }
}
