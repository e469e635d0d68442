namespace Fendrik.Core.Tracking;

/// <summary>Something that a tracking template can say of a click.</summary>
/// <param name="Name">As the template writes it.</param>
/// <param name="Meaning">What it says, in a sentence.</param>
/// <param name="Example">An example.</param>
public sealed record TrackingVariable(string Name, string Meaning, string Example)
{
    /// <summary>The landing page: every template has it, or the click leads nowhere.</summary>
    public const string Page = "page";

    /// <summary>All that there are.</summary>
    public static IReadOnlyList<TrackingVariable> All { get; } =
    [
        new(
            Page,
            "Address of the landing page. {+page} at the beginning, {page} where it is handed to a redirect.",
            "https://tarnandfell.example/tuning"
        ),
        new("campaign", "Name of the campaign.", "Tuning · North · search"),
        new("campaign_id", "Number of the campaign.", "5"),
        new("ad_group", "Name of the ad group.", "Piano tuner"),
        new("ad_group_id", "Number of the ad group.", "2"),
        new("keyword", "The keyword that answered, without match notation.", "piano tuner york"),
        new("keyword_id", "Number of the keyword.", "31"),
        new("match", "Its match type: exact, phrase, all words or broad.", "exact"),
        new("ad_id", "Number of the ad.", "14"),
        new("device", "desktop, phone or tablet.", "phone"),
        new("network", "The search network.", "ostrel"),
        new("site", "Kind of site: search, partners or content.", "search"),
        new("place", "Place of the ad on the page, 1 at the top.", "2"),
        new("click_id", "Number of this very click, by which a sale is told to the network later.", "3f9a0c52d1"),
    ];

    /// <summary>The variable of this name; none when there is none.</summary>
    public static TrackingVariable? Of(string name) =>
        All.FirstOrDefault(each => string.Equals(each.Name, name, StringComparison.Ordinal));
}

/// <summary>What is known of a click when its address is made.</summary>
/// <param name="LandingPage">The landing page.</param>
/// <param name="Campaign">The campaign.</param>
/// <param name="AdGroup">The ad group.</param>
/// <param name="Keyword">The keyword.</param>
/// <param name="AdId">The ad.</param>
/// <param name="Device">The device.</param>
/// <param name="Network">Short name of the network.</param>
/// <param name="Site">Kind of site.</param>
/// <param name="Place">Place on the page; none where it is not known.</param>
/// <param name="ClickId">The click; none where nobody has clicked.</param>
public sealed record TrackedClick(
    string LandingPage,
    Campaign Campaign,
    AdGroup AdGroup,
    Keyword Keyword,
    long AdId,
    Device Device,
    string Network,
    SiteKinds Site,
    int? Place,
    string? ClickId
)
{
    /// <summary>The value of a variable; none where it is not known, or there is no such variable.</summary>
    public string? this[string variable] =>
        variable switch
        {
            TrackingVariable.Page => LandingPage,
            "campaign" => Campaign.Name,
            "campaign_id" => Text(Campaign.Id),
            "ad_group" => AdGroup.Name,
            "ad_group_id" => Text(AdGroup.Id),
            "keyword" => Keyword.Text,
            "keyword_id" => Text(Keyword.Id),
            "match" => Items.Values.Choices.NameOf(Keyword.Match),
            "ad_id" => Text(AdId),
            "device" => Items.Values.Choices.NameOf(Items.Values.Choices.Device, (int)Device),
            "network" => Network,
            "site" => Items.Values.Choices.NameOf(Items.Values.Choices.Sites, (int)Site),
            "place" => Place is { } place ? Text(place) : null,
            "click_id" => ClickId,
            _ => null,
        };

    private static string Text(long number) => number.ToString(System.Globalization.CultureInfo.InvariantCulture);
}
