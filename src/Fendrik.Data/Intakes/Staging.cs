using Dapper;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Npgsql;

namespace Fendrik.Data.Intakes;

/// <summary>A column of the table of staged rows with the value that it holds.</summary>
/// <param name="Column">Name of the column.</param>
/// <param name="Storage">How its value is kept.</param>
/// <param name="Of">The value of a row.</param>
internal sealed record StagedColumn(string Column, Storage Storage, Func<ListRow, object?> Of);

/// <summary>
/// The tables where rows of lists wait until they are kept or left, made from the descriptions. They are unlogged and hold
/// nothing that cannot be read again from the kept file, so when the descriptions change they are made anew.
/// </summary>
internal static class Staging
{
    /// <summary>
    /// Rows from which on it is worth to know how they are spread. For a short list any plan will do, and looking through what other lists
    /// left in the same tables would take longer than judging it.
    /// </summary>
    public const int WorthAnalysing = 2_000;

    /// <summary>True when a list has so many rows.</summary>
    public static Task<bool> IsLongAsync(NpgsqlConnection connection, long intakeId, CancellationToken cancellation) =>
        connection.ExecuteScalarAsync<bool>(
            new CommandDefinition(
                "select exists (select from intake_row where intake_id = @intakeId offset @WorthAnalysing)",
                new { intakeId, WorthAnalysing },
                cancellationToken: cancellation
            )
        );

    private static (
        IReadOnlyList<ItemType> Types,
        IReadOnlyList<StagedColumn> Columns,
        IReadOnlyList<string> Clearable
    ) _made = ([], [], []);

    /// <summary>The columns of values: own values by the columns of items, and what rows say of what holds them.</summary>
    public static IReadOnlyList<StagedColumn> Columns => Current().Columns;

    /// <summary>The kinds that hold others and are named in rows.</summary>
    public static IReadOnlyList<ItemTable> Holders => [.. ItemTable.All.Where(table => table.Type.Holds is not null)];

    /// <summary>The kinds whose rows are items of their own.</summary>
    public static IReadOnlyList<ItemTable> Leaves => [.. ItemTable.All.Where(table => table.Type.Holds is null)];

    /// <summary>
    /// Of these kinds those that a list has rows of. Planning a statement for each of the others takes longer than all the rest of a short list; looking
    /// through a long one takes longer than planning.
    /// </summary>
    public static async Task<IReadOnlyList<ItemTable>> LeavesOfAsync(
        NpgsqlConnection connection,
        long intakeId,
        bool isLong,
        CancellationToken cancellation
    )
    {
        if (isLong)
        {
            return Leaves;
        }

        var kinds = (
            await connection.QueryAsync<int>(
                new CommandDefinition(
                    "select distinct kind::int from intake_row where intake_id = @intakeId",
                    new { intakeId },
                    cancellationToken: cancellation
                )
            )
        ).ToHashSet();
        return [.. Leaves.Where(table => kinds.Contains((int)table.Kind))];
    }

    /// <summary>Table of the holders that rows ask for.</summary>
    public static string HoldersOf(ItemTable holder) => "intake_" + holder.Name;

    /// <summary>Column of the normalised name that stands at a level.</summary>
    public static string KeyOf(Level level) =>
        level == Level.List ? "list_key" : ItemTypes.HolderOf(level)!.Table + "_key";

    /// <summary>Column of the name that stands at a level.</summary>
    public static string NameOf(Level level) => level == Level.List ? "list" : ItemTypes.HolderOf(level)!.Table;

    /// <summary>Column of what rows inside say of a holder's field.</summary>
    public static string SaidOf(Field field) => $"{field.Of.Table}_{field.Column}";

    /// <summary>The fields of a kind that a list can give it, besides the name of one that holds others.</summary>
    public static IEnumerable<Field> FieldsOf(ItemType type) =>
        type.Fields.Where(field =>
            !(type.Holds is not null && field == type.NameField) && field.Type is not ReferencesValue
        );

    /// <summary>The bit that says that an empty cell takes a field away.</summary>
    public static long BitOf(Field field) => 1L << Current().Clearable.ToList().IndexOf(field.Column);

