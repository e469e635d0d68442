using Fendrik.Core.Accounts;
using Fendrik.Core.Auctions;
using Fendrik.Core.Matching;
using Fendrik.Core.Serving;

namespace Fendrik.Network.Simulation;

/// <summary>What of a day is gone when an hour begins: places the hour in budgets and reports.</summary>
public readonly record struct HourOfDay(DateOnly Day, int Hour, int HoursBegun, int HoursInDay, long AbsoluteHour);

/// <summary>
/// Plays one hour of searches for one account: who searches, which keyword answers, the auction, the click, the
/// conversion. Every figure comes out of the rules in Core; chance decides only what people do.
/// </summary>
public sealed class SearchHour(Market market, ServedAccount account, ulong seed, Dictionary<long, decimal> spentToday)
{
    /// <summary>How much likelier a click is in the first place than further down.</summary>
    private static readonly double[] PlaceFactor = [1.0, 0.62, 0.41, 0.28, 0.2];

    private readonly AdQuality _quality = new(market);

    private readonly Dictionary<(long Keyword, long Ad, Device Device, SiteKinds Site), PerformanceRow> _rows = [];

    private readonly Dictionary<(string Term, long Keyword), SearchTermRow> _terms = [];

    /// <summary>What was searched for in the hour that was played last.</summary>
    public IReadOnlyCollection<SearchTermRow> Terms => _terms.Values;

    /// <summary>Plays the hour and answers its report rows.</summary>
    public IReadOnlyCollection<PerformanceRow> Play(HourOfDay hour)
    {
        _rows.Clear();
        _terms.Clear();
        var share =
            (double)(market.Hours[hour.Hour] / market.Hours.Sum())
            * (double)market.Weekdays[((int)hour.Day.DayOfWeek + 6) % 7];
        for (var theme = 0; theme < market.Themes.Count; theme++)
        {
            var searches = new Chance(seed, Chance.NameOf(hour.AbsoluteHour, theme, 0)).CountAround(
                Purpose.Searches,
                market.Themes[theme].SearchesPerDay * share
            );
            for (var search = 1; search <= searches; search++)
            {
                Search(market.Themes[theme], new Chance(seed, Chance.NameOf(hour.AbsoluteHour, theme, search)), hour);
            }
        }

        return _rows.Values;
    }

    private void Search(Theme theme, Chance chance, HourOfDay hour)
    {
        var pattern = chance.Pick(Purpose.Wording, theme.Searches, each => each.Weight);
        var place = chance.Pick(Purpose.Place, market.Places, each => each.Weight);
        var device = DeviceOf(chance.Share(Purpose.Device));
        var site = SiteOf(chance.Share(Purpose.Site));
        var words = Words.Of(pattern.Text.Replace("{place}", place.Name, StringComparison.Ordinal));

        if (BestAnswer(words, device, site, hour, chance.Share(Purpose.Ad)) is not { } answer)
        {
            return;
        }

        Span<Bid> bids = stackalloc Bid[theme.Rivals.Count + 1];
        bids[0] = new Bid(account.Currency.ToMinor(answer.Bid), answer.Quality.Score, chance.Number(Purpose.Lot));
        var count = 1;
        for (var rival = 0; rival < theme.Rivals.Count; rival++)
        {
            if (Offer(theme.Rivals[rival], rival + 1, chance, account.Currency) is { } bid)
            {
                bids[count++] = bid;
            }
        }

        var auction = AuctionOf(theme, account);
        Span<int> order = stackalloc int[count];
        Span<Placement> placements = stackalloc Placement[auction.Places];
        var (_, won) = auction.Run(bids[..count], order, placements);
        Placement? own = null;
        foreach (var each in placements[..won])
        {
            own = each.Bidder == 0 ? each : own;
        }

        if (own is not { } placement)
        {
            return;
        }

        var clickRate =
            theme.ClickRate
            * PlaceFactor[Math.Min(placement.Place, PlaceFactor.Length) - 1]
            * (0.4 + 0.1 * answer.Quality.Score)
            * (
                site == SiteKinds.Search ? 1
                : site == SiteKinds.Partners ? 0.6
                : 0.15
            );
        var clicked = chance.Happens(Purpose.Click, clickRate);
        var conversionRate =
            theme.ConversionRate
            * pattern.Intent
            * (0.6 + 0.8 * (double)answer.Quality.PageFit)
            * (
                device == Device.Phone ? 0.9
                : device == Device.Tablet ? 0.8
                : 1.2
            )
            * (site == SiteKinds.Content ? 0.3 : 1);
        var converted = clicked && chance.Happens(Purpose.Conversion, conversionRate);
        Count(
            answer,
            string.Join(' ', words),
            device,
            site,
            hour,
            clicked ? account.Currency.FromMinor(placement.Price) : 0,
            clicked,
            converted ? theme.Value : 0,
            converted
        );
    }

