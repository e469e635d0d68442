namespace Fendrik.Core.AdText;

/// <summary>Capital letters of texts that are put together.</summary>
internal static class Letters
{
    /// <summary>The first letter of every word large; letters that are large already stay, as in names.</summary>
    public static string EachWord(string text) =>
        string.Join(
            ' ',
            text.Split(' ').Select(word => word.Length == 0 ? word : char.ToUpperInvariant(word[0]) + word[1..])
        );
}
