namespace Fendrik.Network.Simulation;

/// <summary>What came of ads as they were shown.</summary>
public sealed class ShownTally
{
    /// <summary>Millionths of a whole.</summary>
    internal const double Millionths = 1_000_000;

    /// <summary>Times shown.</summary>
    public long Impressions { get; set; }

    /// <summary>Clicks on the ads.</summary>
    public long Clicks { get; set; }

    /// <summary>Those of them on what is counted itself, where it can be clicked.</summary>
    public long OwnClicks { get; set; }

    /// <summary>What the clicks cost, in minor units.</summary>
    public long Cost { get; set; }

    /// <summary>Clicks that the places usually bring, in millionths: whole numbers add up to the same in any order.</summary>
    public long Expected { get; set; }

    /// <summary>Clicks as they are added up.</summary>
    public static long InMillionths(double clicks) => (long)Math.Round(clicks * Millionths);
}
