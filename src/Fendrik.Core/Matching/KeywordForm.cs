namespace Fendrik.Core.Matching;

/// <summary>How far two keywords may differ and still be called duplicates.</summary>
public enum DuplicateSense
{
    /// <summary>The same words in the same order, whatever the capitals and spaces.</summary>
    SameText = 1,

    /// <summary>As before, whatever the punctuation.</summary>
    SameWords = 2,

    /// <summary>As before, in any order and with plurals as singulars: the searches they answer overlap almost wholly.</summary>
    SameMeaning = 3,

    /// <summary>Whatever the words: both may answer a search that people have made.</summary>
    SharedSearches = 4,
}

/// <summary>The form of a keyword by which duplicates are found.</summary>
public static class KeywordForm
{
    /// <summary>Two keywords are duplicates in this sense when their forms are equal.</summary>
    /// <param name="text">The keyword without notation.</param>
    /// <param name="sense">How far they may differ.</param>
    public static string Of(string text, DuplicateSense sense)
    {
        if (sense == DuplicateSense.SameText)
        {
            return TextIdentity.Of(text);
        }

        var words = Words.Of(text);
        return sense == DuplicateSense.SameWords
            ? string.Join(' ', words)
            : string.Join(' ', words.Select(Plurals.Singular).Order(StringComparer.Ordinal));
    }
}
