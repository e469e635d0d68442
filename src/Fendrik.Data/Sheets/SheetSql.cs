using System.Text;
using Fendrik.Core.Accounts;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Sheets;

/// <summary>The parts of the sheet's queries: columns of each kind, conditions of a filter, orders. Alias <c>i</c> is the item.</summary>
internal static class SheetSql
{
    private const string Change =
        "case when i.removed then 3 when not i.is_live then 1 when i.live is not null and i.live is distinct from published_fields(i) then 2 else 0 end as change, i.review, i.review_reason";

    private const string OfGroup = "g.id as ad_group_id, g.name as ad_group, c.id as campaign_id, c.name as campaign";

    /// <summary>Columns and joins that make a row of the sheet.</summary>
    public static (string Columns, string From) RowOf(ItemKind kind) =>
        kind switch
        {
            ItemKind.Campaign => (
                $"1 as kind, i.id, i.name, i.state, i.daily_budget, i.start_date, i.end_date, i.networks, i.id as campaign_id, i.name as campaign, {Change}",
                "campaign i"
            ),
            ItemKind.AdGroup => (
                $"2 as kind, i.id, i.name, i.state, i.max_cpc, c.id as campaign_id, c.name as campaign, i.id as ad_group_id, i.name as ad_group, {Change}",
                "ad_group i join campaign c on c.id = i.campaign_id"
            ),
            ItemKind.Keyword => (
                $"3 as kind, i.id, i.text as name, i.match_type as match, i.state, i.max_cpc, g.max_cpc as inherited_max_cpc, i.final_url, {OfGroup}, {Change}",
                "keyword i join ad_group g on g.id = i.ad_group_id join campaign c on c.id = g.campaign_id"
            ),
            ItemKind.NegativeKeyword => (
                $"4 as kind, i.id, i.text as name, i.match_type as match, {OfGroup}, {Change}",
                "negative_keyword i join campaign c on c.id = i.campaign_id left join ad_group g on g.id = i.ad_group_id"
            ),
            _ => (
                $"5 as kind, i.id, array_to_string(i.headlines, ' – ') as name, i.state, i.headlines, i.descriptions, i.display_path, i.final_url, i.device_preference, {OfGroup}, {Change}",
                "text_ad i join ad_group g on g.id = i.ad_group_id join campaign c on c.id = g.campaign_id"
            ),
        };

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
                    _ => " and i.ad_group_id = @AdGroupId",
                }
            );
        }

        if (!string.IsNullOrWhiteSpace(request.Text))
        {
            var column = kind switch
            {
                ItemKind.Campaign or ItemKind.AdGroup => "i.name_key",
                ItemKind.TextAd => "lower(array_to_string(i.headlines || i.descriptions, ' '))",
                _ => "i.text_key",
            };
            sql.Append($" and {column} like @like");
        }

        if (request.State is not null)
        {
            sql.Append(kind == ItemKind.NegativeKeyword ? " and false" : " and i.state = @state");
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

        return sql.ToString();
    }

    public static object Parameters(SheetRequest request, int account) =>
        new
        {
            account,
            request.CampaignId,
            request.AdGroupId,
            request.StepId,
            like = LikePattern.Containing(request.Text ?? ""),
            state = (short?)request.State,
            match = (short?)request.Match,
            limit = request.Limit,
            offset = request.Offset,
        };

    /// <summary>Order of a flat list; only known columns come through.</summary>
    public static string OrderBy(SheetRequest request, ItemKind kind)
    {
        var name = kind switch
        {
            ItemKind.Campaign or ItemKind.AdGroup => "i.name_key",
            ItemKind.TextAd => "i.headlines",
            _ => "i.text_key",
        };
        var column = (request.Sort, kind) switch
        {
            ("match", ItemKind.Keyword or ItemKind.NegativeKeyword) => "i.match_type",
            ("state", not ItemKind.NegativeKeyword) => "i.state",
            ("maxCpc", ItemKind.Keyword) => "coalesce(i.max_cpc, g.max_cpc)",
            ("maxCpc", ItemKind.AdGroup) => "i.max_cpc",
            ("dailyBudget", ItemKind.Campaign) => "i.daily_budget",
            ("finalUrl", ItemKind.Keyword or ItemKind.TextAd) => "i.final_url",
            ("campaign", not ItemKind.Campaign) => "c.name_key",
            ("adGroup", ItemKind.Keyword or ItemKind.NegativeKeyword or ItemKind.TextAd) => "g.name_key",
            _ => name,
        };
        var direction = request.Descending ? "desc nulls last" : "asc nulls first";
        return column == name && name == "i.text_key" && !request.Descending
            ? "i.text_key, i.id"
            : $"{column} {direction}, i.id";
    }

    /// <summary>The tables that sorting needs: the parents only where it goes by them.</summary>
    public static string SortedFrom(SheetRequest request, ItemKind kind)
    {
        var byParent =
            request.Sort is "campaign" or "adGroup" || (request.Sort == "maxCpc" && kind == ItemKind.Keyword);
        return byParent ? RowOf(kind).From : $"{ItemTable.Of(kind).Name} i";
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
