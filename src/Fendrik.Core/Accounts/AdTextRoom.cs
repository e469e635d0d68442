namespace Fendrik.Core.Accounts;

/// <summary>Most texts of each sort that one ad can hold here. What a network takes is its profile's business, and less.</summary>
public static class AdTextRoom
{
    /// <summary>Most headlines.</summary>
    public const int Headlines = 15;

    /// <summary>Most descriptions.</summary>
    public const int Descriptions = 4;

    /// <summary>Most parts of the display path.</summary>
    public const int PathParts = 2;
}
