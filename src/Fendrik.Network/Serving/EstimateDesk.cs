using System.IO.Hashing;
using System.Text;
using Fendrik.Core.Accounts;
using Fendrik.Core.Auctions;
using Fendrik.Core.Bidding;
using Fendrik.Core.Matching;
using Fendrik.Core.Serving;
using Fendrik.Network.Simulation;
using Fendrik.Network.Simulation.People;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Serving;

/// <summary>
/// Estimates what keywords would bring: the searches of the week before against the bids that others made. As the trade knows, it errs, and
/// mostly upwards: each keyword's estimate is off by a factor of its own, and what is rare is not told of.
/// </summary>
public sealed class EstimateDesk(NetworkStore store)
{
    private const int HoursOfWeek = 7 * 24;
    private const int SecondsOfHour = 3_600;

    /// <summary>A keyword that is not there yet is taken to be as good as most.</summary>
    private const int UsualQuality = 6;

    /// <summary>Fewer impressions in a week are not told of.</summary>
    private const int LeastImpressions = 8;

    /// <summary>How far estimates err: the spread and the mean of the logarithm of their factor.</summary>
    private const double SpreadOfError = 0.25;
    private const double MeanOfError = 0.12;

    /// <summary>The share of searches in which the bid for a place wins it.</summary>
    private const double Mostly = 0.6;

    /// <summary>Estimates keywords.</summary>
    /// <returns>An estimate for each, in their order; none when there is no such account.</returns>
    public async Task<IReadOnlyList<NetworkEstimate>?> EstimateAsync(
        string accountId,
        EstimateWish wish,
        CancellationToken cancellation
    )
    {
        await using var connection = await store.OpenAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        if (await NetworkStore.FindAsync(connection, accountId) is not { } account)
        {
            return null;
        }

        var play = (await PlaySession.OpenAsync(connection, account, World.Shipped)).Play;
        var days = new AccountDay(account.TimeZone);
        var end = account.Clock.ToUnixTimeSeconds() / SecondsOfHour;
        play.BeginDay(days.At(account.Clock).Day);
        var sums = wish.Keywords.Select(_ => new Sum(wish.Bids.Count)).ToArray();
        var campaign = wish.CampaignId is { } id ? play.Live.Campaigns.FirstOrDefault(each => each.Id == id) : null;
        var reach = play.Live.Served.Keywords.Reach;
        var index = new KeywordIndex<int>(wish.Keywords.Select((each, at) => (at, each.Text, each.Match)), reach);
        var crowd = new Crowd(World.Shipped, play.Needs, (ulong)account.Seed, days);
        for (var hour = end - HoursOfWeek; hour < end; hour++)
        {
            cancellation.ThrowIfCancellationRequested();
            var clock = new HourClock(days, hour);
            foreach (var searching in crowd.In(hour))
            {
                var (person, search) = play.SearchOf(searching, clock);
                var found = index.Find(reach.WordsOf(search.Text)).Distinct().ToArray();
                if (found.Length == 0 || campaign is not null && !Shows(play.Live.Served, campaign, search))
                {
                    continue;
                }

                var auction = play.AuctionFor(searching.Need);
                Bid[] rivals =
                [
                    .. play.RivalBids(
                            searching.Need,
                            [person.Home.Region, person.Wanted.Region],
                            search.Day,
                            clock.WallAt(searching.Second),
                            new Chance((ulong)account.Seed, searching.Name)
                        )
                        .Select(each => each.Bid),
                ];
                foreach (var at in found)
                {
                    Hold(play, searching.Need, search, campaign, wish, at, (auction, rivals), sums[at]);
                }
            }
        }

        return
        [
            .. wish.Keywords.Select(
                (keyword, at) => Told(keyword, wish.Bids, sums[at], play.Live.Served.Currency, (ulong)account.Seed)
            ),
        ];
    }

    private static bool Shows(ServedAccount served, Campaign campaign, Search search) =>
        ServedAccount.OfReach(campaign, search) is null && served.Places.Of(campaign, search).Hindrance is null;

