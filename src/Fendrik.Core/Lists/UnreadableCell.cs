namespace Fendrik.Core.Lists;

/// <summary>
/// Stands in the place of a cell whose contents could not be read, with the reason: its row is refused for that reason and the
/// others go on. It begins with a noncharacter, which no text has.
/// </summary>
public static class UnreadableCell
{
    /// <summary>What such a cell begins with, and what marks a cell that was cut.</summary>
    public const char Mark = '\uffff';

    /// <summary>A cell that says why it could not be read, as the end of a sentence that begins with its column.</summary>
    public static string Of(string reason) => Mark + reason;

    /// <summary>The reason, or none when the cell is one like any other.</summary>
    public static string? ReasonOf(string cell) => cell.Length > 1 && cell[0] == Mark ? cell[1..] : null;
}
