using System.Text.Json.Serialization;
using Fendrik.Core.Accounts;
using Fendrik.Core.AdText;
using Fendrik.Core.AdText.Combining;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Items;

/// <summary>How much lines of a responsive ad are worth to whoever puts them together.</summary>
/// <param name="Headline">Worth of a headline, by its number from 0.</param>
/// <param name="Description">Worth of a description.</param>
public sealed record LineWorth(Func<int, double> Headline, Func<int, double> Description)
{
    /// <summary>Nothing is known of any: those written first go first.</summary>
    public static LineWorth Unknown { get; } = new(static _ => 0, static _ => 0);
}

/// <summary>An ad of any kind, as it is served.</summary>
/// <param name="Id">Identity; no two ads of an account have the same, whatever kinds they are of.</param>
/// <param name="AdGroupId">The ad group it belongs to.</param>
/// <param name="State">Running or paused.</param>
/// <param name="Headlines">Headlines as they are written.</param>
/// <param name="Descriptions">Descriptions as they are written.</param>
/// <param name="LandingPage">The landing page.</param>
public abstract record Ad(
    long Id,
    long AdGroupId,
    ItemState State,
    IReadOnlyList<string> Headlines,
    IReadOnlyList<string> Descriptions,
    string? LandingPage
)
{
    /// <summary>Its kind.</summary>
    [JsonIgnore]
    public abstract ItemKind Kind { get; }

    /// <summary>The only device that it shows on, where ads for all give way to it; none for all.</summary>
    [JsonIgnore]
    public abstract Device? OnlyOn { get; }

    /// <summary>The number that a tap calls; none for an ad that leads to a page.</summary>
    [JsonIgnore]
    public virtual string? Calls => null;

    /// <summary>Parts that are shown behind the domain, as they are written.</summary>
    [JsonIgnore]
    public virtual IReadOnlyList<string> ShownPath => [];

    /// <summary>All that it can say, as it is written.</summary>
    [JsonIgnore]
    public virtual IEnumerable<string> Texts => Headlines.Concat(Descriptions);

    /// <summary>True where it may show: an ad for one device shows on no other.</summary>
    public bool ShowsOn(Device device) => OnlyOn is null || OnlyOn == device;

    /// <summary>True when it may show at a time of the week.</summary>
    /// <param name="day">The day.</param>
    /// <param name="minute">Minutes after midnight on the account's clock; none when no time in particular is meant.</param>
    public virtual bool ShowsAt(DayOfWeek day, int? minute) => true;

    /// <summary>Where it leads on a device.</summary>
    public virtual string? PageOn(Device device) => LandingPage;

    /// <summary>Which of its lines show.</summary>
    /// <param name="rules">The network's.</param>
    /// <param name="device">The device.</param>
    /// <param name="worth">How much lines are worth.</param>
    public virtual AdCombination Choose(ResponsiveRules rules, Device device, LineWorth worth) =>
        new([.. Enumerable.Range(0, Headlines.Count)], [.. Enumerable.Range(0, Descriptions.Count)]);

    /// <summary>A line without the place that it is kept to.</summary>
    public virtual string TextOf(string line) => line;
}

/// <summary>One fixed text ad.</summary>
/// <param name="Id">Identity.</param>
/// <param name="AdGroupId">The ad group it belongs to.</param>
/// <param name="State">Running or paused.</param>
/// <param name="Headlines">Headlines in their fixed order.</param>
/// <param name="Descriptions">Descriptions in their fixed order.</param>
/// <param name="DisplayPath">Up to two parts shown after the domain.</param>
/// <param name="LandingPage">The landing page.</param>
/// <param name="DevicePreference">The only device that it shows on, where ads for all give way to it; none for all.</param>
/// <param name="PhonePage">The landing page on phones, where that is another.</param>
public sealed record TextAd(
    long Id,
    long AdGroupId,
    ItemState State,
    IReadOnlyList<string> Headlines,
    IReadOnlyList<string> Descriptions,
    IReadOnlyList<string> DisplayPath,
    string? LandingPage,
    Device? DevicePreference,
    string? PhonePage = null
) : Ad(Id, AdGroupId, State, Headlines, Descriptions, LandingPage)
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.TextAd;

    /// <inheritdoc/>
    public override Device? OnlyOn => DevicePreference;

    /// <inheritdoc/>
    public override IReadOnlyList<string> ShownPath => DisplayPath;

    /// <inheritdoc/>
    public override string? PageOn(Device device) => device == Device.Phone ? PhonePage ?? LandingPage : LandingPage;
}

