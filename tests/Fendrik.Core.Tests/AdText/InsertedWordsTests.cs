using CsCheck;
using Fendrik.Core.Accounts;
using Fendrik.Core.AdText.Insertion;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Tests.AdText;

public class InsertedWordsTests
{
    private static readonly InsertedValues Leeds = new(
        "piano tuner leeds",
        "Piano tuner",
        "Tuning",
        "Leeds",
        new DateTime(2026, 12, 12, 18, 30, 0)
    );

    private static string Seen(string text, InsertedValues? values = null, int? longest = 32) =>
        AdLine.Seen(text, values ?? Leeds, new FieldLimits { Length = longest }).Text;

    /// <summary>
    /// Liquid's documentation of its filters, quoted from memory: capitalize “makes the first character of a string capitalized”,
    /// upcase and downcase all of them, default “sets a default value for any variable with no assigned value”.
    /// </summary>
    [Theory]
    [InlineData("{{ \"my great title\" | capitalize | default: \"x\" }}", "My great title")]
    [InlineData("{{ \"Parker Moore\" | upcase | default: \"x\" }}", "PARKER MOORE")]
    [InlineData("{{ \"Parker Moore\" | downcase | default: \"x\" }}", "parker moore")]
    public void Filters_do_what_Liquid_says(string text, string expected)
    {
        var (template, problem) = InsertionLanguage.Read(text);

        problem.ShouldBeNull();
        InsertionLanguage.Write(template!, _ => null, null).ShouldBe(expected);
    }

    [Theory]
    [InlineData("{{ keyword | default: \"Piano Tuning\" }}", "piano tuner leeds")]
    [InlineData("{{ keyword | capitalize | default: \"Piano Tuning\" }}", "Piano tuner leeds")]
    [InlineData("{{ keyword | each_word | default: \"Piano Tuning\" }} Today", "Piano Tuner Leeds Today")]
    [InlineData("Tuned In {{ place | default: \"The North\" }}", "Tuned In Leeds")]
    [InlineData("{{ ad_group | default: \"x\" }}, {{ campaign | default: \"y\" }}", "Piano tuner, Tuning")]
    [InlineData("{{ \"Tarn & Fell <b>\" | default: \"x\" }}", "Tarn & Fell <b>")]
    [InlineData("Ends In {{ \"2026-12-24\" | days_until | default: \"Hours\" }}", "Ends In 12 days")]
    [InlineData("Ends In {{ \"2026-12-13\" | days_until | default: \"Hours\" }}", "Ends In 1 day")]
    [InlineData("Ends In {{ \"2026-12-12\" | days_until | default: \"Hours\" }}", "Ends In Hours")]
    public void Words_are_put_in(string text, string seen) => Seen(text).ShouldBe(seen);

    [Fact]
    public void What_does_not_fit_falls_back_as_a_whole()
    {
        var seen = AdLine.Seen(
            "{{ keyword | each_word | default: \"Piano Tuning\" }}",
            Leeds with
            {
                Keyword = "tune my old upright piano this week",
            },
            new FieldLimits { Length = 32 }
        );

        seen.ShouldBe(new InsertedText("Piano Tuning", true));
    }

    [Fact]
    public void A_place_that_is_not_known_falls_back_and_the_words_beside_it_stay() =>
        AdLine
            .Seen(
                "{{ keyword | default: \"Tuner\" }}, {{ place | default: \"North\" }}",
                Leeds with
                {
                    Place = null,
                },
                new FieldLimits { Length = 32 }
            )
            .ShouldBe(new InsertedText("piano tuner leeds, North", true));

    /// <summary>Whatever is inserted, a text is never longer than its fallbacks or the limit, and no word is cut.</summary>
    [Fact]
    public void No_word_is_ever_cut()
    {
        const string Text = "{{ keyword | each_word | default: \"Piano Tuner\" }} In {{ place | default: \"York\" }}";
        Gen.Select(Gen.String[Gen.Char['a', 'z'], 1, 40], Gen.String[Gen.Char['a', 'z'], 1, 20])
            .Sample(
                (keyword, place) =>
                {
                    var seen = Seen(Text, Leeds with { Keyword = keyword, Place = place });
                    var capital = char.ToUpperInvariant(keyword[0]) + keyword[1..];
                    string[] whole = [$"{capital} In {place}", $"Piano Tuner In {place}", "Piano Tuner In York"];
                    whole.ShouldContain(seen);
                    seen.Length.ShouldBeLessThanOrEqualTo(32);
                }
            );
    }

