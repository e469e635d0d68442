using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Items.Kinds;

/// <summary>What is shown with ads besides their own texts: it stands on the account, on a campaign or on an ad group.</summary>
public abstract class ExtensionType(params Field[] fields) : ItemType(fields)
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
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report) => [];
}
