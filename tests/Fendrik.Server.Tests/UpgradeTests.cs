using System.Diagnostics;
using System.IO.Compression;
using Dapper;
using Fendrik.Data.Checking;
using Fendrik.Data.Model;
using Fendrik.Data.Setup;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Data.Tracing;
using Fendrik.Network.Serving;
using Fendrik.Tests.Shared;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Fendrik.Server.Tests;

/// <summary>Data that earlier releases made is brought up to date, and nothing of it is lost.</summary>
public class UpgradeTests
{
    public static TheoryData<string> Releases =>
        [
            .. Directory
                .GetFiles(Repository.PathTo("tests", "Releases"), "*-fendrik.sql.gz")
                .Order(StringComparer.Ordinal)
                .Select(file => Path.GetFileName(file)[..^"-fendrik.sql.gz".Length]),
        ];

    private static async Task<string> LoadAsync(string name)
    {
        var database = await TestDatabase.CreateAsync();
        var place = new NpgsqlConnectionStringBuilder(database);
        var psql = Directory
            .GetDirectories("/usr/lib/postgresql")
            .OrderDescending()
            .Select(version => Path.Combine(version, "bin/psql"))
            .First(File.Exists);
        using var process = Process.Start(
            new ProcessStartInfo(psql)
            {
                ArgumentList =
                {
                    "-qX",
                    "-v",
                    "ON_ERROR_STOP=1",
                    "-h",
                    place.Host!,
                    "-p",
                    $"{place.Port}",
                    "-U",
                    place.Username!,
                    "-d",
                    place.Database!,
                },
                Environment = { ["PGPASSWORD"] = place.Password },
                RedirectStandardInput = true,
                RedirectStandardOutput = true,
            }
        )!;
        await using (
            var dump = new GZipStream(
                File.OpenRead(Repository.PathTo("tests", "Releases", $"{name}.sql.gz")),
                CompressionMode.Decompress
            )
        )
        {
            await dump.CopyToAsync(process.StandardInput.BaseStream);
        }

        process.StandardInput.Close();
        await process.StandardOutput.ReadToEndAsync();
        await process.WaitForExitAsync();
        process.ExitCode.ShouldBe(0);
        return database;
    }

    private static async Task PrepareAsync(string database)
    {
        await using var context = Context(database);
        await using var source = NpgsqlDataSource.Create(database);
        await FendrikDatabase.PrepareAsync(context, source);
    }

    private static FendrikContext Context(string database) =>
        new(FendrikDatabase.Configure(new DbContextOptionsBuilder<FendrikContext>(), database).Options);

    /// <summary>The words of all items that are not removed, in tables that every release has.</summary>
    private static async Task<string[]> WordsAsync(NpgsqlDataSource source)
    {
        await using var connection = await source.OpenConnectionAsync();
        return
        [
            .. (
                await connection.QueryAsync<string>(
                    """
                    select 'campaign ' || id || name || daily_budget from campaign where not removed
                    union all select 'ad group ' || id || name || coalesce(max_cpc, 0) from ad_group where not removed
                    union all select 'keyword ' || id || text || match_type || coalesce(max_cpc, 0) from keyword where not removed
                    union all select 'negative ' || id || text || match_type from negative_keyword where not removed
                    union all select 'ad ' || id || headlines::text || descriptions::text from text_ad where not removed
                    """
                )
            ).Order(StringComparer.Ordinal),
        ];
    }

    private static async Task<string[]> SchemaAsync(string database)
    {
        await using var connection = new NpgsqlConnection(database);
        return
        [
            .. (
                await connection.QueryAsync<string>(
                    """
                    select table_name || '.' || column_name || ' ' || data_type || ' ' || is_nullable || ' ' || coalesce(column_default, '') from information_schema.columns
                      where table_schema = 'public' and table_name not similar to '%\_[0-9]{4}_?[0-9]{2}'
                    union all select indexdef from pg_indexes where schemaname = 'public' and tablename not similar to '%\_[0-9]{4}_?[0-9]{2}'
                    union all select conrelid::regclass || ' ' || conname || ' ' || pg_get_constraintdef(oid) from pg_constraint where connamespace = 'public'::regnamespace
                      and conrelid::regclass::text not similar to '%\_[0-9]{4}_?[0-9]{2}'
                    union all select tgrelid::regclass || ' ' || tgname from pg_trigger where not tgisinternal
                    """
                )
            ).Order(StringComparer.Ordinal),
        ];
    }

