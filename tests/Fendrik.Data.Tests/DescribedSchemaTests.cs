using Dapper;
using Npgsql;

namespace Fendrik.Data.Tests;

/// <summary>Migrations made the tables; the descriptions say what they are. Here one is held to the other.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class DescribedSchemaTests(WorkingCopyFixture fixture)
{
    public static TheoryData<ItemKind> Kinds => [.. ItemTypes.All.Select(type => type.Kind)];

    /// <summary>A table as the description would make it now, beside the one that there is.</summary>
    private async Task<(string[] Described, string[] There)> BothAsync(ItemKind kind, string sql)
    {
        await using var connection = await fixture.Source.OpenConnectionAsync();
        await using var transaction = await connection.BeginTransactionAsync();
        var table = ItemTypes.Of(kind).Table;
        var made = ItemShape.Of(ItemTypes.Of(kind)) with { Table = $"made_{table}" };
        await connection.ExecuteAsync(made.Create());
        return (await ReadAsync(connection, sql, made.Table), await ReadAsync(connection, sql, table));
    }

    private static async Task<string[]> ReadAsync(NpgsqlConnection connection, string sql, string table) =>
        [
            .. (await connection.QueryAsync<string>(sql, new { table }))
                .Select(line => line.Replace(table, "t", StringComparison.Ordinal))
                .Order(StringComparer.Ordinal),
        ];

    [Theory]
    [MemberData(nameof(Kinds))]
    public async Task Each_column_is_there_as_it_is_described_and_no_other(ItemKind kind)
    {
        var (described, there) = await BothAsync(
            kind,
            "select column_name || ' ' || data_type || ' ' || udt_name || ' ' || is_nullable || ' ' || coalesce(generation_expression, '') from information_schema.columns where table_name = @table"
        );

        there.ShouldBe(described);
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public async Task Rows_as_they_were_have_every_column_of_the_rows(ItemKind kind)
    {
        var (described, there) = await BothAsync(
            kind,
            "select column_name || ' ' || udt_name from information_schema.columns where table_name = @table || '_before'"
        );

        there.ShouldBe(described);
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public async Task Each_index_that_is_described_is_there(ItemKind kind)
    {
        var (described, there) = await BothAsync(
            kind,
            "select case when indexdef like '%UNIQUE%' then 'unique ' else '' end || split_part(indexdef, ' USING ', 2) from pg_indexes where tablename = @table"
        );

        // The index of a parent may have more in it, as long as the parent comes first.
        described
            .Except(there)
            .Where(index =>
                !there.Any(each =>
                    each.StartsWith(index.Split(')')[0], StringComparison.Ordinal) && index.Contains("IS NOT NULL")
                )
            )
            .ShouldBeEmpty();
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public async Task Each_trigger_and_each_rule_of_place_that_is_described_is_there(ItemKind kind)
    {
        var (described, there) = await BothAsync(
            kind,
            """
            select pg_get_triggerdef(t.oid) from pg_trigger t where t.tgrelid = @table::regclass and not t.tgisinternal
            union all select replace(pg_get_constraintdef(c.oid), ' ON DELETE CASCADE', '') from pg_constraint c where c.conrelid = @table::regclass and c.contype in ('c', 'f')
            """
        );

        described.Except(there).ShouldBeEmpty();
    }
}
