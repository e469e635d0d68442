using Fendrik.Data.Variants;
using Npgsql;

namespace Fendrik.Data.Sheets;

/// <summary>One reading of a sheet: where it is read, on which ground, and what is remembered of it.</summary>
internal sealed class SheetReading : IAsyncDisposable
{
    private readonly LaidVariant? _variant;

    /// <summary>Of the working copy: what is found holds until its next revision.</summary>
    public SheetReading(NpgsqlConnection connection, SheetGround ground, SheetMemory memory) =>
        (Connection, Ground, Memory) = (connection, ground, memory);

    /// <summary>Of a variant: the next reading may find it otherwise, so nothing is remembered beyond this one.</summary>
    public SheetReading(LaidVariant variant, SheetGround ground)
        : this(variant.Connection, ground, new SheetMemory()) => _variant = variant;

    public NpgsqlConnection Connection { get; }
    public SheetGround Ground { get; }
    public SheetMemory Memory { get; }

    /// <summary>Marks rows that are otherwise than in the working copy.</summary>
    public void MarkProposed(IEnumerable<SheetRow> rows)
    {
        if (_variant is null)
        {
            return;
        }

        foreach (var row in rows)
        {
            row.Proposed = GoesWithItsHolder(row)
                ? RowChange.Removed
                : _variant.Proposed.GetValueOrDefault((row.Kind, row.Id));
        }
    }

    private bool GoesWithItsHolder(SheetRow row) =>
        Goes(ItemKind.Campaign, row.CampaignId) || Goes(ItemKind.AdGroup, row.AdGroupId);

    private bool Goes(ItemKind kind, long? id) =>
        id is { } holder && _variant!.Proposed.GetValueOrDefault((kind, holder)) == RowChange.Removed;

    public async ValueTask DisposeAsync()
    {
        if (_variant is null)
        {
            await Connection.DisposeAsync();
        }
        else
        {
            Memory.Dispose();
            await _variant.DisposeAsync();
        }
    }
}
