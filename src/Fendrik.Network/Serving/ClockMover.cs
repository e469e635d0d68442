using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Network.Simulation;
using Npgsql;

namespace Fendrik.Network.Serving;

/// <summary>Moves the clock of an account on, hour by hour: reviewers read, people search.</summary>
public sealed class ClockMover(NetworkStore store)
{
    public const int MostHours = 24 * 400;

    public async Task<NetworkClock> AdvanceAsync(string accountId, int hours, CancellationToken cancellation)
    {
        await using var connection = await store.OpenAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        var account =
            await NetworkStore.FindAsync(connection, accountId, locking: true)
            ?? throw new BadHttpRequestException("There is no such account.", StatusCodes.Status404NotFound);
        var days = new AccountDay(account.TimeZone);
        var served = (await NetworkStore.LiveAsync(connection, account)).Served;
        var now = account.Clock;
        var spent = await SpentAsync(connection, accountId, days.At(now).Day);
        var rows = new List<PerformanceRow>();
        var terms = new Dictionary<(DateOnly, string, long), SearchTermRow>();
        var today = days.At(now).Day;
        for (var hour = 0; hour < hours; hour++)
        {
            cancellation.ThrowIfCancellationRequested();
            var (day, wallHour) = days.At(now);
            if (day != today)
            {
                (today, spent) = (day, []);
            }

            if (await Reviewers.ReadAsync(connection, account, now) > 0)
            {
                served = (await NetworkStore.LiveAsync(connection, account)).Served;
            }

            var begun = (int)Math.Round((now - days.StartOf(day)).TotalHours) + 1;
            var play = new SearchHour(Market.Default, served, (ulong)account.Seed, spent);
            rows.AddRange(
                play.Play(new HourOfDay(day, wallHour, begun, days.HoursOf(day).Count, now.ToUnixTimeSeconds() / 3600))
            );
            foreach (var term in play.Terms)
            {
                AddUp(terms, term);
            }

            now = now.AddHours(1);
        }

        await Reviewers.ReadAsync(connection, account, now);
        await WriteAsync(connection, accountId, rows, cancellation);
        await WriteAsync(connection, accountId, terms.Values, cancellation);
        await connection.ExecuteAsync("update account set now = @now where id = @accountId", new { accountId, now });
        await transaction.CommitAsync(cancellation);
        return ClockOf(account, now);
    }

    public static NetworkClock ClockOf(NetworkAccount account, DateTimeOffset now)
    {
        var days = new AccountDay(account.TimeZone);
        var yesterday = days.At(now).Day.AddDays(-1);
        var began = days.At(new DateTimeOffset(DateTime.SpecifyKind(account.StartedAt, DateTimeKind.Utc))).Day;
        return new NetworkClock(now, began, yesterday < began ? null : yesterday);
    }

    public static async Task<Dictionary<long, decimal>> SpentAsync(
        NpgsqlConnection connection,
        string accountId,
        DateOnly day
    )
    {
        var rows = await connection.QueryAsync<(long Campaign, decimal Cost)>(
            "select campaign_id, sum(cost) from performance where account_id = @accountId and day = @day group by campaign_id",
            new { accountId, day }
        );
        return rows.ToDictionary(row => row.Campaign, row => row.Cost);
    }

    private static void AddUp(Dictionary<(DateOnly, string, long), SearchTermRow> terms, SearchTermRow term)
    {
        var key = (term.Day, term.Term, term.KeywordId);
        terms[key] = terms.TryGetValue(key, out var known)
            ? known with
            {
                Impressions = known.Impressions + term.Impressions,
                Clicks = known.Clicks + term.Clicks,
                Cost = known.Cost + term.Cost,
                Conversions = known.Conversions + term.Conversions,
                Value = known.Value + term.Value,
            }
            : term;
    }

    private static async Task WriteAsync(
        NpgsqlConnection connection,
        string accountId,
        IEnumerable<SearchTermRow> terms,
        CancellationToken cancellation
    )
    {
        await using var importer = await connection.BeginBinaryImportAsync(
            "copy search_term (account_id, day, term, campaign_id, ad_group_id, keyword_id, impressions, clicks, cost, conversions, value) from stdin (format binary)",
            cancellation
        );
        foreach (var row in terms)
        {
            await importer.WriteRowAsync(
                cancellation,
                accountId,
                row.Day,
                row.Term,
                row.CampaignId,
                row.AdGroupId,
                row.KeywordId,
                row.Impressions,
                row.Clicks,
                row.Cost,
                row.Conversions,
                row.Value
            );
        }

        await importer.CompleteAsync(cancellation);
    }

    private static async Task WriteAsync(
        NpgsqlConnection connection,
        string accountId,
        List<PerformanceRow> rows,
        CancellationToken cancellation
    )
    {
        await using var importer = await connection.BeginBinaryImportAsync(
            """
            copy performance (account_id, day, hour, campaign_id, ad_group_id, keyword_id, ad_id, device, site, impressions, clicks, cost, conversions, value)
            from stdin (format binary)
            """,
            cancellation
        );
        foreach (var row in rows)
        {
            await importer.WriteRowAsync(
                cancellation,
                accountId,
                row.Day,
                (short)row.Hour,
                row.CampaignId,
                row.AdGroupId,
                row.KeywordId,
                row.AdId,
                (short)row.Device,
                (short)row.Site,
                row.Impressions,
                row.Clicks,
                row.Cost,
                row.Conversions,
                row.Value
            );
        }

        await importer.CompleteAsync(cancellation);
    }
}
