using Fendrik.Core.Accounts;
using Fendrik.Core.AdText;
using Fendrik.Core.Matching;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Intake;

/// <summary>Turns the cells of one row after the other into items, by the fields of the columns. Never throws on input.</summary>
public sealed class RowReader
{
    /// <summary>Longest cell that is looked at; no network takes a text anywhere near.</summary>
    public const int LongestCell = 4_000;

    /// <summary>Longest keyword that comes in; what a network thinks of it is a check's business.</summary>
    public const int LongestKeyword = 400;

    private static readonly IntakeField[] Headlines =
    [
        .. Enumerable.Range(1, AdTextRoom.Headlines).Select(IntakeFieldName.HeadlineField),
    ];
    private static readonly IntakeField[] Descriptions =
    [
        .. Enumerable.Range(1, AdTextRoom.Descriptions).Select(IntakeFieldName.DescriptionField),
    ];
    private static readonly IntakeField[] Path = [IntakeField.Path1, IntakeField.Path2];

    private readonly int[] _columnOf;
    private readonly int[] _used;
    private readonly IReadOnlyList<IntakeField> _fields;
    private readonly Currency _currency;
    private readonly IntakeDefaults _defaults;

    /// <summary>A reader for lists with these columns.</summary>
    /// <param name="fields">Field of each column.</param>
    /// <param name="currency">The account's currency.</param>
    /// <param name="defaults">What is taken for granted.</param>
    public RowReader(IReadOnlyList<IntakeField> fields, Currency currency, IntakeDefaults defaults)
    {
        (_fields, _currency, _defaults) = (fields, currency, defaults);
        _columnOf = new int[Enum.GetValues<IntakeField>().Length];
        Array.Fill(_columnOf, -1);
        _used = [.. Enumerable.Range(0, fields.Count).Where(column => fields[column] != IntakeField.LeaveOut)];
        foreach (var column in _used)
        {
            _columnOf[(int)fields[column]] = column;
        }
    }

    /// <summary>Reads one row, or nothing when all its used cells are blank.</summary>
    /// <param name="cells">The cells; missing ones at the end count as blank.</param>
    /// <param name="rowNumber">Row as a spreadsheet counts.</param>
    public IntakeRow? Read(IReadOnlyList<string> cells, int rowNumber)
    {
        var blank = true;
        var row = new IntakeRow { RowNumber = rowNumber };
        foreach (var column in _used)
        {
            if (column >= cells.Count || string.IsNullOrWhiteSpace(cells[column]))
            {
                continue;
            }

            blank = false;
            if (cells[column].Length > LongestCell)
            {
                Refuse(
                    row,
                    _fields[column],
                    $"has {cells[column].Length:N0} characters; {LongestCell:N0} at most are read"
                );
            }
            else if (HasControls(cells[column]))
            {
                Refuse(row, _fields[column], "has control characters; remove them");
            }
        }

        if (blank)
        {
            return null;
        }

        row.NegativeList = Name(row, cells, IntakeField.NegativeList, null);

        // What is in a list is in no campaign; a list itself may name one that it holds for.
        row.Campaign = Name(row, cells, IntakeField.Campaign, row.NegativeList.Length > 0 ? null : _defaults.Campaign);
        row.AdGroup = Name(row, cells, IntakeField.AdGroup, null);
        row.Intent = Intent(row, cells);
        if (row.Problem is null)
        {
            ReadCampaign(row, cells);
            ReadOwnItem(row, cells);
        }
        else
        {
            // What the row is about is still said, so that a person finds it in the list.
            row.Kind = Has(cells, IntakeField.Keyword) ? ItemKind.Keyword : ItemKind.AdGroup;
            row.Text = Shortened(Cell(cells, IntakeField.Keyword));
        }

        return row;
    }

    private void ReadOwnItem(IntakeRow row, IReadOnlyList<string> cells)
    {
        var maxCpc = Amount(row, cells, IntakeField.MaxCpc);
        row.AdGroupMaxCpc = Amount(row, cells, IntakeField.AdGroupMaxCpc);
        row.State = State(row, cells);
        row.FinalUrl = Url(row, cells);
        row.Labels = Labels(row, cells);
        row.Kind = KindOf(row, cells);
        switch (row.Kind)
        {
            case ItemKind.Keyword or ItemKind.NegativeKeyword:
                row.MaxCpc = maxCpc;
                ReadWords(row, cells);
                break;
            case ItemKind.TextAd:
                row.AdGroupMaxCpc ??= maxCpc;
                ReadAd(row, cells);
                break;
            default:
                row.AdGroupMaxCpc ??= maxCpc;
                break;
        }

        row.Cleared = _defaults.EmptyClears ? Cleared(row, cells) : ClearedValues.None;
        ReadPlace(row);
    }

