using System.Globalization;
using Fendrik.Core.Accounts;

namespace Fendrik.Core.Items.Values;

/// <summary>An amount as people write it: the one reader of amounts for cells, pastes, panels, commands and files.</summary>
/// <param name="Number">The number without its sign.</param>
/// <param name="Sign">Plus or minus in front, or none.</param>
/// <param name="IsPercent">True with a per-cent sign behind it.</param>
/// <param name="Problem">Why it is no amount, as the end of a sentence; none when it is one.</param>
public readonly record struct AmountText(decimal Number, char? Sign, bool IsPercent, string? Problem)
{
    /// <summary>
    /// Reads an amount. Thousands are grouped by the language's mark or by spaces, in threes; a mark that cannot be one of
    /// groups is taken for the decimal mark, so that <c>1,30</c> is read in British English too.
    /// </summary>
    public static AmountText Read(string text, Currency currency, AccountLanguage language)
    {
        AmountText Wrong() =>
            new(
                0,
                null,
                false,
                $"“{Reading.Shortened(text)}” is not an amount in {currency.Code}; write it like {1.2m.ToString("F" + currency.MinorUnits, CultureInfo.InvariantCulture)}"
            );

        var rest = text.Trim();
        var sign = SignOf(ref rest);
        rest = WithoutCurrency(rest, currency);
        sign ??= SignOf(ref rest);
        var percent = rest.EndsWith('%');
        if (percent)
        {
            rest = rest[..^1].TrimEnd();
        }

        // Between digits a space groups them; anywhere else it is a slip that is not guessed at.
        rest = rest.Replace('\u00a0', ' ').Replace('\u202f', ' ');
        if (rest.Length is 0 or > 24 || !rest.All(each => char.IsAsciiDigit(each) || each is '.' or ',' or ' '))
        {
            return Wrong();
        }

        return
            DecimalMarkOf(rest, language) is not { } mark
            || !decimal.TryParse(
                new string([.. rest.Where(each => char.IsAsciiDigit(each) || each == mark)]).Replace(',', '.'),
                NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out var number
            )
            ? Wrong()
            : new AmountText(number, sign, percent, null);
    }

    private static char? SignOf(ref string text)
    {
        if (text.Length == 0 || text[0] is not ('+' or '-' or '−' or '–'))
        {
            return null;
        }

        var sign = text[0] == '+' ? '+' : '-';
        text = text[1..].TrimStart();
        return sign;
    }

    private static string WithoutCurrency(string text, Currency currency)
    {
        foreach (var sign in new[] { currency.Code, currency.Sign.Trim() })
        {
            if (text.StartsWith(sign, StringComparison.OrdinalIgnoreCase))
            {
                return text[sign.Length..].TrimStart();
            }

            if (text.EndsWith(sign, StringComparison.OrdinalIgnoreCase))
            {
                return text[..^sign.Length].TrimEnd();
            }
        }

        return text;
    }

    /// <summary>The decimal mark, a character that is none of the text's where it has none, or nothing where the marks make no sense.</summary>
    private static char? DecimalMarkOf(string text, AccountLanguage language)
    {
        const char none = '\0';
        var marks = text.Where(each => each is '.' or ',').ToArray();
        if (marks.Length == 0)
        {
            return Grouped(text) ? none : null;
        }

        var last = marks[^1];
        var whole = text[..text.LastIndexOf(last)];
        var behind = text[(whole.Length + 1)..];
        if (behind.Contains(' '))
        {
            return null;
        }

        if (marks.Length > 1)
        {
            // 1,234,567 groups only; 1.234,50 groups by the first mark and has decimals behind the last.
            return marks.All(mark => mark == last)
                ? Grouped(text)
                    ? none
                    : null
                : marks.Count(mark => mark == last) == 1 && Grouped(whole)
                    ? last
                    : null;
        }

        var mayGroup =
            last == language.GroupMark && behind.Length == 3 && whole.Length is >= 1 and <= 3 && whole[0] != '0';
        return mayGroup ? none
            : Grouped(whole) || whole.Length == 0 ? last
            : null;
    }

    private static bool Grouped(string text)
    {
        var groups = text.Split('.', ',', ' ');
        return groups.Length == 1
            || (groups[0].Length is >= 1 and <= 3 && groups.Skip(1).All(group => group.Length == 3));
    }
}
