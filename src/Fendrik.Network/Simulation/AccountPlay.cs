using Fendrik.Core.Accounts;
using Fendrik.Core.Auctions;
using Fendrik.Core.Serving;
using Fendrik.Network.Simulation.Beside;
using Fendrik.Network.Simulation.Combining;
using Fendrik.Network.Simulation.Counting;
using Fendrik.Network.Simulation.People;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation;

/// <summary>
/// Plays an account hour by hour, in the order of the seconds: who searches, which keyword answers, the auction, the page as people
/// go through it, the click, the visit. Every figure comes out of the rules in Core; chance decides only what people do.
/// </summary>
public sealed class AccountPlay
{
    private readonly World _world;
    private readonly ulong _seed;
    private readonly AccountDay _days;
    private readonly Crowd _crowd;
    private readonly Visit _visit;
    private readonly ConversionDesk _counting;
    private readonly Auctioneer _auctioneer;
    private readonly NetworkProfile _network;
    private readonly Dictionary<Need, IReadOnlyList<Rival>> _rivals;
    private readonly Dictionary<Need, Auction> _auctions;
    private readonly Dictionary<int, string> _names;
    private readonly Surrounding _surrounding;
    private readonly MadeSearches _searches;
    private Appeal _appeal = new();
    private LiveAccount _live;
    private HourKept _kept = new(0, default, default);

    /// <param name="world">The world.</param>
    /// <param name="brought">Needs that the account brings, with who else bids for them.</param>
    /// <param name="live">The account.</param>
    /// <param name="seed">Its seed.</param>
    /// <param name="days">Its days.</param>
    /// <param name="books">Quality, budgets, and how extensions and lines of ads did.</param>
    /// <param name="inTouch">People who got in touch already: they search no more.</param>
    /// <param name="clicked">Names of the searches of the last weeks in which an ad of the account was clicked.</param>
    /// <param name="crowding">People for each person of the world.</param>
    public AccountPlay(
        World world,
        IReadOnlyList<BroughtNeed> brought,
        LiveAccount live,
        ulong seed,
        AccountDay days,
        (
            QualityBook Quality,
            BudgetBook Budgets,
            ClickBook<(ItemKind Kind, long Id)> Extensions,
            ClickBook<LineKey> Lines,
            ClickBook<long> Ads
        ) books,
        ISet<ulong> inTouch,
        ISet<ulong> clicked,
        double crowding = 1
    )
    {
        (_world, _live, _seed, _days) = (world, live, seed, days);
        (Quality, Budgets) = (books.Quality, books.Budgets);
        Beside = new BesidePlay(live, books.Extensions);
        Ads = new AdPlay(live, books.Lines, books.Ads);
        InTouch = inTouch;
        _surrounding = new Surrounding(world, live.Served.Network.PastVisitors, clicked);
        _searches = new MadeSearches(world, _surrounding, seed);
        _network = live.Served.Network;
        Needs = [.. world.Needs, .. brought.Select(each => each.Need)];
        _crowd = new Crowd(world, Needs, seed, days, crowding);
        _visit = new Visit(world, days);
        _counting = new ConversionDesk(days);
        _auctioneer = new Auctioneer(world, _network, live.Served.Currency, seed);
        _rivals = world.Needs.ToDictionary(need => need, need => world.RivalsOf(_network.Id, need.Id));
        foreach (var each in brought)
        {
            _rivals.Add(each.Need, each.Rivals);
        }

        _names = _rivals
            .Values.SelectMany(rivals => rivals)
            .DistinctBy(rival => rival.Number)
            .ToDictionary(rival => rival.Number, rival => rival.Name);
        _auctions = Needs.ToDictionary(need => need, _auctioneer.For);
        Budgets.Strategies.GoOnWith(live.Keywords.Values);
    }

    /// <summary>All needs: those of the world and those that the account brings.</summary>
    public IReadOnlyList<Need> Needs { get; }

    /// <summary>Quality scores.</summary>
    public QualityBook Quality { get; }

    /// <summary>Budgets.</summary>
    public BudgetBook Budgets { get; }

    /// <summary>What shows beside ads.</summary>
    public BesidePlay Beside { get; }

