using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Budgets;
using Fendrik.Core.Calls;
using Fendrik.Core.Checks;
using Fendrik.Core.Reporting;
using Fendrik.Core.Reporting.Alerts;
using Fendrik.Core.Reporting.Measures;
using Fendrik.Core.Tracking.Conversions;
using Lucene.Net.Analysis.Core;
using MathNet.Numerics.Distributions;

namespace Fendrik.Core.Desk;

/// <summary>A word of search terms that never sold.</summary>
/// <param name="Text">The word.</param>
/// <param name="Terms">How many terms have it.</param>
/// <param name="Clicks">Their clicks.</param>
/// <param name="Cost">What these cost.</param>
public sealed record UnsoldWord(string Text, int Terms, long Clicks, decimal Cost);

/// <summary>Decides what is worth doing, and what the money in it is by the week.</summary>
public static class DeskRules
{
    private const double DaysOfWeek = 7;

    /// <summary>Part of the money of a word from which on a pair is the word.</summary>
    private const decimal NearlyAll = 0.8m;

    /// <summary>What chance brings about less often than this is taken for real: once in twenty.</summary>
    private const double Rare = 0.05;

    /// <summary>Least part by which a conversion must have become dearer.</summary>
    private const decimal Dearer = 0.25m;

    /// <summary>Fewest conversions before, from which a change can be told.</summary>
    private const int FewestConversions = 5;

    /// <summary>Least part of its searches that a budget must miss.</summary>
    private const decimal LeastMissed = 0.05m;

    /// <summary>What reviewers refused.</summary>
    /// <param name="count">How many items.</param>
    /// <param name="first">The name of one of them.</param>
    /// <param name="reason">Why that was refused.</param>
    /// <param name="costADay">What the ad groups concerned usually cost a day: what may not be there any more.</param>
    /// <param name="currency">The account's currency.</param>
    public static DeskItem? OfRefused(int count, string first, string reason, decimal costADay, Currency currency) =>
        count == 0
            ? null
            : new DeskItem(
                DeskTopic.Refused,
                Weight.Caution,
                count == 1 ? $"{first} was refused" : $"{count} items were refused",
                count == 1 ? reason : $"{first}: {reason} And {Count(count - 1, "other")}.",
                currency.Round(costADay * (decimal)DaysOfWeek),
                costADay > 0 ? $"{new Money(currency.Round(costADay), currency)} a day" : null
            );

    /// <summary>Calls that nobody took outside the hours.</summary>
    /// <param name="missed">The calls.</param>
    /// <param name="hours">When somebody takes calls; none where nobody said.</param>
    /// <param name="weeks">Over how many weeks.</param>
    /// <param name="currency">The account's currency.</param>
    public static DeskItem? OfCalls(MissedCalls missed, WeekHours? hours, int weeks, Currency currency)
    {
        if (missed.Outside == 0 || hours is null)
        {
            return null;
        }

        var (title, says) = missed.InWords(currency, hours);
        var money = currency.Round(missed.OutsideCost / weeks);
        return new DeskItem(
            DeskTopic.Calls,
            Weight.Caution,
            title,
            $"In {Count(weeks, "week")}. {says}",
            money,
            AWeek(money, currency)
        );
    }

    /// <summary>
    /// Words that never sold though they had clicks enough: at the rate of the account, so many clicks without a conversion come by chance once in twenty
    /// times or less (Poisson).
    /// </summary>
    /// <param name="words">Words without a conversion.</param>
    /// <param name="pairs">
    /// Pairs of words without a conversion, with a blank between them: a pair in which nearly all of the money of both its words is, is told instead of these.
    /// </param>
    /// <param name="account">What the account brought in these days.</param>
    /// <param name="weeks">Over how many weeks.</param>
    /// <param name="currency">The account's currency.</param>
    /// <param name="most">Most of them, the dearest first.</param>
    public static IEnumerable<DeskItem> OfWords(
        IReadOnlyCollection<UnsoldWord> words,
        IEnumerable<UnsoldWord> pairs,
        Figures account,
        int weeks,
        Currency currency,
        int most
    )
    {
        var costs = words.ToDictionary(word => word.Text, word => word.Cost, StringComparer.Ordinal);
        UnsoldWord[] whole =
        [
            .. pairs.Where(pair =>
                pair.Text.Split(' ').All(word => costs.TryGetValue(word, out var cost) && pair.Cost >= cost * NearlyAll)
            ),
        ];
        var told = whole.SelectMany(pair => pair.Text.Split(' ')).ToHashSet(StringComparer.Ordinal);
        return words
            // Nobody keeps “a” away: it says nothing of what is meant.
            .Where(word => !told.Contains(word.Text) && !StopAnalyzer.ENGLISH_STOP_WORDS_SET.Contains(word.Text))
            .Concat(whole)
            .Where(word => Math.Exp(-word.Clicks * (double)(account.ConversionRate ?? 0)) <= Rare)
            .OrderByDescending(word => word.Cost)
            .ThenBy(word => word.Text, StringComparer.Ordinal)
            .Take(most)
            .Select(word =>
            {
                var money = currency.Round(word.Cost / weeks);
                return new DeskItem(
                    DeskTopic.Word,
                    Weight.Caution,
                    $"“{word.Text}” brought nothing in {Count(weeks, "week")}",
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{Count(word.Terms, "different search", "different searches")} with it, {Count((int)word.Clicks, "click")}, no conversion: {word.Clicks * (double)(account.ConversionRate ?? 0):0.#} should have come at the account's rate."
                    ),
                    money,
                    AWeek(money, currency),
                    word.Text
                );
            });
    }

