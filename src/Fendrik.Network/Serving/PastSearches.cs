using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Network.Simulation;
using Fendrik.Network.Simulation.People;
using Fendrik.Network.Worlds;
using Npgsql;

namespace Fendrik.Network.Serving;

/// <summary>A search of the past as it was.</summary>
/// <param name="Searching">The search.</param>
/// <param name="At">When it was made.</param>
/// <param name="Played">What it came to.</param>
/// <param name="Play">The account as it was.</param>
internal sealed record PastSearch(Searching Searching, DateTimeOffset At, PlayedSearch Played, AccountPlay Play);

/// <summary>
/// Makes searches of the past again from their names: the person and the words from chance, the account from its versions, quality and
/// budgets from what was written down. The day is not played for it.
/// </summary>
/// <param name="connection">To the network's database.</param>
/// <param name="account">The account.</param>
/// <param name="world">The world.</param>
internal sealed class PastSearches(NpgsqlConnection connection, NetworkAccount account, World world)
{
    private const int SecondsOfHour = 3_600;

    private readonly AccountDay _days = new(account.TimeZone);
    private (long Hour, DateOnly Day, AccountPlay Play)? _then;
    private (DateTimeOffset Moment, LiveAccount Live)? _live;
    private (int Needs, Crowd Crowd)? _crowd;

    /// <summary>The search of a name; none when nobody made it.</summary>
    /// <exception cref="PastGoneException">It cannot be made again.</exception>
    public async Task<PastSearch?> FindAsync(ulong name)
    {
        var (begun, number, person, ordinal) = Chance.Read(name);
        var needs = (await BroughtTrades.KnownAsync(connection, account.Id, world, long.MaxValue)).Select(each =>
            each.Need
        );
        if (world.Needs.Concat(needs).FirstOrDefault(each => each.Number == number) is not { } need)
        {
            return null;
        }

        var luck = new Chance((ulong)account.Seed, Chance.PersonOf(name));
        var times = Crowd.Of(need, begun, luck).Skip(ordinal).Take(1).ToArray();
        return
            times is [var (hour, second, stage)]
            && hour >= account.Start.ToUnixTimeSeconds() / SecondsOfHour
            && hour * SecondsOfHour + second < account.Clock.ToUnixTimeSeconds()
            && person
                < new Chance((ulong)account.Seed, Chance.NameOf(begun, number, 0)).CountAround(
                    Purpose.Searches,
                    new Crowd(world, [need], (ulong)account.Seed, _days).Expected(need, begun)
                )
            ? await AnswerAsync(hour, new Searching(name, need, stage, second))
            : null;
    }

    /// <summary>All searches of an hour of the past, as they were.</summary>
    /// <exception cref="PastGoneException">It cannot be made again.</exception>
    public async Task<IReadOnlyList<PastSearch>> InHourAsync(long hour)
    {
        var clock = new HourClock(_days, hour);
        var spent = new SpentInHour(clock);
        await spent.ReadAsync(connection, account.Id);
        var inTouch = await KeptReadings.InTouchSinceAsync(connection, account.Id, hour);
        var needs = (await ThenAsync(hour, clock.DayAt(0))).Needs;
        var found = new List<PastSearch>();
        foreach (var searching in CrowdOf(needs).In(hour))
        {
            // Who is in touch searches no more; the search that led to it was still made.
            if (
                !inTouch.TryGetValue(Chance.PersonOf(searching.Name), out var since)
                || (clock.Start + searching.Second, searching.Name).CompareTo(since) <= 0
            )
            {
                found.Add(await AnsweredAsync(searching, clock, spent));
            }
        }

        return found;
    }

    /// <summary>Whoever asks for hour after hour needs the weeks before them only once.</summary>
    private Crowd CrowdOf(IReadOnlyList<Need> needs)
    {
        if (_crowd is not { } known || known.Needs != needs.Count)
        {
            _crowd = known = (needs.Count, new Crowd(world, needs, (ulong)account.Seed, _days));
        }

        return known.Crowd;
    }

    private async Task<PastSearch> AnswerAsync(long hour, Searching searching)
    {
        var clock = new HourClock(_days, hour);
        var spent = new SpentInHour(clock);
        await spent.ReadAsync(connection, account.Id);
        return await AnsweredAsync(searching, clock, spent);
    }

