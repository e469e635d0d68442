using System.Runtime.CompilerServices;

namespace Fendrik.Core.Matching.Filing;

/// <summary>A word of a search, as a <see cref="WordTable"/> knows it.</summary>
/// <param name="Text">The word.</param>
/// <param name="Number">Its number; −1 when no keyword has it.</param>
/// <param name="Class">Number of its class; −1 when no keyword has it or is related to it.</param>
/// <param name="ClassName">Its class.</param>
/// <param name="IsSmall">True when it matters little where it stands.</param>
/// <param name="Slips">Classes of keywords that it is one slip away from.</param>
internal readonly record struct SearchedWord(
    string Text,
    int Number,
    int Class,
    string ClassName,
    bool IsSmall,
    List<int>? Slips
)
{
    /// <summary>Looks a word up.</summary>
    public static SearchedWord Of(string text, WordTable table)
    {
        if (table.NumberOf(text) is >= 0 and var number)
        {
            var known = Of(number, table);
            return table.TimesBidOn(known.Class) > 0 ? known : known with { Slips = table.SlipsOf(known.ClassName) };
        }

        var name = table.Reach.ClassOf(text);
        return new SearchedWord(text, -1, table.ClassOf(name), name, table.Reach.IsSmall(text), table.SlipsOf(name));
    }

    /// <summary>A word of a keyword.</summary>
    public static SearchedWord Of(int number, WordTable table)
    {
        var @class = table.ClassOf(number);
        return new SearchedWord(
            table.WordOf(number),
            number,
            @class,
            table.NameOf(@class),
            table.IsSmall(number),
            null
        );
    }

    /// <summary>Two words that were joined.</summary>
    public static SearchedWord OfClass(int @class, WordTable table) =>
        new(table.NameOf(@class), -1, @class, table.NameOf(@class), false, null);
}

/// <summary>Numbers to look under, each once; a few of them lie on the stack.</summary>
internal ref struct ProbeList(Span<int> room)
{
    private Span<int> _room = room;
    private int _count;

    /// <summary>The numbers.</summary>
    public readonly ReadOnlySpan<int> All => _room[.._count];

    /// <summary>Adds a number that is not there yet.</summary>
    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    public void Add(int number)
    {
        if (_room[.._count].Contains(number))
        {
            return;
        }

        if (_count == _room.Length)
        {
            var more = new int[_count * 2];
            _room.CopyTo(more);
            _room = more;
        }

        _room[_count++] = number;
    }
}
