using Npgsql;

namespace Fendrik.Tests.Shared;

/// <summary>A database of its own in the PostgreSQL that <c>./test</c> starts on loopback.</summary>
public static class TestDatabase
{
    public static string Cluster =>
        Environment.GetEnvironmentVariable("FENDRIK_TEST_POSTGRES")
        ?? throw new InvalidOperationException("These tests need a PostgreSQL: run them by ./test.");

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
