using System.Text;
using CsCheck;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Tests.Matching;

public class NormalFormTests
{
    [Theory]
    [InlineData("tuner's piano-stool, 2nd", "tuners piano stool 2nd")]
    [InlineData("tuner’s", "tuners")]
    [InlineData("CAFÉ klavier", "café klavier")]
    [InlineData("cafe\u0301", "café")]
    [InlineData("?!", "")]
    // UAX #15, figure 6: compatibility forms. Full width, ligatures.
    [InlineData("ＰＩＡＮＯ ﬁne", "piano fine")]
    // CaseFolding.txt of Unicode, status F: ß is ss; final sigma is sigma.
    [InlineData("STRASSE Straße", "strasse strasse")]
    [InlineData("ΣΊΣΥΦΟΣ σίσυφος", "σίσυφοσ σίσυφοσ")]
    // Default ignorable: soft hyphen, zero width joiner, variation selector.
    [InlineData("so\u00adft pi\u200dano a\ufe0f", "soft piano a")]
    [InlineData("E.U. news u.k", "eu news uk")]
    [InlineData("version 2.5", "version 2 5")]
    [InlineData("10,000 pianos 1.250.000 1'000 25\u00a0000", "10000 pianos 1250000 1000 25000")]
    [InlineData("12,34 1,2,3", "12 34 1 2 3")]
    // Two halves of a pair of surrogates, each by itself.
    [InlineData("a\ud800b \udc00c", "a b c")]
    public void Words_are_the_same_however_they_are_typed(string text, string words) =>
        string.Join(' ', Words.Of(text)).ShouldBe(words);

    [Fact]
    public void Chinese_and_Japanese_are_parted_by_dictionary()
    {
        Words.Of("钢琴调音北京").ShouldBe(["钢琴", "调音", "北京"]);
        Words.Of("ピアノ調律 東京").ShouldBe(["ピアノ", "調律", "東京"]);
    }

    [Fact]
    public void Accents_go_where_the_network_drops_them_and_marks_of_other_scripts_stay()
    {
        var drops = new MatchingRules { DropsAccents = true };

        Words.Of("Café ά Čapek", drops).ShouldBe(["cafe", "α", "capek"]);
        Words.Of("Café").ShouldBe(["café"]);
        Words.Of("й हिन्दी", drops).ShouldBe(Words.Of("й हिन्दी"));
    }

    [Fact]
    public void An_emoji_is_a_word_where_the_network_reads_it()
    {
        Words.Of("piano 🎹❤️", new MatchingRules { ReadsEmoji = true }).ShouldBe(["piano", "🎹", "❤"]);
        Words.Of("piano 🎹").ShouldBe(["piano"]);
    }

    // Unicode, chapter 3, D146: toNFKC_Casefold gives the same when it is done twice.
    [Fact]
    public void Any_text_is_read_without_an_error_and_its_words_read_as_themselves() =>
        Gen.OneOf(Gen.Char, Gen.OneOfConst('\ud800', '\udfff', '.', ',', '’', ' ', 'ß', 'a', '1'))
            .Array[0, 12]
            .Select(characters => new string(characters))
            .Sample(text =>
            {
                var words = Words.Of(text, new MatchingRules { ReadsEmoji = true, DropsAccents = true });
                _ = Words.CountTyped(text);
                return words.All(word => word.Length > 0 && word.IsNormalized(NormalizationForm.FormKC));
            });

    [Theory]
    [InlineData("piano tuning", 2)]
    [InlineData("10,000 pianos", 3)]
    [InlineData("tuner’s stool", 2)]
    [InlineData("\ud800", 0)]
    public void Limits_count_words_as_they_are_typed(string text, int words) => Words.CountTyped(text).ShouldBe(words);
}
