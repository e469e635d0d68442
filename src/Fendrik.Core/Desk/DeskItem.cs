using Fendrik.Core.Checks;

namespace Fendrik.Core.Desk;

/// <summary>What something on the desk is about.</summary>
public enum DeskTopic
{
    /// <summary>Reviewers refused something.</summary>
    Refused = 1,

    /// <summary>Calls that nobody took.</summary>
    Calls = 2,

    /// <summary>A word that brings clicks and never sold.</summary>
    Word = 3,

    /// <summary>A budget that runs out.</summary>
    Budget = 4,

    /// <summary>Conversions that are no longer counted.</summary>
    Tracking = 5,

    /// <summary>A campaign whose conversions became dearer.</summary>
    Dearer = 6,

    /// <summary>An alert of one's own that went off.</summary>
    Alert = 7,
}

/// <summary>Something that is worth doing.</summary>
/// <param name="Topic">What it is about.</param>
/// <param name="Weight">How much it weighs.</param>
/// <param name="Title">What it is, in a few words.</param>
/// <param name="Says">What is known of it, in a sentence.</param>
/// <param name="MoneyAWeek">The money in it, by the week, in the account's currency; none where it has no price.</param>
/// <param name="Worth">The same in words.</param>
/// <param name="Name">The word or the campaign that it is about; none for others.</param>
/// <param name="CampaignId">The campaign that it is about; none for others.</param>
public sealed record DeskItem(
    DeskTopic Topic,
    Weight Weight,
    string Title,
    string Says,
    decimal? MoneyAWeek,
    string? Worth,
    string? Name = null,
    long? CampaignId = null
)
{
    /// <summary>Blockers first, then by the money in it.</summary>
    public static IReadOnlyList<DeskItem> Ranked(IEnumerable<DeskItem> items) =>
        [
            .. items
                .OrderByDescending(item => item.Weight == Weight.Blocker)
                .ThenByDescending(item => item.MoneyAWeek ?? -1)
                .ThenBy(item => item.Topic)
                .ThenBy(item => item.Title, StringComparer.Ordinal),
        ];
}
