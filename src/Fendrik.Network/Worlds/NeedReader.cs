namespace Fendrik.Network.Worlds;

/// <summary>Reads needs with their curves, seasons and phrases.</summary>
internal sealed class NeedReader(WorldTable curves, WorldTable seasons, WorldTable slots, WorldTable phrases)
{
    private static readonly Dictionary<string, (int First, int Last)> DaysByName = new()
    {
        ["mon-fri"] = (0, 4),
        ["sat-sun"] = (5, 6),
        ["mon-sun"] = (0, 6),
    };

    /// <exception cref="WorldFaultException">A file has a fault; a need has no phrases.</exception>
    public IReadOnlyList<Need> Read(WorldTable needs)
    {
        var weeks = curves.Rows.GroupBy(row => row.Name("name")).ToDictionary(rows => rows.Key, WeekOf);
        var years = seasons.Rows.ToDictionary(
            row => row.Name("name"),
            row => new Season(
                row.Name("name"),
                [.. Enumerable.Range(1, 12).Select(month => row.Number($"{month}", 0, 1000) / 100)]
            )
        );
        var said = PhrasesOf(needs);
        var seen = new HashSet<string>(StringComparer.Ordinal);
        return
        [
            .. needs.Rows.Select(
                (row, at) =>
                    at >= WorldReader.MostNeeds
                        ? throw row.Fault("id", $"there are more than {WorldReader.MostNeeds} needs.")
                    : !seen.Add(row.Name("id")) ? throw row.Fault("id", $"“{row.Name("id")}” is there already.")
                    : NeedOf(
                        row,
                        at,
                        row.Known("curve", row.Name("curve"), weeks),
                        row.Known("season", row.Name("season"), years),
                        said
                    )
            ),
        ];
    }

    private static Need NeedOf(
        WorldRow row,
        int number,
        double[] week,
        Season season,
        IReadOnlyDictionary<string, IReadOnlyList<IReadOnlyList<(Phrase, double)>>> said
    ) =>
        new()
        {
            Number = number,
            Id = row.Name("id"),
            People = row.Number("people", 0, 100_000),
            Week = week,
            Season = season,
            Phone = row.Number("phone", 0, 1),
            Tablet = row.Number("tablet", 0, 1),
            Young = row.Number("young", 0, 1),
            Old = row.Number("old", 0, 1),
            Female = row.Number("female", 0, 1),
            Urgent = row.Number("urgent", 0, 1),
            Worth = row.Number("worth", 0, 1e9),
            Spread = row.Number("spread", 0, 5),
            Far = row.Number("far", 0, 50_000),
            Ways =
            [
                (Way.Call, row.Number("call", 0, 100)),
                (Way.Form, row.Number("form", 0, 100)),
                (Way.Booking, row.Number("book", 0, 100)),
                (Way.Purchase, row.Number("buy", 0, 100)),
            ],
            Earnest = row.Number("earnest", 0, 1),
            Gap = row.Number("gap", 0.01, 1000),
            Searches = row.Number("searches", 0, 4),
            Away = row.Number("away", 0, 1),
            Abroad = row.Number("abroad", 0, 1),
            Holiday = row.Number("holiday", 0, 10),
            School = row.Number("school", 0, 10),
            Trend = row.Number("trend", -0.9, 10),
            Clicks = row.Number("clicks", 0, 1),
            Top = row.Number("top", 0, 1000),
            Bottom = row.Number("bottom", 0, 1000),
            Phrases = said.TryGetValue(row.Name("id"), out var phrases)
                ? phrases
                : throw row.Fault(
                    "id",
                    $"nobody types anything for “{row.Name("id")}”; phrases.tsv has no line for it."
                ),
        };

    private Dictionary<string, IReadOnlyList<IReadOnlyList<(Phrase, double)>>> PhrasesOf(WorldTable needs)
    {
        var known = needs.Rows.Select(row => row.Name("id")).Distinct().ToDictionary(id => id, id => id);
        var texts = slots
            .Rows.GroupBy(row => row.Name("slot"))
            .ToDictionary(
                rows => rows.Key,
                rows => new Phrase.Slot([.. rows.Select(row => (row.Text("text"), row.Number("weight", 0.001, 1000)))])
            );
        return phrases
            .Rows.Select(row =>
                (
                    Need: row.Known("need", row.Name("need"), known),
                    Stage: row.OneOf<Stage>("stage"),
                    Phrase: Phrase.TryParse(row.Name("text"), texts, out var problem)
                        ?? throw row.Fault("text", problem!),
                    Weight: row.Number("weight", 0.001, 1000)
                )
            )
            .GroupBy(row => row.Need)
            .ToDictionary(
                rows => rows.Key,
                rows =>
                    (IReadOnlyList<IReadOnlyList<(Phrase, double)>>)
                        [.. Enum.GetValues<Stage>().Select(stage => Said([.. rows], stage))]
            );
    }

    /// <summary>What is typed in a stage; where nothing is said of it, what is typed in any.</summary>
    private static IReadOnlyList<(Phrase, double)> Said(
        IReadOnlyList<(string Need, Stage Stage, Phrase Phrase, double Weight)> rows,
        Stage stage
    )
    {
        var own = rows.Where(row => row.Stage == stage).ToArray();
        return [.. (own.Length > 0 ? own : rows).Select(row => (row.Phrase, row.Weight))];
    }

    private static double[] WeekOf(IEnumerable<WorldRow> rows)
    {
        var week = new double[168];
        foreach (var row in rows)
        {
            var (first, last) = row.Known("days", row.Name("days"), DaysByName);
            for (var day = first; day <= last; day++)
            {
                for (var hour = 0; hour < 24; hour++)
                {
                    week[day * 24 + hour] = row.Number($"{hour}", 0, 1e6);
                }
            }
        }

        var mean = week.Average();
        return [.. week.Select(hour => hour / mean)];
    }
}
