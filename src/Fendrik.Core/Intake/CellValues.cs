using System.Globalization;
using Fendrik.Core.Accounts;

namespace Fendrik.Core.Intake;

/// <summary>Single cells as people type them. Each reader returns false for what it cannot be sure of.</summary>
public static class CellValues
{
    private static readonly string[] DateFormats =
    [
        "yyyy-MM-dd",
        "yyyy-MM-dd HH:mm:ss",
        "d/M/yyyy",
        "d.M.yyyy",
        "d MMM yyyy",
        "d MMMM yyyy",
    ];

    /// <summary>
    /// Reads an amount: <c>1.30</c>, <c>£1.30</c>, <c>1,30</c>, <c>1,234.50</c>, <c>1.234,50</c>, <c>GBP 1.30</c>.
    /// A single separator with three digits behind it (<c>1,234</c>) could be either, and is not read.
    /// </summary>
    /// <param name="cell">The cell.</param>
    /// <param name="currency">The account's currency; another currency's sign or code is not read.</param>
    /// <param name="amount">The amount, zero or more.</param>
    public static bool TryAmount(string cell, Currency currency, out decimal amount)
    {
        var text = cell.Trim();
        amount = 0;
        foreach (var sign in new[] { currency.Code, currency.Sign.Trim() })
        {
            if (text.StartsWith(sign, StringComparison.OrdinalIgnoreCase))
            {
                text = text[sign.Length..];
            }
            else if (text.EndsWith(sign, StringComparison.OrdinalIgnoreCase))
            {
                text = text[..^sign.Length];
            }
        }

        text = text.Replace("\u00a0", "", StringComparison.Ordinal).Replace(" ", "", StringComparison.Ordinal);
        if (
            text.Length is 0 or > 20
            || text.Any(character => !char.IsAsciiDigit(character) && character is not ('.' or ','))
        )
        {
            return false;
        }

        var decimalMark = DecimalMarkOf(text, currency.MinorUnits);
        if (decimalMark == '?')
        {
            return false;
        }

        var plain = new string([.. text.Where(character => char.IsAsciiDigit(character) || character == decimalMark)]);
        return decimal.TryParse(
            plain.Replace(',', '.'),
            NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture,
            out amount
        );
    }

    /// <summary>Reads a match type by its name, with or without a minus or the word negative in front.</summary>
    public static bool TryMatchType(string cell, out MatchType match, out bool negative)
    {
        var text = TextIdentity.Of(cell).Replace('_', ' ').Trim('[', ']', '"', '“', '”');
        negative =
            text.StartsWith("negative", StringComparison.Ordinal) || text.StartsWith('-') || text.StartsWith('−');
        text = text.Replace("negative", "", StringComparison.Ordinal)
            .Trim(' ', '-', '−')
            .Replace(" match", "", StringComparison.Ordinal);
        match = text switch
        {
            "exact" or "e" => MatchType.Exact,
            "phrase" or "p" => MatchType.Phrase,
            "all words" or "all" or "w" => MatchType.AllWords,
            "broad" or "b" => MatchType.Broad,
            _ => 0,
        };
        return match != 0;
    }

    /// <summary>Reads the kind of an item.</summary>
    public static bool TryItem(string cell, out ItemKind kind)
    {
        kind = TextIdentity.Of(cell).Replace('_', ' ') switch
        {
            "campaign" or "campaigns" => ItemKind.Campaign,
            "ad group" or "adgroup" or "group" or "ad groups" => ItemKind.AdGroup,
            "keyword" or "keywords" => ItemKind.Keyword,
            "negative keyword" or "negative" or "negatives" or "negative keywords" => ItemKind.NegativeKeyword,
            "text ad" or "ad" or "ads" or "text ads" => ItemKind.TextAd,
            "negative list" or "list" or "shared list" or "negative lists" => ItemKind.NegativeList,
            _ => 0,
        };
        return kind != 0;
    }

    /// <summary>Reads what a row asks for.</summary>
    public static bool TryIntent(string cell, out RowIntent intent)
    {
        intent = TextIdentity.Of(cell) switch
        {
            "add or change" or "add and change" or "both" => RowIntent.AddAndChange,
            "add" or "new" or "create" => RowIntent.Add,
            "change" or "update" or "edit" or "set" => RowIntent.Change,
            "remove" or "delete" or "take away" => RowIntent.Remove,
            _ => 0,
        };
        return intent != 0;
    }

    /// <summary>Reads running or paused.</summary>
    public static bool TryState(string cell, out ItemState state)
    {
        state = TextIdentity.Of(cell) switch
        {
            "running" or "on" or "active" or "yes" or "1" => ItemState.Running,
            "paused" or "off" or "no" or "0" => ItemState.Paused,
            _ => 0,
        };
        return state != 0;
    }

    /// <summary>Reads a device preference.</summary>
    public static bool TryDevice(string cell, out Device? device)
    {
        (device, var known) = TextIdentity.Of(cell) switch
        {
            "all" or "any" or "" => ((Device?)null, true),
            "desktop" or "computer" => (Device.Desktop, true),
            "phone" or "mobile" or "phones" => (Device.Phone, true),
            "tablet" or "tablets" => (Device.Tablet, true),
            _ => (null, false),
        };
        return known;
    }

    /// <summary>Reads networks: any of search, partners and content, joined by commas, plus signs or <c>and</c>.</summary>
    public static bool TryNetworks(string cell, out SiteKinds networks)
    {
        networks = SiteKinds.None;
        foreach (
            var part in TextIdentity
                .Of(cell)
                .Replace(" and ", ",", StringComparison.Ordinal)
                .Split([',', '+', ';', '/'])
        )
        {
            SiteKinds kind = part.Trim() switch
            {
                "search" or "search network" => SiteKinds.Search,
                "partners" or "partner sites" or "search partners" => SiteKinds.Partners,
                "content" or "content sites" => SiteKinds.Content,
                _ => SiteKinds.None,
            };
            if (kind == SiteKinds.None)
            {
                return false;
            }

            networks |= kind;
        }

        return true;
    }

    /// <summary>Reads a date: ISO 8601, or day before month as in British use.</summary>
    public static bool TryDate(string cell, out DateOnly date) =>
        DateOnly.TryParseExact(cell.Trim(), DateFormats, CultureInfo.InvariantCulture, DateTimeStyles.None, out date);

    /// <summary>The decimal mark of an amount, a blank for none, or a question mark where one cannot tell.</summary>
    private static char DecimalMarkOf(string text, int minorUnits)
    {
        var marks = text.Where(character => character is '.' or ',').ToArray();
        if (marks.Length == 0)
        {
            return ' ';
        }

        var last = marks[^1];
        var digitsBehind = text.Length - 1 - text.LastIndexOf(last);
        if (marks.Distinct().Count() == 2)
        {
            return marks.Count(mark => mark == last) == 1 && Grouped(text[..text.LastIndexOf(last)]) ? last : '?';
        }

        if (marks.Length > 1)
        {
            return Grouped(text) ? ' ' : '?';
        }

        // Three digits behind one mark are thousands as likely as not, unless a nought stands first or the currency has
        // three decimal places.
        return digitsBehind != 3 || text[0] is '0' or '.' or ',' || minorUnits == 3 ? last : '?';
    }

    private static bool Grouped(string text)
    {
        var groups = text.Split('.', ',');
        return groups[0].Length is >= 1 and <= 3 && groups.Skip(1).All(group => group.Length == 3);
    }
}
