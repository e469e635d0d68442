using Fendrik.Core.Matching;

namespace Fendrik.Network.Worlds;

/// <summary>What a world is made of.</summary>
internal sealed record WorldParts
{
    public required string Version { get; init; }
    public required IReadOnlyList<Place> Places { get; init; }
    public required IReadOnlyList<Need> Needs { get; init; }
    public required IReadOnlyList<LandingPage> Pages { get; init; }
    public required IReadOnlyDictionary<string, string> Moved { get; init; }
    public required IReadOnlyList<PhoneLine> Lines { get; init; }
    public required IReadOnlyList<BookingSite> Bookings { get; init; }
    public required IReadOnlyList<SiteKind> Sites { get; init; }
    public required IReadOnlyList<Habit> Habits { get; init; }
    public required IReadOnlyDictionary<string, IReadOnlyList<(string Written, double Weight)>> Faults { get; init; }
    public required IReadOnlyList<SpecialDays> Days { get; init; }
    public required IReadOnlyList<ContentSite> Content { get; init; }
    public required IReadOnlyList<Audience> Audiences { get; init; }
    public required IReadOnlyDictionary<(Device, bool, int), double> Attention { get; init; }
    public required IReadOnlyDictionary<string, double> PerPound { get; init; }
    public required IReadOnlyDictionary<(string, string), IReadOnlyList<Rival>> Rivals { get; init; }
}

/// <summary>Reads the files of a world; what is wrong in one is refused with file, line and reason.</summary>
public static class WorldReader
{
    /// <summary>Most needs that ship; the numbers after these are for what an account brings.</summary>
    public const int MostNeeds = 200;

    /// <exception cref="WorldFaultException">A file is missing or has a fault.</exception>
    public static World Read(IReadOnlyDictionary<string, string> files)
    {
        WorldTable Table(string name) =>
            files.TryGetValue(name, out var text)
                ? WorldTable.Read(name, text)
                : throw new WorldFaultException(name, 1, "The file is not there.");

        var places = PlacesOf(Table("places.tsv"));
        var byName = places.ToDictionary(place => place.Name, StringComparer.Ordinal);
        var needs = new NeedReader(
            Table("curves.tsv"),
            Table("seasons.tsv"),
            Table("slots.tsv"),
            Table("phrases.tsv")
        ).Read(Table("needs.tsv"));
        var needIds = needs.ToDictionary(need => need.Id, need => need.Id, StringComparer.Ordinal);
        HashSet<string> Needs(WorldRow row) => [.. row.List("needs").Select(id => row.Known("needs", id, needIds))];

        PhoneLine[] lines = [.. Table("lines.tsv").Rows.Select(LineOf)];
        BookingSite[] bookings =
        [
            .. Table("bookings.tsv")
                .Rows.Select(row => new BookingSite(
                    row.Name("host"),
                    row.Name("name"),
                    row.OneOf<FormState>("form"),
                    row.OneOf<FormState>("formOnPhones"),
                    row.Spans("drops"),
                    row.Text("sendsBack") == "yes"
                )),
        ];
        var pages = Table("pages.tsv");
        var (landingPages, moved) = PagesOf(pages, Needs, byName, lines, bookings);
        return new World(
            new WorldParts
            {
                Version = WorldFiles.VersionOf(files),
                Places = places,
                Needs = needs,
                Pages = landingPages,
                Moved = moved,
                Lines = lines,
                Bookings = bookings,
                Sites = SitesOf(Table("sites.tsv")),
                Habits =
                [
                    .. Table("habits.tsv")
                        .Rows.Select(row => new Habit(
                            row.Name("habit"),
                            row.Number("share", 0, 100),
                            row.Number("fault", 0, 1),
                            row.Number("slip", 0, 1)
                        )),
                ],
                Faults = Table("slips.tsv")
                    .Rows.GroupBy(row => row.Name("word"), StringComparer.Ordinal)
                    .ToDictionary(
                        word => word.Key,
                        word =>
                            (IReadOnlyList<(string, double)>)
                                [.. word.Select(row => (row.Name("written"), row.Number("weight", 0.001, 1000)))]
                    ),
                Days = [.. Table("calendar.tsv").Rows.Select(DaysOf)],
                Content =
                [
                    .. Table("topics.tsv")
                        .Rows.Select(row => new ContentSite(row.Name("site"), row.Name("topic"), Needs(row))),
                ],
                Audiences =
                [
                    .. Table("audiences.tsv")
                        .Rows.Select(row => new Audience(
                            row.Name("audience"),
                            row.Name("topic"),
                            Needs(row),
                            row.Number("share", 0, 1)
                        )),
                ],
                Attention = Table("attention.tsv")
                    .Rows.ToDictionary(
                        row =>
                            (
                                row.OneOf<Device>("device"),
                                row.OneOf<PagePart>("part") == PagePart.Top,
                                row.Whole("place", 1, 20)
                            ),
                        row => row.Number("looks", 0, 1)
                    ),
                PerPound = Table("money.tsv")
                    .Rows.ToDictionary(row => row.Name("currency"), row => row.Number("perPound", 0.000001, 1e9)),
                Rivals = RivalsOf(Table("rivals.tsv"), Needs, places),
            }
        );
    }

    private enum PagePart
    {
        Top,
        Bottom,
    }

