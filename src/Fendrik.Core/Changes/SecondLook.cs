namespace Fendrik.Core.Changes;

/// <summary>How a second look stands.</summary>
public enum LookState
{
    /// <summary>Somebody was asked, and has not answered.</summary>
    Open = 1,

    /// <summary>It was looked at, and is to be changed first.</summary>
    Returned = 2,

    /// <summary>It was looked at, and published.</summary>
    Published = 3,

    /// <summary>Whoever asked needs it no more.</summary>
    Withdrawn = 4,
}

/// <summary>Rules of asking a colleague to check changes before they are published.</summary>
public static class SecondLook
{
    /// <summary>Most changes that one look is asked for: more of them nobody reads.</summary>
    public const int MostItems = 2_000;

    /// <summary>Longest note or remark, in characters.</summary>
    public const int LongestText = 2_000;

    /// <summary>What a look goes on to; none where it goes nowhere from there.</summary>
    public static bool MayBecome(this LookState from, LookState to) =>
        from switch
        {
            // What was returned is asked for once more when it was changed.
            LookState.Open => to is LookState.Returned or LookState.Published or LookState.Withdrawn,
            LookState.Returned => to is LookState.Open or LookState.Withdrawn or LookState.Published,
            LookState.Published or LookState.Withdrawn => false,
        };

    /// <summary>What is wrong with a text; none when nothing is.</summary>
    /// <param name="text">The text.</param>
    /// <param name="isNeeded">True where something has to be said.</param>
    public static string? ProblemOf(string? text, bool isNeeded) =>
        isNeeded && string.IsNullOrWhiteSpace(text) ? "Say something about it."
        : text?.Length > LongestText ? $"At most {LongestText:N0} characters fit; these are {text.Length:N0}."
        : null;
}
