using Fendrik.Core.Calls;
using Fendrik.Core.Desk;
using Fendrik.Core.Reporting;
using Fendrik.Data.Accounts;
using Fendrik.Data.Calls;
using Fendrik.Data.Conversions;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Own;
using Fendrik.Data.Steps;
using Fendrik.Data.Terms;
using Fendrik.Server.Api.Calls;
using Fendrik.Server.Api.Pricing;

namespace Fendrik.Server.Api.Desk;

/// <summary>Gathers what is worth doing in an account, from all that is known of it.</summary>
public sealed class DeskReader(
    RefusedReader refused,
    PerformanceStore store,
    WorkingCopy workingCopy,
    ResultsReader results,
    AccountDemand demand,
    CallReader calls,
    ConversionReader conversions,
    AnsweringHoursReader answering,
    TermReader terms,
    AlertBook alerts,
    MeasureBook measures
)
{
    private const int CallWeeks = 8;
    private const int BudgetWeeks = 4;
    private const int DaysOfWeek = 7;
    private const int AuditDays = 28;
    private const int MostWords = 2;
    private const int MostCampaigns = 5_000;
    private const int MostAlerts = 20;

    /// <summary>What is worth doing, blockers first, then by the money in it.</summary>
    public async Task<IReadOnlyList<DeskItem>> ReadAsync(int accountId, CancellationToken cancellation)
    {
        var currency = (await workingCopy.FactsAsync(accountId, cancellation)).Currency;
        // Each has a connection of its own: the slowest is waited for, not the sum.
        var counted = conversions.ReadAsync(accountId, AuditDays, cancellation);
        var parts = await Task.WhenAll(
            RefusedAsync(accountId, currency, cancellation),
            CallsAsync(accountId, currency, cancellation),
            WordsAsync(accountId, currency, cancellation),
            BudgetsAsync(accountId, currency, cancellation),
            TrackingAsync(counted, currency),
            DearerAsync(accountId, counted, currency, cancellation),
            AlertsAsync(accountId, currency, cancellation)
        );
        return DeskItem.Ranked(parts.SelectMany(part => part));
    }

    private async Task<IReadOnlyList<DeskItem>> RefusedAsync(
        int accountId,
        Currency currency,
        CancellationToken cancellation
    )
    {
        var found = await refused.ReadAsync(accountId, BudgetWeeks * DaysOfWeek, cancellation);
        return OneOrNone(DeskRules.OfRefused(found.Count, found.First, found.Reason, found.CostADay, currency));
    }

    private async Task<IReadOnlyList<DeskItem>> CallsAsync(
        int accountId,
        Currency currency,
        CancellationToken cancellation
    )
    {
        if (await PricingPeriod.OfAsync(store, accountId, CallWeeks, cancellation) is not { } period)
        {
            return [];
        }

        var hours = (await answering.ReadAsync(accountId, cancellation)).Hours;
        var rules = CallEndpoints.RulesOf(await conversions.CallActionsAsync(accountId, cancellation), onceEach: false);
        var log = await calls.ReadAsync(accountId, period, null, null, cancellation);
        var missed = MissedCalls.Of(rules.Judge(log.Select(each => each.Call)), hours);
        return OneOrNone(DeskRules.OfCalls(missed, hours, CallWeeks, currency));
    }

    private async Task<IReadOnlyList<DeskItem>> WordsAsync(
        int accountId,
        Currency currency,
        CancellationToken cancellation
    )
    {
        if (await PricingPeriod.OfAsync(store, accountId, TermSums.UsualWeeks, cancellation) is not { } period)
        {
            return [];
        }

        async Task<UnsoldWord[]> OfAsync(int size) =>
            [
                .. (await terms.WordsAsync(new TermScope(accountId, period), size, unsold: true, cancellation)).Select(
                    word => new UnsoldWord(word.Word, word.Terms, word.Clicks, word.Cost)
                ),
            ];
        var words = await OfAsync(1);
        var pairs = await OfAsync(2);
        var brought = await results.ReadAsync(
            accountId,
            new ResultsRequest(period, ItemKind.Campaign, null, null),
            0,
            cancellation
        );
        return [.. DeskRules.OfWords(words, pairs, brought.Now, TermSums.UsualWeeks, currency, MostWords)];
    }

    private async Task<IReadOnlyList<DeskItem>> BudgetsAsync(
        int accountId,
        Currency currency,
        CancellationToken cancellation
    )
    {
        var period = await PricingPeriod.OfAsync(store, accountId, BudgetWeeks, cancellation);
        var money = await demand.ReadAsync(accountId, period, cancellation);
        return
        [
            .. money
                .Campaigns.Where(each => each.Campaign.State == ItemState.Running)
                .Select(each =>
                    DeskRules.OfBudget(each.Campaign.Id, each.Campaign.Name, each.Demand, each.RanOut, currency)
                )
                .OfType<DeskItem>(),
        ];
    }

    private static async Task<IReadOnlyList<DeskItem>> TrackingAsync(
        Task<AccountConversions> counted,
        Currency currency
    )
    {
        var read = await counted;
        var names = read.Actions.ToDictionary(each => each.Action.Id, each => each.Action);
        return
        [
            .. read
                .Findings.Where(finding => finding.ActionId is not null)
                .Select(finding =>
                {
                    var action = names[finding.ActionId!.Value];
                    var goal = read.Campaigns.Where(campaign =>
                        Core.Tracking.Conversions.ConversionGoals.Counts(action, campaign.Goals)
                    );
                    var spent = goal.Sum(campaign =>
                        read.Spent.TryGetValue(campaign.Id, out var known) ? known.Cost : 0
                    );
                    return DeskRules.OfTracking(finding, action.Name, spent * DaysOfWeek / AuditDays, currency);
                })
                .OfType<DeskItem>(),
        ];
    }

    private async Task<IReadOnlyList<DeskItem>> DearerAsync(
        int accountId,
        Task<AccountConversions> counted,
        Currency currency,
        CancellationToken cancellation
    )
    {
        if (await PricingPeriod.OfAsync(store, accountId, 1, cancellation) is not { } week)
        {
            return [];
        }

        var report = await results.ReadAsync(
            accountId,
            new ResultsRequest(week, ItemKind.Campaign, null, null),
            MostCampaigns,
            cancellation
        );
        var read = await counted;
        var told =
            read.Curve?.ToldOf([.. read.Open.Where(day => day.Day >= week.First).Select(day => (day.Clicks, day.Age))])
            ?? 1;
        return
        [
            .. report
                .Lines.Where(line => !line.Removed)
                .Select(line => DeskRules.OfDearer(line.Id, line.Name, line.Now, line.Before, told, currency))
                .OfType<DeskItem>(),
        ];
    }

    private async Task<IReadOnlyList<DeskItem>> AlertsAsync(
        int accountId,
        Currency currency,
        CancellationToken cancellation
    )
    {
        var kept = await alerts.ListAsync(accountId, cancellation);
        if (kept.Count == 0 || (await store.ReportedToAsync(accountId, cancellation)).Day is not { } last)
        {
            return [];
        }

        var byId = kept.ToDictionary(each => each.Id, each => each.Alert);
        var known = (await measures.AllAsync(accountId, cancellation)).ToDictionary(measure => measure.Key);
        return
        [
            .. (await alerts.FoundAsync(accountId, new Period(last, last), cancellation))
                .Where(found => byId.ContainsKey(found.AlertId))
                .Take(MostAlerts)
                .Select(found =>
                    DeskRules.OfAlert(
                        byId[found.AlertId],
                        known[byId[found.AlertId].Measure],
                        found.Figure,
                        found.Cost,
                        found.Day,
                        found.CampaignId is { } id ? (id, found.Campaign ?? "a campaign that is gone") : null,
                        currency
                    )
                ),
        ];
    }

    private static IReadOnlyList<DeskItem> OneOrNone(DeskItem? item) => item is null ? [] : [item];
}
