using System.Runtime.InteropServices;
using Fendrik.Core.Accounts;
using Fendrik.Core.Matching.Filing;

namespace Fendrik.Core.Matching;

/// <summary>A keyword that a search may be answered by.</summary>
/// <typeparam name="T">What is filed.</typeparam>
/// <param name="Item">The keyword.</param>
/// <param name="Closeness">How near the search is to it.</param>
/// <param name="Strength">The weakest relation that it hangs on, in percent; 100 where no related word is needed.</param>
public readonly record struct FoundKeyword<T>(T Item, Closeness Closeness, int Strength);

/// <summary>
/// Finds the keywords that a search may be answered by, among very many; <see cref="WordMatch"/> says which those are. Every
/// keyword is filed under the two rarest of its words, so a search looks only at keywords that share two words with it, or at
/// the only word of one. Keywords come and go without the rest being filed anew.
/// </summary>
/// <typeparam name="T">What is found: a keyword, a negative, an id.</typeparam>
/// <remarks>Any number may search at once, as long as nobody adds or removes.</remarks>
public sealed class KeywordIndex<T>
{
    private const int MostWords = byte.MaxValue;

    private readonly WordTable _table;
    private readonly PairTable _strict = new();
    private readonly PairTable _broad = new();
    private readonly List<Entry> _entries = [];
    private readonly List<(ulong Strict, ulong Broad)> _keys = [];

    /// <summary>The words of all entries, one behind the other: what is compared lies together.</summary>
    private readonly List<int> _pool = [];

    /// <summary>A keyword: where in the pool its words stand, then its classes without small words, then its units.</summary>
    private readonly record struct Entry(T Item, int At, byte Words, byte Content, byte Units, MatchType Match);

    private ReadOnlySpan<int> WordsOf(in Entry entry) => CollectionsMarshal.AsSpan(_pool).Slice(entry.At, entry.Words);

    private ReadOnlySpan<int> ContentOf(in Entry entry) =>
        CollectionsMarshal.AsSpan(_pool).Slice(entry.At + entry.Words, entry.Content);

    private ReadOnlySpan<int> UnitsOf(in Entry entry) =>
        CollectionsMarshal.AsSpan(_pool).Slice(entry.At + entry.Words + entry.Content, entry.Units);

    /// <summary>Files the keywords.</summary>
    /// <param name="keywords">Each with its text and match type. Keywords without words are left out: they match nothing.</param>
    /// <param name="reach">Which word reaches which; without it words are taken as they are written, as negatives are.</param>
    public KeywordIndex(IEnumerable<(T Item, string Text, MatchType Match)> keywords, WordReach? reach = null)
    {
        _table = new WordTable(reach ?? WordReach.Literal);
        foreach (var (item, text, match) in keywords)
        {
            Add(item, text, match);
        }
    }

    /// <summary>Number of keywords filed.</summary>
    public int Count { get; private set; }

    /// <summary>Which word reaches which.</summary>
    public WordReach Reach => _table.Reach;

    /// <summary>True for a class of words that some keyword has.</summary>
    public bool IsBidOn(string wordClass) => _table.IsBidOn(wordClass);

    /// <summary>How often keywords have a class of words.</summary>
    public int TimesBidOn(string wordClass) => _table.TimesBidOn(wordClass);

