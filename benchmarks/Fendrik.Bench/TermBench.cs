using Dapper;
using Fendrik.Core.Reporting;
using Fendrik.Data.Results;
using Fendrik.Data.Sheets.Conditions;
using Fendrik.Data.Terms;
using Npgsql;

namespace Fendrik.Bench;

/// <summary>Search terms of a large account: added up, paged, filtered and taken apart into words, each beside what one would write without kept sums.</summary>
internal sealed class TermBench(NpgsqlDataSource source)
{
    private const int Rows = 5_000_000;
    private const int Days = 91;
    private static readonly DateOnly First = new(2026, 2, 1);

    public async Task RunAsync()
    {
        var account = await AccountAsync();
        var scope = new TermScope(account, new Period(First, First.AddDays(Days - 1)));
        var reader = new TermReader(source, new TermSums(source));
        var terms = 0;
        async Task ReadAsync(TermRequest request) =>
            terms = (await reader.ReadAsync(scope, request, CancellationToken.None)).Count;

        var added = await Measure.MedianAsync(
            1,
            async () =>
            {
                await AskAsync("update account set report_revision = report_revision + 1 where id = @account", account);
                await ReadAsync(new TermRequest { Decided = false });
            }
        );
        const string Sums =
            "select term, sum(impressions), sum(clicks), sum(cost), sum(conversions) from search_term_day where account_id = @account group by term";
        var summed = await Measure.MedianAsync(1, () => AskAsync($"select count(*) from ({Sums}) s", account));
        Measure.Print(
            $"terms added up after a report ({Rows:N0} rows, {terms:N0} terms)",
            added,
            summed,
            "once a report"
        );
        foreach (
            var (what, request, where) in new[]
            {
                ("the dearest that are not decided", new TermRequest { Decided = false }, "true"),
                (
                    "with a part of a word and 3 clicks or more",
                    new TermRequest
                    {
                        Decided = false,
                        Text = "17",
                        Conditions = [new SheetCondition("clicks", SheetTest.AtLeast, ["3"])],
                    },
                    "clicks >= 3 and term like '%17%'"
                ),
                ("no keyword, page 50", new TermRequest { WithoutKeyword = true, Offset = 4_900 }, "true"),
                ("with one word", new TermRequest { Word = "a17" }, "term like '% a17 %'"),
            }
        )
        {
            var read = await Measure.MedianAsync(5, () => ReadAsync(request));
            var bare = await Measure.MedianAsync(
                1,
                () =>
                    AskAsync(
                        $"select * from ({Sums}) s (term, impressions, clicks, cost, conversions) where {where} order by cost desc limit 100",
                        account
                    )
            );
            Measure.Print($"terms: {what} ({terms:N0})", read, bare, "under 300 ms");
        }

        var words = await Measure.MedianAsync(5, () => reader.WordsAsync(scope, 1, false, CancellationToken.None));
        var split = await Measure.MedianAsync(
            1,
            () =>
                AskAsync(
                    $"select w, sum(cost) from ({Sums}) s (term, impressions, clicks, cost, conversions), string_to_table(term, ' ') w group by w order by 2 desc limit 200",
                    account
                )
        );
        Measure.Print("words of all terms", words, split, "under 2 s");
        var proposals = new NegativeForecast(new TermSums(source));
        var forecast = await Measure.MedianAsync(
            1,
            () =>
                proposals.OfAsync(
                    scope,
                    "a17\nb23 c1",
                    MatchType.Phrase,
                    new Data.Commands.ItemPlaces([1]),
                    CancellationToken.None
                )
        );
        Measure.Print("what two negatives would have done", forecast, summed, "none set");
    }

    private async Task AskAsync(string sql, int account)
    {
        await using var connection = await source.OpenConnectionAsync();
        await connection.ExecuteAsync(sql, new { account }, commandTimeout: 600);
    }

    /// <summary>A million terms, of which few are searched often and most a few times.</summary>
    private async Task<int> AccountAsync()
    {
        await using var connection = await source.OpenConnectionAsync();
        var account = await connection.ExecuteScalarAsync<int>(
            "insert into account (name, currency, time_zone, network_id, last_step_id, payer) values ('Terms', 'GBP', 'Europe/London', 'ostrel', 0, 'x') returning id"
        );
        await connection.ExecuteAsync(
            """
            select ensure_performance_month(m::date) from generate_series(@First::date, @First::date + @Days, '1 month') m;
            insert into search_term_day (account_id, day, term, campaign_id, ad_group_id, keyword_id, impressions, clicks, cost, conversions, value)
              select @account, @First::date + (n % @Days), 'piano a' || k % 97 || ' b' || k % 1009 || ' c' || k, 1 + k % 50, 1 + k % 2000, 1 + k % 9000,
                1 + n % 7, case when n % 5 = 0 then 1 else 0 end, case when n % 5 = 0 then 0.4 + (n % 90) / 100.0 else 0 end, case when n % 211 = 0 then 1 else 0 end, 0
              from (select n, floor(1000000 * power(((n * 7919::bigint) % 1000003) / 1000003.0, 2))::bigint as k from generate_series(1, @Rows) n) s;
            update account set reported_to = @First::date + @Days - 1 where id = @account;
            analyze search_term_day
            """,
            new
            {
                account,
                First,
                Days,
                Rows,
            },
            commandTimeout: 1_800
        );
        return account;
    }
}
