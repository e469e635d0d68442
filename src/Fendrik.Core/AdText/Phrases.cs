using System.Text.RegularExpressions;

namespace Fendrik.Core.AdText;

/// <summary>What a line of an ad does to whoever reads it.</summary>
public enum PhraseKind
{
    /// <summary>It asks what the reader wants.</summary>
    Question = 1,

    /// <summary>It says what to do now.</summary>
    CallToAction = 2,

    /// <summary>It says what there is to get, and for how much.</summary>
    Offer = 3,

    /// <summary>It says why to believe it.</summary>
    Proof = 4,

    /// <summary>It names the thing, or something else.</summary>
    Other = 5,
}

/// <summary>
/// Tells what a line does, so that ads are put together of different kinds: a question, what is offered, a call to action at the end
/// (common practice, no source). By which words they are told is Fendrik's own choice, in English.
/// </summary>
public static partial class Phrases
{
    private static readonly HashSet<string> Actions = new(
        [
            "ask",
            "book",
            "browse",
            "buy",
            "call",
            "check",
            "choose",
            "click",
            "come",
            "compare",
            "contact",
            "discover",
            "drop",
            "enquire",
            "find",
            "get",
            "give",
            "join",
            "learn",
            "order",
            "phone",
            "pick",
            "plan",
            "play",
            "request",
            "reserve",
            "ring",
            "save",
            "search",
            "see",
            "sell",
            "send",
            "shop",
            "speak",
            "start",
            "stop",
            "talk",
            "tap",
            "tell",
            "try",
            "visit",
            "write",
        ],
        StringComparer.OrdinalIgnoreCase
    );

    /// <summary>What a line does; of several things the one that comes first here: asks, tells what to do, offers, proves.</summary>
    public static PhraseKind Of(string line)
    {
        var text = line.Trim();
        return text.EndsWith('?') ? PhraseKind.Question
            : Actions.Contains(FirstWord().Match(text).Value) ? PhraseKind.CallToAction
            : Offers().IsMatch(text) ? PhraseKind.Offer
            : Proofs().IsMatch(text) ? PhraseKind.Proof
            : PhraseKind.Other;
    }

    [GeneratedRegex(@"^\p{L}+")]
    private static partial Regex FirstWord();

    [GeneratedRegex(
        @"[£€$¥]\s?\d|\d\s?%|\bfrom \d|\b(free|half price|included?|no (charge|deposit|fee|fees|obligation)|on us|offer|discount|gift|cheap|low(est)? prices?|instalments|monthly|a month)\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Offers();

    [GeneratedRegex(
        @"\d+ years?|\bsince (1[6-9]|20)\d\d\b|\b(years of|trained|qualified|certified|approved|accredited|insured|guaranteed?|promise|rated|reviews?|stars?|award|members? of|trusted|family[- ](run|owned)|by hand|own (shed|workshop)|(two|three|four|five|six|seven|eight|nine|ten|twenty|thirty|forty|fifty|hundreds?|thousands?) (years?|models|pianos|customers))\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Proofs();
}
