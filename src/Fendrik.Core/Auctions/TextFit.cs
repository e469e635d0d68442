using Fendrik.Core.AdText.Insertion;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Auctions;

/// <summary>How well ads say what a keyword asks for, as a network judges before anybody has searched.</summary>
public static class TextFit
{
    /// <summary>The share of the keyword’s words in each ad, on average: 0 to 1; 0 without ads.</summary>
    /// <param name="words">Words of the keyword.</param>
    /// <param name="ads">The ads.</param>
    /// <param name="inserted">What is inserted into them.</param>
    public static decimal Of(IReadOnlyList<string> words, IReadOnlyCollection<Ad> ads, InsertedValues inserted) =>
        ads.Count == 0
            ? 0
            : ads.Average(ad =>
                QualityScore.ShareOfWords(
                    words,
                    ad.Texts.SelectMany(text => Words.Of(AdLine.Seen(text, inserted, FieldLimits.None).Text))
                )
            );
}
