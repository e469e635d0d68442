using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Budgets;
using Fendrik.Core.Serving;
using Fendrik.Network.Worlds;

namespace Fendrik.Network.Simulation;

/// <summary>How a campaign went through an hour.</summary>
/// <param name="CampaignId">The campaign.</param>
/// <param name="Hour">Hours since 1970.</param>
/// <param name="SpentBefore">Spent on the day before the hour began.</param>
/// <param name="Rate">Share of searches in which it took part.</param>
/// <param name="StoppedAt">Second at which its budget no longer reached; none when it did.</param>
/// <param name="Spent">Spent in the hour.</param>
/// <param name="Budget">The day's budget as the hour began; none for hours of before it was kept.</param>
/// <param name="Strategy">The strategy by which it bid.</param>
/// <param name="Level">Its level; none for manual bids.</param>
/// <param name="Units">What clicks were bought for: clicks, likely conversions, or likely value.</param>
public sealed record CampaignHour(
    long CampaignId,
    long Hour,
    decimal SpentBefore,
    double Rate,
    int? StoppedAt,
    decimal Spent,
    decimal? Budget,
    BidStrategy Strategy = BidStrategy.ManualCpc,
    double? Level = null,
    double Units = 0
);

/// <summary>Makes daily budgets last: one share of searches for each campaign and hour, and a second at which it stopped.</summary>
/// <param name="world">The world, for how searches lie over the week.</param>
/// <param name="days">The account's days.</param>
/// <param name="strategies">What strategies know.</param>
/// <param name="before">The campaign-hours of the week before.</param>
/// <param name="spentBefore">What campaigns spent on all days before.</param>
public sealed class BudgetBook(
    World world,
    AccountDay days,
    StrategyBook strategies,
    IEnumerable<CampaignHour> before,
    IEnumerable<KeyValuePair<long, decimal>>? spentBefore = null
)
{
    private readonly Dictionary<long, decimal> _spentBefore = new(spentBefore ?? []);

    private const int HoursRemembered = 7 * 24;
    private const int SecondsOfHour = 3_600;

    private readonly Dictionary<long, Queue<CampaignHour>> _before = before
        .OrderBy(each => each.Hour)
        .GroupBy(each => each.CampaignId)
        .ToDictionary(hours => hours.Key, hours => new Queue<CampaignHour>(hours));

    private readonly Dictionary<long, decimal> _today = [];
    private readonly Dictionary<long, State> _now = [];
    private long _hour;

    private sealed class State(decimal spentBefore, double rate, decimal? budget, BidStrategy strategy, double? level)
    {
        public BidStrategy Strategy { get; } = strategy;
        public double? Level { get; } = level;
        public double Units { get; set; }
        public decimal? Budget { get; } = budget;
        public decimal SpentBefore { get; } = spentBefore;
        public double Rate { get; } = rate;
        public decimal Spent { get; set; }
        public int? StoppedAt { get; set; }
    }

    /// <summary>What strategies know.</summary>
    public StrategyBook Strategies { get; } = strategies;

    /// <summary>What was spent on the day so far, by campaign.</summary>
    public Dictionary<long, decimal> Today => _today;

    /// <summary>Begins an hour.</summary>
    /// <param name="hour">Hours since 1970.</param>
    /// <param name="campaigns">The campaigns.</param>
    public void BeginHour(long hour, IEnumerable<Campaign> campaigns)
    {
        _hour = hour;
        _now.Clear();
        var always = WeightLeft(hour, null);
        var day = days.At(DateTimeOffset.FromUnixTimeSeconds(hour * SecondsOfHour)).Day;
        foreach (var campaign in campaigns)
        {
            var spent = _today.GetValueOrDefault(campaign.Id);
            var usual = BudgetPace.CostOfUsualHour(Remembered(campaign, hour));
            var left = campaign.Hours is { } hours ? WeightLeft(hour, hours) : always;
            var budget = BudgetOfDay.Of(
                campaign,
                _spentBefore.GetValueOrDefault(campaign.Id),
                day,
                Strategies.Currency
            );
            var money = (budget ?? 0) - spent;
            _now[campaign.Id] = new State(
                spent,
                // A strategy that spends the budget makes it last by what it bids, not by sitting searches out.
                BudgetPace.RateFor(
                    money,
                    usual,
                    left,
                    campaign.Bidding.SpendsBudget ? BudgetDelivery.Fast : campaign.Delivery
                ),
                budget,
                campaign.Strategy,
                Strategies.LevelOf(
                    campaign,
                    hour,
                    [.. _before.GetValueOrDefault(campaign.Id) ?? []],
                    each => WeightOf(each, campaign.Hours),
                    money,
                    left
                )
            );
        }
    }

    /// <summary>What the strategy of a campaign goes by in this hour; none for manual bids.</summary>
    public StrategyNow? StrategyOf(Campaign campaign) =>
        _now.TryGetValue(campaign.Id, out var state) && state.Level is { } level && state.Strategy == campaign.Strategy
            ? new StrategyNow(Strategies.RatesOf(campaign.Id), level)
            : null;

    /// <summary>What the strategy of a campaign bid for a click, and for what; none for manual bids.</summary>
    public BoughtClick? BoughtWith(PlayedSearch played, Candidate chosen) =>
        StrategyOf(chosen.Keyword.Campaign) is { } now
            ? new BoughtClick(
                chosen.Keyword.Campaign.Strategy,
                Strategies.Currency.ToMinor(chosen.Bid!.Bid),
                chosen.Keyword.Campaign.Bidding.UnitsOf(
                    now.Rates.Of(ServedAccount.ClickAhead(chosen.Keyword, played.Search, played.Answer.Words))
                )
            )
            : null;

    /// <summary>How far the strategy of a campaign is in learning, and since which hour it runs, as far as the week before tells.</summary>
    public StrategyLearning LearningOf(Campaign campaign) =>
        Strategies.LearningOf(campaign, [.. _before.GetValueOrDefault(campaign.Id) ?? []]);

    /// <summary>Takes up an hour as it was.</summary>
    public void Resume(long hour, IEnumerable<CampaignHour> hours)
    {
        _hour = hour;
        _now.Clear();
        foreach (var each in hours)
        {
            _now[each.CampaignId] = new State(each.SpentBefore, each.Rate, each.Budget, each.Strategy, each.Level);
            _today[each.CampaignId] = each.SpentBefore;
        }
    }

    /// <summary>Where a campaign is when somebody searches.</summary>
    public BudgetStanding Of(Campaign campaign, in Chance chance)
    {
        var rate = _now.TryGetValue(campaign.Id, out var state) ? state.Rate : 1;
        return new BudgetStanding(
            Math.Max(0, (state?.Budget ?? campaign.DailyBudget ?? 0) - _today.GetValueOrDefault(campaign.Id)),
            rate >= 1 || chance.Share(Purpose.Participation, (int)campaign.Id) < rate,
            rate
        );
    }

    /// <summary>Notes that a click was paid.</summary>
    /// <param name="campaign">The campaign.</param>
    /// <param name="price">What it cost.</param>
    /// <param name="units">What it bought for a strategy.</param>
    public void Pay(long campaign, decimal price, double units)
    {
        _today[campaign] = _today.GetValueOrDefault(campaign) + price;
        if (_now.TryGetValue(campaign, out var state))
        {
            state.Spent += price;
            state.Units += units;
        }
    }

    /// <summary>Notes that the budget no longer reached.</summary>
    public void Stop(long campaign, int second)
    {
        if (_now.TryGetValue(campaign, out var state))
        {
            state.StoppedAt ??= second;
        }
    }

    /// <summary>Ends the day in the account's time zone.</summary>
    public void EndDay()
    {
        foreach (var (campaign, spent) in _today)
        {
            _spentBefore[campaign] = _spentBefore.GetValueOrDefault(campaign) + spent;
        }

        _today.Clear();
    }

    /// <summary>Ends the hour and tells how it went.</summary>
    public IReadOnlyList<CampaignHour> EndHour()
    {
        var hours = new List<CampaignHour>(_now.Count);
        foreach (var (campaign, state) in _now)
        {
            var hour = new CampaignHour(
                campaign,
                _hour,
                state.SpentBefore,
                state.Rate,
                state.StoppedAt,
                state.Spent,
                state.Budget,
                state.Strategy,
                state.Level,
                state.Units
            );
            hours.Add(hour);
            if (!_before.TryGetValue(campaign, out var known))
            {
                _before.Add(campaign, known = new Queue<CampaignHour>());
            }

            known.Enqueue(hour);
        }

        return hours;
    }

    private IEnumerable<SpentHour> Remembered(Campaign campaign, long hour)
    {
        if (!_before.TryGetValue(campaign.Id, out var known))
        {
            return [];
        }

        while (known.Count > 0 && known.Peek().Hour < hour - HoursRemembered)
        {
            known.Dequeue();
        }

        return known
            .Where(each => each.Rate > 0)
            .Select(each => new SpentHour(
                each.Spent,
                each.Rate,
                (each.StoppedAt ?? SecondsOfHour) / (double)SecondsOfHour,
                WeightOf(each.Hour, campaign.Hours)
            ));
    }

    /// <summary>How many usual hours an hour comes to, as far as the campaign shows in it.</summary>
    private double WeightOf(long hour, WeekPlan? plan)
    {
        var (day, wallHour) = days.At(DateTimeOffset.FromUnixTimeSeconds(hour * SecondsOfHour));
        return world.GeneralHours[((int)day.DayOfWeek + 6) % 7 * 24 + wallHour]
            * (plan?.ShareOfHour(day.DayOfWeek, wallHour) ?? 1);
    }

    /// <summary>How many usual hours what is left of the day comes to, as far as the campaign shows in them.</summary>
    private double WeightLeft(long hour, WeekPlan? plan)
    {
        var end = days.StartOf(days.At(DateTimeOffset.FromUnixTimeSeconds(hour * SecondsOfHour)).Day.AddDays(1))
            .ToUnixTimeSeconds();
        double left = 0;
        for (var at = hour; at * SecondsOfHour < end; at++)
        {
            left += WeightOf(at, plan) * Math.Min(1, (end - at * SecondsOfHour) / (double)SecondsOfHour);
        }

        return left;
    }
}
