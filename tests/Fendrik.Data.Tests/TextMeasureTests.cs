using System.Globalization;
using CsCheck;
using Dapper;
using Fendrik.Core.AdText;
using Fendrik.Core.Matching;

namespace Fendrik.Data.Tests;

/// <summary>What the database makes of texts is what Core makes of them, whatever is in them.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class TextMeasureTests(WorkingCopyFixture fixture)
{
    /// <summary>Pieces that rules of Unicode join or part: marks, flags, families, Korean and Indian syllables, ends of lines.</summary>
    private static readonly string[] Pieces =
    [
        .. "a é e\u0301 z Z 9 ٣ ß İ ı ſ Σ ς ﬁ ’ ' - + . , ; / \u00a0 \u2003 \u3000 \t \r\n \n \u200d \u200b \ufeff \u00ad".Split(
            ' '
        ),
        " ",
        .. "🇬 🇧 👩 👧 🏽 ❤ \ufe0f ☃ 🎹 𝄞 ᄀ ᅡ ᆨ 가 각 ᄒ क ् ष ि \u0903 ำ กำ \u0600 \u0301 \u20dd ピアノ 調 律 \U000e0067 Я й".Split(
            ' '
        ),
    ];

    private static readonly Gen<string> Texts = Gen.OneOfConst(Pieces).Array[0, 12].Select(string.Concat);

    private async Task HoldsAsync(Func<string, string> expected, string sql)
    {
        string[] texts = [.. Enumerable.Range(0, 3_000).Select(_ => Texts.Single())];
        await using var connection = await fixture.Source.OpenConnectionAsync();

        var found = (
            await connection.QueryAsync<string>(
                $"select ({sql})::text from unnest(@texts) with ordinality as u(t, place) order by place",
                new { texts }
            )
        ).ToArray();

        texts
            .Zip(found)
            .Where(each => expected(each.First) != each.Second)
            .Select(each =>
                $"{string.Join(' ', each.First.EnumerateRunes().Select(rune => rune.Value.ToString("x", CultureInfo.InvariantCulture)))}: {expected(each.First)}, not {each.Second}"
            )
            .Take(5)
            .ShouldBeEmpty();
    }

    [Fact]
    public Task Characters_are_counted_alike() => HoldsAsync(text => $"{TextLength.Of(text)}", "count_characters(t)");

    /// <summary>What filters compare texts by.</summary>
    [Fact]
    public Task Texts_are_the_same_to_filters_and_to_identity() => HoldsAsync(TextIdentity.Of, "text_key(t)");

    [Fact]
    public Task Words_are_counted_alike() => HoldsAsync(text => $"{Words.CountTyped(text)}", "count_words(t)");
}
