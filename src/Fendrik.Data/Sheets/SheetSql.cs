using System.Text;
using Dapper;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets.Conditions;

namespace Fendrik.Data.Sheets;

/// <summary>SQL that rows of a sheet have in common: what they are of, which of them, in which order.</summary>
internal static class SheetSql
{
    /// <summary>The kinds that a sheet shows: the one of a flat list, or those of the outline.</summary>
    public static IEnumerable<ItemTable> TablesOf(SheetRequest request) =>
        request.Kind is { } kind
            ? [ItemTable.Of(kind)]
            : ItemTable.All.Where(table =>
                InOutline(table)
                && (request.Kinds.Count == 0 || request.Kinds.Contains(table.Kind) || table.Type.Holds is not null)
            );

    /// <summary>True for the kinds that have a place in the outline: what the account, campaigns and ad groups hold.</summary>
    public static bool InOutline(ItemTable table) =>
        table.Type.ComesAndGoes
        && table.Type.Holds != Level.List
        && (table.Type.Holds is not null || table.Parents.Count > 0);

    /// <summary>True when figures say which rows are shown.</summary>
    public static bool FiltersByFigures(SheetRequest request) =>
        request.Conditions.Any(condition => IsFigure(condition.Field));

    /// <summary>True when figures say which rows are shown, or in which order.</summary>
    public static bool ReadsFigures(SheetRequest request) =>
        FiltersByFigures(request) || (request is { Kind: not null, Sort: { } sort } && IsFigure(sort));

    /// <summary>True for a figure: impressions, cost, what follows from them.</summary>
    public static bool IsFigure(string field) => SheetFields.Find(field)?.Joins.HasFlag(SheetJoins.Figures) == true;

    /// <summary>What the conditions, and the order where it matters, need joined.</summary>
    public static string From(
        SheetRequest request,
        ItemTable table,
        bool sorted = false,
        SheetJoins without = SheetJoins.None
    )
    {
        var tables = SheetPlaces.Tables(
            table,
            request
                .Conditions.Select(condition => condition.Field)
                .Concat(sorted && request.Sort is { } sort ? [sort] : [])
                .Aggregate(SheetJoins.None, (joins, name) => joins | (SheetFields.Find(name)?.Joins ?? 0)) & ~without
        );

        // Rows that may differ from the live copy are few and have an index; walking all rows in their order is worse.
        return request.Changed
            ? $"(select * from {table.Name} i where i.account_id = @account and {ItemTable.Pending} offset 0) i{tables[$"{table.Name} i".Length..]}"
            : tables;
    }

    public static string Where(SheetRequest request, ItemTable table)
    {
        var sql = new StringBuilder($"i.account_id = @account and {Standing(request)}");
        if (request.Kind is null && table.Type.StandsIn(Level.List))
        {
            sql.Append(" and i.list_id is null");
        }

        if (request.CampaignId is not null)
        {
            sql.Append($" and {SheetPlaces.InCampaign(table)}");
        }

        if (request.AdGroupId is not null)
        {
            sql.Append($" and {SheetPlaces.InAdGroup(table)}");
        }

        if (!string.IsNullOrWhiteSpace(request.Text))
        {
            sql.Append($" and {SearchedText(table)} like @like");
        }

        if (request.State is not null)
        {
            sql.Append(table.Type.Find("state") is null ? " and false" : " and i.state = @state");
        }

        if (request.Match is not null)
        {
            sql.Append(table.Type.Find("match") is null ? " and false" : " and i.match_type = @match");
        }

        if (request.Changed)
        {
            sql.Append($" and {table.TrulyPending}");
        }

        if (request.Needs)
        {
            sql.Append(
                $" and exists (select from finding f where f.account_id = @account and f.kind = {table.Number} and f.item_id = i.id)"
            );
        }

        if (request.StepId is not null)
        {
            sql.Append(
                $" and (exists (select from step_insertion s where s.step_id = @StepId and s.kind = {table.Number} and i.id between s.first_id and s.last_id)"
                    + $" or exists (select from {table.Before} b where b.step_id = @StepId and b.id = i.id))"
            );
        }

        if (request.ListId is not null)
        {
            sql.Append(table.Type.StandsIn(Level.List) ? " and i.list_id = @ListId" : " and false");
        }

        for (var number = 0; number < request.Conditions.Count; number++)
        {
            sql.Append($" and {ConditionSql.Of(request.Conditions[number], number, table)}");
        }

        return sql.ToString();
    }

    /// <summary>What was taken away and is not on the network either is a row only where removed items are asked for.</summary>
    private static string Standing(SheetRequest request) =>
        request.Removed ? "i.removed" : "(not i.removed or i.is_live)";

    public static DynamicParameters Parameters(SheetRequest request, SheetGround ground)
    {
        if (request.Conditions.Count > ConditionSql.MostConditions)
        {
            throw new InvalidChangeException(
                "conditions",
                $"A filter has at most {ConditionSql.MostConditions} conditions."
            );
        }

        var parameters = new DynamicParameters(
            new
            {
                account = ground.AccountId,
                request.CampaignId,
                request.AdGroupId,
                request.ListId,
                request.StepId,
                like = LikePattern.Containing(request.Text ?? ""),
                state = (short?)request.State,
                match = (short?)request.Match,
                limit = request.Limit,
                offset = request.Offset,
                figuresFrom = ground.Figures.From,
                figuresTo = ground.Figures.To,
                reportRevision = ground.ReportRevision,
            }
        );
        for (var number = 0; number < request.Conditions.Count; number++)
        {
            ConditionSql.AddValues(request.Conditions[number], number, parameters);
        }

        return parameters;
    }

    public static string OrderBy(SheetRequest request, ItemTable table)
    {
        var field = request.Sort is { } sort && sort != "name" ? SheetFields.Find(sort) : null;
        if (field?.Sql(table) is { } column)
        {
            return $"{Sorted(field.Name, column)} {(request.Descending ? "desc nulls last" : "asc nulls first")}, i.id";
        }

        // The name has no gaps, and its order is the index's.
        var name =
            table.Type.NameField is { KeyColumn: { } key } ? $"i.{key}"
            : table.Type.NameField is { } lines ? $"i.{lines.Column}"
            : "i.id";
        return request.Descending ? $"{name} desc, i.id desc" : $"{name}, i.id";
    }

    /// <summary>What a field is sorted by. Sums of figures are exact as double numbers, which sort several times faster.</summary>
    public static string Sorted(string name, string sql) => IsFigure(name) ? $"({sql})::float8" : sql;

    /// <summary>The order of items in one place.</summary>
    public static string OrderWithin(ItemTable table) =>
        table.Type.IsKnownByContent
            ? "i.id"
            : string.Join(", ", table.IdentityColumns.Select(column => $"i.{column}").Append("i.id"));

    /// <summary>What a search for words looks through: the name, and for an ad all that it says.</summary>
    private static string SearchedText(ItemTable table) =>
        table.Type.IsKnownByContent
            ? $"text_key(array_to_string({string.Join(
                " || ",
                table.Type.Fields.Where(field => field.Type.Form == Core.Items.Values.ValueForm.Lines).Select(field => $"i.{field.Column}")
            )}, ' '))"
            : table.NameKey("i");
}
