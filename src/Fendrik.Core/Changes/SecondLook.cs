namespace Fendrik.Core.Changes;

/// <summary>What somebody is asked to look at.</summary>
public enum LookSubject
{
    /// <summary>Changes, before they are published.</summary>
    Changes = 1,

    /// <summary>A campaign as it runs, whole.</summary>
    Campaign = 2,
}

/// <summary>What became of something that was proposed.</summary>
public enum ProposalState
{
    /// <summary>Nobody has decided about it.</summary>
    Open = 1,

    /// <summary>It is in the working copy. When the step that took it over is undone, it is open again.</summary>
    Taken = 2,

    /// <summary>It stays as it is.</summary>
    Left = 3,
}

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

    /// <summary>A campaign that was shown is shown no more.</summary>
    Closed = 5,
}

/// <summary>Rules of asking colleagues what they think: of changes before they are published, or of a campaign as it runs.</summary>
public static class SecondLook
{
    /// <summary>Most changes that one look is asked for: more of them nobody reads.</summary>
    public const int MostItems = 2_000;

    /// <summary>Longest note or remark, in characters.</summary>
    public const int LongestText = 2_000;

    /// <summary>Most items that stand proposed in one look: each of them is read by somebody.</summary>
    public const int MostProposed = 200;

    /// <summary>True where a look at something may go on from one state to another.</summary>
    public static bool MayBecome(this LookState from, LookState to, LookSubject subject) =>
        subject switch
        {
            LookSubject.Changes => from switch
            {
                // What was returned is asked for once more when it was changed.
                LookState.Open => to is LookState.Returned or LookState.Published or LookState.Withdrawn,
                LookState.Returned => to is LookState.Open or LookState.Withdrawn or LookState.Published,
                LookState.Published or LookState.Withdrawn or LookState.Closed => false,
            },
            // What was shown once may be shown again, with all that was said.
            LookSubject.Campaign => from switch
            {
                LookState.Open => to is LookState.Closed,
                LookState.Closed => to is LookState.Open,
                LookState.Returned or LookState.Published or LookState.Withdrawn => false,
            },
        };

    /// <summary>True while something can be said about a look.</summary>
    public static bool IsUnderWay(this LookState state) => state is LookState.Open or LookState.Returned;

    /// <summary>What is wrong with a text; none when nothing is.</summary>
    /// <param name="text">The text.</param>
    /// <param name="isNeeded">True where something has to be said.</param>
    public static string? ProblemOf(string? text, bool isNeeded) =>
        isNeeded && string.IsNullOrWhiteSpace(text) ? "Say something about it."
        : text?.Length > LongestText ? $"At most {LongestText:N0} characters fit; these are {text.Length:N0}."
        : null;
}
