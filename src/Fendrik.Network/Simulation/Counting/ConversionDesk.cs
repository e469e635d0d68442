using Fendrik.Core.Accounts;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation.Counting;

/// <summary>A conversion that an action counted.</summary>
/// <param name="ActionId">The action; 0 where the account has none yet.</param>
/// <param name="At">When it was done.</param>
/// <param name="Told">When the network heard of it.</param>
/// <param name="Value">What it is worth in the account's currency.</param>
/// <param name="Counts">True when it is a goal of the campaign.</param>
/// <param name="Steers">True when strategies learn from it.</param>
public readonly record struct CountedConversion(
    long ActionId,
    DateTimeOffset At,
    DateTimeOffset Told,
    decimal Value,
    bool Counts,
    bool Steers
);

/// <summary>A visit that is over.</summary>
/// <param name="Result">How it ended.</param>
/// <param name="Value">What it is worth in the account's currency.</param>
/// <param name="Page">The landing page; none for a call from an ad, and where the world does not know it.</param>
/// <param name="Address">Where the click led.</param>
/// <param name="ClickedAt">When.</param>
/// <param name="Calls">True when the click was a call.</param>
/// <param name="IsMeasured">False when the number that was called is none of the network's.</param>
internal readonly record struct EndedVisit(
    VisitResult Result,
    decimal Value,
    LandingPage? Page,
    string Address,
    DateTimeOffset ClickedAt,
    bool Calls,
    bool IsMeasured
);

/// <summary>Counts what visits left by the actions of an account, as far as the network hears of it.</summary>
/// <param name="days">The account's days.</param>
internal sealed class ConversionDesk(AccountDay days)
{
    /// <summary>The hour of the next morning at which other companies send their confirmations.</summary>
    private const int Sending = 6;

    /// <summary>What an account counts of a visit: by its actions, or, until it has any, whoever gets in touch.</summary>
    /// <param name="goals">The account's actions.</param>
    /// <param name="own">The goals of the campaign's own.</param>
    /// <param name="visit">The visit.</param>
    public IReadOnlyList<CountedConversion> CountedOf(ConversionGoals goals, string? own, in EndedVisit visit)
    {
        var result = visit.Result;
        return goals.Actions.Count > 0
                ? [.. Of(goals, own, [.. VisitEvents.Of(visit)], visit.ClickedAt, visit.IsMeasured)]
            : result.End == VisitEnd.InTouch
                ? [new CountedConversion(0, result.At, result.Told, visit.Value, true, true)]
            : [];
    }

    /// <summary>True when calls go to a number of the network's: beside the ad, or put on the page by its tag.</summary>
    public static bool IsTracked(LandingPage? page, bool fromAd, bool isMeasured) =>
        fromAd ? isMeasured : page is null || page.Tag != TagState.Missing;

    /// <summary>What the actions of an account count of a visit.</summary>
    /// <param name="goals">The account's actions.</param>
    /// <param name="own">The goals of the campaign's own.</param>
    /// <param name="events">What was done.</param>
    /// <param name="clickedAt">When the click was made.</param>
    /// <param name="measured">False when the number that was called is none of the network's.</param>
    private IEnumerable<CountedConversion> Of(
        ConversionGoals goals,
        string? own,
        IReadOnlyList<VisitEvent> events,
        DateTimeOffset clickedAt,
        bool measured
    )
    {
        foreach (var action in goals.Actions)
        {
            var made =
                from each in events
                where ConversionRule.Of(action, each.Done, clickedAt) == NotCounted.Counts
                let told = HeardAt(action, each, measured)
                where told is not null
                orderby each.Done.At
                select new CountedConversion(
                    action.Id,
                    each.Done.At,
                    told.Value,
                    ConversionRule.ValueOf(action, each.Done),
                    ConversionGoals.Counts(action, own),
                    ConversionGoals.Steers(action, own)
                );
            foreach (var each in ConversionRule.Counted(action, made))
            {
                yield return each;
            }
        }
    }

    /// <summary>When the network hears of something by the way of an action; none when it never does.</summary>
    internal DateTimeOffset? HeardAt(ConversionAction action, in VisitEvent each, bool measured)
    {
        var tagged = each.Page is null || each.Page.Tag != TagState.Missing;
        return each.Done.Source switch
        {
            ConversionSource.CallFromAd => measured ? each.Told : null,
            ConversionSource.Form
            or ConversionSource.Sale
            or ConversionSource.CallFromSite
            or ConversionSource.PageReached => tagged ? each.Told : null,
            ConversionSource.Booking => each.Page?.Booking is not { } site
                ? null
                : action.Hearing switch
                {
                    // A tag on another company's page knows nothing of the click.
                    ConversionHearing.Tag => null,
                    ConversionHearing.CarriedId => tagged && site.KeepsIdOn(days.At(each.Done.At).Day)
                        ? each.Told
                        : null,
                    ConversionHearing.SentBack => site.SendsBack
                        ? days.StartOf(days.At(each.Done.At).Day.AddDays(1)).AddHours(Sending)
                        : null,
                },
        };
    }
}
