using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.AdText;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Checks;

/// <summary>What is found by looking at several items together. What one lacks by itself its kind says.</summary>
public static class AcrossItems
{
    /// <summary>Checks what an ad group holds.</summary>
    /// <param name="adGroupId">The ad group.</param>
    /// <param name="keywords">Number of keywords that are not removed.</param>
    /// <param name="keywordsWithoutMaxCpc">Those of them that rely on the ad group's max CPC.</param>
    /// <param name="ads">Number of ads that are not removed.</param>
    /// <param name="running">Those of them that are not paused.</param>
    /// <param name="forDesktops">Those of the running ones that may show on desktops.</param>
    /// <param name="maxCpc">The ad group's max CPC.</param>
    public static IEnumerable<Finding> OfContents(
        long adGroupId,
        int keywords,
        int keywordsWithoutMaxCpc,
        int ads,
        int running,
        int forDesktops,
        decimal? maxCpc
    )
    {
        var report = new Reporter(ItemKind.AdGroup, adGroupId);
        if (keywordsWithoutMaxCpc > 0 && maxCpc is null)
        {
            yield return report.Blocker(
                "max-cpc-missing",
                "maxCpc",
                "max CPC missing",
                keywordsWithoutMaxCpc == 1
                    ? "One of its keywords has no max CPC of its own. Set one here or there."
                    : $"{keywordsWithoutMaxCpc} of its keywords have no max CPC of their own. Set one here or on each."
            );
        }

        if (keywords == 0)
        {
            yield return report.Caution(
                "no-keywords",
                null,
                "no keywords",
                "Nothing triggers this ad group. Add keywords or remove it."
            );
        }

        if (ads == 0)
        {
            yield return report.Caution(
                "no-ads",
                null,
                "no ads",
                "This ad group has nothing to show. Write an ad or pause it."
            );
        }

        if (running > 0 && forDesktops == 0)
        {
            yield return report.Caution(
                "no-ads-for-desktops",
                null,
                "desktops without an ad",
                "Its running ads are for phones or tablets only, so that searches on desktops bring nothing. Write one for all devices, unless that is what you want."
            );
        }
    }

    /// <summary>A caution when a bid is more than its campaign may spend in a day: a click that dear can never be paid.</summary>
    /// <param name="adGroupId">The ad group.</param>
    /// <param name="highestBid">The highest max CPC that holds for one of its keywords; none without keywords or bids.</param>
    /// <param name="dailyBudget">The campaign's daily budget; none when it has none.</param>
    /// <param name="currency">The account's currency.</param>
    public static Finding? BidAboveBudget(
        long adGroupId,
        decimal? highestBid,
        decimal? dailyBudget,
        Currency currency
    ) =>
        highestBid is { } bid && dailyBudget is { } budget && bid > budget
            ? new Reporter(ItemKind.AdGroup, adGroupId).Caution(
                "bid-above-budget",
                "maxCpc",
                "bid above the daily budget",
                $"A keyword bids {new Money(bid, currency)}, but the campaign spends at most {new Money(budget, currency)} a day: it never shows. Lower the bid or raise the budget."
            )
            : null;

    /// <summary>
    /// Most ad groups with broad keywords that can share a budget: with more than three or four they starve each other (common practice,
    /// no source).
    /// </summary>
    public const int MostBroadGroups = 4;

    /// <summary>Name of the check for campaigns in which they do.</summary>
    public const string ManyBroadGroups = "many-broad-groups";

    /// <summary>A caution for a campaign in which too many ad groups with broad keywords share one budget.</summary>
    /// <param name="campaignId">The campaign.</param>
    /// <param name="broadGroups">Its running ad groups with running broad keywords.</param>
    public static Finding? TooManyBroadGroups(long campaignId, int broadGroups) =>
        broadGroups <= MostBroadGroups
            ? null
            : new Reporter(ItemKind.Campaign, campaignId).Caution(
                ManyBroadGroups,
                null,
                $"{broadGroups} ad groups with broad keywords",
                $"With broad keywords more than {MostBroadGroups} ad groups in one campaign starve each other of its budget. Move those that work into a campaign of their own, or match more tightly."
            );

    /// <summary>A caution for a number that rings while nobody takes calls.</summary>
    /// <param name="kind">Kind of the item that shows it: a call extension or a call ad.</param>
    /// <param name="id">The item.</param>
    /// <param name="hours">Its hours; none for always.</param>
    /// <param name="answering">When somebody takes calls; none where nobody said.</param>
    public static Finding? RingsUnanswered(ItemKind kind, long id, WeekHours? hours, WeekHours? answering)
    {
        if (answering is null)
        {
            return null;
        }

        var minutes = (hours?.Minutes ?? WeekHours.MinutesOfWeek) - answering.MinutesWithin(hours);
        return minutes == 0
            ? null
            : new Reporter(kind, id).Caution(
                "rings-unanswered",
                "hours",
                string.Create(CultureInfo.InvariantCulture, $"rings {minutes / 60m:0.#} h a week unanswered"),
                $"Somebody takes calls {answering}, but the number shows {hours?.ToString() ?? "always"}. Set its hours, or correct the answering hours of the account under Hours."
            );
    }

    /// <summary>A hint for a placement whose campaign shows on no content sites: it decides nothing.</summary>
    /// <param name="placementId">The placement.</param>
    /// <param name="sites">Where the campaign shows.</param>
    public static Finding? IdlePlacement(long placementId, SiteKinds sites) =>
        sites.HasFlag(SiteKinds.Content)
            ? null
            : new Reporter(ItemKind.Placement, placementId).Hint(
                "placement-idle",
                null,
                "no content sites",
                "Its campaign does not show on content sites, so that the placement decides nothing. Let the campaign show there or remove it."
            );

    /// <summary>
    /// What there is to say of a keyword that one of the account's own negatives blocks: a caution when it keeps away all that
    /// the keyword is for, a hint when it keeps away a part, nothing otherwise.
    /// </summary>
    public static Finding? Blocked(long keywordId, NegativeKeyword negative, Blocking blocking)
    {
        var written =
            $"The negative {KeywordNotation.Write(negative.Text, negative.Match, negative: true)} on "
            + (
                negative.ListId is not null ? "a shared list"
                : negative.AdGroupId is null ? "the campaign"
                : "the ad group"
            );
        var report = new Reporter(ItemKind.Keyword, keywordId);
        return blocking switch
        {
            Blocking.None => null,
            Blocking.Partly => report.Hint(
                BlockedByNegative,
                null,
                "partly blocked by a negative",
                $"{written} keeps away searches that have its words just so; others still reach it. Keep it if that is what you want."
            ),
            Blocking.Wholly => report.Caution(
                BlockedByNegative,
                null,
                "blocked by a negative",
                $"{written} keeps away every search that has its words. Remove one of the two."
            ),
        };
    }

    /// <summary>Name of the check for keywords that negatives block.</summary>
    public const string BlockedByNegative = "blocked-by-negative";

    private readonly record struct Reporter(ItemKind Kind, long Id)
    {
        public Finding Blocker(string code, string? field, string message, string detail) =>
            new(Weight.Blocker, code, Kind, Id, field, message, detail);

        public Finding Hint(string code, string? field, string message, string detail) =>
            new(Weight.Hint, code, Kind, Id, field, message, detail);

        public Finding Caution(string code, string? field, string message, string detail) =>
            new(Weight.Caution, code, Kind, Id, field, message, detail);
    }
}
