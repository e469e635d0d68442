using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Items;

/// <summary>Fields that several kinds have. Each kind gets one of its own.</summary>
internal static class CommonFields
{
    private static readonly string[] MaxCpcHeaders =
    [
        "max cpc",
        "bid",
        "max bid",
        "cpc",
        "keyword bid",
        "keyword max cpc",
        "price per click",
        "gebot",
    ];

    public static Field Name(string meaning, string example, params string[] headers) =>
        new()
        {
            Name = "name",
            Label = "Name",
            Meaning = meaning,
            Example = example,
            Column = "name",
            Headers = headers,
            KeyColumn = "name_key",
            Type = new TextValue(TextValue.LongestName),
            IsIdentity = true,
            IsNeeded = true,
            MissingAdvice = "Give it a name.",
        };

    public static Field State(Arrival arrival = Arrival.Default) =>
        new()
        {
            Name = "state",
            Label = "State",
            Meaning = "running or paused. Empty: running if it is new.",
            Example = "running",
            Column = "state",
            Headers = ["state", "status", "on off"],
            Type = new ChoiceValue(Choices.State),
            Default = (short)ItemState.Running,
            Arrival = arrival,
            IsUsual = true,
            IsReviewed = false,
            Width = 56,
        };

    /// <param name="inheritedFrom">Whose holds where it is empty; none for nobody's.</param>
    /// <param name="ofPlacement">True for a bid that comes before the keyword's: it holds for itself alone.</param>
    public static Field MaxCpc(ItemKind? inheritedFrom, bool ofPlacement = false) =>
        new()
        {
            Name = "maxCpc",
            Label = "Max CPC",
            Meaning = ofPlacement
                ? "Of the placement alone. Empty: that of the keyword or ad group."
                : "Of the keyword, or of the ad group in a row that is one. Empty: the ad group's.",
            Example = "1.35",
            Column = "max_cpc",
            Headers = MaxCpcHeaders,
            Type = new AmountValue(),
            IsClearable = true,
            InheritedFrom = inheritedFrom,
            IsSaidInside = inheritedFrom is null && !ofPlacement,
            HeadersInside =
                inheritedFrom is null && !ofPlacement
                    ? ["ad group max cpc", "default max cpc", "default bid", "ad group bid"]
                    : [],
            IsUsual = true,
            IsReviewed = false,
            Width = 70,
        };

    /// <param name="device">The device.</param>
    /// <param name="inheritedFrom">Whose holds where it is empty; none for nobody's.</param>
    public static Field DeviceModifier(Device device, ItemKind? inheritedFrom)
    {
        var name = Choices.NameOf(Choices.Device, (int)device);
        return new Field
        {
            Name = $"{name}Modifier",
            Label = $"{char.ToUpperInvariant(name[0])}{name[1..]} modifier",
            Meaning = inheritedFrom is null
                ? $"Per cent more or less on a {name}; −100% means never there."
                : $"Per cent more or less on a {name}; −100% means never there. Empty: the campaign's.",
            Example = "-20%",
            Column = $"{name}_modifier",
            Headers = [$"{name} modifier", $"{name} bid modifier", $"{name} bid adjustment"],
            Type = new PercentValue(),
            IsClearable = true,
            InheritedFrom = inheritedFrom,
            IsReviewed = false,
            Width = 96,
        };
    }

    public static Field Words(string listName, string label, string meaning, string example, params string[] headers) =>
        new()
        {
            Name = "text",
            ListName = listName,
            TellsKind = true,
            Label = label,
            Meaning = meaning,
            Example = example,
            Column = "text",
            KeyColumn = "text_key",
            Headers = headers,
            Type = new WordsValue(),
            IsIdentity = true,
            IsNeeded = true,
            MissingAdvice = "Write the words.",
        };

    public static Field Match() =>
        new()
        {
            Name = WordsValue.MatchField,
            ListName = "matchType",
            FileName = "matchType",
            Label = "Match type",
            Meaning = "exact, phrase, all words or broad.",
            Example = "phrase",
            Column = "match_type",
            Headers = ["match type", "match", "matching", "type", "typ", "keyword type"],
            Type = new ChoiceValue(Choices.Match),
            IsIdentity = true,
            IsUsual = true,
            Width = 82,
        };

    public static Field OnlyDevice(string meaning, bool identity = false, bool usual = false) =>
        new()
        {
            Name = "devicePreference",
            Label = "Device preference",
            Meaning = meaning,
            Example = "phone",
            Column = "device_preference",
            Headers = ["device", "device preference", "preferred device"],
            Type = new ChoiceValue(Choices.Device, "all", "any"),
            IsIdentity = identity,
            IsClearable = true,
            IsUsual = usual,
            Width = 74,
        };

    public static Field Measured(bool usual) =>
        new()
        {
            Name = "measured",
            Label = "Measured",
            Meaning = "yes: calls go through a number of the network's and are counted; no: the number itself shows.",
            Example = "yes",
            Column = "measured",
            Headers = ["measured", "calls measured", "call tracking"],
            Type = new ChoiceValue(Choices.YesNo),
            Default = (short)YesNo.Yes,
            IsUsual = usual,
            Width = 80,
        };

    public static Field LandingPage(bool needed, bool identity = false) =>
        new()
        {
            Name = "landingPage",
            Label = "Landing page",
            Meaning = "Address of the page that the ad or the keyword leads to.",
            Example = "https://tarnandfell.example/tuning",
            Column = "landing_page",
            FormerNames = ["finalUrl"],
            Headers = ["landing page", "final url", "url", "page", "link", "address"],
            Type = new AddressValue(),
            IsClearable = true,
            IsNeeded = needed,
            IsIdentity = identity,
            MissingAdvice = "An ad needs a page to lead to. Enter its address.",
            Width = 200,
        };

    public static Field TrackingTemplate(ItemKind? inheritedFrom) =>
        new()
        {
            Name = "trackingTemplate",
            Label = "Tracking template",
            Meaning =
                "What a click’s address is made by, as a URI template: {+page} is the landing page. Empty: that of what it stands in.",
            Example = "{+page}?utm_source=ostrel{&device,match,keyword}",
            Column = "tracking_template",
            Headers = ["tracking template", "tracking url", "tracking", "redirect"],
            Type = new TrackingTemplateValue(),
            IsClearable = true,
            InheritedFrom = inheritedFrom,
            IsReviewed = false,
            Width = 200,
        };

    public static Field Labels() =>
        new()
        {
            Name = "labels",
            Label = "Labels",
            Meaning = "Your own words for the item, with semicolons between. The network never sees them.",
            Example = "spring; test",
            Column = "labels",
            Headers = ["labels", "label"],
            Type = new LabelsValue(),
            IsPublished = false,
            IsClearable = true,
            IsReviewed = false,
            Width = 130,
        };
}
