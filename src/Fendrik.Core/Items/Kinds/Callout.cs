namespace Fendrik.Core.Items.Kinds;

/// <summary>A short advantage shown under ads: on the account, a campaign or an ad group.</summary>
public sealed class CalloutType()
    : ExtensionType(
        Text(
            "callout",
            "Callout",
            "A short advantage that is shown under an ad, such as what comes with the service.",
            "Same-week visits",
            "callout",
            "callouts",
            "callout text"
        )
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.Callout;

    /// <inheritdoc/>
    public override string Noun => "callout";

    /// <inheritdoc/>
    public override string Table => "callout";

    /// <inheritdoc/>
    public override string TwinProblem => "The same callout is there already.";
}
