using Dapper;
using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Breakdowns;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>What is told apart, in which days, against which.</summary>
/// <param name="Period">The days.</param>
/// <param name="Before">The days that they are compared with.</param>
/// <param name="By">By what.</param>
/// <param name="Then">By what within each part; none for nothing.</param>
/// <param name="CampaignId">Only within this campaign.</param>
/// <param name="AdGroupId">Only within this ad group.</param>
public sealed record BreakdownRequest(
    Period Period,
    Period Before,
    Breakdown By,
    Breakdown? Then,
    long? CampaignId,
    long? AdGroupId
);

/// <summary>A part of what was told apart.</summary>
/// <param name="Key">The part, as <see cref="BreakdownRules.LabelOf"/> reads it; empty for what is of no part.</param>
/// <param name="Label">What it is called.</param>
/// <param name="Now">Its figures.</param>
/// <param name="Before">Those of the days before.</param>
/// <param name="Parts">What it is made of, where it is told apart once more.</param>
public sealed record BreakdownPart(
    string Key,
    string Label,
    Figures Now,
    Figures Before,
    IReadOnlyList<BreakdownPart> Parts
);

/// <summary>Figures told apart. The parts of the first level add up to the total, and the parts of each part to it.</summary>
/// <param name="Parts">The parts; days, hours and the like in their order, others the dearest first.</param>
/// <param name="Now">All of them together.</param>
/// <param name="Before">The same of the days before.</param>
/// <param name="More">True where there are more than these.</param>
public sealed record BreakdownReport(IReadOnlyList<BreakdownPart> Parts, Figures Now, Figures Before, bool More);

/// <summary>Tells figures apart, by one thing or by two.</summary>
public sealed class BreakdownReader(NpgsqlDataSource source)
{
    private const string Within = "(p.day between @First and @Last or p.day between @BeforeFirst and @BeforeLast)";

    /// <summary>Tells figures apart.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="request">By what.</param>
    /// <param name="most">Most parts of the first level, and most in each of them.</param>
    /// <param name="cancellation">Nobody waits any more.</param>
    /// <exception cref="InvalidChangeException">The two are not reported together.</exception>
    public async Task<BreakdownReport> ReadAsync(
        int accountId,
        BreakdownRequest request,
        int most,
        CancellationToken cancellation
    )
    {
        if (request.Then is { } then && BreakdownRules.ProblemOf(request.By, then) is { } problem)
        {
            throw new InvalidChangeException("then", problem);
        }

        await using var connection = await source.OpenConnectionAsync(cancellation);
        var asked = new Asked(connection, accountId, request, cancellation);
        var whole = (await asked.CellsAsync("''", "''", Facts.Days, null)).SingleOrDefault();
        var (now, before) = whole is null ? (Figures.Zero, Figures.Zero) : (whole.Now, whole.Then);
        var facts = FactsOf(request.By, request.Then);
        // Of campaigns, ad groups and keywords there can be many: the dearest are asked for.
        var limit =
            IsNamedByAccount(request.By) && facts is Facts.Days or Facts.Hours && request.By != Breakdown.Action
                ? most + 1
                : (int?)null;
        var first = await asked.CellsAsync(KeyOf(request.By), "''", facts, null, limit);
        // Segments and conversions are a part of the whole; of an item or a day all is known.
        var firsts =
            BreakdownRules.SourceOf(request.By) is BreakdownSource.Segments or BreakdownSource.Conversions
                ? WithRest(first, now, before)
            : facts is Facts.Segments or Facts.Conversions
                ? await asked.CellsAsync(KeyOf(request.By), "''", FactsOf(request.By, null), null)
            : first;
        var kept = Ordered(request.By, firsts, cell => cell.One).Take(most + 1).ToArray();
        var more = kept.Length > most;
        kept = [.. kept.Take(most)];
        var parts = request.Then is { } second
            ? (
                await asked.CellsAsync(KeyOf(request.By), KeyOf(second), facts, [.. kept.Select(cell => cell.One)])
            ).ToLookup(cell => cell.One)
            : null;
        var names = await NamesAsync(connection, accountId, request, kept, parts, cancellation);
        return new BreakdownReport(
            [
                .. kept.Select(cell => new BreakdownPart(
                    cell.One,
                    names(request.By, cell.One),
                    cell.Now,
                    cell.Then,
                    parts is null || request.Then is not { } by
                        ? []
                        :
                        [
                            .. Ordered(
                                    by,
                                    WithRest(
                                        [.. parts[cell.One].Select(part => part with { One = part.Two })],
                                        cell.Now,
                                        cell.Then
                                    ),
                                    part => part.One
                                )
                                .Take(most)
                                .Select(part => new BreakdownPart(
                                    part.One,
                                    names(by, part.One),
                                    part.Now,
                                    part.Then,
                                    []
                                )),
                        ]
                )),
            ],
            now,
            before,
            more
        );
    }

