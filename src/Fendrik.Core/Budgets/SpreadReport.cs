using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding.Evidence;

namespace Fendrik.Core.Budgets;

/// <summary>What a share of a budget says of an ad group.</summary>
public enum SpreadVerdict
{
    /// <summary>Nothing is to be said of it.</summary>
    Even = 1,

    /// <summary>It takes more than half of the money, and others do better with theirs.</summary>
    Crowding = 2,

    /// <summary>The budget misses a good part of its searches, and its conversions cost no more than usual.</summary>
    Starved = 3,

    /// <summary>People search for it, but its bids win next to no place.</summary>
    Outbid = 4,
}

/// <summary>An ad group's share of its campaign's budget.</summary>
/// <param name="Demand">The ad group.</param>
/// <param name="Share">Its share of what the campaign spent: 0 to 1.</param>
/// <param name="CouldHave">What it could have spent, as a share of what the campaign spent.</param>
/// <param name="LikelyCost">What a conversion of it likely costs, drawn towards the campaign; none where nothing was sold anywhere.</param>
/// <param name="Verdict">What that says.</param>
public sealed record GroupShare(
    GroupDemand Demand,
    double Share,
    double CouldHave,
    double? LikelyCost,
    SpreadVerdict Verdict
);

/// <summary>An ad group that deserves a campaign of its own.</summary>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="Budget">The daily budget that reaches for its searches.</param>
/// <param name="Rest">What is left for the others: the two come to what the campaign has.</param>
/// <param name="Gain">Conversions that it brings more in a week than the same money does now.</param>
public sealed record SplitProposal(long AdGroupId, decimal Budget, decimal Rest, LikelyRange Gain);

/// <summary>How a campaign's budget is shared among its ad groups.</summary>
/// <param name="Groups">The ad groups, the most expensive first.</param>
/// <param name="EffectiveNumber">As many ad groups as would share it evenly to be as concentrated; none without cost.</param>
/// <param name="Split">The ad group that deserves a campaign of its own; none where none does.</param>
public sealed record SpreadReport(IReadOnlyList<GroupShare> Groups, double? EffectiveNumber, SplitProposal? Split)
{
    /// <summary>Part of its searches that the budget has to miss for an ad group to be starved.</summary>
    private const decimal StarvedFrom = 0.2m;

    /// <summary>Part of its searches that its bids have to lose for an ad group to be outbid.</summary>
    private const decimal OutbidFrom = 0.9m;

    /// <summary>Fewest searches from which anything is said.</summary>
    private const long FewestSearches = 30;

    private const int DaysOfWeek = 7;

    /// <summary>How a campaign's budget is shared.</summary>
    /// <param name="demand">The campaign.</param>
    /// <param name="budget">Its daily budget; none where it has none.</param>
    /// <param name="currency">The currency.</param>
    public static SpreadReport Of(CampaignDemand demand, decimal? budget, Currency currency)
    {
        var cost = (double)demand.Figures.Cost;
        // Of the whole as the parts are drawn towards it, so that one that nothing is known of is as dear as the whole.
        var usual = CostOf(demand.Groups, cost);
        GroupShare[] groups =
        [
            .. demand
                .Groups.OrderByDescending(group => group.Figures.Cost)
                .ThenByDescending(group => group.Missed.Cost)
                .ThenBy(group => group.AdGroupId)
                .Select(group =>
                {
                    var spent = (double)group.Figures.Cost;
                    var likely = LikelyCostOf(group);
                    return new GroupShare(
                        group,
                        cost > 0 ? spent / cost : 0,
                        cost > 0 ? (spent + group.Missed.Cost) / cost : 0,
                        likely,
                        VerdictOn(group, cost > 0 ? spent / cost : 0, likely, usual, demand.Groups.Count)
                    );
                }),
        ];
        return new SpreadReport(
            groups,
            EffectiveNumberOf(groups.Select(group => group.Demand.Figures.Cost)),
            budget is { } money ? SplitOf(demand, groups, money, currency) : null
        );
    }

    /// <summary>
    /// The reciprocal of the Herfindahl–Hirschman index of shares: the number of equal parts that are as concentrated. None of nothing.
    /// </summary>
    public static double? EffectiveNumberOf(IEnumerable<decimal> parts)
    {
        double[] all = [.. parts.Select(part => (double)part)];
        var sum = all.Sum();
        return sum > 0 ? 1 / all.Sum(part => part / sum * (part / sum)) : null;
    }

    private static double? LikelyCostOf(GroupDemand group) =>
        group.Rates is { Conversions: > 0 } rates ? rates.CostOfClick / rates.Conversions : null;

    private static double? CostOf(IReadOnlyList<GroupDemand> groups, double cost)
    {
        var conversions = groups.Sum(group =>
            LikelyCostOf(group) is { } likely ? (double)group.Figures.Cost / likely : 0
        );
        return conversions > 0 ? cost / conversions : null;
    }

    private static SpreadVerdict VerdictOn(GroupDemand group, double share, double? likely, double? usual, int of)
    {
        var searches = group.Standing.Impressions + group.Standing.LostToRank + group.Standing.LostToBudget;
        return of < 2 || searches < FewestSearches ? SpreadVerdict.Even
            : group.Standing.RankLossShare >= OutbidFrom ? SpreadVerdict.Outbid
            : share > 0.5 && likely > usual ? SpreadVerdict.Crowding
            : group.Standing.BudgetLossShare >= StarvedFrom && likely <= usual ? SpreadVerdict.Starved
            : SpreadVerdict.Even;
    }

    /// <summary>Of the starved ad groups the one that gains most, if that is more than nothing as far as one can be sure.</summary>
    private static SplitProposal? SplitOf(
        CampaignDemand demand,
        IReadOnlyList<GroupShare> groups,
        decimal budget,
        Currency currency
    )
    {
        var days = demand.Days.Count;
        SplitProposal? best = null;
        foreach (var group in groups.Where(each => each.Verdict == SpreadVerdict.Starved))
        {
            var own = currency.Round((decimal)(((double)group.Demand.Figures.Cost + group.Demand.Missed.Cost) / days));
            if (own < currency.SmallestAmount || own >= budget)
            {
                continue;
            }

            var others = demand.Groups.Where(each => each.AdGroupId != group.Demand.AdGroupId).ToArray();
            var cost = others.Sum(each => (double)each.Figures.Cost);
            var conversions = others.Sum(each =>
                LikelyCostOf(each) is { } likely ? (double)each.Figures.Cost / likely : 0
            );
            if (cost <= 0)
            {
                continue;
            }

            // The money for what it missed is taken from the others at what theirs brings.
            var money = group.Demand.Missed.Cost * DaysOfWeek / days;
            var (brings, lost) = (group.Demand.Missed.Conversions * DaysOfWeek / days, money * conversions / cost);
            var gain = LikelyRange.Of(
                brings - lost,
                Math.Sqrt(
                    brings * brings / ((double)group.Demand.Figures.Conversions + SegmentFactor.Prior)
                        + lost * lost / (conversions + SegmentFactor.Prior)
                )
            );
            if (gain.Likely > (best?.Gain.Likely ?? 0))
            {
                best = new SplitProposal(group.Demand.AdGroupId, own, budget - own, gain);
            }
        }

        return best;
    }
}
