using Fendrik.Core.Accounts;

namespace Fendrik.Data.Sheets;

/// <summary>Patterns for LIKE over normalised text, in which signs stand for themselves.</summary>
public static class LikePattern
{
    /// <summary>Matches whatever contains this text.</summary>
    public static string Containing(string text) =>
        "%"
        + TextIdentity
            .Of(text)
            .Replace("\\", "\\\\", StringComparison.Ordinal)
            .Replace("%", "\\%", StringComparison.Ordinal)
            .Replace("_", "\\_", StringComparison.Ordinal)
        + "%";
}
