using Fendrik.Core.AdText.Insertion;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;

namespace Fendrik.Core.AdText.Combining;

/// <summary>One way in which a responsive ad can appear.</summary>
/// <param name="Headlines">Headlines as they are written, in the order in which they stand.</param>
/// <param name="Descriptions">Descriptions, likewise.</param>
/// <param name="Problems">Why it is better struck out, a sentence each; empty when it is fine.</param>
/// <param name="IsApart">True when it was struck out.</param>
/// <param name="KeptApart">What the ad keeps apart when this one is struck out, or let back where it was.</param>
public sealed record ArrangedAd(
    IReadOnlyList<string> Headlines,
    IReadOnlyList<string> Descriptions,
    IReadOnlyList<string> Problems,
    bool IsApart,
    string KeptApart
);

/// <summary>Some of the ways in which a responsive ad can appear, and how many there are.</summary>
/// <param name="Count">How many there are.</param>
/// <param name="Apart">How many of them were struck out.</param>
/// <param name="Marked">How many of the others are better struck out.</param>
/// <param name="Ads">Those that were asked for.</param>
public sealed record ArrangedPage(long Count, long Apart, long Marked, IReadOnlyList<ArrangedAd> Ads);

/// <summary>Which of all ways are asked for.</summary>
public enum ArrangedFilter
{
    /// <summary>All.</summary>
    All = 1,

    /// <summary>Those that are better struck out.</summary>
    Marked = 2,

    /// <summary>Those that were struck out.</summary>
    Apart = 3,
}

/// <summary>Lists all ways in which a responsive ad can appear on a screen.</summary>
public static class ArrangedAds
{
    private const int WordsOfOnesOwn = 3;

    /// <summary>Lists them: those that are named first, then the others in the order in which the lines are written.</summary>
    /// <param name="keptApart">What never shows together, as the ad has it.</param>
    /// <param name="headlines">Headlines, as they are written.</param>
    /// <param name="descriptions">Descriptions, as they are written.</param>
    /// <param name="network">The network.</param>
    /// <param name="device">The screen.</param>
    /// <param name="filter">Which of them.</param>
    /// <param name="first">Lines of those that go first, such as those that showed most.</param>
    /// <param name="most">How many at most.</param>
    /// <param name="cancellation">Nobody waits any more.</param>
    public static ArrangedPage List(
        IReadOnlyList<string> headlines,
        IReadOnlyList<string> descriptions,
        string? keptApart,
        NetworkProfile network,
        Device device,
        ArrangedFilter filter,
        IReadOnlyList<(IReadOnlyList<string> Headlines, IReadOnlyList<string> Descriptions)> first,
        int most,
        CancellationToken cancellation = default
    )
    {
        var lines = new ResponsiveTexts(headlines, descriptions, keptApart);
        var rules = network.Responsive;
        var heads = Judged(lines.Headlines, rules.Headlines.On(device), "headlines", network);
        var texts = Judged(lines.Descriptions, rules.Descriptions.On(device), "descriptions", network);
        var again = Repeated(lines, network);
        var headMasks = heads.Select(each => each.Lines.Aggregate(0L, (mask, line) => mask | (1L << line))).ToArray();
        var textMasks = texts.Select(each => each.Lines.Aggregate(0L, (mask, line) => mask | again[line])).ToArray();
        var rank = new Dictionary<string, int>(StringComparer.Ordinal);
        foreach (var (place, each) in first.Index())
        {
            rank.TryAdd(KeyOf(each.Headlines, each.Descriptions), place);
        }

        var (apart, marked, unranked) = (0L, 0L, 0);
        var ranked = new List<(int Rank, ArrangedAd Ad)>();
        var others = new List<ArrangedAd>();
        foreach (var (headPlace, head) in heads.Index())
        {
            cancellation.ThrowIfCancellationRequested();
            foreach (var (textPlace, text) in texts.Index())
            {
                var repeats = (headMasks[headPlace] & textMasks[textPlace]) != 0;
                var combination = new AdCombination(head.Lines, text.Lines);
                var isApart = lines.IsApart(combination);
                var isMarked = !isApart && (repeats || head.Problems.Count > 0 || text.Problems.Count > 0);
                apart += isApart ? 1 : 0;
                marked += isMarked ? 1 : 0;
                var wanted = filter switch
                {
                    ArrangedFilter.All => true,
                    ArrangedFilter.Marked => isMarked,
                    ArrangedFilter.Apart => isApart,
                };
                // Those that go first may come late in the order of the lines.
                if (!wanted || (unranked >= most && ranked.Count == rank.Count))
                {
                    continue;
                }

                var place = rank.Count == 0 ? -1 : rank.GetValueOrDefault(KeyOf(head.Texts, text.Texts), -1);
                if (place < 0 && unranked >= most)
                {
                    continue;
                }

                Problem[] problems =
                [
                    .. head.Problems,
                    .. text.Problems,
                    .. repeats ? RepeatedIn(lines, head, text, again) : [],
                ];
                var ad = new ArrangedAd(
                    head.Texts,
                    text.Texts,
                    [.. problems.Select(each => each.Sentence)],
                    isApart,
                    Toggled(keptApart, head, text, problems, isApart)
                );
                if (place < 0)
                {
                    unranked++;
                    others.Add(ad);
                }
                else
                {
                    ranked.Add((place, ad));
                }
            }
        }

        return new ArrangedPage(
            (long)heads.Count * texts.Count,
            apart,
            marked,
            [.. ranked.OrderBy(each => each.Rank).Select(each => each.Ad).Concat(others).Take(most)]
        );
    }

