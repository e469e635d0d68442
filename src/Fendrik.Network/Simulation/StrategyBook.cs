using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Serving;

namespace Fendrik.Network.Simulation;

/// <summary>
/// What strategies know and where they stand: how likely clicks are to convert, as it was known when the day began, and a level for each
/// campaign and hour.
/// </summary>
/// <param name="days">The account's days.</param>
/// <param name="currency">The account's currency.</param>
/// <param name="known">Clicks of the days before, in the order in which they were made.</param>
public sealed class StrategyBook(AccountDay days, Currency currency, IEnumerable<KnownClick> known)
{
    private const int HoursOfDay = 24;

    /// <summary>The account's currency.</summary>
    public Currency Currency { get; } = currency;

    private readonly Dictionary<long, List<KnownClick>> _known = known
        .GroupBy(click => click.Spot.CampaignId)
        .ToDictionary(same => same.Key, same => same.ToList());

    // What is known of the days before is the same all day: it is looked up once, not every hour.
    private readonly Dictionary<long, ConversionRates> _rates = [];
    private readonly Dictionary<(long Campaign, int Back), KnownClick[]> _before = [];
    private readonly Dictionary<(long Campaign, BidStrategy Strategy), (int Clicks, int Converted)> _learnt = [];
    private readonly Dictionary<(long Campaign, BidStrategy Strategy), TargetRecord> _records = [];
    private readonly Dictionary<long, (long Paid, int Clicks)> _paid = [];
    private ILookup<long, decimal> _maxCpcs = Enumerable
        .Empty<(long, decimal)>()
        .ToLookup(each => each.Item1, each => each.Item2);
    private DateOnly _day;

    /// <summary>Goes on with the keywords of an account.</summary>
    public void GoOnWith(IEnumerable<ServedKeyword> keywords) =>
        _maxCpcs = keywords
            .Select(each => (each.Campaign.Id, MaxCpc: each.Keyword.MaxCpc ?? each.AdGroup.MaxCpc))
            .Where(each => each.MaxCpc is not null)
            .ToLookup(each => each.Id, each => each.MaxCpc!.Value);

    /// <summary>Begins a day: what was told up to then is known on it.</summary>
    public void BeginDay(DateOnly day)
    {
        if (_day != day)
        {
            _day = day;
            _rates.Clear();
            _before.Clear();
            _learnt.Clear();
            _records.Clear();
            _paid.Clear();
        }
    }

    /// <summary>Notes a click.</summary>
    public void Note(in KnownClick click)
    {
        if (!_known.TryGetValue(click.Spot.CampaignId, out var clicks))
        {
            _known.Add(click.Spot.CampaignId, clicks = []);
        }

        clicks.Add(click);
    }

    /// <summary>How likely clicks of a campaign are to convert.</summary>
    public ConversionRates RatesOf(long campaign)
    {
        if (!_rates.TryGetValue(campaign, out var rates))
        {
            var began = days.StartOf(_day);
            var clicks = ClicksOf(campaign, ConversionRates.Days);
            double Converted(KnownClick click) => click.Told <= began ? 1 : 0;
            rates = new ConversionRates(
                [
                    .. clicks.Select(click => new ClickCell(
                        click.Spot.AdGroupId,
                        click.Spot.KeywordId,
                        click.Device,
                        click.Block,
                        click.Site,
                        1,
                        Converted(click),
                        Converted(click) * click.Value
                    )),
                ],
                clicks.Select(click => new TermCell(click.Spot.KeywordId, click.Term, 1, Converted(click))),
                clicks
                    .Where(click => click.Place is not null)
                    .Select(click => new PlaceCell(click.Place!, 1, Converted(click)))
            );
            _rates.Add(campaign, rates);
        }

        return rates;
    }

    /// <summary>How far the strategy of a campaign is in learning.</summary>
    /// <param name="campaign">The campaign.</param>
    /// <param name="hours">The hours of the week before, the oldest first.</param>
    public StrategyLearning LearningOf(Campaign campaign, IReadOnlyList<CampaignHour> hours)
    {
        var run = hours.Reverse().TakeWhile(hour => hour.Strategy == campaign.Strategy).Count();
        var key = (campaign.Id, campaign.Strategy);
        if (!_learnt.TryGetValue(key, out var learnt))
        {
            var began = days.StartOf(_day);
            foreach (var click in ClicksOf(campaign.Id, ConversionRates.Days))
            {
                if (click.Bought?.Strategy == campaign.Strategy)
                {
                    learnt = (learnt.Clicks + 1, learnt.Converted + (click.Told <= began ? 1 : 0));
                }
            }

            _learnt.Add(key, learnt);
        }

        return StrategyLearning.Of(campaign.Bidding, run / HoursOfDay, learnt.Clicks, learnt.Converted);
    }

