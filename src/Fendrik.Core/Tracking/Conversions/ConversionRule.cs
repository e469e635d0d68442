using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Tracking.Conversions;

/// <summary>Why something that was done is no conversion of an action.</summary>
public enum NotCounted
{
    /// <summary>It counts.</summary>
    Counts = 0,

    /// <summary>The action is paused.</summary>
    Paused = 1,

    /// <summary>The action counts something else.</summary>
    OtherSource = 2,

    /// <summary>It was done elsewhere.</summary>
    Elsewhere = 3,

    /// <summary>People talked too short.</summary>
    TooShort = 4,

    /// <summary>It was done too long after the click, or before it.</summary>
    OutsideWindow = 5,
}

/// <summary>When something that somebody did is a conversion of an action, and what it is worth.</summary>
public static class ConversionRule
{
    /// <summary>Whether something is a conversion of an action, and if not, why.</summary>
    /// <param name="action">The action.</param>
    /// <param name="done">What was done.</param>
    /// <param name="clickedAt">When the click was made that led there.</param>
    public static NotCounted Of(ConversionAction action, TrackedEvent done, DateTimeOffset clickedAt) =>
        action.State == ItemState.Paused ? NotCounted.Paused
        : action.Source != done.Source ? NotCounted.OtherSource
        : action.Address is { } site && (done.Address is null || !SiteValue.Covers(site, done.Address))
            ? NotCounted.Elsewhere
        : IsCall(action.Source) && done.Seconds < Math.Max(1, action.LeastSeconds ?? 1) ? NotCounted.TooShort
        : IsWithin(action, done.At, clickedAt) ? NotCounted.Counts
        : NotCounted.OutsideWindow;

    /// <summary>True for what is done within an action's window: from the click on, for so many days.</summary>
    public static bool IsWithin(ConversionAction action, DateTimeOffset at, DateTimeOffset clickedAt) =>
        at >= clickedAt && at <= clickedAt.AddDays(WindowOf(action));

    /// <summary>What a conversion is worth, in the account's currency.</summary>
    public static decimal ValueOf(ConversionAction action, TrackedEvent done) =>
        action.Worth switch
        {
            ConversionWorth.Fixed => action.FixedValue ?? 0,
            ConversionWorth.Sent => done.Value,
            ConversionWorth.ByHand => 0,
        };

    /// <summary>Of conversions of one click, in the order in which they were made, those that an action counts.</summary>
    public static IEnumerable<T> Counted<T>(ConversionAction action, IEnumerable<T> made) =>
        action.Counting switch
        {
            ConversionCounting.OneForClick => made.Take(1),
            ConversionCounting.Each => made,
        };

    /// <summary>Days after a click within which an action counts.</summary>
    public static int WindowOf(ConversionAction action) => (int)(action.Window ?? ConversionAction.UsualWindow);

    /// <summary>True for what is done by telephone.</summary>
    public static bool IsCall(ConversionSource source) =>
        source is ConversionSource.CallFromAd or ConversionSource.CallFromSite;
}
