using System.Diagnostics;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Changes;
using Fendrik.Data.Checking;
using Fendrik.Data.Cleaning;
using Fendrik.Data.Commands;
using Fendrik.Data.Items;
using Fendrik.Data.Publishing;
using Fendrik.Data.Sheets;
using Fendrik.Data.Sheets.Conditions;
using Fendrik.Data.Steps;
using Fendrik.Data.Tracing;
using Fendrik.Tests.Shared;
using Npgsql;

namespace Fendrik.Bench;

/// <summary>The workbench at a million keywords: any place of any sheet, bulk changes, undo, negatives, checks.</summary>
internal sealed class MillionBench(NpgsqlDataSource source)
{
    private const int Requests = 60;

    private readonly WorkingCopy _workingCopy = new(source, TimeProvider.System);

    public async Task RunAsync()
    {
        Console.WriteLine(
            $"an account of {MillionAccount.Keywords:N0} keywords in {MillionAccount.AdGroups:N0} ad groups"
        );
        var account = await MillionAccount.MakeAsync(source);
        await MeasureAddingUpAsync(account);
        await PlacesAsync(account);
        await NegativesAsync(account);
        await ChecksAsync(account);
        await BidsAsync(account);
        await TextsAsync(account);
    }

    /// <summary>Done once after each report, not when a list is opened.</summary>
    private async Task MeasureAddingUpAsync(int account)
    {
        using var reader = new SheetReader(source);
        var watch = Stopwatch.StartNew();
        await reader.AddUpFiguresAsync(account, CancellationToken.None);
        Console.WriteLine($"adding up the figures of 28 days after a report: {watch.Elapsed.TotalMilliseconds:N0} ms");
    }

    private async Task PlacesAsync(int account)
    {
        foreach (
            var (name, request, sql) in new (string, SheetRequest, string)[]
            {
                (
                    "by words",
                    new SheetRequest { Kind = ItemKind.Keyword },
                    "keyword i where i.account_id = @account and (not i.removed or i.is_live) order by i.text_key, i.id"
                ),
                (
                    "by max CPC",
                    new SheetRequest
                    {
                        Kind = ItemKind.Keyword,
                        Sort = "maxCpc",
                        Descending = true,
                    },
                    "keyword i join ad_group g on g.id = i.ad_group_id where i.account_id = @account and (not i.removed or i.is_live) order by coalesce(i.max_cpc, g.max_cpc) desc nulls last, i.id"
                ),
                (
                    "that contain “tuning”",
                    new SheetRequest { Kind = ItemKind.Keyword, Text = "tuning" },
                    "keyword i where i.account_id = @account and (not i.removed or i.is_live) and i.text_key like '%tuning%' order by i.text_key, i.id"
                ),
                (
                    "with cost > 5 and no conversions, by cost",
                    new SheetRequest
                    {
                        Kind = ItemKind.Keyword,
                        Sort = "cost",
                        Descending = true,
                        Conditions = [new("cost", SheetTest.Above, ["5"]), new("conversions", SheetTest.Is, ["0"])],
                    },
                    "keyword i join (select keyword_id, sum(cost) as cost, sum(conversions) as conversions from performance_day where account_id = @account and day between '2026-10-24' and '2026-11-20' group by 1) f on f.keyword_id = i.id where i.account_id = @account and (not i.removed or i.is_live) and f.cost > 5 and f.conversions = 0 order by f.cost desc, i.id"
                ),
            }
        )
        {
            await PlacesAsync(account, $"keywords {name}", request, sql);
        }

        await PlacesAsync(account, "the outline", new SheetRequest(), null);
    }