    /// <summary>Where figures are read from.</summary>
    private enum Facts
    {
        /// <summary>The roll-up of days.</summary>
        Days,

        /// <summary>Hours and kinds of site.</summary>
        Hours,

        /// <summary>Segments.</summary>
        Segments,

        /// <summary>Conversions.</summary>
        Conversions,
    }

    private static Facts FactsOf(Breakdown by, Breakdown? then)
    {
        Breakdown[] all = then is { } second ? [by, second] : [by];
        return all.Any(each => BreakdownRules.SourceOf(each) == BreakdownSource.Segments) ? Facts.Segments
            : all.Contains(Breakdown.Action) ? Facts.Conversions
            : all.Any(each => each is Breakdown.Hour or Breakdown.Site) ? Facts.Hours
            : Facts.Days;
    }

    /// <summary>The part that a row belongs to, as text.</summary>
    private static string KeyOf(Breakdown by)
    {
        // Days of before stand beside those that they are compared with.
        const string Day = "case when p.day between @First and @Last then p.day else p.day + @Shift end";
        const string Month =
            "case when p.day between @First and @Last then date_trunc('month', p.day) else date_trunc('month', p.day) + make_interval(months => @Months) end";
        return by switch
        {
            Breakdown.Campaign => "p.campaign_id::text",
            Breakdown.AdGroup => "p.ad_group_id::text",
            Breakdown.Keyword => "p.keyword_id::text",
            Breakdown.Day => $"to_char({Day}, 'YYYY-MM-DD')",
            Breakdown.Week => $"to_char(date_trunc('week', {Day}), 'YYYY-MM-DD')",
            Breakdown.Month => $"to_char({Month}, 'YYYY-MM-DD')",
            Breakdown.Weekday => "extract(isodow from p.day)::text",
            Breakdown.Hour => "p.hour::text",
            Breakdown.Device => "p.device::text",
            Breakdown.Site => "p.site::text",
            Breakdown.Match =>
                "coalesce((select k.match_type::text from keyword k where k.id = p.keyword_id and k.account_id = p.account_id), '')",
            Breakdown.Place => "p.reached_by::text || ':' || p.name",
            Breakdown.Age or Breakdown.Gender or Breakdown.Click or Breakdown.Rival => "p.name",
            Breakdown.Action => "p.action_id::text",
        };
    }

    /// <summary>What is of none of the parts is a part of its own.</summary>
    private static IReadOnlyList<Cell> WithRest(IReadOnlyList<Cell> cells, Figures now, Figures before)
    {
        var known = cells.Aggregate(
            new Cell("", "", Figures.Zero, Figures.Zero),
            (sum, cell) => sum with { Now = sum.Now + cell.Now, Then = sum.Then + cell.Then }
        );
        var rest = new Cell("", "", Minus(now, known.Now), Minus(before, known.Then));
        return rest.Now == Figures.Zero && rest.Then == Figures.Zero ? cells : [.. cells, rest];
    }

    private static Figures Minus(Figures whole, Figures part) =>
        new(
            whole.Impressions - part.Impressions,
            whole.Clicks - part.Clicks,
            whole.Cost - part.Cost,
            whole.Conversions - part.Conversions,
            whole.Value - part.Value
        );

    private static IEnumerable<Cell> Ordered(Breakdown by, IEnumerable<Cell> cells, Func<Cell, string> key)
    {
        var known = cells.OrderBy(cell => key(cell).Length == 0);
        return BreakdownRules.IsOrdered(by)
            ? known.ThenBy(cell => key(cell).Length).ThenBy(key, StringComparer.Ordinal)
            : known
                .ThenByDescending(cell => cell.Now.Cost)
                .ThenByDescending(cell => cell.Now.Conversions)
                .ThenByDescending(cell => cell.Then.Cost)
                .ThenBy(key, StringComparer.Ordinal);
    }

