using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Data.Accounts;
using Fendrik.Data.Commands;
using Fendrik.Data.Items;
using Fendrik.Data.Live;
using Fendrik.Data.Model;
using Fendrik.Data.Publishing;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Server.Jobs;
using Fendrik.Server.Networks;
using Fendrik.Server.Publishing;
using Fendrik.Tests.Shared;
using Microsoft.AspNetCore.Builder;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.DependencyInjection.Extensions;
using Npgsql;

namespace Fendrik.Server.Tests;

/// <summary>A server whose jobs are done only when a test says so, with the real network behind a faulty connection.</summary>
public sealed class PublishWorldFixture : IAsyncLifetime
{
    private NetworkHost _network = null!;
    private WebApplication _application = null!;

    internal IServiceProvider Services => _application.Services;
    internal FaultyNetwork Network { get; private set; } = null!;
    internal NpgsqlDataSource Database { get; private set; } = null!;
    internal NpgsqlDataSource NetworkDatabase { get; private set; } = null!;
    internal System.Collections.Concurrent.ConcurrentDictionary<int, PublishWorld> Worlds { get; } = new();

    public async ValueTask InitializeAsync()
    {
        _network = await NetworkHost.StartAsync();
        var database = await TestDatabase.CreateAsync();
        _application = ServerApplication.Build(
            [
                $"--Fendrik:Database={database};Maximum Pool Size=40;Max Auto Prepare=400;Auto Prepare Min Usages=3",
                $"--Fendrik:Network={_network.Address}",
                $"--Fendrik:NetworkKey={NetworkHost.Key}",
                "--Fendrik:PublishBatchSize=2",
                "--Logging:LogLevel:Default=None",
            ],
            services =>
            {
                var shipped = services.Last(each =>
                    each.ServiceType == typeof(ISearchNetwork) && (string?)each.ServiceKey == "ostrel"
                );
                services.Remove(shipped);
                services.AddKeyedSingleton<ISearchNetwork>(
                    "ostrel",
                    (provider, key) =>
                        Network = new FaultyNetwork((ISearchNetwork)shipped.KeyedImplementationFactory!(provider, key))
                );
            }
        );
        await ServerApplication.PrepareAsync(_application);
        Database = Services.GetRequiredService<NpgsqlDataSource>();
        NetworkDatabase = NpgsqlDataSource.Create(_network.Database);
        _ = Services.GetRequiredKeyedService<ISearchNetwork>("ostrel");
        Network.Next = account => Worlds[account].NextFault();
        Network.Happens = (account, fault, after) => Worlds[account].HappensAsync(fault, after);
        Network.Sent = (account, batch) => Worlds[account].Sends(batch);
    }

    public async ValueTask DisposeAsync()
    {
        await _application.DisposeAsync();
        await NetworkDatabase.DisposeAsync();
        await _network.DisposeAsync();
    }
}

/// <summary>One account on both sides, what people did to it, and what must hold of it.</summary>
internal sealed class PublishWorld : IAsyncDisposable
{
    private static readonly string[] People = ["morag", "callum"];

    private readonly PublishWorldFixture _fixture;
    private readonly int _account;
    private readonly Queue<Fault> _faults = new();
    private readonly Dictionary<string, string?> _undecided = [];
    private readonly List<string> _told = [];
    private Random _chance = new(0);
    private Dictionary<string, string> _pressed = [];
    private IReadOnlyCollection<string> _held = [];
    private IReadOnlyCollection<string>? _part;
    private string _edited = "";
    private long _job;
    private CancellationTokenSource _server = new();

    private PublishWorld(PublishWorldFixture fixture, int account) => (_fixture, _account) = (fixture, account);

    private T Get<T>()
        where T : notnull => _fixture.Services.GetRequiredService<T>();