    /// <summary>What the row says that it is; without a word of it, the most special item that its cells name.</summary>
    private ItemKind KindOf(IntakeRow row, IReadOnlyList<string> cells)
    {
        if (Has(cells, IntakeField.Item))
        {
            var cell = Cell(cells, IntakeField.Item);
            if (CellValues.TryItem(cell, out var kind))
            {
                return kind;
            }

            Refuse(
                row,
                IntakeField.Item,
                $"“{Shortened(cell)}” is none of campaign, ad group, keyword, negative keyword, text ad, negative list"
            );
        }

        return Has(cells, IntakeField.Keyword) || Has(cells, IntakeField.NegativeKeyword)
            ? row.NegativeList.Length > 0
                ? ItemKind.NegativeKeyword
                : ItemKind.Keyword
            : Headlines.Concat(Descriptions).Any(field => Has(cells, field))
                ? ItemKind.TextAd
                : row.NegativeList.Length > 0
                    ? ItemKind.NegativeList
                    : row.AdGroup.Length > 0
                        ? ItemKind.AdGroup
                        : ItemKind.Campaign;
    }

    private void ReadPlace(IntakeRow row)
    {
        if (row.Kind == ItemKind.NegativeList || row.NegativeList.Length > 0)
        {
            if (row.NegativeList.Length == 0)
            {
                Refuse(row, IntakeField.NegativeList, "is missing; name the list");
            }
            else if (row.Kind is not (ItemKind.NegativeList or ItemKind.NegativeKeyword))
            {
                Refuse(row, IntakeField.NegativeList, "is for negatives only; leave it empty here");
            }
            else if (row.AdGroup.Length > 0)
            {
                Refuse(row, IntakeField.AdGroup, "has to be empty for what belongs to a negative list");
            }
            else if (row.Kind == ItemKind.NegativeKeyword && row.Campaign.Length > 0)
            {
                Refuse(
                    row,
                    IntakeField.Campaign,
                    "has to be empty for a negative in a list; campaigns are named in a row of the list itself"
                );
            }

            return;
        }

        var needsAdGroup = row.Kind is ItemKind.Keyword or ItemKind.TextAd;
        if (needsAdGroup && row.AdGroup.Length == 0)
        {
            row.AdGroup = _defaults.AdGroup ?? "";
        }

        if (row.Campaign.Length == 0)
        {
            Refuse(row, IntakeField.Campaign, "is missing; choose a campaign for rows without one");
        }
        else if (needsAdGroup && row.AdGroup.Length == 0)
        {
            Refuse(row, IntakeField.AdGroup, "is missing; choose an ad group for rows without one");
        }
        else if (row.Kind == ItemKind.AdGroup && row.AdGroup.Length == 0)
        {
            Refuse(row, IntakeField.AdGroup, "is missing; name the ad group");
        }
        else if (row.Kind == ItemKind.Campaign && row.AdGroup.Length > 0)
        {
            Refuse(row, IntakeField.AdGroup, "has to be empty in the row of a campaign");
        }
    }

    private void ReadWords(IntakeRow row, IReadOnlyList<string> cells)
    {
        var field = Has(cells, IntakeField.Keyword) ? IntakeField.Keyword : IntakeField.NegativeKeyword;
        if (!Has(cells, field))
        {
            Refuse(row, row.Kind == ItemKind.Keyword ? IntakeField.Keyword : field, "is missing; write the words");
            return;
        }

        var noted = KeywordNotation.Read(Cell(cells, field));
        var negative = noted.Negative || field == IntakeField.NegativeKeyword || row.Kind == ItemKind.NegativeKeyword;
        MatchType? match = null;
        if (Has(cells, IntakeField.MatchType))
        {
            var cell = Cell(cells, IntakeField.MatchType);
            if (CellValues.TryMatchType(cell, out var read, out var negativeType))
            {
                (match, negative) = (read, negative || negativeType);
            }
            else
            {
                Refuse(row, IntakeField.MatchType, $"“{Shortened(cell)}” is none of exact, phrase, all words, broad");
            }
        }

        if (negative && Has(cells, IntakeField.Item) && row.Kind == ItemKind.Keyword)
        {
            Refuse(row, IntakeField.Item, "says keyword, the words are written as a negative; make them agree");
        }

        row.Kind = negative ? ItemKind.NegativeKeyword : ItemKind.Keyword;
        row.Text = noted.Text;
        row.Match = noted.Match ?? match ?? (negative ? _defaults.NegativeMatch : _defaults.BareMatch);
        if (noted.Problem is { } problem)
        {
            Refuse(row, field, $"“{Shortened(noted.Text)}”: {problem}");
        }
        else if (TextLength.Of(noted.Text) > LongestKeyword)
        {
            Refuse(row, field, $"has {TextLength.Of(noted.Text):N0} characters; {LongestKeyword} at most come in");
            row.Text = Shortened(noted.Text);
        }
        else if (noted.Match is { } inText && match is { } inColumn && inText != inColumn)
        {
            Refuse(
                row,
                IntakeField.MatchType,
                $"says {Label(inColumn)}, the keyword is written as {Label(inText)}; make them agree"
            );
        }
    }

