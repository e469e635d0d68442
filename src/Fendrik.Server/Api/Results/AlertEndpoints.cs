using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Alerts;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Own;
using Fendrik.Data.Steps;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Results;

/// <summary>An alert with what it found.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Says">What it looks for, in words.</param>
/// <param name="Of">Where: the account, each campaign, or one campaign by name.</param>
/// <param name="Found">On which of the last 28 days it went off, the newest first.</param>
public sealed record AlertView(long Id, string Says, string Of, IReadOnlyList<AlertFinding> Found);

/// <summary>What an alert found on a day.</summary>
/// <param name="Day">The day.</param>
/// <param name="Campaign">The campaign; none for the account.</param>
/// <param name="Says">What, in words.</param>
public sealed record AlertFinding(DateOnly Day, string? Campaign, string Says);

/// <summary>An alert as it is typed.</summary>
/// <param name="Measure">The key of the measure.</param>
/// <param name="Above">True where it must not go above the amount.</param>
/// <param name="Threshold">The amount, as it is typed.</param>
/// <param name="Days">Over how many days.</param>
/// <param name="EachDay">True where each of the days must be so.</param>
/// <param name="EachCampaign">True where each campaign is looked at by itself.</param>
/// <param name="CampaignId">The only campaign that is looked at; none for the account, or each campaign.</param>
public sealed record AlertBody(
    string Measure,
    bool Above,
    string Threshold,
    int Days,
    bool EachDay,
    bool EachCampaign,
    long? CampaignId
);

/// <summary>Alerts of an account's own.</summary>
internal static class AlertEndpoints
{
    private const int DaysShown = 28;

    public static void MapAlerts(this RouteGroupBuilder account)
    {
        account.MapGet("/alerts", ListAsync).WithName("listAlerts");
        account.MapPost("/alerts", AddAsync).WithName("addAlert");
        account.MapDelete("/alerts/{alertId:long}", RemoveAsync).WithName("removeAlert");
    }

    private static async Task<Ok<IReadOnlyList<AlertView>>> ListAsync(
        int accountId,
        AlertBook book,
        MeasureBook measures,
        PerformanceStore store,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var known = (await measures.AllAsync(accountId, cancellation)).ToDictionary(measure => measure.Key);
        var currency = (await workingCopy.FactsAsync(accountId, cancellation)).Currency;
        var alerts = await book.ListAsync(accountId, cancellation);
        var names = await book.CampaignNamesAsync(accountId, cancellation);
        var found = (await store.ReportedToAsync(accountId, cancellation)).Day is { } last
            ? await book.FoundAsync(accountId, new Period(last.AddDays(1 - DaysShown), last), cancellation)
            : [];
        return TypedResults.Ok<IReadOnlyList<AlertView>>([
            .. alerts.Select(kept => new AlertView(
                kept.Id,
                AlertWords.Of(kept.Alert, known[kept.Alert.Measure], currency),
                kept.Alert.EachCampaign ? "each campaign"
                    : kept.Alert.CampaignId is { } campaign
                        ? names.GetValueOrDefault(campaign, "a campaign that is gone")
                    : "the account",
                [
                    .. found
                        .Where(each => each.AlertId == kept.Id)
                        .Select(each => new AlertFinding(
                            each.Day,
                            each.Campaign,
                            AlertWords.Found(kept.Alert, known[kept.Alert.Measure], each.Figure, each.Day, currency)
                        )),
                ]
            )),
        ]);
    }

    private static async Task<Created> AddAsync(
        int accountId,
        AlertBody body,
        AlertBook book,
        MeasureBook measures,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var measure =
            (await measures.AllAsync(accountId, cancellation)).FirstOrDefault(each => each.Key == body.Measure)
            ?? throw new InvalidChangeException("measure", $"There is no measure “{body.Measure}”.");
        var (threshold, problem) = AlertAmount.Read(
            body.Threshold,
            measure,
            (await workingCopy.FactsAsync(accountId, cancellation)).Ground
        );
        if (problem is not null)
        {
            throw new InvalidChangeException("threshold", $"The amount {problem}.");
        }

        var id = await book.AddAsync(
            accountId,
            new Alert(
                measure.Key,
                body.Above,
                threshold,
                body.Days,
                body.EachDay,
                body.EachCampaign,
                body.EachCampaign ? null : body.CampaignId
            ),
            cancellation
        );
        return TypedResults.Created($"/api/accounts/{accountId}/alerts/{id}");
    }

    private static async Task<Results<NoContent, NotFound>> RemoveAsync(
        int accountId,
        long alertId,
        AlertBook book,
        CancellationToken cancellation
    ) => await book.RemoveAsync(accountId, alertId, cancellation) ? TypedResults.NoContent() : TypedResults.NotFound();
}
