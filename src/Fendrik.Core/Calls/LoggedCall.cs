namespace Fendrik.Core.Calls;

/// <summary>A call to a tracked number, by the clock on the account's wall.</summary>
/// <param name="At">When it began to ring.</param>
/// <param name="Rang">Seconds until somebody answered, or the caller gave up.</param>
/// <param name="Talked">Seconds that people talked; 0 where nobody answered.</param>
/// <param name="End">How it ended.</param>
/// <param name="FromAd">True when the number beside an ad was called; false for the number on the site.</param>
/// <param name="Caller">Tells one caller from another.</param>
/// <param name="ClickId">The click that it came from; empty where that is not known.</param>
/// <param name="Cost">What that cost.</param>
public sealed record LoggedCall(
    DateTime At,
    int Rang,
    int Talked,
    CallEnd End,
    bool FromAd,
    string Caller,
    string ClickId,
    decimal Cost
);

/// <summary>What a call comes to.</summary>
public enum CallVerdict
{
    /// <summary>It counts.</summary>
    Counts = 1,

    /// <summary>Somebody answered, and people talked too short.</summary>
    TooShort = 2,

    /// <summary>Nobody answered.</summary>
    Missed = 3,

    /// <summary>The line was engaged.</summary>
    Engaged = 4,

    /// <summary>It would count, but a call of the same person does already.</summary>
    SameCaller = 5,
}

/// <summary>A call with what it comes to.</summary>
/// <param name="Call">The call.</param>
/// <param name="Verdict">What it comes to.</param>
/// <param name="Short">Seconds that it was too short.</param>
/// <param name="Nth">Which call of the same person it is, from 1.</param>
public readonly record struct JudgedCall(LoggedCall Call, CallVerdict Verdict, int Short, int Nth);
