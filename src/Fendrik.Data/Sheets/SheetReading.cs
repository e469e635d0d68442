using Npgsql;

namespace Fendrik.Data.Sheets;

/// <summary>One reading of a sheet: where it is read, on which ground, and what is remembered of it.</summary>
internal class SheetReading(NpgsqlConnection connection, SheetGround ground, SheetMemory memory) : IAsyncDisposable
{
    public NpgsqlConnection Connection => connection;
    public SheetGround Ground => ground;
    public SheetMemory Memory => memory;

    /// <summary>Marks rows that are otherwise than in the working copy.</summary>
    public virtual void Mark(IEnumerable<SheetRow> rows) { }

    public virtual ValueTask DisposeAsync() => connection.DisposeAsync();
}
