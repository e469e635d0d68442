using System.Runtime.InteropServices;
using Fendrik.Core.Accounts;

namespace Fendrik.Core.Matching;

/// <summary>
/// Finds the keywords that a search may be answered by, among very many. Every keyword is filed under its rarest word
/// (in canonical form), so a search looks only at keywords that share that word with it.
/// </summary>
/// <typeparam name="T">What is found: a keyword, a negative, an id.</typeparam>
public sealed class KeywordIndex<T>
{
    private readonly Synonyms _synonyms;
    private readonly bool _literal;
    private readonly Dictionary<string, int> _wordIds = new(StringComparer.Ordinal);
    private readonly List<int> _canonicalOfWord = [];
    private readonly Dictionary<int, Entry[]> _byAnchor;

    private readonly record struct Entry(T Item, MatchType Match, int[] Words);

    /// <summary>Files the keywords.</summary>
    /// <param name="keywords">Each with its text and match type. Keywords without words are left out: they match nothing.</param>
    /// <param name="synonyms">Near words for broad match.</param>
    /// <param name="literal">True for negatives, where broad means all words as written.</param>
    public KeywordIndex(
        IEnumerable<(T Item, string Text, MatchType Match)> keywords,
        Synonyms? synonyms = null,
        bool literal = false
    )
    {
        _synonyms = synonyms ?? Synonyms.None;
        _literal = literal;
        var entries = new List<Entry>();
        var frequency = new Dictionary<int, int>();
        foreach (var (item, text, match) in keywords)
        {
            var words = Words.Of(text).Select(Learn).ToArray();
            if (words.Length == 0)
            {
                continue;
            }

            entries.Add(new Entry(item, literal && match == MatchType.Broad ? MatchType.AllWords : match, words));
            foreach (var word in words)
            {
                CollectionsMarshal.GetValueRefOrAddDefault(frequency, _canonicalOfWord[word], out _)++;
            }
        }

        var filed = new Dictionary<int, List<Entry>>();
        foreach (var entry in entries)
        {
            var anchor = entry.Words.Select(word => _canonicalOfWord[word]).MinBy(word => frequency[word]);
            ref var room = ref CollectionsMarshal.GetValueRefOrAddDefault(filed, anchor, out _);
            (room ??= []).Add(entry);
        }

        _byAnchor = filed.ToDictionary(pair => pair.Key, pair => pair.Value.ToArray());
        Count = entries.Count;
    }

    /// <summary>Number of keywords filed.</summary>
    public int Count { get; }

    /// <summary>All keywords that match a search, in no particular order; each once.</summary>
    public List<T> Find(string search) => Find(Words.Of(search));

    /// <summary>All keywords that match the words of a search.</summary>
    public List<T> Find(IReadOnlyList<string> search)
    {
        var found = new List<T>();
        Visit(
            search,
            item =>
            {
                found.Add(item);
                return true;
            }
        );
        return found;
    }

    /// <summary>The first keyword that matches, for the question whether any does.</summary>
    public bool TryFindAny(IReadOnlyList<string> search, out T? item)
    {
        T? first = default;
        var any = false;
        Visit(
            search,
            candidate =>
            {
                (first, any) = (candidate, true);
                return false;
            }
        );
        item = first;
        return any;
    }

    private void Visit(IReadOnlyList<string> search, Func<T, bool> visit)
    {
        // Unknown words get no id: they match nothing as written, but may still be near a known word.
        Span<int> literal = search.Count <= 32 ? stackalloc int[search.Count] : new int[search.Count];
        Span<int> canonical = search.Count <= 32 ? stackalloc int[search.Count] : new int[search.Count];
        for (var place = 0; place < search.Count; place++)
        {
            literal[place] = _wordIds.GetValueOrDefault(search[place], -1);
            canonical[place] =
                literal[place] >= 0
                    ? _canonicalOfWord[literal[place]]
                    : _wordIds.GetValueOrDefault(Canonical(search[place]), -1);
        }

        for (var place = 0; place < search.Count; place++)
        {
            // A word that comes twice in a search must not find its keywords twice.
            if (
                canonical[place] < 0
                || canonical[..place].Contains(canonical[place])
                || !_byAnchor.TryGetValue(canonical[place], out var entries)
            )
            {
                continue;
            }

            foreach (var entry in entries)
            {
                if (Matches(entry, literal, canonical) && !visit(entry.Item))
                {
                    return;
                }
            }
        }
    }

    private bool Matches(in Entry entry, ReadOnlySpan<int> literal, ReadOnlySpan<int> canonical)
    {
        switch (entry.Match)
        {
            case MatchType.Exact:
                return literal.SequenceEqual(entry.Words);
            case MatchType.Phrase:
                return literal.IndexOf(entry.Words) >= 0;
            case MatchType.AllWords:
                foreach (var word in entry.Words)
                {
                    if (!literal.Contains(word))
                    {
                        return false;
                    }
                }

                return true;
            default:
                foreach (var word in entry.Words)
                {
                    if (!canonical.Contains(_canonicalOfWord[word]))
                    {
                        return false;
                    }
                }

                return true;
        }
    }

    private string Canonical(string word) => _literal ? word : _synonyms.Canonical(word);

    private int Learn(string word)
    {
        if (_wordIds.TryGetValue(word, out var id))
        {
            return id;
        }

        id = _canonicalOfWord.Count;
        _wordIds.Add(word, id);
        _canonicalOfWord.Add(id);
        var canonical = Canonical(word);
        if (!string.Equals(canonical, word, StringComparison.Ordinal))
        {
            _canonicalOfWord[id] = Learn(canonical);
        }

        return id;
    }
}
