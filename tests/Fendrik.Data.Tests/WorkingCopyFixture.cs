using System.Text;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Checking;
using Fendrik.Data.Intakes;
using Fendrik.Data.Model;
using Fendrik.Data.Publishing;
using Fendrik.Data.Results;
using Fendrik.Data.Setup;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Data.Tracing;
using Fendrik.Data.Variants;
using Fendrik.Tests.Shared;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Fendrik.Data.Tests;

/// <summary>A migrated database with all that works on it; each test takes an account of its own.</summary>
public sealed class WorkingCopyFixture : IAsyncLifetime
{
    public const string Person = "morag";

    public NpgsqlDataSource Source { get; private set; } = null!;
    public WorkingCopy WorkingCopy { get; private set; } = null!;
    public StepHistory History { get; private set; } = null!;
    public SheetReader Sheet { get; private set; } = null!;
    public AccountChecks Checks { get; private set; } = null!;
    public PendingChanges Pending { get; private set; } = null!;
    public PublishRecords Publishes { get; private set; } = null!;
    public KeywordMemory Keywords { get; } = new();
    public SavedSearchBook Searches { get; private set; } = null!;
    public PublishBatches Batches { get; private set; } = null!;
    public PublishAnswers Answers { get; private set; } = null!;
    public PerformanceStore Performance { get; private set; } = null!;
    public ResultsReader Results { get; private set; } = null!;
    public IntakeDesk Intakes { get; private set; } = null!;
    public IntakeReading Reading { get; private set; } = null!;
    public LookBook Looks { get; private set; } = null!;
    public VariantBook Variants { get; private set; } = null!;
    public VariantSheets VariantSheets { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        DefaultTypeMap.MatchNamesWithUnderscores = true;
        var connection = await TestDatabase.CreateAsync();
        await using (
            var context = new FendrikContext(
                FendrikDatabase.Configure(new DbContextOptionsBuilder<FendrikContext>(), connection).Options
            )
        )
        {
            Source = NpgsqlDataSource.Create(connection);
            await FendrikDatabase.PrepareAsync(context, Source);
        }

        WorkingCopy = new WorkingCopy(Source, TimeProvider.System);
        History = new StepHistory(Source, WorkingCopy);
        Sheet = new SheetReader(Source);
        Checks = new AccountChecks(Source, WorkingCopy, Keywords);
        Searches = new SavedSearchBook(Source, TimeProvider.System);
        Pending = new PendingChanges(Source);
        Publishes = new PublishRecords(Source, TimeProvider.System);
        Batches = new PublishBatches(Source);
        Answers = new PublishAnswers(Source, TimeProvider.System);
        Performance = new PerformanceStore(Source);
        Results = new ResultsReader(Source);
        Intakes = new IntakeDesk(Source, TimeProvider.System);
        Reading = new IntakeReading(Source, WorkingCopy);
        Looks = new LookBook(Source, TimeProvider.System);
        Variants = new VariantBook(Source, WorkingCopy, TimeProvider.System);
        VariantSheets = new VariantSheets(Source, Sheet);
    }

    public async ValueTask DisposeAsync()
    {
        Keywords.Dispose();
        await Source.DisposeAsync();
    }

    public async Task<int> NewAccountAsync(string network = "ostrel", string currency = "GBP")
    {
        await using var connection = await Source.OpenConnectionAsync();
        return await connection.ExecuteScalarAsync<int>(
            "insert into account (name, currency, time_zone, network_id, last_step_id, payer) values ('Tarn & Fell Pianos', @currency, 'Europe/London', @network, 0, 'Tarn & Fell Pianos') returning id",
            new { network, currency }
        );
    }

    public Task<StepResult> DoAsync(int account, IWorkingCopyChange change, bool preview = false) =>
        WorkingCopy.ApplyAsync(account, Person, change, preview, CancellationToken.None);

    /// <summary>Reads a list as if it had been pasted and answers the intake.</summary>
    public async Task<long> PasteAsync(int account, string text) =>
        await BringFileAsync(account, Encoding.UTF8.GetBytes(text));

    public async Task<long> BringFileAsync(int account, byte[] file)
    {
        var intake = await Intakes.BeginAsync(account, Person, "list", new MemoryStream(file), CancellationToken.None);
        await Reading.ReadAsync(intake, _ => Task.CompletedTask, CancellationToken.None);
        return intake;
    }

    /// <summary>What the checks find now.</summary>
    public async Task<IReadOnlyList<NamedFinding>> FindingsAsync(int account)
    {
        await Checks.CountsAsync(account, CancellationToken.None);
        return await Checks.ListAsync(account, 1_000, CancellationToken.None);
    }

    public async Task KeepAsync(int account, string text) =>
        await DoAsync(account, new KeepIntake(await PasteAsync(account, text)));

    public async Task<IntakeView> ViewAsync(int account, long intake) =>
        (await Intakes.ReadAsync(account, intake, CancellationToken.None))!;

    public async Task<IReadOnlyList<SheetRow>> RowsAsync(int account, SheetRequest? request = null) =>
        (
            await Sheet.ReadAsync(account, (request ?? new SheetRequest()) with { Limit = 500 }, CancellationToken.None)
        ).Rows;

    public async Task<SheetRow> RowAsync(int account, string name, ItemKind? kind = null) =>
        (await RowsAsync(account)).First(row => row.Name == name && (kind is null || row.Kind == kind));

    /// <summary>All rows of the working copy as text, to tell whether two states are the same to the last field.</summary>
    /// <summary>All that an account holds and has not removed, whole row by whole row, but for what a step notes of itself.</summary>
    public async Task<string> StateAsync(int account)
    {
        await using var connection = await Source.OpenConnectionAsync();
        var tables = await connection.QueryAsync<string>(
            "select table_name from information_schema.columns where table_schema = 'public' and column_name = 'changed_by' and table_name not like '%\\_before'"
        );
        var rows = await connection.QueryAsync<string>(
            string.Join(
                " union all ",
                tables.Select(table =>
                    $"select '{table} ' || (to_jsonb(i) - 'changed_by' - 'live' - 'live_version')::text from {table} i where account_id = @account and not removed"
                )
            ),
            new { account }
        );
        return string.Join('\n', rows.Order(StringComparer.Ordinal));
    }

    public static ItemReference Reference(SheetRow row) => new(row.Kind, row.Id);
}

[CollectionDefinition(nameof(WorkingCopyFixture))]
public sealed class WorkingCopyCollection : ICollectionFixture<WorkingCopyFixture>;
