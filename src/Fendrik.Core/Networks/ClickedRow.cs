namespace Fendrik.Core.Networks;

/// <summary>One click, with the id that links carry.</summary>
/// <param name="ClickId">The id.</param>
/// <param name="At">When.</param>
/// <param name="CampaignId">Campaign.</param>
/// <param name="AdGroupId">Ad group.</param>
/// <param name="KeywordId">Keyword.</param>
/// <param name="AdId">Ad.</param>
/// <param name="Device">Device.</param>
public sealed record ClickedRow(
    string ClickId,
    DateTimeOffset At,
    long CampaignId,
    long AdGroupId,
    long KeywordId,
    long AdId,
    Device Device
);