    [Theory]
    [MemberData(nameof(Releases))]
    public async Task Nothing_of_an_earlier_releases_data_is_lost_and_it_can_be_worked_on(string release)
    {
        var database = await LoadAsync($"{release}-fendrik");
        await using var source = NpgsqlDataSource.Create(database);
        var before = await WordsAsync(source);
        before.Length.ShouldBeGreaterThan(100);

        await PrepareAsync(database);

        (await WordsAsync(source)).ShouldBe(before);
        await using var connection = await source.OpenConnectionAsync();
        var (account, person) = await connection.QueryFirstAsync<(int, string)>(
            "select s.account_id, s.person_id from step s order by s.id desc limit 1"
        );
        var workingCopy = new WorkingCopy(source, TimeProvider.System);
        using var keywords = new KeywordMemory();
        await new AccountChecks(source, workingCopy, keywords).CountsAsync(account, CancellationToken.None);
        using var sheet = new SheetReader(source);
        (
            await sheet.ReadAsync(account, new SheetRequest { Limit = 500 }, CancellationToken.None)
        ).Rows.Count.ShouldBeGreaterThan(50);

        // What was done last under the earlier release can be taken back under this one.
        var undone = await new StepHistory(source, workingCopy).UndoAsync(account, person, CancellationToken.None);
        undone!.Items.ShouldBeGreaterThan(0);
    }

    [Theory]
    [MemberData(nameof(Releases))]
    public async Task The_database_of_an_earlier_release_becomes_just_what_a_new_one_is(string release)
    {
        var upgraded = await LoadAsync($"{release}-fendrik");
        await PrepareAsync(upgraded);
        var made = await TestDatabase.CreateAsync();
        await PrepareAsync(made);

        (await SchemaAsync(upgraded)).ShouldBe(await SchemaAsync(made));
    }

    [Theory]
    [MemberData(nameof(Releases))]
    public async Task The_networks_items_of_an_earlier_release_get_versions_and_are_all_told(string release)
    {
        var database = await LoadAsync($"{release}-network");
        await using var source = NpgsqlDataSource.Create(database);
        var store = new NetworkStore(source);

        await store.PrepareAsync();
        await store.PrepareAsync();

        await using var connection = await source.OpenConnectionAsync();
        var (items, versions, least) = await connection.QuerySingleAsync<(int, int, long)>(
            "select count(*)::int, count(distinct version)::int, min(version) from item"
        );
        items.ShouldBeGreaterThan(100);
        versions.ShouldBe(items);
        least.ShouldBeGreaterThan(0);
        (await connection.ExecuteScalarAsync<long>("select nextval('item_version')")).ShouldBeGreaterThan(
            await connection.ExecuteScalarAsync<long>("select max(version) from item")
        );
    }

    [Fact]
    public async Task An_older_program_refuses_newer_data_and_leaves_it_as_it_is()
    {
        var database = await TestDatabase.CreateAsync();
        await PrepareAsync(database);
        await using var connection = new NpgsqlConnection(database);
        await connection.ExecuteAsync(
            "insert into \"__EFMigrationsHistory\" (migration_id, product_version) values ('29990101000000_Later', '99')"
        );
        var before = await SchemaAsync(database);

        var error = await Should.ThrowAsync<NewerDataException>(() => PrepareAsync(database));

        error.Message.ShouldContain("29990101000000_Later");
        (await SchemaAsync(database)).ShouldBe(before);
    }

    [Fact]
    public void The_version_of_the_data_folder_moves_with_the_migrations()
    {
        using var context = Context("Host=nowhere");
        var files = Directory
            .GetFiles(Repository.PathTo("src", "Fendrik.Data", "Migrations"), "2*.cs")
            .Count(file => !file.EndsWith(".Designer.cs", StringComparison.Ordinal));

        // ./start counts these files.
        files.ShouldBe(context.Database.GetMigrations().Count());
    }
}
