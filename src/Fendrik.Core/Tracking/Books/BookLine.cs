namespace Fendrik.Core.Tracking.Books;

/// <summary>What a line of the own books says of a conversion.</summary>
public enum BookChange
{
    /// <summary>It was made.</summary>
    Made = 1,

    /// <summary>It was taken back: the visit was called off, the sale refunded.</summary>
    TakenBack = 2,
}

/// <summary>A sale or a call that the client brings from outside.</summary>
/// <param name="Row">Its row in the list, from 1.</param>
/// <param name="Reference">What the books call it: two lines of one reference are the same conversion.</param>
/// <param name="From">What it is found by.</param>
/// <param name="Action">Name of the action that counts it.</param>
/// <param name="At">When it was made.</param>
/// <param name="Value">What it is worth; none where the books do not say.</param>
/// <param name="Change">Whether it was made or taken back.</param>
public sealed record BookLine(
    int Row,
    string Reference,
    BookKey From,
    string Action,
    DateTimeOffset At,
    decimal? Value,
    BookChange Change
);

/// <summary>A line that cannot be taken, and why.</summary>
/// <param name="Row">Its row in the list, from 1.</param>
/// <param name="Field">The column that is wrong.</param>
/// <param name="Message">What is wrong, and what to do.</param>
public sealed record BookProblem(int Row, string Field, string Message);
