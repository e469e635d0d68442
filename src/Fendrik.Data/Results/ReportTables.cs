using Fendrik.Data.Results.Sums;
using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Data.Results;

/// <summary>A table of what a network reports by day.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Columns">Its columns behind account and day.</param>
/// <param name="Write">Writes a row from its day on.</param>
internal sealed record ReportTable<T>(string Name, string Columns, Action<NpgsqlBinaryImporter, T> Write)
{
    /// <summary>What makes sums of the rows that were taken in; none where nothing reads such.</summary>
    public string? RollUp { get; init; }
}

/// <summary>The tables of what networks report by day.</summary>
internal static class ReportTables
{
    /// <summary>How keywords stood.</summary>
    public static readonly ReportTable<StandingRow> Standing = new(
        "standing_day",
        "campaign_id, ad_group_id, keyword_id, impressions, top, first, places, lost_to_rank, lost_to_budget",
        (copy, row) =>
        {
            copy.Write(row.Day, NpgsqlDbType.Date);
            copy.Write(row.CampaignId);
            copy.Write(row.AdGroupId);
            copy.Write(row.KeywordId);
            copy.Write(row.Impressions);
            copy.Write(row.Top);
            copy.Write(row.First);
            copy.Write(row.Places);
            copy.Write(row.LostToRank);
            copy.Write(row.LostToBudget);
        }
    )
    {
        RollUp = RollUps.OfStandings,
    };

    /// <summary>How campaigns and their budgets went through the hours.</summary>
    public static readonly ReportTable<PaceRow> Pace = new(
        "pace_hour",
        "hour, campaign_id, budget, impressions, lost_to_rank, lost_to_budget, stopped_minute",
        (copy, row) =>
        {
            copy.Write(row.Day, NpgsqlDbType.Date);
            copy.Write((short)row.Hour);
            copy.Write(row.CampaignId);
            Write(copy, row.Budget);
            copy.Write(row.Impressions);
            copy.Write(row.LostToRank);
            copy.Write(row.LostToBudget);
            Write(copy, (short?)row.StoppedMinute);
        }
    );

    /// <summary>Who else showed.</summary>
    public static readonly ReportTable<RivalRow> Rival = new(
        "rival_day",
        "campaign_id, ad_group_id, keyword_id, rival, shown_with, above_us",
        (copy, row) =>
        {
            copy.Write(row.Day, NpgsqlDbType.Date);
            copy.Write(row.CampaignId);
            copy.Write(row.AdGroupId);
            copy.Write(row.KeywordId);
            copy.Write(row.Rival);
            copy.Write(row.ShownWith);
            copy.Write(row.AboveUs);
        }
    );

    /// <summary>Quality scores.</summary>
    public static readonly ReportTable<QualityRow> Quality = new(
        "quality_day",
        "keyword_id, score, click_likelihood, text_fit, page_fit",
        (copy, row) =>
        {
            copy.Write(row.Day, NpgsqlDbType.Date);
            copy.Write(row.KeywordId);
            copy.Write((short)row.Score);
            copy.Write((short)row.ClickLikelihood);
            copy.Write((short)row.TextFit);
            copy.Write((short)row.PageFit);
        }
    );

    /// <summary>What came of ads beside which extensions showed.</summary>
    public static readonly ReportTable<ExtensionRow> Extension = new(
        "extension_day",
        "campaign_id, ad_group_id, kind, extension_id, impressions, clicks, own_clicks, cost, expected, conversions, value",
        (copy, row) =>
        {
            copy.Write(row.Day, NpgsqlDbType.Date);
            copy.Write(row.CampaignId);
            copy.Write(row.AdGroupId);
            copy.Write((short)row.Kind);
            copy.Write(row.ExtensionId);
            copy.Write(row.Impressions);
            copy.Write(row.Clicks);
            copy.Write(row.OwnClicks);
            copy.Write(row.Cost);
            copy.Write(row.Expected);
            copy.Write(row.Conversions);
            copy.Write(row.Value);
        }
    );