    /// <summary>The bits of all fields that a row takes away.</summary>
    public static long BitsOf(ListRow row) => row.Cleared.Aggregate(0L, (bits, field) => bits | BitOf(field));

    /// <summary>Makes the tables anew when they are not as the descriptions have them.</summary>
    public static async Task EnsureAsync(NpgsqlConnection connection)
    {
        var wanted = Create();
        var known = await connection.ExecuteScalarAsync<string?>(
            "select obj_description(to_regclass('intake_row'), 'pg_class')"
        );
        var mark = Cleaning
            .Fingerprint.Of(wanted, 0, 0)
            .ToString("x32", System.Globalization.CultureInfo.InvariantCulture);
        if (known == mark)
        {
            return;
        }

        await using var transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select pg_advisory_xact_lock(7003)");
        foreach (var table in Holders.Select(HoldersOf).Prepend("intake_row").Append("intake_list"))
        {
            await connection.ExecuteAsync($"drop table if exists {table}");
        }

        await connection.ExecuteAsync($"{wanted}; truncate intake_verdict; comment on table intake_row is '{mark}'");
        await transaction.CommitAsync();
    }

    private static string Create() =>
        $"""
            create unlogged table intake_row (
              intake_id bigint not null, row_number integer not null, kind smallint not null, intent smallint not null,
              campaign text not null, campaign_key text not null, ad_group text not null, ad_group_key text not null, list text not null, list_key text not null,
              reference bigint, resolved bigint, item_key text not null, cleared bigint not null, bare boolean not null, problem text, problem_column text, cells text[] not null,
              {string.Join(", ", Columns.Select(column => $"{column.Column} {StorageSql.TypeOf(column.Storage)}"))});
            create index on intake_row (intake_id, row_number);
            {string.Join('\n', Holders.Select(CreateHolders))}
            """;

    private static string CreateHolders(ItemTable holder) =>
        $"""
            create unlogged table {HoldersOf(holder)} (
              intake_id bigint not null, {(
                holder.Type.Holds == Level.AdGroup ? "campaign_key text not null, " : ""
            )}name_key text not null, name text not null, first_row integer not null,
              {string.Concat(
                FieldsOf(holder.Type).Select(field => $"{field.Column} {StorageSql.TypeOf(field.Type.Storage)}, ")
            )}
              {(holder.Type.Holds == Level.List ? "attach text[] not null, detach text[] not null, " : "")}
              {(
                holder.Type.Holds == Level.AdGroup
                    ? "keywords integer not null, keywords_without_max_cpc integer not null, negatives integer not null, ads integer not null, "
                    : ""
            )}
              cleared bigint not null, item_id bigint, outcome smallint not null,
              primary key (intake_id, {(holder.Type.Holds == Level.AdGroup ? "campaign_key, " : "")}name_key));
            """;

    private static (
        IReadOnlyList<ItemType> Types,
        IReadOnlyList<StagedColumn> Columns,
        IReadOnlyList<string> Clearable
    ) Current()
    {
        if (!ReferenceEquals(_made.Types, ItemTypes.All))
        {
            var fields = ItemTypes.All.SelectMany(FieldsOf).ToArray();
            var own = fields
                .GroupBy(field => field.Column)
                .Select(group => new StagedColumn(
                    group.Key,
                    group.First().Type.Storage,
                    row =>
                        ItemTypes.Of(row.Kind).Fields.FirstOrDefault(field => field.Column == group.Key) is { } field
                            ? row.Values[field]
                            : null
                ));
            var said = fields
                .Where(field => field.IsSaidInside)
                .Select(field => new StagedColumn(
                    SaidOf(field),
                    field.Type.Storage,
                    row => field.Of.Holds == Level.Campaign ? row.OfCampaign?[field] : row.OfAdGroup?[field]
                ));
            _made = (
                ItemTypes.All,
                [.. own, .. said],
                [.. fields.Where(field => field.IsClearable).Select(field => field.Column).Distinct()]
            );
        }

        return _made;
    }
}