    /// <summary>The auction for searches of a theme.</summary>
    public static Auction AuctionOf(Theme? theme, ServedAccount account)
    {
        const int qualityOfReserve = 5;
        long RankOf(decimal bid) => account.Currency.ToMinor(bid) * qualityOfReserve;
        return new Auction(
            account.Network.TopPlaces,
            account.Network.BottomPlaces,
            theme is null ? 0 : RankOf(theme.Reserve.Top),
            theme is null ? 0 : RankOf(theme.Reserve.Bottom),
            account.Currency.ToMinor(account.Network.MinimumCpc(account.Currency))
        );
    }

    /// <summary>What a rival bids for this search, if it bids at all.</summary>
    /// <param name="rival">The rival.</param>
    /// <param name="number">Which of the rivals, counted from 1.</param>
    /// <param name="chance">The luck of the search.</param>
    /// <param name="currency">The account's currency.</param>
    public static Bid? Offer(Rival rival, int number, in Chance chance, Currency currency) =>
        chance.Happens(Purpose.RivalPresent, rival.Active, number)
            ? new Bid(
                currency.ToMinor(rival.Bid * (decimal)(0.7 + 0.6 * chance.Share(Purpose.RivalBid, number))),
                (int)rival.Quality,
                chance.Number(Purpose.Lot, number)
            )
            : null;

    private sealed record Answer(ServedKeyword Keyword, TextAd Ad, decimal Bid, QualityScore Quality);

    private Answer? BestAnswer(
        IReadOnlyList<string> words,
        Device device,
        SiteKinds site,
        HourOfDay hour,
        double adChoice
    )
    {
        var answer = account.Answer(
            new Search(string.Join(' ', words), device, site, hour.Day),
            campaign => new BudgetDay(spentToday.GetValueOrDefault(campaign.Id), hour.HoursBegun, hour.HoursInDay),
            adChoice,
            (keyword, ad) => _quality.Of(keyword, ad, words).Score
        );
        return answer.Chosen is { } chosen
            ? new Answer(chosen.Keyword, chosen.Ad!, chosen.Bid!.Bid, _quality.Of(chosen.Keyword, chosen.Ad!, words))
            : null;
    }

    private void Count(
        Answer answer,
        string term,
        Device device,
        SiteKinds site,
        HourOfDay hour,
        decimal price,
        bool clicked,
        decimal value,
        bool converted
    )
    {
        var campaign = answer.Keyword.Campaign.Id;
        spentToday[campaign] = spentToday.GetValueOrDefault(campaign) + price;
        var key = (answer.Keyword.Keyword.Id, answer.Ad.Id, device, site);
        var row =
            _rows.GetValueOrDefault(key)
            ?? new PerformanceRow(
                hour.Day,
                hour.Hour,
                campaign,
                answer.Keyword.AdGroup.Id,
                answer.Keyword.Keyword.Id,
                answer.Ad.Id,
                device,
                site,
                0,
                0,
                0,
                0,
                0
            );
        _rows[key] = row with
        {
            Impressions = row.Impressions + 1,
            Clicks = row.Clicks + (clicked ? 1 : 0),
            Cost = row.Cost + price,
            Conversions = row.Conversions + (converted ? 1 : 0),
            Value = row.Value + value,
        };
        var termKey = (term, answer.Keyword.Keyword.Id);
        var searched =
            _terms.GetValueOrDefault(termKey)
            ?? new SearchTermRow(
                hour.Day,
                term,
                campaign,
                answer.Keyword.AdGroup.Id,
                answer.Keyword.Keyword.Id,
                0,
                0,
                0,
                0,
                0
            );
        _terms[termKey] = searched with
        {
            Impressions = searched.Impressions + 1,
            Clicks = searched.Clicks + (clicked ? 1 : 0),
            Cost = searched.Cost + price,
            Conversions = searched.Conversions + (converted ? 1 : 0),
            Value = searched.Value + value,
        };
    }

    private Device DeviceOf(double share) =>
        share < market.Devices.Phone ? Device.Phone
        : share < market.Devices.Phone + market.Devices.Desktop ? Device.Desktop
        : Device.Tablet;

    private SiteKinds SiteOf(double share) =>
        share < market.Sites.Search ? SiteKinds.Search
        : share < market.Sites.Search + market.Sites.Partners ? SiteKinds.Partners
        : SiteKinds.Content;
}
