using Fendrik.Core.Items.Kinds;
using Fendrik.Data.Items;

namespace Fendrik.Data.Results.Sums;

/// <summary>Of what sums are read.</summary>
internal enum SumsOf
{
    /// <summary>Whole campaigns.</summary>
    Campaigns,

    /// <summary>Ad groups.</summary>
    AdGroups,

    /// <summary>Keywords and ads.</summary>
    Items,
}

/// <summary>Which sums say what results are asked for, the smallest that do.</summary>
internal static class ResultsSums
{
    /// <summary>The smallest sums that say what lines of a level are.</summary>
    public static SumsOf ForLines(ResultsRequest request) =>
        request.Level == ItemKind.Campaign && request.AdGroupId is null ? SumsOf.Campaigns
        : request.Level is ItemKind.Campaign or ItemKind.AdGroup ? SumsOf.AdGroups
        : SumsOf.Items;

    /// <summary>The smallest sums that say what days are: of chosen items only their own.</summary>
    public static SumsOf ForDays(ResultsRequest request) =>
        request.Items is not null ? ForLines(request)
        : request.AdGroupId is null ? SumsOf.Campaigns
        : SumsOf.AdGroups;

    public static string Brought(SumsOf sums) =>
        sums switch
        {
            SumsOf.Campaigns => RollUps.Campaigns,
            SumsOf.AdGroups => RollUps.Groups,
            SumsOf.Items => "performance_day",
        };

    public static string Stood(SumsOf sums) =>
        sums switch
        {
            SumsOf.Campaigns => RollUps.CampaignStandings,
            SumsOf.AdGroups => RollUps.Standings,
            SumsOf.Items => "standing_day",
        };

    /// <summary>The sums of whole weeks that say the same of items; none where there are none of them.</summary>
    public static string? Weeks(SumsOf sums, string column, bool stands) =>
        (sums, column) switch
        {
            (SumsOf.AdGroups, _) => stands ? RollUps.StandingWeeks : RollUps.GroupWeeks,
            (SumsOf.Items, "keyword_id") => stands ? RollUps.KeywordStandingWeeks : RollUps.KeywordWeeks,
            (SumsOf.Items or SumsOf.Campaigns, _) => null,
        };

    /// <summary>Keeps to what is asked for; where ads stood is known of their keywords only, so that of some ads nothing is.</summary>
    public static string Within(ResultsRequest request, SumsOf sums, bool stands)
    {
        var scope =
            "p.account_id = @accountId and (@CampaignId::bigint is null or p.campaign_id = @CampaignId) and (@campaigns::bigint[] is null or p.campaign_id = any(@campaigns))"
            + (sums == SumsOf.Campaigns ? "" : " and (@AdGroupId::bigint is null or p.ad_group_id = @AdGroupId)");
        return request.Items is null ? scope
            : stands && ItemTable.Of(request.Level).Type is AdType ? $"{scope} and false"
            : $"{scope} and p.{ItemTable.Of(request.Level).Type.FigureColumn} = any(@items)";
    }
}
