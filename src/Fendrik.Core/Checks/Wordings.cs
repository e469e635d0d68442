using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Checks;

/// <summary>Wordings that the reviewers of a network do not let through.</summary>
public static class Wordings
{
    /// <summary>A caution for each text of a field that says what reviewers refuse.</summary>
    public static IEnumerable<Finding> Refused(Field field, ItemValues values, CheckReport report)
    {
        foreach (var text in TextsOf(field, values))
        {
            if (report.Network.RefusedWordingIn(text) is { } wording)
            {
                yield return report.Caution(
                    field,
                    "wording-refused",
                    $"reviewers refuse “{wording}”",
                    $"{report.Network.Name} refuses ads that say “{wording}”. Word “{text}” in another way."
                );
            }
        }
    }

    /// <summary>All texts of an item that people see or bid on.</summary>
    public static IEnumerable<string> TextsOf(ItemValues values) =>
        values
            .Type.Fields.Where(field => field is { IsPublished: true, IsText: true } && field.Type is not AddressValue)
            .SelectMany(field => TextsOf(field, values));

    private static IEnumerable<string> TextsOf(Field field, ItemValues values) =>
        values[field] switch
        {
            string[] lines => lines,
            string text => [text],
            _ => [],
        };
}
