using Fendrik.Network.Worlds;

namespace Fendrik.Network.Tests;

public class WorldTests
{
    private static World With(string file, Func<string, string> change)
    {
        var files = WorldFiles.Shipped().ToDictionary();
        files[file] = change(files[file]);
        return WorldReader.Read(files);
    }

    private static WorldFaultException FaultOf(string file, Func<string, string> change) =>
        Should.Throw<WorldFaultException>(() => With(file, change));

    private static string WithLine(string text, string line) => text.TrimEnd('\n') + "\n" + line + "\n";

    public static TheoryData<string, string, string> Faults =>
        new()
        {
            { "places.tsv", "skipwith\tyorkshire\tGB\tnorth\t-1.0\t300\t", "latitude: “north” is not a number" },
            { "places.tsv", "skipwith\tyorkshire\tGB\t53.8", "4 fields, but 7 names" },
            { "places.tsv", "leeds\tyorkshire\tGB\t53.8\t-1.5\t300\t", "name: “leeds” is there already" },
            { "places.tsv", "skipwith\tyorkshire\tgb\t53.8\t-1.5\t300\t", "country: two capital letters" },
            { "phrases.tsv", "singing\tlook\t1\tsing", "need: “singing” is not known" },
            { "phrases.tsv", "tuning\tlook\t1\tpiano {colour}", "text: there is no slot “colour”" },
            { "phrases.tsv", "tuning\tlook\t1\tpiano [tuner", "text: the [ has no end" },
            { "phrases.tsv", "tuning\tdream\t1\tpiano", "stage: “dream” is none of look, compare, act" },
            { "calendar.tsv", "holiday\tx\t2026-05-02\t2026-05-01", "last: it is before the first day" },
            { "calendar.tsv", "holiday\tx\t2026-02-30\t2026-05-01", "first: “2026-02-30” is not a day" },
            { "lines.tsv", "+441632960999\tx\t17-9\t\t\t0.5\t0\t60\t1", "weekdays: “17-9” is not a span of hours" },
            { "slips.tsv", "piano\tpaino\t0", "weight: “0” is not a number from" },
            { "topics.tsv", "x.example\tx\tdancing", "needs: “dancing” is not known" },
            {
                "rivals.tsv",
                "ostrel\tX\ttuning\tatlantis\t0-24\t1\t0\t5\t1\t1\t24\t\ta\tb",
                "regions: “atlantis” is not known"
            },
        };

    [Theory]
    [MemberData(nameof(Faults))]
    public void Refuses_a_file_with_a_fault_and_says_which_line_and_why(string file, string line, string reason)
    {
        var text = WorldFiles.Shipped()[file];

        var fault = FaultOf(file, each => WithLine(each, line));

        (fault.File, fault.Line).ShouldBe((file, text.TrimEnd('\n').Split('\n').Length + 1));
        fault.Message.ShouldContain(reason);
    }

    [Fact]
    public void Refuses_a_need_without_phrases() =>
        FaultOf(
            "phrases.tsv",
            text =>
                string.Join(
                    '\n',
                    text.Split('\n').Where(line => !line.StartsWith("moving\t", StringComparison.Ordinal))
                )
        )
            .Message.ShouldContain("nobody types anything for “moving”");

    [Fact]
    public void Refuses_a_page_that_is_moved_in_a_circle() =>
        FaultOf(
            "pages.tsv",
            text =>
                WithLine(
                    WithLine(text, "a.example/one\tOne\t\tone\t\t1\t1\t\tnone\tnone\t\t\t\ta.example/two\t"),
                    "a.example/two\tTwo\t\ttwo\t\t1\t1\t\tnone\tnone\t\t\t\ta.example/one\t"
                )
        )
            .Message.ShouldContain("moved in a circle");

    [Fact]
    public void Refuses_a_world_with_a_file_missing() =>
        Should
            .Throw<WorldFaultException>(() =>
                WorldReader.Read(
                    WorldFiles
                        .Shipped()
                        .Where(file => file.Key != "needs.tsv")
                        .ToDictionary(file => file.Key, file => file.Value)
                )
            )
            .File.ShouldBe("needs.tsv");

    [Fact]
    public void Has_another_version_when_a_letter_of_it_is_another() =>
        With("topics.tsv", text => text.Replace("weddings", "Weddings", StringComparison.Ordinal))
            .Version.ShouldNotBe(World.Shipped.Version);

    [Fact]
    public void Follows_a_page_that_has_moved() =>
        World
            .Shipped.PageOf("https://tarnandfell.example/pianos-for-sale?x=1")!
            .Address.ShouldBe("tarnandfell.example/sales");

    [Fact]
    public void Takes_the_longest_address_that_fits_for_the_page()
    {
        World.Shipped.PageOf("https://tarnandfell.example/tuning/york")!.Address.ShouldBe("tarnandfell.example/tuning");
        World.Shipped.PageOf("https://tarnandfell.example/tuningfork")!.Address.ShouldBe("tarnandfell.example");
        World.Shipped.PageOf("https://elsewhere.example/tuning").ShouldBeNull();
    }

    // Great-circle distances between city centres as printed on road atlases' tables of air distances; from memory.
    [Theory]
    [InlineData("edinburgh", "glasgow", 67, 6)]
    [InlineData("leeds", "york", 36, 4)]
    [InlineData("newcastle", "toronto", 5_350, 160)]
    public void Knows_how_far_apart_places_are(string one, string two, double kilometres, double within)
    {
        Place Of(string name) => World.Shipped.Places.Single(place => place.Name == name);

        Of(one).KilometresTo(Of(two)).ShouldBe(kilometres, within);
    }

    [Fact]
    public void Has_fewer_searches_at_easter_and_more_of_what_grows()
    {
        var tuning = World.Shipped.Needs.Single(need => need.Id == "tuning");
        var easter = World.Shipped.OnDay(tuning, new DateOnly(2026, 4, 5));
        var before = World.Shipped.OnDay(tuning, new DateOnly(2026, 3, 22));
        var cargo = World.Shipped.Needs.Single(need => need.Id == "cargo-bike") with
        {
            Season = new Season("even", [.. Enumerable.Repeat(1.0, 12)]),
        };

        (easter / before).ShouldBeInRange(0.4, 0.6);
        (
            World.Shipped.OnDay(cargo, new DateOnly(2027, 1, 20))
            / World.Shipped.OnDay(cargo, new DateOnly(2026, 1, 20))
        ).ShouldBe(1 + cargo.Trend, 0.01);
    }
}
