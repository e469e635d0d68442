using System.Collections.Concurrent;
using Npgsql;

namespace Fendrik.Tests.Shared;

/// <summary>A database of its own in the PostgreSQL that <c>./test</c> starts on loopback.</summary>
public static class TestDatabase
{
    public static string Cluster =>
        Environment.GetEnvironmentVariable("FENDRIK_TEST_POSTGRES")
        ?? throw new InvalidOperationException("These tests need a PostgreSQL: run them by ./test.");

    private static readonly ConcurrentDictionary<string, Lazy<Task<string>>> Prepared = new();

    /// <summary>A database as a program prepares it: prepared once, and copied from then on, which is far quicker.</summary>
    /// <param name="program">Whose.</param>
    /// <param name="prepare">Prepares one and leaves no connection open.</param>
    public static async Task<string> CreateAsync(string program, Func<string, Task> prepare)
    {
        var template = await Prepared
            .GetOrAdd(
                program,
                _ => new Lazy<Task<string>>(async () =>
                {
                    var database = await CreateAsync();
                    await prepare($"{database};Pooling=false");
                    return new NpgsqlConnectionStringBuilder(database).Database!;
                })
            )
            .Value;
        return await CreateAsync(template);
    }

    public static async Task<string> CreateAsync(string? template = null)
    {
        var name = $"test_{Guid.NewGuid():N}";
        await using var connection = new NpgsqlConnection($"{Cluster};Database=postgres;Pooling=false");
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = $"create database {name}" + (template is null ? "" : $" template {template}");
        await command.ExecuteNonQueryAsync();
        return $"{Cluster};Database={name};Maximum Pool Size=20";
    }
}