    private async Task PlacesAsync(int account, string name, SheetRequest request, string? sql)
    {
        using var reader = new SheetReader(source);
        // The code is compiled by then, as on a server that has been running; what is asked for is new to it.
        await reader.ReadAsync(account, request with { Kind = ItemKind.Campaign }, CancellationToken.None);
        await reader.CountAsync(account, request with { Kind = ItemKind.Campaign }, CancellationToken.None);
        var watch = Stopwatch.StartNew();
        await reader.ReadAsync(account, request, CancellationToken.None);
        var opening = watch.Elapsed.TotalMilliseconds;
        watch.Restart();
        var total = (await reader.CountAsync(account, request, CancellationToken.None)).Total;
        var counting = watch.Elapsed.TotalMilliseconds;
        watch.Restart();
        await reader.ReadAsync(account, request with { Offset = (int)total / 2 }, CancellationToken.None);
        var firstJump = watch.Elapsed.TotalMilliseconds;
        var random = new Random(7);
        var times = new List<double>();
        for (var number = 0; number < Requests; number++)
        {
            var place = random.Next((int)Math.Max(1, total - 100));
            watch.Restart();
            await reader.ReadAsync(account, request with { Offset = place }, CancellationToken.None);
            times.Add(watch.Elapsed.TotalMilliseconds);
        }

        times.Sort();
        Console.WriteLine(
            $"{name} ({total:N0} rows): first page {opening:N0} ms (goal: under 150 ms), count {counting:N0} ms, first jump {firstJump:N0} ms (goal: under 300 ms), any place p95 {times[Requests * 95 / 100]:N0} ms (goal: under 50 ms)"
        );
        if (sql is not null)
        {
            var bare = await Measure.MedianAsync(
                5,
                async () =>
                {
                    await using var connection = await source.OpenConnectionAsync();
                    await connection.QueryAsync<long>(
                        $"select i.id from {sql} offset @place limit 100",
                        new { account, place = total / 2 }
                    );
                }
            );
            Measure.Print(
                $"  {name}, median of any place (baseline: bare SQL at the middle)",
                times[Requests / 2],
                bare,
                "at most 1.5 ×"
            );
        }
    }

    private async Task NegativesAsync(int account)
    {
        var watch = Stopwatch.StartNew();
        var report = await new NegativeReview(source).RunAsync(account, CancellationToken.None);
        var review = watch.Elapsed.TotalMilliseconds;
        var reading = await Measure.MedianAsync(
            1,
            async () =>
            {
                await using var connection = await source.OpenConnectionAsync();
                await foreach (
                    var _ in connection.QueryUnbufferedAsync<(long, long, long, string)>(
                        "select k.id, k.ad_group_id, g.campaign_id, k.text from keyword k join ad_group g on g.id = k.ad_group_id where k.account_id = @account and not k.removed",
                        new { account }
                    )
                ) { }
            }
        );
        Measure.Print(
            $"conflicts of {report.Negatives:N0} negatives with {report.Keywords:N0} keywords: {report.ConflictCount:N0} found (baseline: reading the keywords)",
            review,
            reading,
            "seconds, not minutes"
        );
        watch.Restart();
        var duplicates = await new Duplicates(source).FindAsync(
            account,
            new DuplicateRequest(Core.Matching.DuplicateSense.SameMeaning, DuplicateScope.Account, false),
            CancellationToken.None
        );
        Measure.Print(
            $"duplicates in any order and number: {duplicates.Sets:N0} sets (baseline: reading the keywords)",
            watch.Elapsed.TotalMilliseconds,
            reading,
            "none set"
        );
    }

    private async Task ChecksAsync(int account)
    {
        using var keywords = new KeywordMemory();
        var checks = new AccountChecks(source, _workingCopy, keywords);
        var pending = new PendingChanges(source);
        var watch = Stopwatch.StartNew();
        await checks.CountsAsync(account, CancellationToken.None);
        var whole = watch.Elapsed.TotalMilliseconds;
        await ApplyAsync(account, Change.Set(await OneAsync(account), "maxCpc", "7"));
        watch.Restart();
        await checks.CountsAsync(account, CancellationToken.None);
        var little = watch.Elapsed.TotalMilliseconds;
        Measure.Print(
            "checks after one edit (baseline: of everything)",
            little,
            whole,
            "in proportion to what changed"
        );
        var changes = await Measure.MedianAsync(5, () => pending.CountAsync(account, CancellationToken.None));
        Console.WriteLine($"count of changes with one edit: {changes:N0} ms");
    }

