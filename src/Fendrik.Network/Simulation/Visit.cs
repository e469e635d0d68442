using Fendrik.Core.Calls;
using Fendrik.Network.Simulation.People;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation;

/// <summary>How a visit to a landing page ended.</summary>
public enum VisitEnd
{
    /// <summary>The click was not meant.</summary>
    Accident = 1,

    /// <summary>The page could not be reached.</summary>
    Down = 2,

    /// <summary>It took too long to load.</summary>
    TooSlow = 3,

    /// <summary>The page is not about what the person wants, or the person wants nothing that is sold.</summary>
    NotWanted = 4,

    /// <summary>It is too far away.</summary>
    TooFar = 5,

    /// <summary>It costs too much.</summary>
    TooDear = 6,

    /// <summary>The person went away undecided.</summary>
    Undecided = 7,

    /// <summary>The person wanted to get in touch, but could not: the form or the booking cannot be sent there.</summary>
    CouldNot = 8,

    /// <summary>The call was not answered.</summary>
    Missed = 9,

    /// <summary>The line was engaged.</summary>
    Engaged = 10,

    /// <summary>The person talked too short for a purpose.</summary>
    ShortCall = 11,

    /// <summary>The person got in touch.</summary>
    InTouch = 12,
}

/// <summary>A call as the carrier saw it.</summary>
/// <param name="At">When it began.</param>
/// <param name="Rang">Seconds until somebody answered, or the caller gave up.</param>
/// <param name="Talked">Seconds that people talked; 0 where nobody answered.</param>
/// <param name="End">How it ended.</param>
public readonly record struct PlayedCall(DateTimeOffset At, int Rang, int Talked, CallEnd End);

/// <summary>What came of a click.</summary>
/// <param name="End">How the visit ended.</param>
/// <param name="Way">By which way the person got in touch, or tried to.</param>
/// <param name="At">When that was.</param>
/// <param name="Seconds">How long people talked; 0 without a call.</param>
/// <param name="Value">What it is worth in pounds.</param>
/// <param name="Told">When the network hears of it.</param>
public readonly record struct VisitResult(
    VisitEnd End,
    Way? Way,
    DateTimeOffset At,
    int Seconds,
    double Value,
    DateTimeOffset Told
)
{
    /// <summary>The call in vain that came before the person wrote instead; none without one.</summary>
    public PlayedCall? Tried { get; init; }

    /// <summary>The call of somebody who had written already; none without one.</summary>
    public PlayedCall? Again { get; init; }
}

/// <summary>
/// What people do on a landing page: they wait for it or not, see whether it is what they want, near enough and not too dear, decide
/// or not, and get in touch by a way that works, at an hour when somebody is there.
/// </summary>
/// <param name="world">The world.</param>
/// <param name="days">The account's days.</param>
public sealed class Visit(World world, Fendrik.Core.Accounts.AccountDay days)
{
    /// <summary>Seconds from which a call counts: common practice, no source.</summary>
    public const int LeastSeconds = 60;

    /// <summary>How likely somebody whose way does not work takes another.</summary>
    private const double TakesAnotherWay = 0.22;

    /// <summary>How likely somebody whom nobody answers sends the form instead.</summary>
    private const double WritesInstead = 0.08;

    /// <summary>How likely somebody who wrote calls as well, within the hour.</summary>
    private const double CallsToo = 0.35;

    private const double FitElsewhere = 0.3;
    private const double FitOfUnknownPage = 0.7;

    private static readonly double[] EarnestByStage = [0.45, 0.9, 1.4];

