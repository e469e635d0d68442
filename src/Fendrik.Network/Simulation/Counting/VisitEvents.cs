using Fendrik.Core.Tracking.Conversions;
using Fendrik.Network.Simulation.People;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation.Counting;

/// <summary>Something that was done on a visit, and how it could be heard of.</summary>
/// <param name="Done">What was done.</param>
/// <param name="Told">When the network hears of it by a tag.</param>
/// <param name="Page">The page on which the visit began; none for a call from an ad.</param>
internal readonly record struct VisitEvent(TrackedEvent Done, DateTimeOffset Told, LandingPage? Page);

/// <summary>What a visit left to be counted, whether or not anybody hears of it.</summary>
internal static class VisitEvents
{
    /// <summary>The page that a site shows to whoever has sent a form or bought something.</summary>
    public const string Thanks = "/thanks";

    /// <summary>Seconds until a page that was reached is told of.</summary>
    private const int Reached = 2;

    /// <summary>What was done, in order.</summary>
    /// <param name="visit">The visit.</param>
    public static IEnumerable<VisitEvent> Of(EndedVisit visit)
    {
        var (result, value, page, address, clickedAt, calls, _) = visit;
        var bare = World.Bare(address);
        VisitEvent Page(string where, DateTimeOffset at) =>
            new(new TrackedEvent(ConversionSource.PageReached, where, 0, 0, at), at.AddSeconds(Reached), page);

        if (!calls && result.End is not (VisitEnd.Accident or VisitEnd.Down or VisitEnd.TooSlow))
        {
            yield return Page(bare, clickedAt);
            if (page?.Tag == TagState.EveryVisit)
            {
                yield return new VisitEvent(
                    new TrackedEvent(ConversionSource.Form, bare, 0, 0, clickedAt),
                    clickedAt.AddSeconds(Reached),
                    page
                );
            }
        }

        if (result is { Way: Way.Call, Seconds: > 0 })
        {
            yield return new VisitEvent(
                new TrackedEvent(
                    calls ? ConversionSource.CallFromAd : ConversionSource.CallFromSite,
                    calls ? null : bare,
                    result.Seconds,
                    value,
                    result.At
                ),
                result.At.AddSeconds(result.Seconds),
                calls ? null : page
            );
        }

        if (result.End != VisitEnd.InTouch || result.Way is not { } way || way == Way.Call)
        {
            yield break;
        }

        yield return new VisitEvent(
            new TrackedEvent(SourceOf(way), way == Way.Booking ? page?.Booking?.Host : bare, 0, value, result.At),
            result.Told,
            page
        );
        if (way != Way.Booking)
        {
            yield return Page(HostOf(bare) + Thanks, result.At);
        }

        if (result.Again is { } call)
        {
            yield return new VisitEvent(
                new TrackedEvent(ConversionSource.CallFromSite, bare, call.Talked, value, call.At),
                call.At.AddSeconds(call.Talked),
                page
            );
        }
    }

    private static ConversionSource SourceOf(Way way) =>
        way switch
        {
            Way.Form => ConversionSource.Form,
            Way.Booking => ConversionSource.Booking,
            Way.Purchase => ConversionSource.Sale,
            Way.Call => ConversionSource.CallFromSite,
        };

    private static string HostOf(string address) =>
        address.IndexOf('/', StringComparison.Ordinal) is > 0 and var slash ? address[..slash] : address;
}
