using Fendrik.Core.Serving;

namespace Fendrik.Network.Simulation.Combining;

/// <summary>A line of a responsive ad: what it says tells it from the others, wherever it stands among them.</summary>
/// <param name="AdId">The ad.</param>
/// <param name="IsDescription">True for a description.</param>
/// <param name="Text">What it says, as it is written.</param>
public readonly record struct LineKey(long AdId, bool IsDescription, string Text);

/// <summary>An ad as it showed on a day: a responsive one with the lines that showed, any other as a whole.</summary>
/// <param name="day">The day.</param>
/// <param name="spot">Where the ad stands.</param>
/// <param name="seen">What of the ad was seen.</param>
public sealed class CombinationKey(DateOnly day, Spot spot, ComposedAd seen) : IEquatable<CombinationKey>
{
    /// <summary>The day.</summary>
    public DateOnly Day { get; } = day;

    /// <summary>The campaign.</summary>
    public long CampaignId { get; } = spot.CampaignId;

    /// <summary>The ad group.</summary>
    public long AdGroupId { get; } = spot.AdGroupId;

    /// <summary>The ad.</summary>
    public long AdId { get; } = seen.Ad.Id;

    /// <summary>Headlines as they are written, in the order in which they showed.</summary>
    public string[] Headlines { get; } =
        seen.Ad is ResponsiveAd ad ? [.. seen.Lines.Headlines.Select(line => ad.Lines.Headlines[line].Text)] : [];

    /// <summary>Descriptions, likewise.</summary>
    public string[] Descriptions { get; } =
        seen.Ad is ResponsiveAd ad ? [.. seen.Lines.Descriptions.Select(line => ad.Lines.Descriptions[line].Text)] : [];

    /// <inheritdoc/>
    public bool Equals(CombinationKey? other) =>
        other is not null
        && (Day, AdId, AdGroupId) == (other.Day, other.AdId, other.AdGroupId)
        && Headlines.AsSpan().SequenceEqual(other.Headlines)
        && Descriptions.AsSpan().SequenceEqual(other.Descriptions);

    /// <inheritdoc/>
    public override bool Equals(object? obj) => Equals(obj as CombinationKey);

    /// <inheritdoc/>
    public override int GetHashCode()
    {
        var hash = new HashCode();
        hash.Add(Day);
        hash.Add(AdId);
        foreach (var text in Headlines.Concat(Descriptions))
        {
            hash.Add(text, StringComparer.Ordinal);
        }

        return hash.ToHashCode();
    }
}
