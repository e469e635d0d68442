using Fendrik.Data.Items;

namespace Fendrik.Data.Sheets;

/// <summary>The identities of a flat list in its order, as SQL.</summary>
internal static class SheetOrder
{
    /// <summary>The first of them up to the end of the window that is asked for.</summary>
    public static string Window(SheetRequest request, ItemTable table) =>
        $"{Ids(request, table, "limit @offset + @limit")} offset @offset limit @limit";

    /// <summary>
    /// The same for a list that begins with the highest figures: rows that brought something come before all that brought nothing,
    /// and are fewer. None for other orders; too few where the window reaches beyond those rows.
    /// </summary>
    public static string? WindowOfHighest(SheetRequest request, ItemTable table) =>
        request is { Sort: { } sort, Descending: true, Changed: false }
        && SheetSql.IsFigure(sort)
        && SheetFields.Find(sort)!.Sql(table) is { } figure
            ? $"""
                select i.id from (
                  select f.*, {SheetSql.Sorted(sort, figure)} as key from figure_sum f
                  where f.period_id = {SheetFigures.PeriodOf(table)} and {SheetFields.Bare(
                    figure
                )} > 0 order by key desc, f.item_id) f
                cross join lateral (
                  select i.id from {SheetSql.From(request, table, without: SheetJoins.Figures)}
                  where i.id = f.item_id and {SheetSql.Where(request, table)} offset 0) i
                order by f.key desc, f.item_id offset @offset limit @limit
                """
            : null;

    /// <summary>True for the order by name of all rows that are shown: their index has it, and nothing but it is read.</summary>
    public static bool IsIndexed(SheetRequest request, ItemTable table) =>
        (request.Sort is null or "name") && !request.IsFiltered && table.Type.NameField is { KeyColumn: not null };

    /// <summary>All of them, as one array: a million rows of one number each cost more than the sorting.</summary>
    public static string Whole(SheetRequest request, ItemTable table) =>
        $"select coalesce(array_agg(o.id), '{"{}"}') from ({Ids(request, table, "")}) o";

    /// <summary>Few rows differ from the live copy: they are found first and sorted, and no index is walked beside them.</summary>
    private static string Ids(SheetRequest request, ItemTable table, string first) =>
        request is { Sort: { } sort, Changed: false }
        && table.Type.Find(sort) is { } field
        && SheetIndexes.IsOrdered(field)
            ? ByInherited(request, table, field, first)
            : $"select i.id from {SheetSql.From(request, table, sorted: true)} where {SheetSql.Where(request, table)} order by {SheetSql.OrderBy(request, table)}";

    /// <summary>
    /// Items with a value of their own come in order from their index; those without come with their holders, of which there are
    /// fewer. Both ways merged, nothing has to be sorted. Items of one value are kept together by what they stand in.
    /// </summary>
    private static string ByInherited(SheetRequest request, ItemTable table, Field field, string first)
    {
        var parent = table.Parents[^1];
        var holder = ItemTable.Of(field.InheritedFrom!.Value);
        var (ascending, nulls) = request.Descending ? (" desc", " desc nulls last") : ("", " nulls first");
        var (from, where) = (SheetSql.From(request, table), SheetSql.Where(request, table));
        return $"""
            select id from (
              (select i.id, i.{field.Column} as key, i.{parent.Column} as place from {from}
               where {where} and i.{field.Column} is not null order by i.{field.Column}{ascending}, i.{parent.Column}{ascending}, i.id{ascending} {first})
              union all
              (select x.id, h.key, h.id from (
                 select i.id, {SheetPlaces.Effective(holder, holder.Type[field.Name])} as key
                 from {SheetPlaces.Tables(
                holder,
                SheetJoins.AdGroup | SheetJoins.Campaign
            )} where i.account_id = @account order by 2{nulls}, 1{ascending}) h
               cross join lateral (
                 select i.id from {from} where i.{parent.Column} = h.id and i.{field.Column} is null and {where} order by i.id{ascending} {first}) x
               order by h.key{nulls}, h.id{ascending}, x.id{ascending} {first})
            ) both_ways order by key{nulls}, place{ascending}, id{ascending}
            """;
    }
}