    /// <summary>What people see of ads.</summary>
    public AdPlay Ads { get; }

    /// <summary>People who got in touch.</summary>
    public ISet<ulong> InTouch { get; }

    /// <summary>The account.</summary>
    public LiveAccount Live => _live;

    /// <summary>The day in the account's time zone that is being played; none before the first.</summary>
    public DateOnly? Day { get; set; }

    /// <summary>Name of the rival of a number.</summary>
    public string NameOfRival(int number) => _names[number];

    /// <summary>Goes on with the account as it is after a change.</summary>
    public void GoOnWith(LiveAccount live)
    {
        _live = live;
        _appeal = new Appeal();
        Beside.GoOnWith(live);
        Ads.GoOnWith(live);
        Quality.GoOnWith(live.Keywords);
        Budgets.Strategies.GoOnWith(live.Keywords.Values);
    }

    /// <summary>The auction for a need.</summary>
    public Auction AuctionFor(Need? need) => need is null ? _auctioneer.For(null) : _auctions[need];

    /// <summary>Who else bids for a need.</summary>
    public IReadOnlyList<Rival> RivalsFor(Need? need) => need is null ? [] : _rivals[need];

    /// <summary>Plays an hour and tells what it left behind, and how campaigns went through it.</summary>
    /// <param name="hour">Hours since 1970.</param>
    public (HourKept Kept, IReadOnlyList<CampaignHour> Campaigns) Play(long hour)
    {
        var clock = new HourClock(_days, hour);
        _kept = new HourKept(hour, clock.DayAt(0), clock.DayAt(HourClock.LastSecond));
        BeginDay(clock.DayAt(0));
        Budgets.BeginHour(hour, _live.Campaigns);
        foreach (var searching in _crowd.In(hour))
        {
            BeginDay(clock.DayAt(searching.Second));
            Play(searching, clock);
        }

        return (_kept, Budgets.EndHour());
    }

    /// <summary>Who makes a search, and what it is.</summary>
    /// <param name="searching">The search.</param>
    /// <param name="clock">Its hour.</param>
    public (Person Person, Search Search) SearchOf(in Searching searching, HourClock clock) =>
        _searches.Of(searching, clock);

    /// <summary>What a search comes to, without anybody looking at it.</summary>
    /// <param name="searching">The search.</param>
    /// <param name="clock">Its hour.</param>
    public PlayedSearch Answer(in Searching searching, HourClock clock)
    {
        var (person, search) = SearchOf(searching, clock);
        return Held(
            search,
            [person.Home.Region, person.Wanted.Region],
            searching.Need,
            clock.WallAt(searching.Second),
            new Chance(_seed, searching.Name)
        ) with
        {
            Person = person,
        };
    }

    /// <summary>What others bid for a search.</summary>
    public IEnumerable<(Rival Rival, Bid Bid)> RivalBids(
        Need? need,
        IReadOnlyCollection<string>? regions,
        DateOnly day,
        double clock,
        Chance chance
    ) => _auctioneer.Offers(RivalsFor(need), regions, day, clock, chance);

    /// <summary>What a search comes to when it is made in these regions, or nowhere in particular, at this time of day.</summary>
    public PlayedSearch Held(
        Search search,
        IReadOnlyCollection<string>? regions,
        Need? need,
        double clock,
        in Chance chance
    )
    {
        var luck = chance;
        var answer = _live.Served.Answer(
            search,
            campaign => Budgets.Of(campaign, luck),
            chance.Share(Purpose.Ad),
            (keyword, _) => Quality.ScoreOf(keyword, search.Day),
            Ads.WorthOfAds(luck),
            Budgets.StrategyOf
        );
        if (answer.Chosen is not { } chosen)
        {
            return new PlayedSearch(null, search, answer, []);
        }

        var bids = new List<(Rival?, Bid)>(RivalsFor(need).Count + 1)
        {
            (
                null,
                new Bid(
                    _live.Served.Currency.ToMinor(chosen.Bid!.Bid),
                    chosen.Quality!.Value,
                    chance.Number(Purpose.Lot)
                )
            ),
        };
        bids.AddRange(
            RivalBids(need, regions, search.Day, clock, chance).Select(each => ((Rival?)each.Rival, each.Bid))
        );
        return new PlayedSearch(null, search, answer, bids);
    }

