using Fendrik.Data.Sheets;

namespace Fendrik.Data.Sheets.Conditions;

/// <summary>How a field is held against values.</summary>
public enum SheetTest
{
    /// <summary>Text has one of the values in it.</summary>
    Contains = 1,

    /// <summary>Text has none of the values in it.</summary>
    Lacks = 2,

    /// <summary>Text begins with one of the values.</summary>
    Starts = 3,

    /// <summary>Text ends with one of the values.</summary>
    Ends = 4,

    /// <summary>Equals one of the values.</summary>
    Is = 5,

    /// <summary>Equals none of the values.</summary>
    IsNot = 6,

    /// <summary>A regular expression is found in the text.</summary>
    Matches = 7,

    /// <summary>A regular expression is not found in the text.</summary>
    MatchesNot = 8,

    /// <summary>More than the value; later for a date.</summary>
    Above = 9,

    /// <summary>Less than the value; earlier for a date.</summary>
    Below = 10,

    /// <summary>The value or more.</summary>
    AtLeast = 11,

    /// <summary>The value or less.</summary>
    AtMost = 12,

    /// <summary>Nothing there.</summary>
    Empty = 13,

    /// <summary>Something there.</summary>
    Filled = 14,
}

/// <summary>One condition of a filter. All conditions of a filter have to hold.</summary>
/// <param name="Field">Name of a field in <see cref="SheetFields"/>.</param>
/// <param name="Test">How it is held against the values.</param>
/// <param name="Values">The values; any of them will do.</param>
public sealed record SheetCondition(string Field, SheetTest Test, IReadOnlyList<string> Values);
