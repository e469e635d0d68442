using Fendrik.Core.Serving;

namespace Fendrik.Network.Simulation.Beside;

/// <summary>What shows beside the ads of an account as it is played, on what of it people click, and what comes of it.</summary>
/// <param name="live">The account.</param>
/// <param name="book">How its extensions did.</param>
public sealed class BesidePlay(LiveAccount live, ClickBook<(ItemKind Kind, long Id)> book)
{
    private LiveAccount _live = live;
    private BesideAds? _ads;

    /// <summary>Goes on with the account as it is after a change.</summary>
    public void GoOnWith(LiveAccount live) => (_live, _ads) = (live, null);

    /// <summary>The day is over: what came of it is known from now on.</summary>
    public void EndDay() => book.EndDay();

    /// <summary>What shows beside an ad of an ad group.</summary>
    /// <param name="group">The ad group.</param>
    /// <param name="search">The search.</param>
    /// <param name="clock">Hour of the account's clock, with its minutes as a fraction.</param>
    /// <param name="chance">The luck of the search.</param>
    public BesideAd Of(AdGroup group, Search search, double clock, in Chance chance)
    {
        const int MinutesOfHour = 60;
        const double Percent = 100;
        if (_ads?.Day != search.Day)
        {
            _ads = new BesideAds(_live, book, search.Day);
        }

        return _ads.Of(
            group,
            search.Device,
            (int)(clock * MinutesOfHour),
            chance.Happens(Purpose.TryOut, _live.Served.Network.Extensions.TriedOut / Percent)
        );
    }

    /// <summary>Adds up what came of an ad, for each extension that showed beside it.</summary>
    /// <param name="tallies">What is added to.</param>
    /// <param name="shown">The ad as it was shown.</param>
    /// <param name="beside">What showed beside it.</param>
    /// <param name="on">What was clicked of it; none for the headline, or nothing.</param>
    public void Tally(
        Dictionary<BesideKey, ShownTally> tallies,
        in ShownAd shown,
        BesideAd beside,
        ConsideredExtension? on
    )
    {
        var expected = ShownTally.InMillionths(shown.Expected);
        var clicks = shown.Click == ClickKind.None ? 0 : 1;
        foreach (var each in beside.Shown)
        {
            var key = new BesideKey(
                shown.Day,
                shown.Spot.CampaignId,
                shown.Spot.AdGroupId,
                each.Kind,
                each.Extension.Id
            );
            if (!tallies.TryGetValue(key, out var tally))
            {
                tallies.Add(key, tally = new ShownTally());
            }

            tally.Impressions++;
            tally.Clicks += clicks;
            tally.OwnClicks += each == on ? 1 : 0;
            tally.Cost += clicks * shown.Price;
            tally.Expected += expected;
            book.Note((each.Kind, each.Extension.Id), clicks, expected);
        }
    }

    /// <summary>The sitelink or the number that was clicked; none when the click was on the headline.</summary>
    public static ConsideredExtension? ClickedOf(BesideAd beside, in Chance chance)
    {
        const double OfEachLink = 0.05;
        const double OfNumber = 0.14;
        if (beside.Number is { } number)
        {
            var calls = number.Extension.Shows == NumberShows.NumberOnly ? 1 : OfNumber;
            if (chance.Happens(Purpose.ClickKind, calls, 2))
            {
                return number;
            }
        }

        return beside.Links.Count > 0 && chance.Happens(Purpose.ClickKind, OfEachLink * beside.Links.Count)
            ? beside.Links[(int)(chance.Share(Purpose.ClickKind, 1) * beside.Links.Count)]
            : null;
    }

    /// <summary>What kind of click it was.</summary>
    public static ClickKind KindOf(ConsideredExtension? on) =>
        on is null ? ClickKind.Headline
        : on.Extension.Shows is null ? ClickKind.Sitelink
        : ClickKind.Call;
}