    /// <summary>Files one more keyword.</summary>
    /// <returns>Its number, by which it can be removed; none when it has no words, or more than any search.</returns>
    public int? Add(T item, string text, MatchType match)
    {
        var words = Reach.WordsOf(text);
        if (words.Count is 0 or > MostWords)
        {
            return null;
        }

        var numbers = new int[words.Count];
        for (var place = 0; place < numbers.Length; place++)
        {
            numbers[place] = _table.Learn(words[place]);
            _table.Count(numbers[place], 1);
            if (place > 0)
            {
                _table.LearnPair(words[place - 1], words[place]);
            }
        }

        var content = Array.ConvertAll(Array.FindAll(numbers, word => !_table.IsSmall(word)), _table.ClassOf);
        var filed = content.Length > 0 ? content : Array.ConvertAll(numbers, _table.ClassOf);
        int[]? units = null;
        if (match == MatchType.Broad && Reach.Rules.BroadReach > 0 && content.Length > 0)
        {
            units =
            [
                .. Reach.UnitsOf(Array.ConvertAll(content, _table.NameOf)).Select(each => _table.LearnUnit(each.Unit)),
            ];
        }

        var entry = new Entry(
            item,
            _pool.Count,
            (byte)numbers.Length,
            (byte)content.Length,
            (byte)(units?.Length ?? 0),
            match
        );
        var number = _entries.Count;
        _pool.AddRange(numbers);
        _pool.AddRange(content);
        _pool.AddRange(units ?? []);
        _entries.Add(entry);
        _keys.Add((KeyOf(filed), units is null ? 0 : KeyOf(units)));
        _strict.Add(_keys[number].Strict, number, filed);
        if (units is not null)
        {
            _broad.Add(_keys[number].Broad, number, units);
        }

        Count++;
        return number;
    }

    /// <summary>Takes a keyword out.</summary>
    /// <param name="number">What <see cref="Add"/> gave; not to be given twice.</param>
    public void Remove(int number)
    {
        var entry = _entries[number];
        _strict.Remove(_keys[number].Strict, number);
        if (entry.Units > 0)
        {
            _broad.Remove(_keys[number].Broad, number);
        }

        foreach (var word in WordsOf(entry))
        {
            _table.Count(word, -1);
        }

        _entries[number] = default;
        Count--;
    }

    /// <summary>All keywords that match a search, in no particular order; each once.</summary>
    public List<T> Find(string search) => Find(Reach.WordsOf(search));

    /// <summary>All keywords that match the words of a search.</summary>
    public List<T> Find(IReadOnlyList<string> search) => FindWith(search).ConvertAll(found => found.Item);

    /// <summary>All keywords that match the words of a search, with how near it is to each.</summary>
    public List<FoundKeyword<T>> FindWith(IReadOnlyList<string> search)
    {
        var found = new List<FoundKeyword<T>>();
        Find(search, found);
        return found;
    }

    /// <summary>The same into a list that is emptied first: whoever asks often spares one for each search.</summary>
    public void Find(IReadOnlyList<string> search, List<FoundKeyword<T>> found)
    {
        found.Clear();
        Visit(search, found, onlyOne: false);
    }

    /// <summary>Any keyword that matches, for the question whether one does.</summary>
    public bool TryFindAny(IReadOnlyList<string> search, out T? item)
    {
        var found = new List<FoundKeyword<T>>(1);
        Visit(search, found, onlyOne: true);
        item = found.Count > 0 ? found[0].Item : default;
        return found.Count > 0;
    }

    private ulong KeyOf(int[] classes)
    {
        var (rarest, second) = (classes[0], -1);
        foreach (var @class in classes.AsSpan(1))
        {
            if (@class == rarest || @class == second)
            {
                continue;
            }

            if (_table.TimesBidOn(@class) < _table.TimesBidOn(rarest))
            {
                (rarest, second) = (@class, rarest);
            }
            else if (second < 0 || _table.TimesBidOn(@class) < _table.TimesBidOn(second))
            {
                second = @class;
            }
        }

        return PairTable.KeyOf(rarest, second < 0 ? rarest : second);
    }