    private static async Task<Func<Breakdown, string, string>> NamesAsync(
        NpgsqlConnection connection,
        int accountId,
        BreakdownRequest request,
        IReadOnlyList<Cell> cells,
        ILookup<string, Cell>? parts,
        CancellationToken cancellation
    )
    {
        async Task<Dictionary<string, string>> OfAsync(Breakdown by, IEnumerable<string> keys)
        {
            var sql = by switch
            {
                Breakdown.Campaign => "select id, name from campaign where account_id = @accountId and id = any(@ids)",
                Breakdown.AdGroup => "select id, name from ad_group where account_id = @accountId and id = any(@ids)",
                Breakdown.Keyword => "select id, text from keyword where account_id = @accountId and id = any(@ids)",
                Breakdown.Action =>
                    "select id, name from conversion_action where account_id = @accountId and id = any(@ids)",
                Breakdown.Day
                or Breakdown.Week
                or Breakdown.Month
                or Breakdown.Weekday
                or Breakdown.Hour
                or Breakdown.Device
                or Breakdown.Site
                or Breakdown.Match
                or Breakdown.Place
                or Breakdown.Age
                or Breakdown.Gender
                or Breakdown.Click
                or Breakdown.Rival => null,
            };
            if (sql is null)
            {
                return [];
            }

            long[] ids = [.. keys.Where(key => key.Length > 0).Distinct().Select(long.Parse)];
            return (
                await connection.QueryAsync<(long Id, string Name)>(
                    new CommandDefinition(sql, new { accountId, ids }, cancellationToken: cancellation)
                )
            ).ToDictionary(row => row.Id.ToString(System.Globalization.CultureInfo.InvariantCulture), row => row.Name);
        }

        var first = await OfAsync(request.By, cells.Select(cell => cell.One));
        var second =
            request.Then is { } then && parts is not null
                ? await OfAsync(then, parts.SelectMany(each => each).Select(cell => cell.Two))
                : [];
        return (by, key) =>
            key.Length == 0 ? BreakdownRules.RestOf(by)
            : (by == request.By ? first : second).TryGetValue(key, out var name) ? name
            : IsNamedByAccount(by) ? $"{BreakdownRules.NameOf(by)} {key}, which is gone"
            : BreakdownRules.LabelOf(by, key);
    }

    private static bool IsNamedByAccount(Breakdown by) =>
        by is Breakdown.Campaign or Breakdown.AdGroup or Breakdown.Keyword or Breakdown.Action;

    private sealed record Cell(string One, string Two, Figures Now, Figures Then);

    /// <summary>One request, as its queries ask.</summary>
    private sealed class Asked(
        NpgsqlConnection connection,
        int accountId,
        BreakdownRequest request,
        CancellationToken cancellation
    )
    {
        public async Task<IReadOnlyList<Cell>> CellsAsync(
            string one,
            string two,
            Facts facts,
            string[]? keys,
            int? limit = null
        )
        {
            string Both(string figure) =>
                $"coalesce(sum({figure}) filter (where p.day between @First and @Last), 0), coalesce(sum({figure}) filter (where p.day between @BeforeFirst and @BeforeLast), 0)";
            // A conversion is told of by itself: what was shown and clicked is of no action.
            var sums = facts switch
            {
                Facts.Days or Facts.Hours or Facts.Segments =>
                    $"{Both("p.impressions")}, {Both("p.clicks")}, {Both("p.cost")}, {Both("p.conversions")}, {Both("p.value")}",
                Facts.Conversions => $"0, 0, 0, 0, 0, 0, {Both("1")}, {Both("p.value")}",
            };
            var table = facts switch
            {
                Facts.Days => "performance_day",
                Facts.Hours => "performance",
                Facts.Segments => "reached_day",
                Facts.Conversions => "conversion",
            };
            var only = facts switch
            {
                Facts.Days or Facts.Hours => "",
                Facts.Segments => "and p.reached_by = any(@segments)",
                Facts.Conversions => "and p.counts",
            };
            var rows = await connection.QueryAsync<Row>(
                new CommandDefinition(
                    $"""
                    select * from (select {one} as one, {two} as two, {sums} from {table} p
                      where p.account_id = @accountId and (@CampaignId::bigint is null or p.campaign_id = @CampaignId)
                        and (@AdGroupId::bigint is null or p.ad_group_id = @AdGroupId) and {Within} {only} group by 1, 2)
                      cells(one, two, impressions, impressions_before, clicks, clicks_before, cost, cost_before, conversions, conversions_before, value, value_before)
                    where @keys::text[] is null or one = any(@keys)
                    {(limit is null ? "" : "order by cost desc, conversions desc, cost_before desc, one limit @limit")}
                    """,
                    new
                    {
                        accountId,
                        request.CampaignId,
                        request.AdGroupId,
                        request.Period.First,
                        request.Period.Last,
                        BeforeFirst = request.Before.First,
                        BeforeLast = request.Before.Last,
                        Shift = request.Period.First.DayNumber - request.Before.First.DayNumber,
                        Months = (request.Period.First.Year - request.Before.First.Year) * 12
                            + request.Period.First.Month
                            - request.Before.First.Month,
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

        public Cell ToCell() =>
            new(
                One,
                Two,
                new Figures((long)Impressions, (long)Clicks, Cost, Conversions, Value),
                new Figures((long)ImpressionsBefore, (long)ClicksBefore, CostBefore, ConversionsBefore, ValueBefore)
            );
    }
}
