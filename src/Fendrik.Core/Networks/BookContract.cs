using Fendrik.Core.Tracking.Books;

namespace Fendrik.Core.Networks;

/// <summary>A conversion that is told to the network from outside.</summary>
/// <param name="Reference">What the books call it.</param>
/// <param name="From">What it is found by.</param>
/// <param name="ActionId">The action that counts it.</param>
/// <param name="At">When it was made.</param>
/// <param name="Value">What it is worth, in the account's currency; none for what the action says.</param>
/// <param name="IsTakenBack">True when it does not hold any more.</param>
public sealed record BookedConversion(
    string Reference,
    BookKey From,
    long ActionId,
    DateTimeOffset At,
    decimal? Value,
    bool IsTakenBack
);

/// <summary>Conversions from outside, all or none of them taken in.</summary>
/// <param name="Lines">The conversions.</param>
/// <param name="IsPreview">True to hear what would become of them, and change nothing.</param>
public sealed record BookedConversions(IReadOnlyList<BookedConversion> Lines, bool IsPreview);

/// <summary>What became of a conversion from outside.</summary>
public enum BookVerdict
{
    /// <summary>It counts now.</summary>
    Counted = 1,

    /// <summary>It was there already, just so.</summary>
    Known = 2,

    /// <summary>It was there, and has another value now.</summary>
    NewValue = 3,

    /// <summary>It was there, and is no more.</summary>
    TakenBack = 4,

    /// <summary>The click id was never given out, or for another account.</summary>
    UnknownClick = 5,

    /// <summary>The network has no such action; it may not be published yet.</summary>
    UnknownAction = 6,

    /// <summary>It was made before the click, or too long after it.</summary>
    OutsideWindow = 7,

    /// <summary>What is to be taken back was never there.</summary>
    NothingThere = 8,

    /// <summary>The action is paused.</summary>
    PausedAction = 9,

    /// <summary>The action counts once for a click, and the books have one of it under another reference.</summary>
    OncePerClick = 10,

    /// <summary>No such number called a tracked one at that time.</summary>
    UnknownCall = 11,

    /// <summary>Nobody who came by a click left such an address.</summary>
    UnknownAddress = 12,
}
