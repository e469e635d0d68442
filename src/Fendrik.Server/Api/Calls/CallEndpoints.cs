using System.Globalization;
using CsvHelper;
using Fendrik.Core.Calls;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Lists;
using Fendrik.Core.Reporting;
using Fendrik.Data.Accounts;
using Fendrik.Data.Calls;
using Fendrik.Data.Conversions;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Fendrik.Server.Api.Pricing;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Calls;

/// <summary>The calls that ads bring: how many, when, and which of them were in vain.</summary>
internal static class CallEndpoints
{
    private const int UsualWeeks = 8;
    private const int RowsOfPage = 100;
    private const int SecondsOfBar = 15;
    private const int LongestBar = 360;
    private const int MinutesOfHour = 60;

    /// <summary>Lengths at which people who pay for calls often let them count (common practice, no source).</summary>
    private static readonly int[] UsualLeasts = [30, 60, 70, 90, 120];

    private static readonly DayOfWeek[] Weekdays =
    [
        DayOfWeek.Monday,
        DayOfWeek.Tuesday,
        DayOfWeek.Wednesday,
        DayOfWeek.Thursday,
        DayOfWeek.Friday,
    ];

    public static void MapCalls(this RouteGroupBuilder account)
    {
        account.MapGet("/calls", ReadAsync).WithName("readCalls");
        account.MapNumbers();
        account
            .MapGet("/calls/file", FileAsync)
            .WithName("exportCalls")
            .Produces(StatusCodes.Status200OK, contentType: "text/csv");
    }

    private static async Task<Ok<CallsAnswer>> ReadAsync(
        int accountId,
        int? weeks,
        long? campaignId,
        long? adGroupId,
        string? by,
        string? days,
        bool? onceEach,
        int? offset,
        CallReader reader,
        ConversionReader conversions,
        AnsweringHoursReader answering,
        PerformanceStore store,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var grouping = QueryChoice.Of<CallGrouping>(by, "by") ?? CallGrouping.Call;
        var weekend = days == "weekend";
        var currency = (await workingCopy.FactsAsync(accountId, cancellation)).Currency;
        var period = await PricingPeriod.OfAsync(store, accountId, weeks ?? UsualWeeks, cancellation);
        var hours = (await answering.ReadAsync(accountId, cancellation)).Hours;
        var counting = await conversions.CallActionsAsync(accountId, cancellation);
        var rules = RulesOf(counting, onceEach == true);
        async Task<IReadOnlyList<CallInLog>> LogAsync(Period? when) =>
            when is { } known ? await reader.ReadAsync(accountId, known, campaignId, adGroupId, cancellation) : [];
        var log = await LogAsync(period);
        var judged = rules.Judge(log.Select(each => each.Call));
        var before = rules.Judge((await LogAsync(period?.Before)).Select(each => each.Call));
        var shown = judged.Where(each => weekend != Weekdays.Contains(each.Call.At.DayOfWeek)).ToArray();
        var missed = MissedCalls.Of(judged, hours);
        var (title, says) = missed.InWords(currency, hours);
        var verdicts = VerdictsOf(judged);
        var answered = judged.Where(each => each.Call.End == CallEnd.Answered).ToArray();
        return TypedResults.Ok(
            new CallsAnswer(
                period?.First,
                period?.Last,
                TotalsOf(judged, currency),
                TotalsOf(before, currency),
                rules.FromAd == rules.FromSite ? rules.FromAd : null,
                [.. counting.Select(each => new CallAction(each.Action.Id, each.Version))],
                LengthsOf(answered, rules),
                [
                    .. UsualLeasts.Select(least => new OtherLeast(
                        least,
                        answered.Count(each => each.Call.Talked >= least)
                    )),
                ],
                [
                    .. HourOfCalls
                        .Of(shown.Select(each => each.Call))
                        .Select(each => new HourAnswer(
                            each.Hour,
                            each.Answered,
                            each.Missed,
                            OpenShare(hours, each.Hour, weekend)
                        )),
                ],
                weekend ? "Saturday and Sunday" : "Monday to Friday",
                title,
                says,
                missed.Outside > 0,
                GroupsOf(log, verdicts, grouping, currency),
                [
                    .. log.Skip(Math.Max(0, offset ?? 0))
                        .Take(RowsOfPage)
                        .Select(each => RowOf(each, verdicts[each.Call])),
                ]
            )
        );
    }

