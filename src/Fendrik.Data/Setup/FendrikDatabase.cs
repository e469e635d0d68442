using Fendrik.Data.Intakes;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Fendrik.Data.Setup;

/// <summary>A newer program has changed the database; this one would not understand it.</summary>
public sealed class NewerDataException(string migration)
    : Exception(
        $"The database was changed by a newer Fendrik (by “{migration}”). Nothing was touched; start that one, or a database of its own."
    );

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
    /// <exception cref="NewerDataException">A newer Fendrik has changed the database.</exception>
    public static async Task PrepareAsync(FendrikContext context, NpgsqlDataSource source)
    {
        var unknown = (await context.Database.GetAppliedMigrationsAsync())
            .Except(context.Database.GetMigrations())
            .ToArray();
        if (unknown.Length > 0)
        {
            throw new NewerDataException(unknown[^1]);
        }

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