    private static Place[] PlacesOf(WorldTable table)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal);
        return
        [
            .. table.Rows.Select(
                (row, at) =>
                    seen.Add(row.Name("name"))
                        ? new Place(
                            at + 1,
                            row.Name("name"),
                            row.Name("region"),
                            row.Text("country") is { Length: 2 } country && country.All(char.IsAsciiLetterUpper)
                                ? country
                                : throw row.Fault("country", "two capital letters of ISO 3166 are expected."),
                            row.Number("latitude", -90, 90),
                            row.Number("longitude", -180, 180),
                            row.Whole("population", 1, 100_000_000),
                            row.List("others")
                        )
                        : throw row.Fault("name", $"“{row.Name("name")}” is there already.")
            ),
        ];
    }

    private static SiteKind[] SitesOf(WorldTable table) =>
        [
            .. table.Rows.Select(row => new SiteKind(
                row.OneOf<SiteKinds>("kind"),
                row.Number("share", 0, 1),
                row.Number("earnest", 0, 10),
                row.Number("clicks", 0, 10),
                row.Number("accident", 0, 1)
            )),
        ];

    private static SpecialDays DaysOf(WorldRow row) =>
        row.Day("first") <= row.Day("last")
            ? new SpecialDays(row.OneOf<DayKind>("kind"), row.Name("name"), row.Day("first"), row.Day("last"))
            : throw row.Fault("last", "it is before the first day.");

    private static PhoneLine LineOf(WorldRow row)
    {
        var weekdays = row.Hours("weekdays");
        return new PhoneLine(
            row.Name("number"),
            row.Name("name"),
            [weekdays, weekdays, weekdays, weekdays, weekdays, row.Hours("saturdays"), row.Hours("sundays")],
            row.Number("answered", 0, 1),
            row.Number("engaged", 0, 1),
            row.Number("talk", 1, 10_000),
            row.Number("spread", 0, 5)
        );
    }

    private static (IReadOnlyList<LandingPage>, IReadOnlyDictionary<string, string>) PagesOf(
        WorldTable table,
        Func<WorldRow, HashSet<string>> needs,
        IReadOnlyDictionary<string, Place> places,
        PhoneLine[] lines,
        BookingSite[] bookings
    )
    {
        var lineOf = lines.ToDictionary(line => line.Number, StringComparer.Ordinal);
        var bookingOf = bookings.ToDictionary(site => site.Host, StringComparer.Ordinal);
        T? Maybe<T>(WorldRow row, string column, IReadOnlyDictionary<string, T> known)
            where T : class => row.Text(column) is { Length: > 0 } name ? row.Known(column, name, known) : null;
        var pages = table
            .Rows.Select(row => new LandingPage(
                World.Bare(row.Name("address")),
                row.Name("name"),
                needs(row),
                [.. Words.Of(row.Name("words")).Select(Plurals.Singular)],
                Maybe(row, "place", places),
                row.Whole("desktop", 1, 120_000),
                row.Whole("phone", 1, 120_000),
                Maybe(row, "number", lineOf),
                row.OneOf<FormState>("form"),
                row.OneOf<FormState>("formOnPhones"),
                Maybe(row, "booking", bookingOf),
                row.NumberOrNone("price", 0, 1e9),
                row.Spans("down"),
                row.Text("tag").Length == 0 ? TagState.Works : row.OneOf<TagState>("tag")
            ))
            .ToArray();
        var moved = table
            .Rows.Where(row => row.Text("moved").Length > 0)
            .ToDictionary(
                row => World.Bare(row.Name("address")),
                row => World.Bare(row.Name("moved")),
                StringComparer.Ordinal
            );
        foreach (var row in table.Rows.Where(row => row.Text("moved").Length > 0))
        {
            var seen = new HashSet<string>(StringComparer.Ordinal);
            for (var at = World.Bare(row.Name("address")); moved.TryGetValue(at, out var to); at = to)
            {
                if (!seen.Add(at))
                {
                    throw row.Fault("moved", $"“{row.Name("address")}” is moved in a circle and never arrives.");
                }
            }
        }

        return (pages, moved);
    }

    private static Dictionary<(string, string), IReadOnlyList<Rival>> RivalsOf(
        WorldTable table,
        Func<WorldRow, HashSet<string>> needs,
        Place[] places
    )
    {
        var regions = places.Select(place => place.Region).Distinct().ToDictionary(region => region, region => region);
        var networks = NetworkProfile.All.Keys.ToDictionary(id => id, id => id);
        return table
            .Rows.Select(
                (row, at) =>
                {
                    var hours = row.Hours("hours") ?? throw row.Fault("hours", "it is empty.");
                    return (
                        Network: row.Known("network", row.Name("network"), networks),
                        Needs: needs(row),
                        Rival: new Rival(
                            at + 1,
                            row.Name("name"),
                            row.List("regions").Select(region => row.Known("regions", region, regions)).ToHashSet(),
                            hours.From,
                            hours.To,
                            row.Number("bid", 0.001, 1000),
                            row.Number("drift", 0, 2),
                            row.Whole("quality", 1, 10),
                            row.Number("appeal", 0, 10),
                            row.Number("active", 0, 1),
                            row.Number("ends", 0, 24),
                            row.DayOrNone("from"),
                            row.Name("headline"),
                            row.Name("description")
                        )
                    );
                }
            )
            .SelectMany(row => row.Needs.Select(need => (Key: (row.Network, need), row.Rival)))
            .GroupBy(row => row.Key)
            .ToDictionary(rows => rows.Key, rows => (IReadOnlyList<Rival>)[.. rows.Select(row => row.Rival)]);
    }
}
