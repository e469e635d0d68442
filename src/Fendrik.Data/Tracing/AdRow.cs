using Dapper;
using Fendrik.Core.Accounts;

namespace Fendrik.Data.Tracing;

/// <summary>An ad of any kind, as it is read.</summary>
[method: ExplicitConstructor]
internal sealed record AdRow(
    ItemKind Kind,
    long Id,
    long AdGroupId,
    string[] Headlines,
    string[] Descriptions,
    string[] DisplayPath,
    string? LandingPage,
    string? PhonePage,
    string? KeptApart,
    string? BusinessName,
    string? CallNumber,
    string? Hours,
    Device? DevicePreference
)
{
    /// <summary>The columns that it is read from, of what <see cref="Items.AdTables"/> gives.</summary>
    public const string Columns =
        "kind, id, ad_group_id, headlines, descriptions, display_path, landing_page, phone_page, kept_apart, business_name, call_number, hours, device_preference";

    /// <summary>The ad as it would be served.</summary>
    /// <exception cref="InvalidOperationException">The kind is no ad.</exception>
    public Ad Ad =>
        Kind switch
        {
            ItemKind.TextAd => new TextAd(
                Id,
                AdGroupId,
                ItemState.Running,
                Headlines,
                Descriptions,
                DisplayPath,
                LandingPage,
                DevicePreference,
                PhonePage
            ),
            ItemKind.ResponsiveAd => new ResponsiveAd(
                Id,
                AdGroupId,
                ItemState.Running,
                Headlines,
                Descriptions,
                DisplayPath,
                LandingPage,
                KeptApart,
                DevicePreference,
                PhonePage
            ),
            ItemKind.CallAd => new CallAd(
                Id,
                AdGroupId,
                ItemState.Running,
                BusinessName,
                CallNumber,
                Headlines,
                Descriptions,
                LandingPage,
                Hours is null ? null : WeekHours.Of(Hours)
            ),
            ItemKind.Account
            or ItemKind.Campaign
            or ItemKind.AdGroup
            or ItemKind.Keyword
            or ItemKind.NegativeKeyword
            or ItemKind.NegativeList
            or ItemKind.Callout
            or ItemKind.Sitelink
            or ItemKind.RelatedWords
            or ItemKind.CallExtension
            or ItemKind.Placement
            or ItemKind.Audience
            or ItemKind.Place
            or ItemKind.ConversionAction => throw new InvalidOperationException($"{Kind} is no ad."),
        };
}
