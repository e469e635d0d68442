namespace Fendrik.Core.Auctions;

/// <summary>How well a landing page fits what is searched for, as a network that fetches it judges.</summary>
/// <remarks>The weights are this project's own: the trade knows that words, speed and a way to get in touch count.</remarks>
public static class PageFit
{
    private const decimal WordsWeight = 0.6m;
    private const decimal SpeedWeight = 0.25m;
    private const decimal ContactWeight = 0.15m;
    private const decimal Quick = 1_000;
    private const decimal Slow = 5_000;

    /// <summary>The fit: 0 to 1.</summary>
    /// <param name="words">Share of the searched words on the page: 0 to 1.</param>
    /// <param name="milliseconds">Until the page can be used on a phone.</param>
    /// <param name="canGetInTouch">True when a form or a booking works on phones, or there is a number.</param>
    public static decimal Of(decimal words, int milliseconds, bool canGetInTouch) =>
        WordsWeight * Math.Clamp(words, 0, 1)
        + SpeedWeight * Math.Clamp((Slow - milliseconds) / (Slow - Quick), 0, 1)
        + (canGetInTouch ? ContactWeight : 0);
}
