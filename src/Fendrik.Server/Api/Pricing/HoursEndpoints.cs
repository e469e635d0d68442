using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Evidence;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Core.Reporting;
using Fendrik.Data.Accounts;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Pricing;

/// <summary>A campaign with its hours.</summary>
/// <param name="Id">The campaign.</param>
/// <param name="Name">Its name.</param>
/// <param name="IsPaused">True where it is paused.</param>
/// <param name="Plan">Its hours as they are kept; none for always.</param>
/// <param name="Hours">Hours of the week in which it shows.</param>
/// <param name="Share">Their share of the week: 0 to 1.</param>
/// <param name="IsLikeShown">True where they are those that the grid shows.</param>
public sealed record HoursCampaign(
    long Id,
    string Name,
    bool IsPaused,
    string? Plan,
    decimal Hours,
    decimal Share,
    bool IsLikeShown
);

/// <summary>A quarter of an hour of the week.</summary>
/// <param name="Shows">Whether ads show.</param>
/// <param name="Modifier">Per cent more or less; 0 for as it is.</param>
/// <param name="Answered">Whether somebody takes calls; true where nobody said when.</param>
public sealed record WeekQuarter(bool Shows, decimal Modifier, bool Answered);

/// <summary>An hour of the week.</summary>
/// <param name="Day">The day.</param>
/// <param name="Hour">Hour of the clock on the wall.</param>
/// <param name="Quarters">Its four quarters, by the first of the chosen campaigns.</param>
/// <param name="Differs">True where the chosen campaigns are not alike in it.</param>
/// <param name="Says">In words.</param>
/// <param name="Figures">What it brought.</param>
public sealed record WeekHour(
    DayOfWeek Day,
    int Hour,
    IReadOnlyList<WeekQuarter> Quarters,
    bool Differs,
    string Says,
    PricingFigures Figures
);

/// <summary>Hours in which ads with a number show and nobody takes calls.</summary>
/// <param name="Hours">Such hours of the week, by the first of the chosen campaigns.</param>
/// <param name="Cost">What was spent in them, whole hours alone.</param>
/// <param name="ShareOfCost">Its share of all.</param>
public sealed record UnansweredHours(decimal Hours, decimal Cost, decimal ShareOfCost);

/// <summary>A day that has not 24 hours.</summary>
public sealed record OddDay(DateOnly Day, int Hours);

/// <summary>The week of some campaigns.</summary>
/// <param name="First">First day of the figures; none before anything was reported.</param>
/// <param name="Last">The last.</param>
/// <param name="Campaigns">All campaigns.</param>
/// <param name="Chosen">Those that the grid is of.</param>
/// <param name="Week">All hours from Monday at midnight on.</param>
/// <param name="Total">Figures of the chosen campaigns.</param>
/// <param name="AccountItemId">The item of the account as a whole, which keeps when somebody takes calls.</param>
/// <param name="AnsweringHours">When somebody takes calls; none where nobody said.</param>
/// <param name="Unanswered">Hours shown in which nobody does; none where nobody said when.</param>
/// <param name="OddDays">The next days with another number of hours than 24.</param>
public sealed record HoursAnswer(
    DateOnly? First,
    DateOnly? Last,
    IReadOnlyList<HoursCampaign> Campaigns,
    IReadOnlyList<long> Chosen,
    IReadOnlyList<WeekHour> Week,
    PricingFigures Total,
    long AccountItemId,
    string? AnsweringHours,
    UnansweredHours? Unanswered,
    IReadOnlyList<OddDay> OddDays
);

/// <summary>A part of a day of the week.</summary>
public sealed record WeekSpan(DayOfWeek Day, int From, int To);

/// <summary>A part of the week that is asked about.</summary>
/// <param name="Campaigns">The campaigns.</param>
/// <param name="Weeks">Weeks of figures.</param>
/// <param name="Spans">The part.</param>
/// <param name="Modifier">A modifier that is thought of, as it is typed.</param>
/// <param name="Target">What a conversion may cost, as it is typed.</param>
public sealed record WeekPartRequest(
    IReadOnlyList<long> Campaigns,
    int Weeks,
    IReadOnlyList<WeekSpan> Spans,
    string? Modifier,
    string? Target
);

