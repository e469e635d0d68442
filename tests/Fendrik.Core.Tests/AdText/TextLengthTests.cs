using System.Text.Json;
using Fendrik.Core.AdText;
using Fendrik.Core.Networks;
using Fendrik.Tests.Shared;

namespace Fendrik.Core.Tests.AdText;

/// <summary>
/// Lengths where wide characters count two: UAX #11, classes W and F are wide, H, Na, N and A are not; clusters by UAX #29. The
/// classes of the examples are quoted from memory; the front end's counter is held to the same file.
/// </summary>
public class TextLengthTests
{
    private sealed record Example(string Text, int Characters, int Wide);

    public static TheoryData<string, int, int> Examples =>
        [
            .. JsonSerializer
                .Deserialize<List<Example>>(
                    File.ReadAllText(Repository.PathTo("src", "web", "src", "testing", "wideTexts.json")),
                    JsonSerializerOptions.Web
                )!
                .Select(each => (each.Text, each.Characters, each.Wide)),
        ];

    [Theory]
    [MemberData(nameof(Examples))]
    public void Wide_characters_count_what_the_network_says(string text, int characters, int wide)
    {
        TextLength.Of(text, 1).ShouldBe(characters);
        TextLength.Of(text, 2).ShouldBe(characters + wide);
    }

    [Fact]
    public void The_two_networks_differ_in_what_a_wide_character_counts()
    {
        int Length(string network) =>
            NetworkProfile.Of(network).LimitsOf(ItemKind.TextAd, "headlines").LengthOf("ピアノ調律");
        (Length("ostrel"), Length("pellow")).ShouldBe((5, 10));
    }
}
