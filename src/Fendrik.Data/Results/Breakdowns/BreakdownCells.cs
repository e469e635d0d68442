using Dapper;
using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Breakdowns;
using Fendrik.Data.Results.Sums;
using Npgsql;

namespace Fendrik.Data.Results.Breakdowns;

/// <summary>Where figures are read from.</summary>
internal enum BreakdownFacts
{
    /// <summary>Days of campaigns.</summary>
    Campaigns,

    /// <summary>Days of ad groups.</summary>
    Groups,

    /// <summary>Days of keywords.</summary>
    Days,

    /// <summary>Hours and kinds of site of campaigns.</summary>
    Slots,

    /// <summary>Hours and kinds of site of keywords.</summary>
    Hours,

    /// <summary>Segments.</summary>
    Segments,

    /// <summary>Conversions.</summary>
    Conversions,
}

/// <summary>What belongs to a part, and to a part of it.</summary>
/// <param name="One">The part; empty for all.</param>
/// <param name="Two">The part of it; empty for all of it.</param>
/// <param name="Now">Its figures.</param>
/// <param name="Then">Those of the days before.</param>
internal sealed record BreakdownCell(string One, string Two, Figures Now, Figures Then);

/// <summary>Reads the cells of one breakdown: sums of figures by what a row belongs to.</summary>
internal sealed class BreakdownCells(
    NpgsqlConnection connection,
    int accountId,
    BreakdownRequest request,
    CancellationToken cancellation
)
{
    private const string Within = "(p.day between @First and @Last or p.day between @BeforeFirst and @BeforeLast)";

    /// <summary>Where figures are read from that are told apart so.</summary>
    /// <param name="by">By what.</param>
    /// <param name="then">By what within each part.</param>
    /// <param name="isOfGroup">True where only an ad group is looked at.</param>
    public static BreakdownFacts FactsOf(Breakdown by, Breakdown? then, bool isOfGroup)
    {
        Breakdown[] all = then is { } second ? [by, second] : [by];
        // Sums by hour and device are of whole campaigns.
        var fine = isOfGroup || all.Any(each => each is Breakdown.AdGroup or Breakdown.Keyword or Breakdown.Match);
        return all.Any(each => BreakdownRules.SourceOf(each) == BreakdownSource.Segments) ? BreakdownFacts.Segments
            : all.Contains(Breakdown.Action) ? BreakdownFacts.Conversions
            : all.Any(each => each is Breakdown.Hour or Breakdown.Site)
                ? fine ? BreakdownFacts.Hours
                    : BreakdownFacts.Slots
            : all.Contains(Breakdown.Device)
                ? fine ? BreakdownFacts.Days
                    : BreakdownFacts.Slots
            : all.Any(each => each is Breakdown.Keyword or Breakdown.Match) ? BreakdownFacts.Days
            : isOfGroup || all.Contains(Breakdown.AdGroup) ? BreakdownFacts.Groups
            : BreakdownFacts.Campaigns;
    }

    /// <summary>The columns that the part of a row is told by.</summary>
    private static string[] ColumnsOf(Breakdown by) =>
        by switch
        {
            Breakdown.Campaign => ["campaign_id"],
            Breakdown.AdGroup => ["ad_group_id"],
            Breakdown.Keyword or Breakdown.Match => ["keyword_id"],
            Breakdown.Day or Breakdown.Week or Breakdown.Month or Breakdown.Weekday => ["day"],
            Breakdown.Hour => ["hour"],
            Breakdown.Device => ["device"],
            Breakdown.Site => ["site"],
            Breakdown.Place => ["reached_by", "name"],
            Breakdown.Age or Breakdown.Gender or Breakdown.Click or Breakdown.Rival => ["name"],
            Breakdown.Action => ["action_id"],
        };

    /// <summary>The part that a row belongs to, as text.</summary>
    private static string KeyOf(Breakdown by)
    {
        // Days of before stand beside those that they are compared with; where there are more of them, the last beside none.
        const string Day =
            "case when p.day between @First and @Last then p.day when p.day + @Shift <= @Last then p.day + @Shift end";
        const string Month =
            $"case when p.day between @First and @Last then date_trunc('month', p.day) when @Months::int is not null then date_trunc('month', p.day) + make_interval(months => @Months::int) else date_trunc('month', {Day}) end";
        return by switch
        {
            Breakdown.Campaign => "p.campaign_id::text",
            Breakdown.AdGroup => "p.ad_group_id::text",
            Breakdown.Keyword => "p.keyword_id::text",
            Breakdown.Day => $"coalesce(to_char({Day}, 'YYYY-MM-DD'), '')",
            Breakdown.Week => $"coalesce(to_char(date_trunc('week', {Day}), 'YYYY-MM-DD'), '')",
            Breakdown.Month => $"coalesce(to_char({Month}, 'YYYY-MM-DD'), '')",
            Breakdown.Weekday => "extract(isodow from p.day)::text",
            Breakdown.Hour => "p.hour::text",
            Breakdown.Device => "p.device::text",
            Breakdown.Site => "p.site::text",
            Breakdown.Match =>
                "coalesce((select k.match_type::text from keyword k where k.id = p.keyword_id and k.account_id = @accountId), '')",
            Breakdown.Place => "p.reached_by::text || ':' || p.name",
            Breakdown.Age or Breakdown.Gender or Breakdown.Click or Breakdown.Rival => "p.name",
            Breakdown.Action => "p.action_id::text",
        };
    }

    /// <summary>Sums of figures, by up to two parts.</summary>
    /// <param name="one">By what; none for all together.</param>
    /// <param name="two">By what within each part; none for nothing.</param>
    /// <param name="facts">Where they are read from.</param>
    /// <param name="keys">Only these parts; none for all.</param>
    /// <param name="limit">Only the dearest so many; none for all.</param>
    public async Task<IReadOnlyList<BreakdownCell>> CellsAsync(
        Breakdown? one,
        Breakdown? two,
        BreakdownFacts facts,
        string[]? keys,
        int? limit = null
    )
    {
        string Both(string figure) =>
            $"coalesce(sum(p.{figure}) filter (where p.is_now), 0), coalesce(sum(p.{figure}) filter (where p.is_before), 0)";
        const string Plain =
            "sum(p.impressions) as impressions, sum(p.clicks) as clicks, sum(p.cost) as cost, sum(p.conversions) as conversions, sum(p.value) as value";
        // A conversion is told of by itself: what was shown and clicked is of no action.
        var sums = facts switch
        {
            BreakdownFacts.Campaigns
            or BreakdownFacts.Groups
            or BreakdownFacts.Days
            or BreakdownFacts.Slots
            or BreakdownFacts.Hours
            or BreakdownFacts.Segments => Plain,
            BreakdownFacts.Conversions =>
                "0 as impressions, 0 as clicks, 0 as cost, count(*) as conversions, sum(p.value) as value",
        };
        var table = facts switch
        {
            BreakdownFacts.Campaigns => RollUps.Campaigns,
            BreakdownFacts.Groups => RollUps.Groups,
            BreakdownFacts.Days => "performance_day",
            BreakdownFacts.Slots => RollUps.Slots,
            BreakdownFacts.Hours => "performance",
            BreakdownFacts.Segments => "reached_day",
            BreakdownFacts.Conversions => "conversion",
        };
        var only = facts switch
        {
            BreakdownFacts.Campaigns
            or BreakdownFacts.Groups
            or BreakdownFacts.Days
            or BreakdownFacts.Slots
            or BreakdownFacts.Hours => "",
            BreakdownFacts.Segments => "and p.reached_by = any(@segments)",
            BreakdownFacts.Conversions => "and p.counts",
        };
        var ofGroup = facts is BreakdownFacts.Campaigns or BreakdownFacts.Slots
            ? ""
            : "and (@AdGroupId::bigint is null or p.ad_group_id = @AdGroupId)";
        Breakdown[] told = [.. new[] { one, two }.OfType<Breakdown>()];
        var columns = string.Concat(told.SelectMany(ColumnsOf).Distinct().Select(column => $"p.{column}, "));
        string Part(Breakdown? by) => by is { } known ? KeyOf(known) : "''";
        // Facts are added up by their plain columns first: the part of a row is worked out for few sums, not for each fact.
        var rows = await connection.QueryAsync<Row>(
            new CommandDefinition(
                $"""
                select * from (select {Part(one)} as one, {Part(two)} as two, {Both("impressions")}, {Both("clicks")}, {Both(
                    "cost"
                )}, {Both("conversions")}, {Both("value")}
                  from (
                    select {columns}p.day between @First and @Last as is_now, p.day between @BeforeFirst and @BeforeLast as is_before, {sums} from {table} p
                    where p.account_id = @accountId and (@CampaignId::bigint is null or p.campaign_id = @CampaignId)
                      and (@campaigns::bigint[] is null or p.campaign_id = any(@campaigns)) {ofGroup} and {Within} {only}
                    group by {columns}is_now, is_before
                  ) p group by 1, 2)
                  cells(one, two, impressions, impressions_before, clicks, clicks_before, cost, cost_before, conversions, conversions_before, value, value_before)
                where @keys::text[] is null or one = any(@keys)
                {(limit is null ? "" : "order by cost desc, conversions desc, cost_before desc, one limit @limit")}
                """,
                new
                {
                    accountId,
                    request.CampaignId,
                    request.AdGroupId,
                    campaigns = request.Campaigns?.ToArray(),
                    request.Period.First,
                    request.Period.Last,
                    BeforeFirst = request.Before.First,
                    BeforeLast = request.Before.Last,
                    Shift = request.Period.First.DayNumber - request.Before.First.DayNumber,
                    Months = request.Period.MonthsSince(request.Before),
                    segments = BreakdownRules
                        .SegmentsOf(request.By)
                        .Concat(request.Then is { } then ? BreakdownRules.SegmentsOf(then) : [])
                        .Select(each => (short)each)
                        .ToArray(),
                    keys,
                    limit,
                },
                cancellationToken: cancellation
            )
        );
        return [.. rows.Select(row => row.ToCell())];
    }

    private sealed record Row
    {
        public string One { get; init; } = "";
        public string Two { get; init; } = "";
        public decimal Impressions { get; init; }
        public decimal ImpressionsBefore { get; init; }
        public decimal Clicks { get; init; }
        public decimal ClicksBefore { get; init; }
        public decimal Cost { get; init; }
        public decimal CostBefore { get; init; }
        public decimal Conversions { get; init; }
        public decimal ConversionsBefore { get; init; }
        public decimal Value { get; init; }
        public decimal ValueBefore { get; init; }

        public BreakdownCell ToCell() =>
            new(
                One,
                Two,
                new Figures((long)Impressions, (long)Clicks, Cost, Conversions, Value),
                new Figures((long)ImpressionsBefore, (long)ClicksBefore, CostBefore, ConversionsBefore, ValueBefore)
            );
    }
}