/// <summary>What is known of a part of the week.</summary>
/// <param name="Name">What it is.</param>
/// <param name="Shows">Whether ads show in it: all, none or some.</param>
/// <param name="Modifier">The modifier that holds, or its range, in words; none where ads do not show.</param>
/// <param name="Lowest">The lowest bid of a keyword before the modifier.</param>
/// <param name="Highest">The highest.</param>
/// <param name="LowestAfter">The lowest with the modifier that is thought of, or the one that holds.</param>
/// <param name="HighestAfter">The highest with it.</param>
/// <param name="Evidence">What its figures say; none before anything was reported.</param>
public sealed record WeekPartAnswer(
    string Name,
    string Shows,
    string? Modifier,
    decimal? Lowest,
    decimal? Highest,
    decimal? LowestAfter,
    decimal? HighestAfter,
    SegmentRow? Evidence
);

/// <summary>A calendar file.</summary>
public sealed record CalendarRequest(string Text);

/// <summary>The hours that a calendar says.</summary>
/// <param name="Plan">As they are kept; empty for always.</param>
/// <param name="Hours">Hours of the week.</param>
/// <param name="Share">Their share of the week: 0 to 1.</param>
public sealed record CalendarAnswer(string Plan, decimal Hours, decimal Share);

/// <summary>When campaigns show.</summary>
internal static class HoursEndpoints
{
    private const int MostCampaigns = 2_000;
    private const int MostSpans = 700;
    private const int DaysOfYear = 366;

    public static void MapHours(this RouteGroupBuilder account)
    {
        account.MapGet("/hours", ReadAsync).WithName("readHours");
        account.MapPost("/hours/part", PartAsync).WithName("readPartOfWeek");
        account
            .MapGet("/hours/{campaignId:long}.ics", ExportAsync)
            .WithName("exportHours")
            .Produces(StatusCodes.Status200OK, contentType: "text/calendar");
        account.MapPost("/hours/calendar", ImportAsync).WithName("readCalendar");
    }

