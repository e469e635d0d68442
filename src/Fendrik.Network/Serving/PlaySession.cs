using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Network.Simulation;
using Fendrik.Network.Worlds;
using Npgsql;

namespace Fendrik.Network.Serving;

/// <summary>An account taken up where its clock stands, to be played on.</summary>
internal sealed class PlaySession
{
    private const int SecondsOfHour = 3_600;
    private const int HoursOfWeek = 7 * 24;

    private readonly World _world;

    private PlaySession(World world, AccountPlay play, DateTimeOffset now, long version)
    {
        (_world, Play, Now, Version) = (world, play, now, version);
    }

    /// <summary>The play.</summary>
    public AccountPlay Play { get; }

    /// <summary>Where the clock stands.</summary>
    public DateTimeOffset Now { get; set; }

    /// <summary>The last change of the account that it knows of.</summary>
    public long Version { get; set; }

    /// <summary>Takes up an account as it is.</summary>
    /// <param name="connection">To the network's database.</param>
    /// <param name="account">The account.</param>
    /// <param name="world">The world.</param>
    /// <param name="crowding">People for each person of the world: 1 but where speed is measured.</param>
    public static async Task<PlaySession> OpenAsync(
        NpgsqlConnection connection,
        NetworkAccount account,
        World world,
        double crowding = 1
    )
    {
        var version = await VersionAsync(connection, account.Id);
        var live = await LiveAccounts.ReadAsync(connection, account);
        var trades = await BroughtTrades.ReadAsync(connection, account, live, world);
        var days = new AccountDay(account.TimeZone);
        var hour = account.Clock.ToUnixTimeSeconds() / SecondsOfHour;
        // What was shown on the day that was played last is estimated anew when that day is over.
        var last = days.At(account.Clock.AddSeconds(-1)).Day;
        var quality = new QualityBook(
            world,
            await KeptReadings.QualitiesAsync(connection, account.Id, last),
            live.Keywords
        );
        await KeptReadings.ResumeAsync(connection, account.Id, last, quality);
        var budgets = new BudgetBook(
            world,
            days,
            new StrategyBook(
                days,
                live.Served.Currency,
                await LearntFromAsync(connection, account, live, last, resumes: true)
            ),
            await KeptReadings.CampaignHoursAsync(connection, account.Id, hour - HoursOfWeek, hour),
            // Only total budgets ask what was spent in all.
            live.Campaigns.Any(each => each.TotalBudget is not null)
                ? await KeptReadings.SpentBeforeAsync(connection, account.Id, last, live.Served.Currency)
                : []
        );
        foreach (var (campaign, paid) in await KeptReadings.PaidAsync(connection, account.Id, last))
        {
            budgets.Today[campaign] = live.Served.Currency.FromMinor(paid);
        }

        var play = new AccountPlay(
            world,
            trades,
            live,
            (ulong)account.Seed,
            days,
            (
                quality,
                budgets,
                await KeptReadings.ExtensionsAsync(connection, account.Id, last),
                await KeptReadings.LinesAsync(connection, account.Id, last),
                await KeptReadings.AdsAsync(connection, account.Id, last)
            ),
            await KeptReadings.InTouchAsync(connection, account.Id, hour),
            await KeptReadings.ClickedAsync(connection, account.Id, hour),
            crowding
        )
        {
            Day = last,
        };
        return new PlaySession(world, play, account.Clock, version);
    }

