using System.IO.Hashing;
using System.Runtime.InteropServices;
using System.Text;

namespace Fendrik.Core.Matching.Filing;

/// <summary>
/// The words of many keywords as numbers: each word as it is written, its class of close variants, and the units that something
/// is related to. Classes and units share one row of numbers.
/// </summary>
internal sealed class WordTable(WordReach reach)
{
    private readonly Dictionary<string, int> _words = new(StringComparer.Ordinal);
    private readonly List<string> _spelling = [];
    private readonly List<int> _classOfWord = [];
    private readonly List<bool> _isSmall = [];
    private readonly Dictionary<string, int> _classes = new(StringComparer.Ordinal);
    private readonly List<string> _nameOfClass = [];
    private readonly List<int> _timesBidOn = [];
    private readonly List<List<(int Class, int Strength)>?> _reaches = [];
    private readonly HashSet<int> _startsOfUnits = [];
    private readonly HashSet<int> _units = [];
    private readonly Dictionary<ulong, List<int>> _bySlip = [];
    private readonly Dictionary<ulong, List<(int First, int Second)>> _pairs = [];
    private readonly List<List<(int First, int Second)>?> _pairsOfClass = [];

    /// <summary>A bit for each class: to see that a word is none of them takes one look.</summary>
    private readonly ulong[] _marks = new ulong[1 << 16];

    public WordReach Reach { get; } = reach;

    /// <summary>The number of a word that some keyword has or had; −1 for others.</summary>
    public int NumberOf(string word) => _words.GetValueOrDefault(word, -1);

    public string WordOf(int number) => _spelling[number];

    public int ClassOf(int word) => _classOfWord[word];

    public bool IsSmall(int word) => _isSmall[word];

    /// <summary>The number of a class or unit; −1 when no keyword has it or is related to it.</summary>
    public int ClassOf(string name) => _classes.GetValueOrDefault(name, -1);

    public string NameOf(int @class) => _nameOfClass[@class];

    public int TimesBidOn(int @class) => _timesBidOn[@class];

    public int TimesBidOn(string name) => _classes.TryGetValue(name, out var @class) ? _timesBidOn[@class] : 0;

    public bool IsBidOn(string name) => TimesBidOn(name) > 0;

    /// <summary>The units of keywords that a searched class or unit reaches, itself left out.</summary>
    public ReadOnlySpan<(int Class, int Strength)> ReachedFrom(int @class) =>
        _reaches[@class] is { } reached ? CollectionsMarshal.AsSpan(reached) : [];

    /// <summary>True when a unit of several words may begin with this class.</summary>
    public bool StartsUnit(int @class) => _startsOfUnits.Contains(@class);

    /// <summary>Takes in a word of a keyword.</summary>
    public int Learn(string word)
    {
        if (!_words.TryGetValue(word, out var number))
        {
            number = _words.Count;
            _words.Add(word, number);
            _spelling.Add(word);
            _classOfWord.Add(LearnClass(Reach.ClassOf(word)));
            _isSmall.Add(Reach.IsSmall(word));
            FileUnderSlips(_classOfWord[number]);
        }

        return number;
    }

    /// <summary>Notes that a keyword with the word came or went.</summary>
    public void Count(int word, int more) => _timesBidOn[_classOfWord[word]] += more;

    /// <summary>Takes in the unit of a keyword, and what reaches it.</summary>
    public int LearnUnit(string unit)
    {
        var number = LearnClass(unit);
        if (!_units.Add(number))
        {
            return number;
        }

        foreach (var related in Reach.Related.Of(unit).Where(each => each.Strength >= Reach.Rules.BroadReach))
        {
            var from = LearnClass(related.Words);
            (_reaches[from] ??= []).Add((number, related.Strength));
        }

        return number;
    }

    /// <summary>Notes that two words stand side by side in a keyword, which somebody may write as one.</summary>
    public void LearnPair(string first, string second)
    {
        if (!Reach.Rules.CloseVariants.JoinedWords)
        {
            return;
        }

        var name = Reach.ClassOf(first + second);
        ref var pairs = ref CollectionsMarshal.GetValueRefOrAddDefault(_pairs, HashOf(name), out _);
        pairs ??= [];
        var pair = (_words[first], _words[second]);
        if (!pairs.Contains(pair))
        {
            pairs.Add(pair);
        }

        if (_classes.TryGetValue(name, out var @class))
        {
            _pairsOfClass[@class] = pairs;
        }
    }

