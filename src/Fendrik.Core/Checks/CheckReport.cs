using System.Text;
using Fendrik.Core.Accounts;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Checks;

/// <summary>What checks of one item go by and report to.</summary>
/// <param name="Kind">Kind of the item that is looked at.</param>
/// <param name="Id">Its identity.</param>
/// <param name="Network">The network that it is for.</param>
/// <param name="Currency">The account's currency.</param>
public readonly record struct CheckReport(ItemKind Kind, long Id, NetworkProfile Network, Currency Currency)
{
    /// <summary>Something that stops publishing.</summary>
    /// <param name="field">The field to be mended.</param>
    /// <param name="what">What is the matter with it, in a word: <c>long</c>.</param>
    /// <param name="message">A short line for the sheet.</param>
    /// <param name="detail">A sentence that says what to do.</param>
    public Finding Blocker(Field field, string what, string message, string detail) =>
        new(Weight.Blocker, $"{Dashed(field.Name)}-{what}", Kind, Id, field.Name, message, detail);

    /// <summary>Likely a mistake.</summary>
    public Finding Caution(Field field, string code, string message, string detail) =>
        new(Weight.Caution, code, Kind, Id, field.Name, message, detail);

    /// <summary>Something that could be better.</summary>
    public Finding Hint(Field field, string code, string message, string detail) =>
        new(Weight.Hint, code, Kind, Id, field.Name, message, detail);

    private static string Dashed(string name)
    {
        var dashed = new StringBuilder(name.Length + 4);
        foreach (var character in name)
        {
            dashed.Append(char.IsUpper(character) ? $"-{char.ToLowerInvariant(character)}" : character.ToString());
        }

        return dashed.ToString();
    }
}
