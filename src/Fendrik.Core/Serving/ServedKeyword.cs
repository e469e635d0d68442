using Fendrik.Core.Matching;

namespace Fendrik.Core.Serving;

/// <summary>A keyword with all that it stands in, and what the reviewers say.</summary>
/// <param name="Keyword">The keyword.</param>
/// <param name="AdGroup">Its ad group.</param>
/// <param name="Campaign">Its campaign.</param>
/// <param name="Review">What the reviewers say of the keyword.</param>
/// <param name="Ads">Ads of the ad group that may show: running and approved, by id.</param>
/// <param name="Words">Its words in the network's reading.</param>
public sealed record ServedKeyword(
    Keyword Keyword,
    AdGroup AdGroup,
    Campaign Campaign,
    ReviewState Review,
    IReadOnlyList<Ad> Ads,
    IReadOnlyList<string> Words
);

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
