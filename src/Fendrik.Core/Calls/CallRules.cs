namespace Fendrik.Core.Calls;

/// <summary>From how many seconds on calls count, and whether a person counts once.</summary>
/// <param name="FromAd">Least seconds of a call from an ad; none where no action counts these.</param>
/// <param name="FromSite">Least seconds of a call from the site; none likewise.</param>
/// <param name="OnceEach">True when a person who calls several times counts once.</param>
public readonly record struct CallRules(int? FromAd, int? FromSite, bool OnceEach)
{
    /// <summary>Judges calls, in the order in which they were made.</summary>
    public IReadOnlyList<JudgedCall> Judge(IEnumerable<LoggedCall> calls)
    {
        var seen = new Dictionary<string, (int Calls, bool Counted)>(StringComparer.Ordinal);
        var judged = new List<JudgedCall>();
        foreach (var call in calls.OrderBy(call => call.At))
        {
            var (before, counted) = seen.GetValueOrDefault(call.Caller);
            var verdict = VerdictOf(call, counted);
            seen[call.Caller] = (before + 1, counted || verdict == CallVerdict.Counts);
            judged.Add(
                new JudgedCall(
                    call,
                    verdict,
                    verdict == CallVerdict.TooShort && LeastOf(call) is { } least ? least - call.Talked : 0,
                    before + 1
                )
            );
        }

        return judged;
    }

    /// <summary>Seconds from which a call counts; none where no action counts it.</summary>
    public int? LeastOf(LoggedCall call) => call.FromAd ? FromAd : FromSite;

    private CallVerdict VerdictOf(LoggedCall call, bool counted) =>
        call.End switch
        {
            CallEnd.Missed => CallVerdict.Missed,
            CallEnd.Engaged => CallVerdict.Engaged,
            CallEnd.Answered => LeastOf(call) is not { } least || call.Talked < Math.Max(1, least)
                ? CallVerdict.TooShort
            : OnceEach && counted ? CallVerdict.SameCaller
            : CallVerdict.Counts,
        };
}

/// <summary>What calls come to together.</summary>
/// <param name="Rang">All calls.</param>
/// <param name="Answered">Calls that somebody answered.</param>
/// <param name="Counted">Calls that count.</param>
/// <param name="Missed">Calls that nobody answered.</param>
/// <param name="Engaged">Calls to an engaged line.</param>
/// <param name="Cost">What the clicks cost that they came from, each click once.</param>
public sealed record CallSums(int Rang, int Answered, int Counted, int Missed, int Engaged, decimal Cost)
{
    /// <summary>Cost ÷ answered calls; none without any.</summary>
    public decimal? CostPerAnswered => AnsweredOfClick > 0 ? Cost / AnsweredOfClick : null;

    /// <summary>Cost ÷ counted calls; none without any.</summary>
    public decimal? CostPerCounted => CountedOfClick > 0 ? Cost / CountedOfClick : null;

    /// <summary>Answered calls of which the click is known, with what it cost.</summary>
    public int AnsweredOfClick { get; private init; } = Answered;

    /// <summary>Counted calls of which the click is known.</summary>
    public int CountedOfClick { get; private init; } = Counted;

    /// <summary>Adds calls up.</summary>
    public static CallSums Of(IEnumerable<JudgedCall> calls)
    {
        var all = calls.ToArray();
        int Count(Func<JudgedCall, bool> which) => all.Count(which);
        return new CallSums(
            all.Length,
            Count(each => each.Call.End == CallEnd.Answered),
            Count(each => each.Verdict == CallVerdict.Counts),
            Count(each => each.Verdict == CallVerdict.Missed),
            Count(each => each.Verdict == CallVerdict.Engaged),
            all.DistinctBy(each => each.Call.ClickId).Sum(each => each.Call.Cost)
        )
        {
            AnsweredOfClick = Count(each => each.Call is { End: CallEnd.Answered, ClickId.Length: > 0 }),
            CountedOfClick = Count(each => each is { Verdict: CallVerdict.Counts, Call.ClickId.Length: > 0 }),
        };
    }
}
