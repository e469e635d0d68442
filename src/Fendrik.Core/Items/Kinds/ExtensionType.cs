using System.Globalization;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;

namespace Fendrik.Core.Items.Kinds;

/// <summary>What is shown with ads besides their own texts: it stands on the account, on a campaign or on an ad group.</summary>
public abstract class ExtensionType(params Field[] fields)
    : ItemType([
        CommonFields.State(),
        .. fields,
        new Field
        {
            Name = "showsFrom",
            Label = "Shows from",
            Meaning = "First day on which the extension shows; empty for at once.",
            Example = "2027-03-01",
            Column = "shows_from",
            Headers = ["shows from", "extension start"],
            Type = new DayValue(),
            IsClearable = true,
            Width = 96,
        },
        new Field
        {
            Name = "showsUntil",
            Label = "Shows until",
            Meaning = "Last day on which the extension shows; empty for open.",
            Example = "2027-03-31",
            Column = "shows_until",
            Headers = ["shows until", "extension end"],
            Type = new DayValue(),
            IsClearable = true,
            Width = 96,
        },
        new Field
        {
            Name = "hours",
            Label = "Hours",
            Meaning = "Hours of the week in which the extension shows, on the account's clock; empty for always.",
            Example = "Mon-Fri 08:00-17:30; Sat 09:00-12:00",
            Column = "hours",
            Headers = ["extension hours", "call hours", "shows at", "hours"],
            Type = new WeekHoursValue(),
            IsClearable = true,
            Width = 150,
        },
    ])
{
    /// <inheritdoc/>
    public override IReadOnlyList<Level> Levels => [Level.Account, Level.Campaign, Level.AdGroup];

    /// <inheritdoc/>
    public override Field NameField => this["text"];

    /// <inheritdoc/>
    public override bool IsReviewed => true;

    /// <inheritdoc/>
    public override bool IsSeen => true;

    /// <inheritdoc/>
    public override string? FigureColumn => null;

    /// <summary>How many of the kind an ad should have in reach: below the fewest something is amiss, below the wanted more would help.</summary>
    public abstract (int Fewest, int Wanted) InReach(ExtensionRules rules);

    /// <summary>True when people can click on it: it leads or calls somewhere itself.</summary>
    public abstract bool IsClicked { get; }

    /// <summary>Chooses what shows of those that may, and says why the others do not.</summary>
    /// <param name="rules">The network's.</param>
    /// <param name="best">Those that may show, the most successful first.</param>
    /// <param name="device">The device.</param>
    public abstract IReadOnlyList<ConsideredExtension> Choose(
        ExtensionRules rules,
        IReadOnlyList<PlacedExtension> best,
        Device device
    );

    /// <summary>The first so many show.</summary>
    protected IReadOnlyList<ConsideredExtension> First(IReadOnlyList<PlacedExtension> best, int most) =>
        [
            .. best.Select(
                (each, place) =>
                    new ConsideredExtension(
                        Kind,
                        each,
                        place < most,
                        place < most ? ""
                            : most == 1 ? "Only one shows, and another did better."
                            : $"At most {most.ToString(CultureInfo.InvariantCulture)} show here, and others did better."
                    )
            ),
        ];

    /// <summary>What an extension says, and is known by.</summary>
    /// <param name="listName">Name of its column in lists.</param>
    /// <param name="label">What people call it.</param>
    /// <param name="meaning">What stands in it.</param>
    /// <param name="example">An example.</param>
    /// <param name="headers">What else its column may be called.</param>
    protected static Field Text(
        string listName,
        string label,
        string meaning,
        string example,
        params string[] headers
    ) =>
        new()
        {
            Name = "text",
            ListName = listName,
            TellsKind = true,
            Label = label,
            Meaning = meaning,
            Example = example,
            Column = "text",
            KeyColumn = "text_key",
            Headers = headers,
            Type = new TextValue(TextValue.LongestName),
            IsIdentity = true,
            IsNeeded = true,
            MissingAdvice = "Write what it says.",
        };

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report)
    {
        if (values["showsFrom"] is DateOnly from && values["showsUntil"] is DateOnly until && from > until)
        {
            yield return report.Blocker(
                this["showsUntil"],
                "reversed",
                "stops showing before it begins",
                "Its last day is before its first. Exchange the two."
            );
        }
    }
}
