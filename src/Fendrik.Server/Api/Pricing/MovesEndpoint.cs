using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Pricing;

/// <summary>A campaign whose budget changed.</summary>
/// <param name="Name">Its name; none where it is gone.</param>
/// <param name="Was">Its daily budget before.</param>
/// <param name="Became">Its daily budget since.</param>
public sealed record MovedBudget(string? Name, decimal Was, decimal Became);

/// <summary>Budgets that changed on a day, and what came of it.</summary>
/// <param name="Day">The first day of the new budgets.</param>
/// <param name="Budgets">The budgets.</param>
/// <param name="CameTrue">Whether the week came as it was to be expected; none while it is not over.</param>
/// <param name="Says">What was to be expected, and what came, in words.</param>
public sealed record MoveAnswer(DateOnly Day, IReadOnlyList<MovedBudget> Budgets, bool? CameTrue, string Says);

/// <summary>What became of budgets that were changed before.</summary>
internal static class MovesEndpoint
{
    private const int Most = 5;

    public static async Task<Ok<IReadOnlyList<MoveAnswer>>> ReadAsync(
        int accountId,
        AccountDemand demand,
        BudgetReader reader,
        PerformanceStore store,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var (last, _) = await store.ReportedToAsync(accountId, cancellation);
        if (last is not { } reported)
        {
            return TypedResults.Ok<IReadOnlyList<MoveAnswer>>([]);
        }

        var names = (await reader.CampaignsAsync(accountId, AccountDemand.MostCampaigns, cancellation)).ToDictionary(
            each => each.Id,
            each => each.Name
        );
        return TypedResults.Ok<IReadOnlyList<MoveAnswer>>([
            .. (await demand.MovesAsync(accountId, reported, Most, cancellation)).Select(move => new MoveAnswer(
                move.Day,
                [
                    .. move.Budgets.Select(each => new MovedBudget(
                        names.GetValueOrDefault(each.CampaignId),
                        each.Was,
                        each.Became
                    )),
                ],
                move.CameTrue,
                move.InWords(facts.Currency)
            )),
        ]);
    }
}