    private static void Hold(
        AccountPlay play,
        Need need,
        Search search,
        Campaign? campaign,
        EstimateWish wish,
        int at,
        (Auction Auction, Bid[] Rivals) page,
        Sum sum
    )
    {
        var currency = play.Live.Served.Currency;
        var live = wish.Keywords[at].KeywordId is { } id ? play.Live.Keywords.GetValueOrDefault(id) : null;
        var quality = live is null ? UsualQuality : play.Quality.ScoreOf(live, search.Day);
        var factor = FactorOf(play.Live.Served, campaign, live, search);
        if (factor == 0)
        {
            return;
        }

        sum.ToFirstPage.Add(currency.FromMinor(page.Auction.AmountToWin(page.Rivals, quality, top: false)) / factor);
        sum.ToTop.Add(currency.FromMinor(page.Auction.AmountToWin(page.Rivals, quality, top: true)) / factor);
        var site = World.Shipped.Sites.First(each => each.Kind == search.Site);
        Span<int> order = stackalloc int[page.Rivals.Length + 1];
        Span<Placement> placements = stackalloc Placement[page.Auction.Places];
        Bid[] bids = [default, .. page.Rivals];
        for (var bid = 0; bid < wish.Bids.Count; bid++)
        {
            bids[0] = new Bid(currency.ToMinor(currency.Round(wish.Bids[bid] * factor)), quality, ulong.MaxValue / 2);
            var (_, won) = page.Auction.Run(bids, order, placements);
            var top = 0;
            for (var place = 0; place < won; place++)
            {
                top += placements[place].IsTop ? 1 : 0;
                if (placements[place].Bidder == 0)
                {
                    var isTop = placements[place].IsTop;
                    var clicks =
                        need.Clicks
                        * site.Clicks
                        * World.Shipped.Attention(search.Device, isTop, isTop ? place + 1 : place + 1 - top);
                    sum.Weeks[bid].Impressions++;
                    sum.Weeks[bid].Clicks += clicks;
                    sum.Weeks[bid].Cost += clicks * (double)currency.FromMinor(placements[place].Price);
                }
            }
        }
    }

    /// <summary>What the modifiers of a campaign make of a bid for a search.</summary>
    private static decimal FactorOf(ServedAccount served, Campaign? campaign, ServedKeyword? live, Search search)
    {
        if (campaign is null)
        {
            return 1;
        }

        var percents = BidModifiers.Of(campaign, live?.AdGroup, search).Modifiers.Select(each => each.Percent);
        var place = served.Places.Of(campaign, search).Modifier?.Percent ?? 0;
        return percents.Append(place).Aggregate(1m, (product, percent) => product * (1 + percent / 100));
    }

    private static NetworkEstimate Told(
        AskedKeyword keyword,
        IReadOnlyList<decimal> bids,
        Sum sum,
        Currency currency,
        ulong seed
    )
    {
        if (sum.ToFirstPage.Count < LeastImpressions)
        {
            return new NetworkEstimate(
                keyword.Text,
                keyword.Match,
                keyword.KeywordId,
                "Too few people search for it to tell.",
                [],
                null,
                null
            );
        }

        var hash = XxHash64.HashToUInt64(Encoding.UTF8.GetBytes($"{keyword.Text.ToLowerInvariant()}|{keyword.Match}"));
        var error = Math.Exp(MeanOfError + SpreadOfError * new Chance(seed, hash).Normal(Purpose.Estimate));
        return new NetworkEstimate(
            keyword.Text,
            keyword.Match,
            keyword.KeywordId,
            null,
            [
                .. sum.Weeks.Select(
                    (week, at) =>
                        new EstimatedWeek(
                            bids[at],
                            Rough(week.Impressions * error),
                            Rough(week.Clicks * error),
                            currency.Round((decimal)Rough(week.Cost * error))
                        )
                ),
            ],
            BidFor(sum.ToFirstPage, currency),
            BidFor(sum.ToTop, currency)
        );
    }

    private static decimal BidFor(List<decimal> amounts, Currency currency)
    {
        amounts.Sort();
        return currency.Round(amounts[(int)(Mostly * (amounts.Count - 1))]);
    }

    /// <summary>Networks tell no more than two digits.</summary>
    private static double Rough(double value)
    {
        if (value <= 0)
        {
            return 0;
        }

        var unit = Math.Pow(10, Math.Floor(Math.Log10(value)) - 1);
        return Math.Round(value / unit) * unit;
    }

    private sealed class Sum(int bids)
    {
        public Week[] Weeks { get; } = [.. Enumerable.Range(0, bids).Select(_ => new Week())];
        public List<decimal> ToFirstPage { get; } = [];
        public List<decimal> ToTop { get; } = [];
    }

    private sealed class Week
    {
        public double Impressions { get; set; }
        public double Clicks { get; set; }
        public double Cost { get; set; }
    }
}
