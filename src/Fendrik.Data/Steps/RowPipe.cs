using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Data.Steps;

/// <summary>Reads rows within a transaction, has Core work on each, and writes what becomes of them in bulk.</summary>
internal static class RowPipe
{
    private const int Slice = 20_000;

    /// <summary>A connection cannot read and write at once, and another would not see the transaction: so in slices.</summary>
    /// <param name="context">The step.</param>
    /// <param name="select">What is read.</param>
    /// <param name="into">Table and columns that are written.</param>
    /// <param name="work">What becomes of a row, or nothing.</param>
    /// <param name="write">Writes it, column by column.</param>
    /// <param name="parameters">Parameters of what is read.</param>
    public static async Task RunAsync<T>(
        StepContext context,
        string select,
        string into,
        Func<NpgsqlDataReader, T?> work,
        Action<NpgsqlBinaryImporter, T> write,
        object? parameters = null
    )
        where T : class
    {
        await context.ExecuteAsync($"declare piped_rows no scroll cursor for {select}", parameters);
        for (var read = Slice; read == Slice; )
        {
            var rows = new List<T>();
            read = 0;
            await using (var command = new NpgsqlCommand($"fetch {Slice} from piped_rows", context.Connection))
            await using (var reader = await command.ExecuteReaderAsync(context.Cancellation))
            {
                for (; await reader.ReadAsync(context.Cancellation); read++)
                {
                    context.Cancellation.ThrowIfCancellationRequested();
                    if (work(reader) is { } row)
                    {
                        rows.Add(row);
                    }
                }
            }

            await using var importer = await context.Connection.BeginBinaryImportAsync(
                $"copy {into} from stdin (format binary)",
                context.Cancellation
            );
            foreach (var row in rows)
            {
                await importer.StartRowAsync(context.Cancellation);
                write(importer, row);
            }

            await importer.CompleteAsync(context.Cancellation);
        }

        await context.ExecuteAsync("close piped_rows");
    }

    public static void WriteText(NpgsqlBinaryImporter importer, string? text) =>
        Write(importer, text, NpgsqlDbType.Text);

    public static void Write(NpgsqlBinaryImporter importer, object? value, NpgsqlDbType type)
    {
        switch (value)
        {
            case null:
                importer.WriteNull();
                break;
            case string text:
                importer.Write(text, type);
                break;
            case decimal amount:
                importer.Write(amount, type);
                break;
            case short number:
                importer.Write(number, type);
                break;
            case DateOnly day:
                importer.Write(day, type);
                break;
            case string[] texts:
                importer.Write(texts, type);
                break;
            case long[] ids:
                importer.Write(ids, type);
                break;
            default:
                throw new ArgumentException($"{value.GetType().Name} is no value of a field.", nameof(value));
        }
    }
}
