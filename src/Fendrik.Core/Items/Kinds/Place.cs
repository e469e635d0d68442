using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Places;

namespace Fendrik.Core.Items.Kinds;

/// <summary>A country, a region or a town with what lies around it, where a campaign shows or never does.</summary>
public sealed class PlaceType()
    : ItemType(
        new Field
        {
            Name = "text",
            ListName = "place",
            TellsKind = true,
            Label = "Place",
            Meaning = "A country (or its code by ISO 3166), a region or a town.",
            Example = "Leeds, Yorkshire, England, United Kingdom",
            Column = "text",
            KeyColumn = "text_key",
            Headers = ["place", "places", "location", "locations", "geo"],
            Type = new PlaceValue(),
            IsIdentity = true,
            IsNeeded = true,
            MissingAdvice = "Choose a place.",
        },
        new Field
        {
            Name = "radius",
            Label = "Radius",
            Meaning = "Kilometres around a town that belong to it; empty: the place alone.",
            Example = "25 km",
            Column = "radius",
            Headers = ["radius", "place radius", "distance"],
            Type = new DistanceValue(),
            IsClearable = true,
            IsUsual = true,
            IsReviewed = false,
            Width = 72,
        },
        new Field
        {
            Name = "side",
            Label = "In or out",
            Meaning =
                "in: ads show to people there, and where any place is in, nowhere else; out: they never show to people there.",
            Example = "in",
            Column = "side",
            Headers = ["in or out", "place in or out"],
            Type = new ChoiceValue(Choices.Side),
            Default = (short)PlacementSide.In,
            IsUsual = true,
            IsReviewed = false,
            Width = 72,
        },
        new Field
        {
            Name = "modifier",
            Label = "Bid modifier",
            Meaning =
                "Per cent more or less for people there; −100% means never. Of several places the narrowest decides.",
            Example = "+35%",
            Column = "modifier",
            Headers = ["bid modifier", "modifier", "place modifier"],
            Type = new PercentValue(),
            IsClearable = true,
            IsUsual = true,
            IsReviewed = false,
            Width = 90,
        }
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.Place;

    /// <inheritdoc/>
    public override string Noun => "place";

    /// <inheritdoc/>
    public override string Table => "place";

    /// <inheritdoc/>
    public override IReadOnlyList<Level> Levels => [Level.Campaign];

    /// <inheritdoc/>
    public override Field NameField => this["text"];

    /// <inheritdoc/>
    public override bool IsReviewed => false;

    /// <inheritdoc/>
    public override string? FigureColumn => null;

    /// <inheritdoc/>
    public override string TwinProblem => "This place is on the campaign already.";

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report)
    {
        if (
            values["radius"] is decimal
            && values.Text("text") is { } text
            && Gazetteer.Find(text) is [{ Kind: not PlaceKind.Town } place]
        )
        {
            yield return report.Blocker(
                this["radius"],
                "radius-of-no-town",
                "a radius around what is no town",
                $"{place.Name} is a {(place.Kind == PlaceKind.Country ? "country" : "region")}: a radius goes around a town. Clear it, or choose a town."
            );
        }

        if (values["side"] is (short)PlacementSide.Out && values["modifier"] is decimal)
        {
            yield return report.Hint(
                this["modifier"],
                "modifier-left-out",
                "a modifier where nothing shows",
                "Ads never show to people in a place that is out: its modifier does nothing."
            );
        }
    }
}
