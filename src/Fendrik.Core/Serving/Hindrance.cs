using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Serving;

/// <summary>What keeps a keyword that matches from answering a search; in the order in which it is asked.</summary>
public enum HindranceKind
{
    /// <summary>The campaign is paused.</summary>
    CampaignPaused = 1,

    /// <summary>The campaign has no daily budget.</summary>
    NoBudget = 2,

    /// <summary>The campaign has not begun.</summary>
    NotBegun = 3,

    /// <summary>The campaign has ended.</summary>
    Ended = 4,

    /// <summary>The campaign does not show on such sites.</summary>
    SiteLeftOut = 5,

    /// <summary>The ad group is paused.</summary>
    AdGroupPaused = 6,

    /// <summary>The keyword is paused.</summary>
    KeywordPaused = 7,

    /// <summary>The reviewers have not read the keyword yet.</summary>
    KeywordInReview = 8,

    /// <summary>The reviewers refused the keyword.</summary>
    KeywordRefused = 9,

    /// <summary>A negative holds here.</summary>
    Negative = 10,

    /// <summary>There is no ad that may show.</summary>
    NoAd = 11,

    /// <summary>There is no max CPC.</summary>
    NoMaxCpc = 12,

    /// <summary>The bid is below the network's lowest.</summary>
    BelowLowest = 13,

    /// <summary>The day's budget does not reach for this search.</summary>
    BudgetSpent = 14,

    /// <summary>There are ads, but only for other devices. Asked after <see cref="NoAd"/>.</summary>
    NoAdForDevice = 15,

    /// <summary>There are ads for the device, but only for other hours. Asked after <see cref="NoAdForDevice"/>.</summary>
    NoAdAtThisHour = 16,

    /// <summary>A placement is out there. Asked after <see cref="Negative"/>.</summary>
    PlacementOut = 17,

    /// <summary>Other placements are in. Asked after <see cref="PlacementOut"/>.</summary>
    PlacementNotIn = 18,

    /// <summary>It is kept to audiences that the person is not known to be of.</summary>
    OtherAudience = 19,

    /// <summary>A modifier of −100% leaves nothing of the bid.</summary>
    ShutOff = 20,

    /// <summary>It is not the campaign's hour. Asked after <see cref="SiteLeftOut"/>.</summary>
    OutOfHours = 21,

    /// <summary>The person is in a place that is out. Asked after <see cref="OutOfHours"/>.</summary>
    PlaceOut = 22,

    /// <summary>The person is in none of the places that are in. Asked after <see cref="PlaceOut"/>.</summary>
    OtherPlace = 23,

    /// <summary>The person's language is none of the campaign's. Asked after <see cref="OutOfHours"/>.</summary>
    OtherLanguage = 24,
}

/// <summary>Something that keeps a keyword from answering, and the item where it is mended.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="ItemKind">Kind of the item that it lies in.</param>
/// <param name="ItemId">The item.</param>
/// <param name="Text">In words, with what to do.</param>
public sealed record Hindrance(HindranceKind Kind, ItemKind ItemKind, long ItemId, string Text)
{
    internal static Hindrance OfCampaign(HindranceKind kind, Campaign campaign, string text) =>
        new(kind, ItemKind.Campaign, campaign.Id, text);

    internal static Hindrance OfKeyword(HindranceKind kind, Keyword keyword, string text) =>
        new(kind, ItemKind.Keyword, keyword.Id, text);

    internal static Hindrance OfNegative(PlacedNegative placed) =>
        new(
            HindranceKind.Negative,
            ItemKind.NegativeKeyword,
            placed.Negative.Id,
            $"{KeywordNotation.Write(placed.Negative.Text, placed.Negative.Match, negative: true)} on "
                + (
                    placed.Negative.ListId is not null ? "a shared list"
                    : placed.Negative.AdGroupId is null ? "the campaign"
                    : "the ad group"
                )
                + " keeps it away."
        );

    internal static string DayOf(DateOnly day) => day.ToString("d MMMM yyyy", CultureInfo.InvariantCulture);
}