    /// <summary>Plays a visit.</summary>
    /// <param name="searching">The search.</param>
    /// <param name="person">The person.</param>
    /// <param name="site">The kind of site that the click came from.</param>
    /// <param name="address">Where the click led.</param>
    /// <param name="now">When.</param>
    /// <param name="calls">True when the click was on a number: the person calls at once, and sees no page.</param>
    /// <param name="chance">The luck of the search.</param>
    public VisitResult Play(
        in Searching searching,
        Person person,
        SiteKind site,
        string address,
        DateTimeOffset now,
        bool calls,
        in Chance chance
    )
    {
        VisitResult Ended(VisitEnd end) => new(end, null, now, 0, 0, now);
        var need = searching.Need;
        var page = world.PageOf(address);
        if (chance.Happens(Purpose.Accident, site.Accident))
        {
            return Ended(VisitEnd.Accident);
        }

        if (calls)
        {
            return Called(searching, person, page, now, chance);
        }

        if (page is not null && page.IsDownOn(days.At(now).Day))
        {
            return Ended(VisitEnd.Down);
        }

        if (page is not null && page.LoadsIn(person.Device) > person.Patience)
        {
            return Ended(VisitEnd.TooSlow);
        }

        if (need.Earnest <= 0)
        {
            return Ended(VisitEnd.NotWanted);
        }

        if (
            person.Home.Country != World.HomeCountry
            || page?.Place is { } place && place.KilometresTo(person.Wanted) > need.Far * person.Reach
        )
        {
            return Ended(VisitEnd.TooFar);
        }

        if (page?.Price is { } price && need.Worth > 0 && price > person.Limit * need.Worth)
        {
            return Ended(VisitEnd.TooDear);
        }

        var fit =
            page is null ? FitOfUnknownPage
            : page.Needs.Contains(need.Id) ? 1
            : FitElsewhere;
        var likely = need.Earnest * fit * site.Earnest * EarnestByStage[(int)searching.Stage];
        if (!chance.Happens(Purpose.Decision, likely))
        {
            return Ended(VisitEnd.Undecided);
        }

        return GetInTouch(need, person, page, now, chance);
    }

    /// <summary>Whoever calls from the ad asks on the telephone what others find out on the page.</summary>
    private VisitResult Called(
        in Searching searching,
        Person person,
        LandingPage? page,
        DateTimeOffset now,
        in Chance chance
    )
    {
        var need = searching.Need;
        var called = Call(page?.Line, now, need.Worth * Math.Exp(need.Spread * chance.Normal(Purpose.Value)), chance);
        var hears =
            need.Earnest <= 0 ? VisitEnd.NotWanted
            : person.Home.Country != World.HomeCountry
            || page?.Place is { } place && place.KilometresTo(person.Wanted) > need.Far * person.Reach
                ? VisitEnd.TooFar
            : chance.Happens(Purpose.Decision, need.Earnest * EarnestByStage[(int)searching.Stage]) ? VisitEnd.InTouch
            : VisitEnd.Undecided;
        // Whom nobody answers is told nothing.
        return called.End is VisitEnd.Missed or VisitEnd.Engaged || hears == VisitEnd.InTouch
            ? called
            : called with
            {
                End = hears,
                Value = 0,
            };
    }

    private VisitResult GetInTouch(Need need, Person person, LandingPage? page, DateTimeOffset now, in Chance chance)
    {
        var wanted = chance.Pick(Purpose.Way, need.Ways, each => each.Weight).Way;
        var way = wanted;
        var at =
            wanted == Way.Call ? CallAt(now, chance)
            // Some leave it for a while: the decision comes later than the click.
            : person.InHurry ? now
            : now.AddHours(chance.Exponential(Purpose.Delay, need.Gap * 0.5));
        if (!Works(wanted, person.Device, page))
        {
            way = Enum.GetValues<Way>().FirstOrDefault(other => other != wanted && Works(other, person.Device, page));
            if (way == default || !chance.Happens(Purpose.Way, TakesAnotherWay, 1))
            {
                return new VisitResult(VisitEnd.CouldNot, wanted, at, 0, 0, at);
            }
        }

        var value = need.Worth * Math.Exp(need.Spread * chance.Normal(Purpose.Value));
        if (way == Way.Call)
        {
            var called = Call(page?.Line, at, value, chance);
            if (
                called.End is VisitEnd.Missed or VisitEnd.Engaged
                && Works(Way.Form, person.Device, page)
                && chance.Happens(Purpose.Way, WritesInstead, 2)
            )
            {
                return new VisitResult(VisitEnd.InTouch, Way.Form, at, 0, value, Told(at, chance))
                {
                    Tried = CallOf(called, chance),
                };
            }

            return called;
        }

        return new VisitResult(VisitEnd.InTouch, way, at, 0, value, Told(at, chance))
        {
            Again = way == Way.Form ? CallAfter(page?.Line, at, chance) : null,
        };
    }

    /// <summary>Some who have written ring up as well, to hear whether it arrived.</summary>
    private PlayedCall? CallAfter(PhoneLine? line, DateTimeOffset wrote, in Chance chance)
    {
        const double Minutes = 25;
        if (line is null || !chance.Happens(Purpose.CallsToo, CallsToo))
        {
            return null;
        }

        var at = wrote.AddMinutes(Math.Min(60, 3 + chance.Exponential(Purpose.CallsToo, Minutes, 1)));
        var (day, hour) = days.At(at);
        if (!line.IsStaffed(day.DayOfWeek, hour + days.MinuteAt(at) / 60.0))
        {
            return null;
        }

        var talked = (int)Math.Round(line.Talk * Math.Exp(line.Spread * chance.Normal(Purpose.CallsToo, 3)));
        return chance.Happens(Purpose.CallsToo, line.Answered, 2) && talked > 0
            ? new PlayedCall(at, RangFor(CallEnd.Answered, chance, 1), talked, CallEnd.Answered)
            : null;
    }