    /// <summary>The calls of a period as CSV (RFC 4180), the latest first.</summary>
    private static async Task FileAsync(
        int accountId,
        int? weeks,
        long? campaignId,
        long? adGroupId,
        bool? onceEach,
        CallReader reader,
        ConversionReader conversions,
        PerformanceStore store,
        HttpContext context,
        CancellationToken cancellation
    )
    {
        var period = await PricingPeriod.OfAsync(store, accountId, weeks ?? UsualWeeks, cancellation);
        var log = period is { } known
            ? await reader.ReadAsync(accountId, known, campaignId, adGroupId, cancellation)
            : [];
        var rules = RulesOf(await conversions.CallActionsAsync(accountId, cancellation), onceEach == true);
        var verdicts = VerdictsOf(rules.Judge(log.Select(each => each.Call)));
        await using var writer = CsvAnswer.Begin(context, "calls.csv");
        await using var csv = CsvWriter.Create(writer, new CsvWriterOptions(), leaveOpen: true);
        await csv.WriteRecordAsync(
            [
                "Began",
                "Area",
                "Rang, s",
                "Talked, s",
                "Verdict",
                "Call of this person",
                "Campaign",
                "Ad group",
                "Keyword",
                "Match type",
                "Device",
                "Called",
                "Number called",
                "Cost",
                "Click id",
            ],
            cancellation
        );
        foreach (var each in log)
        {
            await csv.WriteRecordAsync(CellsOf(RowOf(each, verdicts[each.Call]), each.Call.ClickId), cancellation);
        }
    }

    /// <summary>What calls come to, each by itself: two may be alike to the second.</summary>
    private static Dictionary<LoggedCall, JudgedCall> VerdictsOf(IReadOnlyList<JudgedCall> judged)
    {
        var verdicts = new Dictionary<LoggedCall, JudgedCall>(judged.Count, ReferenceEqualityComparer.Instance);
        foreach (var each in judged)
        {
            verdicts.Add(each.Call, each);
        }

        return verdicts;
    }

    private static string[] CellsOf(CallAnswer call, string clickId)
    {
        static string Number(decimal number) => number.ToString(CultureInfo.InvariantCulture);
        return
        [
            call.At.ToString("yyyy-MM-dd HH:mm:ss", CultureInfo.InvariantCulture),
            SpreadsheetCell.Guard(call.Area),
            Number(call.Rang),
            Number(call.Talked),
            call.Says,
            Number(call.Nth),
            SpreadsheetCell.Guard(call.Campaign),
            SpreadsheetCell.Guard(call.AdGroup),
            SpreadsheetCell.Guard(call.Keyword ?? ""),
            call.Match is { } match ? Choices.NameOf(match) : "",
            Choices.NameOf(Choices.Device, (int)call.Device),
            call.FromAd ? "beside an ad" : "on the site",
            call.Dialled ?? "",
            call.Cost is { } cost ? Number(cost) : "",
            clickId,
        ];
    }

    /// <summary>The least of several actions that count the same calls: such a call counts for one of them.</summary>
    internal static CallRules RulesOf(IReadOnlyList<(ConversionAction Action, long Version)> counting, bool onceEach)
    {
        int? Least(ConversionSource source) =>
            counting
                .Where(each => each.Action.Source == source)
                .Select(each => (int?)(each.Action.LeastSeconds ?? 1))
                .Min();
        return new CallRules(Least(ConversionSource.CallFromAd), Least(ConversionSource.CallFromSite), onceEach);
    }

    private static CallTotals TotalsOf(IEnumerable<JudgedCall> calls, Currency currency)
    {
        var sums = CallSums.Of(calls);
        return new CallTotals(
            sums.Rang,
            sums.Answered,
            sums.Counted,
            sums.Missed,
            sums.Engaged,
            sums.CostPerAnswered is { } each ? currency.Round(each) : null,
            sums.CostPerCounted is { } counted ? currency.Round(counted) : null
        );
    }

