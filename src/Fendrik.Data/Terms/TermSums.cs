using Dapper;
using Fendrik.Core.Matching;
using Fendrik.Core.Reporting;
using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Data.Terms;

/// <summary>Which search terms are looked at.</summary>
/// <param name="AccountId">The account.</param>
/// <param name="Days">The days.</param>
/// <param name="CampaignId">Only those that came through a campaign.</param>
/// <param name="AdGroupId">Only those that came through an ad group.</param>
public sealed record TermScope(int AccountId, Period Days, long? CampaignId = null, long? AdGroupId = null);

/// <summary>
/// Search terms added up by period, and the words in them: kept in unlogged tables until the next report, since adding up millions of rows for each page
/// would take seconds. What is lost is added up again.
/// </summary>
public sealed class TermSums(NpgsqlDataSource source)
{
    /// <summary>Periods kept of an account; the oldest goes first.</summary>
    private const int MostKept = 8;

    /// <summary>A term is new when nobody typed it in so many days before.</summary>
    private const int DaysOfMemory = 400;

    private const int LongestStatement = 600;

    /// <summary>A word that never brought a conversion counts as wasting from so many different terms on.</summary>
    public const int LeastTermsOfWord = 3;

    private const int MostWordsTogether = 3;

    /// <summary>The kept sums at one moment, added up now where they are not kept.</summary>
    /// <param name="scope">What is looked at.</param>
    /// <param name="cancellation">Stops the adding up.</param>
    internal async Task<TermMoment> OpenAsync(TermScope scope, CancellationToken cancellation)
    {
        while (true)
        {
            var period = await EnsureAsync(scope, cancellation);
            if (await TermMoment.FindAsync(source, period, cancellation) is { } moment)
            {
                return moment;
            }
        }
    }

    private async Task<long> EnsureAsync(TermScope scope, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        if (await FindAsync(connection, scope, cancellation) is { } kept)
        {
            return kept;
        }

        // Of two who add up at once, one waits for the other. The lock goes with its transaction, whatever becomes of the one who holds it.
        await using var holding = await source.OpenConnectionAsync(cancellation);
        await using var turn = await holding.BeginTransactionAsync(cancellation);
        await holding.ExecuteAsync(
            Command("select pg_advisory_xact_lock(hashtextextended('terms', @AccountId))", scope, cancellation)
        );
        return await FindAsync(connection, scope, cancellation) ?? await AddUpAsync(connection, scope, cancellation);
    }

    private static Task<long?> FindAsync(
        NpgsqlConnection connection,
        TermScope scope,
        CancellationToken cancellation
    ) =>
        connection.ExecuteScalarAsync<long?>(
            Command(
                """
                select p.id from term_period p join account a on a.id = p.account_id and a.report_revision = p.report_revision
                where p.account_id = @AccountId and p.first_day = @First and p.last_day = @Last and p.campaign_id = @campaign and p.ad_group_id = @adGroup and p.is_ready
                """,
                scope,
                cancellation
            )
        );

