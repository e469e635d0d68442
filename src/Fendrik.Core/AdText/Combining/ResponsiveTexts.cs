namespace Fendrik.Core.AdText.Combining;

/// <summary>Lines that show together: numbers of headlines and of descriptions, from 0, in the order in which they stand.</summary>
/// <param name="Headlines">Numbers of the headlines.</param>
/// <param name="Descriptions">Numbers of the descriptions.</param>
public sealed record AdCombination(IReadOnlyList<int> Headlines, IReadOnlyList<int> Descriptions);

/// <summary>The lines of a responsive ad, and which of them may stand together where. The network goes by it, and whoever lists what can appear.</summary>
public sealed class ResponsiveTexts
{
    private readonly IReadOnlyList<int>[] _apart;
    private readonly ILookup<int, int> _apartOf;

    /// <param name="headlines">Headlines, as they are written.</param>
    /// <param name="descriptions">Descriptions, as they are written.</param>
    /// <param name="keptApart">What never shows together.</param>
    public ResponsiveTexts(IEnumerable<string> headlines, IEnumerable<string> descriptions, string? keptApart)
    {
        Headlines = [.. headlines.Select(PlacedLine.Of)];
        Descriptions = [.. descriptions.Select(PlacedLine.Of)];
        var numbers = Headlines
            .Concat(Descriptions)
            .Index()
            .GroupBy(each => each.Item.Text, each => each.Index, StringComparer.OrdinalIgnoreCase)
            .ToDictionary(same => same.Key, same => same.First(), StringComparer.OrdinalIgnoreCase);
        _apart =
        [
            .. KeptApart
                .Read(keptApart)
                .Where(texts => texts.All(numbers.ContainsKey))
                .Select(texts => (IReadOnlyList<int>)[.. texts.Select(text => numbers[text]).Distinct()])
                .Where(apart => apart.Count > 1),
        ];
        _apartOf = _apart
            .Index()
            .SelectMany(each => each.Item.Select(line => (line, each.Index)))
            .ToLookup(each => each.line, each => each.Index);
    }

    /// <summary>The headlines.</summary>
    public IReadOnlyList<PlacedLine> Headlines { get; }

    /// <summary>The descriptions.</summary>
    public IReadOnlyList<PlacedLine> Descriptions { get; }

    /// <summary>True when lines all stand in one that was struck out.</summary>
    public bool IsApart(AdCombination combination) => Completes(LinesOf(combination));

    /// <summary>
    /// Puts one together: place after place takes the line that is worth most of those that may stand there, and that what stands
    /// there already does not forbid.
    /// </summary>
    /// <param name="headlines">Headlines that show.</param>
    /// <param name="descriptions">Descriptions that show.</param>
    /// <param name="worthOfHeadline">How much a headline is worth, by its number.</param>
    /// <param name="worthOfDescription">How much a description is worth.</param>
    public AdCombination Choose(
        int headlines,
        int descriptions,
        Func<int, double> worthOfHeadline,
        Func<int, double> worthOfDescription
    )
    {
        var taken = new List<int>(headlines + descriptions);
        var heads = Fill(Headlines, 0, headlines, worthOfHeadline, taken);
        return new AdCombination(heads, Fill(Descriptions, Headlines.Count, descriptions, worthOfDescription, taken));
    }

    /// <summary>All ways to fill so many places from these lines, each line at most once, in the order in which they are written.</summary>
    public static IEnumerable<IReadOnlyList<int>> Arrangements(IReadOnlyList<PlacedLine> lines, int places)
    {
        var may = new List<int>[places];
        for (var place = 0; place < places; place++)
        {
            may[place] = [.. Enumerable.Range(0, lines.Count).Where(line => lines[line].MayStandAt(place + 1, lines))];
        }

        return Arrange(may, 0, []);
    }

    private static IEnumerable<IReadOnlyList<int>> Arrange(List<int>[] may, int place, int[] before)
    {
        if (place == may.Length)
        {
            return [before];
        }

        var open = may[place].Where(line => !before.Contains(line)).ToArray();
        // A place that nothing may stand at stays empty.
        return open.Length == 0
            ? Arrange(may, place + 1, before)
            : open.SelectMany(line => Arrange(may, place + 1, [.. before, line]));
    }

    private List<int> Fill(
        IReadOnlyList<PlacedLine> lines,
        int offset,
        int places,
        Func<int, double> worthOf,
        List<int> taken
    )
    {
        var filled = new List<int>(places);
        for (var place = 1; place <= places; place++)
        {
            var (best, worth, free) = (-1, double.NegativeInfinity, false);
            for (var line = 0; line < lines.Count; line++)
            {
                if (taken.Contains(offset + line) || !lines[line].MayStandAt(place, lines))
                {
                    continue;
                }

                // What was struck out shows only where nothing else is left to show.
                taken.Add(offset + line);
                var fine = !Completes(taken);
                taken.RemoveAt(taken.Count - 1);
                if ((fine && !free) || (fine == free && worthOf(line) > worth))
                {
                    (best, worth, free) = (line, worthOf(line), fine);
                }
            }

            if (best >= 0 && (free || filled.Count == 0))
            {
                filled.Add(best);
                taken.Add(offset + best);
            }
        }

        return filled;
    }

    private IReadOnlyList<int> LinesOf(AdCombination combination) =>
        [.. combination.Headlines, .. combination.Descriptions.Select(line => Headlines.Count + line)];

    private bool Completes(IReadOnlyList<int> lines)
    {
        if (_apart.Length == 0)
        {
            return false;
        }

        foreach (var line in lines)
        {
            foreach (var number in _apartOf[line])
            {
                if (_apart[number].All(lines.Contains))
                {
                    return true;
                }
            }
        }

        return false;
    }
}
