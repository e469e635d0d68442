using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Reporting;
using Fendrik.Data.Accounts;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Strategies;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Fendrik.Server.Api.Pricing;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Bidding;

/// <summary>Base and own bids of a campaign, and bids that reach a place.</summary>
internal static class KeywordBidEndpoints
{
    private const int MostKeywords = 500;

    public static void MapKeywordBids(this RouteGroupBuilder account)
    {
        account.MapGet("/bids/campaigns/{campaignId:long}/keywords", ReadAsync).WithName("readKeywordBids");
        account
            .MapPost("/bids/campaigns/{campaignId:long}/proposals", ProposeAsync)
            .WithName("proposeBids")
            .Needs(AccountRight.Look);
    }

    private static async Task<Results<Ok<KeywordBids>, NotFound>> ReadAsync(
        int accountId,
        long campaignId,
        long? adGroupId,
        int? weeks,
        PricedCampaignReader campaigns,
        KeywordBidReader reader,
        TargetReader targets,
        StrategyBasisReader strategies,
        PerformanceStore store,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var period = await PricingPeriod.OfAsync(store, accountId, weeks ?? 8, cancellation);
        if (
            (await campaigns.ReadAsync(accountId, [campaignId], bids: false, 1, cancellation)).SingleOrDefault()
                is not { } campaign
            || await strategies.PlanAsync(accountId, campaignId, cancellation) is not { } plan
        )
        {
            return TypedResults.NotFound();
        }

        var sides = new BidSides(
            campaign,
            await targets.TargetsAsync(accountId, campaignId, cancellation),
            facts.Currency
        );
        var rows = await reader.ReadAsync(
            accountId,
            campaignId,
            adGroupId,
            null,
            period,
            MostKeywords + 1,
            cancellation
        );
        return TypedResults.Ok(
            new KeywordBids(
                [.. rows.Take(MostKeywords).Select(row => RowOf(row, sides, facts))],
                rows.Count > MostKeywords,
                StrategyNote.Of(plan)
            )
        );
    }

    /// <summary>A bid as it is typed; empty for none.</summary>
    private static string Typed(decimal? bid, AccountFacts facts) =>
        bid is { } amount ? ItemTypes.Of(ItemKind.Keyword)["maxCpc"].Type.Write(amount, facts.Ground) : "";

    private static KeywordBidRow RowOf(KeywordBid row, BidSides sides, AccountFacts facts)
    {
        decimal? OfGroup(Device device) =>
            device switch
            {
                Device.Desktop => row.Desktop,
                Device.Phone => row.Phone,
                Device.Tablet => row.Tablet,
            };
        decimal? Side(bool highest) => row.Bid is { } bid ? sides.Of("", bid, highest, OfGroup).Bid : null;
        var could = row.Impressions + row.LostToRank;
        return new KeywordBidRow(
            row.Id,
            row.Version,
            row.Text,
            row.Match,
            row.State == ItemState.Paused,
            row.AdGroupId,
            row.AdGroup,
            row.AdGroupVersion,
            row.BaseBid,
            Typed(row.BaseBid, facts),
            row.OwnBid,
            row.OwnBid is { } own ? ItemTypes.Of(ItemKind.Keyword)["maxCpc"].Type.Write(own, facts.Ground) : "",
            Side(false),
            Side(true),
            PricingFigures.Of(row.Figures),
            row.Figures.AverageCpc is { } cpc ? facts.Currency.Round(cpc) : null,
            could > 0 ? (decimal)row.LostToRank / could : null,
            row.Impressions > 0 ? (decimal)row.TopShown / row.Impressions : null,
            row.Quality,
            row.FirstPage,
            row.Top,
            row.AskedOn
        );
    }

    private static async Task<Results<Ok<IReadOnlyList<ProposedBid>>, NotFound>> ProposeAsync(
        int accountId,
        long campaignId,
        BidWish wish,
        KeywordBidReader reader,
        PerformanceStore store,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        if (wish.KeywordIds.Count is 0 or > MostKeywords)
        {
            throw new InvalidChangeException("keywordIds", $"Choose 1 to {MostKeywords} keywords.");
        }

        if (!Enum.IsDefined(wish.Goal))
        {
            throw new InvalidChangeException("goal", "There is no such goal.");
        }

        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var ceiling = BidsEndpoints.ReadAmount("ceiling", wish.Ceiling, facts);
        var rows = await reader.ReadAsync(
            accountId,
            campaignId,
            null,
            wish.KeywordIds,
            null,
            MostKeywords,
            cancellation
        );
        var prices =
            wish.Goal == BidGoal.Starting && (await store.ReportedToAsync(accountId, cancellation)).Day is { } last
                ? await reader.PricesOfThemesAsync(
                    accountId,
                    wish.KeywordIds,
                    new Period(last.AddDays(-DaysOfPrices), last),
                    cancellation
                )
                : new Dictionary<long, decimal>();
        return TypedResults.Ok<IReadOnlyList<ProposedBid>>([
            .. rows.Select(row => Proposed(row, wish.Goal, ceiling, prices, facts)),
        ]);
    }

    private const int DaysOfPrices = 90;

    private static ProposedBid Proposed(
        KeywordBid row,
        BidGoal goal,
        decimal? ceiling,
        IReadOnlyDictionary<long, decimal> prices,
        AccountFacts facts
    )
    {
        var starting =
            goal == BidGoal.Starting
                ? StartingBids.Of(
                    row.Match,
                    prices.TryGetValue(row.Id, out var price) ? price : null,
                    facts.Network,
                    facts.Currency
                )
                : null;
        var wanted = goal switch
        {
            BidGoal.FirstPage => row.FirstPage,
            BidGoal.Top => row.Top,
            BidGoal.Starting => starting?.Bid,
        };
        var next = wanted is { } bid
            ? Math.Max(facts.Network.MinimumCpc(facts.Currency), Math.Min(bid, ceiling ?? bid))
            : (decimal?)null;
        var why = wanted is null
            ? row.AskedOn is null
                ? $"{facts.Network.Name} was not asked about it yet: ask under Estimates."
                : $"{facts.Network.Name} has no estimate for it: too few people search for it."
            : next < wanted
                ? $"{new Money(wanted.Value, facts.Currency)} would reach it; the ceiling holds it back."
                : starting is not null
                    ? starting.Why
                    : $"By what {facts.Network.Name} said on {row.AskedOn:d MMM}.";
        return new ProposedBid(
            row.Id,
            row.Version,
            row.Text,
            row.Match,
            row.Bid,
            next,
            next is null ? null : Typed(next, facts),
            why
        );
    }
}
