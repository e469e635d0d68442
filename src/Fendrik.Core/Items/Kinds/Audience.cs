using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Items.Kinds;

/// <summary>People whom the network knows by something: ads are kept to them, or they are only observed, with a modifier of their own.</summary>
public sealed class AudienceType()
    : ItemType(
        new Field
        {
            Name = "text",
            ListName = "audience",
            TellsKind = true,
            Label = "Audience",
            Meaning =
                "People whom the network knows by something: what they are interested in, or that they were on the site.",
            Example = "past visitors",
            Column = "text",
            KeyColumn = "text_key",
            Headers = ["audience", "audiences", "audience name"],
            Type = new TextValue(TextValue.LongestName),
            IsIdentity = true,
            IsNeeded = true,
            MissingAdvice = "Choose an audience.",
        },
        CommonFields.State(),
        new Field
        {
            Name = "use",
            Label = "Only or observed",
            Meaning =
                "only: whoever belongs to none of them sees no ad; observed: everybody does, and the audience has figures of its own.",
            Example = "observed",
            Column = "used",
            Headers = ["only or observed", "audience use"],
            Type = new ChoiceValue(Choices.AudienceUse),
            Default = (short)AudienceUse.Observed,
            IsUsual = true,
            IsReviewed = false,
            Width = 110,
        },
        new Field
        {
            Name = "modifier",
            Label = "Bid modifier",
            Meaning = "Per cent more or less for people of the audience; −100% means never.",
            Example = "+30%",
            Column = "modifier",
            Headers = ["bid modifier", "modifier", "bid adjustment"],
            Type = new PercentValue(),
            IsClearable = true,
            IsUsual = true,
            IsReviewed = false,
            Width = 90,
        }
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.Audience;

    /// <inheritdoc/>
    public override string Noun => "audience";

    /// <inheritdoc/>
    public override string Table => "audience";

    /// <inheritdoc/>
    public override IReadOnlyList<Level> Levels => [Level.Campaign, Level.AdGroup];

    /// <inheritdoc/>
    public override Field NameField => this["text"];

    /// <inheritdoc/>
    public override bool IsReviewed => false;

    /// <inheritdoc/>
    public override string? FigureColumn => null;

    /// <inheritdoc/>
    public override string TwinProblem => "This audience is there already.";

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report)
    {
        if (values["use"] is (short)AudienceUse.Only && values["modifier"] is PercentValue.Lowest)
        {
            yield return report.Caution(
                this["modifier"],
                "only-never",
                "kept to people for whom the bid is nothing",
                "Ads are kept to this audience, and its modifier of −100% means never. Observe it, or raise the modifier."
            );
        }
    }
}
