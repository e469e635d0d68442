using Microsoft.EntityFrameworkCore;

namespace Fendrik.Data.Model;

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