    /// <summary>The class of two words written as one; −1 when no keyword has it.</summary>
    public int JoinedClass(string first, string second)
    {
        Span<char> joined = stackalloc char[128];
        if (first.Length + second.Length > joined.Length)
        {
            return -1;
        }

        first.CopyTo(joined);
        second.CopyTo(joined[first.Length..]);
        joined = joined[..(first.Length + second.Length)];
        // Most joined words are nobody's; to see that takes no string.
        if (joined[^1] != 's' && Ascii.IsValid(joined) && !IsMarked(HashOf(joined)) && !Reach.HasFormOfItsOwn(joined))
        {
            return -1;
        }

        var known = _classes.TryGetValue(Reach.ClassOf(joined.ToString()), out var @class);
        return known && _timesBidOn[@class] > 0 ? @class : -1;
    }

    /// <summary>The pairs of words that together may make up a word.</summary>
    public ReadOnlySpan<(int First, int Second)> PairsOf(in SearchedWord word)
    {
        List<(int, int)>? pairs;
        if (word.Class >= 0)
        {
            pairs = _pairsOfClass[word.Class];
        }
        else
        {
            _pairs.TryGetValue(HashOf(word.ClassName), out pairs);
        }

        return pairs is null ? [] : CollectionsMarshal.AsSpan(pairs);
    }

    /// <summary>Classes of keywords that a searched class is one slip away from, if it is nobody's own word.</summary>
    public List<int>? SlipsOf(string searched)
    {
        if (!Reach.CanSlip(searched) || IsBidOn(searched) || Reach.Related.Knows(searched))
        {
            return null;
        }

        List<int>? found = null;
        foreach (var key in SlipKeys(searched))
        {
            if (_bySlip.TryGetValue(key, out var filed))
            {
                foreach (var @class in filed)
                {
                    if (found?.Contains(@class) != true && Reach.IsSlip(searched, _nameOfClass[@class]))
                    {
                        (found ??= []).Add(@class);
                    }
                }
            }
        }

        return found;
    }

    private int LearnClass(string name)
    {
        if (!_classes.TryGetValue(name, out var number))
        {
            number = _classes.Count;
            _classes.Add(name, number);
            _nameOfClass.Add(name);
            _timesBidOn.Add(0);
            _reaches.Add(null);
            var hash = HashOf(name);
            _pairsOfClass.Add(_pairs.GetValueOrDefault(hash));
            _marks[hash >> 6 & (ulong)(_marks.Length - 1)] |= 1UL << (int)(hash & 63);
            if (name.IndexOf(' ', StringComparison.Ordinal) is > 0 and var end)
            {
                _startsOfUnits.Add(LearnClass(name[..end]));
            }
        }

        return number;
    }

    private void FileUnderSlips(int @class)
    {
        if (!Reach.CanSlip(_nameOfClass[@class]))
        {
            return;
        }

        foreach (var key in SlipKeys(_nameOfClass[@class]))
        {
            ref var filed = ref CollectionsMarshal.GetValueRefOrAddDefault(_bySlip, key, out _);
            filed ??= [];
            if (!filed.Contains(@class))
            {
                filed.Add(@class);
            }
        }
    }

    /// <summary>Two words one slip apart share the word itself or the word without one of its letters.</summary>
    private static IEnumerable<ulong> SlipKeys(string word)
    {
        yield return HashOf(word);
        for (var gone = 1; gone < word.Length; gone++)
        {
            if (word[gone] != word[gone - 1])
            {
                yield return HashOf(word.Remove(gone, 1));
            }
        }
    }

    private bool IsMarked(ulong hash) =>
        (_marks[hash >> 6 & (ulong)(_marks.Length - 1)] & 1UL << (int)(hash & 63)) != 0;

    private static ulong HashOf(ReadOnlySpan<char> text) => XxHash3.HashToUInt64(MemoryMarshal.AsBytes(text));
}
