using System.Collections.Concurrent;
using Fendrik.Core.Accounts;
using Fendrik.Core.Auctions;
using Fendrik.Core.Matching;
using Fendrik.Core.Serving;

namespace Fendrik.Network.Simulation;

/// <summary>The quality score that the network gives a keyword with an ad for a search.</summary>
public sealed class AdQuality(Market market)
{
    private readonly ConcurrentDictionary<long, IReadOnlyList<string>> _wordsOfAds = [];

    /// <summary>The score with its parts.</summary>
    public QualityScore Of(ServedKeyword keyword, TextAd ad, IReadOnlyList<string> words)
    {
        var url = keyword.Keyword.LandingPage ?? ad.LandingPage ?? "";
        var page =
            market.Pages.FirstOrDefault(each => url.Contains(each.Path, StringComparison.OrdinalIgnoreCase))?.List
            ?? Words.Of(url);
        var likelihood = keyword.Keyword.Match switch
        {
            MatchType.Exact => 0.9m,
            MatchType.Phrase => 0.75m,
            MatchType.AllWords => 0.65m,
            MatchType.Broad => 0.45m,
        };
        return new QualityScore(
            likelihood,
            QualityScore.ShareOfWords(words, WordsOf(ad)),
            QualityScore.ShareOfWords(words, page)
        );
    }

    private IReadOnlyList<string> WordsOf(TextAd ad) =>
        _wordsOfAds.GetOrAdd(ad.Id, _ => [.. ad.Headlines.Concat(ad.Descriptions).SelectMany(text => Words.Of(text))]);
}
