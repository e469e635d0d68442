using System.Runtime.CompilerServices;
using Dapper;
using Fendrik.Core.Matching;
using Fendrik.Core.Reporting;
using Fendrik.Core.Searches;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Sums;
using Npgsql;

namespace Fendrik.Data.Terms;

/// <summary>Reads what people typed, by the page.</summary>
public sealed class TermReader(NpgsqlDataSource source, TermSums sums)
{
    private const int MostRows = 500;
    private const int MostWords = 200;

    /// <summary>A page of terms.</summary>
    /// <exception cref="InvalidChangeException">The request cannot be.</exception>
    public async Task<TermPage> ReadAsync(TermScope scope, TermRequest request, CancellationToken cancellation)
    {
        if (request.Limit is < 1 or > MostRows || request.Offset < 0)
        {
            throw new InvalidChangeException("limit", $"Ask for 1 to {MostRows} terms at once.");
        }

        await using var kept = await sums.OpenAsync(scope, cancellation);
        var (connection, period) = (kept.Connection, kept.Period);
        var since = await SinceAsync(connection, scope.AccountId, cancellation);
        var parameters = ParametersOf(scope, request, period, since);
        var which = TermFilter.Of(request, parameters);
        CommandDefinition Command(string sql) => new(sql, parameters, cancellationToken: cancellation);
        var head = await connection.QuerySingleAsync<(
            int Terms,
            int SeenOnce,
            long Clicks,
            decimal Cost,
            decimal Conversions,
            decimal Wasted
        )>(Command("select terms, seen_once, clicks, cost, conversions, wasted from term_period where id = @period"));
        var sum = await connection.QuerySingleAsync<(
            int Count,
            long Impressions,
            long Clicks,
            decimal Cost,
            decimal Conversions,
            decimal Value
        )>(
            Command(
                $"""
                select count(*)::int, coalesce(sum(f.impressions), 0)::bigint, coalesce(sum(f.clicks), 0)::bigint, coalesce(sum(f.cost), 0), coalesce(sum(f.conversions), 0), coalesce(sum(f.value), 0)
                from term_sum f where {which}
                """
            )
        );
        var rows = (
            await connection.QueryAsync<Row>(Command($"{RowsOf(which, request.Order)} offset @Offset limit @Limit"))
        ).ToArray();
        var parts = await PartsAsync(connection, period, [.. rows.Select(row => row.Term)], cancellation);
        var blocking = await BlockingAsync(connection, scope.AccountId);
        return new TermPage(
            scope.Days.First,
            scope.Days.Last,
            head.Terms,
            head.SeenOnce,
            new Figures(0, head.Clicks, head.Cost, head.Conversions, 0),
            head.Wasted,
            since,
            await connection.QuerySingleAsync<long>(Command("select last_step_id from account where id = @account")),
            sum.Count,
            new Figures(sum.Impressions, sum.Clicks, sum.Cost, sum.Conversions, sum.Value),
            [.. rows.Select(row => TermOf(row, parts, blocking))]
        );
    }

    /// <summary>All terms that a filter lets through, one by one: they may be very many.</summary>
    public async IAsyncEnumerable<SearchTerm> AllAsync(
        TermScope scope,
        TermRequest request,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        await using var kept = await sums.OpenAsync(scope, cancellation);
        await using var beside = await kept.BesideAsync(source, cancellation);
        var since = await SinceAsync(beside.Connection, scope.AccountId, cancellation);
        var parameters = ParametersOf(scope, request, kept.Period, since);
        var which = TermFilter.Of(request, parameters);
        var blocking = await BlockingAsync(beside.Connection, scope.AccountId);
        var rows = kept.Connection.QueryUnbufferedAsync<Row>(RowsOf(which, request.Order), parameters);
        await foreach (var some in rows.Chunk(MostRows).WithCancellation(cancellation))
        {
            var parts = await PartsAsync(
                beside.Connection,
                kept.Period,
                [.. some.Select(row => row.Term)],
                cancellation
            );
            foreach (var row in some)
            {
                yield return TermOf(row, parts, blocking);
            }
        }
    }

