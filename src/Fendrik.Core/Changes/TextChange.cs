using DiffPlex;
using DiffPlex.Chunkers;

namespace Fendrik.Core.Changes;

/// <summary>A part of a text that came of another.</summary>
/// <param name="Text">The part, with the blanks in it.</param>
/// <param name="IsNew">True when the other text does not have it there.</param>
public sealed record TextPart(string Text, bool IsNew);

/// <summary>What a text has that the one it came of has not, by whole words.</summary>
public static class TextChange
{
    private static readonly WordChunker Words = new();

    /// <summary>The text in parts: they add up to it.</summary>
    /// <param name="before">The text that it came of.</param>
    /// <param name="after">The text.</param>
    public static IReadOnlyList<TextPart> Parts(string before, string after)
    {
        if (before == after)
        {
            return after.Length == 0 ? [] : [new TextPart(after, false)];
        }

        var found = Differ.Instance.CreateDiffs(before, after, ignoreWhiteSpace: false, ignoreCase: false, Words);
        var isNew = new bool[found.PiecesNew.Count];
        foreach (var block in found.DiffBlocks)
        {
            Array.Fill(isNew, true, block.InsertStartB, block.InsertCountB);
        }

        // A blank between two new words is as new as they are.
        for (var place = 1; place < isNew.Length - 1; place++)
        {
            isNew[place] |= isNew[place - 1] && isNew[place + 1] && string.IsNullOrWhiteSpace(found.PiecesNew[place]);
        }

        var parts = new List<TextPart>();
        for (var from = 0; from < isNew.Length; )
        {
            var to = from;
            while (to < isNew.Length && isNew[to] == isNew[from])
            {
                to++;
            }

            parts.Add(new TextPart(string.Concat(found.PiecesNew.Skip(from).Take(to - from)), isNew[from]));
            from = to;
        }

        return parts;
    }

    /// <summary>Lines in parts: a line that was there is no news wherever it stands now; another came of the one in its place.</summary>
    /// <param name="before">The lines that they came of.</param>
    /// <param name="after">The lines.</param>
    public static IReadOnlyList<IReadOnlyList<TextPart>> Parts(
        IReadOnlyList<string> before,
        IReadOnlyList<string> after
    ) =>
        [
            .. after.Select(
                (line, place) => Parts(before.Contains(line) ? line : before.ElementAtOrDefault(place) ?? "", line)
            ),
        ];
}
