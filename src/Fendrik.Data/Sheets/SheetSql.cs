using System.Text;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Sheets;

/// <summary>The parts of the sheet's queries: columns of each kind, conditions of a filter, orders. Alias <c>i</c> is the item.</summary>
internal static class SheetSql
{
    private const string OfItem =
        $"{SheetFields.ChangeOfRow} as change, i.review, i.review_reason, i.labels, i.changed_by as version";

    private const string OfGroup = "g.id as ad_group_id, g.name as ad_group, c.id as campaign_id, c.name as campaign";

    /// <summary>Columns and joins that make a row of the sheet.</summary>
    public static (string Columns, string From) RowOf(ItemKind kind) =>
        (
            kind switch
            {
                ItemKind.Campaign =>
                    $"1 as kind, i.id, i.name, i.state, i.daily_budget, i.start_date, i.end_date, i.networks, i.id as campaign_id, i.name as campaign, {OfItem}",
                ItemKind.AdGroup =>
                    $"2 as kind, i.id, i.name, i.state, i.max_cpc, c.id as campaign_id, c.name as campaign, i.id as ad_group_id, i.name as ad_group, {OfItem}",
                ItemKind.Keyword =>
                    $"3 as kind, i.id, i.text as name, i.match_type as match, i.state, i.max_cpc, g.max_cpc as inherited_max_cpc, i.final_url, {OfGroup}, {OfItem}",
                ItemKind.NegativeKeyword =>
                    $"4 as kind, i.id, i.text as name, i.match_type as match, {OfGroup}, l.id as list_id, l.name as list, {OfItem}",
                ItemKind.NegativeList => $"6 as kind, i.id, i.name, i.campaign_ids, {OfItem}",
                _ =>
                    $"5 as kind, i.id, array_to_string(i.headlines, ' – ') as name, i.state, i.headlines, i.descriptions, i.display_path, i.final_url, i.device_preference, {OfGroup}, {OfItem}",
            },
            Tables(kind, SheetJoins.AdGroup | SheetJoins.Campaign)
        );

    /// <summary>The item's table with the tables that are needed beside it.</summary>
    public static string Tables(ItemKind kind, SheetJoins joins)
    {
        var sql = new StringBuilder($"{ItemTable.Of(kind).Name} i");
        var (group, campaign) = (joins.HasFlag(SheetJoins.AdGroup), joins.HasFlag(SheetJoins.Campaign));
        switch (kind)
        {
            case ItemKind.AdGroup when campaign:
                sql.Append(" join campaign c on c.id = i.campaign_id");
                break;
            case ItemKind.Keyword or ItemKind.TextAd:
                sql.Append(group || campaign ? " join ad_group g on g.id = i.ad_group_id" : "");
                sql.Append(campaign ? " join campaign c on c.id = g.campaign_id" : "");
                break;
            case ItemKind.NegativeKeyword when group || campaign:
                sql.Append(
                    " left join campaign c on c.id = i.campaign_id left join ad_group g on g.id = i.ad_group_id left join negative_list l on l.id = i.list_id"
                );
                break;
        }

        if (joins.HasFlag(SheetJoins.Figures) && SheetFields.FigureColumn(kind) is { } column)
        {
            sql.Append(
                $"""
                 left join (select {column} as id, sum(impressions)::bigint as impressions, sum(clicks)::bigint as clicks, sum(cost) as cost,
                   sum(conversions) as conversions, sum(value) as value
                   from performance_day where account_id = @account and day between @figuresFrom and @figuresTo group by {column}) f on f.id = i.id
                """
            );
        }

        return sql.ToString();
    }

    public static bool ReadsFigures(SheetRequest request) =>
        request.Conditions.Any(condition =>
            SheetFields.Find(condition.Field)?.Joins.HasFlag(SheetJoins.Figures) == true
        );

    /// <summary>The tables that a filter reads, and those of the sort when it counts.</summary>
    public static string From(SheetRequest request, ItemKind kind, bool sorted = false) =>
        Tables(
            kind,
            request
                .Conditions.Select(condition => condition.Field)
                .Concat(sorted && request.Sort is { } sort ? [sort] : [])
                .Aggregate(SheetJoins.None, (joins, name) => joins | (SheetFields.Find(name)?.Joins ?? 0))
        );

