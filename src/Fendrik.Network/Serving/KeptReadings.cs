using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Auctions;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Networks;
using Fendrik.Network.Simulation;
using Fendrik.Network.Simulation.Combining;
using Fendrik.Network.Simulation.People;
using Npgsql;

namespace Fendrik.Network.Serving;

/// <summary>Reads what hours left behind: what is needed to go on from there, and to make a search of the past again.</summary>
internal static class KeptReadings
{
    /// <summary>What the network knew of the quality of keywords on a day.</summary>
    public static async Task<IReadOnlyList<KeywordQuality>> QualitiesAsync(
        NpgsqlConnection connection,
        string accountId,
        DateOnly day
    ) =>
        [
            .. (
                await connection.QueryAsync<QualityRow>(
                    """
                    select distinct on (keyword_id) keyword_id, day, made, expected, text_sum, shown, score::int as score, likelihood, text_fit, page_fit
                    from quality_day where account_id = @accountId and day <= @day order by keyword_id, day desc
                    """,
                    new { accountId, day }
                )
            ).Select(row => new KeywordQuality(
                row.KeywordId,
                row.Day,
                new ClickRecord(row.Made, row.Expected),
                row.TextSum,
                row.Shown,
                row.Score,
                row.Likelihood,
                row.TextFit,
                row.PageFit
            )),
        ];

    /// <summary>How extensions did before a day.</summary>
    /// <param name="connection">To the network's database.</param>
    /// <param name="accountId">The account.</param>
    /// <param name="day">The day.</param>
    /// <param name="resumes">True to take up what came of the day itself, to be known when it is over.</param>
    public static async Task<ClickBook<(ItemKind Kind, long Id)>> ExtensionsAsync(
        NpgsqlConnection connection,
        string accountId,
        DateOnly day,
        bool resumes = true
    ) =>
        BookOf(
            from row in await connection.QueryAsync<(bool Today, short Kind, long Id, long Made, long Expected)>(
                """
                select day = @day, kind, extension_id, sum(clicks)::bigint, sum(expected)::bigint from extension_day
                where account_id = @accountId and day <= @day group by 1, 2, 3
                """,
                new { accountId, day }
            )
            select (row.Today, ((ItemKind)row.Kind, row.Id), row.Made, row.Expected),
            resumes
        );

    /// <summary>How lines of responsive ads did before a day.</summary>
    /// <param name="connection">To the network's database.</param>
    /// <param name="accountId">The account.</param>
    /// <param name="day">The day.</param>
    /// <param name="resumes">True to take up what came of the day itself, to be known when it is over.</param>
    public static async Task<ClickBook<LineKey>> LinesAsync(
        NpgsqlConnection connection,
        string accountId,
        DateOnly day,
        bool resumes = true
    ) =>
        BookOf(
            from row in await connection.QueryAsync<(
                bool Today,
                long Ad,
                bool IsDescription,
                string Text,
                long Made,
                long Expected
            )>(
                """
                select c.day = @day, c.ad_id, l.is_description, l.text, sum(c.clicks)::bigint, sum(c.expected)::bigint
                from combination_day c cross join lateral (
                  select false as is_description, unnest(c.headlines) as text union all select true, unnest(c.descriptions)) l
                where c.account_id = @accountId and c.day <= @day group by 1, 2, 3, 4
                """,
                new { accountId, day }
            )
            select (row.Today, new LineKey(row.Ad, row.IsDescription, row.Text), row.Made, row.Expected),
            resumes
        );

    /// <summary>How ads did before a day.</summary>
    /// <param name="connection">To the network's database.</param>
    /// <param name="accountId">The account.</param>
    /// <param name="day">The day.</param>
    /// <param name="resumes">True to take up what came of the day itself, to be known when it is over.</param>
    public static async Task<ClickBook<long>> AdsAsync(
        NpgsqlConnection connection,
        string accountId,
        DateOnly day,
        bool resumes = true
    ) =>
        BookOf(
            await connection.QueryAsync<(bool Today, long Ad, long Made, long Expected)>(
                """
                select day = @day, ad_id, sum(clicks)::bigint, sum(expected)::bigint from combination_day
                where account_id = @accountId and day <= @day group by 1, 2
                """,
                new { accountId, day }
            ),
            resumes
        );