    public static async Task<PublishWorld> MakeAsync(PublishWorldFixture fixture)
    {
        await using var connection = await fixture.Database.OpenConnectionAsync();
        await connection.ExecuteAsync("select set_config('fendrik.step', '0', false)");
        var account = await connection.ExecuteScalarAsync<int>(
            """
            with a as (insert into account (name, currency, time_zone, network_id, last_step_id, payer) values ('Tarn & Fell Pianos', 'GBP', 'Europe/London', 'ostrel', 0, 'Tarn & Fell Pianos') returning id),
            c as (insert into campaign (account_id, name, name_key, state, rotation, delivery, people, strategy, objective, daily_budget, networks, removed, is_live, review) select id, 'Tuning', 'tuning', 1, 1, 1, 1, 1, 1, 25, 1, false, false, 0 from a returning id, account_id),
            g as (insert into ad_group (account_id, campaign_id, name, name_key, state, max_cpc, removed, is_live, review) select account_id, id, 'At home', 'at home', 1, 1, false, false, 0 from c returning id, account_id)
            insert into keyword (account_id, ad_group_id, text, text_key, match_type, state, max_cpc, removed, is_live, review)
              select account_id, id, 'piano tuning ' || n, 'piano tuning ' || n, 1, 1, 1.00, false, false, 0 from g, generate_series(1, 5) n returning account_id
            """
        );
        var world = new PublishWorld(fixture, account);
        fixture.Worlds[account] = world;
        await fixture.Network.SetUpAsync(
            new AccountRow
            {
                Id = account,
                Currency = "GBP",
                TimeZone = "Europe/London",
                NetworkId = "ostrel",
                Payer = "Tarn & Fell Pianos",
            },
            NetworkVisitor.Monday,
            1,
            CancellationToken.None
        );
        world._edited = await world.WorkingCopyAsync();
        return world;
    }

    public async ValueTask DisposeAsync()
    {
        _fixture.Worlds.TryRemove(_account, out _);
        _server.Dispose();
        await Task.CompletedTask;
    }

    /// <summary>One act of somebody, drawn by a number; after it all that must hold is looked at.</summary>
    public async Task ActAsync(int seed)
    {
        _chance = new Random(seed);
        _edited = await WorkingCopyAsync();
        var person = People[_chance.Next(2)];
        var act = _chance.Next(18);
        _told.Add($"{act} by {person}");
        try
        {
            await (
                act switch
                {
                    < 5 => EditAsync(person),
                    5 => UndoAsync(person),
                    6 => OutsideEditAsync(),
                    7 => ReadAsync(),
                    8 => DecideAsync(person, _chance.Next(2) == 0),
                    9 => ContinueAsync(person),
                    10 => AbandonAsync(),
                    11 => ArriveAsync(),
                    12 => HoldAsync(person),
                    13 => PublishAsync(person, part: await SomeAsync()),
                    _ => PublishAsync(person),
                }
            );
        }
        catch (Exception error)
            when (error is InvalidChangeException or NetworkUnavailableException or StaleEditException)
        {
            _told.Add(error.Message);
        }

        await HoldsAsync();
    }

    /// <summary>Everything is settled, decided and published: then both sides are the same.</summary>
    public async Task EndAsync()
    {
        _faults.Clear();
        _chance = new Random(_told.Count);
        await ArriveAsync();
        await RunJobAsync();
        if (await Get<PublishRecords>().OpenAsync(_account, CancellationToken.None) is { } open)
        {
            open.State.ShouldBe(PublishState.Interrupted, Story);
            await (_chance.Next(2) == 0 ? AbandonAsync() : ContinueAsync(People[0], faulty: false));
        }

        await ScalarAsync<int>(
            "with gone as (delete from held_change where account_id = @account returning 1) select count(*) from gone"
        );
        await ReadAsync();
        if (_undecided.Count > 0 || await DifferencesAsync() is { Count: > 0 })
        {
            await DecideAsync(People[1], _chance.Next(2) == 0);
        }

        try
        {
            await PublishAsync(People[0], faulty: false);
        }
        catch (InvalidChangeException error)
        {
            _told.Add(error.Message);
        }

        await HoldsAsync();
        (await NetworkAsync()).ShouldBe(await RowsAsync(), ignoreOrder: true, Story);
        (await Get<PendingChanges>().CountAsync(_account, CancellationToken.None)).ShouldBeEmpty(Story);
        (await DifferencesAsync()).ShouldBeEmpty(Story);
        (
            await ScalarAsync<int>("select count(*) from publish where account_id = @account and state not in (2, 4)")
        ).ShouldBe(0, Story);
    }