    /// <summary>Conditions of the filter and the scope for one kind; parameters are those of <see cref="Parameters"/>.</summary>
    public static string Where(SheetRequest request, ItemKind kind)
    {
        // What was taken away and is not on the network either is no row any more, just history.
        var sql = new StringBuilder("i.account_id = @account and (not i.removed or i.is_live)");
        if (request.CampaignId is not null)
        {
            sql.Append(
                kind switch
                {
                    ItemKind.Campaign => " and i.id = @CampaignId",
                    ItemKind.AdGroup or ItemKind.NegativeKeyword => " and i.campaign_id = @CampaignId",
                    ItemKind.NegativeList => " and i.campaign_ids @> array[@CampaignId::bigint]",
                    _ => " and i.ad_group_id in (select id from ad_group where campaign_id = @CampaignId)",
                }
            );
        }

        if (request.AdGroupId is not null)
        {
            sql.Append(
                kind switch
                {
                    ItemKind.Campaign => " and i.id = (select campaign_id from ad_group where id = @AdGroupId)",
                    ItemKind.AdGroup => " and i.id = @AdGroupId",
                    ItemKind.NegativeList => " and false",
                    _ => " and i.ad_group_id = @AdGroupId",
                }
            );
        }

        if (!string.IsNullOrWhiteSpace(request.Text))
        {
            var column =
                kind == ItemKind.TextAd
                    ? "lower(array_to_string(i.headlines || i.descriptions, ' '))"
                    : SheetFields.NameKey(kind);
            sql.Append($" and {column} like @like");
        }

        if (request.State is not null)
        {
            sql.Append(
                kind is ItemKind.NegativeKeyword or ItemKind.NegativeList ? " and false" : " and i.state = @state"
            );
        }

        if (request.Match is not null)
        {
            sql.Append(
                kind is ItemKind.Keyword or ItemKind.NegativeKeyword ? " and i.match_type = @match" : " and false"
            );
        }

        if (request.Changed)
        {
            sql.Append($" and {ItemTable.TrulyPending}");
        }

        if (request.Needs)
        {
            sql.Append(
                $" and exists (select from finding f where f.account_id = @account and f.kind = {(int)kind} and f.item_id = i.id)"
            );
        }

        if (request.StepId is not null)
        {
            sql.Append(
                $" and (exists (select from step_insertion s where s.step_id = @StepId and s.kind = {(int)kind} and i.id between s.first_id and s.last_id)"
                    + $" or exists (select from {ItemTable.Of(kind).Name}_before b where b.step_id = @StepId and b.id = i.id))"
            );
        }

        if (request.ListId is not null)
        {
            sql.Append(kind == ItemKind.NegativeKeyword ? " and i.list_id = @ListId" : " and false");
        }

        for (var number = 0; number < request.Conditions.Count; number++)
        {
            sql.Append($" and {ConditionSql.Of(request.Conditions[number], number, kind)}");
        }

        return sql.ToString();
    }

    public static DynamicParameters Parameters(SheetRequest request, int account, FigurePeriod figures)
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
                account,
                request.CampaignId,
                request.AdGroupId,
                request.ListId,
                request.StepId,
                like = LikePattern.Containing(request.Text ?? ""),
                state = (short?)request.State,
                match = (short?)request.Match,
                limit = request.Limit,
                offset = request.Offset,
                figuresFrom = figures.From,
                figuresTo = figures.To,
            }
        );
        for (var number = 0; number < request.Conditions.Count; number++)
        {
            ConditionSql.AddValues(request.Conditions[number], number, parameters);
        }

        return parameters;
    }

    /// <summary>Order of a flat list; only known fields come through.</summary>
    public static string OrderBy(SheetRequest request, ItemKind kind)
    {
        var field = request.Sort is { } sort && sort != "name" ? SheetFields.Find(sort) : null;
        if (field?.Sql(kind) is { } column)
        {
            return $"{column} {(request.Descending ? "desc nulls last" : "asc nulls first")}, i.id";
        }

        // The name has no gaps, and its order is the index's.
        var name = kind == ItemKind.TextAd ? "i.headlines" : SheetFields.NameKey(kind);
        return request.Descending ? $"{name} desc, i.id desc" : $"{name}, i.id";
    }

    /// <summary>Order of children within a parent; the identity indexes serve it.</summary>
    public static string OrderWithin(ItemKind kind) =>
        kind switch
        {
            ItemKind.Keyword => "i.text_key, i.match_type, i.id",
            ItemKind.NegativeKeyword => "i.text_key, i.match_type, i.id",
            _ => "i.id",
        };
}