    private void Visit(IReadOnlyList<string> search, List<FoundKeyword<T>> found, bool onlyOne)
    {
        var words = new SearchedWord[search.Count];
        Span<int> numbers = search.Count <= 64 ? stackalloc int[search.Count] : new int[search.Count];
        var probes = new ProbeList(stackalloc int[32]);
        for (var place = 0; place < words.Length; place++)
        {
            words[place] = SearchedWord.Of(search[place], _table);
            numbers[place] = words[place].Number;
            if (words[place].Class >= 0)
            {
                probes.Add(words[place].Class);
            }
        }

        var readings = SearchReading.Of(words, _table);
        foreach (var reading in readings)
        {
            reading.AddProbes(ref probes);
        }

        var own = probes.All.Length;
        var present = PairTable.BitsOf(probes.All);
        for (var one = 0; one < own; one++)
        {
            for (var other = one; other < own; other++)
            {
                for (
                    var at = _strict.FirstMet(
                        _strict.First(PairTable.KeyOf(probes.All[one], probes.All[other])),
                        present
                    );
                    at >= 0;
                    at = _strict.FirstMet(_strict.Next(at), present)
                )
                {
                    ref readonly var entry = ref CollectionsMarshal.AsSpan(_entries)[at];
                    if (Strictly(entry, numbers, readings) is { } closeness)
                    {
                        found.Add(new FoundKeyword<T>(entry.Item, closeness, 100));
                        if (onlyOne)
                        {
                            return;
                        }
                    }
                }
            }
        }

        if (Reach.Rules.BroadReach == 0)
        {
            return;
        }

        foreach (var reading in readings)
        {
            foreach (var (@class, _) in reading.Reached(_table))
            {
                probes.Add(@class);
            }
        }

        // By the search's own words alone nothing is reached that was not found strictly.
        if (probes.All.Length > own)
        {
            VisitRelated(numbers, probes.All, readings, found, onlyOne);
        }
    }

    private void VisitRelated(
        ReadOnlySpan<int> numbers,
        ReadOnlySpan<int> probes,
        SearchReading[] readings,
        List<FoundKeyword<T>> found,
        bool onlyOne
    )
    {
        var present = PairTable.BitsOf(probes);
        for (var other = 0; other < probes.Length; other++)
        {
            for (var one = 0; one <= other; one++)
            {
                for (
                    var at = _broad.FirstMet(_broad.First(PairTable.KeyOf(probes[one], probes[other])), present);
                    at >= 0;
                    at = _broad.FirstMet(_broad.Next(at), present)
                )
                {
                    ref readonly var entry = ref CollectionsMarshal.AsSpan(_entries)[at];
                    var strength = 0;
                    foreach (var reading in readings)
                    {
                        if (IsFor(reading, entry))
                        {
                            strength = Math.Max(strength, reading.Strength(UnitsOf(entry), _table));
                        }
                    }

                    // What all words answer already stands there.
                    if (strength >= Reach.Rules.BroadReach && Strictly(entry, numbers, readings) is null)
                    {
                        found.Add(new FoundKeyword<T>(entry.Item, Closeness.Related, strength));
                        if (onlyOne)
                        {
                            return;
                        }
                    }
                }
            }
        }
    }

    private Closeness? Strictly(in Entry entry, ReadOnlySpan<int> numbers, SearchReading[] readings)
    {
        var words = WordsOf(entry);
        var literally = entry.Match switch
        {
            MatchType.Exact => numbers.SequenceEqual(words),
            MatchType.Phrase => numbers.IndexOf(words) >= 0,
            MatchType.AllWords or MatchType.Broad => AreAllIn(words, numbers),
        };
        if (literally)
        {
            return Closeness.Literal;
        }

        if (entry.Content == 0)
        {
            return null;
        }

        var content = ContentOf(entry);
        foreach (var reading in readings)
        {
            var closely = entry.Match switch
            {
                MatchType.Exact => reading.IsExactly(content),
                MatchType.Phrase => reading.HasRun(content),
                MatchType.AllWords or MatchType.Broad => reading.HasAll(content),
            };
            if (closely && IsFor(reading, entry))
            {
                return Closeness.Close;
            }
        }

        return null;
    }

    private static bool AreAllIn(ReadOnlySpan<int> keyword, ReadOnlySpan<int> words)
    {
        foreach (var word in keyword)
        {
            if (!words.Contains(word))
            {
                return false;
            }
        }

        return true;
    }

    /// <summary>A search is read in another way only for keywords that have the words in that way.</summary>
    private bool IsFor(SearchReading reading, in Entry entry) =>
        reading.Joined >= 0
            ? ContentOf(entry).Contains(reading.Joined)
            : reading.Parted is not var (first, second) || WordsOf(entry).IndexOf([first, second]) >= 0;
}
