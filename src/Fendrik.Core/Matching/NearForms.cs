using F23.StringSimilarity;

namespace Fendrik.Core.Matching;

/// <summary>How a word that people type is near another.</summary>
public enum NearForm
{
    /// <summary>The same word for one.</summary>
    Singular = 1,

    /// <summary>The same word for several.</summary>
    Plural = 2,

    /// <summary>Most likely the same word with a slip.</summary>
    Misspelling = 3,
}

/// <summary>
/// Words near a word. A negative does not stretch: it blocks just the words that it is made of, so that a singular lets the
/// plural through.
/// </summary>
public static class NearForms
{
    private const int LeastLengthOfSlip = 5;
    private const int LeastLengthOfTwoSlips = 9;
    private static readonly Damerau Distance = new();

    /// <summary>How a word is near another; none when it is the same, or is not near.</summary>
    /// <param name="word">The word itself, as <see cref="Words.Of"/> gives it.</param>
    /// <param name="other">A word that people typed.</param>
    public static NearForm? Of(string word, string other)
    {
        if (word == other)
        {
            return null;
        }

        if (
            word[0] == other[0]
            && (
                Plurals.Singular(word) == Plurals.Singular(other)
                || Plurals.Plural(word) == other
                || Plurals.Plural(other) == word
            )
        )
        {
            return other.Length > word.Length ? NearForm.Plural : NearForm.Singular;
        }

        // A slip leaves the first letter as it is, and digits are no slips.
        if (
            word.Length < LeastLengthOfSlip
            || word[0] != other[0]
            || Math.Abs(word.Length - other.Length) > 2
            || word.Any(char.IsAsciiDigit)
            || other.Any(char.IsAsciiDigit)
        )
        {
            return null;
        }

        var most = word.Length >= LeastLengthOfTwoSlips ? 2 : 1;
        return Distance.Distance(Plurals.Singular(word), Plurals.Singular(other)) <= most ? NearForm.Misspelling : null;
    }

    /// <summary>
    /// The regular plural of an English singular, or the singular of a plural (see <see cref="Plurals"/>);
    /// none for a word that has no other form, such as a number.
    /// </summary>
    public static (string Text, NearForm Form)? Counterpart(string word)
    {
        if (word.Length < 3 || !word.All(char.IsAsciiLetterLower))
        {
            return null;
        }

        var singular = Plurals.Singular(word);
        return singular != word ? (singular, NearForm.Singular) : (Plurals.Plural(word), NearForm.Plural);
    }

    /// <summary>True when one letter too many, too few or another, or two that changed places, make one of the other.</summary>
    internal static bool IsOneSlip(string word, string other) =>
        Math.Abs(word.Length - other.Length) <= 1 && Distance.Distance(word, other) <= 1;
}
