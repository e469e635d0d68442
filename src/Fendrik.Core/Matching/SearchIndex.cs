using Fendrik.Core.Accounts;

namespace Fendrik.Core.Matching;

/// <summary>
/// Finds which of many searches a keyword may answer: the reverse of <see cref="KeywordIndex{T}"/>, for keywords that go by
/// one after the other. Searches are filed under each of their words; a keyword looks only at those that share its rarest one.
/// </summary>
public sealed class SearchIndex
{
    private readonly List<IReadOnlyList<string>> _searches = [];
    private readonly Dictionary<string, List<int>> _byWord = new(StringComparer.Ordinal);
    private readonly Synonyms _synonyms;

    /// <summary>Files the searches.</summary>
    /// <param name="searches">What people typed; a search is known by its place here, counted from 0.</param>
    /// <param name="synonyms">Near words for broad match.</param>
    public SearchIndex(IEnumerable<string> searches, Synonyms? synonyms = null)
    {
        _synonyms = synonyms ?? Synonyms.None;
        foreach (var search in searches)
        {
            var words = Words.Of(search);
            foreach (var word in words.Select(_synonyms.Canonical).Distinct(StringComparer.Ordinal))
            {
                if (!_byWord.TryGetValue(word, out var filed))
                {
                    _byWord[word] = filed = [];
                }

                filed.Add(_searches.Count);
            }

            _searches.Add(words);
        }
    }

    /// <summary>The places of the searches that a keyword may answer, ascending; <see cref="WordMatch"/> decides.</summary>
    /// <param name="keyword">The keyword without notation.</param>
    /// <param name="match">Its match type.</param>
    public IReadOnlyList<int> Answered(string keyword, MatchType match)
    {
        var words = Words.Of(keyword);
        List<int>? fewest = null;
        foreach (var word in words)
        {
            if (!_byWord.TryGetValue(_synonyms.Canonical(word), out var filed))
            {
                return [];
            }

            fewest = fewest is null || filed.Count < fewest.Count ? filed : fewest;
        }

        return fewest is null
            ? []
            : [.. fewest.Where(search => WordMatch.Matches(words, match, _searches[search], _synonyms))];
    }
}
