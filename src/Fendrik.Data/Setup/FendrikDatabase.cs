using Fendrik.Data.Intakes;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Fendrik.Data.Setup;

/// <summary>How the database is reached and brought up to date.</summary>
public static class FendrikDatabase
{
    public static DbContextOptionsBuilder<FendrikContext> Configure(
        DbContextOptionsBuilder<FendrikContext> options,
        string connectionString
    )
    {
        Configure((DbContextOptionsBuilder)options, connectionString);
        return options;
    }

    public static void Configure(DbContextOptionsBuilder options, string connectionString) =>
        options.UseNpgsql(connectionString).UseSnakeCaseNamingConvention();

    /// <summary>Brings the database up to date: migrations, then what follows from the descriptions and can be made anew.</summary>
    public static async Task PrepareAsync(FendrikContext context, NpgsqlDataSource source)
    {
        await context.Database.MigrateAsync();
        await using var connection = await source.OpenConnectionAsync();
        await Staging.EnsureAsync(connection);
        await TextMeasures.EnsureAsync(connection);
        await SheetIndexes.EnsureAsync(connection);
    }

    /// <summary>Text of a script in <c>Schema</c>, for the migrations.</summary>
    public static string Script(string name)
    {
        using var stream = typeof(FendrikDatabase).Assembly.GetManifestResourceStream(
            $"Fendrik.Data.Schema.{name}.sql"
        )!;
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }
}
