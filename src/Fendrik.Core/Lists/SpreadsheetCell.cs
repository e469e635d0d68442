namespace Fendrik.Core.Lists;

/// <summary>Text on its way into a file that a spreadsheet will open.</summary>
public static class SpreadsheetCell
{
    private const string FormulaStarts = "=+-@\t\r\n";

    /// <summary>
    /// The text with an apostrophe in front when a spreadsheet would take it for a formula, so that a name such as
    /// <c>=HYPERLINK(…)</c> is shown and not run (OWASP, “CSV Injection”). <see cref="Unguard"/> takes it off again.
    /// </summary>
    public static string Guard(string text) =>
        text.Length > 0 && (FormulaStarts.Contains(text[0]) || text[0] == '\'' && Guarded(text)) ? "'" + text : text;

    /// <summary>Takes off what <see cref="Guard"/> put on.</summary>
    public static string Unguard(string text) => Guarded(text) ? text[1..] : text;

    private static bool Guarded(string text) =>
        text.Length > 1 && text[0] == '\'' && (FormulaStarts.Contains(text[1]) || text[1] == '\'');
}
