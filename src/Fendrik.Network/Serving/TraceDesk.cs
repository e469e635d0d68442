using System.Globalization;
using System.IO.Hashing;
using System.Text;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Auctions;
using Fendrik.Core.Serving;
using Fendrik.Network.Simulation;
using Fendrik.Network.Simulation.People;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Serving;

/// <summary>Says what the network would do with a search now, or what it did with one of the past, step by step.</summary>
public sealed class TraceDesk(NetworkStore store)
{
    private const int SecondsOfHour = 3_600;
    private const int MinutesOfHour = 60;

    /// <summary>Traces a search on the live copy.</summary>
    /// <returns>The trace; none when there is no such account.</returns>
    public async Task<SearchTrace?> TraceAsync(string accountId, TraceWish wish, CancellationToken cancellation)
    {
        await using var connection = await store.OpenAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        if (await NetworkStore.FindAsync(connection, accountId) is not { } account)
        {
            return null;
        }

        var session = await PlaySession.OpenAsync(connection, account, World.Shipped);
        var days = new AccountDay(account.TimeZone);
        var hour = account.Clock.ToUnixTimeSeconds() / SecondsOfHour;
        var clock = new HourClock(days, hour);
        session.Play.BeginDay(clock.DayAt(0));
        session.Play.Budgets.BeginHour(hour, session.Play.Live.Campaigns);
        var words = session.Play.Live.Served.Keywords.Reach.WordsOf(wish.Text);
        var need = NeedFinder.Of(session.Play.Needs, words);
        // The same search has the same luck all through an hour, whatever it is answered with.
        var chance = new Chance((ulong)account.Seed, Chance.NameOf(hour, (1 << 9) - 1, HashOf(words)));
        var played = session.Play.Held(
            new Search(
                wish.Text,
                wish.Device,
                wish.Site,
                clock.DayAt(0),
                (int)((wish.Hour ?? clock.WallAt(0)) * MinutesOfHour),
                wish.Place,
                wish.Page,
                wish.Audiences,
                Language: wish.Tag
            ),
            World.Shipped.Places.FirstOrDefault(each => each.Name == wish.Place) is { } place ? [place.Region] : null,
            need,
            wish.Hour ?? clock.WallAt(0),
            chance
        );
        return Told(session.Play, played, need, wish.Hour ?? clock.WallAt(0), chance);
    }

    /// <summary>Traces a search of the past, made again from its name.</summary>
    /// <returns>The trace; none when there is no such account or the account had no such search.</returns>
    /// <exception cref="PastGoneException">It cannot be made again.</exception>
    public async Task<SearchTrace?> PastAsync(string accountId, long name, CancellationToken cancellation)
    {
        await using var connection = await store.OpenAsync(cancellation);
        if (await NetworkStore.FindAsync(connection, accountId) is not { } account)
        {
            return null;
        }

        return await new PastSearches(connection, account, World.Shipped).FindAsync((ulong)name) is { } past
            ? await ToldAsync(connection, account, past)
            : null;
    }

    private static async Task<SearchTrace> ToldAsync(
        Npgsql.NpgsqlConnection connection,
        NetworkAccount account,
        PastSearch past
    )
    {
        var hour = new HourClock(new AccountDay(account.TimeZone), past.At.ToUnixTimeSeconds() / SecondsOfHour);
        var trace = Told(
            past.Play,
            past.Played,
            past.Searching.Need,
            hour.WallAt(past.Searching.Second),
            new Chance((ulong)account.Seed, past.Searching.Name)
        );
        var visit = await connection.QueryFirstOrDefaultAsync<(short Outcome, short? Way, int Seconds)?>(
            "select outcome, way, seconds from visit where account_id = @Id and search = @name",
            new { account.Id, name = (long)past.Searching.Name }
        );
        // Who gets in touch is counted by the account's actions, or not: the trace says which.
        var counted = await connection.ExecuteScalarAsync<bool>(
            "select exists (select from conversion where account_id = @Id and search = @name and counts and not taken_back)",
            new { account.Id, name = (long)past.Searching.Name }
        );
        var clicked = await connection.QueryFirstOrDefaultAsync<short?>(
            "select click from shown where account_id = @Id and search = @name",
            new { account.Id, name = (long)past.Searching.Name }
        );
        var person = past.Played.Person!;
        return trace with
        {
            Past = new TracedPast(
                past.Searching.Name.ToString(CultureInfo.InvariantCulture),
                past.At,
                person.Home.Name,
                person.Home.Country,
                past.Played.Search.Device,
                past.Played.Search.Site,
                clicked is null ? null
                    : visit is { } seen ? InWords((VisitEnd)seen.Outcome, (Way?)seen.Way, seen.Seconds, counted)
                    : "Nobody clicked."
            ),
        };
    }

    private static string InWords(VisitEnd end, Way? way, int seconds, bool counted) =>
        "Clicked. "
        + end switch
        {
            VisitEnd.Accident => "The click was not meant.",
            VisitEnd.Down => "The page could not be reached.",
            VisitEnd.TooSlow => "The page took too long to load.",
            VisitEnd.NotWanted => "The person wanted nothing that is sold there.",
            VisitEnd.TooFar => "It was too far away for the person.",
            VisitEnd.TooDear => "It cost more than the person would pay.",
            VisitEnd.Undecided => "The person went away undecided.",
            VisitEnd.CouldNot =>
                $"The person wanted to get in touch by {InWords(way)}, which did not work on the device.",
            VisitEnd.Missed => "The person called, and nobody answered.",
            VisitEnd.Engaged => "The person called, and the line was engaged.",
            VisitEnd.ShortCall => $"The person called and talked for {seconds} seconds.",
            VisitEnd.InTouch => (
                way == Way.Call
                    ? $"The person called and talked for {seconds} seconds"
                    : $"The person got in touch by {InWords(way)}"
            ) + (counted ? ": a conversion." : ", which no goal of the campaign counts."),
        };

    private static string InWords(Way? way) =>
        way switch
        {
            Way.Call => "telephone",
            Way.Form => "the form",
            Way.Booking => "a booking",
            Way.Purchase => "a purchase",
            null => "no way",
        };

    private static int HashOf(IReadOnlyList<string> words) =>
        (int)(XxHash32.HashToUInt32(Encoding.UTF8.GetBytes(string.Join(' ', words))) & 0x0FFF_FFFF);

    private static SearchTrace Told(AccountPlay play, PlayedSearch played, Need? need, double clock, in Chance chance)
    {
        var served = play.Live.Served;
        var trace = SearchTrace.Of(
            played.Search,
            played.Answer,
            play.Live.Campaigns,
            served,
            played.Answer.Chosen?.Ad is { } ad ? play.Ads.WorthIn(ad, chance) : LineWorth.Unknown
        );
        if (played.Answer.Chosen is not { } chosen)
        {
            return trace;
        }

        if (chosen.Ad!.Calls is null)
        {
            trace = trace.WithBeside(play.Beside.Of(chosen.Keyword.AdGroup, played.Search, clock, chance).Considered);
        }

        var (auction, own) = new AuctionTrace(play.AuctionFor(need), served.Currency).Run(
            [
                .. played.Bids.Select(each => new NamedBid(
                    each.Rival?.Name ?? "You",
                    each.Bid,
                    each.Rival?.Headline,
                    each.Rival?.Description
                )),
            ],
            0
        );
        var quality = play.Quality.Of(chosen.Keyword, played.Search.Day);
        return trace.With(
            auction,
            own,
            new QualityScore(quality.Likelihood, quality.TextFit, quality.PageFit),
            served.Currency
        );
    }
}
