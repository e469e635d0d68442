namespace Fendrik.Core.Networks;

/// <summary>One conversion, as the network tells of it.</summary>
/// <param name="Day">Day of the click, in the account's time zone.</param>
/// <param name="Hour">Hour of the click on the clock on the wall.</param>
/// <param name="CampaignId">Campaign of the click.</param>
/// <param name="AdGroupId">Ad group of the click.</param>
/// <param name="KeywordId">Keyword of the click.</param>
/// <param name="AdId">Ad of the click.</param>
/// <param name="Device">Device of the click.</param>
/// <param name="ActionId">The action that counted it; 0 where the account had none yet.</param>
/// <param name="ClickId">The click, as links carry it.</param>
/// <param name="ClickedAt">When the click was made.</param>
/// <param name="At">When it was done.</param>
/// <param name="Told">When the network heard of it.</param>
/// <param name="Value">What it is worth, in the account's currency.</param>
/// <param name="Counts">True when it was a goal of the campaign.</param>
/// <param name="Steers">True when strategies learn from it.</param>
public sealed record ConversionRow(
    DateOnly Day,
    int Hour,
    long CampaignId,
    long AdGroupId,
    long KeywordId,
    long AdId,
    Device Device,
    long ActionId,
    string ClickId,
    DateTimeOffset ClickedAt,
    DateTimeOffset At,
    DateTimeOffset Told,
    decimal Value,
    bool Counts,
    bool Steers
);
