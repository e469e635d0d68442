using Fendrik.Core.Accounts;
using Fendrik.Core.Intake;
using Fendrik.Data.Steps;
using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Data.Intakes;

/// <summary>Writes understood rows to the staging table by binary COPY.</summary>
internal sealed class StagingWriter : IAsyncDisposable
{
    private const string Copy = """
        copy intake_row (intake_id, row_number, kind, campaign, campaign_key, daily_budget, start_date, end_date, networks,
          ad_group, ad_group_key, ad_group_max_cpc, text, item_key, match_type, max_cpc, state, final_url, headlines,
          descriptions, display_path, device_preference, problem, problem_field, cells, intent, list, list_key, labels, cleared) from stdin (format binary)
        """;

    private const int LongestShownCell = 300;

    private readonly NpgsqlBinaryImporter _importer;
    private readonly long _intakeId;

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
    ) => new(await connection.BeginBinaryImportAsync(Copy, cancellation), intakeId);

    public async Task WriteAsync(IntakeRow row, ArraySegment<string> cells, CancellationToken cancellation)
    {
        if (row.Campaign != _campaign.Name)
        {
            _campaign = (row.Campaign, TextIdentity.Of(row.Campaign));
        }

        if (row.AdGroup != _adGroup.Name)
        {
            _adGroup = (row.AdGroup, TextIdentity.Of(row.AdGroup));
        }

        if (row.NegativeList != _list.Name)
        {
            _list = (row.NegativeList, TextIdentity.Of(row.NegativeList));
        }

        var words = row.Kind is ItemKind.Keyword or ItemKind.NegativeKeyword;
        var ad = row.Kind == ItemKind.TextAd;
        await _importer.StartRowAsync(cancellation);
        await _importer.WriteAsync(_intakeId, NpgsqlDbType.Bigint, cancellation);
        await _importer.WriteAsync(row.RowNumber, NpgsqlDbType.Integer, cancellation);
        await _importer.WriteAsync((short)row.Kind, NpgsqlDbType.Smallint, cancellation);
        await TextAsync(row.Campaign, cancellation);
        await TextAsync(_campaign.Key, cancellation);
        await AmountAsync(row.DailyBudget, cancellation);
        await DateAsync(row.StartDate, cancellation);
        await DateAsync(row.EndDate, cancellation);
        await SmallAsync((short?)row.Networks, cancellation);
        await TextAsync(row.AdGroup, cancellation);
        await TextAsync(_adGroup.Key, cancellation);
        await AmountAsync(row.AdGroupMaxCpc, cancellation);
        await TextAsync(row.Text, cancellation);
        await TextAsync(
            ad ? Texts.Hash(row.ItemKey)
                : words ? row.ItemKey
                : "",
            cancellation
        );
        await SmallAsync((short?)row.Match, cancellation);
        await AmountAsync(row.MaxCpc, cancellation);
        await SmallAsync((short?)row.State, cancellation);
        await TextAsync(row.FinalUrl, cancellation);
        await TextsAsync(ad ? row.Headlines : null, cancellation);
        await TextsAsync(ad ? row.Descriptions : null, cancellation);
        await TextsAsync(ad ? row.DisplayPath : null, cancellation);
        await SmallAsync((short?)row.DevicePreference, cancellation);
        await TextAsync(row.Problem, cancellation);
        await SmallAsync(row.Problem is null ? null : (short)row.ProblemField, cancellation);
        await _importer.WriteAsync(Shown(cells), NpgsqlDbType.Array | NpgsqlDbType.Text, cancellation);
        await _importer.WriteAsync((short)row.Intent, NpgsqlDbType.Smallint, cancellation);
        await TextAsync(row.NegativeList, cancellation);
        await TextAsync(_list.Key, cancellation);
        await TextAsync(row.Labels is { } labels ? string.Join(LabelText.Separator, labels) : null, cancellation);
        await _importer.WriteAsync((short)row.Cleared, NpgsqlDbType.Smallint, cancellation);
    }

    public async Task CompleteAsync(CancellationToken cancellation) => await _importer.CompleteAsync(cancellation);

    public ValueTask DisposeAsync() => _importer.DisposeAsync();

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

    private Task TextAsync(string? text, CancellationToken cancellation) =>
        text is null
            ? _importer.WriteNullAsync(cancellation)
            : _importer.WriteAsync(text, NpgsqlDbType.Text, cancellation);

    private Task AmountAsync(decimal? amount, CancellationToken cancellation) =>
        amount is null
            ? _importer.WriteNullAsync(cancellation)
            : _importer.WriteAsync(amount.Value, NpgsqlDbType.Numeric, cancellation);

    private Task SmallAsync(short? number, CancellationToken cancellation) =>
        number is null
            ? _importer.WriteNullAsync(cancellation)
            : _importer.WriteAsync(number.Value, NpgsqlDbType.Smallint, cancellation);

    private Task DateAsync(DateOnly? date, CancellationToken cancellation) =>
        date is null
            ? _importer.WriteNullAsync(cancellation)
            : _importer.WriteAsync(date.Value, NpgsqlDbType.Date, cancellation);

    private Task TextsAsync(IReadOnlyList<string>? texts, CancellationToken cancellation) =>
        texts is null
            ? _importer.WriteNullAsync(cancellation)
            : _importer.WriteAsync(texts.ToArray(), NpgsqlDbType.Array | NpgsqlDbType.Text, cancellation);
}