    private void ReadAd(IntakeRow row, IReadOnlyList<string> cells)
    {
        row.Kind = ItemKind.TextAd;
        row.Headlines = Cells(cells, Headlines);
        row.Descriptions = Cells(cells, Descriptions);
        row.DisplayPath = Cells(cells, Path);
        if (row.Headlines.Count == 0 && Has(cells, IntakeField.Item))
        {
            Refuse(row, IntakeField.Headline1, "is missing; an ad needs a headline");
        }

        if (CellValues.TryDevice(Cell(cells, IntakeField.Device), out var device))
        {
            row.DevicePreference = device;
        }
        else
        {
            Refuse(
                row,
                IntakeField.Device,
                $"“{Shortened(Cell(cells, IntakeField.Device))}” is none of desktop, phone, tablet, all"
            );
        }
    }

    private void ReadCampaign(IntakeRow row, IReadOnlyList<string> cells)
    {
        row.DailyBudget = Amount(row, cells, IntakeField.DailyBudget);
        row.StartDate = Date(row, cells, IntakeField.StartDate);
        row.EndDate = Date(row, cells, IntakeField.EndDate);
        if (Has(cells, IntakeField.Networks))
        {
            if (CellValues.TryNetworks(Cell(cells, IntakeField.Networks), out var networks))
            {
                row.Networks = networks;
            }
            else
            {
                Refuse(
                    row,
                    IntakeField.Networks,
                    $"“{Shortened(Cell(cells, IntakeField.Networks))}” is not search, partners or content"
                );
            }
        }
    }

