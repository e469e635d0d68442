namespace Fendrik.Data.Results.Sums;

/// <summary>
/// Sums that screens read in place of millions of facts: by campaign and day, by ad group and day, by campaign and hour, and by ad group or keyword and week (its Monday). They are made anew for each day whose facts are
/// taken in, in the same transaction, so that they are never anything but the sums of the facts.
/// </summary>
internal static class RollUps
{
    /// <summary>What ads brought, by day and ad group.</summary>
    public const string Groups = "performance_group";

    /// <summary>What ads brought, by day and campaign.</summary>
    public const string Campaigns = "performance_campaign";

    /// <summary>Where ads stood, by day and campaign.</summary>
    public const string CampaignStandings = "standing_campaign";

    /// <summary>What ads brought, by hour, campaign, device and kind of site.</summary>
    public const string Slots = "performance_slot";

    /// <summary>Where ads stood, by day and ad group.</summary>
    public const string Standings = "standing_group";

    /// <summary>What ads brought, by week and ad group.</summary>
    public const string GroupWeeks = "performance_group_week";

    /// <summary>Where ads stood, by week and ad group.</summary>
    public const string StandingWeeks = "standing_group_week";

    /// <summary>What ads brought, by week and keyword.</summary>
    public const string KeywordWeeks = "performance_week";

    /// <summary>Where ads stood, by week and keyword.</summary>
    public const string KeywordStandingWeeks = "standing_week";

    private const string Weeks =
        "day between date_trunc('week', @First::date)::date and date_trunc('week', @Last::date)::date + 6";

    /// <summary>Makes the sums of what ads brought for the days from <c>@First</c> to <c>@Last</c> of <c>@accountId</c>.</summary>
    public const string OfPerformance = $"""
        delete from performance_group where account_id = @accountId and day between @First and @Last;
        insert into performance_group
        select account_id, day, campaign_id, ad_group_id, sum(impressions), sum(clicks), sum(cost), sum(conversions), sum(value)
        from performance_day where account_id = @accountId and day between @First and @Last group by 1, 2, 3, 4;
        delete from performance_campaign where account_id = @accountId and day between @First and @Last;
        insert into performance_campaign
        select account_id, day, campaign_id, sum(impressions), sum(clicks), sum(cost), sum(conversions), sum(value)
        from performance_group where account_id = @accountId and day between @First and @Last group by 1, 2, 3;
        delete from performance_slot where account_id = @accountId and day between @First and @Last;
        insert into performance_slot
        select account_id, day, hour, campaign_id, device, site, sum(impressions), sum(clicks), sum(cost), sum(conversions), sum(value)
        from performance where account_id = @accountId and day between @First and @Last group by 1, 2, 3, 4, 5, 6;
        delete from performance_group_week where account_id = @accountId and {Weeks};
        insert into performance_group_week
        select account_id, date_trunc('week', day)::date, campaign_id, ad_group_id, sum(impressions), sum(clicks), sum(cost), sum(conversions), sum(value)
        from performance_group where account_id = @accountId and {Weeks} group by 1, 2, 3, 4;
        delete from performance_week where account_id = @accountId and {Weeks};
        insert into performance_week
        select account_id, date_trunc('week', day)::date, campaign_id, ad_group_id, keyword_id, sum(impressions), sum(clicks), sum(cost), sum(conversions), sum(value)
        from performance_day where account_id = @accountId and {Weeks} group by 1, 2, 3, 4, 5;
        """;

    /// <summary>Makes the sums of where ads stood for the same days.</summary>
    public const string OfStandings = $"""
        delete from standing_group where account_id = @accountId and day between @First and @Last;
        insert into standing_group
        select account_id, day, campaign_id, ad_group_id, sum(impressions), sum(top), sum(first), sum(places), sum(lost_to_rank), sum(lost_to_budget)
        from standing_day where account_id = @accountId and day between @First and @Last group by 1, 2, 3, 4;
        delete from standing_campaign where account_id = @accountId and day between @First and @Last;
        insert into standing_campaign
        select account_id, day, campaign_id, sum(impressions), sum(top), sum(first), sum(places), sum(lost_to_rank), sum(lost_to_budget)
        from standing_group where account_id = @accountId and day between @First and @Last group by 1, 2, 3;
        delete from standing_group_week where account_id = @accountId and {Weeks};
        insert into standing_group_week
        select account_id, date_trunc('week', day)::date, campaign_id, ad_group_id, sum(impressions), sum(top), sum(first), sum(places), sum(lost_to_rank), sum(lost_to_budget)
        from standing_group where account_id = @accountId and {Weeks} group by 1, 2, 3, 4;
        delete from standing_week where account_id = @accountId and {Weeks};
        insert into standing_week
        select account_id, date_trunc('week', day)::date, campaign_id, ad_group_id, keyword_id, sum(impressions), sum(top), sum(first), sum(places), sum(lost_to_rank), sum(lost_to_budget)
        from standing_day where account_id = @accountId and {Weeks} group by 1, 2, 3, 4, 5;
        """;
}