    private string Story => string.Join("; ", _told);

    public Fault NextFault()
    {
        var fault = _faults.TryDequeue(out var next) ? next : Fault.None;
        _told.Add($"batch: {fault}");
        return fault;
    }

    /// <summary>A batch goes out only with what stood when somebody pressed.</summary>
    public void Sends(PublishBatch batch)
    {
        foreach (var change in batch.Changes)
        {
            var name = $"{(int)change.Kind} {change.ItemId}";
            var sent = change.Item is { } item ? Text(item) : null;
            sent.ShouldBe(_pressed.GetValueOrDefault(name), $"{name} was not so when publish was pressed: {Story}");
            _held.ShouldNotContain(name, $"{name} was held back when publish was pressed: {Story}");
            (
                _part is null || _part.Contains(name) || change.Kind is ItemKind.Campaign or ItemKind.AdGroup
            ).ShouldBeTrue($"{name} was not of the part that was published: {Story}");
        }
    }

    public async Task HappensAsync(Fault fault, bool after)
    {
        switch (fault)
        {
            case Fault.StoppedByPerson when !after:
                await ScalarAsync<int>("update job set cancel_requested = true where id = @job returning 1");
                break;
            case Fault.ServerStopsBefore when !after:
            case Fault.ServerStops when after:
                await _server.CancelAsync();
                break;
            case Fault.SessionCut when after:
                await ScalarAsync<int>(
                    "select count(pg_terminate_backend(pid)) from pg_locks where locktype = 'advisory' and classid = 7002 and objid = @job and pid <> pg_backend_pid()"
                );
                break;
            case Fault.OutsideEdit when !after:
                await OutsideEditAsync();
                break;
            case Fault.ReadMeanwhile when after:
                await ReadAsync();
                break;
            case Fault.EditedMeanwhile when after:
                await EditAsync(People[_chance.Next(2)]);
                break;
        }
    }

    private async Task EditAsync(string person)
    {
        var rows = (
            await QueryAsync<long>("select id from keyword where account_id = @account and not removed order by id")
        ).ToArray();
        var gone = (
            await QueryAsync<long>("select id from keyword where account_id = @account and removed order by id")
        ).ToArray();
        var bid = 0.5m + (_chance.Next(4) * 0.25m);
        IWorkingCopyChange change = _chance.Next(7) switch
        {
            6 => new TakeBackChanges(await SomeAsync()),
            0 when rows.Length > 2 => new RemoveItems([Keyword(rows[_chance.Next(rows.Length)])]),
            1 when gone.Length > 0 => new BringBack([Keyword(gone[_chance.Next(gone.Length)])]),
            2 => Change.Keywords(
                await ScalarAsync<long>("select id from ad_group where account_id = @account"),
                $"piano repair {_chance.Next(3)}",
                MatchType.Exact,
                bid
            ),
            3 => Change.Amount(
                [
                    new ItemReference(
                        ItemKind.AdGroup,
                        await ScalarAsync<long>("select id from ad_group where account_id = @account")
                    ),
                ],
                "maxCpc",
                AmountOperation.Set,
                bid
            ),
            _ when rows.Length > 0 => Change.Amount(
                [Keyword(rows[_chance.Next(rows.Length)])],
                "maxCpc",
                AmountOperation.Set,
                bid
            ),
            _ => new BringBack([Keyword(gone[_chance.Next(gone.Length)])]),
        };
        var before = await WorkingCopyAsync();
        try
        {
            await Get<WorkingCopy>().ApplyAsync(_account, person, change, false, CancellationToken.None);
        }
        catch (InvalidChangeException)
        {
            (await WorkingCopyAsync()).ShouldBe(before, Story);
        }

        _edited = await WorkingCopyAsync();
    }

    private async Task UndoAsync(string person)
    {
        var history = Get<StepHistory>();
        _ =
            _chance.Next(3) == 0
                ? await history.RedoAsync(_account, person, CancellationToken.None)
                : await history.UndoAsync(_account, person, CancellationToken.None);
        _edited = await WorkingCopyAsync();
    }

