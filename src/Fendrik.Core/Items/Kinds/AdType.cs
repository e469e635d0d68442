using Fendrik.Core.AdText;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Items.Kinds;

/// <summary>An ad of any kind: what people who search see and click. It stands in an ad group.</summary>
public abstract class AdType(params Field[] fields) : ItemType([CommonFields.State(), .. fields])
{
    /// <summary>The kind in a word or two, beside others: responsive ad.</summary>
    public abstract string FormNoun { get; }

    /// <summary>The only device that ads of the kind show on, where no field of theirs says it; none for any.</summary>
    public virtual Device? OnlyDevice => null;

    /// <inheritdoc/>
    public override IReadOnlyList<Level> Levels => [Level.AdGroup];

    /// <inheritdoc/>
    public override Field NameField => this["headlines"];

    /// <inheritdoc/>
    public override bool IsReviewed => true;

    /// <inheritdoc/>
    public override bool IsSeen => true;

    /// <summary>Figures name an ad whatever kind it is of: no two have the same number.</summary>
    public override string FigureColumn => "ad_id";

    /// <inheritdoc/>
    public override string TwinProblem => "The ad group has this very ad already. Change the text or the page.";

    /// <inheritdoc/>
    public override bool IsKnownByContent => true;

    /// <summary>Headlines of an ad.</summary>
    protected static Field Headlines(int room, bool placed, bool tellsKind = false) =>
        new()
        {
            Name = "headlines",
            Label = "Headline",
            Meaning = placed
                ? "Headlines of the ad. One that is kept to a place has it behind: [1]."
                : "Headlines of the ad, in their order.",
            Example = "Piano Tuning In Leeds",
            Column = "headlines",
            Headers = ["headline", "title"],
            TellsKind = tellsKind,
            Type = new AdLinesValue("headline", room, placed),
            IsIdentity = true,
            IsSortable = false,
        };

    /// <summary>Descriptions of an ad.</summary>
    protected static Field Descriptions(int room, bool placed, bool tellsKind = false) =>
        new()
        {
            Name = "descriptions",
            Label = "Description",
            Meaning = placed
                ? "Descriptions of the ad. One that is kept to a place has it behind: [1]."
                : "Descriptions of the ad, in their order.",
            Example = "Concert-trained tuners, same-week visits.",
            Column = "descriptions",
            Headers = ["description", "line", "text"],
            TellsKind = tellsKind,
            Type = new AdLinesValue("description", room, placed),
            IsIdentity = true,
            IsClearable = true,
            IsSortable = false,
        };

    /// <summary>Parts of the path that is shown behind the domain.</summary>
    protected static Field DisplayPath() =>
        new()
        {
            Name = "displayPath",
            Label = "Path",
            Meaning = "Parts of the path that is shown behind the domain.",
            Example = "tuning",
            Column = "display_path",
            Headers = ["path", "display path"],
            Type = new AdLinesValue("display path part", room: 2),
            IsIdentity = true,
            IsClearable = true,
            IsSortable = false,
        };

    /// <summary>Where the ad leads on phones, when that is another page.</summary>
    protected static Field PhonePage() =>
        new()
        {
            Name = "phonePage",
            Label = "Page on phones",
            Meaning = "Address of the page that the ad leads to on phones; empty for the landing page.",
            Example = "https://tarnandfell.example/m/tuning",
            Column = "phone_page",
            Headers = ["page on phones", "mobile page", "mobile landing page", "phone page", "mobile url"],
            Type = new AddressValue(),
            IsClearable = true,
            Width = 200,
        };

    /// <summary>The only device that an ad shows on.</summary>
    /// <param name="usual">True where lists of the kind show it unless a person chooses otherwise.</param>
    protected static Field OnlyOn(bool usual = false) =>
        CommonFields.OnlyDevice(
            "The only device that the ad shows on, where ads for all devices give way to it: desktop, phone or tablet; empty for all.",
            identity: true,
            usual: usual
        );

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report) => [];
}
