using Fendrik.Core.Accounts;
using Fendrik.Core.AdText;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Intake;

/// <summary>The cells of one row after the other, read as single values by their fields; what cannot be read refuses the row.</summary>
internal sealed class RowCells
{
    private readonly int[] _columnOf;
    private readonly int[] _used;
    private readonly IReadOnlyList<IntakeField> _fields;
    private readonly Currency _currency;

    private IReadOnlyList<string> _cells = [];
    private IntakeRow _row = new() { RowNumber = 0 };

    public RowCells(IReadOnlyList<IntakeField> fields, Currency currency)
    {
        (_fields, _currency) = (fields, currency);
        _columnOf = new int[Enum.GetValues<IntakeField>().Length];
        Array.Fill(_columnOf, -1);
        _used = [.. Enumerable.Range(0, fields.Count).Where(column => fields[column] != IntakeField.LeaveOut)];
        foreach (var column in _used)
        {
            _columnOf[(int)fields[column]] = column;
        }
    }

    /// <summary>Takes the cells of the next row; what is too long or has control characters refuses it.</summary>
    /// <returns>False when all the used cells are blank.</returns>
    public bool Take(IReadOnlyList<string> cells, IntakeRow row)
    {
        (_cells, _row) = (cells, row);
        var any = false;
        foreach (var column in _used)
        {
            if (column >= cells.Count || string.IsNullOrWhiteSpace(cells[column]))
            {
                continue;
            }

            any = true;
            if (cells[column].Length > RowReader.LongestCell)
            {
                Refuse(
                    _fields[column],
                    $"has {cells[column].Length:N0} characters; {RowReader.LongestCell:N0} at most are read"
                );
            }
            else if (HasControls(cells[column]))
            {
                Refuse(_fields[column], "has control characters; remove them");
            }
        }

        return any;
    }

    /// <summary>True when the list has a column for the field.</summary>
    public bool HasColumn(IntakeField field) => _columnOf[(int)field] >= 0;

    /// <summary>A name with its white space made single, or what is taken for granted without one.</summary>
    public string Name(IntakeField field, string? otherwise)
    {
        var name = string.Join(' ', Text(field).Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        if (TextLength.Of(name) > RowReader.LongestKeyword)
        {
            Refuse(field, $"has {TextLength.Of(name):N0} characters; {RowReader.LongestKeyword} at most come in");
            return Shortened(name);
        }

        return name.Length > 0 ? name : otherwise ?? "";
    }

    /// <summary>An amount of the account's currency, or none.</summary>
    public decimal? Amount(IntakeField field)
    {
        if (!Has(field))
        {
            return null;
        }

        var cell = Text(field);
        if (!CellValues.TryAmount(cell, _currency, out var amount))
        {
            Refuse(field, $"“{Shortened(cell)}” is not an amount in {_currency.Code}; write it like 1.20");
        }
        else if (amount is <= 0 or > Bidding.BidChange.Ceiling)
        {
            Refuse(field, $"“{Shortened(cell)}” is not between {_currency.SmallestAmount} and 1,000,000");
        }
        else if (_currency.Round(amount) != amount)
        {
            Refuse(field, $"“{Shortened(cell)}” has more than {_currency.MinorUnits} decimal places");
        }
        else
        {
            return amount;
        }

        return null;
    }

    /// <summary>A day, or none.</summary>
    public DateOnly? Date(IntakeField field)
    {
        if (!Has(field))
        {
            return null;
        }

        if (CellValues.TryDate(Text(field), out var date))
        {
            return date;
        }

        Refuse(field, $"“{Shortened(Text(field))}” is not a date; write it like 2026-05-31");
        return null;
    }

    /// <summary>The state, or none.</summary>
    public ItemState? State()
    {
        if (!Has(IntakeField.State))
        {
            return null;
        }

        if (CellValues.TryState(Text(IntakeField.State), out var state))
        {
            return state;
        }

        Refuse(IntakeField.State, $"“{Shortened(Text(IntakeField.State))}” is neither running nor paused");
        return null;
    }

    /// <summary>What the row asks for.</summary>
    public RowIntent Intent(RowIntent otherwise)
    {
        if (!Has(IntakeField.Action))
        {
            return otherwise;
        }

        if (CellValues.TryIntent(Text(IntakeField.Action), out var intent))
        {
            return intent;
        }

        Refuse(IntakeField.Action, $"“{Shortened(Text(IntakeField.Action))}” is none of add, change, remove");
        return otherwise;
    }

    /// <summary>The labels, or none when nothing is said of them.</summary>
    public IReadOnlyList<string>? Labels()
    {
        if (!Has(IntakeField.Labels))
        {
            return null;
        }

        var labels = LabelText.Read(Text(IntakeField.Labels));
        if (labels.Select(LabelText.ProblemOf).FirstOrDefault(problem => problem is not null) is { } wrong)
        {
            Refuse(IntakeField.Labels, $"cannot be taken: {wrong}");
        }
        else if (labels.Count > LabelText.MostOnItem)
        {
            Refuse(IntakeField.Labels, $"are {labels.Count}; {LabelText.MostOnItem} at most on one item");
        }

        return labels.Count > 0 ? labels : null;
    }

    /// <summary>The landing page, or none.</summary>
    public string? Url()
    {
        var url = Text(IntakeField.FinalUrl);
        if (url.Length == 0)
        {
            return null;
        }

        if (!FinalUrl.IsValid(url))
        {
            Refuse(IntakeField.FinalUrl, $"“{Shortened(url)}” is not a web address");
        }

        return url;
    }

    /// <summary>True when something stands in the cell.</summary>
    public bool Has(IntakeField field) => Text(field).Length > 0;

    /// <summary>What stands in the cell, without the apostrophe that guards it in a spreadsheet.</summary>
    public string Text(IntakeField field)
    {
        var column = _columnOf[(int)field];
        return column >= 0 && column < _cells.Count ? SpreadsheetCell.Unguard(_cells[column].Trim()) : "";
    }

    /// <summary>The texts of several cells that are not empty, each on one line.</summary>
    public string[] Texts(IntakeField[] fields) =>
        [.. fields.Select(field => OneLine(Text(field))).Where(cell => cell.Length > 0)];

    private static string OneLine(string text) =>
        text.AsSpan().ContainsAny('\r', '\n', '\t')
            ? string.Join(' ', text.Split(['\r', '\n', '\t'], StringSplitOptions.RemoveEmptyEntries))
            : text;

    /// <summary>Refuses the row for one reason: the first that is found.</summary>
    public void Refuse(IntakeField field, string problem)
    {
        if (_row.Problem is null)
        {
            (_row.Problem, _row.ProblemField) = ($"{IntakeFieldName.LabelOf(field)} {problem}", field);
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

    /// <summary>The beginning of a long text, to be quoted in a reason.</summary>
    public static string Shortened(string text) => text.Length <= 60 ? text : string.Concat(text.AsSpan(0, 60), "…");
}
