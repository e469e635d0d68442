using System.Collections.Concurrent;
using System.Diagnostics;
using System.Text;
using Fendrik.Tests.Shared;
using Npgsql;

namespace Fendrik.Bench;

/// <summary>
/// Twenty people at work on one account for a minute: own items and shared ones, undo, lists brought in, publishes, readings of the
/// live copy. No edit that was answered is lost, nothing answers with an error of the server, and an edit stays quick; the baseline is
/// the same edit by one person alone, in the same run.
/// </summary>
internal static class LoadBench
{
    private const int People = 20;
    private const int Editors = 14;
    private const int Keywords = 20_000;
    private static readonly TimeSpan Minute = TimeSpan.FromSeconds(60);

    public static async Task RunAsync()
    {
        await using var host = await ServerHost.StartAsync();
        await using var source = NpgsqlDataSource.Create(host.Database);
        var (account, first, _) = await host.NewAccountAsync();
        await PublishBench.MakeAsync(source, account, Keywords);
        var people = new List<Visitor> { first };
        while (people.Count < People)
        {
            people.Add(await host.AddPersonAsync(account));
        }

        var ids = await host.QueryAsync<long[]>(
            "select array_agg(id order by id) from keyword where account_id = @account",
            new { account }
        );
        await first.StatusAsync(account);
        var load = new Load(account, ids);
        var alone = new List<double>();
        for (var edit = 0; edit < 100; edit++)
        {
            alone.Add(await load.EditAsync(first, ids[^1]));
        }

        using var stop = new CancellationTokenSource(Minute);
        await Task.WhenAll(
            people.Select((visitor, number) => Task.Run(() => load.WorkAsync(visitor, number, stop.Token)))
        );
        await first.StatusAsync(account);
        var lost = 0;
        foreach (var (id, bid) in load.Last)
        {
            var kept = await host.QueryAsync<decimal>("select max_cpc from keyword where id = @id", new { id });
            lost += kept == bid ? 0 : 1;
        }

        Console.WriteLine(
            $"{People} people for {Minute.TotalSeconds:0} s on {Keywords:N0} keywords: {load.Edits.Count:N0} edits, {load.Others:N0} other acts, {load.Refused:N0} refused, {load.Failed.Count} answered 5xx (goal: 0), {lost} of {load.Last.Count} last edits lost (goal: 0)"
        );
        foreach (var failure in load.Failed.Take(5))
        {
            Console.WriteLine($"  {failure}");
        }

        Measure.Print(
            "  edit, 95th of a hundred, beside one person's alone (baseline), ms",
            At(load.Edits, 0.95),
            At(alone, 0.95),
            "under 1,000 ms"
        );
        Console.WriteLine($"  half of the edits within {At(load.Edits, 0.5):N0} ms");
        people.ForEach(visitor => visitor.Dispose());
    }

    private static double At(IEnumerable<double> times, double part)
    {
        var sorted = times.Order().ToArray();
        return sorted[(int)(sorted.Length * part)];
    }

    /// <summary>What people do, and what came of it.</summary>
    private sealed class Load(int account, long[] ids)
    {
        private int _others;
        private int _refused;

        public ConcurrentBag<double> Edits { get; } = [];
        public ConcurrentQueue<string> Failed { get; } = new();
        public ConcurrentDictionary<long, decimal> Last { get; } = new();
        public int Others => _others;
        public int Refused => _refused;

        private string Of(string path) => $"/api/accounts/{account}/{path}";

        public async Task WorkAsync(Visitor visitor, int number, CancellationToken stop)
        {
            var chance = new Random(number);
            for (var round = 0; !stop.IsCancellationRequested; round++)
            {
                if (number < Editors)
                {
                    // Nine in ten edits are of own items, one in ten of those that all edit.
                    var id = chance.Next(10) == 0 ? ids[chance.Next(5)] : ids[100 + (number * 100) + chance.Next(100)];
                    Edits.Add(await EditAsync(visitor, id));
                }
                else
                {
                    await OtherAsync(visitor, chance.Next(6), number, round);
                    Interlocked.Increment(ref _others);
                }

                // A person looks at what was done.
                await NoteAsync(await visitor.GetAsync(Of("status")));
                await Task.Delay(chance.Next(100, 400), CancellationToken.None);
            }
        }

        public async Task<double> EditAsync(Visitor visitor, long id)
        {
            var bid = Random.Shared.Next(10, 900) / 100m;
            var watch = Stopwatch.StartNew();
            using var response = await visitor.SendAsync(
                HttpMethod.Post,
                Of("commands"),
                new
                {
                    type = "setFields",
                    items = new[] { new { kind = "keyword", id } },
                    values = new { maxCpc = $"{bid:0.00}" },
                },
                Guid.NewGuid()
            );
            if (await NoteAsync(response) && Array.IndexOf(ids, id) >= 100)
            {
                Last[id] = bid;
            }

            return watch.Elapsed.TotalMilliseconds;
        }

        private async Task OtherAsync(Visitor visitor, int act, int number, int round)
        {
            switch (act)
            {
                case 0:
                    await NoteAsync(await visitor.SendAsync(HttpMethod.Post, Of("publishes")));
                    break;
                case 1:
                    await NoteAsync(await visitor.SendAsync(HttpMethod.Post, Of("live/read")));
                    break;
                case 2:
                    await NoteAsync(await visitor.SendAsync(HttpMethod.Post, Of("undo")));
                    break;
                case 3:
                    await BringInAsync(visitor, number, round);
                    break;
                default:
                    await NoteAsync(
                        await visitor.SendAsync(
                            HttpMethod.Post,
                            Of("sheet"),
                            new
                            {
                                kind = "keyword",
                                limit = 100,
                                offset = 0,
                            }
                        )
                    );
                    break;
            }
        }

        private async Task BringInAsync(Visitor visitor, int number, int round)
        {
            var list = new StringBuilder("campaign,ad group,keyword,match type,max cpc\n");
            for (var row = 0; row < 50; row++)
            {
                list.Append($"Tuning,Group {number},piano {number} {round} {row},exact,1.10\n");
            }

            using var begun = await visitor.PostBytesAsync(
                Of("intakes?fileName=list.csv"),
                Encoding.UTF8.GetBytes(list.ToString())
            );
            if (!await NoteAsync(begun))
            {
                return;
            }

            var intake = System.Text.Json.JsonDocument.Parse(await begun.Content.ReadAsStringAsync()).RootElement;
            await visitor.JobAsync(account, intake.GetProperty("job"), seconds: 120);
            await NoteAsync(
                await visitor.SendAsync(
                    HttpMethod.Post,
                    Of($"intakes/{intake.GetProperty("intakeId").GetInt64()}/keep")
                )
            );
        }

        /// <summary>True when it was done; what the server failed at is kept.</summary>
        private async Task<bool> NoteAsync(HttpResponseMessage response)
        {
            if ((int)response.StatusCode >= 500)
            {
                Failed.Enqueue(
                    $"{response.RequestMessage!.RequestUri} {(int)response.StatusCode} {await response.Content.ReadAsStringAsync()}"
                );
            }
            else if (!response.IsSuccessStatusCode)
            {
                Interlocked.Increment(ref _refused);
            }

            return response.IsSuccessStatusCode;
        }
    }
}
