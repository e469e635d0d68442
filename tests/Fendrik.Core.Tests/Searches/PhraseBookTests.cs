using CsCheck;
using Fendrik.Core.Searches;

namespace Fendrik.Core.Tests.Searches;

public class PhraseBookTests
{
    private sealed record Term(string[] Words, long Clicks, decimal Cost, decimal Conversions);

    private static readonly Gen<Term> AnyTerm = Gen.Select(
        Gen.OneOfConst("a", "b", "c", "d", "piano").Array[0, 6],
        Gen.Long[0, 20],
        Gen.Int[0, 5000],
        Gen.OneOfConst(0m, 0m, 0.5m, 1m, 3m),
        (words, clicks, pence, conversions) => new Term(words, clicks, pence / 100m, conversions)
    );

    /// <summary>The same counted phrase by phrase, as one would by hand.</summary>
    private static List<CountedPhrase> ByHand(IReadOnlyList<Term> terms) =>
        [
            .. terms
                .SelectMany(term =>
                    Enumerable
                        .Range(1, 3)
                        .SelectMany(size =>
                            Enumerable
                                .Range(0, Math.Max(0, term.Words.Length - size + 1))
                                .Select(at => (Size: size, Text: string.Join(' ', term.Words[at..(at + size)])))
                        )
                        .Distinct()
                        .Select(phrase => (phrase.Size, phrase.Text, term))
                )
                .GroupBy(each => (each.Size, each.Text))
                .Where(group => group.Count() > 1)
                .Select(group => new CountedPhrase(
                    group.Key.Size,
                    group.Key.Text,
                    group.Count(),
                    group.Sum(each => each.term.Clicks),
                    group.Sum(each => each.term.Cost),
                    group.Where(each => each.term.Conversions > 0).Sum(each => each.term.Cost),
                    group.Sum(each => each.term.Conversions)
                )),
        ];

    private static PhraseBook BookOf(IEnumerable<Term> terms)
    {
        var book = new PhraseBook();
        foreach (var term in terms)
        {
            book.Add(term.Words, term.Clicks, term.Cost, term.Conversions);
        }

        return book;
    }

    [Fact]
    public void Counts_what_one_would_count_by_hand() =>
        AnyTerm
            .List[0, 30]
            .Sample(terms =>
                BookOf(terms)
                    .Count()
                    .OrderBy(phrase => phrase.Size)
                    .ThenBy(phrase => phrase.Text, StringComparer.Ordinal)
                    .ShouldBe(
                        ByHand(terms)
                            .OrderBy(phrase => phrase.Size)
                            .ThenBy(phrase => phrase.Text, StringComparer.Ordinal)
                    )
            );

    [Fact]
    public void A_term_wastes_once_however_many_of_its_words_do() =>
        AnyTerm
            .List[0, 30]
            .Sample(terms =>
            {
                var wasting = ByHand(terms)
                    .Where(phrase => phrase is { Size: 1, Conversions: 0, Terms: >= PhraseBook.LeastTerms })
                    .Select(phrase => phrase.Text)
                    .ToHashSet();
                BookOf(terms)
                    .Wasted()
                    .ShouldBe(terms.Where(term => term.Words.Any(wasting.Contains)).Sum(term => term.Cost));
            });

    [Fact]
    public void A_phrase_that_a_term_has_twice_counts_once() =>
        BookOf([new Term(["a", "b", "a", "b"], 1, 2m, 0), new Term(["a", "b"], 1, 3m, 1)])
            .Count()
            .Single(phrase => phrase.Text == "a b")
            .ShouldBe(new CountedPhrase(2, "a b", 2, 2, 5m, 3m, 1));
}