    /// <summary>All calls that came of a click, in order, as the carrier saw them.</summary>
    public static IReadOnlyList<PlayedCall> CallsOf(VisitResult result, in Chance chance) =>
        [.. new[] { result.Tried, CallOf(result, chance), result.Again }.OfType<PlayedCall>()];

    private static PlayedCall? CallOf(VisitResult result, in Chance chance)
    {
        if (result.Way != Way.Call || result.End == VisitEnd.CouldNot)
        {
            return null;
        }

        var end = result.End switch
        {
            VisitEnd.Missed => CallEnd.Missed,
            VisitEnd.Engaged => CallEnd.Engaged,
            VisitEnd.ShortCall
            or VisitEnd.InTouch
            or VisitEnd.NotWanted
            or VisitEnd.TooFar
            or VisitEnd.Undecided
            or VisitEnd.TooDear
            or VisitEnd.Accident
            or VisitEnd.Down
            or VisitEnd.TooSlow
            or VisitEnd.CouldNot => CallEnd.Answered,
        };
        return new PlayedCall(result.At, RangFor(end, chance, 0), result.Seconds, end);
    }

    private static int RangFor(CallEnd end, in Chance chance, int index) =>
        end switch
        {
            CallEnd.Answered => 3 + (int)chance.Exponential(Purpose.Ring, 8, index),
            CallEnd.Missed => 15 + (int)chance.Exponential(Purpose.Ring, 12, index),
            CallEnd.Engaged => 0,
        };

    /// <summary>People call at once, but not at night: then they wait for the morning.</summary>
    private DateTimeOffset CallAt(DateTimeOffset now, in Chance chance)
    {
        const int Morning = 8;
        const int Night = 21;
        var (day, hour) = days.At(now);
        return hour is >= Morning and < Night
            ? now.AddMinutes(chance.Exponential(Purpose.Delay, 6))
            : days.StartOf(hour < Morning ? day : day.AddDays(1))
                .AddHours(Morning + 1 + 2 * chance.Share(Purpose.Delay, 1));
    }

    private VisitResult Call(PhoneLine? line, DateTimeOffset at, double value, in Chance chance)
    {
        const double UsuallyAnswered = 0.85;
        const double UsualTalk = 150;
        const double UsualSpread = 0.8;
        var (day, hour) = days.At(at);
        var clock = hour + days.MinuteAt(at) / 60.0;
        if (line is not null && !line.IsStaffed(day.DayOfWeek, clock))
        {
            return new VisitResult(VisitEnd.Missed, Way.Call, at, 0, 0, at);
        }

        if (line is not null && chance.Happens(Purpose.Answered, line.Engaged, 1))
        {
            return new VisitResult(VisitEnd.Engaged, Way.Call, at, 0, 0, at);
        }

        if (!chance.Happens(Purpose.Answered, line?.Answered ?? UsuallyAnswered))
        {
            return new VisitResult(VisitEnd.Missed, Way.Call, at, 0, 0, at);
        }

        var seconds = (int)
            Math.Round(
                (line?.Talk ?? UsualTalk) * Math.Exp((line?.Spread ?? UsualSpread) * chance.Normal(Purpose.Talk))
            );
        return seconds < LeastSeconds
            ? new VisitResult(VisitEnd.ShortCall, Way.Call, at, seconds, 0, at)
            : new VisitResult(VisitEnd.InTouch, Way.Call, at, seconds, value, at.AddSeconds(seconds));
    }

    private static DateTimeOffset Told(DateTimeOffset at, in Chance chance) =>
        at.AddMinutes(chance.Exponential(Purpose.Report, 40));

    private static bool Works(Way way, Device device, LandingPage? page) =>
        way switch
        {
            Way.Call => page is null || page.Line is not null,
            Way.Form => page is null || page.FormOn(device) == FormState.Works,
            Way.Booking => page?.Booking is { } booking && booking.FormOn(device) == FormState.Works,
            // A page without a form is a shop's.
            Way.Purchase => page is null || page.Form == FormState.None,
        };
}
