namespace Fendrik.Core.AdText.Insertion;

/// <summary>What stands for the names in a text that asks for inserted words, for one search.</summary>
/// <param name="Keyword">The searched words, as the network inserts them: the keyword that answered, or the search itself.</param>
/// <param name="AdGroup">Name of the ad group.</param>
/// <param name="Campaign">Name of the campaign.</param>
/// <param name="Place">Where the person is; none when it is not known.</param>
/// <param name="Clock">The clock on the wall in the account's time zone; none when no time in particular is meant.</param>
public sealed record InsertedValues(string? Keyword, string? AdGroup, string? Campaign, string? Place, DateTime? Clock)
{
    /// <summary>Nothing is known: every text falls back.</summary>
    public static InsertedValues Nothing { get; } = new(null, null, null, null, null);

    /// <summary>The searched words as a network inserts them.</summary>
    /// <param name="inserted">Which words the network takes.</param>
    /// <param name="keyword">The keyword that answered.</param>
    /// <param name="search">What was typed.</param>
    public static string SearchedWords(Matching.InsertedWords inserted, string keyword, string search) =>
        inserted switch
        {
            Matching.InsertedWords.Keyword => keyword,
            Matching.InsertedWords.Search => search.Trim(),
        };
}

/// <summary>A text as somebody sees it.</summary>
/// <param name="Text">The text.</param>
/// <param name="FellBack">True when a value was unknown or too long, and the fallback stands there instead.</param>
public readonly record struct InsertedText(string Text, bool FellBack);
