using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Npgsql;

namespace Fendrik.Data.Variants;

/// <summary>Reads sheets: of the working copy, or, where one is asked for, of that as it would be with what is proposed.</summary>
public sealed class VariantSheets(NpgsqlDataSource source, SheetReader sheets)
{
    /// <summary>A window of a sheet; rows that are proposed otherwise are marked.</summary>
    public async Task<SheetPage> ReadAsync(int accountId, SheetRequest request, CancellationToken cancellation)
    {
        if (request.Variant is null)
        {
            return await sheets.ReadAsync(accountId, request, cancellation);
        }

        await using var reading = await OpenAsync(accountId, request, cancellation);
        return await sheets.ReadAsync(reading, accountId, request, cancellation);
    }

    /// <summary>How many rows a sheet has.</summary>
    public async Task<SheetCount> CountAsync(int accountId, SheetRequest request, CancellationToken cancellation)
    {
        if (request.Variant is null)
        {
            return await sheets.CountAsync(accountId, request, cancellation);
        }

        await using var reading = await OpenAsync(accountId, request, cancellation);
        return await SheetReader.CountAsync(reading, request);
    }

    /// <summary>Sums for all that a filter lets through, or for chosen items.</summary>
    public async Task<SheetTotals> TotalsAsync(
        int accountId,
        SheetRequest request,
        IReadOnlyList<ItemReference>? items,
        CancellationToken cancellation
    )
    {
        if (items is not null)
        {
            // What something brought does not depend on what is proposed.
            return await sheets.TotalsAsync(accountId, items, request, cancellation);
        }

        if (request.Variant is null)
        {
            return await sheets.TotalsAsync(accountId, request, cancellation);
        }

        await using var reading = await OpenAsync(accountId, request, cancellation);
        return await SheetReader.TotalsAsync(reading, request);
    }

    /// <summary>The place of an item in the sheet, or none where the filter hides it.</summary>
    public async Task<long?> PlaceAsync(
        int accountId,
        SheetRequest request,
        ItemReference item,
        CancellationToken cancellation
    )
    {
        if (request.Variant is null)
        {
            return await sheets.PlaceAsync(accountId, request, item, cancellation);
        }

        await using var reading = await OpenAsync(accountId, request, cancellation);
        return await SheetReader.PlaceAsync(reading, request, item);
    }

    private async Task<Reading> OpenAsync(int accountId, SheetRequest request, CancellationToken cancellation)
    {
        SheetGround ground;
        // Sums of figures that are not kept yet are added up before, and stay.
        await using (var connection = await source.OpenConnectionAsync(cancellation))
        {
            ground = await SheetReader.GroundAsync(connection, accountId, request);
        }

        return new Reading(
            await LaidVariant.OpenAsync(source, accountId, request.Variant ?? 0, cancellation),
            ground,
            new SheetMemory()
        );
    }

    /// <summary>The next reading may find the variant otherwise: nothing is remembered beyond this one.</summary>
    private sealed class Reading(LaidVariant variant, SheetGround ground, SheetMemory memory)
        : SheetReading(variant.Connection, ground, memory)
    {
        public override void Mark(IEnumerable<SheetRow> rows)
        {
            foreach (var row in rows)
            {
                row.Proposed =
                    Goes(ItemKind.Campaign, row.CampaignId) || Goes(ItemKind.AdGroup, row.AdGroupId)
                        ? RowChange.Removed
                        : variant.Proposed.GetValueOrDefault((row.Kind, row.Id));
            }
        }

        private bool Goes(ItemKind kind, long? id) =>
            id is { } holder && variant.Proposed.GetValueOrDefault((kind, holder)) == RowChange.Removed;

        public override async ValueTask DisposeAsync()
        {
            Memory.Dispose();
            await variant.DisposeAsync();
            await base.DisposeAsync();
        }
    }
}