    private static ClickBook<TKey> BookOf<TKey>(
        IEnumerable<(bool Today, TKey Key, long Made, long Expected)> read,
        bool resumes
    )
        where TKey : notnull
    {
        var rows = read.ToArray();
        var book = new ClickBook<TKey>(rows.Where(row => !row.Today).Select(row => (row.Key, row.Made, row.Expected)));
        foreach (var row in rows.Where(row => row.Today && resumes))
        {
            book.Note(row.Key, row.Made, row.Expected);
        }

        return book;
    }

    /// <summary>How campaigns went through hours: from one on, up to but without another.</summary>
    public static async Task<IReadOnlyList<CampaignHour>> CampaignHoursAsync(
        NpgsqlConnection connection,
        string accountId,
        long from,
        long before
    ) =>
        (
            await connection.QueryAsync<CampaignHour>(
                "select campaign_id, hour, spent_before, rate, stopped_at, spent, budget, strategy::int as strategy, level, units from campaign_hour where account_id = @accountId and hour >= @from and hour < @before order by hour, campaign_id",
                new
                {
                    accountId,
                    from,
                    before,
                }
            )
        ).AsList();

    /// <summary>Clicks of the days before one that strategies learn from, and with <paramref name="resumes"/> those of the day itself.</summary>
    public static async Task<IEnumerable<KnownClick>> KnownClicksAsync(
        NpgsqlConnection connection,
        string accountId,
        DateOnly day,
        bool resumes = true
    ) =>
        (
            await connection.QueryAsync<ClickRow>(
                """
                select v.day, v.hour::int as hour, v.campaign_id, v.ad_group_id, v.keyword_id, v.term, v.device::int as device, v.site::int as site,
                  v.reached[array_position(v.reached_by, @byPlace)] as place, s.price, c.told,
                  coalesce(c.value, 0)::float8 as value, v.strategy::int as strategy, v.bid, v.units
                from visit v join shown s on s.account_id = v.account_id and s.day = v.day and s.search = v.search
                  left join (
                    select search, min(told) as told, sum(value) as value from conversion
                    where account_id = @accountId and day >= @from and day <= @to and steers and not taken_back group by search
                  ) c on c.search = v.search
                where v.account_id = @accountId and v.day >= @from and v.day <= @to order by s.at, v.search
                """,
                new
                {
                    accountId,
                    from = day.AddDays(-ConversionRates.Days),
                    to = resumes ? day : day.AddDays(-1),
                    byPlace = (short)ReachedBy.Place,
                }
            )
        ).Select(row => new KnownClick(
            row.Day,
            row.Hour,
            new Spot(row.CampaignId, row.AdGroupId, row.KeywordId),
            row.Term,
            (Device)row.Device,
            (SiteKinds)row.Site,
            row.Place,
            row.Price,
            row.Told is { } told ? new DateTimeOffset(DateTime.SpecifyKind(told, DateTimeKind.Utc)) : null,
            row.Value,
            row.Strategy is { } strategy
                ? new BoughtClick((BidStrategy)strategy, row.Bid!.Value, row.Units!.Value)
                : null
        ));

    /// <summary>What was paid on a day before a search, by campaign, in minor units.</summary>
    public static async Task<Dictionary<long, long>> PaidAsync(
        NpgsqlConnection connection,
        string accountId,
        DateOnly day,
        long at = long.MaxValue,
        ulong search = ulong.MaxValue / 2
    ) =>
        (
            await connection.QueryAsync<(long Campaign, long Paid)>(
                """
                select campaign_id, sum(price)::bigint from shown
                where account_id = @accountId and day = @day and click <> 0 and (at, search) < (@at, @search) group by campaign_id
                """,
                new
                {
                    accountId,
                    day,
                    at,
                    search = (long)search,
                }
            )
        ).ToDictionary(row => row.Campaign, row => row.Paid);

