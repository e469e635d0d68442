using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Checks;

/// <summary>A text that the reviewers of a network do not let through.</summary>
/// <param name="Field">The field that it stands in.</param>
/// <param name="Part">Number of the part, from 1, where the field has several.</param>
/// <param name="Text">The text.</param>
/// <param name="Refusal">Why.</param>
public sealed record RefusedText(Field Field, int? Part, string Text, Refusal Refusal)
{
    /// <summary>Where it stands and why it is refused, in a sentence or two.</summary>
    public string Sentence => Opening(Field, Part, Text) + Refusal.Reason;

    /// <summary>What reviewers said of a text, of all that they said of its item.</summary>
    /// <param name="said">A sentence for each refusal, a line each; none when they said nothing.</param>
    /// <param name="field">The field that the text stands in.</param>
    /// <param name="part">Number of the part, from 1, where the field has several.</param>
    /// <param name="text">The text as people see it.</param>
    public static IEnumerable<string> SaidOf(string? said, Field field, int? part, string text)
    {
        var opening = Opening(field, part, text);
        return (said ?? "")
            .Split('\n')
            .Where(line => line.StartsWith(opening, StringComparison.Ordinal))
            .Select(line => line[opening.Length..]);
    }

    private static string Opening(Field field, int? part, string text) =>
        $"{field.Label}{(part is { } number ? $" {number}" : "")}, “{text}”: ";
}

/// <summary>The texts of an item, read one by one as reviewers read them.</summary>
public static class ReviewedTexts
{
    /// <summary>What reviewers refuse in an item; nothing of a kind that nobody reviews.</summary>
    public static IReadOnlyList<RefusedText> RefusedIn(ItemValues values, ReviewRules rules)
    {
        if (!values.Type.IsReviewed)
        {
            return [];
        }

        // Nearly all texts are let through: a list is made for those that are not.
        List<RefusedText>? refused = null;
        void Read(Field field, int? part, string text)
        {
            foreach (var refusal in rules.RefusalsOf(text, values.Type.IsSeen))
            {
                (refused ??= []).Add(new RefusedText(field, part, text, refusal));
            }
        }

        foreach (var field in values.Type.TextsForReviewers)
        {
            switch (values[field])
            {
                case string[] lines:
                    var type = field.Type as LinesValue;
                    for (var at = 0; at < lines.Length; at++)
                    {
                        Read(field, at + 1, type?.SeenOf(lines[at]) ?? lines[at]);
                    }

                    break;
                case string text:
                    Read(field, null, text);
                    break;
            }
        }

        return refused ?? [];
    }

    /// <summary>What somebody who reads in a hurry refuses besides, though it is no refused wording.</summary>
    public static IEnumerable<RefusedText> MistakenIn(ItemValues values, ReviewRules rules) =>
        from field in values.Type.IsReviewed ? values.Type.TextsForReviewers : []
        from part in PartsOf(field, values)
        let wording = rules.MistakenWordingIn(part.Text)
        where wording is not null
        select new RefusedText(
            field,
            part.Number,
            part.Text,
            new Refusal("misread", "read as refused wording", $"it reads like “{wording}”.")
        );

    /// <summary>A caution for each of them.</summary>
    internal static IReadOnlyList<Finding> Check(ItemValues values, CheckReport report)
    {
        var refused = RefusedIn(values, report.Network.Reviewing);
        return refused.Count == 0
            ? []
            :
            [
                .. refused.Select(each =>
                    report.Caution(each.Field, each.Refusal.Code, each.Refusal.Short, each.Sentence)
                ),
            ];
    }

    private static IEnumerable<(int? Number, string Text)> PartsOf(Field field, ItemValues values) =>
        values[field] switch
        {
            string[] lines => lines.Select(
                (line, at) => ((int?)(at + 1), field.Type is LinesValue type ? type.SeenOf(line) : line)
            ),
            string text => [(null, text)],
            _ => [],
        };
}
