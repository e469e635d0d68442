using System.Globalization;

namespace Fendrik.Core.Matching;

/// <summary>How one word stands for another.</summary>
public enum WordRelation
{
    /// <summary>It is the word.</summary>
    Same = 1,

    /// <summary>One for several, or several for one.</summary>
    Number = 2,

    /// <summary>With other accents.</summary>
    Accents = 3,

    /// <summary>Written as one word instead of two, or as two instead of one.</summary>
    Joined = 4,

    /// <summary>A common slip, or one slip in a word that nobody bids on.</summary>
    Misspelling = 5,

    /// <summary>Another word for the same.</summary>
    Synonym = 6,

    /// <summary>A word that has to do with it.</summary>
    Related = 7,
}

/// <summary>A word, or a few that belong together, that stands for another.</summary>
/// <param name="Words">The words, joined by a space.</param>
/// <param name="Relation">How it stands for the other.</param>
/// <param name="Strength">How much the two mean the same, in percent: 1 to 100.</param>
public readonly record struct NearWord(string Words, WordRelation Relation, int Strength);

/// <summary>
/// Words that stand for one another: those that ship, extended by those of an account. The lines are described in the file that
/// ships; words are read in normal form and kept in the singular.
/// </summary>
public sealed class RelatedWords
{
    private static readonly IReadOnlyList<Line> ShippedLines = Load();
    private static readonly Dictionary<string, string> Singulars = ShippedLines
        .Where(line => line.Kind is "plural" or "alone")
        .SelectMany(line =>
            line.Words.Select(word => (Word: word, Singular: line.Kind == "alone" ? word : line.Words[0]))
        )
        .DistinctBy(pair => pair.Word)
        .ToDictionary(pair => pair.Word, pair => pair.Singular, StringComparer.Ordinal);
    private static readonly Dictionary<string, string> PluralForms = ShippedLines
        .Where(line => line.Kind == "plural")
        .ToDictionary(line => line.Words[0], line => line.Words[1], StringComparer.Ordinal);

    /// <summary>The words that ship.</summary>
    public static RelatedWords Shipped { get; } = new(ShippedLines);

    /// <summary>No words at all.</summary>
    public static RelatedWords None { get; } = new([]);

    private readonly IReadOnlyList<Line> _lines;
    private readonly Dictionary<string, string> _slips = new(StringComparer.Ordinal);
    private readonly Dictionary<string, List<NearWord>> _related = new(StringComparer.Ordinal);
    private readonly HashSet<string> _small = new(StringComparer.Ordinal);
    private readonly HashSet<string> _known = new(StringComparer.Ordinal);

    private RelatedWords(IReadOnlyList<Line> lines)
    {
        _lines = lines;
        foreach (var line in lines)
        {
            switch (line.Kind)
            {
                case "misspelling":
                    foreach (var slip in line.Words.Skip(1))
                    {
                        _slips[slip] = line.Words[0];
                    }

                    _known.Add(line.Words[0]);
                    break;
                case "synonym":
                    Relate(line, WordRelation.Synonym);
                    break;
                case "related":
                    Relate(line, WordRelation.Related);
                    break;
                default:
                    _known.UnionWith(line.Words);
                    if (line.Kind == "small")
                    {
                        _small.UnionWith(line.Words);
                    }

                    break;
            }
        }

        LongestUnit = _related
            .Keys.Select(unit => unit.Count(character => character == ' ') + 1)
            .DefaultIfEmpty(1)
            .Max();
    }

    /// <summary>Most words that one entry has.</summary>
    public int LongestUnit { get; }

    /// <summary>These words and more.</summary>
    /// <param name="one">A word, or a few that belong together.</param>
    /// <param name="other">What stands for it, and it for that.</param>
    /// <param name="relation"><see cref="WordRelation.Misspelling"/> (the slip second), synonym or related.</param>
    /// <param name="strength">In percent: 1 to 100.</param>
    /// <exception cref="ArgumentException">There is no word in it, or another relation.</exception>
    public RelatedWords With(string one, string other, WordRelation relation, int strength)
    {
        var kind = relation switch
        {
            WordRelation.Misspelling => "misspelling",
            WordRelation.Synonym => "synonym",
            WordRelation.Related => "related",
            _ => throw new ArgumentException(
                "Words of an account are misspellings, synonyms or related.",
                nameof(relation)
            ),
        };
        ArgumentOutOfRangeException.ThrowIfLessThan(strength, 1);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(strength, 100);
        string[] words = [Normal(one), Normal(other)];
        return words.Any(each => each.Length == 0)
            ? throw new ArgumentException("Both sides need a word.", nameof(one))
            : new RelatedWords([.. _lines, new Line(kind, strength, words)]);
    }

