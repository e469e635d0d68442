using Fendrik.Core.Lists;
using Fendrik.Data.Steps;
using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Data.Intakes;

/// <summary>Writes rows that were read into the staging table, by binary COPY.</summary>
internal sealed class StagingWriter : IAsyncDisposable
{
    /// <summary>Longest part of a cell that is kept to be shown.</summary>
    private const int LongestShownCell = 300;

    private readonly NpgsqlBinaryImporter _importer;
    private readonly long _intakeId;
    private readonly (StagedColumn Column, NpgsqlDbType Type)[] _columns =
    [
        .. Staging.Columns.Select(column => (column, StorageSql.DbTypeOf(column.Storage))),
    ];

    // Names of campaigns and ad groups recur row after row; their keys need not be made anew.
    private (string Name, string Key) _campaign = ("", "");
    private (string Name, string Key) _adGroup = ("", "");
    private (string Name, string Key) _list = ("", "");

    private StagingWriter(NpgsqlBinaryImporter importer, long intakeId) =>
        (_importer, _intakeId) = (importer, intakeId);

    public static async Task<StagingWriter> BeginAsync(
        NpgsqlConnection connection,
        long intakeId,
        CancellationToken cancellation
    ) =>
        new(
            await connection.BeginBinaryImportAsync(
                $"""
                copy intake_row (intake_id, row_number, kind, intent, campaign, campaign_key, ad_group, ad_group_key, list, list_key, reference, item_key, cleared, bare, problem, problem_column, cells,
                  {string.Join(", ", Staging.Columns.Select(column => column.Column))}) from stdin (format binary)
                """,
                cancellation
            ),
            intakeId
        );

    public async Task WriteAsync(ListRow row, ArraySegment<string> cells, CancellationToken cancellation)
    {
        await _importer.StartRowAsync(cancellation);
        _importer.Write(_intakeId, NpgsqlDbType.Bigint);
        _importer.Write(row.RowNumber, NpgsqlDbType.Integer);
        _importer.Write((short)row.Kind, NpgsqlDbType.Smallint);
        _importer.Write((short)row.Intent, NpgsqlDbType.Smallint);
        // What is refused is still named, but for what no text can hold.
        Named(IntakeRecords.WithoutControls(row.Campaign), ref _campaign);
        Named(IntakeRecords.WithoutControls(row.AdGroup), ref _adGroup);
        Named(IntakeRecords.WithoutControls(row.NegativeList), ref _list);
        if (row.Reference is { } reference)
        {
            _importer.Write(reference, NpgsqlDbType.Bigint);
        }
        else
        {
            _importer.WriteNull();
        }

        _importer.Write(row.Problem is null ? row.ItemKey : "", NpgsqlDbType.Text);
        _importer.Write(Staging.BitsOf(row), NpgsqlDbType.Bigint);
        _importer.Write(row.IsBare, NpgsqlDbType.Boolean);
        RowPipe.WriteText(_importer, row.Problem);
        RowPipe.WriteText(_importer, row.ProblemColumn);
        _importer.Write(Shown(cells), NpgsqlDbType.Array | NpgsqlDbType.Text);
        foreach (var (column, type) in _columns)
        {
            RowPipe.Write(_importer, column.Of(row), type);
        }
    }

    public async Task CompleteAsync(CancellationToken cancellation) => await _importer.CompleteAsync(cancellation);

    public ValueTask DisposeAsync() => _importer.DisposeAsync();

    private void Named(string name, ref (string Name, string Key) known)
    {
        if (name != known.Name)
        {
            known = (name, TextIdentity.Of(name));
        }

        _importer.Write(name, NpgsqlDbType.Text);
        _importer.Write(known.Key, NpgsqlDbType.Text);
    }

    /// <summary>A cell as it is shown is not all of it.</summary>
    public static bool IsShortened(string cell) => cell.Length > LongestShownCell;

    private static string[] Shown(ArraySegment<string> cells)
    {
        var shown = new string[cells.Count];
        for (var column = 0; column < cells.Count; column++)
        {
            shown[column] = IntakeRecords.WithoutControls(
                cells[column].Length > LongestShownCell ? cells[column][..LongestShownCell] + "…" : cells[column]
            );
        }

        return shown;
    }
}
