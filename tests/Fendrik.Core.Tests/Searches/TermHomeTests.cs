using Fendrik.Core.Searches;

namespace Fendrik.Core.Tests.Searches;

/// <summary>Where a search belongs.</summary>
public class TermHomeTests
{
    private static HashSet<string> Words(string text) => [.. text.Split(' ')];

    private static PossibleHome Group(long id, long clicks, params string[] keywords) =>
        new(id, [.. keywords.Select(Words)], clicks);

    [Fact]
    public void Closeness_is_twice_what_is_shared_by_what_both_have() =>
        // Dice 1945: of a = 10 and b = 8 with 6 in common it is 12/18 (worked by hand from the formula).
        TermHome.Closeness(Words("a b c d e f g h i j"), Words("a b c d e f x y")).ShouldBe(12 / 18d, 1e-12);

    [Fact]
    public void The_group_with_the_closest_keyword_comes_first_and_strangers_are_left_out() =>
        TermHome
            .Of(
                Words("used upright piano leeds"),
                [Group(1, 9, "used piano"), Group(2, 0, "upright piano leeds"), Group(3, 50, "guitar strings")]
            )
            .Select(each => each.AdGroupId)
            .ShouldBe([2, 1]);

    [Fact]
    public void Between_equals_the_one_that_people_clicked_comes_first() =>
        TermHome
            .Of(Words("piano tuner"), [Group(1, 2, "piano tuner"), Group(2, 7, "piano tuner")])[0]
            .AdGroupId.ShouldBe(2);
}
