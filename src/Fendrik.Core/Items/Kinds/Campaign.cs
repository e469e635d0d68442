using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Items.Kinds;

/// <summary>A budget, dates and networks, with ad groups in it.</summary>
public sealed class CampaignType()
    : ItemType(
        CommonFields.Name(
            "Name of the campaign. For a negative list: a campaign that it holds for, one in each row.",
            "Leeds tuning",
            "campaign",
            "campaign name",
            "camp",
            "kampagne",
            "campagne"
        ),
        CommonFields.State(Arrival.AsChosen),
        new Field
        {
            Name = "dailyBudget",
            Label = "Daily budget",
            Meaning = "Most that the campaign may spend in a day.",
            Example = "25.00",
            Column = "daily_budget",
            Headers = ["daily budget", "budget", "campaign budget", "budget per day", "tagesbudget"],
            Type = new AmountValue(),
            IsSaidInside = true,
            IsClearable = true,
            IsNeeded = true,
            UnlessFilled = "totalBudget",
            MissingAdvice = "A campaign without a daily budget cannot run. Set one.",
            IsUsual = true,
            Width = 86,
        },
        new Field
        {
            Name = "totalBudget",
            Label = "Total budget",
            Meaning =
                "Most that the campaign may spend in all. Without a daily budget what is left of it is shared evenly among the days up to the end date.",
            Example = "600.00",
            Column = "total_budget",
            Headers = ["total budget", "lifetime budget", "campaign total"],
            Type = new AmountValue(),
            IsClearable = true,
            IsReviewed = false,
            Width = 86,
        },
        new Field
        {
            Name = "startDate",
            Label = "Start date",
            Meaning = "First day of the campaign.",
            Example = "2027-01-04",
            Column = "start_date",
            Headers = ["start date", "start", "starts", "from"],
            Type = new DayValue(),
            Arrival = Arrival.Today,
            IsSaidInside = true,
            IsClearable = true,
            Width = 96,
        },
        new Field
        {
            Name = "endDate",
            Label = "End date",
            Meaning = "Last day of the campaign; empty for open.",
            Example = "2027-06-30",
            Column = "end_date",
            Headers = ["end date", "end", "ends", "until"],
            Type = new DayValue(),
            IsSaidInside = true,
            IsClearable = true,
            Width = 96,
        },
        new Field
        {
            Name = "networks",
            Label = "Networks",
            Meaning = "Where the campaign shows: search, partners, content, joined by +.",
            Example = "search + partners",
            Column = "networks",
            Headers = ["networks", "network", "shows on"],
            Type = new FlagsValue(
                Choices.Sites,
                "shows nowhere",
                "Choose at least one place to show: search, partner sites or content sites."
            ),
            Default = (short)SiteKinds.Search,
            IsSaidInside = true,
            Width = 130,
        },
        new Field
        {
            Name = "rotation",
            Label = "Rotation",
            Meaning =
                "How the ads of an ad group take turns: even, or by success, where the one with more clicks shows more.",
            Example = "even",
            Column = "rotation",
            Headers = ["rotation", "ad rotation"],
            Type = new ChoiceValue(Choices.Rotation),
            Default = (short)AdRotation.Even,
            Width = 96,
        },
        new Field
        {
            Name = "delivery",
            Label = "Delivery",
            Meaning = "How the daily budget is spent: spread over the hours of the day, or as fast as possible.",
            Example = "spread",
            Column = "delivery",
            Headers = ["delivery", "budget delivery", "delivery method"],
            Type = new ChoiceValue(Choices.Delivery),
            Default = (short)BudgetDelivery.Spread,
            Width = 96,
        },
        new Field
        {
            Name = "strategy",
            Label = "Strategy",
            Meaning =
                "Who sets the bids, and by what: manual CPC, nudged manual CPC, maximise clicks, maximise conversions, target CPA, maximise value, target ROAS.",
            Example = "manual CPC",
            Column = "strategy",
            Headers = ["strategy", "bid strategy", "bidding", "bid strategy type"],
            Type = new ChoiceValue(Choices.Strategy),
            Default = (short)BidStrategy.ManualCpc,
            IsReviewed = false,
            Width = 130,
        },
        new Field
        {
            Name = "targetCpa",
            Label = "Target CPA",
            Meaning = "What a conversion shall cost, for the strategy target CPA.",
            Example = "12.00",
            Column = "target_cpa",
            Headers = ["target cpa", "tcpa", "target cost per conversion"],
            Type = new AmountValue(),
            IsClearable = true,
            IsReviewed = false,
            Width = 86,
        },
        new Field
        {
            Name = "targetRoas",
            Label = "Target ROAS",
            Meaning =
                "The value that spend shall return in per cent, for the strategy target ROAS: 400% is 4.00 for each 1.00.",
            Example = "400%",
            Column = "target_roas",
            Headers = ["target roas", "troas", "target return on spend"],
            Type = new ReturnValue(),
            IsClearable = true,
            IsReviewed = false,
            Width = 90,
        },
        new Field
        {
            Name = "lowestBid",
            Label = "Lowest bid",
            Meaning = "The least that a strategy may bid; empty for no such limit.",
            Example = "0.20",
            Column = "lowest_bid",
            Headers = ["lowest bid", "bid floor", "minimum bid"],
            Type = new AmountValue(),
            IsClearable = true,
            IsReviewed = false,
            Width = 80,
        },
        new Field
        {
            Name = "highestBid",
            Label = "Highest bid",
            Meaning = "The most that a strategy may bid; empty for no such limit.",
            Example = "3.00",
            Column = "highest_bid",
            Headers = ["highest bid", "bid cap", "bid limit", "maximum bid"],
            Type = new AmountValue(),
            IsClearable = true,
            IsReviewed = false,
            Width = 80,
        },
        new Field
        {
            Name = "people",
            Label = "People",
            Meaning =
                "Whom the campaign's places reach: people in the places, or also people elsewhere who are interested in them.",
            Example = "in the places",
            Column = "people",
            Headers = ["people", "place reach", "location options"],
            Type = new ChoiceValue(Choices.Reach),
            Default = (short)PlaceReach.Present,
            Width = 110,
        },
        new Field
        {
            Name = "languages",
            Label = "Languages",
            Meaning =
                "The languages of the people whom it reaches, by tags of BCP 47 or by English names; empty: every language.",
            Example = "en; de-CH",
            Column = "languages",
            Headers = ["languages", "language", "language targeting"],
            Type = new LanguagesValue(),
            IsClearable = true,
            IsReviewed = false,
            Width = 96,
        },
        new Field
        {
            Name = "objective",
            Label = "Objective",
            Meaning = "What the campaign is for: leads, calls, sales by value, or visits. The network never sees it.",
            Example = "leads",
            Column = "objective",
            Headers = ["objective", "campaign objective", "goal"],
            Type = new ChoiceValue(Choices.Objective),
            Default = (short)Objective.Leads,
            IsPublished = false,
            IsReviewed = false,
            Width = 90,
        },
        new Field
        {
            Name = "conversionMayCost",
            Label = "Conversion may cost",
            Meaning =
                "What a conversion may cost: the yardstick of modifiers until there is one. The network never sees it.",
            Example = "12.00",
            Column = "conversion_may_cost",
            Headers = ["conversion may cost", "target cost", "allowed cost per conversion"],
            Type = new AmountValue(),
            IsPublished = false,
            IsClearable = true,
            IsReviewed = false,
            Width = 90,
        },
        new Field
        {
            Name = "goals",
            Label = "Goals",
            Meaning =
                "The conversion actions that count in the campaign, with semicolons between; empty: the goals of the account.",
            Example = "Ask for a price; Call from an ad",
            Column = "goals",
            Headers = ["goals", "conversion goals", "campaign goals"],
            Type = new GoalsValue(),
            IsClearable = true,
            IsReviewed = false,
            Width = 150,
        },
        new Field
        {
            Name = "hours",
            Label = "Hours",
            Meaning =
                "When ads show in the week, by quarter hours on the account's clock, each with per cent more or less where wanted; empty: always.",
            Example = "Mon-Fri 08:00-17:30; Sat 09:00-12:00 -20%",
            Column = "hours",
            Headers = ["hours", "campaign hours", "ad schedule", "schedule"],
            Type = new WeekPlanValue(),
            IsClearable = true,
            IsReviewed = false,
            Width = 180,
        },
        CommonFields.DeviceModifier(Device.Desktop, inheritedFrom: null),
        CommonFields.DeviceModifier(Device.Phone, inheritedFrom: null),
        CommonFields.DeviceModifier(Device.Tablet, inheritedFrom: null),
        CommonFields.TrackingTemplate(inheritedFrom: ItemKind.Account)
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.Campaign;

    /// <inheritdoc/>
    public override string Noun => "campaign";

    /// <inheritdoc/>
    public override string Table => "campaign";

    /// <inheritdoc/>
    public override IReadOnlyList<Level> Levels => [Level.Account];

    /// <inheritdoc/>
    public override Level? Holds => Level.Campaign;

    /// <inheritdoc/>
    public override Field NameField => this["name"];

    /// <inheritdoc/>
    public override bool IsReviewed => false;

    /// <inheritdoc/>
    public override string FigureColumn => "campaign_id";

    /// <inheritdoc/>
    public override string TwinProblem => "There is a campaign of this name already. Choose another name.";

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report)
    {
        if (values["startDate"] is DateOnly start && values["endDate"] is DateOnly end && start > end)
        {
            yield return report.Blocker(
                this["endDate"],
                "reversed",
                "ends before it starts",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"The end date {end:d MMM yyyy} is before the start date {start:d MMM yyyy}. Exchange the two."
                )
            );
        }

        if (values["totalBudget"] is decimal total)
        {
            var money = new Money(total, report.Currency);
            if (values["dailyBudget"] is decimal daily && daily > total)
            {
                yield return report.Blocker(
                    this["totalBudget"],
                    "low",
                    "total budget below the daily one",
                    $"It may spend {new Money(daily, report.Currency)} a day, but {money} in all. Raise the total, or lower the day's."
                );
            }
            else if (values["dailyBudget"] is null && values["endDate"] is null)
            {
                yield return report.Caution(
                    this["endDate"],
                    "open",
                    "total budget without an end",
                    $"Without an end date there are no days to share {money} among: it may all be spent on the first. Set an end date, or a daily budget beside it."
                );
            }
        }

        foreach (var problem in StrategyPlan.Of(values).Problems(report.Currency))
        {
            yield return report.Blocker(this[problem.Field], problem.Code, problem.Message, problem.Advice);
        }
    }
}
