using Fendrik.Core.Changes;

namespace Fendrik.Core.Tests.Changes;

public class TextEditTests
{
    private static string Apply(
        string text,
        TextOperation operation,
        string value = "",
        string? find = null,
        bool isExpression = false,
        bool matchCase = false,
        bool wholeWords = false
    ) =>
        TextEdit
            .Create(operation, value, find, isExpression, matchCase, wholeWords, out var problem)
            .ShouldNotBeNull(problem)
            .Apply(text);

    [Theory]
    [InlineData("Piano tuning", "piano", "organ", false, false, "organ tuning")]
    [InlineData("Piano tuning", "piano", "organ", true, false, "Piano tuning")]
    [InlineData("pianos and a piano", "piano", "organ", false, true, "pianos and a organ")]
    [InlineData("cost: $5", "$5", "$10", false, false, "cost: $10")]
    [InlineData("piano  hire now", "hire", "", false, false, "piano now")]
    [InlineData("a.b", ".", "-", false, false, "a-b")]
    public void Replaces_what_is_found_as_it_is_written(
        string text,
        string find,
        string value,
        bool matchCase,
        bool wholeWords,
        string after
    ) => Apply(text, TextOperation.Replace, value, find, matchCase: matchCase, wholeWords: wholeWords).ShouldBe(after);

    [Fact]
    public void Takes_groups_of_a_regular_expression_over() =>
        Apply("tuner york", TextOperation.Replace, "$2 $1", @"(\w+) (\w+)", isExpression: true).ShouldBe("york tuner");

    [Theory]
    [InlineData(TextOperation.Append, " leeds", "piano leeds")]
    [InlineData(TextOperation.Append, "leeds", "piano leeds")]
    [InlineData(TextOperation.Append, ", leeds", "piano, leeds")]
    [InlineData(TextOperation.Prepend, "grand", "grand piano")]
    [InlineData(TextOperation.Prepend, "“", "“piano")]
    [InlineData(TextOperation.Prepend, "grand ", "grand piano")]
    [InlineData(TextOperation.Set, "organ", "organ")]
    public void Adds_before_and_behind(TextOperation operation, string value, string after) =>
        Apply("piano", operation, value).ShouldBe(after);

    [Theory]
    [InlineData(TextOperation.CapitalWords, "tuner's day — é clair", "Tuner's Day — É Clair")]
    [InlineData(TextOperation.SentenceCase, "PIANO HIRE", "Piano hire")]
    [InlineData(TextOperation.SentenceCase, "“PIANO” hire", "“Piano” hire")]
    [InlineData(TextOperation.LowerCase, "Piano HIRE", "piano hire")]
    [InlineData(TextOperation.UpperCase, "straße", "STRAßE")]
    public void Changes_capitals(TextOperation operation, string text, string after) =>
        Apply(text, operation).ShouldBe(after);

    [Theory]
    [InlineData(TextOperation.Replace, "x", null, false, "Write what is to be found")]
    [InlineData(TextOperation.Replace, "x", "([", true, "not a regular expression")]
    [InlineData(TextOperation.Append, "  ", null, false, "Write the text first")]
    [InlineData(TextOperation.Set, "a\u0001", null, false, "control characters")]
    public void Says_what_is_wrong_with_an_edit(
        TextOperation operation,
        string value,
        string? find,
        bool isExpression,
        string said
    )
    {
        TextEdit.Create(operation, value, find, isExpression, false, false, out var problem).ShouldBeNull();
        problem.ShouldNotBeNull().ShouldContain(said);
    }

    [Fact]
    public void Stops_a_regular_expression_that_would_run_for_ever()
    {
        var edit = TextEdit.Create(TextOperation.Replace, "", "^(a+)+$", true, false, false, out _)!;

        Should.Throw<EditTooSlowException>(() => edit.Apply(new string('a', 50) + "!"));
    }
}
