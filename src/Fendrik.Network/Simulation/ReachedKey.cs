using Fendrik.Core.Serving;

namespace Fendrik.Network.Simulation;

/// <summary>By what an ad is reported besides its words: a page of a content site, an audience, a place.</summary>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="CampaignId">The campaign.</param>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="By">Which of these.</param>
/// <param name="Name">The page, the audience, or the key of the place.</param>
public readonly record struct ReachedKey(DateOnly Day, long CampaignId, long AdGroupId, ReachedBy By, string Name)
{
    /// <summary>
    /// All by which an ad is reported: its page, of the person's audiences those that stand on the ad group or its campaign, and where the person was.
    /// </summary>
    public static IReadOnlyList<ReachedKey> Of(
        in ShownAd shown,
        Search search,
        Campaign campaign,
        Core.Serving.ServedAccount served
    )
    {
        var (day, spot) = (shown.Day, shown.Spot);
        var keys = new List<ReachedKey>();
        if (search.Page is { } page)
        {
            keys.Add(new ReachedKey(day, spot.CampaignId, spot.AdGroupId, ReachedBy.Placement, page));
        }

        if (search.Place is { } place)
        {
            var by = served.Places.Of(campaign, search).IsByInterest ? ReachedBy.Interest : ReachedBy.Place;
            keys.Add(new ReachedKey(day, spot.CampaignId, spot.AdGroupId, by, place));
        }

        keys.AddRange(
            served
                .Targeting.AudiencesOf(spot.CampaignId, spot.AdGroupId)
                .Where(name => search.Audiences?.Contains(name, StringComparer.OrdinalIgnoreCase) == true)
                .Select(name => new ReachedKey(day, spot.CampaignId, spot.AdGroupId, ReachedBy.Audience, name))
        );
        return keys;
    }

    /// <summary>Adds up what came of an ad.</summary>
    public static void Tally(Dictionary<ReachedKey, ShownTally> tallies, ReachedKey key, in ShownAd shown)
    {
        if (!tallies.TryGetValue(key, out var tally))
        {
            tallies.Add(key, tally = new ShownTally());
        }

        var clicks = shown.Click == ClickKind.None ? 0 : 1;
        tally.Impressions++;
        tally.Clicks += clicks;
        tally.Cost += clicks * shown.Price;
        tally.Expected += ShownTally.InMillionths(shown.Expected);
    }
}
