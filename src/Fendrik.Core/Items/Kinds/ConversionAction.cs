using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Tracking.Conversions;

namespace Fendrik.Core.Items.Kinds;

/// <summary>What counts as success: what somebody does, where, how the network comes to know of it, and what it is worth.</summary>
public sealed class ConversionActionType()
    : ItemType(
        new Field
        {
            Name = "name",
            ListName = "conversion action",
            TellsKind = true,
            Label = "Name",
            Meaning = "Name of something that counts as success.",
            Example = "Ask for a price",
            Column = "name",
            KeyColumn = "name_key",
            Headers = ["conversion action", "conversion name", "conversion"],
            Type = new TextValue(TextValue.LongestName),
            IsIdentity = true,
            IsNeeded = true,
            MissingAdvice = "Give it a name.",
        },
        CommonFields.State(),
        new Field
        {
            Name = "source",
            Label = "Counts",
            Meaning = "form, sale, booking, call from an ad, call from the site, page reached.",
            Example = "form",
            Column = "source",
            Headers = ["counts", "conversion source", "conversion type"],
            Type = new ChoiceValue(Choices.ConversionSource),
            Default = (short)ConversionSource.Form,
            IsUsual = true,
            IsReviewed = false,
            Width = 120,
        },
        new Field
        {
            Name = "address",
            Label = "Where",
            Meaning =
                "The site or page on which it is done, with all below; for a booking the site where it is made. Empty: anywhere.",
            Example = "tarnandfell.example/tuning",
            Column = "address",
            Headers = ["where", "conversion page", "conversion site"],
            Type = new SiteValue(),
            IsClearable = true,
            IsUsual = true,
            IsReviewed = false,
            Width = 180,
        },
        new Field
        {
            Name = "hearing",
            Label = "Heard by",
            Meaning =
                "tag: a tag on the own site; id carried over: the click id goes along in the link to the other company's site; sent back: that site sends its confirmations.",
            Example = "tag",
            Column = "hearing",
            Headers = ["heard by", "measured by"],
            Type = new ChoiceValue(Choices.ConversionHearing),
            Default = (short)ConversionHearing.Tag,
            IsUsual = true,
            IsReviewed = false,
            Width = 110,
        },
        new Field
        {
            Name = "leastSeconds",
            Label = "Counts from",
            Meaning = "For calls: how long people must talk; empty: every answered call.",
            Example = "70 s",
            Column = "least_seconds",
            Headers = ["counts from", "least seconds", "minimum seconds"],
            Type = new WholeNumberValue(1, 3_600, "s", "sec", "seconds"),
            IsClearable = true,
            IsUsual = true,
            IsReviewed = false,
            Width = 84,
        },
        new Field
        {
            Name = "fixedValue",
            Label = "Value of one",
            Meaning = "What one is worth on average, where the worth is fixed.",
            Example = "60.00",
            Column = "fixed_value",
            Headers = ["value of one", "conversion value"],
            Type = new AmountValue(),
            IsClearable = true,
            IsUsual = true,
            IsReviewed = false,
            Width = 86,
        },
        new Field
        {
            Name = "averageSale",
            Label = "Average sale",
            Meaning = "What a customer pays on average. The network never sees it.",
            Example = "320.00",
            Column = "average_sale",
            Headers = ["average sale", "average order"],
            Type = new AmountValue(),
            IsPublished = false,
            IsClearable = true,
            IsReviewed = false,
            Width = 90,
        },
        new Field
        {
            Name = "closingRate",
            Label = "Closing rate",
            Meaning = "How many of a hundred become customers. The network never sees it.",
            Example = "25 %",
            Column = "closing_rate",
            Headers = ["closing rate", "close rate"],
            Type = new WholeNumberValue(1, 100, "%", "per cent"),
            IsPublished = false,
            IsClearable = true,
            IsReviewed = false,
            Width = 84,
        },
        new Field
        {
            Name = "margin",
            Label = "Margin",
            Meaning = "How much of a hundred of the sale is left when the work is paid. The network never sees it.",
            Example = "40 %",
            Column = "margin",
            Headers = ["margin", "profit margin"],
            Type = new WholeNumberValue(1, 100, "%", "per cent"),
            IsPublished = false,
            IsClearable = true,
            IsReviewed = false,
            Width = 84,
        },
        new Field
        {
            Name = "worth",
            Label = "Worth",
            Meaning =
                "fixed: each is worth the value of one; sent with it: the sum that the site sends; by hand: what the own books say later.",
            Example = "fixed",
            Column = "worth",
            Headers = ["worth", "value comes"],
            Type = new ChoiceValue(Choices.ConversionWorth),
            Default = (short)ConversionWorth.Fixed,
            IsReviewed = false,
            Width = 90,
        },
        new Field
        {
            Name = "counting",
            Label = "Counting",
            Meaning = "one for a click, or each.",
            Example = "one for a click",
            Column = "counting",
            Headers = ["counting", "conversion counting"],
            Type = new ChoiceValue(Choices.ConversionCounting),
            Default = (short)ConversionCounting.OneForClick,
            IsUsual = true,
            IsReviewed = false,
            Width = 110,
        },
        new Field
        {
            Name = "window",
            Label = "Window",
            Meaning = "Days after the click within which it counts: 1 to 90. Empty: 28.",
            Example = "28 days",
            Column = "window_days",
            Headers = ["window", "conversion window", "window days"],
            Type = new WholeNumberValue(1, 90, "days", "day", "d"),
            IsClearable = true,
            IsReviewed = false,
            Width = 84,
        },
        new Field
        {
            Name = "steers",
            Label = "Steers bids",
            Meaning = "yes: strategies of campaigns whose goal it is learn from it; no: it is only counted.",
            Example = "yes",
            Column = "steers",
            Headers = ["steers bids", "steers", "optimise for"],
            Type = new ChoiceValue(Choices.YesNo),
            Default = (short)YesNo.Yes,
            IsUsual = true,
            IsReviewed = false,
            Width = 90,
        },
        new Field
        {
            Name = "accountGoal",
            Label = "Goal of the account",
            Meaning = "yes: it counts in every campaign that has no goals of its own.",
            Example = "yes",
            Column = "account_goal",
            Headers = ["goal of the account", "account goal"],
            Type = new ChoiceValue(Choices.YesNo),
            Default = (short)YesNo.Yes,
            IsUsual = true,
            IsReviewed = false,
            Width = 120,
        }
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.ConversionAction;

    /// <inheritdoc/>
    public override string Noun => "conversion action";

    /// <inheritdoc/>
    public override string Table => "conversion_action";

    /// <inheritdoc/>
    public override IReadOnlyList<Level> Levels => [Level.Account];

    /// <inheritdoc/>
    public override Field NameField => this["name"];

    /// <inheritdoc/>
    public override bool IsReviewed => false;

    /// <inheritdoc/>
    public override string? FigureColumn => null;

    /// <inheritdoc/>
    public override string TwinProblem => "There is a conversion action of this name already. Choose another name.";

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report)
    {
        var source = values["source"] is short number ? (ConversionSource)number : ConversionSource.Form;
        if (values.Text("name") is { } name && name.Contains(GoalsValue.Separator, StringComparison.Ordinal))
        {
            yield return report.Blocker(
                this["name"],
                "separator",
                "a semicolon in the name",
                "Campaigns name their goals with semicolons between. Take the semicolon out of the name."
            );
        }

        if (source is ConversionSource.Booking or ConversionSource.PageReached && values["address"] is null)
        {
            yield return report.Blocker(
                this["address"],
                "nowhere",
                source == ConversionSource.Booking ? "booked on no site" : "no page",
                source == ConversionSource.Booking
                    ? "Say on which site the booking is made."
                    : "Without a page every visit to any page would count. Say which one."
            );
        }

        if (source == ConversionSource.PageReached && values["steers"] is (short)YesNo.Yes)
        {
            yield return report.Caution(
                this["steers"],
                "page-steers",
                "a page view may steer bids",
                "Whoever looks at a page has not bought anything: strategies would buy lookers. Let it be counted without steering."
            );
        }

        if (
            values["averageSale"] is decimal sale
            && values["closingRate"] is decimal closing
            && values["margin"] is decimal margin
            && new LeadWorth(sale, closing, margin).Value(report.Currency) is var worked
            && values["fixedValue"] is decimal kept
            && kept != worked
        )
        {
            yield return report.Hint(
                this["fixedValue"],
                "other-worth",
                $"worth {new Accounts.Money(worked, report.Currency)} by its sale",
                $"Sale, closing rate and margin come to {new Accounts.Money(worked, report.Currency)}, and its value is {new Accounts.Money(kept, report.Currency)}. Work it out again, or clear what it was worked out from."
            );
        }

        if (
            values["worth"] is (short)ConversionWorth.Fixed
            && values["fixedValue"] is null
            && values["steers"] is (short)YesNo.Yes
        )
        {
            yield return report.Hint(
                this["fixedValue"],
                "no-worth",
                "no value of one",
                "Without a value it adds nothing to value, return on spend and profit. What a lead may cost works it out from sales."
            );
        }
    }
}