    /// <summary>What campaigns spent on all days before one: those whose single ads are gone, and those whose ads are kept.</summary>
    public static async Task<IEnumerable<KeyValuePair<long, decimal>>> SpentBeforeAsync(
        NpgsqlConnection connection,
        string accountId,
        DateOnly day,
        Currency currency
    ) =>
        (
            await connection.QueryAsync<(long Campaign, decimal Spent)>(
                """
                select campaign_id, sum(cost) from (
                  select campaign_id, cost from performance where account_id = @accountId and day < @day
                  union all
                  select campaign_id, price * @unit from shown where account_id = @accountId and day < @day and click <> 0
                ) paid group by campaign_id
                """,
                new
                {
                    accountId,
                    day,
                    unit = currency.FromMinor(1),
                }
            )
        ).Select(row => KeyValuePair.Create(row.Campaign, row.Spent));

    /// <summary>Takes up what was shown on a day that is not over.</summary>
    public static async Task ResumeAsync(NpgsqlConnection connection, string accountId, DateOnly day, QualityBook book)
    {
        var rows = await connection.QueryAsync<(long Keyword, double Made, double Expected, double Fit, double Shown)>(
            """
            select keyword_id, count(*) filter (where click <> 0)::float8, sum(expected order by at, search), sum(fit order by at, search), count(*)::float8
            from shown where account_id = @accountId and day = @day group by keyword_id
            """,
            new { accountId, day }
        );
        foreach (var row in rows)
        {
            book.Resume(row.Keyword, new ClickRecord(row.Made, row.Expected), row.Fit, row.Shown);
        }
    }

    /// <summary>People who got in touch after a moment.</summary>
    public static async Task<HashSet<ulong>> InTouchAsync(NpgsqlConnection connection, string accountId, long hour) =>
        [
            .. (
                await connection.QueryAsync<(long Search, DateOnly Day)>(
                    "select search, day from visit where account_id = @accountId and outcome = @inTouch and search >= @from",
                    new
                    {
                        accountId,
                        inTouch = (short)VisitEnd.InTouch,
                        from = (long)Chance.NameOf(hour - Crowd.LongestSearch, 0, 0),
                    }
                )
            ).Select(row => Chance.PersonOf((ulong)row.Search)),
        ];

    /// <summary>Names of the searches in which somebody clicked, of those who began to search within weeks before an hour.</summary>
    public static async Task<HashSet<ulong>> ClickedAsync(NpgsqlConnection connection, string accountId, long hour) =>
        [
            .. (
                await connection.QueryAsync<long>(
                    "select search from shown where account_id = @accountId and click <> 0 and search >= @from and search < @to",
                    new
                    {
                        accountId,
                        from = (long)Chance.NameOf(hour - Crowd.LongestSearch, 0, 0),
                        to = (long)Chance.NameOf(hour + 1, 0, 0),
                    }
                )
            ).Select(search => (ulong)search),
        ];

    /// <summary>People who got in touch and searched within weeks of an hour, with the moment and the search that led to it.</summary>
    public static async Task<Dictionary<ulong, (long At, ulong Search)>> InTouchSinceAsync(
        NpgsqlConnection connection,
        string accountId,
        long hour
    ) =>
        (
            await connection.QueryAsync<(long At, long Search)>(
                """
                select s.at, s.search from visit v join shown s on s.account_id = v.account_id and s.search = v.search
                where v.account_id = @accountId and v.outcome = @inTouch and v.search >= @from and v.search < @to
                """,
                new
                {
                    accountId,
                    inTouch = (short)VisitEnd.InTouch,
                    from = (long)Chance.NameOf(hour - Crowd.LongestSearch, 0, 0),
                    to = (long)Chance.NameOf(hour + 1, 0, 0),
                }
            )
        ).ToDictionary(row => Chance.PersonOf((ulong)row.Search), row => (row.At, (ulong)row.Search));

    [method: ExplicitConstructor]
    private sealed record ClickRow(
        DateOnly Day,
        int Hour,
        long CampaignId,
        long AdGroupId,
        long KeywordId,
        string Term,
        int Device,
        int Site,
        string? Place,
        long Price,
        DateTime? Told,
        double Value,
        int? Strategy,
        long? Bid,
        double? Units
    );

    [method: ExplicitConstructor]
    private sealed record QualityRow(
        long KeywordId,
        DateOnly Day,
        double Made,
        double Expected,
        double TextSum,
        double Shown,
        int Score,
        decimal Likelihood,
        decimal TextFit,
        decimal PageFit
    );
}
