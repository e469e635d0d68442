using Fendrik.Core.Accounts;

namespace Fendrik.Core.Matching;

/// <summary>How near a search is to a keyword that answers it.</summary>
public enum Closeness
{
    /// <summary>By the words as they are written.</summary>
    Literal = 1,

    /// <summary>By close variants.</summary>
    Close = 2,

    /// <summary>By related words.</summary>
    Related = 3,
}

/// <summary>A word of a keyword and what of the search reached it.</summary>
/// <param name="Word">Of the keyword; a few words that belong together may stand here.</param>
/// <param name="Searched">Of the search.</param>
/// <param name="Relation">How the one stands for the other.</param>
/// <param name="Strength">In percent.</param>
public readonly record struct ReachedWord(string Word, string Searched, WordRelation Relation, int Strength);

/// <summary>Why a keyword answers a search.</summary>
/// <param name="Closeness">How near.</param>
/// <param name="Words">Which word reached which, in the keyword's order.</param>
public sealed record MatchedWords(Closeness Closeness, IReadOnlyList<ReachedWord> Words)
{
    /// <summary>The weakest relation that it hangs on, in percent; 100 where no related word is needed.</summary>
    public int Strength => Closeness == Closeness.Related ? Words.Min(word => word.Strength) : 100;
}

/// <summary>The definition of each match type, for one keyword and one search, both as words.</summary>
/// <remarks>The index answers the same question for many keywords at once and must agree with this.</remarks>
public static class WordMatch
{
    /// <summary>True when a search with these words may be answered by this keyword, words taken as they are written.</summary>
    public static bool Matches(IReadOnlyList<string> keyword, MatchType match, IReadOnlyList<string> search) =>
        Explain(keyword, match, search, WordReach.Literal, _ => true) is not null;

    /// <summary>
    /// True when a negative blocks a search. Negatives never stretch: no plurals, no slips, no synonyms; a broad negative needs
    /// all its words in any order.
    /// </summary>
    public static bool Blocks(IReadOnlyList<string> negative, MatchType match, IReadOnlyList<string> search) =>
        Matches(negative, match, search);

    /// <summary>Why a search may be answered by this keyword; none when it may not.</summary>
    /// <param name="keyword">The keyword's words in order, in the network's reading; an empty keyword matches nothing.</param>
    /// <param name="match">The keyword's match type.</param>
    /// <param name="search">The search's words in order.</param>
    /// <param name="reach">Which word reaches which.</param>
    /// <param name="isBidOn">True for classes of words that some keyword of the account has: they are no slips of others.</param>
    public static MatchedWords? Explain(
        IReadOnlyList<string> keyword,
        MatchType match,
        IReadOnlyList<string> search,
        WordReach reach,
        Func<string, bool> isBidOn
    )
    {
        if (keyword.Count == 0)
        {
            return null;
        }

        return Literally(keyword, match, search)
            ?? Readings(keyword, search, reach)
                .Select(reading => new Comparison(keyword, reading, reach, isBidOn).Strictly(match))
                .FirstOrDefault(found => found is not null)
            ?? (
                match == MatchType.Broad && reach.Rules.BroadReach > 0
                    ? Readings(keyword, search, reach)
                        .Select(reading => new Comparison(keyword, reading, reach, isBidOn).ByRelation())
                        .Where(found => found is not null)
                        .MaxBy(found => found!.Strength)
                    : null
            );
    }

    private static MatchedWords? Literally(IReadOnlyList<string> keyword, MatchType match, IReadOnlyList<string> search)
    {
        var matches = match switch
        {
            MatchType.Exact => keyword.SequenceEqual(search, StringComparer.Ordinal),
            MatchType.Phrase => ContainsRun(search, keyword),
            MatchType.AllWords or MatchType.Broad => keyword.All(search.Contains),
        };
        return matches
            ? new MatchedWords(
                Closeness.Literal,
                [.. keyword.Select(word => new ReachedWord(word, word, WordRelation.Same, 100))]
            )
            : null;
    }

    /// <summary>
    /// The search as it is, and with one word joined from two or parted into two, where the keyword has them the other way.
    /// </summary>
    private static IEnumerable<Reading> Readings(
        IReadOnlyList<string> keyword,
        IReadOnlyList<string> search,
        WordReach reach
    )
    {
        yield return new Reading(search, null);
        if (!reach.Rules.CloseVariants.JoinedWords)
        {
            yield break;
        }

        for (var place = 0; place + 1 < search.Count; place++)
        {
            var joined = search[place] + search[place + 1];
            if (keyword.Any(word => !reach.IsSmall(word) && reach.ClassOf(word) == reach.ClassOf(joined)))
            {
                yield return new Reading(
                    [.. search.Take(place), joined, .. search.Skip(place + 2)],
                    (place, 1, $"{search[place]} {search[place + 1]}")
                );
            }
        }

        for (var place = 0; place < search.Count; place++)
        {
            for (var pair = 0; pair + 1 < keyword.Count; pair++)
            {
                if (reach.ClassOf(keyword[pair] + keyword[pair + 1]) == reach.ClassOf(search[place]))
                {
                    yield return new Reading(
                        [.. search.Take(place), keyword[pair], keyword[pair + 1], .. search.Skip(place + 1)],
                        (place, 2, search[place])
                    );
                }
            }
        }
    }

    private static bool ContainsRun(IReadOnlyList<string> search, IReadOnlyList<string> run)
    {
        for (var start = 0; start + run.Count <= search.Count; start++)
        {
            var length = 0;
            while (length < run.Count && string.Equals(search[start + length], run[length], StringComparison.Ordinal))
            {
                length++;
            }

            if (length == run.Count)
            {
                return true;
            }
        }

        return false;
    }

