namespace Fendrik.Core.Items.Values;

/// <summary>One thing to choose.</summary>
/// <param name="Number">As it is kept.</param>
/// <param name="Key">As it travels to the interface, for example <c>allWords</c>.</param>
/// <param name="Name">In words, for example <c>all words</c>; as files have it.</param>
/// <param name="OtherWords">What else people write for it.</param>
public sealed record Choice(short Number, string Key, string Name, IReadOnlyList<string> OtherWords)
{
    /// <summary>What choosing it is called when that has a word of its own: Pause.</summary>
    public string? Verb { get; init; }
}

/// <summary>What there is to choose from, each list once.</summary>
public static class Choices
{
    /// <summary>Match types.</summary>
    public static IReadOnlyList<Choice> Match { get; } =
        Of<MatchType>(match =>
            match switch
            {
                MatchType.Exact => ("exact", ["e"]),
                MatchType.Phrase => ("phrase", ["p"]),
                MatchType.AllWords => ("all words", ["all", "w"]),
                MatchType.Broad => ("broad", ["b"]),
            }
        );

    /// <summary>How near words are to one another.</summary>
    public static IReadOnlyList<Choice> Nearness { get; } =
        Of<Nearness>(nearness =>
            nearness switch
            {
                Items.Nearness.Synonym => ("synonym", ["same"]),
                Items.Nearness.Close => ("close", ["related"]),
                Items.Nearness.Loose => ("loose", ["weak"]),
                Items.Nearness.Misspelling => ("misspelling", ["slip", "typo"]),
            }
        );

    /// <summary>How ads take turns.</summary>
    public static IReadOnlyList<Choice> Rotation { get; } =
        Of<AdRotation>(rotation =>
            rotation switch
            {
                AdRotation.Even => ("even", ["evenly", "equal"]),
                AdRotation.BySuccess => ("by success", ["success", "best", "optimise"]),
            }
        );

    /// <summary>How a daily budget is spent.</summary>
    public static IReadOnlyList<Choice> Delivery { get; } =
        Of<BudgetDelivery>(delivery =>
            delivery switch
            {
                BudgetDelivery.Spread => ("spread", ["evenly", "standard", "spread over the day"]),
                BudgetDelivery.Fast => ("fast", ["accelerated", "as fast as possible", "quickly"]),
            }
        );

    /// <summary>Who sets the bids.</summary>
    public static IReadOnlyList<Choice> Strategy { get; } =
        Of<BidStrategy>(strategy =>
            strategy switch
            {
                BidStrategy.ManualCpc => ("manual CPC", ["manual", "cpc", "manual bidding"]),
                BidStrategy.NudgedCpc => ("nudged manual CPC", ["nudged", "nudged cpc", "manual cpc nudged"]),
                BidStrategy.MaximiseClicks => ("maximise clicks", ["clicks", "maximize clicks", "most clicks"]),
                BidStrategy.MaximiseConversions => (
                    "maximise conversions",
                    ["conversions", "maximize conversions", "most conversions"]
                ),
                BidStrategy.TargetCpa => ("target CPA", ["cpa", "tcpa", "target cost per conversion"]),
                BidStrategy.MaximiseValue => ("maximise value", ["value", "maximize value", "most value"]),
                BidStrategy.TargetRoas => ("target ROAS", ["roas", "troas", "target return on spend"]),
            }
        );

    /// <summary>Whom places reach.</summary>
    public static IReadOnlyList<Choice> Reach { get; } =
        Of<PlaceReach>(reach =>
            reach switch
            {
                PlaceReach.Present => ("in the places", ["in", "present", "presence", "people in"]),
                PlaceReach.PresentOrInterested => (
                    "in or interested",
                    ["interested", "interest", "presence or interest", "people in or interested"]
                ),
            }
        );

    /// <summary>What campaigns are for.</summary>
    public static IReadOnlyList<Choice> Objective { get; } =
        Of<Objective>(objective =>
            objective switch
            {
                Items.Objective.Leads => ("leads", ["lead", "enquiries"]),
                Items.Objective.Calls => ("calls", ["call", "phone calls"]),
                Items.Objective.Sales => ("sales", ["sale", "sales by value", "value"]),
                Items.Objective.Visits => ("visits", ["visit", "traffic"]),
            }
        );

    /// <summary>Running or paused.</summary>
    public static IReadOnlyList<Choice> State { get; } =
    [
        .. Of<ItemState>(state =>
                state switch
                {
                    ItemState.Running => ("running", ["on", "active", "yes", "1", "run"]),
                    ItemState.Paused => ("paused", ["off", "no", "0", "pause"]),
                }
            )
            .Select(choice => choice with { Verb = choice.Number == (short)ItemState.Running ? "Run" : "Pause" }),
    ];

