namespace Fendrik.Core.Matching.Filing;

/// <summary>
/// A way to read a search, as numbers of a <see cref="WordTable"/>: as it is, or with two words joined, or with one parted, where a
/// keyword has them the other way.
/// </summary>
internal sealed class SearchReading
{
    private readonly SearchedWord[] _words;
    private (int Class, int Strength)[]? _reached;

    private SearchReading(SearchedWord[] words) =>
        _words = Array.Exists(words, word => word.IsSmall) ? Array.FindAll(words, word => !word.IsSmall) : words;

    /// <summary>The class that two words were joined to, which the keyword must have; −1 when none were.</summary>
    public int Joined { get; private init; } = -1;

    /// <summary>The two words that one was parted into, which the keyword must have side by side.</summary>
    public (int First, int Second)? Parted { get; private init; }

    /// <summary>The readings of a search; as it is comes first.</summary>
    public static SearchReading[] Of(SearchedWord[] words, WordTable table)
    {
        var asItIs = new SearchReading(words);
        if (!table.Reach.Rules.CloseVariants.JoinedWords)
        {
            return [asItIs];
        }

        List<SearchReading>? readings = null;
        for (var place = 0; place + 1 < words.Length; place++)
        {
            if (table.JoinedClass(words[place].Text, words[place + 1].Text) is >= 0 and var joined)
            {
                readings ??= [asItIs];
                readings.Add(
                    new SearchReading([
                        .. words.AsSpan(0, place),
                        SearchedWord.OfClass(joined, table),
                        .. words.AsSpan(place + 2),
                    ])
                    {
                        Joined = joined,
                    }
                );
            }
        }

        for (var place = 0; place < words.Length; place++)
        {
            foreach (var (first, second) in table.PairsOf(words[place]))
            {
                readings ??= [asItIs];
                readings.Add(
                    new SearchReading([
                        .. words.AsSpan(0, place),
                        SearchedWord.Of(first, table),
                        SearchedWord.Of(second, table),
                        .. words.AsSpan(place + 1),
                    ])
                    {
                        Parted = (first, second),
                    }
                );
            }
        }

        return readings is null ? [asItIs] : [.. readings];
    }

    /// <summary>Adds the classes that a strict match may go by.</summary>
    public void AddProbes(ref ProbeList probes)
    {
        foreach (ref readonly var word in _words.AsSpan())
        {
            if (word.Class >= 0)
            {
                probes.Add(word.Class);
            }

            foreach (var slip in word.Slips ?? [])
            {
                probes.Add(slip);
            }
        }
    }

    /// <summary>True when the keyword's words, small ones left out, are met in order from the first to the last.</summary>
    public bool IsExactly(ReadOnlySpan<int> keyword) => keyword.Length == _words.Length && IsRun(keyword, 0);

    /// <summary>True when they are met in order somewhere.</summary>
    public bool HasRun(ReadOnlySpan<int> keyword)
    {
        for (var start = 0; start + keyword.Length <= _words.Length; start++)
        {
            if (IsRun(keyword, start))
            {
                return true;
            }
        }

        return false;
    }

    /// <summary>True when each is met somewhere.</summary>
    public bool HasAll(ReadOnlySpan<int> keyword)
    {
        foreach (var word in keyword)
        {
            var met = false;
            for (var place = 0; place < _words.Length && !met; place++)
            {
                met = IsMet(word, place);
            }

            if (!met)
            {
                return false;
            }
        }

        return true;
    }

    /// <summary>Weakest of the relations by which all units of a keyword are reached, in percent; 0 when one is not.</summary>
    public int Strength(ReadOnlySpan<int> units, WordTable table)
    {
        var weakest = 100;
        var reached = Reached(table);
        foreach (var unit in units)
        {
            var best = 0;
            foreach (var word in _words)
            {
                best = word.Class == unit ? 100 : best;
            }

            foreach (var (other, strength) in reached)
            {
                if (other == unit && strength > best)
                {
                    best = strength;
                }
            }

            weakest = Math.Min(weakest, best);
        }

        return weakest;
    }

    /// <summary>
    /// The units of keywords that the search reaches beside its own words, with their strength; one may stand here several times.
    /// </summary>
    public ReadOnlySpan<(int Class, int Strength)> Reached(WordTable table)
    {
        if (_reached is not null)
        {
            return _reached;
        }

        List<(int, int)>? reached = null;
        for (var place = 0; place < _words.Length; place++)
        {
            var word = _words[place];
            if (word.Class >= 0)
            {
                if (table.ReachedFrom(word.Class) is { Length: > 0 } others)
                {
                    (reached ??= []).AddRange(others);
                }

                if (table.StartsUnit(word.Class))
                {
                    AddUnits(reached ??= [], place, table);
                }
            }

            if (word.Slips is { } slips && WordReach.StrengthOfSlip >= table.Reach.Rules.BroadReach)
            {
                (reached ??= []).AddRange(slips.Select(slip => (slip, WordReach.StrengthOfSlip)));
            }
        }

        return _reached = reached is null ? [] : [.. reached];
    }

    private void AddUnits(List<(int, int)> reached, int place, WordTable table)
    {
        var name = _words[place].ClassName;
        for (var end = place + 1; end < _words.Length && end < place + table.Reach.Related.LongestUnit; end++)
        {
            name = $"{name} {_words[end].ClassName}";
            if (table.ClassOf(name) is >= 0 and var unit)
            {
                reached.Add((unit, 100));
                reached.AddRange(table.ReachedFrom(unit));
            }
        }
    }

    private bool IsRun(ReadOnlySpan<int> keyword, int start)
    {
        for (var place = 0; place < keyword.Length; place++)
        {
            if (!IsMet(keyword[place], start + place))
            {
                return false;
            }
        }

        return true;
    }

    private bool IsMet(int word, int place) =>
        _words[place].Class == word || _words[place].Slips?.Contains(word) == true;
}