    /// <summary>Somebody changes or removes a keyword on the network itself.</summary>
    private async Task OutsideEditAsync()
    {
        await using var connection = await _fixture.NetworkDatabase.OpenConnectionAsync();
        var items = (
            await connection.QueryAsync<(long Id, string Item)>(
                "select item_id, item::text from item where account_id = @name and kind = 3 order by item_id",
                new { name = Name }
            )
        ).ToArray();
        if (items.Length == 0)
        {
            return;
        }

        // What a publish has just brought there is no edit of anybody's.
        var before = await NetworkAsync();
        var (id, json) = items[_chance.Next(items.Length)];
        var fields = System.Text.Json.Nodes.JsonNode.Parse(json)!.AsObject();
        fields["maxCpc"] = 0.5m + (_chance.Next(4) * 0.25m);
        var item = System.Text.Json.JsonSerializer.SerializeToElement(fields);
        var removed = _chance.Next(4) == 0;
        await _fixture.Network.EditFromOutsideAsync(
            _account,
            [
                new NetworkChange(
                    ItemKind.Keyword,
                    id,
                    removed ? ChangeAction.Remove : ChangeAction.Put,
                    removed ? null : item
                ),
            ],
            CancellationToken.None
        );
        var now = await NetworkAsync();
        var name = $"3 {id}";
        if (now.GetValueOrDefault(name) != before.GetValueOrDefault(name))
        {
            _undecided[name] = now.GetValueOrDefault(name);
            _told.Add($"outside {name} is {_undecided[name] ?? "gone"}");
        }
    }

    private async Task ReadAsync()
    {
        await Get<LiveCopy>().ReadAsync(_account, CancellationToken.None);
        await ShownAsync();
    }

    private async Task DecideAsync(string person, bool takeTheirs)
    {
        await ReadAsync();
        await Get<WorkingCopy>()
            .ApplyAsync(_account, person, new DecideLive([], takeTheirs), false, CancellationToken.None);
        _undecided.Clear();
        _edited = await WorkingCopyAsync();
        _told.Add(takeTheirs ? "theirs" : "ours");
    }

    private async Task PublishAsync(string person, bool faulty = true, ItemReference[]? part = null)
    {
        Plan(faulty);
        _pressed = await RowsAsync();
        _part = part?.Select(item => $"{(int)item.Kind} {item.Id}").ToArray();
        _held = part is null ? await HeldAsync() : [];
        _told.Add(part is null ? "all" : $"part {string.Join(", ", _part!)}");
        _job = (await Get<PublishDesk>().BeginAsync(_account, person, CancellationToken.None, part)).Id;
        await RunJobAsync();
    }

    /// <summary>What is held back by itself, or is new in something new that is.</summary>
    private async Task<string[]> HeldAsync() =>
        [
            .. await QueryAsync<string>(
                """
                with held as (select kind, item_id as id from held_change where account_id = @account)
                select kind || ' ' || id from held
                union select '2 ' || g.id from ad_group g join campaign c on c.id = g.campaign_id and not c.is_live where g.account_id = @account and not g.removed and (1, c.id) in (select * from held)
                union select '3 ' || k.id from keyword k join ad_group g on g.id = k.ad_group_id and not g.is_live join campaign c on c.id = g.campaign_id
                  where k.account_id = @account and not k.removed and ((2, g.id) in (select * from held) or not c.is_live and (1, c.id) in (select * from held))
                """
            ),
        ];

    private async Task HoldAsync(string person) =>
        await Get<HeldChanges>()
            .SetAsync(_account, person, await SomeAsync(), _chance.Next(3) > 0, CancellationToken.None);

    /// <summary>Some items of the account, removed ones among them.</summary>
    private async Task<ItemReference[]> SomeAsync()
    {
        var all = (
            await QueryAsync<(int Kind, long Id)>(
                "select 3, id from keyword where account_id = @account union all select 2, id from ad_group where account_id = @account union all select 1, id from campaign where account_id = @account order by 1, 2"
            )
        ).ToArray();
        return
        [
            .. all.Where(_ => _chance.Next(3) == 0)
                .Append(all[_chance.Next(all.Length)])
                .Distinct()
                .Select(item => new ItemReference((ItemKind)item.Kind, item.Id)),
        ];
    }

