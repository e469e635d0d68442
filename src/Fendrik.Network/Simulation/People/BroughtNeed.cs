using System.Globalization;
using System.IO.Hashing;
using System.Text;
using Fendrik.Core.Matching;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation.People;

/// <summary>A need that the world's files do not know, with who else bids for it.</summary>
public sealed record BroughtNeed(Need Need, IReadOnlyList<Rival> Rivals);

/// <summary>What an ad group of a trade that the world does not know was about when the network first met it.</summary>
/// <param name="Number">The first of its two numbers.</param>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="Keywords">Its keywords then.</param>
public sealed record BroughtTrade(int Number, long AdGroupId, IReadOnlyList<string> Keywords);

/// <summary>
/// Makes needs for a trade that the world does not know from its keywords: people who want it, and people who type much the same but
/// want nothing that is sold. What they are like follows from the words alone, whatever an account bids.
/// </summary>
/// <param name="world">The world.</param>
public sealed class BroughtNeeds(World world)
{
    /// <summary>Most ad groups for which needs are made.</summary>
    public const int MostTrades = 150;

    /// <summary>Keywords of an ad group that people's words are made of.</summary>
    public const int MostKeywords = 30;

    private const int FirstRival = 1_000;

    private static readonly string[][] Wanting =
    [
        ["{0} [cost|price|prices]", "[best|good] {0}", "{0} [reviews|compared|worth it]"],
        ["{0}", "{0} {place}", "{0} [price|quote]{in} {place}", "[local|cheap|best] {0}[ {place}|]"],
        ["{0} near me", "{0} {place} {when}", "[book|buy|order|need] {0}[ {place}|]"],
    ];

    private static readonly string[][] NotWanting =
    [
        ["how to {0}", "what is {0}", "{0} meaning"],
        ["free {0}", "{0} [course|video|pictures|ideas]"],
        ["{0} [jobs|salary][ {place}|]", "{0} [template|pdf|download]"],
    ];

    private static readonly string[] Names =
    [
        "Alder & Ash",
        "Beck Brothers",
        "Cairn & Co",
        "Dunnock",
        "Eastgate",
        "Ferrous",
        "Gannet Row",
        "Hollin Works",
        "Ings & Daughters",
        "Juniper Yard",
        "Knott & Lee",
        "Larkfield",
        "Mossop",
        "Netherby",
        "Oxlip",
        "Pike & Perch",
    ];

    private static readonly IReadOnlyDictionary<string, Phrase.Slot> Slots = new Dictionary<string, Phrase.Slot>
    {
        ["in"] = new([("", 5), (" in", 4), (" near", 1)]),
        ["when"] = new([("this week", 3), ("tomorrow", 2), ("today", 2), ("saturday", 2), ("this weekend", 1)]),
    };

    /// <summary>The needs of a trade, with who else bids.</summary>
    public IEnumerable<BroughtNeed> Of(BroughtTrade trade)
    {
        // Words alone tell what it is like: the same words are the same need in any account.
        var seed = XxHash64.HashToUInt64(Encoding.UTF8.GetBytes(trade.Keywords[0]));
        var chance = new Chance(seed, 0);
        double Between(int index, double least, double most) =>
            least + (most - least) * chance.Share(Purpose.Derived, index);
        var likeness = world.Needs[(int)(chance.Share(Purpose.Derived) * world.Needs.Count)];
        var name = trade.Keywords[0];
        var wanted = likeness with
        {
            Number = trade.Number,
            Id = name,
            People = Between(1, 3, 12),
            Worth = Math.Exp(Between(2, 4, 7)),
            Spread = 0.5,
            Far = 400,
            Earnest = Between(3, 0.08, 0.25),
            Clicks = Between(4, 0.09, 0.14),
            Top = Between(5, 0.25, 0.8),
            Bottom = Between(6, 0.10, 0.24),
            Trend = 0,
            Phrases = Said(trade.Keywords, Wanting),
        };
        yield return new BroughtNeed(wanted, RivalsOf(trade.Number, wanted.Top, chance));
        var not = wanted with
        {
            Number = trade.Number + 1,
            Id = $"not {name}",
            People = wanted.People * 0.3,
            Earnest = 0,
            Worth = 0,
            Abroad = 0.15,
            Top = wanted.Top * 0.5,
            Bottom = wanted.Bottom * 0.5,
            Phrases = Said(trade.Keywords, NotWanting),
        };
        yield return new BroughtNeed(not, []);
    }

    private IReadOnlyList<Rival> RivalsOf(int number, double top, Chance chance)
    {
        var count = 3 + (int)(chance.Share(Purpose.Derived, 10) * 3);
        var regions = world.Places.Select(place => place.Region).ToHashSet();
        return
        [
            .. Enumerable
                .Range(0, count)
                .Select(at => new Rival(
                    FirstRival + number * 8 + at,
                    Names[((int)(chance.Share(Purpose.Derived, 11) * Names.Length) + at) % Names.Length],
                    regions,
                    0,
                    24,
                    top * (0.7 + 1.4 * chance.Share(Purpose.Derived, 20 + at)),
                    0.1,
                    4 + (int)(chance.Share(Purpose.Derived, 30 + at) * 5),
                    0.85 + 0.35 * chance.Share(Purpose.Derived, 40 + at),
                    0.5 + 0.4 * chance.Share(Purpose.Derived, 50 + at),
                    24,
                    null,
                    "Ask us first",
                    "Prices on the page."
                )),
        ];
    }

    private static IReadOnlyList<IReadOnlyList<(Phrase, double)>> Said(
        IReadOnlyList<string> keywords,
        string[][] patterns
    ) =>
        [
            .. patterns.Select(stage =>
                (IReadOnlyList<(Phrase, double)>)
                    [
                        .. from keyword in keywords
                        from pattern in stage
                        select (
                            Phrase.Of(
                                string.Format(CultureInfo.InvariantCulture, Escaped(pattern), Plain(keyword)),
                                Slots
                            ),
                            1.0
                        ),
                    ]
            ),
        ];

    /// <summary>Slots have braces of their own.</summary>
    private static string Escaped(string pattern) =>
        pattern
            .Replace("{place}", "{{place}}", StringComparison.Ordinal)
            .Replace("{in}", "{{in}}", StringComparison.Ordinal)
            .Replace("{when}", "{{when}}", StringComparison.Ordinal);

    /// <summary>Words of a keyword without what a phrase would take for a choice.</summary>
    private static string Plain(string keyword) => string.Join(' ', Words.Of(keyword));
}
