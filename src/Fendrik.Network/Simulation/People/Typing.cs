using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation.People;

/// <summary>What somebody types: a phrase of the need, with the place in mind, and what goes wrong with the fingers.</summary>
public static class Typing
{
    /// <summary>Keys of a keyboard, row by row: a finger that slips hits a neighbour.</summary>
    private static readonly string[] Keys = ["qwertyuiop", "asdfghjkl", "zxcvbnm"];

    /// <summary>The text of a search.</summary>
    /// <param name="world">The world.</param>
    /// <param name="searching">The search.</param>
    /// <param name="person">Who makes it.</param>
    /// <param name="chance">The luck of the search.</param>
    public static string TextOf(World world, in Searching searching, Person person, in Chance chance)
    {
        var phrase = chance
            .Pick(Purpose.Phrase, searching.Need.Phrases[(int)searching.Stage], each => each.Weight)
            .Phrase;
        return Typed(world, phrase.Write(chance, NameOf(person.Wanted, chance)), person.Habit, chance);
    }

    private static string NameOf(Place place, in Chance chance) =>
        // Most people call a place by its common name.
        place.Others.Count > 0
        && chance.Share(Purpose.Wanted, 2) is var share
        && share < 0.15
            ? place.Others[(int)(share / 0.15 * place.Others.Count)]
            : place.Name;

    private static string Typed(World world, string text, Habit habit, in Chance chance)
    {
        if (chance.Happens(Purpose.Fault, habit.Fault))
        {
            var words = text.Split(' ');
            var wrong = Enumerable.Range(0, words.Length).Where(at => world.Faults.ContainsKey(words[at])).ToArray();
            if (wrong.Length > 0)
            {
                var at = wrong[(int)(chance.Share(Purpose.Fault, 1) * wrong.Length)];
                words[at] = chance.Pick(Purpose.Fault, world.Faults[words[at]], each => each.Weight, 2).Written;
                text = string.Join(' ', words);
            }
        }

        return chance.Happens(Purpose.Slip, habit.Slip) && text.Length > 3 ? Slipped(text, chance) : text;
    }

    private static string Slipped(string text, in Chance chance)
    {
        var at = 1 + (int)(chance.Share(Purpose.Slip, 1) * (text.Length - 2));
        if (!char.IsAsciiLetterLower(text[at]))
        {
            return text;
        }

        return (int)(chance.Share(Purpose.Slip, 2) * 4) switch
        {
            0 => text.Remove(at, 1),
            1 => text.Insert(at, text[at].ToString()),
            2 => string.Concat(text.AsSpan(0, at), text.AsSpan(at + 1, 1), text.AsSpan(at, 1), text.AsSpan(at + 2)),
            _ => string.Concat(text.AsSpan(0, at), NeighbourOf(text[at], chance).ToString(), text.AsSpan(at + 1)),
        };
    }

    private static char NeighbourOf(char key, in Chance chance)
    {
        var row = Keys.First(keys => keys.Contains(key, StringComparison.Ordinal));
        var at = row.IndexOf(key, StringComparison.Ordinal);
        return row[
            at == 0 ? 1
            : at == row.Length - 1 || chance.Share(Purpose.Slip, 3) < 0.5 ? at - 1
            : at + 1
        ];
    }
}
