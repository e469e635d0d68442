using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Budgets;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Serving;

/// <summary>A keyword with all that it stands in, and what the reviewers say.</summary>
/// <param name="Keyword">The keyword.</param>
/// <param name="AdGroup">Its ad group.</param>
/// <param name="Campaign">Its campaign.</param>
/// <param name="Review">What the reviewers say of the keyword.</param>
/// <param name="Ads">Ads of the ad group that may show: running and approved, by id.</param>
public sealed record ServedKeyword(
    Keyword Keyword,
    AdGroup AdGroup,
    Campaign Campaign,
    ReviewState Review,
    IReadOnlyList<TextAd> Ads
);

/// <summary>Where a campaign is in its day.</summary>
/// <param name="Spent">What it has spent so far.</param>
/// <param name="HoursBegun">Hours of the day begun: 1 to 25.</param>
/// <param name="HoursInDay">23, 24 or 25.</param>
public readonly record struct BudgetDay(decimal Spent, int HoursBegun, int HoursInDay);

/// <summary>Finds the keywords of an account that a search may be answered by.</summary>
public interface IKeywordFinder
{
    /// <summary>Which word reaches which.</summary>
    WordReach Reach { get; }

    /// <summary>The keywords that match the words of a search.</summary>
    IReadOnlyList<FoundKeyword<ServedKeyword>> Find(IReadOnlyList<string> words);

    /// <summary>True for a class of words that some keyword of the account has.</summary>
    bool IsBidOn(string wordClass);
}

/// <summary>Keywords that are all filed in one index.</summary>
/// <param name="index">The index.</param>
public sealed class IndexedKeywords(KeywordIndex<ServedKeyword> index) : IKeywordFinder
{
    /// <inheritdoc/>
    public WordReach Reach => index.Reach;

    /// <inheritdoc/>
    public IReadOnlyList<FoundKeyword<ServedKeyword>> Find(IReadOnlyList<string> words) => index.FindWith(words);

    /// <inheritdoc/>
    public bool IsBidOn(string wordClass) => index.IsBidOn(wordClass);
}

