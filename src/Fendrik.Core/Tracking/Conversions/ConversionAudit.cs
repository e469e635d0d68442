using System.Globalization;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Tracking.Conversions;

/// <summary>Finds what misleads: actions that count nothing, or everything, or twice, and campaigns that are steered by such.</summary>
public static class ConversionAudit
{
    /// <summary>What there is to say of an account, the heaviest first.</summary>
    public static IReadOnlyList<AuditFinding> Of(AuditFacts facts) =>
        [
            .. facts
                .Actions.SelectMany(action => OfAction(action, facts))
                .Concat(facts.Campaigns.SelectMany(campaign => OfCampaign(campaign, facts)))
                .Concat(facts.Twice.Where(pair => pair.IsMuch).SelectMany(pair => OfPair(pair, facts)))
                .Concat(OfPages(facts))
                .OrderByDescending(finding => finding.Weight),
        ];

    /// <summary>True when an action can be relied on, as far as is known.</summary>
    public static bool IsAlive(AuditedAction action) =>
        action.Health.State switch
        {
            ActionState.Works or ActionState.TooNew => true,
            ActionState.Paused or ActionState.NeverCounted or ActionState.Silent or ActionState.EveryVisit => false,
        };

    private static IEnumerable<AuditFinding> OfAction(AuditedAction audited, AuditFacts facts)
    {
        var (action, health) = audited;
        var steered = facts.Campaigns.Count(each =>
            each.Bidding.NeedsConversions && ConversionGoals.Steers(action, each.Goals)
        );
        AuditFinding Found(Weight weight, string code, string message, string advice, params AuditRepair[] repairs) =>
            new(weight, code, action.Id, null, message, advice, repairs);

        if (action is { State: ItemState.Running, Source: ConversionSource.Booking, Hearing: ConversionHearing.Tag })
        {
            yield return Found(
                Weight.Blocker,
                "booked-elsewhere",
                "nothing of it can be heard",
                $"{action.Name} happens on another company's site, where a tag knows nothing of the click. Carry the click id over in the link, or take that site's confirmations.",
                Hears(action, "Carry the id over in the link", ConversionHearing.CarriedId),
                Hears(action, "Take the site's confirmations", ConversionHearing.SentBack)
            );
            yield break;
        }

        switch (health.State)
        {
            case ActionState.Silent:
                yield return Found(
                    steered > 0 || action.AccountGoal == YesNo.Yes ? Weight.Blocker : Weight.Caution,
                    "silent",
                    $"silent since {Date(health.LastDay!.Value)}",
                    $"{Number(health.Missed)} should have come since then; so long a silence comes by chance {Chance(health.Chance)}."
                        + (steered > 0 ? $" {Campaigns(steered)} bid by it." : ""),
                    [
                        .. action is { Source: ConversionSource.Booking, Hearing: ConversionHearing.CarriedId }
                            ? new[] { Hears(action, "Take the site's confirmations", ConversionHearing.SentBack) }
                            : [],
                        .. steered > 0 ? new[] { SteersNot(action) } : [],
                    ]
                );
                break;
            case ActionState.NeverCounted:
                yield return Found(
                    steered > 0 || action.AccountGoal == YesNo.Yes ? Weight.Caution : Weight.Hint,
                    "never",
                    $"counted nothing in {health.Days} days",
                    "Either nobody does it, or the network does not hear of it. Follow a test visit; pause it when nobody needs it.",
                    new AuditRepair(
                        "Pause it",
                        ItemKind.ConversionAction,
                        [action.Id],
                        "state",
                        Choices.NameOf(Choices.State, (int)ItemState.Paused)
                    )
                );
                break;
            case ActionState.EveryVisit:
                yield return Found(
                    action.Steers == YesNo.Yes || action.AccountGoal == YesNo.Yes ? Weight.Caution : Weight.Hint,
                    "every-visit",
                    $"counts {health.PerClick.ToString("0%", CultureInfo.InvariantCulture)} of all visits",
                    "It counts whoever looks at the page. The tag tells of it when the page is loaded, not when the form is sent: have it moved, and let it count in no campaign until then.",
                    [
                        .. action.AccountGoal == YesNo.Yes ? new[] { NotOfAccount(action) } : [],
                        .. action.Steers == YesNo.Yes ? new[] { SteersNot(action) } : [],
                    ]
                );
                break;
            case ActionState.Works:
            case ActionState.Paused:
            case ActionState.TooNew:
                break;
        }
    }

