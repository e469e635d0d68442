using Fendrik.Core.Bidding;
using Fendrik.Core.Calls;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Core.Reporting;
using Fendrik.Data.Accounts;
using Fendrik.Data.Calls;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Pricing;

/// <summary>When campaigns show.</summary>
internal static class HoursEndpoints
{
    private const int MostCampaigns = 2_000;
    private const int DaysOfYear = 366;

    public static void MapHours(this RouteGroupBuilder account)
    {
        account.MapPost("/hours", ReadAsync).WithName("readHours").Needs(AccountRight.Look);
        account
            .MapGet("/hours/{campaignId:long}.ics", ExportAsync)
            .WithName("exportHours")
            .Produces(StatusCodes.Status200OK, contentType: "text/calendar");
        account.MapPost("/hours/calendar", ImportAsync).WithName("readCalendar").Needs(AccountRight.Look);
    }

    private static async Task<Ok<HoursAnswer>> ReadAsync(
        int accountId,
        HoursRequest request,
        PricedCampaignReader campaignReader,
        EvidenceReader figures,
        PerformanceStore store,
        AnsweringHoursReader answeringHours,
        CallReader callReader,
        WorkingCopy workingCopy,
        TimeProvider clock,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var all = await campaignReader.ReadAsync(accountId, null, bids: false, MostCampaigns + 1, cancellation);
        var more = all.Count > MostCampaigns;
        var asked = request.Campaigns.ToHashSet();
        PricedCampaign[] chosen =
        [
            .. all.Take(MostCampaigns).Where(each => asked.Count == 0 || asked.Contains(each.Id)),
        ];
        var period = await PricingPeriod.OfAsync(store, accountId, request.Weeks, cancellation);
        var week = period is { } days
            ? await figures.WeekAsync(
                accountId,
                new EvidenceScope(days, [.. chosen.Select(each => each.Id)]),
                cancellation
            )
            : [];
        var of = chosen.Select(each => each.Id).ToHashSet();
        var calls = WeekOfCalls.Of(
            period is { } rang
                ? (await callReader.ReadAsync(accountId, rang, null, null, cancellation))
                    .Where(each => of.Contains(each.CampaignId))
                    .Select(each => each.Call)
                : []
        );
        var (accountItem, accountVersion, answering) = await answeringHours.ReadAsync(accountId, cancellation);
        var shown = chosen.FirstOrDefault()?.Plan ?? WeekPlan.Always;
        var others = chosen.Select(each => each.Plan ?? WeekPlan.Always).Distinct().ToArray();
        var byHour = week.ToDictionary(each => (each.Day, each.Hour), each => each.Figures);
        WeekHour[] hours =
        [
            .. from day in Enumerable.Range(1, 7)
            from hour in Enumerable.Range(0, 24)
            select HourOf(
                day,
                hour,
                shown,
                others,
                answering,
                byHour.GetValueOrDefault((day, hour), Figures.Zero),
                calls.GetValueOrDefault(((DayOfWeek)(day % 7), hour))
            ),
        ];
        var total = week.Aggregate(Figures.Zero, (sum, each) => sum + each.Figures);
        return TypedResults.Ok(
            new HoursAnswer(
                period?.First,
                period?.Last,
                [
                    .. all.Take(MostCampaigns)
                        .Select(each =>
                        {
                            var plan = each.Plan ?? WeekPlan.Always;
                            return new HoursCampaign(
                                each.Id,
                                each.Version,
                                each.Name,
                                each.State == ItemState.Paused,
                                each.Plan?.ToString(),
                                plan.Minutes / 60m,
                                plan.ShareOfWeek,
                                plan.Equals(shown)
                            );
                        }),
                ],
                more,
                [.. chosen.Select(each => each.Id)],
                hours,
                PricingFigures.Of(total),
                accountItem,
                accountVersion,
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
        Figures figures,
        CallsOfHour calls
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
        return new WeekHour(
            day,
            hour,
            quarters,
            differs,
            Says(quarters, differs, calls),
            PricingFigures.Of(figures),
            calls.Answered,
            calls.Missed
        );
    }

    private static string Says(WeekQuarter[] quarters, bool differs, CallsOfHour calls)
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
            + (differs ? ", not alike in the chosen campaigns" : "")
            + (
                calls == default
                    ? ""
                    : $", {calls.Answered + calls.Missed} {(calls.Answered + calls.Missed == 1 ? "call" : "calls")}{(calls.Missed > 0 ? $", {calls.Missed} in vain" : "")}"
            );
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
}
