using Fendrik.Core.AdText.Insertion;
using Fendrik.Core.Auctions;
using Fendrik.Core.Matching;
using Fendrik.Core.Serving;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation;

/// <summary>What the network holds of a keyword on a day.</summary>
/// <param name="KeywordId">The keyword.</param>
/// <param name="Day">The day from which it holds.</param>
/// <param name="Clicks">Clicks made and expected, the older ones counted for less.</param>
/// <param name="TextSum">Sum of the share of searched words in the ads shown, likewise.</param>
/// <param name="Shown">Times shown, likewise.</param>
/// <param name="Score">1 to 10.</param>
/// <param name="Likelihood">Click likelihood as a part of the score: 0 to 1.</param>
/// <param name="TextFit">0 to 1.</param>
/// <param name="PageFit">0 to 1.</param>
public sealed record KeywordQuality(
    long KeywordId,
    DateOnly Day,
    ClickRecord Clicks,
    double TextSum,
    double Shown,
    int Score,
    decimal Likelihood,
    decimal TextFit,
    decimal PageFit
);

/// <summary>
/// Quality scores as the network knows them: estimated anew each day from what was clicked where, from texts and from pages. A score
/// ranks and prices; what people click does not depend on it.
/// </summary>
/// <param name="world">The world, for its landing pages.</param>
/// <param name="known">What was known at the end of the day before.</param>
/// <param name="keywords">The account's keywords, by id.</param>
public sealed class QualityBook(
    World world,
    IEnumerable<KeywordQuality> known,
    IReadOnlyDictionary<long, ServedKeyword> keywords
)
{
    /// <summary>What a day leaves of what was known before it: half is left after two weeks.</summary>
    private static readonly double Fading = Math.Pow(0.5, 1.0 / 14);

    /// <summary>Impressions that the keyword's own words are worth beside those of the searches.</summary>
    private const double FirmnessOfText = 20;

    private const int UsualLoad = 2_000;

    private readonly Dictionary<long, KeywordQuality> _known = known.ToDictionary(each => each.KeywordId);
    private readonly Dictionary<long, (ClickRecord Clicks, double Text, double Shown)> _today = [];
    private readonly Dictionary<long, (decimal OwnText, decimal Page)> _texts = [];
    private readonly List<KeywordQuality> _new = [];
    private IReadOnlyDictionary<long, ServedKeyword> _keywords = keywords;
    private Dictionary<long, (long Campaign, ClickRecord Clicks)>? _groups;

    /// <summary>Goes on with the account as it is after a change.</summary>
    public void GoOnWith(IReadOnlyDictionary<long, ServedKeyword> keywords)
    {
        _keywords = keywords;
        _texts.Clear();
        _groups = null;
    }

    /// <summary>The score of a keyword; one that is asked for the first time stands where its ad group stands.</summary>
    public int ScoreOf(ServedKeyword keyword, DateOnly day) => Of(keyword, day).Score;

    /// <summary>The score of a keyword with its parts.</summary>
    public KeywordQuality Of(ServedKeyword keyword, DateOnly day)
    {
        if (_known.TryGetValue(keyword.Keyword.Id, out var quality))
        {
            return quality;
        }

        quality = Judged(keyword, day, default, 0, 0, AboveKeyword(keyword));
        _known.Add(keyword.Keyword.Id, quality);
        _new.Add(quality);
        return quality;
    }

    /// <summary>Notes that an ad of a keyword was shown.</summary>
    /// <param name="keyword">The keyword.</param>
    /// <param name="clicked">Whether it was clicked.</param>
    /// <param name="expected">Clicks that the place usually brings.</param>
    /// <param name="fit">Share of the searched words in the ad.</param>
    public void Note(ServedKeyword keyword, bool clicked, double expected, double fit)
    {
        var today = _today.GetValueOrDefault(keyword.Keyword.Id);
        _today[keyword.Keyword.Id] = (
            today.Clicks + new ClickRecord(clicked ? 1 : 0, expected),
            today.Text + fit,
            today.Shown + 1
        );
    }

    /// <summary>Estimates anew what was shown on a day that is over.</summary>
    /// <param name="next">The day after it.</param>
    public void EndDay(DateOnly next)
    {
        foreach (var (id, today) in _today)
        {
            var before = _known[id];
            var left = Math.Pow(Fading, next.DayNumber - before.Day.DayNumber);
            _known[id] = before with
            {
                Day = next,
                Clicks = before.Clicks * left + today.Clicks,
                TextSum = before.TextSum * left + today.Text,
                Shown = before.Shown * left + today.Shown,
            };
        }

        _groups = null;
        foreach (var id in _today.Keys.Order())
        {
            var sums = _known[id];
            if (_keywords.TryGetValue(id, out var keyword))
            {
                _known[id] = Judged(keyword, next, sums.Clicks, sums.TextSum, sums.Shown, AboveKeyword(keyword));
                _new.Add(_known[id]);
            }
        }

        _today.Clear();
    }

    /// <summary>What was estimated since it was asked for last.</summary>
    public IReadOnlyList<KeywordQuality> TakeNew()
    {
        // A keyword that is first seen and then estimated anew on the same day has one estimate.
        KeywordQuality[] taken = [.. _new.GroupBy(each => (each.KeywordId, each.Day)).Select(same => same.Last())];
        _new.Clear();
        return taken;
    }

    /// <summary>Takes up what was shown on a day that is not over.</summary>
    public void Resume(long keyword, ClickRecord clicks, double text, double shown) =>
        _today[keyword] = (clicks, text, shown);

    private KeywordQuality Judged(
        ServedKeyword keyword,
        DateOnly day,
        ClickRecord clicks,
        double textSum,
        double shown,
        double above
    )
    {
        if (!_texts.TryGetValue(keyword.Keyword.Id, out var texts))
        {
            _texts.Add(keyword.Keyword.Id, texts = (OwnText(keyword), PageOf(keyword)));
        }

        var likelihood = ClickLikelihood.PartOf(ClickLikelihood.Of(clicks, above));
        var text = (decimal)((textSum + FirmnessOfText * (double)texts.OwnText) / (shown + FirmnessOfText));
        var score = new QualityScore(likelihood, Math.Min(text, 1), texts.Page);
        return new KeywordQuality(
            keyword.Keyword.Id,
            day,
            clicks,
            textSum,
            shown,
            score.Score,
            score.ClickLikelihood,
            score.TextFit,
            score.PageFit
        );
    }

    /// <summary>What its ad group, its campaign and the account say of a keyword's clicks.</summary>
    private double AboveKeyword(ServedKeyword keyword)
    {
        _groups ??= _known
            .Values.Where(each => _keywords.ContainsKey(each.KeywordId))
            .GroupBy(each => _keywords[each.KeywordId].AdGroup.Id)
            .ToDictionary(
                group => group.Key,
                group =>
                    (
                        _keywords[group.First().KeywordId].Campaign.Id,
                        group
                            .OrderBy(each => each.KeywordId)
                            .Aggregate(default(ClickRecord), (sum, each) => sum + each.Clicks)
                    )
            );
        var all = _groups
            .OrderBy(each => each.Key)
            .Select(each => each.Value)
            .Aggregate(default(ClickRecord), (sum, each) => sum + each.Clicks);
        var campaign = _groups
            .OrderBy(each => each.Key)
            .Select(each => each.Value)
            .Where(each => each.Campaign == keyword.Campaign.Id)
            .Aggregate(default(ClickRecord), (sum, each) => sum + each.Clicks);
        var account = ClickLikelihood.Of(all, 1);
        var ofCampaign = ClickLikelihood.Of(campaign, account);
        return ClickLikelihood.Of(_groups.GetValueOrDefault(keyword.AdGroup.Id).Clicks, ofCampaign);
    }

    private static decimal OwnText(ServedKeyword keyword) =>
        TextFit.Of(
            keyword.Words,
            keyword.Ads,
            new InsertedValues(keyword.Keyword.Text, keyword.AdGroup.Name, keyword.Campaign.Name, null, null)
        );

    private decimal PageOf(ServedKeyword keyword)
    {
        var address =
            keyword.Keyword.LandingPage
            ?? keyword.Ads.FirstOrDefault(ad => ad.LandingPage is not null)?.LandingPage
            ?? "";
        return world.PageOf(address) is { } page
            ? Core.Auctions.PageFit.Of(
                QualityScore.ShareOfWords(keyword.Words, page.Words),
                page.Phone,
                page.Line is not null
                    || page.FormOnPhones == FormState.Works
                    || page.Booking?.FormOnPhones == FormState.Works
            )
            : Core.Auctions.PageFit.Of(QualityScore.ShareOfWords(keyword.Words, Words.Of(address)), UsualLoad, true);
    }
}