    [Theory]
    [InlineData("{{ keyword }}", "needs a fallback")]
    [InlineData("{{ keyword | default: \"x\"", "do not close")]
    [InlineData("{% for i in (1..1000000000) %}x{% endfor %}", "not decide or repeat")]
    [InlineData("{{ secret | default: \"x\" }}", "nothing of this name")]
    [InlineData("{{ keyword | replace: \"a\", \"b\" | default: \"x\" }}", "cannot be done")]
    [InlineData("{{ keyword | default: \"x\" | upcase }}", "written last")]
    [InlineData("{{ \"2026-02-30\" | days_until | default: \"x\" }}", "needs a day")]
    [InlineData("{{ keyword[0] | default: \"x\" }}", "nothing of this name")]
    public void What_cannot_be_read_says_why(string text, string why) =>
        AdLine.Of(text).ShouldNotBeNull().Problem.ShouldNotBeNull().ShouldContain(why);

    [Fact]
    public void A_hundred_thousand_characters_are_not_read() =>
        AdLine.Of("{{" + new string('a', 100_000)).ShouldNotBeNull().Problem.ShouldNotBeNull();

    [Theory]
    [InlineData("{{ keyword | default: \"Piano Tuning\" }}", 12)]
    [InlineData("{{ \"2026-12-24\" | days_until | default: \"now\" }}", 8)]
    [InlineData("Piano 🎹", 7)]
    public void Its_fallback_or_its_longest_countdown_has_to_fit(string text, int length) =>
        AdLine.LengthOf(text, FieldLimits.None).ShouldBe(length);

    [Fact]
    public void An_insertion_is_read_as_it_was_written()
    {
        var names = Enum.GetValues<InsertedName>();
        var cases = Enum.GetValues<InsertedCase>();
        Gen.Select(
                Gen.Int[0, names.Length - 1],
                Gen.Int[0, cases.Length - 1],
                Gen.String[Gen.OneOfConst('a', 'B', ' ', '\'', '|', 'é', '{', '%'), 1, 20].Select(text => $"x{text}x")
            )
            .Sample(
                (name, letters, fallback) =>
                {
                    var said = names[name];
                    var insertion = new Insertion(
                        said,
                        cases[letters],
                        Core.Items.Values.ValueType.Single(fallback),
                        said == InsertedName.Countdown ? new DateOnly(2027, 3, 31) : null
                    );

                    Insertion
                        .PartsOf($"Before {insertion.Write()} after")
                        .ShouldBe([
                            new LinePart("Before ", null),
                            new LinePart(insertion.Write(), insertion),
                            new LinePart(" after", null),
                        ]);
                }
            );
    }

    [Theory]
    [InlineData(InsertedWords.Keyword, "piano tuner")]
    [InlineData(InsertedWords.Search, "piano tuner near me")]
    public void A_network_inserts_the_keyword_or_the_search(InsertedWords inserted, string expected) =>
        InsertedValues.SearchedWords(inserted, "piano tuner", "piano tuner near me").ShouldBe(expected);

    [Fact]
    public void The_bar_within_inserted_words_parts_no_lines() =>
        new AdLinesValue("headline", 14)
            .Read("One | {{ keyword | default: \"Two\" }} | Three", ReadingGround.Plain(Currency.Of("GBP")))
            .Value.ShouldBeOfType<string[]>()
            .ShouldBe(["One", "{{ keyword | default: \"Two\" }}", "Three"]);

    [Theory]
    [InlineData("{{ keyword | default: \"A Fallback That Is Far Too Long To Fit\" }}", "headlines-long")]
    [InlineData("{{ keyword }}", "headlines-unreadable")]
    public void An_ad_that_cannot_show_so_is_stopped(string headline, string code)
    {
        var type = ItemTypes.Of(ItemKind.TextAd);
        var values = new ItemValues(type) { [type["headlines"]] = new[] { headline, "Tuned At Home" } };

        type.Check(values, new CheckReport(type.Kind, 1, NetworkProfile.Of("ostrel"), Currency.Of("GBP")))
            .Select(finding => (finding.Weight, finding.Code))
            .ShouldContain((Weight.Blocker, code));
    }

    [Fact]
    public void Reviewers_read_what_people_surely_see() =>
        ReviewedTexts
            .RefusedIn(
                new ItemValues(ItemTypes.Of(ItemKind.TextAd))
                {
                    [ItemTypes.Of(ItemKind.TextAd)["headlines"]] = new[] { "{{ keyword | default: \"Click Here\" }}" },
                },
                NetworkProfile.Of("ostrel").Reviewing
            )
            .Single()
            .Text.ShouldBe("Click Here");

    [Theory]
    [InlineData(
        "Tuned {{ keyword | each_word | default: \"Now\" }}",
        "Tuned ‹searched words with Every Word large, else “Now”›"
    )]
    [InlineData("{{ \"2026-12-24\" | days_until | default: \"now\" }}", "‹days until 24 Dec 2026, else “now”›")]
    [InlineData("{{ keyword | upcase | default: \"x\" }}", "{{ keyword | upcase | default: \"x\" }}")]
    public void Changes_of_inserted_words_are_told_in_words(string written, string told) =>
        new AdLinesValue("headline", 14).InWords(new[] { written }, Currency.Of("GBP")).ShouldBe(told);
}