    private async Task BidsAsync(int account)
    {
        var set = ItemSet.Matching(
            new SheetRequest
            {
                Kind = ItemKind.Keyword,
                Conditions = [new("words", SheetTest.Is, ["4"]), new("match", SheetTest.Is, ["exact"])],
            }
        );
        await SettleAsync();
        var watch = Stopwatch.StartNew();
        var result = await ApplyAsync(account, Change.Set(set, "maxCpc", "1.23"));
        var change = watch.Elapsed.TotalMilliseconds;
        await SettleAsync();
        watch.Restart();
        await new StepHistory(source, _workingCopy).UndoAsync(account, "bench", CancellationToken.None);
        var undo = watch.Elapsed.TotalMilliseconds;
        var bare = await BareAsync(
            "update keyword i set max_cpc = 1.23 where i.account_id = @account and not i.removed and i.match_type = 1 and cardinality(string_to_array(i.text_key, ' ')) = 4",
            account
        );
        Measure.Print(
            $"a bid on {result.Items:N0} keywords chosen by a filter (baseline: bare UPDATE)",
            change,
            bare,
            "at most 2 ×"
        );
        Measure.Print("undo of it (same baseline)", undo, bare, "at most 2 ×");
    }

    private async Task TextsAsync(int account)
    {
        await SettleAsync();
        var watch = Stopwatch.StartNew();
        var result = await ApplyAsync(
            account,
            new EditTexts(
                ItemSet.Matching(new SheetRequest { Kind = ItemKind.TextAd }),
                ["headlines", "descriptions"],
                TextOperation.Replace,
                "Call now",
                "Book today"
            )
        );
        var change = watch.Elapsed.TotalMilliseconds;
        await SettleAsync();
        watch.Restart();
        await new StepHistory(source, _workingCopy).UndoAsync(account, "bench", CancellationToken.None);
        var undo = watch.Elapsed.TotalMilliseconds;
        var bare = await BareAsync(
            """
            update text_ad i set headlines = array(select regexp_replace(h, 'book today', 'Call now', 'gi') from unnest(i.headlines) h),
              descriptions = array(select regexp_replace(d, 'book today', 'Call now', 'gi') from unnest(i.descriptions) d),
              content_key = encode(sha256(convert_to(i.id::text, 'UTF8')), 'hex')
            where i.account_id = @account and not i.removed
            """,
            account
        );
        Measure.Print(
            $"find and replace over {result.Items:N0} ads (baseline: bare UPDATE)",
            change,
            bare,
            "at most 2 ×"
        );
        Measure.Print("undo of it (same baseline)", undo, bare, "at most 2 ×");
    }

    private Task<StepResult> ApplyAsync(int account, IWorkingCopyChange change) =>
        _workingCopy.ApplyAsync(account, "bench", change, preview: false, CancellationToken.None);

    private async Task<ItemSet> OneAsync(int account)
    {
        await using var connection = await source.OpenConnectionAsync();
        var id = await connection.ExecuteScalarAsync<long>(
            "select min(id) from keyword where account_id = @account",
            new { account }
        );
        return [new ItemReference(ItemKind.Keyword, id)];
    }

    /// <summary>Every piece of work begins on tables without dead rows and right after a checkpoint, so that all pay for the same.</summary>
    private async Task SettleAsync()
    {
        await using var connection = await source.OpenConnectionAsync();
        await connection.ExecuteAsync("vacuum analyze", commandTimeout: 1200);
        await connection.ExecuteAsync("/* all of it */ checkpoint", commandTimeout: 1200);
    }

    /// <summary>An UPDATE of the same rows with the same indexes, but without triggers: nothing is remembered. Taken back afterwards.</summary>
    private async Task<double> BareAsync(string sql, int account)
    {
        await SettleAsync();
        await using var connection = await source.OpenConnectionAsync();
        await connection.ExecuteAsync("set session_replication_role = replica");
        await using var transaction = await connection.BeginTransactionAsync();
        var watch = Stopwatch.StartNew();
        await connection.ExecuteAsync(sql, new { account }, commandTimeout: 1200);
        var taken = watch.Elapsed.TotalMilliseconds;
        await transaction.RollbackAsync();
        await connection.ExecuteAsync("set session_replication_role = origin");
        return taken;
    }
}