    private async Task<long> AddUpAsync(NpgsqlConnection connection, TermScope scope, CancellationToken cancellation)
    {
        var period = await connection.QuerySingleAsync<long>(
            Command(
                $"""
                delete from term_period p using account a where a.id = p.account_id and p.account_id = @AccountId and (not p.is_ready or p.report_revision <> a.report_revision
                  or p.id in (select id from term_period where account_id = @AccountId order by id desc offset {MostKept
                    - 1}));
                insert into term_period (account_id, first_day, last_day, campaign_id, ad_group_id, report_revision)
                  select id, @First, @Last, @campaign, @adGroup, report_revision from account where id = @AccountId returning id
                """,
                scope,
                cancellation
            )
        );
        await connection.ExecuteAsync(
            Command(
                """
                insert into term_part
                select @period, term, campaign_id, ad_group_id, keyword_id, sum(impressions), sum(clicks), sum(cost), sum(conversions), sum(value)
                from search_term_day where account_id = @AccountId and day between @First and @Last
                  and (@campaign = 0 or campaign_id = @campaign) and (@adGroup = 0 or ad_group_id = @adGroup)
                group by term, campaign_id, ad_group_id, keyword_id
                """,
                scope,
                cancellation,
                period
            )
        );
        await WithWordsAsync(scope, period, cancellation);
        await connection.ExecuteAsync(
            Command(
                $"""
                insert into term_word
                select @period, w.size, w.word, count(*), sum(t.clicks), sum(t.cost), coalesce(sum(t.cost) filter (where t.conversions > 0), 0), sum(t.conversions)
                from term_sum t cross join lateral (
                  select distinct n as size, array_to_string(t.words[at:at + n - 1], ' ') as word
                  from generate_series(1, {MostWordsTogether}) n, generate_series(1, cardinality(t.words) - n + 1) at) w
                where t.period_id = @period group by w.size, w.word having w.size = 1 or count(*) > 1;
                analyze term_sum;
                update term_period p set is_ready = true, terms = s.terms, seen_once = s.seen_once, clicks = s.clicks, cost = s.cost, conversions = s.conversions, wasted = s.wasted
                from (select count(*) as terms, count(*) filter (where impressions = 1) as seen_once, coalesce(sum(clicks), 0) as clicks, coalesce(sum(cost), 0) as cost,
                    coalesce(sum(conversions), 0) as conversions,
                    -- All words once against all words, not each term against them: of a million terms that took minutes.
                    coalesce((select sum(d.cost) from (
                      select distinct v.term, v.cost from term_sum v cross join lateral unnest(v.words) w(word)
                      join term_word x on x.period_id = @period and x.size = 1 and x.word = w.word and x.conversions = 0 and x.terms >= {LeastTermsOfWord}
                      where v.period_id = @period) d), 0) as wasted
                  from term_sum t where t.period_id = @period) s
                where p.id = @period
                """,
                scope,
                cancellation,
                period
            )
        );
        return period;
    }

    /// <summary>Terms with their words, which are Core's: they go through here once.</summary>
    private async Task WithWordsAsync(TermScope scope, long period, CancellationToken cancellation)
    {
        await using var reading = await source.OpenConnectionAsync(cancellation);
        await using var writing = await source.OpenConnectionAsync(cancellation);
        await using var terms = await reading.ExecuteReaderAsync(
            Command(
                $"""
                select t.term, f.first_seen, t.ad_groups, t.impressions, t.clicks, t.cost, t.conversions, t.value
                from (select term, count(distinct ad_group_id)::int as ad_groups, sum(impressions)::bigint as impressions, sum(clicks)::bigint as clicks, sum(cost) as cost,
                    sum(conversions) as conversions, sum(value) as value from term_part where period_id = @period group by term) t
                join (select term, min(day) as first_seen from search_term_day where account_id = @AccountId and day between @Last - {DaysOfMemory} and @Last group by term) f using (term)
                """,
                scope,
                cancellation,
                period
            )
        );
        await using var copy = await writing.BeginBinaryImportAsync(
            "copy term_sum (period_id, term, term_key, words, first_seen, ad_groups, impressions, clicks, cost, conversions, value) from stdin (format binary)",
            cancellation
        );
        while (await terms.ReadAsync(cancellation))
        {
            var term = terms.GetString(0);
            await copy.StartRowAsync(cancellation);
            await copy.WriteAsync(period, cancellation);
            await copy.WriteAsync(term, cancellation);
            await copy.WriteAsync(TextIdentity.Of(term), cancellation);
            await copy.WriteAsync(Words.Of(term).ToArray(), NpgsqlDbType.Array | NpgsqlDbType.Text, cancellation);
            await copy.WriteAsync(terms.GetFieldValue<DateOnly>(1), NpgsqlDbType.Date, cancellation);
            await copy.WriteAsync(terms.GetInt32(2), cancellation);
            await copy.WriteAsync(terms.GetInt64(3), cancellation);
            await copy.WriteAsync(terms.GetInt64(4), cancellation);
            await copy.WriteAsync(terms.GetDecimal(5), NpgsqlDbType.Numeric, cancellation);
            await copy.WriteAsync(terms.GetDecimal(6), NpgsqlDbType.Numeric, cancellation);
            await copy.WriteAsync(terms.GetDecimal(7), NpgsqlDbType.Numeric, cancellation);
        }

        await copy.CompleteAsync(cancellation);
    }

    private static CommandDefinition Command(
        string sql,
        TermScope scope,
        CancellationToken cancellation,
        long period = 0
    ) =>
        new(
            sql,
            new
            {
                scope.AccountId,
                scope.Days.First,
                scope.Days.Last,
                campaign = scope.CampaignId ?? 0,
                adGroup = scope.AdGroupId ?? 0,
                period,
            },
            commandTimeout: LongestStatement,
            cancellationToken: cancellation
        );
}