    private sealed record Problem(string Sentence, IReadOnlyList<string> Texts);

    private sealed record Arranged(
        IReadOnlyList<int> Lines,
        IReadOnlyList<string> Texts,
        IReadOnlyList<Problem> Problems
    );

    private static List<Arranged> Judged(
        IReadOnlyList<PlacedLine> lines,
        int places,
        string name,
        NetworkProfile network
    )
    {
        var type = ItemTypes.Of(ItemKind.ResponsiveAd);
        var values = (LinesValue)type[name].Type;
        var limits = network.LimitsOf(type, type[name]);
        var ofLine = lines
            .Select(line =>
                values.LengthOf(line.Text, limits) > limits.Length
                    ? new Problem($"“{values.SeenOf(line.Text)}” is too long.", [line.Text])
                    : null
            )
            .ToArray();
        var ofPair = new Problem?[lines.Count, lines.Count];
        for (var one = 0; one < lines.Count; one++)
        {
            for (var other = one + 1; other < lines.Count; other++)
            {
                var (left, right) = (values.SeenOf(lines[one].Text), values.SeenOf(lines[other].Text));
                ofPair[one, other] = ofPair[other, one] = AdCombinations.SaysTwice(left, right, network.Reach)
                    ? new Problem($"“{left}” and “{right}” say the same.", [lines[one].Text, lines[other].Text])
                    : null;
            }
        }

        return
        [
            .. ResponsiveTexts
                .Arrangements(lines, places)
                .Select(numbers => new Arranged(
                    numbers,
                    [.. numbers.Select(number => lines[number].Text)],
                    [.. ProblemsOf(numbers, ofLine, ofPair)]
                )),
        ];
    }

    /// <summary>
    /// For each description the headlines that it says again, a bit for each: those of at least so many words that all stand in it. A
    /// short headline names the thing, and a description may as well.
    /// </summary>
    private static long[] Repeated(ResponsiveTexts lines, NetworkProfile network)
    {
        var headlines = lines.Headlines.Select(line => Content(line, network)).ToArray();
        return
        [
            .. lines.Descriptions.Select(description =>
            {
                var said = Content(description, network);
                var mask = 0L;
                foreach (var (place, headline) in headlines.Index())
                {
                    mask |= headline.Count >= WordsOfOnesOwn && headline.IsSubsetOf(said) ? 1L << place : 0;
                }

                return mask;
            }),
        ];
    }

    private static HashSet<string> Content(PlacedLine line, NetworkProfile network) =>
        AdCombinations.ContentOf(AdLine.FallbackOf(line.Text), network.Reach);

    private static IEnumerable<Problem> RepeatedIn(ResponsiveTexts lines, Arranged head, Arranged text, long[] again) =>
        from description in text.Lines
        from headline in head.Lines
        where (again[description] & (1L << headline)) != 0
        let says = lines.Headlines[headline].Text
        let repeats = lines.Descriptions[description].Text
        select new Problem(
            $"“{AdLine.FallbackOf(says)}” is said again in “{AdLine.FallbackOf(repeats)}”.",
            [says, repeats]
        );

    private static IEnumerable<Problem> ProblemsOf(
        IReadOnlyList<int> numbers,
        IReadOnlyList<Problem?> ofLine,
        Problem?[,] ofPair
    )
    {
        for (var one = 0; one < numbers.Count; one++)
        {
            if (ofLine[numbers[one]] is { } alone)
            {
                yield return alone;
            }

            for (var other = one + 1; other < numbers.Count; other++)
            {
                if (ofPair[numbers[one], numbers[other]] is { } together)
                {
                    yield return together;
                }
            }
        }
    }

    /// <summary>What says the same is struck out wherever it stands together; anything else is struck out by its headlines.</summary>
    private static string Toggled(
        string? keptApart,
        Arranged head,
        Arranged text,
        IReadOnlyList<Problem> problems,
        bool isApart
    )
    {
        var sets = KeptApart.Read(keptApart);
        if (isApart)
        {
            var shown = head.Texts.Concat(text.Texts).ToHashSet(StringComparer.OrdinalIgnoreCase);
            return KeptApart.Write(sets.Where(set => !set.All(shown.Contains)));
        }

        var pair = problems.FirstOrDefault(each => each.Texts.Count > 1)?.Texts;
        return KeptApart.Write(
            sets.Append(pair ?? (head.Texts.Count > 1 ? head.Texts : [.. head.Texts, .. text.Texts]))
        );
    }

    private static string KeyOf(IReadOnlyList<string> headlines, IReadOnlyList<string> descriptions) =>
        string.Join('\n', headlines) + "\n\n" + string.Join('\n', descriptions);
}
