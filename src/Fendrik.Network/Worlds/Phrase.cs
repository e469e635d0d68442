using System.Text;
using Fendrik.Network.Simulation;

namespace Fendrik.Network.Worlds;

/// <summary>
/// What people type, with choices: <c>[a|b|]</c> is one of these, equally likely, <c>{slot}</c> a text of a slot by weight,
/// <c>{place}</c> the place that the person has in mind. Choices may have slots in them.
/// </summary>
public sealed class Phrase
{
    private readonly IReadOnlyList<Part> _parts;

    private Phrase(IReadOnlyList<Part> parts) => _parts = parts;

    /// <summary>The texts of the slots.</summary>
    public sealed record Slot(IReadOnlyList<(string Text, double Weight)> Texts);

    private abstract record Part;

    private sealed record Literal(string Text) : Part;

    private sealed record PlaceName : Part;

    private sealed record Filled(Slot Slot) : Part;

    private sealed record Choice(IReadOnlyList<Phrase> Among) : Part;

    /// <summary>A phrase that is always the same but for the place.</summary>
    public static Phrase Of(string text, IReadOnlyDictionary<string, Slot> slots) =>
        TryParse(text, slots, out var problem) ?? throw new ArgumentException(problem, nameof(text));

    /// <summary>Reads a phrase; none with a reason when it is not well formed.</summary>
    public static Phrase? TryParse(string text, IReadOnlyDictionary<string, Slot> slots, out string? problem)
    {
        var parts = new List<Part>();
        problem = null;
        for (var at = 0; at < text.Length; )
        {
            if (text[at] is '[' or '{')
            {
                var end = text.IndexOf(text[at] == '[' ? ']' : '}', at);
                if (end < 0)
                {
                    problem = $"the {text[at]} has no end.";
                    return null;
                }

                var inside = text[(at + 1)..end];
                if (text[at] == '{')
                {
                    if (inside == "place")
                    {
                        parts.Add(new PlaceName());
                    }
                    else if (slots.TryGetValue(inside, out var slot))
                    {
                        parts.Add(new Filled(slot));
                    }
                    else
                    {
                        problem = $"there is no slot “{inside}”.";
                        return null;
                    }
                }
                else
                {
                    var among = new List<Phrase>();
                    foreach (var choice in inside.Split('|'))
                    {
                        if (TryParse(choice, slots, out problem) is not { } phrase)
                        {
                            return null;
                        }

                        among.Add(phrase);
                    }

                    parts.Add(new Choice(among));
                }

                at = end + 1;
            }
            else
            {
                var end = text.IndexOfAny(['[', '{'], at);
                end = end < 0 ? text.Length : end;
                parts.Add(new Literal(text[at..end]));
                at = end;
            }
        }

        return new Phrase(parts);
    }

    /// <summary>What somebody types.</summary>
    /// <param name="chance">The luck of the search.</param>
    /// <param name="place">The place that the person has in mind.</param>
    public string Write(in Chance chance, string place)
    {
        var text = new StringBuilder();
        var draw = 0;
        Write(text, chance, place, ref draw);
        return text.ToString();
    }

    private void Write(StringBuilder text, in Chance chance, string place, ref int draw)
    {
        foreach (var part in _parts)
        {
            switch (part)
            {
                case Literal literal:
                    text.Append(literal.Text);
                    break;
                case PlaceName:
                    text.Append(place);
                    break;
                case Filled filled:
                    text.Append(chance.Pick(Purpose.Slot, filled.Slot.Texts, each => each.Weight, draw++).Text);
                    break;
                case Choice choice:
                    choice
                        .Among[(int)(chance.Share(Purpose.Slot, draw++) * choice.Among.Count)]
                        .Write(text, chance, place, ref draw);
                    break;
            }
        }
    }
}
