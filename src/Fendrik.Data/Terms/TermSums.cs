using Dapper;
using Fendrik.Core.Matching;
using Fendrik.Core.Reporting;
using Fendrik.Core.Searches;
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
    /// <summary>The weeks of terms that are looked at unless somebody says otherwise.</summary>
    public const int UsualWeeks = 13;

    private const int DaysOfWeek = 7;

    /// <summary>Periods kept of an account; the oldest goes first.</summary>
    private const int MostKept = 8;

    /// <summary>A term is new when nobody typed it in so many days before.</summary>
    private const int DaysOfMemory = 400;

    private const int LongestStatement = 600;

    /// <summary>Adding up sorts and hashes rows by the million: with the usual memory it would do so on disk.</summary>
    private const string WithRoom = "set local work_mem = '256MB'; set local jit = off; ";

    /// <summary>Adds up the usual weeks after a report, so that whoever comes first does not wait for it.</summary>
    public async Task AddUpAsync(int accountId, DateOnly last, CancellationToken cancellation) =>
        await EnsureAsync(
            new TermScope(accountId, new Period(last.AddDays(1 - UsualWeeks * DaysOfWeek), last)),
            cancellation
        );

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
        await using (var transaction = await connection.BeginTransactionAsync(cancellation))
        {
            await connection.ExecuteAsync(
                Command(
                    $"""
                    {WithRoom}
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
            await transaction.CommitAsync(cancellation);
        }

        var phrases = await WithWordsAsync(scope, period, cancellation);
        await WritePhrasesAsync(connection, period, phrases, cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                analyze term_sum;
                update term_period p set is_ready = true, terms = s.terms, seen_once = s.seen_once, clicks = s.clicks, cost = s.cost, conversions = s.conversions, wasted = @wasted
                from (select count(*) as terms, count(*) filter (where impressions = 1) as seen_once, coalesce(sum(clicks), 0) as clicks, coalesce(sum(cost), 0) as cost,
                    coalesce(sum(conversions), 0) as conversions
                  from term_sum t where t.period_id = @period) s
                where p.id = @period
                """,
                new { period, wasted = phrases.Wasted() },
                commandTimeout: LongestStatement,
                cancellationToken: cancellation
            )
        );
        return period;
    }

    private static async Task WritePhrasesAsync(
        NpgsqlConnection connection,
        long period,
        PhraseBook phrases,
        CancellationToken cancellation
    )
    {
        await using var copy = await connection.BeginBinaryImportAsync(
            "copy term_word (period_id, size, word, terms, clicks, cost, sold, conversions) from stdin (format binary)",
            cancellation
        );
        foreach (var phrase in phrases.Count())
        {
            await copy.StartRowAsync(cancellation);
            await copy.WriteAsync(period, cancellation);
            await copy.WriteAsync((short)phrase.Size, cancellation);
            await copy.WriteAsync(phrase.Text, cancellation);
            await copy.WriteAsync(phrase.Terms, cancellation);
            await copy.WriteAsync(phrase.Clicks, cancellation);
            await copy.WriteAsync(phrase.Cost, NpgsqlDbType.Numeric, cancellation);
            await copy.WriteAsync(phrase.Sold, NpgsqlDbType.Numeric, cancellation);
            await copy.WriteAsync(phrase.Conversions, NpgsqlDbType.Numeric, cancellation);
        }

        await copy.CompleteAsync(cancellation);
    }

    /// <summary>Terms with their words, which are Core's: they go through here once.</summary>
    private async Task<PhraseBook> WithWordsAsync(TermScope scope, long period, CancellationToken cancellation)
    {
        await using var reading = await source.OpenConnectionAsync(cancellation);
        await using var writing = await source.OpenConnectionAsync(cancellation);
        // Parallel workers take their share of the rows as long as nothing is written in the same statement.
        await using var turn = await reading.BeginTransactionAsync(cancellation);
        await reading.ExecuteAsync(new CommandDefinition(WithRoom, cancellationToken: cancellation));
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
        var phrases = new PhraseBook();
        while (await terms.ReadAsync(cancellation))
        {
            var term = terms.GetString(0);
            var words = Words.Of(term);
            phrases.Add(words, terms.GetInt64(4), terms.GetDecimal(5), terms.GetDecimal(6));
            await copy.StartRowAsync(cancellation);
            await copy.WriteAsync(period, cancellation);
            await copy.WriteAsync(term, cancellation);
            await copy.WriteAsync(TextIdentity.Of(term), cancellation);
            await copy.WriteAsync(words.ToArray(), NpgsqlDbType.Array | NpgsqlDbType.Text, cancellation);
            await copy.WriteAsync(terms.GetFieldValue<DateOnly>(1), NpgsqlDbType.Date, cancellation);
            await copy.WriteAsync(terms.GetInt32(2), cancellation);
            await copy.WriteAsync(terms.GetInt64(3), cancellation);
            await copy.WriteAsync(terms.GetInt64(4), cancellation);
            await copy.WriteAsync(terms.GetDecimal(5), NpgsqlDbType.Numeric, cancellation);
            await copy.WriteAsync(terms.GetDecimal(6), NpgsqlDbType.Numeric, cancellation);
            await copy.WriteAsync(terms.GetDecimal(7), NpgsqlDbType.Numeric, cancellation);
        }

        await copy.CompleteAsync(cancellation);
        return phrases;
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
