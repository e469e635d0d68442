using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Reporting;
using Fendrik.Data.Accounts;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Pricing;

/// <summary>A keyword with its bid.</summary>
/// <param name="Id">The keyword.</param>
/// <param name="Version">Its version, against which edits hold.</param>
/// <param name="Text">Its words.</param>
/// <param name="Match">Its match type.</param>
/// <param name="IsPaused">True when it is paused.</param>
/// <param name="AdGroupId">Its ad group.</param>
/// <param name="AdGroup">Name of that.</param>
/// <param name="BaseBid">The ad group's max CPC.</param>
/// <param name="OwnBid">Its own.</param>
/// <param name="TypedOwn">That as it is typed.</param>
/// <param name="Lowest">The lowest that a search is bid by all modifiers; none without a bid.</param>
/// <param name="Highest">The highest.</param>
/// <param name="Figures">What it brought.</param>
/// <param name="Cpc">What a click cost.</param>
/// <param name="LostToRank">Share of the searches that it could answer in which it won no place.</param>
/// <param name="TopShare">Share of its impressions above the results.</param>
/// <param name="Quality">Quality score.</param>
/// <param name="FirstPage">The bid that mostly wins a place.</param>
/// <param name="Top">The bid that mostly wins one above the results.</param>
/// <param name="AskedOn">When the network was asked.</param>
public sealed record KeywordBidRow(
    long Id,
    long Version,
    string Text,
    MatchType Match,
    bool IsPaused,
    long AdGroupId,
    string AdGroup,
    decimal? BaseBid,
    decimal? OwnBid,
    string TypedOwn,
    decimal? Lowest,
    decimal? Highest,
    PricingFigures Figures,
    decimal? Cpc,
    decimal? LostToRank,
    decimal? TopShare,
    int? Quality,
    decimal? FirstPage,
    decimal? Top,
    DateOnly? AskedOn
);

/// <summary>Bids of a campaign.</summary>
/// <param name="Keywords">Its keywords, the dearest first.</param>
/// <param name="More">True when there are more.</param>
/// <param name="Says">What is to be known of all of them; none where nothing is.</param>
public sealed record KeywordBids(IReadOnlyList<KeywordBidRow> Keywords, bool More, string? Says);

/// <summary>What bids are to reach.</summary>
public enum BidGoal
{
    /// <summary>A place on the page.</summary>
    FirstPage = 1,

    /// <summary>A place above the results.</summary>
    Top = 2,

    /// <summary>A bid to begin with.</summary>
    Starting = 3,
}

/// <summary>Asks for bids.</summary>
/// <param name="KeywordIds">The keywords.</param>
/// <param name="Goal">What they are to reach.</param>
/// <param name="Ceiling">The most that is bid, as it is typed; none for no limit.</param>
public sealed record BidWish(IReadOnlyList<long> KeywordIds, BidGoal Goal, string? Ceiling);

/// <summary>A bid that is proposed.</summary>
/// <param name="Id">The keyword.</param>
/// <param name="Version">Its version.</param>
/// <param name="Text">Its words.</param>
/// <param name="Match">Its match type.</param>
/// <param name="Now">What it bids now.</param>
/// <param name="Next">What it would bid; none where nothing is proposed.</param>
/// <param name="Typed">That as it is typed.</param>
/// <param name="Why">What it rests on, or why there is none.</param>
public sealed record ProposedBid(
    long Id,
    long Version,
    string Text,
    MatchType Match,
    decimal? Now,
    decimal? Next,
    string? Typed,
    string Why
);

/// <summary>Base and own bids of a campaign, and bids that reach a place.</summary>
internal static class KeywordBidEndpoints
{
    private const int MostKeywords = 500;

    public static void MapKeywordBids(this RouteGroupBuilder account)
    {
        account.MapGet("/bids/campaigns/{campaignId:long}/keywords", ReadAsync).WithName("readKeywordBids");
        account.MapPost("/bids/campaigns/{campaignId:long}/proposals", ProposeAsync).WithName("proposeBids");
    }

    private static async Task<Results<Ok<KeywordBids>, NotFound>> ReadAsync(
        int accountId,
        long campaignId,
        long? adGroupId,
        int? weeks,
        PricedCampaignReader campaigns,
        KeywordBidReader reader,
        TargetReader targets,
        StrategyReader strategies,
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
                plan.IsAutomatic
                        ? $"The strategy {Choices.NameOf(Choices.Strategy, (int)plan.Strategy)} sets the bids: max CPC and modifiers count again when bids are set by hand."
                    : plan.Strategy == BidStrategy.NudgedCpc
                        ? "Each bid is nudged by how likely the click is to convert: between half and one and a half times what stands here."
                    : null
            )
        );
    }

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
            row.BaseBid,
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
            next is { } amount ? ItemTypes.Of(ItemKind.Keyword)["maxCpc"].Type.Write(amount, facts.Ground) : null,
            why
        );
    }
}