    private string Name(IntakeRow row, IReadOnlyList<string> cells, IntakeField field, string? otherwise)
    {
        var name = string.Join(' ', Cell(cells, field).Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        if (TextLength.Of(name) > LongestKeyword)
        {
            Refuse(row, field, $"has {TextLength.Of(name):N0} characters; {LongestKeyword} at most come in");
            return Shortened(name);
        }

        return name.Length > 0 ? name : otherwise ?? "";
    }

    private decimal? Amount(IntakeRow row, IReadOnlyList<string> cells, IntakeField field)
    {
        if (!Has(cells, field))
        {
            return null;
        }

        var cell = Cell(cells, field);
        if (!CellValues.TryAmount(cell, _currency, out var amount))
        {
            Refuse(row, field, $"“{Shortened(cell)}” is not an amount in {_currency.Code}; write it like 1.20");
        }
        else if (amount is <= 0 or > Bidding.BidChange.Ceiling)
        {
            Refuse(row, field, $"“{Shortened(cell)}” is not between {_currency.SmallestAmount} and 1,000,000");
        }
        else if (_currency.Round(amount) != amount)
        {
            Refuse(row, field, $"“{Shortened(cell)}” has more than {_currency.MinorUnits} decimal places");
        }
        else
        {
            return amount;
        }

        return null;
    }

    private DateOnly? Date(IntakeRow row, IReadOnlyList<string> cells, IntakeField field)
    {
        if (!Has(cells, field))
        {
            return null;
        }

        if (CellValues.TryDate(Cell(cells, field), out var date))
        {
            return date;
        }

        Refuse(row, field, $"“{Shortened(Cell(cells, field))}” is not a date; write it like 2026-05-31");
        return null;
    }

    private ItemState? State(IntakeRow row, IReadOnlyList<string> cells)
    {
        if (!Has(cells, IntakeField.State))
        {
            return null;
        }

        if (CellValues.TryState(Cell(cells, IntakeField.State), out var state))
        {
            return state;
        }

        Refuse(row, IntakeField.State, $"“{Shortened(Cell(cells, IntakeField.State))}” is neither running nor paused");
        return null;
    }

    private RowIntent Intent(IntakeRow row, IReadOnlyList<string> cells)
    {
        if (!Has(cells, IntakeField.Action))
        {
            return _defaults.Intent;
        }

        if (CellValues.TryIntent(Cell(cells, IntakeField.Action), out var intent))
        {
            return intent;
        }

        Refuse(
            row,
            IntakeField.Action,
            $"“{Shortened(Cell(cells, IntakeField.Action))}” is none of add, change, remove"
        );
        return _defaults.Intent;
    }

    private IReadOnlyList<string>? Labels(IntakeRow row, IReadOnlyList<string> cells)
    {
        if (!Has(cells, IntakeField.Labels))
        {
            return null;
        }

        var labels = LabelText.Read(Cell(cells, IntakeField.Labels));
        if (labels.Select(LabelText.ProblemOf).FirstOrDefault(problem => problem is not null) is { } wrong)
        {
            Refuse(row, IntakeField.Labels, $"cannot be taken: {wrong}");
        }
        else if (labels.Count > LabelText.MostOnItem)
        {
            Refuse(row, IntakeField.Labels, $"are {labels.Count}; {LabelText.MostOnItem} at most on one item");
        }

        return labels.Count > 0 ? labels : null;
    }

    /// <summary>What an empty cell in a column of the list takes away from the row's own item.</summary>
    private ClearedValues Cleared(IntakeRow row, IReadOnlyList<string> cells)
    {
        ClearedValues If(ClearedValues value, params ReadOnlySpan<IntakeField> fields)
        {
            var present = false;
            foreach (var field in fields)
            {
                if (Has(cells, field))
                {
                    return ClearedValues.None;
                }

                present |= _columnOf[(int)field] >= 0;
            }

            return present ? value : ClearedValues.None;
        }

        var labels = If(ClearedValues.Labels, IntakeField.Labels);
        return row.Kind switch
        {
            ItemKind.Campaign => labels
                | If(ClearedValues.DailyBudget, IntakeField.DailyBudget)
                | If(ClearedValues.StartDate, IntakeField.StartDate)
                | If(ClearedValues.EndDate, IntakeField.EndDate),
            ItemKind.AdGroup => labels | If(ClearedValues.MaxCpc, IntakeField.MaxCpc, IntakeField.AdGroupMaxCpc),
            ItemKind.Keyword => labels
                | If(ClearedValues.MaxCpc, IntakeField.MaxCpc)
                | If(ClearedValues.FinalUrl, IntakeField.FinalUrl),
            _ => labels,
        };
    }

    private string? Url(IntakeRow row, IReadOnlyList<string> cells)
    {
        var url = Cell(cells, IntakeField.FinalUrl);
        if (url.Length == 0)
        {
            return null;
        }

        if (!FinalUrl.IsValid(url))
        {
            Refuse(row, IntakeField.FinalUrl, $"“{Shortened(url)}” is not a web address");
        }

        return url;
    }

    private bool Has(IReadOnlyList<string> cells, IntakeField field) => Cell(cells, field).Length > 0;

    private string Cell(IReadOnlyList<string> cells, IntakeField field)
    {
        var column = _columnOf[(int)field];
        return column >= 0 && column < cells.Count ? SpreadsheetCell.Unguard(cells[column].Trim()) : "";
    }

    private string[] Cells(IReadOnlyList<string> cells, IntakeField[] fields) =>
        [.. fields.Select(field => OneLine(Cell(cells, field))).Where(cell => cell.Length > 0)];

    private static string OneLine(string text) =>
        text.AsSpan().ContainsAny('\r', '\n', '\t')
            ? string.Join(' ', text.Split(['\r', '\n', '\t'], StringSplitOptions.RemoveEmptyEntries))
            : text;

    private static void Refuse(IntakeRow row, IntakeField field, string problem)
    {
        if (row.Problem is null)
        {
            (row.Problem, row.ProblemField) = ($"{IntakeFieldName.LabelOf(field)} {problem}", field);
        }
    }

    // Line breaks are white space in a name or a keyword; other controls have no business in any cell.
    private static bool HasControls(string cell)
    {
        foreach (var character in cell)
        {
            if (
                character is < ' ' and not ('\t' or '\n' or '\r')
                || character is >= '\u007f' and <= '\u009f'
                || character is '\ufffd' or '\ufffe' or '\uffff'
            )
            {
                return true;
            }
        }

        return false;
    }

    private static string Label(MatchType match) =>
        match == MatchType.AllWords ? "all words" : match.ToString().ToLowerInvariant();

    private static string Shortened(string text) => text.Length <= 60 ? text : string.Concat(text.AsSpan(0, 60), "…");
}