    /// <summary>A way to read a search.</summary>
    /// <param name="Words">Its words.</param>
    /// <param name="Changed">Where words stand that are not as they were typed, how many, and what was typed.</param>
    private sealed record Reading(IReadOnlyList<string> Words, (int Place, int Count, string Typed)? Changed)
    {
        public bool IsChanged(int place) =>
            Changed is { } changed && place >= changed.Place && place < changed.Place + changed.Count;
    }

    /// <summary>A keyword held against a reading of a search, without words that matter little on either side.</summary>
    private sealed class Comparison
    {
        private readonly WordReach _reach;
        private readonly Func<string, bool> _isBidOn;
        private readonly Reading _reading;
        private readonly string[] _keyword;
        private readonly string[] _keywordClasses;
        private readonly int[] _places;
        private readonly string[] _classes;

        public Comparison(IReadOnlyList<string> keyword, Reading reading, WordReach reach, Func<string, bool> isBidOn)
        {
            (_reach, _isBidOn, _reading) = (reach, isBidOn, reading);
            _keyword = [.. keyword.Where(word => !reach.IsSmall(word))];
            _keywordClasses = [.. _keyword.Select(reach.ClassOf)];
            _places =
            [
                .. Enumerable.Range(0, reading.Words.Count).Where(place => !reach.IsSmall(reading.Words[place])),
            ];
            _classes = [.. _places.Select(place => reach.ClassOf(reading.Words[place]))];
        }

        public MatchedWords? Strictly(MatchType match)
        {
            if (_keyword.Length == 0)
            {
                return null;
            }

            var reached = match switch
            {
                MatchType.Exact => _keyword.Length == _classes.Length ? Run(0) : null,
                MatchType.Phrase => Enumerable
                    .Range(0, Math.Max(0, _classes.Length - _keyword.Length + 1))
                    .Select(Run)
                    .FirstOrDefault(run => run is not null),
                MatchType.AllWords or MatchType.Broad => Each(Anywhere),
            };
            return reached is null ? null : new MatchedWords(Closeness.Close, reached);
        }

        public MatchedWords? ByRelation()
        {
            var reached = new List<ReachedWord>();
            foreach (var (unit, from, count) in _reach.UnitsOf(_keywordClasses))
            {
                var word = WordReach.Joined(_keyword, from, count);
                var best = Candidates(unit, word, count)
                    .Where(each => each.Strength >= _reach.Rules.BroadReach)
                    .Cast<ReachedWord?>()
                    .MaxBy(each => each!.Value.Strength);
                if (best is null)
                {
                    return null;
                }

                reached.Add(best.Value);
            }

            return reached.Count == 0 ? null : new MatchedWords(Closeness.Related, reached);
        }

        private IEnumerable<ReachedWord> Candidates(string unit, string word, int count)
        {
            var place = 0;
            foreach (var _ in _classes)
            {
                if (count == 1 && Reached(word, unit, place) is { } same)
                {
                    yield return same;
                }

                for (
                    var length = 1;
                    length <= _reach.Related.LongestUnit && place + length <= _classes.Length;
                    length++
                )
                {
                    var run = WordReach.Joined(_classes, place, length);
                    var typed = string.Join(' ', Enumerable.Range(place, length).Select(Typed));
                    if (length > 1 && run == unit)
                    {
                        yield return new ReachedWord(word, typed, WordRelation.Same, 100);
                    }

                    foreach (var related in _reach.Related.Of(run).Where(each => each.Words == unit))
                    {
                        yield return new ReachedWord(word, typed, related.Relation, related.Strength);
                    }
                }

                place++;
            }
        }

        private ReachedWord[]? Run(int start)
        {
            var run = new ReachedWord[_keyword.Length];
            for (var place = 0; place < run.Length; place++)
            {
                if (Reached(_keyword[place], _keywordClasses[place], start + place) is not { } reached)
                {
                    return null;
                }

                run[place] = reached;
            }

            return run;
        }

        private ReachedWord[]? Each(Func<int, ReachedWord?> find)
        {
            var found = Enumerable.Range(0, _keyword.Length).Select(find).ToArray();
            return Array.TrueForAll(found, each => each is not null) ? [.. found.Select(each => each!.Value)] : null;
        }

        private ReachedWord? Anywhere(int word) =>
            Enumerable
                .Range(0, _classes.Length)
                .Select(place => Reached(_keyword[word], _keywordClasses[word], place))
                .Where(each => each is not null)
                .MaxBy(each => each!.Value.Strength);

        /// <summary>The word of the search at a place as the keyword's word, if it is that in some form.</summary>
        private ReachedWord? Reached(string word, string wordClass, int place)
        {
            var searched = _reading.Words[_places[place]];
            if (_classes[place] == wordClass)
            {
                var relation = _reading.IsChanged(_places[place])
                    ? WordRelation.Joined
                    : _reach.RelationOf(word, searched);
                return new ReachedWord(word, Typed(place), relation, 100);
            }

            return
                !_isBidOn(_classes[place])
                && !_reach.Related.Knows(_classes[place])
                && !_reading.IsChanged(_places[place])
                && _reach.IsSlip(_classes[place], wordClass)
                ? new ReachedWord(word, searched, WordRelation.Misspelling, WordReach.StrengthOfSlip)
                : null;
        }

        private string Typed(int place) =>
            _reading.IsChanged(_places[place]) ? _reading.Changed!.Value.Typed : _reading.Words[_places[place]];
    }
}
