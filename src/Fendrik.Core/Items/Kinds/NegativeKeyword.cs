using Fendrik.Core.Checks;

namespace Fendrik.Core.Items.Kinds;

/// <summary>Words that must not trigger an ad, on a campaign, an ad group or a list that campaigns share.</summary>
public sealed class NegativeKeywordType()
    : ItemType(
        CommonFields.Words(
            "negativeKeyword",
            "Negative keyword",
            "Words that must not trigger an ad, on an ad group, a campaign or a negative list.",
            "free",
            "negative",
            "negatives",
            "negative keyword",
            "negative keywords",
            "exclude"
        ),
        CommonFields.Match()
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.NegativeKeyword;

    /// <inheritdoc/>
    public override string Noun => "negative";

    /// <inheritdoc/>
    public override string FileWord => "negative keyword";

    /// <inheritdoc/>
    public override IReadOnlyList<string> OtherWords => ["negative keywords"];

    /// <inheritdoc/>
    public override string Table => "negative_keyword";

    /// <inheritdoc/>
    public override IReadOnlyList<Level> Levels => [Level.Campaign, Level.AdGroup, Level.List];

    /// <inheritdoc/>
    public override Field NameField => this["text"];

    /// <inheritdoc/>
    public override bool IsReviewed => false;

    /// <inheritdoc/>
    public override string? FigureColumn => null;

    /// <inheritdoc/>
    public override string TwinProblem => "The same words with the same match type are there already.";

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report) => [];
}