    private async Task ContinueAsync(string person, bool faulty = true)
    {
        if (await Get<PublishRecords>().OpenAsync(_account, CancellationToken.None) is not { } open)
        {
            return;
        }

        Plan(faulty);
        _pressed = await RowsAsync();

        // What goes on is what was pressed then, whatever is held back since.
        (_held, _part) = ([], null);
        _job = (await Get<PublishDesk>().ContinueAsync(_account, person, open.Id, CancellationToken.None)).Id;
        await RunJobAsync();
    }

    private async Task AbandonAsync()
    {
        if (await Get<PublishRecords>().OpenAsync(_account, CancellationToken.None) is { } open)
        {
            await Get<PublishDesk>().AbandonAsync(_account, open.Id, CancellationToken.None);
        }
    }

    private Task ArriveAsync() => _fixture.Network.ArriveAsync(_account);

    private void Plan(bool faulty)
    {
        _faults.Clear();
        for (var batch = faulty ? _chance.Next(4) : 0; batch > 0; batch--)
        {
            _faults.Enqueue(_chance.Next(3) == 0 ? (Fault)_chance.Next(Enum.GetValues<Fault>().Length) : Fault.None);
        }
    }

    /// <summary>The job is done as the server does it; a server that stops is followed by another.</summary>
    private async Task RunJobAsync()
    {
        for (var server = 0; server < 6 && await IsOpenAsync(); server++)
        {
            _server.Dispose();
            _server = new CancellationTokenSource();
            try
            {
                // Who takes it up later sends what is still as it is then.
                await Get<JobRunner>().RunAsync(_job, _server.Token);
            }
            catch (OperationCanceledException) when (_server.IsCancellationRequested)
            {
                _told.Add("server stopped");
            }
            catch (NpgsqlException)
            {
                _told.Add("session cut");
            }
        }

        (await IsOpenAsync()).ShouldBeFalse(Story);
    }

    private Task<bool> IsOpenAsync() =>
        ScalarAsync<bool>("select exists (select from job where id = @job and state in (1, 2))");

    /// <summary>What must hold at any time.</summary>
    private async Task HoldsAsync()
    {
        (await WorkingCopyAsync()).ShouldBe(_edited, $"Only edits change the working copy: {Story}");
        var now = await NetworkAsync();
        foreach (var (name, theirs) in _undecided)
        {
            now.GetValueOrDefault(name).ShouldBe(theirs, $"{name} was overwritten undecided: {Story}");
        }

        await ShownAsync(reading: false);
    }

    /// <summary>After a reading, what is on the network is known, as live or as a difference.</summary>
    private async Task ShownAsync(bool reading = true)
    {
        var differences = await DifferencesAsync();
        if (reading)
        {
            var network = await NetworkAsync();
            var known = (
                await QueryAsync<(string Name, string? Item)>(
                    string.Join(
                        " union all ",
                        Kinds.Select(kind =>
                            $"select '{kind.Number} ' || id, (case when is_live then coalesce(live, {kind.Row}) end)::text from {kind.Table} where account_id = @account"
                        )
                    )
                )
            ).ToDictionary(row => row.Name, row => row.Item is null ? null : Text(row.Item));
            foreach (var name in network.Keys.Union(known.Keys))
            {
                var theirs = network.GetValueOrDefault(name);
                if (known.GetValueOrDefault(name) != theirs)
                {
                    differences.ShouldContainKey(name, $"{name} differs and is not shown: {Story}");
                    differences[name].ShouldBe(theirs, Story);
                }
            }

            // An equal edit is no difference.
            var ours = await RowsAsync();
            foreach (var (name, theirs) in differences)
            {
                theirs.ShouldNotBe(
                    ours.GetValueOrDefault(name),
                    $"{name} is the same on both sides and shown: {Story}"
                );
            }

            foreach (var name in _undecided.Keys.Except(differences.Keys).ToArray())
            {
                _undecided.Remove(name);
            }
        }
    }

    private sealed record Kind(int Number, string Table, string Row);

