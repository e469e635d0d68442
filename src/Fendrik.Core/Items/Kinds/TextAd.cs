using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Items.Kinds;

/// <summary>A text ad with fixed headlines and descriptions.</summary>
public sealed class TextAdType()
    : ItemType(
        CommonFields.State(),
        new Field
        {
            Name = "headlines",
            Label = "Headline",
            Meaning = "Headlines of the ad, in their order.",
            Example = "Piano Tuning In Leeds",
            Column = "headlines",
            Headers = ["headline", "title"],
            TellsKind = true,
            Type = new LinesValue("headline", room: 14),
            IsIdentity = true,
            IsSortable = false,
        },
        new Field
        {
            Name = "descriptions",
            Label = "Description",
            Meaning = "Descriptions of the ad, in their order.",
            Example = "Concert-trained tuners, same-week visits.",
            Column = "descriptions",
            Headers = ["description", "line", "text"],
            TellsKind = true,
            Type = new LinesValue("description", room: 5),
            IsIdentity = true,
            IsClearable = true,
            IsSortable = false,
        },
        new Field
        {
            Name = "displayPath",
            Label = "Path",
            Meaning = "Parts of the path that is shown behind the domain.",
            Example = "tuning",
            Column = "display_path",
            Headers = ["path", "display path"],
            Type = new LinesValue("display path part", room: 2),
            IsIdentity = true,
            IsClearable = true,
            IsSortable = false,
        },
        CommonFields.LandingPage(needed: true, identity: true),
        CommonFields.OnlyDevice(
            "The only device that the ad shows on, where ads for all devices give way to it: desktop, phone or tablet; empty for all.",
            identity: true,
            usual: true
        )
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.TextAd;

    /// <inheritdoc/>
    public override string Noun => "ad";

    /// <inheritdoc/>
    public override string FileWord => "text ad";

    /// <inheritdoc/>
    public override IReadOnlyList<string> OtherWords => ["text ads"];

    /// <inheritdoc/>
    public override string Table => "text_ad";

    /// <inheritdoc/>
    public override IReadOnlyList<Level> Levels => [Level.AdGroup];

    /// <inheritdoc/>
    public override Field NameField => this["headlines"];

    /// <inheritdoc/>
    public override bool IsReviewed => true;

    /// <inheritdoc/>
    public override bool IsSeen => true;

    /// <inheritdoc/>
    public override string FigureColumn => "ad_id";

    /// <inheritdoc/>
    public override string TwinProblem => "The ad group has this very ad already. Change the text or the page.";

    /// <inheritdoc/>
    public override bool IsKnownByContent => true;

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report) => [];
}
