namespace Fendrik.Core.Matching;

/// <summary>
/// Which word reaches which, for one network and one account: the rules of the network, the words that stand for one another, and
/// the words that the account itself bids on.
/// </summary>
/// <param name="rules">The network's rules.</param>
/// <param name="related">Words that stand for one another.</param>
public sealed class WordReach(MatchingRules rules, RelatedWords related)
{
    /// <summary>Strength of a word that is reached by a slip, in percent; one's own word has 100.</summary>
    public const int StrengthOfSlip = 90;

    private const int LeastLengthOfSlip = 5;

    /// <summary>Words as they are written, nothing else: how negatives are read.</summary>
    public static WordReach Literal { get; } = new(MatchingRules.Literal, RelatedWords.None);

    private WordReach? _forNegatives;

    /// <summary>The network's rules.</summary>
    public MatchingRules Rules { get; } = rules;

    /// <summary>Words that stand for one another.</summary>
    public RelatedWords Related { get; } = related;

    /// <summary>Negatives of this network: literal, but with its own reading of accents and emoji.</summary>
    public WordReach ForNegatives =>
        _forNegatives ??= new WordReach(
            new MatchingRules { DropsAccents = Rules.DropsAccents, ReadsEmoji = Rules.ReadsEmoji },
            RelatedWords.None
        );

    /// <summary>The words of a text in the network's reading.</summary>
    public IReadOnlyList<string> WordsOf(string text) => Words.Of(text, Rules);

    /// <summary>One form for all words that are close variants of one another; the word itself where the network has none.</summary>
    public string ClassOf(string word)
    {
        var variants = Rules.CloseVariants;
        var form = variants.Accents ? NormalForm.WithoutAccents(word) : word;
        if (variants.Misspellings && Related.RightFor(form) is { } right)
        {
            form = right;
        }

        return variants.Numbers ? Plurals.Singular(form) : form;
    }

    /// <summary>True when a word may be left out, put in or moved without making another search of it.</summary>
    public bool IsSmall(string word) => Rules.CloseVariants.FunctionWords && Related.IsSmall(word);

    /// <summary>
    /// True when a searched word is most likely another word with one slip: a letter too many, too few or another one, or two
    /// that changed places. The first letter is right, short words and numbers are left alone; whether the searched word is one
    /// that somebody bids on is for the caller to know.
    /// </summary>
    /// <param name="searched">Class of the searched word.</param>
    /// <param name="word">Class of the keyword's word.</param>
    public bool IsSlip(string searched, string word) =>
        CanSlip(searched)
        && CanSlip(word)
        && searched[0] == word[0]
        && searched != word
        && NearForms.IsOneSlip(searched, word);

    /// <summary>True for words whose class is not to be seen from their ending.</summary>
    internal bool HasFormOfItsOwn(ReadOnlySpan<char> word) => Related.IsSlip(word) || RelatedWords.IsInTable(word);

    /// <summary>True when slips are looked for in such a word at all.</summary>
    internal bool CanSlip(string word) =>
        Rules.CloseVariants.Misspellings && word.Length >= LeastLengthOfSlip && !word.Any(char.IsDigit);

    /// <summary>How a searched word of the same class is the keyword's word.</summary>
    internal WordRelation RelationOf(string word, string searched) =>
        word == searched ? WordRelation.Same
        : Related.RightFor(NormalForm.WithoutAccents(searched)) is not null
        || Related.RightFor(NormalForm.WithoutAccents(word)) is not null
            ? WordRelation.Misspelling
        : NormalForm.WithoutAccents(word) == NormalForm.WithoutAccents(searched) ? WordRelation.Accents
        : WordRelation.Number;

    /// <summary>
    /// Words grouped into units that something is related to, from left to right and the longest first: <c>second hand</c> is one.
    /// </summary>
    /// <param name="classes">Classes of words in order.</param>
    internal IReadOnlyList<(string Unit, int From, int Count)> UnitsOf(IReadOnlyList<string> classes)
    {
        var units = new List<(string, int, int)>(classes.Count);
        for (var from = 0; from < classes.Count; )
        {
            var count = Math.Min(Related.LongestUnit, classes.Count - from);
            while (count > 1 && !Related.HasUnit(Joined(classes, from, count)))
            {
                count--;
            }

            units.Add((Joined(classes, from, count), from, count));
            from += count;
        }

        return units;
    }

    internal static string Joined(IReadOnlyList<string> words, int from, int count) =>
        count == 1 ? words[from] : string.Join(' ', words.Skip(from).Take(count));
}
