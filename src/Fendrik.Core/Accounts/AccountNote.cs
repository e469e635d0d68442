namespace Fendrik.Core.Accounts;

/// <summary>A note of an account: what was agreed with the client, and when.</summary>
public static class AccountNote
{
    /// <summary>Longest text, in characters.</summary>
    public const int LongestText = 4_000;

    /// <summary>What is wrong with a text; none when nothing is.</summary>
    public static string? Problem(string? text) =>
        string.IsNullOrWhiteSpace(text) ? "Write what was agreed."
        : text.Length > LongestText ? $"A note has at most {LongestText:N0} characters; this has {text.Length:N0}."
        : null;
}
