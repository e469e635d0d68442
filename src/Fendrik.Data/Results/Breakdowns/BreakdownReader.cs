using Dapper;
using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Breakdowns;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Results.Breakdowns;

/// <summary>What is told apart, in which days, against which.</summary>
/// <param name="Period">The days.</param>
/// <param name="Before">The days that they are compared with.</param>
/// <param name="By">By what.</param>
/// <param name="Then">By what within each part; none for nothing.</param>
/// <param name="CampaignId">Only within this campaign.</param>
/// <param name="AdGroupId">Only within this ad group.</param>
/// <param name="Campaigns">Only in these campaigns; none for any.</param>
public sealed record BreakdownRequest(
    Period Period,
    Period Before,
    Breakdown By,
    Breakdown? Then,
    long? CampaignId,
    long? AdGroupId,
    IReadOnlyCollection<long>? Campaigns = null
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
    /// <summary>Tells figures apart.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="request">By what.</param>
    /// <param name="most">Most parts of the first level, and most items in each of them: all others there are one more.</param>
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
        var asked = new BreakdownCells(connection, accountId, request, cancellation);
        var isOfGroup = request.AdGroupId is not null;
        var whole = (
            await asked.CellsAsync(null, null, isOfGroup ? BreakdownFacts.Groups : BreakdownFacts.Campaigns, null)
        ).SingleOrDefault();
        var (now, before) = whole is null ? (Figures.Zero, Figures.Zero) : (whole.Now, whole.Then);
        var facts = BreakdownCells.FactsOf(request.By, request.Then, isOfGroup);
        // Of items there can be many: the dearest are asked for. What is told of a part only is set against the whole, and is asked for as such.
        var isOfPart = BreakdownRules.SourceOf(request.By) is BreakdownSource.Segments or BreakdownSource.Conversions;
        var first = await asked.CellsAsync(
            request.By,
            null,
            isOfPart ? facts : BreakdownCells.FactsOf(request.By, null, isOfGroup),
            null,
            IsNamedByAccount(request.By) && !isOfPart ? most + 1 : null
        );
        var firsts = isOfPart ? WithRest(first, now, before) : first;
        var kept = Ordered(request.By, firsts, cell => cell.One).Take(most + 1).ToArray();
        var more = kept.Length > most;
        kept = [.. kept.Take(most)];
        var parts = request.Then is { } second
            ? (await asked.CellsAsync(request.By, second, facts, [.. kept.Select(cell => cell.One)])).ToLookup(cell =>
                cell.One
            )
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
                            .. Dearest(
                                    by,
                                    [
                                        .. Ordered(
                                            by,
                                            WithRest(
                                                [.. parts[cell.One].Select(part => part with { One = part.Two })],
                                                cell.Now,
                                                cell.Then
                                            ),
                                            part => part.One
                                        ),
                                    ],
                                    most
                                )
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

    /// <summary>Of more items than can be shown the dearest, and all others as one: the parts add up all the same.</summary>
    private static IEnumerable<BreakdownCell> Dearest(Breakdown by, IReadOnlyList<BreakdownCell> cells, int most) =>
        cells.Count <= most || !IsNamedByAccount(by)
            ? cells
            :
            [
                .. cells.Take(most),
                cells
                    .Skip(most)
                    .Aggregate(
                        new BreakdownCell(BreakdownRules.Others, "", Figures.Zero, Figures.Zero),
                        (sum, cell) => sum with { Now = sum.Now + cell.Now, Then = sum.Then + cell.Then }
                    ),
            ];

    /// <summary>What is of none of the parts is a part of its own.</summary>
    private static IReadOnlyList<BreakdownCell> WithRest(
        IReadOnlyList<BreakdownCell> cells,
        Figures now,
        Figures before
    )
    {
        var known = cells.Aggregate(
            new BreakdownCell("", "", Figures.Zero, Figures.Zero),
            (sum, cell) => sum with { Now = sum.Now + cell.Now, Then = sum.Then + cell.Then }
        );
        var rest = new BreakdownCell("", "", Minus(now, known.Now), Minus(before, known.Then));
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

    private static IEnumerable<BreakdownCell> Ordered(
        Breakdown by,
        IEnumerable<BreakdownCell> cells,
        Func<BreakdownCell, string> key
    )
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
        IReadOnlyList<BreakdownCell> cells,
        ILookup<string, BreakdownCell>? parts,
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

            long[] ids =
            [
                .. keys.Where(key => key.Length > 0 && key != BreakdownRules.Others).Distinct().Select(long.Parse),
            ];
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
            : key == BreakdownRules.Others ? "all others"
            : (by == request.By ? first : second).TryGetValue(key, out var name) ? name
            : IsNamedByAccount(by) ? $"{BreakdownRules.NameOf(by)} {key}, which is gone"
            : BreakdownRules.LabelOf(by, key);
    }

    private static bool IsNamedByAccount(Breakdown by) =>
        by is Breakdown.Campaign or Breakdown.AdGroup or Breakdown.Keyword or Breakdown.Action;
}
