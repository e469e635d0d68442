using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Items.Kinds;

/// <summary>Words that stand for one another in this account, besides those that ship: broad match reaches them too.</summary>
public sealed class RelatedWordsType()
    : ItemType(
        new Field
        {
            Name = "text",
            ListName = "relatedWords",
            TellsKind = true,
            Label = "Related words",
            Meaning = "A word, or a few that belong together, that people in this trade use for others.",
            Example = "joanna",
            Column = "text",
            KeyColumn = "text_key",
            Headers = ["related word", "related words"],
            Type = new TextValue(TextValue.LongestName),
            IsIdentity = true,
            IsNeeded = true,
            MissingAdvice = "Write the word.",
        },
        new Field
        {
            Name = "means",
            Label = "Stands for",
            Meaning = "What it stands for; for a misspelling the right word.",
            Example = "piano",
            Column = "means",
            Headers = ["stands for"],
            Type = new LinesValue("meaning", room: 6),
            IsNeeded = true,
            IsSortable = false,
            MissingAdvice = "Write at least one word that it stands for.",
        },
        new Field
        {
            Name = "nearness",
            Label = "Nearness",
            Meaning = "How much the two mean the same, or that one is a misspelling of the other.",
            Column = "nearness",
            Headers = ["nearness", "relation"],
            Type = new ChoiceValue(Choices.Nearness),
            IsNeeded = true,
            Default = (short)Nearness.Synonym,
            IsUsual = true,
        }
    )
{
    /// <inheritdoc/>
    public override ItemKind Kind => ItemKind.RelatedWords;

    /// <inheritdoc/>
    public override string Noun => "related word";

    /// <inheritdoc/>
    public override string Table => "related_words";

    /// <inheritdoc/>
    public override IReadOnlyList<Level> Levels => [Level.Account];

    /// <inheritdoc/>
    public override Field NameField => this["text"];

    /// <inheritdoc/>
    public override bool IsReviewed => false;

    /// <inheritdoc/>
    public override string? FigureColumn => null;

    /// <inheritdoc/>
    public override string TwinProblem => "This word is there already. Add to what it stands for.";

    /// <inheritdoc/>
    protected override IEnumerable<Finding> CheckMore(ItemValues values, CheckReport report)
    {
        if (values[this["text"]] is string words && Matching.Words.Of(words).Count == 0)
        {
            yield return report.Blocker(this["text"], "empty", "no words", "It has no letters or digits to match.");
        }
    }
}
