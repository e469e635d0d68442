using Fendrik.Core.Accounts;
using Fendrik.Core.Auctions;
using Fendrik.Core.Bidding;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Matching;
using Fendrik.Core.Tracking;

namespace Fendrik.Core.Serving;

/// <summary>A campaign, and what keeps it from answering.</summary>
/// <param name="Id">The campaign.</param>
/// <param name="Name">Its name.</param>
/// <param name="Hindrance">What keeps it away; none when it is in reach.</param>
public sealed record TracedCampaign(long Id, string Name, Hindrance? Hindrance);

/// <summary>A keyword that matches.</summary>
/// <param name="Id">The keyword.</param>
/// <param name="Text">Its words.</param>
/// <param name="Match">Its match type.</param>
/// <param name="AdGroupId">Its ad group.</param>
/// <param name="AdGroup">Name of that.</param>
/// <param name="CampaignId">Its campaign.</param>
/// <param name="Campaign">Name of that.</param>
/// <param name="Closeness">How near the search is to it.</param>
/// <param name="Why">Which of its words was reached by which of the search.</param>
/// <param name="Bid">What it bids; none without a max CPC.</param>
/// <param name="Quality">Quality score, where it is known: 1 to 10.</param>
/// <param name="Hindrance">What keeps it from answering; none when nothing does.</param>
/// <param name="Answers">True for the one that answers.</param>
public sealed record TracedKeyword(
    long Id,
    string Text,
    MatchType Match,
    long AdGroupId,
    string AdGroup,
    long CampaignId,
    string Campaign,
    Closeness Closeness,
    string Why,
    decimal? Bid,
    int? Quality,
    Hindrance? Hindrance,
    bool Answers
);

/// <summary>One who bid for a place.</summary>
/// <param name="Name">Who.</param>
/// <param name="IsOwn">True for one's own ad.</param>
/// <param name="Bid">The bid.</param>
/// <param name="Quality">Quality score: 1 to 10.</param>
/// <param name="Rank">Bid × quality.</param>
/// <param name="Place">The place won, 1 at the top; none when it won none.</param>
/// <param name="IsTop">True above the results.</param>
/// <param name="Price">What a click costs there.</param>
/// <param name="Note">Why it won no place.</param>
/// <param name="Headline">What its ad says, where it is another's.</param>
/// <param name="Description">Likewise.</param>
public sealed record TracedBidder(
    string Name,
    bool IsOwn,
    decimal Bid,
    int Quality,
    decimal Rank,
    int? Place,
    bool IsTop,
    decimal? Price,
    string? Note,
    string? Headline = null,
    string? Description = null
);

/// <summary>What the place would cost with another score.</summary>
public sealed record PriceAtQuality(int Quality, decimal Price, bool WithinBid, bool IsOwn);

/// <summary>An auction, step by step.</summary>
/// <param name="Ladder">All who bid, the highest rank first.</param>
/// <param name="Why">What one's own price rests on.</param>
/// <param name="AtOtherQualities">The same place at each score; empty when no place was won.</param>
public sealed record TracedAuction(
    IReadOnlyList<TracedBidder> Ladder,
    string Why,
    IReadOnlyList<PriceAtQuality> AtOtherQualities
);

/// <summary>A quality score and its parts.</summary>
/// <param name="Score">1 to 10.</param>
/// <param name="ClickLikelihood">In words: below average, average, above average.</param>
/// <param name="TextFit">In words.</param>
/// <param name="PageFit">In words.</param>
public sealed record TracedQuality(int Score, string ClickLikelihood, string TextFit, string PageFit);

/// <summary>A search that somebody made.</summary>
/// <param name="Name">Its name on the network.</param>
/// <param name="At">When.</param>
/// <param name="Place">Where the person was.</param>
/// <param name="Country">ISO 3166-1 code of that.</param>
/// <param name="Device">On which device.</param>
/// <param name="Site">On which kind of site.</param>
/// <param name="After">What came of it, in words; none where nothing was shown.</param>
public sealed record TracedPast(
    string Name,
    DateTimeOffset At,
    string Place,
    string Country,
    Device Device,
    SiteKinds Site,
    string? After
);

