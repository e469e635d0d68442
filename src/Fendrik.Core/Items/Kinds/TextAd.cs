namespace Fendrik.Core.Items.Kinds;

/// <summary>A text ad with fixed headlines and descriptions.</summary>
public sealed class TextAdType()
    : AdType(
        Headlines(room: 14, placed: false, tellsKind: true),
        Descriptions(room: 5, placed: false, tellsKind: true),
        DisplayPath(),
        CommonFields.LandingPage(needed: true, identity: true),
        PhonePage(),
        OnlyOn(usual: true)
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.TextAd;

    /// <inheritdoc/>
    public override string FormNoun => "fixed text ad";

    /// <inheritdoc/>
    public override string Noun => "ad";

    /// <inheritdoc/>
    public override string FileWord => "text ad";

    /// <inheritdoc/>
    public override IReadOnlyList<string> OtherWords => ["text ads", "fixed ad", "fixed text ad"];

    /// <inheritdoc/>
    public override string Table => "text_ad";
}
