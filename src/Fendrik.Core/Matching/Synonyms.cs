namespace Fendrik.Core.Matching;

/// <summary>Groups of words that a network takes for each other in broad match. Plurals are near without being listed.</summary>
public sealed class Synonyms
{
    private readonly Dictionary<string, string> _canonical = new(StringComparer.Ordinal);

    /// <summary>Plurals only.</summary>
    public static Synonyms None { get; } = new([]);

    /// <summary>Groups of single words; the first of a group stands for all.</summary>
    public Synonyms(IEnumerable<IReadOnlyList<string>> groups)
    {
        foreach (var group in groups)
        {
            foreach (var word in group)
            {
                _canonical[Words.Singular(word)] = Words.Singular(group[0]);
            }
        }
    }

    /// <summary>One form for all words that are near each other.</summary>
    public string Canonical(string word)
    {
        var singular = Words.Singular(word);
        return _canonical.GetValueOrDefault(singular, singular);
    }
}
