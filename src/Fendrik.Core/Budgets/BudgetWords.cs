using System.Globalization;
using Fendrik.Core.Accounts;

namespace Fendrik.Core.Budgets;

/// <summary>What is to be said of budgets, for a person to read.</summary>
public static class BudgetWords
{
    /// <summary>Part of its searches below which a budget is not said to hold a campaign back.</summary>
    public const decimal HeldBackFrom = 0.01m;

    private const int MinutesOfHour = 60;

    /// <summary>A minute of the day as a clock shows it: 17:20.</summary>
    public static string Clock(int minute) =>
        string.Create(CultureInfo.InvariantCulture, $"{minute / MinutesOfHour:00}:{minute % MinutesOfHour:00}");

    /// <summary>An amount that is reckoned, in the account's currency.</summary>
    public static decimal Amount(double amount, Currency currency) => currency.Round((decimal)amount);

    /// <summary>What a campaign's budget does to it, in a sentence.</summary>
    public static string OfCampaign(CampaignDemand demand, decimal? budget, RunningOut ranOut, Currency currency)
    {
        var lost = demand.Standing.BudgetLossShare ?? 0;
        if (budget is null)
        {
            return "It has no daily budget, so that it shows nowhere.";
        }

        if (demand.Days.Count == 0)
        {
            return "Nobody searched for it in these weeks.";
        }

        var ran =
            ranOut.Days == 0
                ? "The budget is spread so thin that it sits searches out."
                : $"The budget ran out on {ranOut.Days} of {ranOut.Of} days,{(ranOut.Days == 1 ? "" : " usually")} at {Clock(ranOut.UsualMinute ?? 0)}.";
        if (lost < HeldBackFrom)
        {
            return ranOut.Days == 0
                ? "Its budget holds nothing back: more money would not be spent. Bids and quality decide what it gets."
                : $"{ran} That is next to nothing of what was searched for: bids and quality decide what it gets.";
        }

        return demand.IsUnknown
            ? $"{ran} What the missed searches would have cost is not known: nobody clicked yet."
            : $"{ran} The {demand.Standing.LostToBudget.ToString("N0", CultureInfo.InvariantCulture)} searches that it missed would have cost about {new Money(Amount(demand.Missed.Cost / demand.Days.Count, currency), currency)} more a day.";
    }

    /// <summary>What a forecast of budgets rests on.</summary>
    /// <param name="campaigns">The campaigns that change.</param>
    /// <param name="days">Number of days behind it.</param>
    /// <param name="trial">How the same reckoning came out before.</param>
    public static string RestsOn(IReadOnlyCollection<CampaignDemand> campaigns, int days, ForecastTrial trial)
    {
        var missed = campaigns.Sum(each => each.Standing.LostToBudget);
        var basis = string.Create(
            CultureInfo.InvariantCulture,
            $"Rests on {days} days: {missed:N0} {(missed == 1 ? "search" : "searches")} missed for lack of budget."
        );
        return $"{basis} {OfTrial(trial, days)}";
    }

    /// <summary>How a reckoning would have come out, in a sentence.</summary>
    public static string OfTrial(ForecastTrial trial, int days) =>
        trial is { CostError: { } cost }
            ? $"Tried on these days from the {days} before, cost came out {Off(cost)}{(trial.ConversionsError is { } sold ? $" and conversions {Off(sold)}" : "")}."
            : "There are no days before to try it on yet.";

    /// <summary>What became of an ad group's share, in a sentence; none where nothing is to be said.</summary>
    public static string? OfGroup(GroupShare group, string name, Currency currency)
    {
        var standing = group.Demand.Standing;
        var cost = group.LikelyCost is { } likely ? new Money(Amount(likely, currency), currency).ToString() : null;
        return group.Verdict switch
        {
            SpreadVerdict.Even => null,
            SpreadVerdict.Crowding =>
                $"{name} takes {Percent(group.Share)} of the money, and its conversions cost more than the others', about {cost}.",
            SpreadVerdict.Starved =>
                $"{name} is starved: its conversions cost about {cost}, it gets {Percent(group.Share)} of the money, and the budget misses {Percent((double)(standing.BudgetLossShare ?? 0))} of its searches.",
            SpreadVerdict.Outbid =>
                $"{name} is outbid: it shows in {Percent((double)(standing.ImpressionShare ?? 0))} of its searches, for its bids win next to no place. A campaign of its own would not change that.",
        };
    }

    /// <summary>What is to be said of the month against what may be spent, in a sentence.</summary>
    public static string OfMonth(
        MonthForecast? forecast,
        decimal spent,
        decimal? budget,
        DateOnly today,
        Currency currency
    )
    {
        Money Of(decimal amount) => new(currency.Round(amount), currency);
        var month = today.ToString("MMMM", CultureInfo.InvariantCulture);
        var known = budget is { } most ? $"{month}: {Of(spent)} of {Of(most)} spent" : $"{month}: {Of(spent)} spent";
        return forecast is null
            ? $"{known}. A forecast needs {MonthForecast.FewestDays} days."
            : $"{known}, likely {Of((decimal)forecast.Month.Low)} – {Of((decimal)forecast.Month.High)}";
    }

    /// <summary>What follows for the rest of the month, in a sentence; none where no budget of a month is kept.</summary>
    public static string? Rest(
        MonthForecast? forecast,
        decimal spent,
        decimal? budget,
        DateOnly today,
        Currency currency
    )
    {
        if (budget is not { } most)
        {
            return null;
        }

        Money Of(decimal amount) => new(currency.Round(amount), currency);
        var left = most - spent;
        var days = DateTime.DaysInMonth(today.Year, today.Month) - today.Day + 1;
        if (left <= 0)
        {
            return $"The budget of the month is spent, {Of(-left)} more than that.";
        }

        var perDay = $"{Of(left)} is left, {Of(left / days)} for each of the {days} days to come.";
        return forecast is null ? perDay
            : forecast.DayBeyond(most) is { } day
                ? $"{perDay} As it goes, it is spent on {day.ToString("ddd d MMM", CultureInfo.InvariantCulture)}."
            : forecast.Month.High > (double)most ? $"{perDay} As it goes, it is likely to last."
            : $"{perDay} As it goes, {Of(most - (decimal)forecast.Month.Likely)} is left over.";
    }

    private static string Off(double error) =>
        Math.Abs(error) < 0.005 ? "right to 1%"
        : error > 0 ? $"{Percent(error)} too high"
        : $"{Percent(-error)} too low";

    private static string Percent(double share) =>
        string.Create(CultureInfo.InvariantCulture, $"{Math.Round(share * 100, MidpointRounding.AwayFromZero):0}%");
}
