namespace Fendrik.Core.Matching;

/// <summary>Which other forms of a keyword's words a network takes for the words themselves, in every match type.</summary>
/// <param name="Numbers">One or several: <c>bench</c> and <c>benches</c>.</param>
/// <param name="Accents">With or without accents: <c>café</c> and <c>cafe</c>.</param>
/// <param name="JoinedWords">Written as one word or as two: <c>cargobike</c> and <c>cargo bike</c>.</param>
/// <param name="Misspellings">Known misspellings, and one slip in a word that nobody bids on.</param>
/// <param name="FunctionWords">Small words such as <c>in</c> and <c>for</c> left out, put in, or standing elsewhere.</param>
public sealed record CloseVariants(bool Numbers, bool Accents, bool JoinedWords, bool Misspellings, bool FunctionWords)
{
    /// <summary>Words as they are written, nothing else: how negatives are read.</summary>
    public static CloseVariants None { get; } = new(false, false, false, false, false);
}

/// <summary>What is put into a text that asks for the searched words.</summary>
public enum InsertedWords
{
    /// <summary>The keyword that answered.</summary>
    Keyword = 1,

    /// <summary>The search itself.</summary>
    Search = 2,
}

/// <summary>How a network reads words and matches them; data of its profile.</summary>
public sealed record MatchingRules
{
    /// <summary>Words as they are written, without close variants and without related words: how negatives are read.</summary>
    public static MatchingRules Literal { get; } = new();

    /// <summary>True when accents on Latin and Greek letters make no difference, for keywords and negatives alike.</summary>
    public bool DropsAccents { get; init; }

    /// <summary>True when an emoji is a word; otherwise it is passed over.</summary>
    public bool ReadsEmoji { get; init; }

    /// <summary>Close variants for all match types.</summary>
    public CloseVariants CloseVariants { get; init; } = CloseVariants.None;

    /// <summary>Weakest relation by which broad match reaches another word, in percent: 1 to 100; 0 when it reaches none.</summary>
    public int BroadReach { get; init; }

    /// <summary>What inserted words are.</summary>
    public InsertedWords InsertedWords { get; init; } = InsertedWords.Keyword;
}
