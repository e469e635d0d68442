using Fendrik.Core.Checks;

namespace Fendrik.Core.Items.Kinds;

/// <summary>Words bid on, with a match type.</summary>
public sealed class KeywordType()
    : ItemType(
        CommonFields.Words(
            "keyword",
            "Keyword",
            "The words, plain or in notation: [exact], \"phrase\", +all +words, a minus in front of a negative.",
            "grand piano tuning",
            "keyword",
            "keywords",
            "key word",
            "search words",
            "search term",
            "words",
            "phrase",
            "term",
            "suchbegriff"
        ),
        CommonFields.Match(),
        CommonFields.MaxCpc(inheritedFrom: ItemKind.AdGroup),
        CommonFields.State(),
        CommonFields.LandingPage(needed: false),
        CommonFields.TrackingTemplate(inheritedFrom: ItemKind.AdGroup)
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.Keyword;

    /// <inheritdoc/>
    public override string Noun => "keyword";

    /// <inheritdoc/>
    public override string Table => "keyword";

    /// <inheritdoc/>
    public override IReadOnlyList<Level> Levels => [Level.AdGroup];

    /// <inheritdoc/>
    public override Field NameField => this["text"];

    /// <inheritdoc/>
    public override bool IsReviewed => true;

    /// <inheritdoc/>
    public override string FigureColumn => "keyword_id";

    /// <inheritdoc/>
    public override string TwinProblem => "The same words with the same match type are there already.";

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report) => [];
}
