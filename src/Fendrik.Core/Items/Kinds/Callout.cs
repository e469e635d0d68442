using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Items.Kinds;

/// <summary>A short advantage shown under ads: on the account, a campaign or an ad group.</summary>
public sealed class CalloutType()
    : ExtensionType(
        new Field
        {
            Name = "text",
            ListName = "callout",
            TellsKind = true,
            Label = "Callout",
            Meaning = "A short advantage that is shown under an ad, such as what comes with the service.",
            Example = "Same-week visits",
            Column = "text",
            KeyColumn = "text_key",
            Headers = ["callout", "callouts", "callout text"],
            Type = new TextValue(TextValue.LongestName),
            IsIdentity = true,
            IsNeeded = true,
            MissingAdvice = "Write what it says.",
        }
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