/// <summary>What happens to one search, step by step.</summary>
/// <param name="Search">What was typed.</param>
/// <param name="Words">How the network reads it.</param>
/// <param name="Outcome">What comes of it, in a few words.</param>
/// <param name="Shows">True when an ad shows.</param>
/// <param name="Campaigns">All campaigns, those out of reach with the reason.</param>
/// <param name="Keywords">All keywords that match, the one that answers first.</param>
/// <param name="Rule">By which rule it answers; none when nothing does.</param>
/// <param name="Bid">How the bid comes about.</param>
/// <param name="Quality">The quality score, where it is known.</param>
/// <param name="Auction">The auction, where it is known.</param>
/// <param name="Ad">What the person sees; none when nothing shows.</param>
/// <param name="Notes">What is not known here, and why.</param>
/// <param name="Past">Who made the search and when; none for one that is only asked about.</param>
/// <param name="HasPayer">False when nobody pays the account: then nothing serves.</param>
public sealed record SearchTrace(
    string Search,
    IReadOnlyList<string> Words,
    string Outcome,
    bool Shows,
    IReadOnlyList<TracedCampaign> Campaigns,
    IReadOnlyList<TracedKeyword> Keywords,
    string? Rule,
    IReadOnlyList<BidStep> Bid,
    TracedQuality? Quality,
    TracedAuction? Auction,
    TracedAd? Ad,
    IReadOnlyList<string> Notes,
    TracedPast? Past = null,
    bool HasPayer = true
)
{
    /// <summary>Most keywords told of; those that could answer come first.</summary>
    public const int MostKeywords = 200;

    /// <summary>The steps up to the auction, which only the network can hold.</summary>
    /// <param name="search">The search.</param>
    /// <param name="answer">What answers it.</param>
    /// <param name="campaigns">All campaigns of the account.</param>
    /// <param name="account">The account.</param>
    /// <param name="worth">How the network chooses among the lines of the ad; none where that is not known.</param>
    public static SearchTrace Of(
        Search search,
        AnswerToSearch answer,
        IEnumerable<Campaign> campaigns,
        ServedAccount account,
        LineWorth? worth = null
    )
    {
        var chosen = answer.Chosen;
        var seen = chosen is null ? null : SeenOf(search, chosen, account, worth ?? LineWorth.Unknown);
        return new SearchTrace(
            search.Text,
            answer.Words,
            OutcomeOf(answer),
            chosen is not null,
            [
                .. campaigns.Select(each => new TracedCampaign(
                    each.Id,
                    each.Name,
                    ServedAccount.OfCampaign(each, search)
                )),
            ],
            [
                .. answer
                    .Candidates.OrderBy(each => each != chosen)
                    .ThenBy(each => each.Hindrance is not null)
                    .Take(MostKeywords)
                    .Select(each => Of(each, answer, account)),
            ],
            answer.Rule is { } rule ? TextOf(rule) : null,
            chosen?.Bid?.Steps ?? [],
            null,
            null,
            seen is null
                ? null
                : new TracedAd(
                    seen.Ad.Kind,
                    seen.Ad.Id,
                    seen.Headlines,
                    seen.Descriptions,
                    seen.DisplayPath,
                    chosen!.Keyword.Keyword.LandingPage ?? seen.LandingPage,
                    Click: ClickOf(search, chosen.Keyword, seen, account),
                    Calls: seen.Ad.Calls is { } number ? PhoneValue.National(number) : null
                ),
            NotesOf(seen, worth),
            HasPayer: answer.HasPayer
        );
    }

    /// <summary>The same with what the network alone knows.</summary>
    /// <param name="auction">How the auction went.</param>
    /// <param name="own">One's own place; none when none was won.</param>
    /// <param name="quality">One's own quality.</param>
    /// <param name="currency">The account's currency.</param>
    public SearchTrace With(TracedAuction auction, Placement? own, QualityScore quality, Currency currency) =>
        this with
        {
            Auction = auction,
            Quality = new TracedQuality(
                quality.Score,
                QualityScore.InWords(quality.ClickLikelihood),
                QualityScore.InWords(quality.TextFit),
                QualityScore.InWords(quality.PageFit)
            ),
            Shows = own is not null,
            Ad = own is null ? null : Ad,
            Outcome = own is { } place
                ? $"Shows in place {place.Place} {(place.IsTop ? "above" : "below")} the results, would pay {new Money(currency.FromMinor(place.Price), currency)} a click"
                : "Wins no place",
        };

    /// <summary>The same with what could show beside the ad.</summary>
    public SearchTrace WithBeside(IEnumerable<ConsideredExtension> considered) =>
        this with
        {
            Ad = Ad is { } ad ? ad with { Beside = [.. considered.Select(TracedExtension.Of)] } : null,
        };

    /// <summary>The ad that shows, as the person sees it.</summary>
    private static ComposedAd? SeenOf(Search search, Candidate chosen, ServedAccount account, LineWorth worth) =>
        chosen.Ad is { } ad
            ? ComposedAd.Of(
                ad,
                ad.Choose(account.Network.Responsive, search.Device, worth),
                account.Network,
                search.Device,
                ComposedAd.ValuesOf(account.Network, chosen.Keyword, search.Text, search.Place, search.Clock)
            )
            : null;

    private static IReadOnlyList<string> NotesOf(ComposedAd? seen, LineWorth? worth) =>
        seen?.Ad is ResponsiveAd && worth is null
            ?
            [
                "Which lines of a responsive ad show is for the network to say, from what it learnt: here, those written first.",
            ]
            : [];

    private static TracedClickAddress? ClickOf(
        Search search,
        ServedKeyword keyword,
        ComposedAd seen,
        ServedAccount account
    )
    {
        const string SomeClick = "3f9a0c52d1";
        if (seen.Ad.Calls is not null || account.TemplateOf(keyword) is not ({ } template, var from))
        {
            return null;
        }

        var link = TrackedLink.Of(
            template,
            new TrackedClick(
                keyword.Keyword.LandingPage ?? seen.LandingPage ?? "",
                keyword.Campaign,
                keyword.AdGroup,
                keyword.Keyword,
                seen.Ad.Id,
                search.Device,
                account.Network.Id,
                search.Site,
                null,
                SomeClick
            )
        );
        return new TracedClickAddress(from, template, link.Address, link.Problems);
    }

    private static TracedKeyword Of(Candidate candidate, AnswerToSearch answer, ServedAccount account)
    {
        var (keyword, group, campaign, _, _, _) = candidate.Keyword;
        var matched = WordMatch.Explain(
            candidate.Keyword.Words,
            keyword.Match,
            answer.Words,
            account.Keywords.Reach,
            account.Keywords.IsBidOn
        );
        return new TracedKeyword(
            keyword.Id,
            keyword.Text,
            keyword.Match,
            group.Id,
            group.Name,
            campaign.Id,
            campaign.Name,
            candidate.Closeness,
            matched is null ? "" : TextOf(matched, keyword.Match),
            candidate.Bid?.Bid,
            candidate.Quality,
            candidate.Hindrance,
            candidate == answer.Chosen
        );
    }

    private static string OutcomeOf(AnswerToSearch answer) =>
        answer.Kind switch
        {
            AnswerKind.Answers => $"“{answer.Chosen!.Keyword.Keyword.Text}” answers",
            AnswerKind.NoPayer => "Nothing serves: the account has no payer",
            AnswerKind.NothingMatches => "No keyword matches",
            AnswerKind.KeptByBudget => "Kept away by the day's budget",
            AnswerKind.Blocked => "Blocked by a negative",
            AnswerKind.MayNotAnswer => "Keywords match, but none may answer",
        };

    /// <summary>Which word reached which, in a line.</summary>
    internal static string TextOf(MatchedWords matched, MatchType match)
    {
        var others = matched
            .Words.Where(word => word.Relation != WordRelation.Same)
            .Select(word =>
                $"“{word.Word}” by “{word.Searched}”, "
                + word.Relation switch
                {
                    WordRelation.Same => "the same",
                    WordRelation.Number => "one or several",
                    WordRelation.Accents => "other accents",
                    WordRelation.Joined => "written together or apart",
                    WordRelation.Misspelling => "a slip",
                    WordRelation.Synonym => $"a synonym ({word.Strength} %)",
                    WordRelation.Related => $"a related word ({word.Strength} %)",
                }
            )
            .ToArray();
        return others.Length > 0 ? string.Join("; ", others)
            : matched.Closeness == Closeness.Close ? "its words, small ones left out"
            : match switch
            {
                MatchType.Exact => "the search is the keyword",
                MatchType.Phrase => "its words, together and in order",
                MatchType.AllWords or MatchType.Broad => "all its words",
            };
    }

    private static string TextOf(ChoiceRule rule) =>
        rule switch
        {
            ChoiceRule.Only => "It is the only keyword that may answer.",
            ChoiceRule.IsTheSearch => "It is the search itself in exact match, which goes before every other.",
            ChoiceRule.SameWords => "It has just the words of the search, which goes before bid and quality.",
            ChoiceRule.HighestRank => "Its bid × quality is the highest of those that may answer.",
            ChoiceRule.Tie =>
                "Bid × quality is the same as another's: the tighter match type, then the older keyword answers.",
        };
}
