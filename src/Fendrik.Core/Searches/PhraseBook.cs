using System.Runtime.InteropServices;

namespace Fendrik.Core.Searches;

/// <summary>A word of search terms, or several that follow one another.</summary>
/// <param name="Size">How many words.</param>
/// <param name="Text">The words, with blanks between.</param>
/// <param name="Terms">How many terms have it; one that has it twice counts once.</param>
/// <param name="Clicks">Their clicks.</param>
/// <param name="Cost">What these cost.</param>
/// <param name="Sold">What the terms among them cost that brought a conversion.</param>
/// <param name="Conversions">Their conversions.</param>
public readonly record struct CountedPhrase(
    int Size,
    string Text,
    int Terms,
    long Clicks,
    decimal Cost,
    decimal Sold,
    decimal Conversions
);

/// <summary>
/// Words, pairs and threes of search terms with what all terms that have them cost. Terms go in one by one; millions of them fit into memory, since of
/// pairs and threes only those are counted that can be in more than one term: whose own parts are (Agrawal and Srikant, "Fast algorithms for mining
/// association rules", 1994).
/// </summary>
public sealed class PhraseBook
{
    /// <summary>Most words that are looked at together.</summary>
    public const int MostWords = 3;

    /// <summary>A word that never brought a conversion counts as wasting from so many different terms on.</summary>
    public const int LeastTerms = 3;

    private readonly Dictionary<string, int> _numbers = new(StringComparer.Ordinal);
    private readonly List<string> _words = [];
    private readonly List<int> _text = [];
    private readonly List<Term> _terms = [];

    private readonly record struct Term(int From, int Count, long Clicks, decimal Cost, decimal Conversions);

    /// <summary>Takes in a term.</summary>
    /// <param name="words">Its words, in order.</param>
    /// <param name="clicks">Its clicks.</param>
    /// <param name="cost">What they cost.</param>
    /// <param name="conversions">Its conversions.</param>
    public void Add(IReadOnlyList<string> words, long clicks, decimal cost, decimal conversions)
    {
        ArgumentNullException.ThrowIfNull(words);
        _terms.Add(new Term(_text.Count, words.Count, clicks, cost, conversions));
        foreach (var word in words)
        {
            ref var number = ref CollectionsMarshal.GetValueRefOrAddDefault(_numbers, word, out var known);
            if (!known)
            {
                number = _words.Count;
                _words.Add(word);
            }

            _text.Add(number);
        }
    }

    /// <summary>The words, pairs and threes that are in more than one term: of one in a single term all is said by the term.</summary>
    public IEnumerable<CountedPhrase> Count()
    {
        var singles = Sum(_text.ToArray(), 1, [], []);
        foreach (var (word, sum) in singles.Sums.Where(pair => pair.Value.Terms > 1))
        {
            yield return sum.As(1, _words[(int)word]);
        }

        // Each phrase is known by the number of the phrase that it begins with and by its last word.
        var (numbers, texts) = (singles.Numbers, (IReadOnlyList<string>)_words);
        var several = new bool[_words.Count];
        foreach (var (word, sum) in singles.Sums)
        {
            several[(int)word] = sum.Terms > 1;
        }

        var words = several;
        for (var size = 2; size <= MostWords; size++)
        {
            var found = Sum(numbers, size, several, words);
            var next = new List<string>();
            var ids = new Dictionary<long, int>();
            foreach (var (key, sum) in found.Sums)
            {
                var text = $"{texts[(int)(key >> 32)]} {_words[(int)(key & uint.MaxValue)]}";
                ids[key] = next.Count;
                next.Add(text);
                yield return sum.As(size, text);
            }

            several = [.. Enumerable.Repeat(true, next.Count)];
            numbers = found.Numbers;
            for (var at = 0; at < numbers.Length; at++)
            {
                numbers[at] = found.Keys[at] is var key && key >= 0 && ids.TryGetValue(key, out var id) ? id : -1;
            }

            texts = next;
        }
    }

    /// <summary>What terms cost that have a word that never brought a conversion in so many terms; each term once.</summary>
    public decimal Wasted()
    {
        var sums = Sum(_text.ToArray(), 1, [], []).Sums;
        var wasted = new bool[_words.Count];
        foreach (var (word, sum) in sums)
        {
            wasted[(int)word] = sum.Conversions == 0 && sum.Terms >= LeastTerms;
        }

        decimal cost = 0;
        foreach (var term in _terms)
        {
            for (var at = term.From; at < term.From + term.Count; at++)
            {
                if (wasted[_text[at]])
                {
                    cost += term.Cost;
                    break;
                }
            }
        }

        return cost;
    }

    private sealed class Summed
    {
        public int Terms;
        public long Clicks;
        public decimal Cost;
        public decimal Sold;
        public decimal Conversions;
        public int LastTerm = -1;

        public CountedPhrase As(int size, string text) => new(size, text, Terms, Clicks, Cost, Sold, Conversions);
    }

    private sealed record Found(Dictionary<long, Summed> Sums, int[] Numbers, long[] Keys);

    /// <summary>
    /// Sums of the phrases of a size. <paramref name="numbers"/> has at each place the number of the phrase of one word less that begins there, −1 for none
    /// that is in more than one term.
    /// </summary>
    private Found Sum(int[] numbers, int size, bool[] several, bool[] words)
    {
        var keys = size == 1 ? [] : KeysOf(numbers, size, several, words);
        Dictionary<long, int>? counts = null;
        if (size > 1)
        {
            // How many terms have each is counted first: those that only one has are most, and have no sums.
            counts = [];
            ForEach(
                size,
                keys,
                (term, key) =>
                {
                    ref var seen = ref CollectionsMarshal.GetValueRefOrAddDefault(counts, key, out var known);
                    // The number of the first term, below 0, until a second has it.
                    if (!known)
                    {
                        seen = -term - 1;
                    }
                    else if (seen < 0 && seen != -term - 1)
                    {
                        seen = 1;
                    }
                }
            );
        }

        var sums = new Dictionary<long, Summed>();
        ForEach(
            size,
            size == 1 ? Array.ConvertAll(numbers, number => (long)number) : keys,
            (at, key) =>
            {
                if (counts is not null && counts[key] < 0)
                {
                    return;
                }

                ref var sum = ref CollectionsMarshal.GetValueRefOrAddDefault(sums, key, out _);
                sum ??= new Summed();
                if (sum.LastTerm == at)
                {
                    return;
                }

                var term = _terms[at];
                sum.LastTerm = at;
                sum.Terms++;
                sum.Clicks += term.Clicks;
                sum.Cost += term.Cost;
                sum.Sold += term.Conversions > 0 ? term.Cost : 0;
                sum.Conversions += term.Conversions;
            }
        );
        return new Found(sums, numbers, keys);
    }

    private long[] KeysOf(int[] numbers, int size, bool[] several, bool[] words)
    {
        var keys = new long[numbers.Length];
        Array.Fill(keys, -1);
        foreach (var term in _terms)
        {
            for (var at = term.From; at <= term.From + term.Count - size; at++)
            {
                var (first, last) = (numbers[at], _text[at + size - 1]);
                if (first >= 0 && several[first] && words[last])
                {
                    keys[at] = ((long)first << 32) | (uint)last;
                }
            }
        }

        return keys;
    }

    private void ForEach(int size, long[] keys, Action<int, long> each)
    {
        for (var number = 0; number < _terms.Count; number++)
        {
            var term = _terms[number];
            for (var at = term.From; at <= term.From + term.Count - size; at++)
            {
                if (keys[at] >= 0)
                {
                    each(number, keys[at]);
                }
            }
        }
    }
}