    private static Task<DateOnly?> SinceAsync(
        NpgsqlConnection connection,
        int accountId,
        CancellationToken cancellation
    ) =>
        connection.ExecuteScalarAsync<DateOnly?>(
            new CommandDefinition(
                "select max(d.reported_to) from term_decision d join step s on s.id = d.step_id and s.reverted_by is null where d.account_id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );

    private static DynamicParameters ParametersOf(TermScope scope, TermRequest request, long period, DateOnly? since) =>
        new(
            new
            {
                account = scope.AccountId,
                period,
                since,
                request.Offset,
                request.Limit,
            }
        );

    private static string RowsOf(string which, TermOrder order) =>
        $"""
            select f.term, f.impressions, f.clicks, f.cost, f.conversions, f.value, f.ad_groups as "adGroups", f.first_seen as "firstSeen", {TermFilter.IsNew} as "isNew",
              {TermFilter.IsKeyword} as "isKeyword", d.decision, d.said
            from term_sum f left join lateral {TermFilter.Decision} d on true
            where {which} order by {TermFilter.Order(order)}
            """;

    private static SearchTerm TermOf(Row row, ILookup<string, TermPart> parts, KeywordIndex<PlacedNegative> blocking) =>
        new(
            row.Term,
            row.Figures,
            row.AdGroups,
            [.. parts[row.Term]],
            row.FirstSeen,
            row.IsNew,
            row.IsKeyword,
            row.Decision,
            row.Said,
            BlockedBy(row.Term, [.. parts[row.Term]], blocking)
        );

    /// <summary>The dearest words, pairs or threes of the terms; only those that never brought a conversion where <paramref name="unsold"/> says so.</summary>
    public async Task<IReadOnlyList<TermWord>> WordsAsync(
        TermScope scope,
        int size,
        bool unsold,
        CancellationToken cancellation
    )
    {
        await using var kept = await sums.OpenAsync(scope, cancellation);
        return
        [
            .. await kept.Connection.QueryAsync<TermWord>(
                new CommandDefinition(
                    """
                    select word, terms, clicks, cost, sold, conversions from term_word
                    where period_id = @period and size = @size and cost > 0 and (not @unsold or conversions = 0) order by cost desc, word limit @MostWords
                    """,
                    new
                    {
                        period = kept.Period,
                        size = (short)size,
                        unsold,
                        MostWords,
                    },
                    cancellationToken: cancellation
                )
            ),
        ];
    }

    /// <summary>The keywords through which terms came, by term.</summary>
    internal static async Task<ILookup<string, TermPart>> PartsAsync(
        NpgsqlConnection connection,
        long period,
        IReadOnlyCollection<string> terms,
        CancellationToken cancellation
    ) =>
        (
            await connection.QueryAsync<Part>(
                new CommandDefinition(
                    """
                    select p.term, p.keyword_id as "keywordId", k.text as keyword, k.match_type as match, p.ad_group_id as "adGroupId", g.name as "adGroup", p.campaign_id as "campaignId", c.name as campaign, p.impressions, p.clicks, p.cost, p.conversions, p.value
                    from term_part p left join keyword k on k.id = p.keyword_id left join ad_group g on g.id = p.ad_group_id left join campaign c on c.id = p.campaign_id
                    where p.period_id = @period and p.term = any(@terms) order by p.impressions desc, p.keyword_id
                    """,
                    new { period, terms = terms.ToArray() },
                    cancellationToken: cancellation
                )
            )
        ).ToLookup(
            row => row.Term,
            row => new TermPart(
                row.KeywordId,
                row.Keyword,
                row.Match,
                row.AdGroupId,
                row.AdGroup,
                row.CampaignId,
                row.Campaign,
                row.Figures
            ),
            StringComparer.Ordinal
        );

    private static async Task<KeywordIndex<PlacedNegative>> BlockingAsync(NpgsqlConnection connection, int accountId)
    {
        var account = await AccountFacts.ReadAsync(connection, accountId);
        return PlacedNegatives.Index(await PlacedNegatives.LoadAsync(connection, accountId), account.Network);
    }

    /// <summary>A negative of the working copy, where such keep a term away everywhere it came through.</summary>
    private static string? BlockedBy(string term, TermPart[] parts, KeywordIndex<PlacedNegative> index)
    {
        var found = index.Find(term);
        PlacedNegative?[] by =
        [
            .. parts.Select(part => found.Find(each => each.Reaches(part.CampaignId, part.AdGroupId))),
        ];
        return by.Length > 0 && Array.TrueForAll(by, each => each is not null)
            ? KeywordNotation.Write(by[0]!.Negative.Text, by[0]!.Negative.Match)
            : null;
    }

    private sealed class Row : FigureColumns
    {
        public required string Term { get; init; }
        public int AdGroups { get; init; }
        public DateOnly FirstSeen { get; init; }
        public bool IsNew { get; init; }
        public bool IsKeyword { get; init; }
        public TermDecision? Decision { get; init; }
        public string? Said { get; init; }
    }

    private sealed class Part : FigureColumns
    {
        public required string Term { get; init; }
        public long KeywordId { get; init; }
        public string? Keyword { get; init; }
        public MatchType? Match { get; init; }
        public long AdGroupId { get; init; }
        public string? AdGroup { get; init; }
        public long CampaignId { get; init; }
        public string? Campaign { get; init; }
    }
}