    /// <summary>Begins a day, when it is another than the one before: quality is estimated anew, budgets are whole again.</summary>
    public void BeginDay(DateOnly day)
    {
        if (Day is { } before && before != day)
        {
            Quality.EndDay(day);
            Budgets.EndDay();
            Beside.EndDay();
            Ads.EndDay();
            // What the ads were liked for beside what showed then is forgotten with it.
            _appeal = new Appeal();
        }

        Day = day;
        Budgets.Strategies.BeginDay(day);
    }

    private void Play(in Searching searching, HourClock clock)
    {
        _kept.Searches++;
        if (InTouch.Contains(Chance.PersonOf(searching.Name)))
        {
            return;
        }

        var played = Answer(searching, clock);
        if (played.Answer.Chosen is not { } chosen)
        {
            if (played.Answer.KeptByBudget is { } kept)
            {
                StandingOf(played.Search.Day, clock.HourAt(searching.Second), SpotOf(kept.Keyword)).LostToBudget++;
                if (Budgets.Of(kept.Keyword.Campaign, new Chance(_seed, searching.Name)).TakesPart)
                {
                    Budgets.Stop(kept.Keyword.Campaign.Id, searching.Second);
                }
            }

            return;
        }

        Show(searching, clock, played, chosen);
    }

    private void Show(in Searching searching, HourClock clock, PlayedSearch played, Candidate chosen)
    {
        var chance = new Chance(_seed, searching.Name);
        var person = played.Person!;
        var (order, placements) = played.Hold(AuctionFor(searching.Need));
        var won = placements.Length;
        var hour = clock.HourAt(searching.Second);
        var spot = SpotOf(chosen.Keyword);
        var standing = StandingOf(played.Search.Day, hour, spot);
        var own = -1;
        for (var at = 0; at < won; at++)
        {
            own = placements[at].Bidder == 0 ? at : own;
        }

        if (own < 0)
        {
            standing.LostToRank++;
            return;
        }

        var placement = placements[own];
        standing.Impressions++;
        standing.Top += placement.IsTop ? 1 : 0;
        standing.First += own == 0 ? 1 : 0;
        standing.Places += own + 1;
        var site = _world.Sites.First(each => each.Kind == played.Search.Site);
        var seen = Ads.Compose(chosen.Keyword, chosen.Ad!, played.Search, chance);
        // A call ad is its number, and nothing else.
        var beside = seen.Ad.Calls is null
            ? Beside.Of(chosen.Keyword.AdGroup, played.Search, clock.WallAt(searching.Second), chance)
            : BesideAd.Nothing;
        var fit = (double)_appeal.Fit(seen, played.Answer.Words);
        var top = placements.Count(each => each.IsTop);
        Span<SeenAd> page = stackalloc SeenAd[won];
        Span<int> bidders = stackalloc int[won];
        for (var at = 0; at < won; at++)
        {
            var each = placements[at];
            var looks = _world.Attention(played.Search.Device, each.IsTop, each.IsTop ? at + 1 : at + 1 - top);
            var rival = played.Bids[each.Bidder].Rival;
            page[at] = new SeenAd(
                looks,
                rival is null
                    ? _appeal.Likelihood(searching.Need, person, site, seen, fit, beside)
                    : Math.Min(0.75, searching.Need.Clicks * rival.Appeal * site.Clicks)
            );
            bidders[at] = rival?.Number ?? 0;
            if (rival is not null)
            {
                var key = (played.Search.Day, spot, rival.Number);
                var (with, above) = _kept.Rivals.GetValueOrDefault(key);
                _kept.Rivals[key] = (with + 1, above + (at < own ? 1 : 0));
            }
        }

        var clicked = Examination.Clicked(page, bidders, chance) == own;
        var expected = searching.Need.Clicks * page[own].Looks * site.Clicks;
        Quality.Note(chosen.Keyword, clicked, expected, fit);
        var on = clicked ? BesidePlay.ClickedOf(beside, chance) : null;
        var shown = new ShownAd(
            searching.Name,
            played.Search.Day,
            hour,
            clock.Start + searching.Second,
            spot,
            chosen.Ad!.Id,
            played.Search.Device,
            site.Kind,
            own + 1,
            placement.IsTop,
            placement.Price,
            chosen.Quality!.Value,
            SetBy(placement, order, played.Bids),
            !clicked ? ClickKind.None
                : seen.Ad.Calls is not null ? ClickKind.Call
                : BesidePlay.KindOf(on),
            person.Home.Number,
            person.Age,
            person.Gender,
            expected,
            fit
        );
        _kept.Shown.Add(shown);
        Beside.Tally(_kept.Beside, shown, beside, on);
        Ads.Tally(_kept.Combinations, shown, seen);
        var reached = ReachedKey.Of(shown, played.Search, chosen.Keyword.Campaign, _live.Served, won > 1);
        foreach (var key in reached)
        {
            ReachedKey.Tally(_kept.Reached, key, shown);
        }

        var term = string.Join(' ', played.Answer.Words);
        _kept.Terms.Add(term);
        if (clicked)
        {
            var bought = Budgets.BoughtWith(played, chosen);
            Budgets.Pay(spot.CampaignId, _live.Served.Currency.FromMinor(placement.Price), bought?.Units ?? 0);
            _surrounding.Click(searching.Name);
            Visit(searching, played, chosen, site, (shown, seen, beside, on, reached, bought), term, chance);
        }
    }