    private static LengthOfCalls[] LengthsOf(IReadOnlyList<JudgedCall> answered, CallRules rules)
    {
        var least = Math.Min(rules.FromAd ?? int.MaxValue, rules.FromSite ?? int.MaxValue);
        return
        [
            .. Enumerable
                .Range(0, LongestBar / SecondsOfBar + 1)
                .Select(bar => new LengthOfCalls(
                    bar * SecondsOfBar,
                    answered.Count(each => Math.Min(each.Call.Talked, LongestBar) / SecondsOfBar == bar),
                    (bar + 1) * SecondsOfBar > least
                )),
        ];
    }

    private static double OpenShare(WeekHours? hours, int hour, bool weekend)
    {
        if (hours is null)
        {
            return 0;
        }

        var days = Enum.GetValues<DayOfWeek>().Where(day => weekend != Weekdays.Contains(day)).ToArray();
        return days.Average(day =>
            Enumerable.Range(hour * MinutesOfHour, MinutesOfHour).Count(minute => hours.Holds(day, minute))
            / (double)MinutesOfHour
        );
    }

    private static CallGroup[] GroupsOf(
        IReadOnlyList<CallInLog> log,
        Dictionary<LoggedCall, JudgedCall> verdicts,
        CallGrouping grouping,
        Currency currency
    )
    {
        Func<CallInLog, (string Order, string Name)>? key = grouping switch
        {
            CallGrouping.Call => null,
            CallGrouping.Campaign => each => ("", CampaignOf(each)),
            CallGrouping.Keyword => each => ("", KeywordOf(each)),
            CallGrouping.Hour => each =>
                (
                    each.Call.At.ToString("HH", CultureInfo.InvariantCulture),
                    each.Call.At.ToString("HH':00'", CultureInfo.InvariantCulture)
                ),
            CallGrouping.Area => each => ("", each.Area),
            CallGrouping.Number => each =>
                (
                    "",
                    each.Dialled.Length > 0 ? PhoneValue.National(each.Dialled)
                    : each.Call.FromAd ? "the number beside ads"
                    : "the number on the site"
                ),
        };
        return key is null
            ? []
            :
            [
                .. log.GroupBy(key)
                    .Select(same => (same.Key, Totals: TotalsOf(same.Select(each => verdicts[each.Call]), currency)))
                    .OrderBy(group => group.Key.Order, StringComparer.Ordinal)
                    .ThenByDescending(group => group.Totals.Rang)
                    .ThenBy(group => group.Key.Name, StringComparer.Ordinal)
                    .Take(RowsOfPage)
                    .Select(group => new CallGroup(group.Key.Name, group.Totals)),
            ];
    }

    private static string CampaignOf(CallInLog call) =>
        call.Origin == CallOrigin.Unknown ? "not known: the number had gone to another visitor" : call.Campaign;

    private static string KeywordOf(CallInLog call) =>
        call.Origin switch
        {
            CallOrigin.Click => $"{call.Keyword ?? "a keyword that is gone"} · {call.AdGroup}",
            CallOrigin.Campaign => $"not known: the number is one of all of {call.Campaign}",
            CallOrigin.Unknown => CampaignOf(call),
        };

    private static CallAnswer RowOf(CallInLog each, JudgedCall judged) =>
        new(
            each.Call.At,
            each.Area,
            each.Call.Rang,
            each.Call.Talked,
            judged.Verdict,
            judged.Verdict switch
            {
                CallVerdict.Counts => "counts",
                CallVerdict.TooShort => judged.Short > 0 ? $"{judged.Short} s short" : "not counted",
                CallVerdict.Missed => "missed",
                CallVerdict.Engaged => "engaged",
                CallVerdict.SameCaller => "same caller",
            },
            judged.Nth,
            each.Origin == CallOrigin.Click ? each.Keyword : null,
            each.Match,
            each.CampaignId,
            CampaignOf(each),
            each.AdGroupId,
            each.AdGroup,
            each.Device,
            each.Call.FromAd,
            // What is not known of the click is not nothing.
            each.Origin == CallOrigin.Click
                ? each.Call.Cost
                : null,
            each.Dialled.Length > 0 ? PhoneValue.National(each.Dialled) : null
        );
}
