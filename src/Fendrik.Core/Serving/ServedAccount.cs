using System.Collections.Concurrent;
using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Evidence;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Budgets;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Serving;

/// <summary>
/// An account as it answers searches: which keywords match, what keeps each from answering, and which of the rest answers. The
/// network and whoever explains it go by the same.
/// </summary>
/// <param name="network">The network.</param>
/// <param name="currency">The account's currency.</param>
/// <param name="hasPayer">False when nobody pays it: then nothing serves.</param>
/// <param name="keywords">Finds its keywords.</param>
/// <param name="negatives">The negatives, filed by theirs.</param>
/// <param name="trackingTemplate">What the addresses of its clicks are made by where nothing nearer says so.</param>
/// <param name="targeting">Where on content sites its ads show, and to whom; none for everywhere and everybody.</param>
/// <param name="places">Where its campaigns show; none for everywhere.</param>
public sealed class ServedAccount(
    NetworkProfile network,
    Currency currency,
    bool hasPayer,
    IKeywordFinder keywords,
    KeywordIndex<PlacedNegative> negatives,
    string? trackingTemplate = null,
    Targeting? targeting = null,
    PlaceReaching? places = null
)
{
    private const int MostRemembered = 20_000;

    private readonly ConcurrentDictionary<string, Reading> _read = new(StringComparer.Ordinal);
    private int _remembered;

    /// <summary>The network.</summary>
    public NetworkProfile Network { get; } = network;

    /// <summary>The account's currency.</summary>
    public Currency Currency { get; } = currency;

    /// <summary>Where on content sites its ads show, and to whom.</summary>
    public Targeting Targeting { get; } = targeting ?? Targeting.None;

    /// <summary>Where its campaigns show.</summary>
    public PlaceReaching Places { get; } = places ?? PlaceReaching.None;

    /// <summary>The template that holds for the clicks of a keyword, and the kind of item that says it: the nearest wins.</summary>
    public (string? Template, ItemKind From) TemplateOf(ServedKeyword served) =>
        served.Keyword.TrackingTemplate is { } own ? (own, ItemKind.Keyword)
        : served.AdGroup.TrackingTemplate is { } ofGroup ? (ofGroup, ItemKind.AdGroup)
        : served.Campaign.TrackingTemplate is { } ofCampaign ? (ofCampaign, ItemKind.Campaign)
        : (trackingTemplate, ItemKind.Account);

    /// <summary>The keywords.</summary>
    public IKeywordFinder Keywords { get; } = keywords;

    /// <summary>Looks for what answers a search.</summary>
    /// <param name="search">The search.</param>
    /// <param name="budgetOf">Where a campaign is with its day's budget; without it nothing is spent yet.</param>
    /// <param name="adChoice">Which of several ads shows: from 0 up to but without 1.</param>
    /// <param name="qualityOf">Quality score of a keyword with an ad: 1 to 10.</param>
    /// <param name="worthOf">How well an ad did, where a campaign goes by success; none to go by chance everywhere.</param>
    /// <param name="strategyOf">What the strategy of a campaign goes by; none where that is not known.</param>
    public AnswerToSearch Answer(
        Search search,
        Func<Campaign, BudgetStanding>? budgetOf,
        double adChoice,
        Func<ServedKeyword, Ad, int> qualityOf,
        Func<Ad, double>? worthOf = null,
        Func<Campaign, StrategyNow?>? strategyOf = null
    )
    {
        var (words, matching, blocking) = Read(search.Text);
        var candidates = new Candidate[matching.Count];
        for (var at = 0; at < candidates.Length; at++)
        {
            candidates[at] = Consider(
                matching[at],
                search,
                words,
                blocking,
                budgetOf,
                (adChoice, worthOf),
                qualityOf,
                strategyOf
            );
        }

        if (!hasPayer)
        {
            return new AnswerToSearch(words, candidates, null, null, null, HasPayer: false);
        }

        if (Choose(candidates, candidate => candidate.Hindrance is null) is { } best)
        {
            return new AnswerToSearch(words, candidates, best.Candidate, best.Rule, null);
        }

        return new AnswerToSearch(
            words,
            candidates,
            null,
            null,
            Choose(candidates, candidate => candidate.Hindrance!.Kind == HindranceKind.BudgetSpent)?.Candidate
        );
    }

    /// <summary>What of an answer hangs on the words alone. Many people type the same: it is remembered for those that come again.</summary>
    private Reading Read(string text)
    {
        if (_read.TryGetValue(text, out var known))
        {
            return known;
        }

        // Its own count takes every lock that the dictionary has.
        if (Interlocked.Increment(ref _remembered) > MostRemembered)
        {
            _read.Clear();
            _remembered = 0;
        }

        var words = Keywords.Reach.WordsOf(text);
        FoundKeyword<ServedKeyword>[] matching = [.. Keywords.Find(words)];
        if (matching.Length > 1)
        {
            Array.Sort(matching, ByMatchThenAge);
        }

        var reading = new Reading(words, matching, negatives.Find(negatives.Reach.WordsOf(text)));
        _read[text] = reading;
        return reading;
    }

    private static readonly Comparison<FoundKeyword<ServedKeyword>> ByMatchThenAge = static (one, other) =>
        (one.Item.Keyword.Match, one.Item.Keyword.Id).CompareTo((other.Item.Keyword.Match, other.Item.Keyword.Id));

    private sealed record Reading(
        IReadOnlyList<string> Words,
        IReadOnlyList<FoundKeyword<ServedKeyword>> Matching,
        List<PlacedNegative> Blocking
    );

    private (Candidate Candidate, ChoiceRule Rule)? Choose(Candidate[] candidates, Func<Candidate, bool> among)
    {
        MatchingKeyword[] able = [.. candidates.Where(among).Select(candidate => candidate.ToChooseFrom(Currency))];
        if (able.Length == 0)
        {
            return null;
        }

        var (chosen, rule) = MatchingKeyword.Choose(able);
        return (candidates.First(candidate => candidate.Keyword.Keyword.Id == chosen.KeywordId), rule);
    }

    private Candidate Consider(
        FoundKeyword<ServedKeyword> found,
        Search search,
        IReadOnlyList<string> words,
        List<PlacedNegative> blocking,
        Func<Campaign, BudgetStanding>? budgetOf,
        (double Luck, Func<Ad, double>? Worth) choice,
        Func<ServedKeyword, Ad, int> qualityOf,
        Func<Campaign, StrategyNow?>? strategyOf
    )
    {
        var served = found.Item;
        var targeted = Targeting.Of(served, search);
        var (modifiers, never) = BidModifiers.Of(served, search);
        var place = Places.Of(served.Campaign, search);
        var bid = StrategyBid.Of(
            served.Campaign.Bidding,
            [
                (targeted.Bid?.Name ?? "", targeted.Bid?.MaxCpc),
                ("keyword", served.Keyword.MaxCpc),
                ("ad group", served.AdGroup.MaxCpc),
            ],
            place.Modifier is null && targeted.Modifiers.Count == 0
                ? modifiers
                :
                [
                    .. modifiers,
                    .. place.Modifier is { } there ? [there] : Array.Empty<(string, decimal)>(),
                    .. targeted.Modifiers,
                ],
            served.Campaign.Strategy == BidStrategy.ManualCpc ? null : strategyOf?.Invoke(served.Campaign),
            ClickAhead(served, search, words),
            Currency
        );
        var hindrance =
            OfCampaign(served.Campaign, search)
            ?? place.Hindrance
            ?? OfState(served)
            ?? OfNegatives(served, blocking)
            ?? targeted.Hindrance
            ?? never
            ?? OfWhatShows(served, search, bid)
            ?? OfBudget(served.Campaign, bid!, budgetOf);
        var ad = AdFor(
            served.Ads,
            search,
            choice.Luck,
            served.Campaign.Rotation == AdRotation.BySuccess ? choice.Worth : null
        );
        return new Candidate(
            served,
            found.Closeness,
            found.Strength,
            served.Words.SequenceEqual(words, StringComparer.Ordinal),
            hindrance,
            ad,
            bid,
            hindrance is null or { Kind: HindranceKind.BudgetSpent } ? qualityOf(served, ad!) : null
        );
    }

    internal static Hindrance? OfCampaign(Campaign campaign, Search search) =>
        campaign.State == ItemState.Paused
            ? Hindrance.OfCampaign(HindranceKind.CampaignPaused, campaign, "The campaign is paused.")
        : campaign.DailyBudget is null && campaign.TotalBudget is null
            ? Hindrance.OfCampaign(HindranceKind.NoBudget, campaign, "The campaign has no daily budget.")
        : campaign.StartDate > search.Day
            ? Hindrance.OfCampaign(
                HindranceKind.NotBegun,
                campaign,
                $"The campaign begins on {Hindrance.DayOf(campaign.StartDate.Value)}."
            )
        : campaign.EndDate < search.Day
            ? Hindrance.OfCampaign(
                HindranceKind.Ended,
                campaign,
                $"The campaign ended on {Hindrance.DayOf(campaign.EndDate.Value)}."
            )
        : OfReach(campaign, search);

    /// <summary>What keeps a campaign from a search by whom, where and when its settings let it show, whether it runs or not; none when nothing does.</summary>
    /// <remarks>Places are asked apart: they have modifiers as well (<see cref="Places"/>).</remarks>
    public static Hindrance? OfReach(Campaign campaign, Search search) =>
        !campaign.Networks.HasFlag(search.Site)
            ? Hindrance.OfCampaign(HindranceKind.SiteLeftOut, campaign, "The campaign does not show on such sites.")
        : search.Minute is { } minute && campaign.Hours is { } hours && hours.At(search.Day.DayOfWeek, minute) is null
            ? Hindrance.OfCampaign(
                HindranceKind.OutOfHours,
                campaign,
                $"The campaign does not show on {search.Day.DayOfWeek}s at {search.Clock:HH:mm}."
            )
        : search.Language is { } spoken
        && campaign.Languages is { } kept
        && !LanguagesValue.TagsOf(kept).Any(range => LanguageTag.Reaches(range, spoken))
            ? Hindrance.OfCampaign(
                HindranceKind.OtherLanguage,
                campaign,
                $"The person's language is {LanguageTag.Read(spoken)?.Name ?? spoken}, which is none of the campaign's."
            )
        : null;

    private Hindrance? OfBudget(Campaign campaign, BidStack bid, Func<Campaign, BudgetStanding>? budgetOf) =>
        budgetOf?.Invoke(campaign) is not { } budget ? null
        : budget.Left < bid.Bid
            ? Hindrance.OfCampaign(
                HindranceKind.BudgetSpent,
                campaign,
                $"{new Money(budget.Left, Currency)} is left of the day's budget, less than the bid of {new Money(bid.Bid, Currency)}."
            )
        : !budget.TakesPart
            ? Hindrance.OfCampaign(
                HindranceKind.BudgetSpent,
                campaign,
                $"To make its budget last, the campaign takes part in {budget.Rate.ToString("P0", CultureInfo.InvariantCulture)} of the searches of this hour, and not in this one."
            )
        : null;

    /// <summary>The click that a search may bring, as strategies look at it.</summary>
    /// <param name="served">The keyword that answers.</param>
    /// <param name="search">The search.</param>
    /// <param name="words">The search in the network's reading.</param>
    public static ClickAhead ClickAhead(ServedKeyword served, Search search, IReadOnlyList<string> words) =>
        served.Campaign.Strategy == BidStrategy.ManualCpc
            ? default
            : new ClickAhead(
                served.AdGroup.Id,
                served.Keyword.Id,
                string.Join(' ', words),
                search.Device,
                search.Minute is { } minute ? HourBlock.Of(search.Day.DayOfWeek, minute / 60).Number : null,
                search.Site,
                search.Place
            );

    private static Hindrance? OfNegatives(ServedKeyword served, List<PlacedNegative> blocking) =>
        blocking.Count == 0
            ? null
            : blocking
                .Where(placed => placed.Reaches(served.Campaign.Id, served.AdGroup.Id))
                .OrderBy(placed => placed.Negative.Id)
                .Select(Hindrance.OfNegative)
                .FirstOrDefault();

    private static Hindrance? OfState(ServedKeyword served) =>
        served.AdGroup.State == ItemState.Paused
            ? new Hindrance(HindranceKind.AdGroupPaused, ItemKind.AdGroup, served.AdGroup.Id, "The ad group is paused.")
        : served.Keyword.State == ItemState.Paused
            ? Hindrance.OfKeyword(HindranceKind.KeywordPaused, served.Keyword, "The keyword is paused.")
        : served.Review switch
        {
            ReviewState.None or ReviewState.Approved => null,
            ReviewState.Pending => Hindrance.OfKeyword(
                HindranceKind.KeywordInReview,
                served.Keyword,
                "The reviewers have not read the keyword yet."
            ),
            ReviewState.Refused => Hindrance.OfKeyword(
                HindranceKind.KeywordRefused,
                served.Keyword,
                "The reviewers refused the keyword. Word it in another way."
            ),
        };

    private Hindrance? OfWhatShows(ServedKeyword served, Search search, BidStack? bid) =>
        served.Ads.Count == 0
            ? new Hindrance(
                HindranceKind.NoAd,
                ItemKind.AdGroup,
                served.AdGroup.Id,
                "The ad group has no ad that runs and is approved."
            )
        : !served.Ads.Any(ad => ad.ShowsOn(search.Device))
            ? new Hindrance(
                HindranceKind.NoAdForDevice,
                ItemKind.AdGroup,
                served.AdGroup.Id,
                $"Its ads are for other devices only: none may show on a {Choices.NameOf(Choices.Device, (int)search.Device)}."
            )
        : !served.Ads.Any(ad => MayShow(ad, search))
            ? new Hindrance(
                HindranceKind.NoAdAtThisHour,
                ItemKind.AdGroup,
                served.AdGroup.Id,
                "The only ads that could show there are call ads, and it is not their hour."
            )
        : bid is null
            ? Hindrance.OfKeyword(
                HindranceKind.NoMaxCpc,
                served.Keyword,
                served.Campaign.Bidding.IsAutomatic
                    ? "The strategy has nothing to go by yet, and neither the keyword nor its ad group has a max CPC."
                    : "Neither the keyword nor its ad group has a max CPC."
            )
        : bid.Bid < Network.MinimumCpc(Currency)
            ? Hindrance.OfKeyword(
                HindranceKind.BelowLowest,
                served.Keyword,
                $"The bid is below the lowest of {Network.Name}."
            )
        : null;

    /// <summary>An ad for just this device, else one for all; ads that are for other devices or hours only never show.</summary>
    private static Ad? AdFor(IReadOnlyList<Ad> ads, Search search, double choice, Func<Ad, double>? worthOf)
    {
        if (ads.Count == 1)
        {
            return MayShow(ads[0], search) ? ads[0] : null;
        }

        IReadOnlyList<Ad> among = [.. ads.Where(ad => ad.OnlyOn == search.Device && MayShow(ad, search))];
        among = among.Count > 0 ? among : [.. ads.Where(ad => ad.OnlyOn is null && MayShow(ad, search))];
        return among.Count == 0 ? null
            : worthOf is not null ? among.MaxBy(worthOf)
            : among[(int)(choice * among.Count)];
    }

    private static bool MayShow(Ad ad, Search search) =>
        ad.ShowsOn(search.Device) && ad.ShowsAt(search.Day.DayOfWeek, search.Minute);
}
