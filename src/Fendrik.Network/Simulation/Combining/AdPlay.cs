using Fendrik.Core.AdText.Combining;
using Fendrik.Core.AdText.Insertion;
using Fendrik.Core.Auctions;
using Fendrik.Core.Serving;

namespace Fendrik.Network.Simulation.Combining;

/// <summary>What people see of the ads of an account as it is played: which lines of a responsive ad, and which inserted words.</summary>
/// <param name="live">The account.</param>
/// <param name="book">How lines of its responsive ads did.</param>
/// <param name="ads">How its ads did.</param>
public sealed class AdPlay(LiveAccount live, ClickBook<LineKey> book, ClickBook<long> ads)
{
    private const double Percent = 100;

    private readonly Dictionary<(long Ad, Device Device), (ComposedAd Ad, bool Inserts)> _usual = [];
    private LiveAccount _live = live;

    /// <summary>Goes on with the account as it is after a change.</summary>
    public void GoOnWith(LiveAccount live)
    {
        _live = live;
        _usual.Clear();
    }

    /// <summary>The day is over: what came of it is known from now on.</summary>
    public void EndDay()
    {
        book.EndDay();
        ads.EndDay();
        _usual.Clear();
    }

    /// <summary>The ad as the person sees it.</summary>
    /// <param name="keyword">The keyword that answers.</param>
    /// <param name="ad">Its ad.</param>
    /// <param name="search">The search.</param>
    /// <param name="chance">The luck of the search.</param>
    public ComposedAd Compose(ServedKeyword keyword, Ad ad, Search search, in Chance chance)
    {
        var triesOut = TriesOut(ad, chance);
        if (!triesOut && _usual.TryGetValue((ad.Id, search.Device), out var usual))
        {
            return usual.Inserts ? Composed(ad, usual.Ad.Lines, keyword, search) : usual.Ad;
        }

        var composed = Composed(
            ad,
            ad.Choose(_live.Served.Network.Responsive, search.Device, WorthIn(ad, chance)),
            keyword,
            search
        );
        if (!triesOut)
        {
            _usual[(ad.Id, search.Device)] = (composed, Inserts(ad));
        }

        return composed;
    }

    /// <summary>How much the lines of an ad are worth in a search: what they brought so far, or now and then what chance says.</summary>
    public LineWorth WorthIn(Ad ad, in Chance chance)
    {
        if (ad is not ResponsiveAd responsive)
        {
            return LineWorth.Unknown;
        }

        if (TriesOut(ad, chance))
        {
            var luck = chance;
            return new LineWorth(
                line => luck.Share(Purpose.TriedLine, line),
                line => luck.Share(Purpose.TriedLine, responsive.Headlines.Count + line)
            );
        }

        return new LineWorth(
            line => ClickLikelihood.Of(book.Of(KeyOf(responsive, line, false)), 1),
            line => ClickLikelihood.Of(book.Of(KeyOf(responsive, line, true)), 1)
        );
    }

    /// <summary>How well ads did so far; none in a search in which they take turns by chance, so that each is tried now and then.</summary>
    public Func<Ad, double>? WorthOfAds(in Chance chance) =>
        chance.Happens(Purpose.TriesAds, _live.Served.Network.Responsive.TriedOut / Percent)
            ? null
            : ad => ClickLikelihood.Of(ads.Of(ad.Id), 1);

    /// <summary>Adds up what came of an ad, for the combination that showed where it is a responsive one.</summary>
    /// <param name="tallies">What is added to.</param>
    /// <param name="shown">The ad as it was shown.</param>
    /// <param name="seen">What of it was seen.</param>
    public void Tally(Dictionary<CombinationKey, ShownTally> tallies, in ShownAd shown, ComposedAd seen)
    {
        var expected = ShownTally.InMillionths(shown.Expected);
        var clicks = shown.Click == ClickKind.None ? 0 : 1;
        var key = new CombinationKey(shown.Day, shown.Spot, seen);
        if (!tallies.TryGetValue(key, out var tally))
        {
            tallies.Add(key, tally = new ShownTally());
        }

        tally.Impressions++;
        tally.Clicks += clicks;
        tally.Cost += clicks * shown.Price;
        tally.Expected += expected;
        ads.Note(seen.Ad.Id, clicks, expected);
        if (seen.Ad is not ResponsiveAd ad)
        {
            return;
        }

        foreach (var line in seen.Lines.Headlines)
        {
            book.Note(KeyOf(ad, line, false), clicks, expected);
        }

        foreach (var line in seen.Lines.Descriptions)
        {
            book.Note(KeyOf(ad, line, true), clicks, expected);
        }
    }

    private ComposedAd Composed(Ad ad, AdCombination lines, ServedKeyword keyword, Search search)
    {
        var network = _live.Served.Network;
        return ComposedAd.Of(
            ad,
            lines,
            network,
            search.Device,
            ComposedAd.ValuesOf(network, keyword, search.Text, search.Place, search.Clock)
        );
    }

    /// <summary>True when what an ad says hangs on the search.</summary>
    private static bool Inserts(Ad ad) => ad.Texts.Concat(ad.ShownPath).Any(AdLine.Inserts);

    private bool TriesOut(Ad ad, in Chance chance) =>
        ad is ResponsiveAd && chance.Happens(Purpose.TriesLines, _live.Served.Network.Responsive.TriedOut / Percent);

    private static LineKey KeyOf(ResponsiveAd ad, int line, bool isDescription) =>
        new(ad.Id, isDescription, (isDescription ? ad.Lines.Descriptions : ad.Lines.Headlines)[line].Text);
}
