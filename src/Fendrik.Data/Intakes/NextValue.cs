using Fendrik.Core.Intake;

namespace Fendrik.Data.Intakes;

/// <summary>
/// What a field of an item becomes by a row: what the row says, nothing where it clears, else what it was. The same text
/// judges and keeps, so that the two cannot differ.
/// </summary>
internal static class NextValue
{
    public static string OfAdGroup(string row, string item) =>
        $"{Optional(row, item, "max_cpc", ClearedValues.MaxCpc)}, {Said(row, item, "state")}, {Labels(row, item)}";

    public const string AdGroupColumns = "max_cpc, state, labels";

    public static string OfCampaign(string row, string item) =>
        $"""
            {Optional(row, item, "daily_budget", ClearedValues.DailyBudget)}, {Optional(
                row,
                item,
                "start_date",
                ClearedValues.StartDate
            )},
            {Optional(row, item, "end_date", ClearedValues.EndDate)}, {Said(row, item, "networks")}, {Said(
                row,
                item,
                "state"
            )}, {Labels(row, item)}
            """;

    public const string CampaignColumns = "daily_budget, start_date, end_date, networks, state, labels";

    public static string OfKeyword(string row, string item) =>
        $"""
            {Optional(row, item, "max_cpc", ClearedValues.MaxCpc)}, {Said(row, item, "state")},
            {Optional(row, item, "final_url", ClearedValues.FinalUrl)}, {Labels(row, item)}
            """;

    public const string KeywordColumns = "max_cpc, state, final_url, labels";

    public static string OfAd(string row, string item) => $"{Said(row, item, "state")}, {Labels(row, item)}";

    public const string AdColumns = "state, labels";

    /// <summary>Labels as staged, in the form in which they are kept.</summary>
    public static string Labels(string row) => $"coalesce(string_to_array({row}.labels, ';'), '{{}}')";

    public static string Labels(string row, string item) =>
        $"case when {row}.labels is not null then string_to_array({row}.labels, ';') when {Clears(row, ClearedValues.Labels)} then '{{}}' else {item}.labels end";

    /// <summary>The named columns of an item, for comparison with what they become.</summary>
    public static string Columns(string item, string columns) =>
        string.Join(", ", columns.Split(", ").Select(column => $"{item}.{column}"));

    private static string Said(string row, string item, string column) => $"coalesce({row}.{column}, {item}.{column})";

    private static string Optional(string row, string item, string column, ClearedValues value) =>
        $"case when {row}.{column} is null and {Clears(row, value)} then null else coalesce({row}.{column}, {item}.{column}) end";

    private static string Clears(string row, ClearedValues value) => $"{row}.cleared & {(int)value} <> 0";
}
