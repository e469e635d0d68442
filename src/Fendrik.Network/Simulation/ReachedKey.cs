using Fendrik.Core.Reporting.Breakdowns;
using Fendrik.Core.Serving;
using Fendrik.Network.Simulation.People;

namespace Fendrik.Network.Simulation;

/// <summary>By what an ad is reported besides its words: a page of a content site, an audience, a place, the person, the click, the rivals.</summary>
/// <param name="Day">Day in the account's time zone.</param>
/// <param name="CampaignId">The campaign.</param>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="By">Which of these.</param>
/// <param name="Name">The page, the audience, or the key of the place.</param>
public readonly record struct ReachedKey(DateOnly Day, long CampaignId, long AdGroupId, ReachedBy By, string Name)
{
    /// <summary>
    /// All by which an ad is reported: its page, of the person's audiences those that stand on the ad group or its campaign, where the person was, who it was,
    /// what was clicked, and whether a rival showed with it.
    /// </summary>
    public static IReadOnlyList<ReachedKey> Of(
        in ShownAd shown,
        Search search,
        Campaign campaign,
        Core.Serving.ServedAccount served,
        bool withRival
    )
    {
        var (day, spot) = (shown.Day, shown.Spot);
        var keys = new List<ReachedKey>
        {
            new(day, spot.CampaignId, spot.AdGroupId, ReachedBy.Age, NameOf(shown.Age)),
            new(day, spot.CampaignId, spot.AdGroupId, ReachedBy.Gender, NameOf(shown.Gender)),
            new(
                day,
                spot.CampaignId,
                spot.AdGroupId,
                ReachedBy.Rival,
                withRival ? SegmentNames.WithRival : SegmentNames.Alone
            ),
        };
        if (NameOf(shown.Click) is { } clicked)
        {
            keys.Add(new ReachedKey(day, spot.CampaignId, spot.AdGroupId, ReachedBy.Click, clicked));
        }

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

    private static string NameOf(AgeBand age) =>
        age switch
        {
            AgeBand.Young => SegmentNames.Young,
            AgeBand.Middle => SegmentNames.Middle,
            AgeBand.Old => SegmentNames.Old,
        };

    private static string NameOf(Gender gender) =>
        gender switch
        {
            Gender.Female => SegmentNames.Women,
            Gender.Male => SegmentNames.Men,
        };

    private static string? NameOf(ClickKind click) =>
        click switch
        {
            ClickKind.None => null,
            ClickKind.Headline => SegmentNames.Headline,
            ClickKind.Sitelink => SegmentNames.Sitelink,
            ClickKind.Call => SegmentNames.Call,
        };

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