    /// <summary>A budget that runs out though people search on.</summary>
    /// <param name="id">The campaign.</param>
    /// <param name="name">Its name.</param>
    /// <param name="demand">What it brought and missed.</param>
    /// <param name="ranOut">When its budget ran out.</param>
    /// <param name="currency">The account's currency.</param>
    public static DeskItem? OfBudget(long id, string name, CampaignDemand demand, RunningOut ranOut, Currency currency)
    {
        if (
            demand.Days.Count == 0
            || ranOut.UsualMinute is not { } minute
            || (demand.Standing.BudgetLossShare ?? 0) < LeastMissed
        )
        {
            return null;
        }

        var week = demand.Missed * (DaysOfWeek / demand.Days.Count);
        var money = currency.Round((decimal)week.Cost);
        return new DeskItem(
            DeskTopic.Budget,
            Weight.Caution,
            $"{name} ran out of money, usually at {BudgetWords.Clock(minute)}",
            $"On {ranOut.Days} of {Count(ranOut.Of, "day")}. The searches that it missed would cost about {AWeek(money, currency)}.",
            money,
            week.Conversions >= 0.5
                ? string.Create(CultureInfo.InvariantCulture, $"+{week.Conversions:0} conv. a week")
                : AWeek(money, currency),
            name,
            id
        );
    }

    /// <summary>Conversions that are no longer counted: whoever looks at the campaigns that go by them is blind.</summary>
    /// <param name="finding">What the audit found.</param>
    /// <param name="action">The action's name.</param>
    /// <param name="spentAWeek">What the campaigns that have it for a goal spend a week.</param>
    /// <param name="currency">The account's currency.</param>
    public static DeskItem? OfTracking(AuditFinding finding, string action, decimal spentAWeek, Currency currency) =>
        finding.Weight != Weight.Blocker
            ? null
            : new DeskItem(
                DeskTopic.Tracking,
                Weight.Blocker,
                $"{action}: {finding.Message}",
                finding.Advice,
                currency.Round(spentAWeek),
                spentAWeek > 0 ? $"blind for {AWeek(spentAWeek, currency)}" : "blind",
                action
            );

    /// <summary>
    /// A campaign whose conversions became a quarter dearer in a week, more than chance explains: of the conversions of both weeks, each week has its share by
    /// its money, and so few came now once in twenty times or less (binomial, one-sided).
    /// </summary>
    /// <param name="id">The campaign.</param>
    /// <param name="name">Its name.</param>
    /// <param name="now">The last seven days.</param>
    /// <param name="before">The seven before.</param>
    /// <param name="told">Share of the conversions of the last seven days that are told of by now: above 0 to 1. The others still come in.</param>
    /// <param name="currency">The account's currency.</param>
    public static DeskItem? OfDearer(long id, string name, Figures now, Figures before, double told, Currency currency)
    {
        now = now with { Conversions = now.Conversions / (decimal)told };
        if (
            before.Conversions < FewestConversions
            || now.Cost <= 0
            || now.Cost * before.Conversions <= before.Cost * now.Conversions * (1 + Dearer)
        )
        {
            return null;
        }

        var both = (int)Math.Round(now.Conversions + before.Conversions);
        var share = (double)(now.Cost / (now.Cost + before.Cost));
        if (Binomial.CDF(share, both, Math.Round((double)now.Conversions)) > Rare)
        {
            return null;
        }

        var was = before.Cost / before.Conversions;
        // What the conversions that came would have cost at the price of before.
        var money = currency.Round(now.Cost - was * now.Conversions);
        Money Of(decimal amount) => new(currency.Round(amount), currency);
        return new DeskItem(
            DeskTopic.Dearer,
            Weight.Caution,
            $"{name}: conversions became dearer",
            now.CostPerConversion is { } cost
                ? $"One cost {Of(cost)} in the last 7 days{(told < 1 ? ", with those that are still to come," : "")} and {Of(was)} in the 7 before; so large a difference comes by chance once in twenty times or less."
                : $"None came in the last 7 days; one cost {Of(was)} in the 7 before.",
            money,
            AWeek(money, currency),
            name,
            id
        );
    }

    /// <summary>An alert of one's own that went off on the last day.</summary>
    /// <param name="alert">The alert.</param>
    /// <param name="measure">Its measure.</param>
    /// <param name="figure">What it found.</param>
    /// <param name="cost">What was spent in its days.</param>
    /// <param name="day">The last of them.</param>
    /// <param name="campaign">The campaign that it is about; none for the account.</param>
    /// <param name="currency">The account's currency.</param>
    public static DeskItem OfAlert(
        Alert alert,
        Measure measure,
        decimal figure,
        decimal cost,
        DateOnly day,
        (long Id, string Name)? campaign,
        Currency currency
    )
    {
        ArgumentNullException.ThrowIfNull(alert);
        ArgumentNullException.ThrowIfNull(measure);
        var money = alert.TooMuch(measure, figure, cost) is { } more
            ? currency.Round(more * (decimal)DaysOfWeek / alert.Days)
            : (decimal?)null;
        return new DeskItem(
            DeskTopic.Alert,
            Weight.Caution,
            $"{(campaign is { } only ? $"{only.Name}: " : "")}{AlertWords.Of(alert, measure, currency)}",
            AlertWords.Found(alert, measure, figure, day, currency),
            money,
            money is { } known ? AWeek(known, currency) : null,
            campaign?.Name,
            campaign?.Id
        );
    }

    private static string AWeek(decimal money, Currency currency) =>
        $"{new Money(currency.Round(money), currency)} a week";

    private static string Count(int count, string one, string? many = null) =>
        string.Create(CultureInfo.InvariantCulture, $"{count:N0} {(count == 1 ? one : many ?? one + "s")}");
}