    private async Task<PastSearch> AnsweredAsync(Searching searching, HourClock clock, SpentInHour spent)
    {
        // Where midnight falls within an hour, each side of it has the quality scores of its day.
        var play = await ThenAsync(clock.Hour, clock.DayAt(searching.Second));
        spent.Until(searching, play);
        return new PastSearch(
            searching,
            DateTimeOffset.FromUnixTimeSeconds(clock.Start + searching.Second),
            play.Answer(searching, clock),
            play
        );
    }

    /// <summary>What was spent on the day of a search before it, by campaign: from the ads that were clicked.</summary>
    private sealed class SpentInHour(HourClock clock)
    {
        private readonly Queue<(DateOnly Day, long At, ulong Search, long Campaign, long Price)> _clicks = [];
        private Dictionary<long, long> _before = [];
        private DateOnly _day;

        public async Task ReadAsync(NpgsqlConnection connection, string accountId)
        {
            _day = clock.DayAt(0);
            _before = await KeptReadings.PaidAsync(connection, accountId, _day, clock.Start, 0);
            var rows = await connection.QueryAsync<(DateOnly Day, long At, long Search, long Campaign, long Price)>(
                """
                select day, at, search, campaign_id, price from shown
                where account_id = @accountId and day between @first and @last and at between @from and @to and click <> 0 order by at, search
                """,
                new
                {
                    accountId,
                    first = _day,
                    last = clock.DayAt(HourClock.LastSecond),
                    from = clock.Start,
                    to = clock.Start + HourClock.LastSecond,
                }
            );
            foreach (var row in rows)
            {
                _clicks.Enqueue((row.Day, row.At, (ulong)row.Search, row.Campaign, row.Price));
            }
        }

        /// <summary>Brings the budgets to where they were when a search was made; searches come in their order.</summary>
        public void Until(in Searching searching, AccountPlay play)
        {
            var at = clock.Start + searching.Second;
            var day = clock.DayAt(searching.Second);
            while (
                _clicks.TryPeek(out var click) && (click.At < at || (click.At == at && click.Search < searching.Name))
            )
            {
                _clicks.Dequeue();
                BeginDay(click.Day);
                _before[click.Campaign] = _before.GetValueOrDefault(click.Campaign) + click.Price;
            }

            BeginDay(day);
            play.Budgets.Today.Clear();
            foreach (var (campaign, paid) in _before)
            {
                play.Budgets.Today[campaign] = play.Live.Served.Currency.FromMinor(paid);
            }
        }

        private void BeginDay(DateOnly day)
        {
            if (day != _day)
            {
                _before.Clear();
                _day = day;
            }
        }
    }

    private async Task<AccountPlay> ThenAsync(long hour, DateOnly day)
    {
        if (_then is not { } then || then.Hour != hour || then.Day != day)
        {
            await RefuseWhatIsGoneAsync(day);
            _then = then = (
                hour,
                day,
                await PlaySession.ThenAsync(connection, account, world, await LiveAsync(hour), hour, day)
            );
        }

        return then.Play;
    }

    /// <summary>The account as it was; read again only where something of it changed since the hour before.</summary>
    private async Task<LiveAccount> LiveAsync(long hour)
    {
        var moment = DateTimeOffset.FromUnixTimeSeconds(hour * SecondsOfHour);
        if (
            _live is not { } known
            || known.Moment > moment
            || await LiveAccounts.ChangedAsync(connection, account.Id, known.Moment, moment)
        )
        {
            known = (moment, await LiveAccounts.ReadAsync(connection, account, moment));
        }

        _live = (moment, known.Live);
        return known.Live;
    }

    private async Task RefuseWhatIsGoneAsync(DateOnly day)
    {
        if (day < _days.At(account.Clock).Day.AddDays(-KeptRows.DaysOfShown))
        {
            throw new PastGoneException(
                $"Single searches are kept for {KeptRows.DaysOfShown} days; those of {day:d MMMM yyyy} are gone, only their sums are left."
            );
        }

        var versions = await connection.QueryAsync<string>(
            "select version from world_day where account_id = @Id and day = @day",
            new { account.Id, day }
        );
        if (versions.Any(version => version != world.Version))
        {
            throw new PastGoneException(
                $"The world of {day:d MMMM yyyy} was another than today's: its searches cannot be made again."
            );
        }
    }
}

/// <summary>A search of the past cannot be made again; the message is for a person.</summary>
internal sealed class PastGoneException(string message) : Exception(message);