    private static readonly Kind[] Kinds =
    [
        new(
            1,
            "campaign",
            "jsonb_build_object('id', id, 'name', name, 'state', state, 'dailyBudget', trim_scale(daily_budget), 'totalBudget', trim_scale(total_budget), 'startDate', start_date, 'endDate', end_date, 'networks', networks, 'rotation', rotation, 'delivery', delivery, 'strategy', strategy, 'targetCpa', trim_scale(target_cpa), 'targetRoas', trim_scale(target_roas), 'lowestBid', trim_scale(lowest_bid), 'highestBid', trim_scale(highest_bid), 'languages', languages, 'people', people, 'hours', hours, 'desktopModifier', trim_scale(desktop_modifier), 'phoneModifier', trim_scale(phone_modifier), 'tabletModifier', trim_scale(tablet_modifier), 'trackingTemplate', tracking_template)"
        ),
        new(
            2,
            "ad_group",
            "jsonb_build_object('id', id, 'campaignId', campaign_id, 'name', name, 'state', state, 'maxCpc', trim_scale(max_cpc), 'desktopModifier', trim_scale(desktop_modifier), 'phoneModifier', trim_scale(phone_modifier), 'tabletModifier', trim_scale(tablet_modifier), 'trackingTemplate', tracking_template)"
        ),
        new(
            3,
            "keyword",
            "jsonb_build_object('id', id, 'adGroupId', ad_group_id, 'text', text, 'match', match_type, 'state', state, 'maxCpc', trim_scale(max_cpc), 'landingPage', landing_page, 'trackingTemplate', tracking_template)"
        ),
    ];

    private string Name => $"fendrik-{_account}";

    /// <summary>The items of the working copy that are not removed, as they would travel.</summary>
    private async Task<Dictionary<string, string>> RowsAsync() =>
        (
            await QueryAsync<(string Name, string Item)>(
                string.Join(
                    " union all ",
                    Kinds.Select(kind =>
                        $"select '{kind.Number} ' || id, {kind.Row}::text from {kind.Table} where account_id = @account and not removed"
                    )
                )
            )
        ).ToDictionary(row => row.Name, row => Text(row.Item));

    private async Task<string> WorkingCopyAsync() =>
        string.Join('\n', (await RowsAsync()).OrderBy(row => row.Key).Select(row => row.Key + row.Value));

    private async Task<Dictionary<string, string>> NetworkAsync()
    {
        await using var connection = await _fixture.NetworkDatabase.OpenConnectionAsync();
        return (
            await connection.QueryAsync<(short Kind, long Id, string Item)>(
                "select kind, item_id, item::text from item where account_id = @name and kind in (1, 2, 3)",
                new { name = Name }
            )
        ).ToDictionary(row => $"{row.Kind} {row.Id}", row => Text(row.Item));
    }

    private async Task<Dictionary<string, string?>> DifferencesAsync() =>
        (
            await QueryAsync<(string Name, string? Item)>(
                "select kind || ' ' || item_id, theirs::text from live_difference where account_id = @account"
            )
        ).ToDictionary(row => row.Name, row => row.Item is null ? null : Text(row.Item));

    private static string Text(string json) => Text(System.Text.Json.JsonDocument.Parse(json).RootElement);

    /// <summary>The fields of an item in one order, without those that are none.</summary>
    private static string Text(System.Text.Json.JsonElement item) =>
        string.Join(
            ", ",
            item.EnumerateObject()
                .Where(field => field.Value.ValueKind != System.Text.Json.JsonValueKind.Null)
                .OrderBy(field => field.Name, StringComparer.Ordinal)
                .Select(field =>
                    $"{field.Name}: {(field.Value.ValueKind == System.Text.Json.JsonValueKind.Number ? $"{field.Value.GetDecimal():0.####}" : field.Value.GetRawText())}"
                )
        );

    private static ItemReference Keyword(long id) => new(ItemKind.Keyword, id);

    private async Task<IEnumerable<T>> QueryAsync<T>(string sql)
    {
        await using var connection = await _fixture.Database.OpenConnectionAsync();
        return await connection.QueryAsync<T>(sql, new { account = _account, job = _job });
    }

    private async Task<T> ScalarAsync<T>(string sql)
    {
        await using var connection = await _fixture.Database.OpenConnectionAsync();
        return (await connection.ExecuteScalarAsync<T>(sql, new { account = _account, job = _job }))!;
    }
}