    /// <summary>Devices.</summary>
    public static IReadOnlyList<Choice> Device { get; } =
        Of<Device>(device =>
            device switch
            {
                Items.Device.Desktop => ("desktop", ["computer"]),
                Items.Device.Phone => ("phone", ["mobile", "phones"]),
                Items.Device.Tablet => ("tablet", ["tablets"]),
            }
        );

    /// <summary>What tapping on a number leads to.</summary>
    public static IReadOnlyList<Choice> NumberShows { get; } =
        Of<NumberShows>(shows =>
            shows switch
            {
                Items.NumberShows.WithSite => ("with the site", ["site", "both"]),
                Items.NumberShows.NumberOnly => ("number only", ["number", "call only"]),
            }
        );

    /// <summary>In or out.</summary>
    public static IReadOnlyList<Choice> Side { get; } =
        Of<PlacementSide>(side =>
            side switch
            {
                PlacementSide.In => ("in", ["include", "included"]),
                PlacementSide.Out => ("out", ["exclude", "excluded", "negative"]),
            }
        );

    /// <summary>What an audience is for.</summary>
    public static IReadOnlyList<Choice> AudienceUse { get; } =
        Of<AudienceUse>(use =>
            use switch
            {
                Items.AudienceUse.Only => ("only", ["restrict", "restricted", "target"]),
                Items.AudienceUse.Observed => ("observed", ["observe", "observation"]),
            }
        );

    /// <summary>What can be counted.</summary>
    public static IReadOnlyList<Choice> ConversionSource { get; } =
        Of<ConversionSource>(source =>
            source switch
            {
                Items.ConversionSource.Form => ("form", ["form sent", "lead"]),
                Items.ConversionSource.Sale => ("sale", ["purchase", "order"]),
                Items.ConversionSource.Booking => ("booking", ["appointment"]),
                Items.ConversionSource.CallFromAd => ("call from an ad", ["ad call"]),
                Items.ConversionSource.CallFromSite => ("call from the site", ["site call"]),
                Items.ConversionSource.PageReached => ("page reached", ["page", "page view"]),
            }
        );

    /// <summary>How the network comes to know of it.</summary>
    public static IReadOnlyList<Choice> ConversionHearing { get; } =
        Of<ConversionHearing>(hearing =>
            hearing switch
            {
                Items.ConversionHearing.Tag => ("tag", ["page tag"]),
                Items.ConversionHearing.CarriedId => ("id carried over", ["carried", "carried over"]),
                Items.ConversionHearing.SentBack => ("sent back", ["confirmation", "confirmations"]),
            }
        );

    /// <summary>How often something counts.</summary>
    public static IReadOnlyList<Choice> ConversionCounting { get; } =
        Of<ConversionCounting>(counting =>
            counting switch
            {
                Items.ConversionCounting.OneForClick => ("one for a click", ["one", "once"]),
                Items.ConversionCounting.Each => ("each", ["every", "all"]),
            }
        );

    /// <summary>What a conversion is worth.</summary>
    public static IReadOnlyList<Choice> ConversionWorth { get; } =
        Of<ConversionWorth>(worth =>
            worth switch
            {
                Items.ConversionWorth.Fixed => ("fixed", ["same"]),
                Items.ConversionWorth.Sent => ("sent with it", ["sent", "order value"]),
                Items.ConversionWorth.ByHand => ("by hand", ["own books"]),
            }
        );

    /// <summary>Yes or no.</summary>
    public static IReadOnlyList<Choice> YesNo { get; } =
        Of<YesNo>(answer =>
            answer switch
            {
                Items.YesNo.Yes => ("yes", ["y", "true", "1", "on"]),
                Items.YesNo.No => ("no", ["n", "false", "0", "off"]),
            }
        );

    /// <summary>Where ads may show; several at once.</summary>
    public static IReadOnlyList<Choice> Sites { get; } =
        Of<SiteKinds>(site =>
            site switch
            {
                SiteKinds.None => null,
                SiteKinds.Search => ("search", ["search network"]),
                SiteKinds.Partners => ("partners", ["partner sites", "search partners"]),
                SiteKinds.Content => ("content", ["content sites"]),
            }
        );

    /// <summary>The name of a choice.</summary>
    public static string NameOf(IReadOnlyList<Choice> choices, int number) =>
        choices.First(choice => choice.Number == number).Name;

    /// <summary>The name of a match type.</summary>
    public static string NameOf(MatchType match) => NameOf(Match, (int)match);

    private static Choice[] Of<T>(Func<T, (string Name, string[] OtherWords)?> name)
        where T : struct, Enum =>
        [
            .. Enum.GetValues<T>()
                .Select(value => (Value: value, Words: name(value)))
                .Where(pair => pair.Words is not null)
                .Select(pair =>
                {
                    var key = pair.Value.ToString();
                    return new Choice(
                        Convert.ToInt16(pair.Value),
                        char.ToLowerInvariant(key[0]) + key[1..],
                        pair.Words!.Value.Name,
                        pair.Words.Value.OtherWords
                    );
                }),
        ];
}
