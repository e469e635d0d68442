using Fendrik.Core.Changes;

namespace Fendrik.Core.Tests.Changes;

public class TextChangeTests
{
    private static string Marked(string before, string after) =>
        string.Concat(TextChange.Parts(before, after).Select(part => part.IsNew ? $"[{part.Text}]" : part.Text));

    [Theory]
    [InlineData("Book Your Tuner Today", "Call Your Tuner Today", "[Call] Your Tuner Today")]
    [InlineData("Book Your Tuner Today", "Book Your Tuner", "Book Your Tuner")]
    [InlineData("Piano Tuning", "Piano Tuning At Home", "Piano Tuning[ At Home]")]
    [InlineData("Same Week", "Same Week", "Same Week")]
    [InlineData("", "Same Week", "[Same Week]")]
    [InlineData("Tuned", "Tuner", "[Tuner]")]
    public void What_is_new_is_told_by_whole_words(string before, string after, string marked) =>
        Marked(before, after).ShouldBe(marked);

    [Fact]
    public void Parts_add_up_to_the_text()
    {
        var any = new Random(20261127);
        string[] words = ["piano", "tuning", "  ", "é", "\u0301", "🎹", "at", "home", ""];
        string Text() => string.Join(' ', Enumerable.Range(0, any.Next(8)).Select(_ => words[any.Next(words.Length)]));
        for (var trial = 0; trial < 500; trial++)
        {
            var after = Text();
            string.Concat(TextChange.Parts(Text(), after).Select(part => part.Text)).ShouldBe(after);
        }
    }

    [Fact]
    public void A_line_that_only_moved_is_no_news()
    {
        var lines = TextChange.Parts(["Piano Tuning", "Book Today"], ["Book Today", "Piano Tuner", "At Home"]);
        lines[0].ShouldBe([new TextPart("Book Today", false)]);
        // It came of the one that stood in its place.
        lines[1].ShouldBe([new TextPart("Piano Tuner", true)]);
        lines[2].ShouldBe([new TextPart("At Home", true)]);
    }
}
