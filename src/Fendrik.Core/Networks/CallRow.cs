using Fendrik.Core.Calls;

namespace Fendrik.Core.Networks;

/// <summary>One call to a tracked number, as the carrier saw it. What is said on it is nobody's business.</summary>
/// <param name="Day">Day of the click, in the account's time zone.</param>
/// <param name="CampaignId">Campaign of the click.</param>
/// <param name="AdGroupId">Ad group of the click.</param>
/// <param name="KeywordId">Keyword of the click.</param>
/// <param name="AdId">Ad of the click.</param>
/// <param name="Device">Device of the click.</param>
/// <param name="FromAd">True when the number beside an ad was called; false for the number on the site.</param>
/// <param name="ClickId">The click.</param>
/// <param name="ClickedAt">When the click was made.</param>
/// <param name="Cost">What it cost.</param>
/// <param name="At">When it began to ring.</param>
/// <param name="Rang">Seconds until somebody answered, or the caller gave up.</param>
/// <param name="Talked">Seconds that people talked; 0 where nobody answered.</param>
/// <param name="End">How it ended.</param>
/// <param name="Area">Where the caller is.</param>
/// <param name="Caller">Tells one caller from another, and says nothing else.</param>
/// <param name="Dialled">The rented number that was called, by ITU-T E.164; empty for one of the network's.</param>
/// <param name="Origin">What is known of where it came from: what is not known is 0, and the click's id empty.</param>
public sealed record CallRow(
    DateOnly Day,
    long CampaignId,
    long AdGroupId,
    long KeywordId,
    long AdId,
    Device Device,
    bool FromAd,
    string ClickId,
    DateTimeOffset ClickedAt,
    decimal Cost,
    DateTimeOffset At,
    int Rang,
    int Talked,
    CallEnd End,
    string Area,
    string Caller,
    string Dialled = "",
    CallOrigin Origin = CallOrigin.Click
);