    private static IEnumerable<AuditFinding> OfCampaign(AuditedCampaign campaign, AuditFacts facts)
    {
        AuditFinding Found(Weight weight, string code, string message, string advice, params AuditRepair[] repairs) =>
            new(weight, code, null, campaign.Id, message, advice, repairs);
        AuditRepair[] clear = campaign.Goals is null
            ? []
            : [new AuditRepair("Use the goals of the account", ItemKind.Campaign, [campaign.Id], "goals", "")];
        var goals = new ConversionGoals(facts.Actions.Select(each => each.Action));
        foreach (var each in GoalChecks.Of(campaign.Id, campaign.Name, campaign.Goals, campaign.Bidding, null, goals))
        {
            yield return Found(each.Weight, each.Code, each.Message, each.Detail, clear);
        }

        var steering = facts.Actions.Where(each => ConversionGoals.Steers(each.Action, campaign.Goals)).ToArray();
        if (campaign.Bidding.NeedsConversions && steering.Length > 0 && !steering.Any(IsAlive))
        {
            yield return Found(
                Weight.Blocker,
                "dead-goal",
                "a strategy steers by a dead goal",
                $"{string.Join(", ", steering.Select(each => each.Action.Name))} no longer counts what it should, and the strategy of {campaign.Name} learns from nothing else.",
                clear
            );
        }
    }

    private static IEnumerable<AuditFinding> OfPair(CountedTwice pair, AuditFacts facts)
    {
        var first = facts.Actions.FirstOrDefault(each => each.Action.Id == pair.First)?.Action;
        var second = facts.Actions.FirstOrDefault(each => each.Action.Id == pair.Second)?.Action;
        if (first is null || second is null)
        {
            yield break;
        }

        var campaigns = facts
            .Campaigns.Where(each =>
                ConversionGoals.Counts(first, each.Goals) && ConversionGoals.Counts(second, each.Goals)
            )
            .ToArray();
        if (campaigns.Length == 0)
        {
            yield break;
        }

        var (more, less) = pair.OfFirst >= pair.OfSecond ? (first, second) : (second, first);
        yield return new AuditFinding(
            Weight.Caution,
            "twice",
            less.Id,
            null,
            $"{pair.Both} counted twice",
            $"{pair.Both} of {Math.Min(pair.OfFirst, pair.OfSecond)} clicks that led to “{less.Name}” led to “{more.Name}” as well, mostly {Apart(pair.Hours)}. Both count in {Campaigns(campaigns.Length)}: one customer looks like two.{(pair.IsMostly ? "" : " Bear it in mind where a conversion may cost as much as it brings.")}",
            pair.IsMostly && less.AccountGoal == YesNo.Yes ? [NotOfAccount(less)] : []
        );
    }

    private static IEnumerable<AuditFinding> OfPages(AuditFacts facts)
    {
        var tagged = facts
            .Actions.Select(each => each.Action)
            .Where(action => action is { State: ItemState.Running, Source: not ConversionSource.CallFromAd })
            .ToArray();
        foreach (var page in facts.Pages)
        {
            var hurt = tagged
                .Where(action =>
                    action is { Source: ConversionSource.Booking, Hearing: ConversionHearing.CarriedId }
                    || action.Source is not ConversionSource.Booking
                        && (
                            action.Address is null
                            || SiteValue.Covers(action.Address, page.Address)
                            || SiteValue.Covers(page.Address, action.Address)
                        )
                )
                .Select(action => action.Name)
                .ToArray();
            if (hurt.Length == 0)
            {
                continue;
            }

            if (page.Tag == PageTag.None)
            {
                yield return new AuditFinding(
                    Weight.Caution,
                    "tag-missing",
                    null,
                    null,
                    $"no tag on {page.Address}",
                    $"What people do there is not heard of: {string.Join(", ", hurt)}. Have the tag put on the page.",
                    []
                );
            }
            else if (page.Tag == PageTag.OnLoad)
            {
                yield return new AuditFinding(
                    Weight.Caution,
                    "tag-on-load",
                    null,
                    null,
                    $"the tag of {page.Address} tells too early",
                    "It tells of a form when the page is loaded, not when the form is sent: every visit counts. Have it moved to where the form is sent.",
                    []
                );
            }
        }
    }

    private static AuditRepair Hears(ConversionAction action, string label, ConversionHearing hearing) =>
        new(
            label,
            ItemKind.ConversionAction,
            [action.Id],
            "hearing",
            Choices.NameOf(Choices.ConversionHearing, (int)hearing)
        );

    private static AuditRepair SteersNot(ConversionAction action) =>
        new("Let it steer no bids", ItemKind.ConversionAction, [action.Id], "steers", No);

    private static AuditRepair NotOfAccount(ConversionAction action) =>
        new($"Count “{action.Name}” in no campaign", ItemKind.ConversionAction, [action.Id], "accountGoal", No);

    private static string No => Choices.NameOf(Choices.YesNo, (int)YesNo.No);

    private static string Campaigns(int count) => count == 1 ? "1 campaign" : $"{count} campaigns";

    private static string Date(DateOnly day) => day.ToString("ddd d MMM", CultureInfo.InvariantCulture);

    private static string Number(double number) => number.ToString("0.#", CultureInfo.InvariantCulture);

    private static string Apart(double hours) =>
        hours < 1 ? "within the hour"
        : hours < 24 ? $"{Number(Math.Round(hours))} hours apart"
        : $"{Number(Math.Round(hours / 24))} days apart";

    private static string Chance(double chance) =>
        chance < 0.001
            ? "less than once in a thousand times"
            : string.Create(CultureInfo.InvariantCulture, $"once in {Math.Round(1 / chance):N0} times");
}
