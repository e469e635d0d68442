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
            select day, campaign_id, ad_group_id, keyword_id, ad_id, device::int as device, search, clicked_at, at, rang, talked, call_end::int as call_end, from_ad,
              from_place::int as from_place, price * @unit as cost
            from phone_call where account_id = @accountId and day between @first and @last and at + make_interval(secs => rang + talked) <= @now order by day, at, search
            """,
            (row, account) =>
                new CallRow(
                    row.Day,
                    row.CampaignId,
                    row.AdGroupId,
                    row.KeywordId,
                    row.AdId,
                    (Device)row.Device,
                    row.FromAd,
                    ClickIds.Of(account.Seed, (ulong)row.Search),
                    Utc(row.ClickedAt),
                    row.Cost,
                    Utc(row.At),
                    row.Rang,
                    row.Talked,
                    (CallEnd)row.CallEnd,
                    Places.GetValueOrDefault(row.FromPlace, ""),
                    ClickIds.Of(account.Seed, Chance.PersonOf((ulong)row.Search))[..DigitsOfCaller]
                ),
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
        public decimal Cost { get; init; }
    }
}
