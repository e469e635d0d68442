using Fendrik.Core.Calls;

namespace Fendrik.Server.Api.Calls;

/// <summary>By what calls are told apart.</summary>
public enum CallGrouping
{
    /// <summary>Each call.</summary>
    Call = 1,

    /// <summary>By campaign.</summary>
    Campaign = 2,

    /// <summary>By keyword.</summary>
    Keyword = 3,

    /// <summary>By hour of the day.</summary>
    Hour = 4,

    /// <summary>By where callers are.</summary>
    Area = 5,

    /// <summary>By what was called: the number beside an ad, or on the site.</summary>
    Number = 6,
}

/// <summary>Calls of a period, added up.</summary>
/// <param name="Rang">All calls.</param>
/// <param name="Answered">Calls that somebody answered.</param>
/// <param name="Counted">Calls that count.</param>
/// <param name="Missed">Calls that nobody answered.</param>
/// <param name="Engaged">Calls to an engaged line.</param>
/// <param name="CostPerAnswered">Cost of their clicks ÷ answered calls; none without any.</param>
/// <param name="CostPerCounted">Cost of their clicks ÷ counted calls; none without any.</param>
public sealed record CallTotals(
    int Rang,
    int Answered,
    int Counted,
    int Missed,
    int Engaged,
    decimal? CostPerAnswered,
    decimal? CostPerCounted
);

/// <summary>How many answered calls were so long.</summary>
/// <param name="From">From so many seconds.</param>
/// <param name="Calls">How many.</param>
/// <param name="Counts">True when calls so long count.</param>
public sealed record LengthOfCalls(int From, int Calls, bool Counts);

/// <summary>What it would be if calls counted from other seconds.</summary>
/// <param name="Seconds">The seconds.</param>
/// <param name="Counted">Answered calls at least so long.</param>
public sealed record OtherLeast(int Seconds, int Counted);

/// <summary>An hour of the day.</summary>
/// <param name="Hour">0 to 23.</param>
/// <param name="Answered">Calls that somebody answered.</param>
/// <param name="Missed">Calls in vain.</param>
/// <param name="OpenShare">Share of the hour within answering hours on these days, from 0 to 1.</param>
public sealed record HourAnswer(int Hour, int Answered, int Missed, double OpenShare);

/// <summary>A call in the log.</summary>
public sealed record CallAnswer(
    DateTime At,
    string Area,
    int Rang,
    int Talked,
    CallVerdict Verdict,
    string Says,
    int Nth,
    string? Keyword,
    MatchType? Match,
    long CampaignId,
    string Campaign,
    long AdGroupId,
    string AdGroup,
    Device Device,
    bool FromAd,
    decimal? Cost,
    string? Dialled
);

/// <summary>Calls that have something in common.</summary>
/// <param name="Name">What.</param>
/// <param name="Totals">What they come to.</param>
public sealed record CallGroup(string Name, CallTotals Totals);

/// <summary>An action that counts calls.</summary>
/// <param name="Id">The action.</param>
/// <param name="Version">Its version, against which edits hold.</param>
public sealed record CallAction(long Id, long Version);

/// <summary>The calls of an account.</summary>
/// <param name="First">First day; none before anything is reported.</param>
/// <param name="Last">Last day.</param>
/// <param name="Now">The period.</param>
/// <param name="Before">As many days before it.</param>
/// <param name="Least">Seconds from which calls count; none where no action counts them, or actions differ.</param>
/// <param name="Actions">The actions that count calls.</param>
/// <param name="Lengths">How long answered calls were.</param>
/// <param name="Others">What other seconds would come to.</param>
/// <param name="Hours">The hours of the day.</param>
/// <param name="DaysOfHours">Which days these are, in words.</param>
/// <param name="MissedTitle">What is to be said of calls in vain.</param>
/// <param name="MissedSays">More of it, in sentences.</param>
/// <param name="MissedOutside">True when calls came in vain outside the answering hours.</param>
/// <param name="Groups">Calls by what was asked for; nothing for each by itself.</param>
/// <param name="Calls">A page of the log, the latest first.</param>
public sealed record CallsAnswer(
    DateOnly? First,
    DateOnly? Last,
    CallTotals Now,
    CallTotals Before,
    int? Least,
    IReadOnlyList<CallAction> Actions,
    IReadOnlyList<LengthOfCalls> Lengths,
    IReadOnlyList<OtherLeast> Others,
    IReadOnlyList<HourAnswer> Hours,
    string DaysOfHours,
    string MissedTitle,
    string MissedSays,
    bool MissedOutside,
    IReadOnlyList<CallGroup> Groups,
    IReadOnlyList<CallAnswer> Calls
);