    /// <summary>The level of a campaign in an hour.</summary>
    /// <param name="campaign">The campaign.</param>
    /// <param name="hour">Hours since 1970.</param>
    /// <param name="hours">The hours of the week before, the oldest first.</param>
    /// <param name="weightOf">How many usual hours an hour comes to.</param>
    /// <param name="left">What is left of the day's budget.</param>
    /// <param name="weightLeft">How many usual hours what is left of the day comes to.</param>
    /// <returns>The level; none for a campaign whose bids people set.</returns>
    public double? LevelOf(
        Campaign campaign,
        long hour,
        IReadOnlyList<CampaignHour> hours,
        Func<long, double> weightOf,
        decimal left,
        double weightLeft
    )
    {
        var plan = campaign.Bidding;
        if (!plan.IsAutomatic)
        {
            return plan.Strategy == BidStrategy.NudgedCpc ? 1 : null;
        }

        var learning = LearningOf(campaign, hours);
        return plan.SpendsBudget
            ? SpendingLevel(campaign, hour, hours, weightOf, (left, weightLeft), learning.IsLearning)
            : MeetingLevel(campaign, learning.IsLearning);
    }

    private double SpendingLevel(
        Campaign campaign,
        long hour,
        IReadOnlyList<CampaignHour> hours,
        Func<long, double> weightOf,
        (decimal Budget, double Weight) left,
        bool isLearning
    )
    {
        var opening = OpeningOf(campaign);
        // Hours with other bids tell what hours cost as well: at about the level at which this strategy would have begun.
        var learnt = hours.Select(each =>
        {
            var own = each.Strategy == campaign.Strategy && each.Level is not null;
            var spent = own ? each.Spent : each.Spent / (decimal)Math.Max(each.Rate, Core.Budgets.BudgetPace.LeastRate);
            return new LevelHour(
                spent,
                own ? each.Units : OpeningUnits(spent, opening),
                own ? each.Level!.Value : opening,
                (each.StoppedAt ?? HourClock.LastSecond + 1) / (HourClock.LastSecond + 1.0),
                weightOf(each.Hour),
                hour - each.Hour
            );
        });
        return hours is [.., { Level: { } before } last] && last.Strategy == campaign.Strategy
            ? BudgetLevel.Next(before, opening, learnt, left.Budget, left.Weight, isLearning)
            : opening;
    }

    private static double OpeningUnits(decimal spent, double opening) =>
        opening > 0 ? (double)spent / opening * BudgetLevel.OpeningAbovePrice : 0;

    private double OpeningOf(Campaign campaign)
    {
        if (!_paid.TryGetValue(campaign.Id, out var paid))
        {
            var clicks = ClicksOf(campaign.Id, TargetLevel.Days);
            paid = (clicks.Sum(click => click.Price), clicks.Length);
            _paid.Add(campaign.Id, paid);
        }

        var maxCpcs = _maxCpcs[campaign.Id];
        return StrategyNow.OpeningLevel(
            campaign.Bidding,
            RatesOf(campaign.Id),
            Currency.FromMinor(paid.Paid),
            paid.Clicks,
            maxCpcs.Any() ? maxCpcs.Average() : null,
            campaign.DailyBudget
        );
    }

    private double MeetingLevel(Campaign campaign, bool isLearning)
    {
        var plan = campaign.Bidding;
        var rates = RatesOf(campaign.Id);
        var bidOfOne = plan.NeedsValue
            ? plan.TargetRoas is > 0
                ? rates.Value * 100 / (double)plan.TargetRoas.Value
                : 0
            : (double)(plan.TargetCpa ?? 0);
        return TargetLevel.Of(RecordOf(campaign, rates), bidOfOne, isLearning);
    }

    /// <summary>What a target was missed or met by so far.</summary>
    private TargetRecord RecordOf(Campaign campaign, ConversionRates rates)
    {
        var key = (campaign.Id, campaign.Strategy);
        if (!_records.TryGetValue(key, out var record))
        {
            var plan = campaign.Bidding;
            var began = days.StartOf(_day);
            var own = ClicksOf(campaign.Id, TargetLevel.Days)
                .Where(click => click.Bought?.Strategy == campaign.Strategy)
                .ToArray();
            var judged = own.Where(click => click.Day < _day.AddDays(-TargetLevel.FreshDays)).ToArray();
            record = new TargetRecord(
                (double)Currency.FromMinor(own.Sum(click => click.Price)),
                (double)Currency.FromMinor(own.Sum(click => click.Bought!.Value.Bid)),
                judged.Sum(click => click.Bought!.Value.Units),
                judged.Sum(click =>
                    click.Told <= began
                        ? plan.NeedsValue
                            ? click.Value
                            : 1
                        : 0
                ),
                plan.NeedsValue ? rates.Value : 1
            );
            _records.Add(key, record);
        }

        return record;
    }

    /// <summary>The clicks of the days before this one.</summary>
    private KnownClick[] ClicksOf(long campaign, int back)
    {
        if (!_before.TryGetValue((campaign, back), out var clicks))
        {
            clicks = _known.TryGetValue(campaign, out var known)
                ? [.. known.Where(click => click.Day < _day && click.Day >= _day.AddDays(-back))]
                : [];
            _before.Add((campaign, back), clicks);
        }

        return clicks;
    }
}