/// <summary>
/// An account as it answers searches: which keywords match, what keeps each from answering, and which of the rest answers. The
/// network and whoever explains it go by the same.
/// </summary>
/// <param name="network">The network.</param>
/// <param name="currency">The account's currency.</param>
/// <param name="keywords">Finds its keywords.</param>
/// <param name="negatives">The negatives, filed by theirs.</param>
public sealed class ServedAccount(
    NetworkProfile network,
    Currency currency,
    IKeywordFinder keywords,
    KeywordIndex<PlacedNegative> negatives
)
{
    /// <summary>The network.</summary>
    public NetworkProfile Network { get; } = network;

    /// <summary>The account's currency.</summary>
    public Currency Currency { get; } = currency;

    /// <summary>The keywords.</summary>
    public IKeywordFinder Keywords { get; } = keywords;

    /// <summary>Looks for what answers a search.</summary>
    /// <param name="search">The search.</param>
    /// <param name="budgetOf">Where a campaign is in its day; without it nothing is spent yet.</param>
    /// <param name="adChoice">Which of several ads shows: from 0 up to but without 1.</param>
    /// <param name="qualityOf">Quality score of a keyword with an ad: 1 to 10.</param>
    public AnswerToSearch Answer(
        Search search,
        Func<Campaign, BudgetDay>? budgetOf,
        double adChoice,
        Func<ServedKeyword, TextAd, int> qualityOf
    )
    {
        var words = Keywords.Reach.WordsOf(search.Text);
        var blocking = negatives.Find(negatives.Reach.WordsOf(search.Text));
        var candidates = Keywords
            .Find(words)
            .OrderBy(found => found.Item.Keyword.Match)
            .ThenBy(found => found.Item.Keyword.Id)
            .Select(found => Consider(found, search, words, blocking, budgetOf, adChoice, qualityOf))
            .ToArray();
        var able = candidates.Where(candidate => candidate.Hindrance is null).ToArray();
        if (able.Length == 0)
        {
            return new AnswerToSearch(words, candidates, null, null);
        }

        var (chosen, rule) = MatchingKeyword.Choose([.. able.Select(candidate => candidate.ToChooseFrom(Currency))]);
        return new AnswerToSearch(
            words,
            candidates,
            able.First(candidate => candidate.Keyword.Keyword.Id == chosen.KeywordId),
            rule
        );
    }

    private Candidate Consider(
        FoundKeyword<ServedKeyword> found,
        Search search,
        IReadOnlyList<string> words,
        List<PlacedNegative> blocking,
        Func<Campaign, BudgetDay>? budgetOf,
        double adChoice,
        Func<ServedKeyword, TextAd, int> qualityOf
    )
    {
        var served = found.Item;
        var bid = BidStack.Of(served.Keyword.MaxCpc, served.AdGroup.MaxCpc, [], Currency);
        var hindrance =
            OfCampaign(served.Campaign, search)
            ?? OfBudget(served.Campaign, bid, budgetOf)
            ?? OfState(served)
            ?? blocking
                .Where(placed => placed.Reaches(served.Campaign.Id, served.AdGroup.Id))
                .OrderBy(placed => placed.Negative.Id)
                .Select(Hindrance.OfNegative)
                .FirstOrDefault()
            ?? OfWhatShows(served, bid);
        var ad = served.Ads.Count == 0 ? null : AdFor(served, search.Device, adChoice);
        return new Candidate(
            served,
            found.Closeness,
            found.Strength,
            Keywords.Reach.WordsOf(served.Keyword.Text).SequenceEqual(words, StringComparer.Ordinal),
            hindrance,
            ad,
            bid,
            hindrance is null ? qualityOf(served, ad!) : null
        );
    }

    internal static Hindrance? OfCampaign(Campaign campaign, Search search) =>
        campaign.State == ItemState.Paused
            ? Hindrance.OfCampaign(HindranceKind.CampaignPaused, campaign, "The campaign is paused.")
        : campaign.DailyBudget is null
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
        : !campaign.Networks.HasFlag(search.Site)
            ? Hindrance.OfCampaign(HindranceKind.SiteLeftOut, campaign, "The campaign does not show on such sites.")
        : null;

    private static Hindrance? OfBudget(Campaign campaign, BidStack? bid, Func<Campaign, BudgetDay>? budgetOf) =>
        budgetOf?.Invoke(campaign) is { } day
        && !DailyBudget.Allows(campaign.DailyBudget!.Value, day.Spent, bid?.Bid ?? 0, day.HoursBegun, day.HoursInDay)
            ? Hindrance.OfCampaign(
                HindranceKind.BudgetSpent,
                campaign,
                "The day's budget does not reach for another click at this hour."
            )
            : null;

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

    private Hindrance? OfWhatShows(ServedKeyword served, BidStack? bid) =>
        served.Ads.Count == 0
            ? new Hindrance(
                HindranceKind.NoAd,
                ItemKind.AdGroup,
                served.AdGroup.Id,
                "The ad group has no ad that runs and is approved."
            )
        : bid is null
            ? Hindrance.OfKeyword(
                HindranceKind.NoMaxCpc,
                served.Keyword,
                "Neither the keyword nor its ad group has a max CPC."
            )
        : bid.Bid < Network.MinimumCpc(Currency)
            ? Hindrance.OfKeyword(
                HindranceKind.BelowLowest,
                served.Keyword,
                $"The bid is below the lowest of {Network.Name}."
            )
        : null;

    /// <summary>An ad for just this device, else one for all, else any.</summary>
    private static TextAd AdFor(ServedKeyword keyword, Device device, double choice)
    {
        IReadOnlyList<TextAd> among = [.. keyword.Ads.Where(ad => ad.DevicePreference == device)];
        among = among.Count > 0 ? among : [.. keyword.Ads.Where(ad => ad.DevicePreference is null)];
        among = among.Count > 0 ? among : keyword.Ads;
        return among[(int)(choice * among.Count)];
    }
}