    /// <summary>What came of responsive ads, by the lines that showed together.</summary>
    public static readonly ReportTable<CombinationRow> Combination = new(
        "combination_day",
        "campaign_id, ad_group_id, ad_id, headlines, descriptions, impressions, clicks, cost, expected, conversions, value",
        (copy, row) =>
        {
            copy.Write(row.Day, NpgsqlDbType.Date);
            copy.Write(row.CampaignId);
            copy.Write(row.AdGroupId);
            copy.Write(row.AdId);
            copy.Write(row.Headlines, NpgsqlDbType.Array | NpgsqlDbType.Text);
            copy.Write(row.Descriptions, NpgsqlDbType.Array | NpgsqlDbType.Text);
            copy.Write(row.Impressions);
            copy.Write(row.Clicks);
            copy.Write(row.Cost);
            copy.Write(row.Expected);
            copy.Write(row.Conversions);
            copy.Write(row.Value);
        }
    );

    /// <summary>What placements and audiences brought.</summary>
    public static readonly ReportTable<ReachedRow> Reached = new(
        "reached_day",
        "campaign_id, ad_group_id, reached_by, name, impressions, clicks, cost, conversions, value",
        (copy, row) =>
        {
            copy.Write(row.Day, NpgsqlDbType.Date);
            copy.Write(row.CampaignId);
            copy.Write(row.AdGroupId);
            copy.Write((short)row.By);
            copy.Write(row.Name);
            copy.Write(row.Impressions);
            copy.Write(row.Clicks);
            copy.Write(row.Cost);
            copy.Write(row.Conversions);
            copy.Write(row.Value);
        }
    );

    /// <summary>Conversions, one by one.</summary>
    public static readonly ReportTable<ConversionRow> Conversion = new(
        "conversion",
        "hour, campaign_id, ad_group_id, keyword_id, ad_id, device, action_id, click_id, clicked_at, at, told, value, counts, steers",
        (copy, row) =>
        {
            copy.Write(row.Day, NpgsqlDbType.Date);
            copy.Write((short)row.Hour);
            copy.Write(row.CampaignId);
            copy.Write(row.AdGroupId);
            copy.Write(row.KeywordId);
            copy.Write(row.AdId);
            copy.Write((short)row.Device);
            copy.Write(row.ActionId);
            copy.Write(row.ClickId);
            copy.Write(row.ClickedAt.ToUniversalTime(), NpgsqlDbType.TimestampTz);
            copy.Write(row.At.ToUniversalTime(), NpgsqlDbType.TimestampTz);
            copy.Write(row.Told.ToUniversalTime(), NpgsqlDbType.TimestampTz);
            copy.Write(row.Value);
            copy.Write(row.Counts);
            copy.Write(row.Steers);
        }
    );

    /// <summary>Calls, one by one.</summary>
    public static readonly ReportTable<CallRow> Call = new(
        "phone_call",
        "campaign_id, ad_group_id, keyword_id, ad_id, device, from_ad, click_id, clicked_at, cost, at, rang, talked, call_end, area, caller, dialled, origin",
        (copy, row) =>
        {
            copy.Write(row.Day, NpgsqlDbType.Date);
            copy.Write(row.CampaignId);
            copy.Write(row.AdGroupId);
            copy.Write(row.KeywordId);
            copy.Write(row.AdId);
            copy.Write((short)row.Device);
            copy.Write(row.FromAd);
            copy.Write(row.ClickId);
            copy.Write(row.ClickedAt.ToUniversalTime(), NpgsqlDbType.TimestampTz);
            copy.Write(row.Cost);
            copy.Write(row.At.ToUniversalTime(), NpgsqlDbType.TimestampTz);
            copy.Write(row.Rang);
            copy.Write(row.Talked);
            copy.Write((short)row.End);
            copy.Write(row.Area);
            copy.Write(row.Caller);
            copy.Write(row.Dialled);
            copy.Write((short)row.Origin);
        }
    );

    /// <summary>What was searched for.</summary>
    public static readonly ReportTable<SearchTermRow> SearchTerm = new(
        "search_term_day",
        "term, campaign_id, ad_group_id, keyword_id, impressions, clicks, cost, conversions, value",
        (copy, row) =>
        {
            copy.Write(row.Day, NpgsqlDbType.Date);
            copy.Write(row.Term);
            copy.Write(row.CampaignId);
            copy.Write(row.AdGroupId);
            copy.Write(row.KeywordId);
            copy.Write(row.Impressions);
            copy.Write(row.Clicks);
            copy.Write(row.Cost);
            copy.Write(row.Conversions);
            copy.Write(row.Value);
        }
    );

    private static void Write<T>(NpgsqlBinaryImporter copy, T? value)
        where T : struct
    {
        if (value is { } known)
        {
            copy.Write(known);
        }
        else
        {
            copy.WriteNull();
        }
    }
}
