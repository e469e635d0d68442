using System.Globalization;
using Fendrik.Core.Bidding;
using Fendrik.Data.Commands;
using Fendrik.Data.Commands.Words;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;

namespace Fendrik.Tests.Shared;

/// <summary>Commands as people mean them, put together from the few general ones.</summary>
public static class Change
{
    private static Dictionary<string, FieldInput> Said(params (string Field, FieldInput Value)[] said) =>
        said.ToDictionary(each => each.Field, each => each.Value);

    private static string? Text(decimal? amount) => amount?.ToString(CultureInfo.InvariantCulture);

    public static SetFields Set(ItemSet items, string field, string text) => new(items, Said((field, text)));

    public static SetFields State(ItemSet items, ItemState state) => Set(items, "state", state.ToString());

    public static SetFields Match(ItemSet items, MatchType match) => Set(items, "match", match.ToString());

    public static SetFields Amount(
        ItemSet items,
        string field,
        AmountOperation operation,
        decimal value,
        decimal? roundTo = null,
        decimal? atLeast = null,
        decimal? atMost = null
    )
    {
        var sign = value < 0 ? "" : "+";
        var text = operation switch
        {
            AmountOperation.Set => Text(value)!,
            AmountOperation.AddAmount => sign + Text(value),
            AmountOperation.AddPercent => $"{sign}{Text(value)}%",
            AmountOperation.Inherit => "",
        };
        return new SetFields(items, Said((field, text)), new AmountBounds(Text(roundTo), Text(atLeast), Text(atMost)));
    }

    public static SetCells Cell(ItemReference item, string field, string text) => new([new(item, field, text)]);

    public static PutItem Campaign(string name, decimal? budget) =>
        new(ItemKind.Campaign, Said(("name", name), ("dailyBudget", Text(budget))), new ItemPlaces());

    public static PutItem AdGroup(long campaign, string name, decimal? maxCpc) =>
        new(ItemKind.AdGroup, Said(("name", name), ("maxCpc", Text(maxCpc))), new ItemPlaces([campaign]));

    public static AddWords Keywords(long adGroup, string lines, MatchType match, decimal? maxCpc = null) =>
        new(
            ItemKind.Keyword,
            lines,
            match,
            new ItemPlaces(AdGroupIds: [adGroup]),
            Values: Said(("maxCpc", Text(maxCpc)))
        );

    public static AddWords Negatives(ItemPlaces places, string lines, MatchType match, bool matchForAll = false) =>
        new(ItemKind.NegativeKeyword, lines, match, places, matchForAll);

    public static PutItem Ad(
        long adGroup,
        long? ad,
        string[] headlines,
        string[] descriptions,
        string[] path,
        string page,
        string device = ""
    ) =>
        new(
            ItemKind.TextAd,
            Said(
                ("headlines", headlines),
                ("descriptions", descriptions),
                ("displayPath", path),
                ("landingPage", page),
                ("devicePreference", device)
            ),
            new ItemPlaces(AdGroupIds: [adGroup]),
            ad
        );
}

/// <summary>Values of rows of the sheet by the names that tests use.</summary>
public static class RowParts
{
    extension(SheetRow row)
    {
        public MatchType? Match => Chosen<MatchType>(row, "match");
        public ItemState? State => Chosen<ItemState>(row, "state");
        public decimal? MaxCpc => (decimal?)row.Values.GetValueOrDefault("maxCpc");
        public decimal? InheritedMaxCpc => (decimal?)row.Inherited.GetValueOrDefault("maxCpc");
        public decimal? DailyBudget => (decimal?)row.Values.GetValueOrDefault("dailyBudget");
        public DateOnly? StartDate => Day(row, "startDate");
        public DateOnly? EndDate => Day(row, "endDate");
        public string[] Networks => (string[])row.Values["networks"];
        public string? LandingPage => (string?)row.Values.GetValueOrDefault("landingPage");
        public string[] Headlines => (string[])row.Values["headlines"];
        public string[] Descriptions => (string[])row.Values["descriptions"];
        public string[] DisplayPath => (string[])row.Values["displayPath"];
        public Device? DevicePreference => Chosen<Device>(row, "devicePreference");
        public string[] Labels => (string[])row.Values["labels"];
        public long[] CampaignIds => (long[])row.Values["campaignIds"];
        public long? Clicks => row.Figures?.Clicks;
        public long? Impressions => row.Figures?.Impressions;
        public decimal? Cost => row.Figures?.Cost;
        public decimal? Conversions => row.Figures?.Conversions;
    }

    /// <summary>As Shouldly's own, which cannot read the values above.</summary>
    public static void ShouldAllHold(this IEnumerable<SheetRow> rows, Func<SheetRow, bool> holds) =>
        rows.Where(row => !holds(row)).Select(row => row.Name).ShouldBeEmpty();

    private static T? Chosen<T>(SheetRow row, string field)
        where T : struct, Enum =>
        row.Values.GetValueOrDefault(field) is string key ? Enum.Parse<T>(key, ignoreCase: true) : null;

    private static DateOnly? Day(SheetRow row, string field) =>
        row.Values.GetValueOrDefault(field) is string day ? DateOnly.Parse(day, CultureInfo.InvariantCulture) : null;
}
