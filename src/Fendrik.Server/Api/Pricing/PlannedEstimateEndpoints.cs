using Fendrik.Core.Bidding;
using Fendrik.Core.Estimates;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Fendrik.Server.Estimates;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Pricing;

/// <summary>Estimates of keywords that are not there yet.</summary>
internal static class PlannedEstimateEndpoints
{
    public static void MapPlannedEstimates(this RouteGroupBuilder account) =>
        account
            .MapPost("/bids/campaigns/{campaignId:long}/estimates/planned", PlannedAsync)
            .WithName("estimatePlanned");

    private static async Task<Results<Ok<IReadOnlyList<EstimateLine>>, NotFound>> PlannedAsync(
        int accountId,
        long campaignId,
        PlannedWish wish,
        PricedCampaignReader campaigns,
        EstimateDesk desk,
        SearchNetworks networks,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        if ((await campaigns.ReadAsync(accountId, [campaignId], bids: false, 1, cancellation)).Count == 0)
        {
            return TypedResults.NotFound();
        }

        var bid = BidsEndpoints.ReadAmount("bid", wish.Bid, facts);
        var read = wish
            .Text.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
            .Select(KeywordNotation.Read)
            .ToArray();
        if (
            read.Index().Where(each => each.Item.Problem is not null || each.Item.Negative).ToArray()
            is [var (row, wrong), ..]
        )
        {
            throw new InvalidChangeException(
                "text",
                wrong.Negative
                    ? $"Line {row + 1}: a negative keyword brings nothing. Take the minus away."
                    : $"Line {row + 1}: {wrong.Problem}"
            );
        }

        var asked = read.Select(each => new AskedKeyword(each.Text, each.Match ?? MatchType.Broad))
            .Distinct()
            .ToArray();
        if (asked.Length == 0 || asked.Length > facts.Network.EstimatesAtOnce)
        {
            throw new InvalidChangeException(
                "text",
                asked.Length == 0
                    ? "Write keywords, one in each line."
                    : $"{facts.Network.Name} answers {facts.Network.EstimatesAtOnce} keywords at once; these are {asked.Length}. Take some out."
            );
        }

        var known = await desk.ErrorsAsync(accountId, cancellation);
        var network = await networks.OfAccountAsync(accountId, cancellation);
        var at = bid ?? StartingBids.Of(asked[0].Match, null, facts.Network, facts.Currency).Bid;
        var answers = await network.EstimateAsync(
            accountId,
            new EstimateWish(campaignId, asked, EstimateDesk.BidsFor(at, facts)),
            cancellation
        );
        return TypedResults.Ok<IReadOnlyList<EstimateLine>>([
            .. answers.Select(answer =>
            {
                var own = Estimator.Of(null, answer, known.Network, known.Own, [at]);
                var week = Estimator.At(answer, at);
                return new EstimateLine(
                    0,
                    answer.Text,
                    answer.Match,
                    "",
                    at,
                    own.Weeks is [var estimated, ..] ? WeekLine.Of(estimated, facts.Currency) : null,
                    own.Reason,
                    week is null ? null : NetworkWeekLine.Of(week, facts.Currency),
                    answer.Reason,
                    null
                );
            }),
        ]);
    }
}
