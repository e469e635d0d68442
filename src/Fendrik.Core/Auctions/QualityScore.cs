namespace Fendrik.Core.Auctions;

/// <summary>How a part of the quality score stands against others.</summary>
public enum PartStanding
{
    /// <summary>Below what is usual.</summary>
    BelowAverage = 1,

    /// <summary>As is usual.</summary>
    Average = 2,

    /// <summary>Above what is usual.</summary>
    AboveAverage = 3,
}

/// <summary>A quality score from 1 to 10 and the three parts it comes from, each from 0 to 1.</summary>
/// <remarks>The weights are this project's own: the trade knows the parts, not how a network weighs them.</remarks>
public sealed record QualityScore
{
    private const decimal ClickWeight = 0.45m;
    private const decimal TextWeight = 0.3m;
    private const decimal PageWeight = 0.25m;

    /// <summary>Puts the parts together.</summary>
    /// <param name="clickLikelihood">How likely a click is, against the best for such searches.</param>
    /// <param name="textFit">How well the ad's text fits the search.</param>
    /// <param name="pageFit">How well the landing page fits the search.</param>
    /// <exception cref="ArgumentOutOfRangeException">A part is not between 0 and 1.</exception>
    public QualityScore(decimal clickLikelihood, decimal textFit, decimal pageFit)
    {
        ClickLikelihood = Part(clickLikelihood);
        TextFit = Part(textFit);
        PageFit = Part(pageFit);
        Score = 1 + (int)Math.Round(9 * (ClickWeight * ClickLikelihood + TextWeight * TextFit + PageWeight * PageFit));
    }

    /// <summary>How likely a click is: 0 to 1.</summary>
    public decimal ClickLikelihood { get; }

    /// <summary>How well the text fits the search: 0 to 1.</summary>
    public decimal TextFit { get; }

    /// <summary>How well the page fits the search: 0 to 1.</summary>
    public decimal PageFit { get; }

    /// <summary>The score: 1 to 10.</summary>
    public int Score { get; }

    /// <summary>How a part stands against others.</summary>
    public static PartStanding StandingOf(decimal part) =>
        part < 0.4m ? PartStanding.BelowAverage
        : part > 0.6m ? PartStanding.AboveAverage
        : PartStanding.Average;

    /// <summary>A part in words: how it stands against others.</summary>
    public static string InWords(decimal part) => InWords(StandingOf(part));

    /// <summary>The same in words.</summary>
    public static string InWords(PartStanding standing) =>
        standing switch
        {
            PartStanding.BelowAverage => "below average",
            PartStanding.Average => "average",
            PartStanding.AboveAverage => "above average",
        };

    /// <summary>Share of the searched words, singular or plural alike, that a text contains: 0 to 1.</summary>
    public static decimal ShareOfWords(IReadOnlyList<string> searched, IEnumerable<string> text) =>
        ShareOfWords(searched, SingularsOf(text));

    /// <summary>The same for a text whose words were made singular before.</summary>
    public static decimal ShareOfWords(IReadOnlyList<string> searched, IReadOnlySet<string> singulars) =>
        searched.Count == 0
            ? 0
            : searched.Count(word => singulars.Contains(Matching.Plurals.Singular(word))) / (decimal)searched.Count;

    /// <summary>The words of a text, each singular.</summary>
    public static IReadOnlySet<string> SingularsOf(IEnumerable<string> text) =>
        text.Select(Matching.Plurals.Singular).ToHashSet(StringComparer.Ordinal);

    private static decimal Part(decimal value) =>
        value is >= 0 and <= 1
            ? value
            : throw new ArgumentOutOfRangeException(nameof(value), value, "A part of the score lies between 0 and 1.");
}
