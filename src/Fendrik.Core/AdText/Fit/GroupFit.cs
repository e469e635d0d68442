using System.Globalization;
using Fendrik.Core.AdText.Insertion;
using Fendrik.Core.Auctions;
using Fendrik.Core.Matching;
using Fendrik.Core.Tracking;
using Fendrik.Core.Tracking.Conversions;

namespace Fendrik.Core.AdText.Fit;

/// <summary>What stands on a landing page.</summary>
/// <param name="Address">The page.</param>
/// <param name="Title">Its title.</param>
/// <param name="Headings">Its headings.</param>
/// <param name="Body">The rest of what people read there.</param>
/// <param name="CanGetInTouch">True when a form or a booking works on phones, or there is a number.</param>
/// <param name="Milliseconds">Until it can be used on a phone.</param>
/// <param name="Tag">The network's tag on it.</param>
public sealed record PageText(
    string Address,
    string Title,
    IReadOnlyList<string> Headings,
    string Body,
    bool CanGetInTouch,
    int Milliseconds,
    PageTag Tag = PageTag.Unread
);

/// <summary>A keyword that an ad group wants to answer.</summary>
/// <param name="Text">Its words.</param>
/// <param name="Clicks">Clicks of it.</param>
/// <param name="Page">Where it leads.</param>
public sealed record KeywordToFit(string Text, long Clicks, string? Page);

/// <summary>A page against what an ad group’s keywords ask for.</summary>
/// <param name="Address">The page.</param>
/// <param name="Title">Its title.</param>
/// <param name="Fit">Page fit: 0 to 1, over all keywords, by their clicks.</param>
/// <param name="Missing">Words of keywords that it does not have, those with most clicks first.</param>
/// <param name="Milliseconds">Until it can be used on a phone.</param>
/// <param name="CanGetInTouch">True when people can get in touch there on phones.</param>
/// <param name="IsOwn">True when the ad group leads there.</param>
public sealed record FittedPage(
    string Address,
    string Title,
    decimal Fit,
    IReadOnlyList<string> Missing,
    int Milliseconds,
    bool CanGetInTouch,
    bool IsOwn
);

/// <summary>How well the texts, the keywords and the pages of an ad group say the same.</summary>
/// <param name="TextFit">Text fit: 0 to 1, over all keywords, by their clicks.</param>
/// <param name="TextStanding">How that stands against others.</param>
/// <param name="PageFit">Page fit of the page that it leads to most; none when that was not read.</param>
/// <param name="PageStanding">How that stands.</param>
/// <param name="Advice">What would raise them, a sentence each.</param>
/// <param name="Pages">The pages of the account that were read, the best for this ad group first.</param>
public sealed record GroupFit(
    decimal TextFit,
    PartStanding TextStanding,
    decimal? PageFit,
    PartStanding? PageStanding,
    IReadOnlyList<string> Advice,
    IReadOnlyList<FittedPage> Pages
)
{
    private const int MostMissing = 5;

    /// <summary>Compares them.</summary>
    /// <param name="group">Name of the ad group.</param>
    /// <param name="campaign">Name of its campaign.</param>
    /// <param name="keywords">Its keywords.</param>
    /// <param name="ads">Its ads that run.</param>
    /// <param name="pages">Pages that were read.</param>
    /// <param name="reach">Which words are close variants of one another.</param>
    public static GroupFit Of(
        string group,
        string campaign,
        IReadOnlyList<KeywordToFit> keywords,
        IReadOnlyCollection<Ad> ads,
        IEnumerable<PageText> pages,
        WordReach reach
    )
    {
        var own = keywords
            .Where(keyword => keyword.Page is not null)
            .GroupBy(keyword => keyword.Page!, StringComparer.Ordinal)
            .OrderByDescending(same => same.Sum(WeightOf))
            .Select(same => same.Key)
            .ToArray();
        var text = Average(
            keywords,
            keyword =>
                Auctions.TextFit.Of(
                    reach.WordsOf(keyword.Text),
                    ads,
                    new InsertedValues(keyword.Text, group, campaign, null, null)
                )
        );
        FittedPage[] fitted =
        [
            .. pages
                .Select(page => Fitted(page, keywords, own.Contains(page.Address), reach))
                .OrderByDescending(page => page.Fit)
                .ThenBy(page => page.Address, StringComparer.Ordinal),
        ];
        var mine = own.Select(address => fitted.FirstOrDefault(page => page.Address == address)).FirstOrDefault();
        return new GroupFit(
            text,
            QualityScore.StandingOf(text),
            mine?.Fit,
            mine is null ? null : QualityScore.StandingOf(mine.Fit),
            [.. AdviceOn(mine, fitted)],
            fitted
        );
    }

    private static FittedPage Fitted(PageText page, IReadOnlyList<KeywordToFit> keywords, bool isOwn, WordReach reach)
    {
        string[] texts = [page.Title, .. page.Headings, page.Body];
        var words = QualityScore.SingularsOf(texts.SelectMany(text => Words.Of(text)));
        return new FittedPage(
            page.Address,
            page.Title,
            Average(
                keywords,
                keyword =>
                    Auctions.PageFit.Of(
                        QualityScore.ShareOfWords(reach.WordsOf(keyword.Text), words),
                        page.Milliseconds,
                        page.CanGetInTouch
                    )
            ),
            [
                .. WordsOfKeywords
                    .In(keywords.Select(keyword => (keyword.Text, keyword.Clicks)), texts, reach)
                    .Where(word => !word.IsSaid)
                    .Take(MostMissing)
                    .Select(word => word.Word),
            ],
            page.Milliseconds,
            page.CanGetInTouch,
            isOwn
        );
    }

    private static IEnumerable<string> AdviceOn(FittedPage? mine, FittedPage[] pages)
    {
        if (mine is null)
        {
            yield break;
        }

        if (mine.Missing.Count > 0)
        {
            yield return $"The page does not say: {string.Join(", ", mine.Missing)}.";
        }

        if (mine.Milliseconds >= LinkVerdict.SlowMilliseconds)
        {
            yield return $"It takes {(mine.Milliseconds / 1000m).ToString("0.0", CultureInfo.InvariantCulture)} s on a phone until it can be used.";
        }

        if (!mine.CanGetInTouch)
        {
            yield return "Nobody can get in touch there on a phone: no form that works, no booking, no number.";
        }

        const decimal SurelyBetter = 0.1m;
        if (pages.Length > 0 && pages[0].Fit - mine.Fit > SurelyBetter)
        {
            yield return $"{pages[0].Address} says more of what is searched for here.";
        }
    }

    private static decimal Average(IReadOnlyList<KeywordToFit> keywords, Func<KeywordToFit, decimal> of) =>
        keywords.Count == 0 ? 0 : keywords.Sum(keyword => WeightOf(keyword) * of(keyword)) / keywords.Sum(WeightOf);

    /// <summary>A keyword without clicks counts as one that had one.</summary>
    private static decimal WeightOf(KeywordToFit keyword) => 1 + keyword.Clicks;
}