    /// <summary>An account as it was in an hour of the past; nothing is played on from there.</summary>
    public static async Task<AccountPlay> ThenAsync(
        NpgsqlConnection connection,
        NetworkAccount account,
        World world,
        LiveAccount live,
        long hour,
        DateOnly day
    )
    {
        var days = new AccountDay(account.TimeZone);
        var quality = new QualityBook(
            world,
            await KeptReadings.QualitiesAsync(connection, account.Id, day),
            live.Keywords
        );
        var strategies = new StrategyBook(
            days,
            live.Served.Currency,
            await LearntFromAsync(connection, account, live, day, resumes: false)
        );
        strategies.BeginDay(day);
        var budgets = new BudgetBook(world, days, strategies, []);
        budgets.Resume(hour, await KeptReadings.CampaignHoursAsync(connection, account.Id, hour, hour + 1));
        return new AccountPlay(
            world,
            await BroughtTrades.KnownAsync(connection, account.Id, world, hour),
            live,
            (ulong)account.Seed,
            days,
            (
                quality,
                budgets,
                await KeptReadings.ExtensionsAsync(connection, account.Id, day, resumes: false),
                await KeptReadings.LinesAsync(connection, account.Id, day, resumes: false),
                await KeptReadings.AdsAsync(connection, account.Id, day, resumes: false)
            ),
            new HashSet<ulong>(),
            await KeptReadings.ClickedAsync(connection, account.Id, hour)
        );
    }

    /// <summary>Only strategies ask what clicks brought; where one is chosen the account is taken up anew.</summary>
    private static async Task<IEnumerable<KnownClick>> LearntFromAsync(
        NpgsqlConnection connection,
        NetworkAccount account,
        LiveAccount live,
        DateOnly day,
        bool resumes
    ) =>
        live.Campaigns.Any(each => each.Strategy != BidStrategy.ManualCpc)
            ? await KeptReadings.KnownClicksAsync(connection, account.Id, day, resumes)
            : [];

    /// <summary>True when the account is no longer as the session knows it.</summary>
    public async Task<bool> IsStaleAsync(NpgsqlConnection connection, NetworkAccount account) =>
        account.Clock != Now || await VersionAsync(connection, account.Id) != Version;

    /// <summary>Reviewers read what is due; the account goes on with what they said.</summary>
    public async Task ReadReviewsAsync(NpgsqlConnection connection, NetworkAccount account)
    {
        if (await Reviewers.ReadAsync(connection, account, Now) > 0)
        {
            Play.GoOnWith(await LiveAccounts.ReadAsync(connection, account));
        }
    }

    /// <summary>Plays hours and writes down what they left.</summary>
    /// <returns>How many searches there were.</returns>
    public async Task<long> AdvanceAsync(
        NpgsqlConnection connection,
        NetworkAccount account,
        int hours,
        CancellationToken cancellation
    )
    {
        var kept = new List<HourKept>(hours);
        var campaigns = new List<CampaignHour>();
        var due = await Reviewers.NextDueAsync(connection, account.Id);
        for (var each = 0; each < hours; each++)
        {
            cancellation.ThrowIfCancellationRequested();
            if (due <= Now)
            {
                await ReadReviewsAsync(connection, account);
                due = await Reviewers.NextDueAsync(connection, account.Id);
            }

            var (left, through) = Play.Play(Now.ToUnixTimeSeconds() / SecondsOfHour);
            kept.Add(left);
            campaigns.AddRange(through);
            Now = Now.AddHours(1);
        }

        await KeptRows.WriteAsync(
            connection,
            account.Id,
            kept,
            campaigns,
            Play.Quality.TakeNew(),
            Play.NameOfRival,
            cancellation
        );
        await KeptRows.RollUpAsync(connection, account.Id, kept[^1].LastDay, Play.Live.Served.Currency, cancellation);
        await connection.ExecuteAsync(
            """
            insert into world_day (account_id, day, version) select @Id, day, @version from unnest(@days) day on conflict do nothing;
            update account set now = @Now where id = @Id
            """,
            new
            {
                account.Id,
                version = _world.Version,
                days = kept.SelectMany(hour => new[] { hour.FirstDay, hour.LastDay }).Distinct().ToArray(),
                Now,
            }
        );
        return kept.Sum(hour => hour.Searches);
    }

    private static Task<long> VersionAsync(NpgsqlConnection connection, string accountId) =>
        connection.QuerySingleAsync<long>(
            """
            select greatest((select coalesce(max(version), 0) from item where account_id = @accountId),
              (select coalesce(max(version), 0) from gone_item where account_id = @accountId),
              (select coalesce(max(version), 0) from account_payer where account_id = @accountId))
            """,
            new { accountId }
        );
}
