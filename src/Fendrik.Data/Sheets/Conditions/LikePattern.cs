using Fendrik.Data.Sheets;

namespace Fendrik.Data.Sheets.Conditions;

/// <summary>Patterns for LIKE over normalised text, in which signs stand for themselves.</summary>
public static class LikePattern
{
    /// <summary>Matches whatever contains this text.</summary>
    public static string Containing(string text) => $"%{Literal(text)}%";

    /// <summary>Matches whatever begins with this text.</summary>
    public static string Starting(string text) => $"{Literal(text)}%";

    /// <summary>Matches whatever ends with this text.</summary>
    public static string Ending(string text) => $"%{Literal(text)}";

    private static string Literal(string text) =>
        TextIdentity
            .Of(text)
            .Replace("\\", "\\\\", StringComparison.Ordinal)
            .Replace("%", "\\%", StringComparison.Ordinal)
            .Replace("_", "\\_", StringComparison.Ordinal);
}
