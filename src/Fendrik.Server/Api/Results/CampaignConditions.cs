using Fendrik.Core.Networks;
using Fendrik.Core.Reporting;
using Fendrik.Data.Accounts;
using Fendrik.Data.Results;
using Fendrik.Server.Networks;

namespace Fendrik.Server.Api.Results;

/// <summary>What a campaign truly does.</summary>
/// <param name="CampaignId">The campaign.</param>
/// <param name="Condition">What it does.</param>
/// <param name="Name">What that is called.</param>
/// <param name="Says">Why, in a sentence.</param>
public sealed record CampaignConditionRow(long CampaignId, CampaignCondition Condition, string Name, string Says);

/// <summary>So many campaigns do something.</summary>
/// <param name="Condition">What they do.</param>
/// <param name="Name">What that is called.</param>
/// <param name="Count">How many.</param>
public sealed record CountedCondition(CampaignCondition Condition, string Name, int Count);

/// <summary>What the campaigns of an account truly do.</summary>
/// <param name="Campaigns">The campaigns.</param>
/// <param name="Counts">How many do what.</param>
/// <param name="TodayIsKnown">False where the network did not answer: then nothing is known of budgets that ran out today.</param>
public sealed record CampaignConditionsAnswer(
    IReadOnlyList<CampaignConditionRow> Campaigns,
    IReadOnlyList<CountedCondition> Counts,
    bool TodayIsKnown
);

/// <summary>Puts together what is known of campaigns here and what the network tells of today.</summary>
public sealed class CampaignConditions(ConditionReader reader, AccountToday clock, SearchNetworks networks)
{
    private const int MostCampaigns = 5_000;

    /// <summary>What the campaigns do now.</summary>
    public async Task<CampaignConditionsAnswer> ReadAsync(int accountId, CancellationToken cancellation)
    {
        var rows = await reader.ReadAsync(accountId, MostCampaigns, cancellation);
        var today = await TodayAsync(accountId, cancellation);
        var day = today?.Day ?? await clock.ReadAsync(accountId, cancellation);
        var stopped = (today?.Rows ?? []).GroupBy(row => row.CampaignId).ToDictionary(rows => rows.Key, StoppedAt);
        CampaignConditionRow[] conditions =
        [
            .. rows.Select(row =>
            {
                var truth = row.Truth with { StoppedMinute = stopped.GetValueOrDefault(row.Id) };
                var condition = truth.On(day);
                return new CampaignConditionRow(row.Id, condition, CampaignTruth.NameOf(condition), truth.InWords(day));
            }),
        ];
        return new CampaignConditionsAnswer(
            conditions,
            [
                .. conditions
                    .GroupBy(row => row.Condition)
                    .OrderBy(same => same.Key)
                    .Select(same => new CountedCondition(same.Key, CampaignTruth.NameOf(same.Key), same.Count())),
            ],
            today is not null
        );
    }

    /// <summary>Keeps results to campaigns that do something; all where nothing is asked.</summary>
    /// <exception cref="Fendrik.Data.Steps.InvalidChangeException">There is no such condition.</exception>
    public async Task<ResultsRequest> KeepAsync(
        int accountId,
        ResultsRequest request,
        string? condition,
        CancellationToken cancellation
    ) =>
        QueryChoice.Of<CampaignCondition>(condition, "condition") is { } only
            ? request with
            {
                Campaigns =
                [
                    .. (await ReadAsync(accountId, cancellation))
                        .Campaigns.Where(row => row.Condition == only)
                        .Select(row => row.CampaignId),
                ],
            }
            : request;

    /// <summary>The minute at which the budget was spent: stopped in an hour and shown in a later one, as when it was raised, a campaign runs.</summary>
    internal static int? StoppedAt(IEnumerable<TodayRow> rows)
    {
        const int MinutesOfHour = 60;
        return rows.MaxBy(row => row.Hour) is { StoppedMinute: { } minute } last
            ? last.Hour * MinutesOfHour + minute
            : null;
    }

    private async Task<NetworkToday?> TodayAsync(int accountId, CancellationToken cancellation)
    {
        try
        {
            var network = await networks.OfAccountAsync(accountId, cancellation);
            return await network.TodayAsync(accountId, cancellation);
        }
        catch (NetworkUnavailableException)
        {
            // What else is known of campaigns does not wait for the network.
            return null;
        }
    }
}
