using Fendrik.Core.Bidding;
using Fendrik.Core.Estimates;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;
using Fendrik.Data.Accounts;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Fendrik.Server.Api.Pricing;
using Fendrik.Server.Estimates;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Bidding;

/// <summary>Estimates of keywords that are not there yet.</summary>
internal static class PlannedEstimateEndpoints
{
    public static void MapPlannedEstimates(this RouteGroupBuilder account) =>
        account
            .MapPost("/bids/campaigns/{campaignId:long}/estimates/planned", PlannedAsync)
            .WithName("estimatePlanned")
            .Needs(AccountRight.Look);

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
        // A question has one list of bids, and what is usual goes by the match type.
        var lines = new Dictionary<AskedKeyword, EstimateLine>();
        foreach (var same in asked.GroupBy(keyword => bid ?? UsualOf(keyword.Match, facts)))
        {
            var answers = await network.EstimateAsync(
                accountId,
                new EstimateWish(campaignId, [.. same], EstimateDesk.BidsFor(same.Key, facts)),
                cancellation
            );
            foreach (var (keyword, answer) in same.Zip(answers))
            {
                lines.Add(keyword, LineOf(answer, same.Key, known, facts));
            }
        }

        return TypedResults.Ok<IReadOnlyList<EstimateLine>>([.. asked.Select(keyword => lines[keyword])]);
    }

    private static decimal UsualOf(MatchType match, AccountFacts facts) =>
        StartingBids.Of(match, null, facts.Network, facts.Currency).Bid;

    private static EstimateLine LineOf(NetworkEstimate answer, decimal at, KnownErrors known, AccountFacts facts)
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
    }
}
