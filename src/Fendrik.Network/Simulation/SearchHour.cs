using Fendrik.Core.Accounts;
using Fendrik.Core.Auctions;
using Fendrik.Core.Bidding;
using Fendrik.Core.Budgets;
using Fendrik.Core.Changes;
using Fendrik.Core.Matching;

namespace Fendrik.Network.Simulation;

/// <summary>What of a day is gone when an hour begins: places the hour in budgets and reports.</summary>
public readonly record struct HourOfDay(DateOnly Day, int Hour, int HoursBegun, int HoursInDay, long AbsoluteHour);

/// <summary>
/// Plays one hour of searches for one account: who searches, which keyword answers, the auction, the click, the
/// conversion. Every figure comes out of the rules in Core; chance decides only what people do.
/// </summary>
public sealed class SearchHour(Market market, ServedAccount account, ulong seed, Dictionary<long, decimal> spentToday)
{
    private const string OwnName = "You";

    /// <summary>How much likelier a click is in the first place than further down.</summary>
    private static readonly double[] PlaceFactor = [1.0, 0.62, 0.41, 0.28];

    private readonly Auction _auction = new(
        account.Network.Places,
        account.Network.MinimumCpc(account.Currency),
        account.Currency.SmallestAmount,
        account.Currency
    );

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
            var chance = Chance.Of(seed, theme, hour.AbsoluteHour);
            var searches = chance.CountAround(market.Themes[theme].SearchesPerDay * share);
            for (var search = 0; search < searches; search++)
            {
                Search(market.Themes[theme], Chance.Of(seed, theme, hour.AbsoluteHour, search + 1), hour);
            }
        }

        return _rows.Values;
    }

    private void Search(Theme theme, Chance chance, HourOfDay hour)
    {
        // All that the person is and does is drawn first, in a fixed order: what an account bids changes none of it.
        var pattern = chance.Pick(theme.Searches, each => each.Weight);
        var place = chance.Pick(market.Places, each => each.Weight);
        var device = DeviceOf(chance.NextShare());
        var site = SiteOf(chance.NextShare());
        var (adChoice, clickLuck, conversionLuck) = (chance.NextShare(), chance.NextShare(), chance.NextShare());
        var words = Words.Of(pattern.Text.Replace("{place}", place.Name, StringComparison.Ordinal));

        if (BestAnswer(words, device, site, hour, adChoice) is not { } answer)
        {
            return;
        }

        var bidders = new List<Bidder> { answer.Bidder };
        foreach (var rival in theme.Rivals)
        {
            var (present, mood) = (chance.Happens(rival.Active), 0.7 + 0.6 * chance.NextShare());
            if (present)
            {
                bidders.Add(new Bidder(rival.Name, account.Currency.Round(rival.Bid * (decimal)mood), rival.Quality));
            }
        }

        var placement = _auction.Run(bidders).FirstOrDefault(each => ReferenceEquals(each.Bidder, answer.Bidder));
        if (placement is null)
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
        var clicked = clickLuck < clickRate;
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
        var converted = clicked && conversionLuck < conversionRate;
        Count(
            answer,
            string.Join(' ', words),
            device,
            site,
            hour,
            clicked ? placement.Price : 0,
            clicked,
            converted ? theme.Value : 0,
            converted
        );
    }

    private sealed record Answer(ServedKeyword Keyword, TextAd Ad, Bidder Bidder, QualityScore Quality);

    private Answer? BestAnswer(
        IReadOnlyList<string> words,
        Device device,
        SiteKinds site,
        HourOfDay hour,
        double adChoice
    )
    {
        var candidates = account.Keywords.Find(words);
        if (candidates.Count == 0)
        {
            return null;
        }

        var negatives = account.Negatives.Find(words);
        Answer? best = null;
        foreach (var candidate in candidates.OrderBy(each => each.Keyword.Match).ThenBy(each => each.Keyword.Id))
        {
            if (
                MayShow(candidate, site, hour.Day)
                && !negatives.Exists(negative => Blocks(negative, candidate))
                && BidOf(candidate) is { } bid
                && DailyBudget.Allows(
                    candidate.Campaign.DailyBudget ?? 0,
                    spentToday.GetValueOrDefault(candidate.Campaign.Id),
                    bid,
                    hour.HoursBegun,
                    hour.HoursInDay
                )
            )
            {
                var ad = AdFor(candidate, device, adChoice);
                var quality = QualityOf(candidate, ad, words);
                var bidder = new Bidder(OwnName, bid, quality.Score);
                if (best is null || bidder.Rank > best.Bidder.Rank)
                {
                    best = new Answer(candidate, ad, bidder, quality);
                }
            }
        }

        return best;
    }

    private static bool MayShow(ServedKeyword keyword, SiteKinds site, DateOnly day) =>
        keyword.Campaign.Networks.HasFlag(site)
        && (keyword.Campaign.StartDate is not { } start || start <= day)
        && (keyword.Campaign.EndDate is not { } end || end >= day);

    private static bool Blocks(PlacedNegative negative, ServedKeyword keyword) =>
        negative.Reaches(keyword.Campaign.Id, keyword.AdGroup.Id);

    private decimal? BidOf(ServedKeyword keyword) =>
        BidStack.Of(keyword.Keyword.MaxCpc, keyword.AdGroup.MaxCpc, [], account.Currency)?.Bid;

    private static TextAd AdFor(ServedKeyword keyword, Device device, double choice)
    {
        var preferred = keyword.Ads.Where(ad => ad.DevicePreference == device).ToArray();
        var among = preferred.Length > 0 ? preferred : [.. keyword.Ads.Where(ad => ad.DevicePreference is null)];
        among = among.Length > 0 ? among : [.. keyword.Ads];
        return among[(int)(choice * among.Length)];
    }

    private QualityScore QualityOf(ServedKeyword keyword, TextAd ad, IReadOnlyList<string> words)
    {
        var url = keyword.Keyword.LandingPage ?? ad.LandingPage ?? "";
        var page =
            market.Pages.FirstOrDefault(each => url.Contains(each.Path, StringComparison.OrdinalIgnoreCase))?.List
            ?? Words.Of(url);
        var likelihood = keyword.Keyword.Match switch
        {
            MatchType.Exact => 0.9m,
            MatchType.Phrase => 0.75m,
            MatchType.AllWords => 0.65m,
            _ => 0.45m,
        };
        return new QualityScore(
            likelihood,
            QualityScore.ShareOfWords(words, account.WordsOf(ad)),
            QualityScore.ShareOfWords(words, page)
        );
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
