using Fendrik.Core.Calls;
using Fendrik.Core.Places;
using Fendrik.Network.Serving;
using Fendrik.Network.Simulation;
using Fendrik.Network.Simulation.Counting;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Doors;

/// <summary>Conversions and calls, one by one.</summary>
internal static class ConversionReports
{
    /// <summary>Digits by which callers are told apart.</summary>
    private const int DigitsOfCaller = 12;

    public static IAsyncEnumerable<ConversionRow> ConversionsAsync(
        [AsParameters] AskedDays days,
        CancellationToken cancellation
    ) =>
        ReportStream.ReadAsync<CountedRow, ConversionRow>(
            days,
            """
            select day, hour::int as hour, campaign_id, ad_group_id, keyword_id, ad_id, device::int as device, action_id, search, clicked_at, at, told, value, counts, steers
            from conversion where account_id = @accountId and day between @first and @last and told <= @now and not taken_back order by day, at, search, action_id
            """,
            (row, account) =>
                new ConversionRow(
                    row.Day,
                    row.Hour,
                    row.CampaignId,
                    row.AdGroupId,
                    row.KeywordId,
                    row.AdId,
                    (Device)row.Device,
                    row.ActionId,
                    ClickIds.Of(account.Seed, (ulong)row.Search),
                    Utc(row.ClickedAt),
                    Utc(row.At),
                    Utc(row.Told),
                    row.Value,
                    row.Counts,
                    row.Steers
                ),
            cancellation
        );

    /// <summary>The clicks, by which own books can tell what they came from.</summary>
    public static IAsyncEnumerable<ClickedRow> ClicksAsync(
        [AsParameters] AskedDays days,
        CancellationToken cancellation
    ) =>
        ReportStream.ReadAsync<
            (long Search, DateTime At, long Campaign, long AdGroup, long Keyword, long Ad, int Device),
            ClickedRow
        >(
            days,
            """
            select search, to_timestamp(at), campaign_id, ad_group_id, keyword_id, ad_id, device::int from shown
            where account_id = @accountId and day between @first and @last and click <> 0 order by at, search
            """,
            (row, account) =>
                new ClickedRow(
                    ClickIds.Of(account.Seed, (ulong)row.Search),
                    Utc(row.At),
                    row.Campaign,
                    row.AdGroup,
                    row.Keyword,
                    row.Ad,
                    (Device)row.Device
                ),
            cancellation
        );

    /// <summary>Calls that are over.</summary>
    public static IAsyncEnumerable<CallRow> CallsAsync([AsParameters] AskedDays days, CancellationToken cancellation) =>
        ReportStream.ReadAsync<CalledRow, CallRow>(
            days,
            """
            select p.day, p.campaign_id, p.ad_group_id, p.keyword_id, p.ad_id, p.device::int as device, p.search, p.clicked_at, p.at, p.rang, p.talked,
              p.call_end::int as call_end, p.from_ad, p.from_place::int as from_place, p.price * @unit as cost, v.numbers::int as numbers, c.number as of_campaign, t.number as of_visit,
              case when p.from_ad or v.numbers = 0 then 0 else (select count(*) from shown s where s.account_id = p.account_id and s.click in (1, 2)
                and s.at > extract(epoch from p.clicked_at) and s.at < extract(epoch from p.at))::int end as visits_between
            from phone_call p
            cross join lateral (select count(*) as numbers from carrier_number n where n.account_id = p.account_id and n.pool = 2 and n.since <= p.clicked_at
              and (n.until is null or n.until > p.clicked_at)) v
            left join lateral (select n.number from carrier_number n where n.account_id = p.account_id and n.pool = 1 and n.since <= p.clicked_at
              and (n.until is null or n.until > p.clicked_at) and (n.campaign_id is null or n.campaign_id = p.campaign_id)
              order by n.campaign_id nulls last, n.number limit 1) c on true
            left join lateral (select n.number from carrier_number n where n.account_id = p.account_id and n.pool = 2 and n.since <= p.clicked_at
              and (n.until is null or n.until > p.clicked_at) order by n.number offset abs(p.search % greatest(v.numbers, 1)) limit 1) t on not p.from_ad
            where p.account_id = @accountId and p.day between @first and @last and p.at + make_interval(secs => p.rang + p.talked) <= @now order by p.day, p.at, p.search
            """,
            (row, account) =>
            {
                var origin = TrackedNumbers.OriginOf(
                    row.FromAd,
                    row.OfCampaign is not null,
                    row.Numbers,
                    row.VisitsBetween
                );
                return new CallRow(
                    row.Day,
                    origin == CallOrigin.Unknown ? 0 : row.CampaignId,
                    origin == CallOrigin.Click ? row.AdGroupId : 0,
                    origin == CallOrigin.Click ? row.KeywordId : 0,
                    origin == CallOrigin.Click ? row.AdId : 0,
                    (Device)row.Device,
                    row.FromAd,
                    origin == CallOrigin.Click ? ClickIds.Of(account.Seed, (ulong)row.Search) : "",
                    Utc(row.ClickedAt),
                    origin == CallOrigin.Click ? row.Cost : 0,
                    Utc(row.At),
                    row.Rang,
                    row.Talked,
                    (CallEnd)row.CallEnd,
                    Places.GetValueOrDefault(row.FromPlace, ""),
                    ClickIds.Of(account.Seed, Chance.PersonOf((ulong)row.Search))[..DigitsOfCaller],
                    (row.FromAd ? row.OfCampaign : row.OfVisit ?? row.OfCampaign) ?? "",
                    origin
                );
            },
            cancellation
        );

    private static readonly Dictionary<int, string> Places = World.Shipped.Places.ToDictionary(
        place => place.Number,
        NameOf
    );

    /// <summary>The name of a place as it is written; the world has it as people type it.</summary>
    private static string NameOf(Place place) =>
        Gazetteer.Find(place.Name) is [var known, ..] ? known.Name : place.Name;

    private static DateTimeOffset Utc(DateTime moment) => new(DateTime.SpecifyKind(moment, DateTimeKind.Utc));

    private sealed class CountedRow
    {
        public DateOnly Day { get; init; }
        public int Hour { get; init; }
        public long CampaignId { get; init; }
        public long AdGroupId { get; init; }
        public long KeywordId { get; init; }
        public long AdId { get; init; }
        public int Device { get; init; }
        public long ActionId { get; init; }
        public long Search { get; init; }
        public DateTime ClickedAt { get; init; }
        public DateTime At { get; init; }
        public DateTime Told { get; init; }
        public decimal Value { get; init; }
        public bool Counts { get; init; }
        public bool Steers { get; init; }
    }

    private sealed class CalledRow
    {
        public DateOnly Day { get; init; }
        public long CampaignId { get; init; }
        public long AdGroupId { get; init; }
        public long KeywordId { get; init; }
        public long AdId { get; init; }
        public int Device { get; init; }
        public long Search { get; init; }
        public DateTime ClickedAt { get; init; }
        public DateTime At { get; init; }
        public int Rang { get; init; }
        public int Talked { get; init; }
        public int CallEnd { get; init; }
        public bool FromAd { get; init; }
        public int FromPlace { get; init; }
        public int Numbers { get; init; }
        public int VisitsBetween { get; init; }
        public string? OfCampaign { get; init; }
        public string? OfVisit { get; init; }
        public decimal Cost { get; init; }
    }
}