    /// <summary>These words and those of an account. What has no words on one side is passed over.</summary>
    public RelatedWords With(IEnumerable<Items.RelatedWord> words) =>
        words
            .SelectMany(word => word.Means.Select(means => (word.Text, Means: means, word.Nearness)))
            .Where(pair => Normal(pair.Text).Length > 0 && Normal(pair.Means).Length > 0)
            .Aggregate(
                this,
                (known, pair) =>
                    pair.Nearness switch
                    {
                        Nearness.Synonym => known.With(pair.Text, pair.Means, WordRelation.Synonym, 95),
                        Nearness.Close => known.With(pair.Text, pair.Means, WordRelation.Related, 80),
                        Nearness.Loose => known.With(pair.Text, pair.Means, WordRelation.Related, 60),
                        Nearness.Misspelling => known.With(pair.Means, pair.Text, WordRelation.Misspelling, 100),
                    }
            );

    /// <summary>The right word for a common slip; none for any other word.</summary>
    public string? RightFor(string word) => _slips.GetValueOrDefault(word);

    /// <summary>What stands for a unit: a word in the singular, or a few joined by a space. The strongest first.</summary>
    public IReadOnlyList<NearWord> Of(string unit) => _related.GetValueOrDefault(unit) ?? [];

    /// <summary>True for a word, or a few joined by a space, that something is related to.</summary>
    public bool HasUnit(string unit) => _related.ContainsKey(unit);

    /// <summary>True for small words such as <c>in</c> and <c>for</c>.</summary>
    public bool IsSmall(string word) => _small.Contains(word);

    /// <summary>True for words of the table, which are no slips of other words.</summary>
    public bool Knows(string word) => _known.Contains(word);

    internal bool IsSlip(ReadOnlySpan<char> word) => _slips.GetAlternateLookup<ReadOnlySpan<char>>().ContainsKey(word);

    internal static bool IsInTable(ReadOnlySpan<char> word) =>
        Singulars.GetAlternateLookup<ReadOnlySpan<char>>().ContainsKey(word);

    internal static string? SingularOfTable(string word) => Singulars.GetValueOrDefault(word);

    internal static string? PluralOfTable(string word) => PluralForms.GetValueOrDefault(word);

    private void Relate(Line line, WordRelation relation)
    {
        string[] units = [.. line.Words.Select(SingularOf).Distinct(StringComparer.Ordinal)];
        foreach (var word in line.Words.SelectMany(words => words.Split(' ')))
        {
            _known.Add(word);
            _known.Add(Plurals.Singular(word));
        }

        foreach (var unit in units)
        {
            if (!_related.TryGetValue(unit, out var related))
            {
                _related[unit] = related = [];
            }

            foreach (var other in units.Where(other => other != unit))
            {
                var known = related.FindIndex(each => each.Words == other);
                if (known < 0)
                {
                    related.Add(new NearWord(other, relation, line.Strength));
                }
                else if (related[known].Strength < line.Strength)
                {
                    related[known] = new NearWord(other, relation, line.Strength);
                }
            }

            related.Sort(
                (left, right) =>
                    (right.Strength, left.Words) is var (strength, words)
                    && strength.CompareTo(left.Strength) is var order and not 0
                        ? order
                        : string.CompareOrdinal(words, right.Words)
            );
        }
    }

    private static string Normal(string words) => string.Join(' ', Words.Of(words));

    private static string SingularOf(string words) => string.Join(' ', words.Split(' ').Select(Plurals.Singular));

    private static List<Line> Load()
    {
        using var stream = typeof(RelatedWords).Assembly.GetManifestResourceStream(
            "Fendrik.Core.Matching.related-words.tsv"
        )!;
        using var reader = new StreamReader(stream);
        var lines = new List<Line>();
        while (reader.ReadLine() is { } text)
        {
            if (text.Length > 0 && text[0] != '#')
            {
                var cells = text.Split('\t');
                lines.Add(new Line(cells[0], int.Parse(cells[1], CultureInfo.InvariantCulture), cells[2..]));
            }
        }

        return lines;
    }

    private sealed record Line(string Kind, int Strength, string[] Words);
}
