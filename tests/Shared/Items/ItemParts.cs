using Fendrik.Core.Accounts;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Core.Networks;

namespace Fendrik.Tests.Shared;

/// <summary>Values of items by the names that tests use, so that a test reads as it is said.</summary>
public static class ItemParts
{
    extension(ListRow row)
    {
        public string Text => row.Values.Text("text");
        public MatchType? Match => (MatchType?)(short?)row.Values["match"];
        public decimal? MaxCpc => (decimal?)row.Values["maxCpc"];
        public decimal? DailyBudget => (decimal?)row.Values["dailyBudget"];
        public ItemState? State => (ItemState?)(short?)row.Values["state"];
        public string? LandingPage => (string?)row.Values["landingPage"];
        public IReadOnlyList<string> Headlines => row.Values.Lines("headlines");
        public IReadOnlyList<string> Descriptions => row.Values.Lines("descriptions");
        public IReadOnlyList<string> DisplayPath => row.Values.Lines("displayPath");
        public Device? DevicePreference => (Device?)(short?)row.Values["devicePreference"];
        public IReadOnlyList<string> Labels => row.Values.Lines("labels");
    }

    /// <summary>A row of a list that says these things of an item, as people would type them.</summary>
    public static ListRow Row(ItemKind kind, string campaign, string adGroup, params (string Field, string Text)[] said)
    {
        var row = new ListRow
        {
            RowNumber = 0,
            Kind = kind,
            Campaign = campaign,
            AdGroup = adGroup,
        };
        foreach (var (field, value) in Of(kind, said))
        {
            row.Values[field] = value;
        }

        return row;
    }

    /// <summary>An item that says these things, in pounds.</summary>
    public static ItemValues Item(ItemKind kind, params (string Field, string Text)[] said)
    {
        var values = new ItemValues(ItemTypes.Of(kind));
        foreach (var (field, value) in Of(kind, said))
        {
            values[field] = value;
        }

        return values.WithDefaults();
    }

    /// <summary>What is found of an item by itself.</summary>
    public static Finding[] Found(ItemValues item, NetworkProfile network, string currency = "GBP") =>
        [.. item.Type.Check(item, new CheckReport(item.Type.Kind, 1, network, Currency.Of(currency)))];

    private static IEnumerable<(Field Field, object? Value)> Of(ItemKind kind, (string Field, string Text)[] said)
    {
        foreach (var (name, text) in said)
        {
            var field = ItemTypes.Of(kind)[name];
            var reading = field.Read(text, ReadingGround.Plain(Currency.Of("GBP")));
            yield return (
                field,
                reading.Problem is null ? reading.Value : throw new ArgumentException(reading.Problem)
            );
        }
    }
}
