using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Serving;

/// <summary>A keyword that matches a search.</summary>
/// <param name="Keyword">The keyword with what it stands in.</param>
/// <param name="Closeness">How near the search is to it.</param>
/// <param name="Strength">The weakest relation that it hangs on, in percent.</param>
/// <param name="HasWordsOfSearch">True when its words are those of the search, in the same order.</param>
/// <param name="Hindrance">What keeps it from answering, or none.</param>
/// <param name="Ad">The ad that would show; none when there is none.</param>
/// <param name="Bid">How its bid comes about; none without a max CPC.</param>
/// <param name="Quality">Quality score: 1 to 10; none when something other than the budget keeps it from answering.</param>
public sealed record Candidate(
    ServedKeyword Keyword,
    Closeness Closeness,
    int Strength,
    bool HasWordsOfSearch,
    Hindrance? Hindrance,
    Ad? Ad,
    BidStack? Bid,
    int? Quality
)
{
    internal MatchingKeyword ToChooseFrom(Currency currency) =>
        new(Keyword.Keyword.Id, Keyword.Keyword.Match, HasWordsOfSearch, currency.ToMinor(Bid!.Bid) * Quality!.Value);
}

/// <summary>What comes of a search, up to the auction.</summary>
public enum AnswerKind
{
    /// <summary>A keyword answers.</summary>
    Answers = 1,

    /// <summary>Nobody pays the account: nothing answers.</summary>
    NoPayer = 2,

    /// <summary>No keyword matches.</summary>
    NothingMatches = 3,

    /// <summary>One would have answered but for its campaign's budget.</summary>
    KeptByBudget = 4,

    /// <summary>Negatives keep every keyword away.</summary>
    Blocked = 5,

    /// <summary>Keywords match, and something else keeps each from answering.</summary>
    MayNotAnswer = 6,
}

/// <summary>What answers a search, and why not the others.</summary>
/// <param name="Words">The search in the network's reading.</param>
/// <param name="Candidates">All keywords that match, the tighter match types first.</param>
/// <param name="Chosen">The one that answers; none when nothing does.</param>
/// <param name="Rule">By which rule it answers.</param>
/// <param name="KeptByBudget">The one that would have answered but for its campaign's budget; none when another reason holds.</param>
/// <param name="HasPayer">False when nobody pays the account: then nothing answers, whatever matches.</param>
public sealed record AnswerToSearch(
    IReadOnlyList<string> Words,
    IReadOnlyList<Candidate> Candidates,
    Candidate? Chosen,
    ChoiceRule? Rule,
    Candidate? KeptByBudget,
    bool HasPayer = true
)
{
    /// <summary>What comes of the search.</summary>
    public AnswerKind Kind =>
        Chosen is not null ? AnswerKind.Answers
        : !HasPayer ? AnswerKind.NoPayer
        : Candidates.Count == 0 ? AnswerKind.NothingMatches
        : KeptByBudget is not null ? AnswerKind.KeptByBudget
        : Candidates.All(each => each.Hindrance!.Kind == HindranceKind.Negative) ? AnswerKind.Blocked
        : AnswerKind.MayNotAnswer;

    /// <summary>The keyword that says best what is in the way: the nearest of those that match; none when none does.</summary>
    public Candidate? Nearest =>
        Candidates.OrderBy(each => each.Closeness).ThenBy(each => each.Keyword.Keyword.Id).FirstOrDefault();
}