/// <summary>One responsive ad.</summary>
/// <param name="Id">Identity.</param>
/// <param name="AdGroupId">The ad group it belongs to.</param>
/// <param name="State">Running or paused.</param>
/// <param name="Headlines">Headlines, those that are kept to a place with it.</param>
/// <param name="Descriptions">Descriptions, likewise.</param>
/// <param name="DisplayPath">Up to two parts shown after the domain.</param>
/// <param name="LandingPage">The landing page.</param>
/// <param name="KeptApart">What never shows together.</param>
/// <param name="DevicePreference">The only device that it shows on, where ads for all give way to it; none for all.</param>
/// <param name="PhonePage">The landing page on phones, where that is another.</param>
public sealed record ResponsiveAd(
    long Id,
    long AdGroupId,
    ItemState State,
    IReadOnlyList<string> Headlines,
    IReadOnlyList<string> Descriptions,
    IReadOnlyList<string> DisplayPath,
    string? LandingPage,
    string? KeptApart,
    Device? DevicePreference,
    string? PhonePage = null
) : Ad(Id, AdGroupId, State, Headlines, Descriptions, LandingPage)
{
    private ResponsiveTexts? _lines;

    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.ResponsiveAd;

    /// <inheritdoc/>
    public override Device? OnlyOn => DevicePreference;

    /// <inheritdoc/>
    public override IReadOnlyList<string> ShownPath => DisplayPath;

    /// <inheritdoc/>
    public override IEnumerable<string> Texts => Headlines.Concat(Descriptions).Select(TextOf);

    /// <summary>Its lines, and which of them may stand together where.</summary>
    [JsonIgnore]
    public ResponsiveTexts Lines => _lines ??= new ResponsiveTexts(Headlines, Descriptions, KeptApart);

    /// <inheritdoc/>
    public override string? PageOn(Device device) => device == Device.Phone ? PhonePage ?? LandingPage : LandingPage;

    /// <inheritdoc/>
    public override AdCombination Choose(ResponsiveRules rules, Device device, LineWorth worth) =>
        Lines.Choose(rules.Headlines.On(device), rules.Descriptions.On(device), worth.Headline, worth.Description);

    /// <inheritdoc/>
    public override string TextOf(string line) => PlacedLine.Of(line).Text;
}

/// <summary>One call ad: every tap calls.</summary>
/// <param name="Id">Identity.</param>
/// <param name="AdGroupId">The ad group it belongs to.</param>
/// <param name="State">Running or paused.</param>
/// <param name="BusinessName">Who is called.</param>
/// <param name="CallNumber">The number by E.164.</param>
/// <param name="Headlines">Headlines in their fixed order.</param>
/// <param name="Descriptions">Descriptions in their fixed order.</param>
/// <param name="LandingPage">A page of the business, whose domain shows; none where there is none.</param>
/// <param name="Hours">Hours of the week in which it shows; none for always.</param>
/// <param name="Measured">Whether its calls go through a number of the network's.</param>
public sealed record CallAd(
    long Id,
    long AdGroupId,
    ItemState State,
    string? BusinessName,
    string? CallNumber,
    IReadOnlyList<string> Headlines,
    IReadOnlyList<string> Descriptions,
    string? LandingPage,
    WeekHours? Hours,
    YesNo Measured = YesNo.Yes
) : Ad(Id, AdGroupId, State, Headlines, Descriptions, LandingPage)
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.CallAd;

    /// <inheritdoc/>
    public override Device? OnlyOn => ItemTypes.Ads.First(type => type.Kind == Kind).OnlyDevice;

    /// <inheritdoc/>
    public override string? Calls => CallNumber;

    /// <inheritdoc/>
    public override IEnumerable<string> Texts => BusinessName is { } name ? base.Texts.Append(name) : base.Texts;

    /// <inheritdoc/>
    public override bool ShowsAt(DayOfWeek day, int? minute) =>
        Hours is null || minute is not { } at || Hours.Holds(day, at);
}