    private static async Task<Ok<HoursAnswer>> ReadAsync(
        int accountId,
        long[]? campaigns,
        int? weeks,
        PricedCampaignReader campaignReader,
        EvidenceReader figures,
        PerformanceStore store,
        AnsweringHoursReader answeringHours,
        WorkingCopy workingCopy,
        TimeProvider clock,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var all = await campaignReader.ReadAsync(accountId, null, bids: false, MostCampaigns, cancellation);
        PricedCampaign[] chosen =
        [
            .. all.Where(each => campaigns is not { Length: > 0 } || campaigns.Contains(each.Id)),
        ];
        var period = await PricingPeriod.OfAsync(store, accountId, weeks ?? 8, cancellation);
        var week = period is { } days
            ? await figures.WeekAsync(
                accountId,
                new EvidenceScope(days, campaigns is { Length: > 0 } ? [.. chosen.Select(each => each.Id)] : null),
                cancellation
            )
            : [];
        var (accountItem, answering) = await answeringHours.ReadAsync(accountId, cancellation);
        var shown = chosen.FirstOrDefault()?.Plan ?? WeekPlan.Always;
        var others = chosen.Select(each => each.Plan ?? WeekPlan.Always).Distinct().ToArray();
        var byHour = week.ToDictionary(each => (each.Day, each.Hour), each => each.Figures);
        WeekHour[] hours =
        [
            .. from day in Enumerable.Range(1, 7)
            from hour in Enumerable.Range(0, 24)
            select HourOf(day, hour, shown, others, answering, byHour.GetValueOrDefault((day, hour), Figures.Zero)),
        ];
        var total = week.Aggregate(Figures.Zero, (sum, each) => sum + each.Figures);
        return TypedResults.Ok(
            new HoursAnswer(
                period?.First,
                period?.Last,
                [
                    .. all.Select(each =>
                    {
                        var plan = each.Plan ?? WeekPlan.Always;
                        return new HoursCampaign(
                            each.Id,
                            each.Name,
                            each.State == ItemState.Paused,
                            each.Plan?.ToString(),
                            plan.Minutes / 60m,
                            plan.ShareOfWeek,
                            plan.Equals(shown)
                        );
                    }),
                ],
                [.. chosen.Select(each => each.Id)],
                hours,
                PricingFigures.Of(total),
                accountItem,
                answering?.ToString(),
                answering is null ? null : Unanswered(hours, shown, answering, total),
                [
                    .. new AccountDay(facts.TimeZone)
                        .OddDays(period?.Last ?? DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime), DaysOfYear)
                        .Select(each => new OddDay(each.Day, each.Hours)),
                ]
            )
        );
    }

    private static async Task<Results<ContentHttpResult, NotFound>> ExportAsync(
        int accountId,
        long campaignId,
        PricedCampaignReader campaigns,
        WorkingCopy workingCopy,
        TimeProvider clock,
        HttpResponse response,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        if (
            (await campaigns.ReadAsync(accountId, [campaignId], bids: false, 1, cancellation)).SingleOrDefault()
            is not { } campaign
        )
        {
            return TypedResults.NotFound();
        }

        response.Headers.ContentDisposition = "attachment; filename=\"hours.ics\"";
        return TypedResults.Content(
            WeekCalendar.Write(campaign.Plan ?? WeekPlan.Always, campaign.Name, facts.TimeZone, clock.GetUtcNow()),
            "text/calendar; charset=utf-8"
        );
    }

    /// <summary>Reads the hours that a calendar says; nothing is changed.</summary>
    private static async Task<Ok<CalendarAnswer>> ImportAsync(
        int accountId,
        CalendarRequest request,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        return WeekCalendar.Read(request.Text, facts.TimeZone, out var problem) is { } plan
            ? TypedResults.Ok(
                new CalendarAnswer(plan.IsAlways ? "" : plan.ToString(), plan.Minutes / 60m, plan.ShareOfWeek)
            )
            : throw new InvalidChangeException("text", problem!);
    }

    private static WeekHour HourOf(
        int isoDay,
        int hour,
        WeekPlan shown,
        IReadOnlyList<WeekPlan> others,
        WeekHours? answering,
        Figures figures
    )
    {
        var day = (DayOfWeek)(isoDay % 7);
        WeekQuarter[] quarters =
        [
            .. Enumerable
                .Range(0, 60 / WeekPlan.Quarter)
                .Select(quarter => hour * 60 + quarter * WeekPlan.Quarter)
                .Select(minute => new WeekQuarter(
                    shown.At(day, minute) is not null,
                    shown.At(day, minute) ?? 0,
                    answering?.Holds(day, minute) ?? true
                )),
        ];
        var differs = others.Any(plan =>
            quarters
                .Where(
                    (_, at) =>
                        plan.At(day, hour * 60 + at * WeekPlan.Quarter)
                        != shown.At(day, hour * 60 + at * WeekPlan.Quarter)
                )
                .Any()
        );
        return new WeekHour(day, hour, quarters, differs, Says(quarters, differs), PricingFigures.Of(figures));
    }

    private static string Says(WeekQuarter[] quarters, bool differs)
    {
        var on = quarters.Count(each => each.Shows);
        decimal[] percents = [.. quarters.Where(each => each.Shows).Select(each => each.Modifier).Distinct().Order()];
        return (
                on == 0 ? "does not show"
                : on < quarters.Length ? $"shows {on} of 4 quarters"
                : "shows"
            )
            + (percents is [] or [0] ? "" : $", bid {string.Join(" to ", percents.Select(PercentValue.Words))}")
            + (quarters.Any(each => each is { Shows: true, Answered: false }) ? ", nobody takes calls" : "")
            + (differs ? ", not alike in the chosen campaigns" : "");
    }

    private static UnansweredHours Unanswered(WeekHour[] hours, WeekPlan shown, WeekHours answering, Figures total)
    {
        var cost = hours.Where(each => each.Quarters.All(quarter => !quarter.Answered)).Sum(each => each.Figures.Cost);
        return new UnansweredHours(
            (shown.Minutes - answering.MinutesWithin(shown.Hours)) / 60m,
            cost,
            total.Cost == 0 ? 0 : cost / total.Cost
        );
    }

    private static async Task<Ok<WeekPartAnswer>> PartAsync(
        int accountId,
        WeekPartRequest request,
        PricedCampaignReader campaignReader,
        EvidenceReader figures,
        PerformanceStore store,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var part = PartOf(request.Spans);
        var campaigns = await campaignReader.ReadAsync(
            accountId,
            request.Campaigns,
            bids: true,
            MostCampaigns,
            cancellation
        );
        decimal?[] percents =
        [
            .. from campaign in campaigns
            from span in part.Spans
            from minute in Enumerable
                .Range(0, (span.To - span.From) / WeekPlan.Quarter)
                .Select(quarter => span.From + quarter * WeekPlan.Quarter)
            select (campaign.Plan ?? WeekPlan.Always).At(span.Day, minute),
        ];
        decimal[] shown = [.. percents.OfType<decimal>().Distinct().Order()];
        var thought = ReadPercent(request.Modifier, facts);
        decimal? After(decimal? bid, decimal? percent) =>
            bid is { } amount && percent is { } modifier
                ? BidStack.Of(amount, null, [("hour", modifier)], facts.Currency)!.Bid
                : null;
        var lowest = campaigns.Min(each => each.LowestBid);
        var highest = campaigns.Max(each => each.HighestBid);
        return TypedResults.Ok(
            new WeekPartAnswer(
                part.ToString().Replace('-', '–'),
                percents.All(each => each is null) ? "none"
                    : percents.All(each => each is not null) ? "all"
                    : "some",
                shown.Length == 0
                    ? null
                    : string.Join(" to ", new[] { shown[0], shown[^1] }.Distinct().Select(PercentValue.Words)),
                lowest,
                highest,
                After(lowest, thought ?? shown.Cast<decimal?>().FirstOrDefault()),
                After(highest, thought ?? shown.Cast<decimal?>().LastOrDefault()),
                await EvidenceOfAsync(accountId, request, part, shown, facts, figures, store, cancellation)
            )
        );
    }

    private static async Task<SegmentRow?> EvidenceOfAsync(
        int accountId,
        WeekPartRequest request,
        WeekHours part,
        decimal[] shown,
        AccountFacts facts,
        EvidenceReader figures,
        PerformanceStore store,
        CancellationToken cancellation
    )
    {
        if (await PricingPeriod.OfAsync(store, accountId, request.Weeks, cancellation) is not { } days)
        {
            return null;
        }

        // Figures are by the hour: one counts as a whole where the part has any of it.
        int[] hours =
        [
            .. part.Spans.SelectMany(span =>
                Enumerable
                    .Range(span.From / 60, (span.To + 59) / 60 - span.From / 60)
                    .Select(hour => ((int)span.Day + 6) % 7 * 24 + hour)
            ),
        ];
        var report = ModifierEvidence.Weigh(
            await figures.PartAsync(accountId, new EvidenceScope(days, request.Campaigns), hours, cancellation),
            BidsEndpoints.ReadAmount("target", request.Target, facts),
            _ => shown.Length == 0 ? 0 : shown.Average(),
            facts.Network.LimitsOf(ItemKind.Campaign, "hours").HighestPercent ?? PercentValue.Highest,
            new TradeRule()
        );
        return report.Segments.FirstOrDefault(each => each.Segment == new Segment(SegmentKind.Hours, 1)) is { } found
            ? SegmentRow.Of(found, part.ToString().Replace('-', '–'), null, report.UsualCost, facts.Currency)
            : null;
    }

    private static WeekHours PartOf(IReadOnlyList<WeekSpan> spans)
    {
        if (spans.Count is 0 or > MostSpans)
        {
            throw new InvalidChangeException("spans", "Choose some hours of the week.");
        }

        if (
            spans.Any(span =>
                span.From < 0
                || span.To > WeekHours.MinutesOfDay
                || span.From >= span.To
                || span.From % WeekPlan.Quarter != 0
                || span.To % WeekPlan.Quarter != 0
            )
        )
        {
            throw new InvalidChangeException("spans", "Hours of the week go by quarters: 08:00, 08:15, 08:30, 08:45.");
        }

        return WeekHours.Of(spans.Select(span => new HourSpan(span.Day, span.From, span.To)))!;
    }

    private static decimal? ReadPercent(string? text, AccountFacts facts)
    {
        if (string.IsNullOrWhiteSpace(text))
        {
            return null;
        }

        var reading = new PercentValue().Read(text, facts.Ground);
        return reading.Problem is { } problem
            ? throw new InvalidChangeException("modifier", $"The modifier {problem}.")
            : (decimal)reading.Value!;
    }
}