    private void Visit(
        in Searching searching,
        PlayedSearch played,
        Candidate chosen,
        SiteKind site,
        (
            ShownAd Ad,
            ComposedAd Seen,
            BesideAd Beside,
            ConsideredExtension? On,
            IReadOnlyList<ReachedKey> Reached,
            BoughtClick? Bought
        ) shown,
        string term,
        in Chance chance
    )
    {
        var address =
            shown.On?.Extension.LandingPage ?? chosen.Keyword.Keyword.LandingPage ?? shown.Seen.LandingPage ?? "";
        var clickedAt = DateTimeOffset.FromUnixTimeSeconds(shown.Ad.At);
        var calls = shown.Ad.Click == ClickKind.Call;
        var result = _visit.Play(searching, played.Person!, site, address, clickedAt, calls, chance);
        if (result.End == VisitEnd.InTouch)
        {
            InTouch.Add(Chance.PersonOf(searching.Name));
        }

        var value = result.End == VisitEnd.InTouch ? _auctioneer.Amount(result.Value) : 0;
        var measured = (shown.Seen.Ad as CallAd)?.Measured ?? shown.On?.Extension.Measured ?? YesNo.Yes;
        var page = calls ? null : _world.PageOf(address);
        var conversions = _counting.CountedOf(
            _live.Goals,
            chosen.Keyword.Campaign.Goals,
            new EndedVisit(result, value, page, address, clickedAt, calls, measured == YesNo.Yes)
        );
        var visited = new Visited(
            shown.Ad,
            term,
            result,
            value,
            shown.Beside,
            new CombinationKey(shown.Ad.Day, shown.Ad.Spot, shown.Seen),
            shown.Reached,
            shown.Bought,
            conversions,
            ConversionDesk.IsTracked(page, calls, measured == YesNo.Yes) ? Simulation.Visit.CallsOf(result, chance) : []
        );
        _kept.Visits.Add(visited);
        Budgets.Strategies.Note(visited.Known);
    }

    /// <summary>Number of the rival who set a price; 0 for the reserve, −1 for the lowest price of a click.</summary>
    internal static int SetBy(in Placement placement, int[] order, IReadOnlyList<(Rival? Rival, Bid Bid)> bids) =>
        placement.SetBy switch
        {
            PriceSetter.NextBidder => bids[order[placement.Place]].Rival?.Number ?? 0,
            PriceSetter.Reserve => 0,
            PriceSetter.Floor => -1,
        };

    private static Spot SpotOf(ServedKeyword keyword) =>
        new(keyword.Campaign.Id, keyword.AdGroup.Id, keyword.Keyword.Id);

    private Standing StandingOf(DateOnly day, int hour, Spot spot)
    {
        var key = (day, hour, spot);
        if (!_kept.Standings.TryGetValue(key, out var standing))
        {
            _kept.Standings.Add(key, standing = new Standing());
        }

        return standing;
    }
}
