using System.Globalization;
using Fendrik.Core.Items.Kinds;

namespace Fendrik.Data.Items;

/// <summary>The tables of all kinds of ad as one, for whoever asks for ads whatever their kind.</summary>
public static class AdTables
{
    /// <summary>
    /// A query for the ads of all kinds: their kind, id, account, ad group, state, review, texts, pages and the only device that they
    /// show on; what a kind does not have is empty.
    /// </summary>
    /// <param name="condition">What holds for them, over those columns.</param>
    public static string Where(string condition) =>
        string.Join(
            " union all ",
            ItemTypes.Ads.Select(type =>
                $"""
                    select {(int)
                        type.Kind}::smallint as kind, id, account_id, ad_group_id, state, review, removed, labels, headlines, descriptions,
                      {Column(type, "displayPath", "'{}'::text[]")} as display_path, landing_page, {Column(
                        type,
                        "phonePage",
                        "null::text"
                    )} as phone_page,
                      {Column(type, "keptApart", "null::text")} as kept_apart, {Column(
                        type,
                        "businessName",
                        "null::text"
                    )} as business_name,
                      {Column(type, "callNumber", "null::text")} as call_number, {Column(
                        type,
                        "hours",
                        "null::text"
                    )} as hours,
                      {DeviceOf(type)} as device_preference
                    from {type.Table} where {condition}
                    """
            )
        );

    private static string Column(AdType type, string field, string otherwise) => type.Find(field)?.Column ?? otherwise;

    private static string DeviceOf(AdType type) =>
        type.OnlyDevice is { } only
            ? ((int)only).ToString(CultureInfo.InvariantCulture) + "::smallint"
            : Column(type, "devicePreference", "null::smallint");
}
