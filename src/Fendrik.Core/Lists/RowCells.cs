using Fendrik.Core.AdText;
using Fendrik.Core.Items.Values;
using ValueType = Fendrik.Core.Items.Values.ValueType;

namespace Fendrik.Core.Lists;

/// <summary>The cells of one row by what their columns hold, with the first problem found in them.</summary>
internal sealed class RowCells
{
    private readonly Dictionary<string, int> _columnOf = new(StringComparer.Ordinal);
    private readonly (int Place, ListColumn Column)[] _used;
    private IReadOnlyList<string> _cells = [];
    private ListRow _row = new() { RowNumber = 0 };

    /// <param name="columns">What each column holds; none for one that is left out.</param>
    public RowCells(IReadOnlyList<ListColumn?> columns)
    {
        _used = [.. columns.Index().Where(each => each.Item is not null).Select(each => (each.Index, each.Item!))];
        foreach (var (place, column) in _used)
        {
            _columnOf[column.Name] = place;
        }
    }

    /// <summary>Takes up a row; false for one without any content.</summary>
    public bool Take(IReadOnlyList<string> cells, ListRow row)
    {
        (_cells, _row) = (cells, row);
        var any = false;
        foreach (var (place, column) in _used)
        {
            if (place >= cells.Count || string.IsNullOrWhiteSpace(cells[place]))
            {
                continue;
            }

            any = true;
            if (UnreadableCell.ReasonOf(cells[place]) is { } reason)
            {
                Refuse(column, reason);
            }
            else if (cells[place].Length > TextValue.LongestText)
            {
                Refuse(column, $"has {cells[place].Length:N0} characters; {TextValue.LongestText:N0} at most are read");
            }
            else if (HasControls(cells[place]))
            {
                Refuse(column, "has control characters; remove them");
            }
        }

        return any;
    }

    /// <summary>Place of a column in the list; -1 when the list has none.</summary>
    public int PlaceOf(string name) => _columnOf.GetValueOrDefault(name, -1);

    public bool HasColumn(string name) => _columnOf.ContainsKey(name);

    public string Text(string name) => At(PlaceOf(name));

    public bool Has(string name) => Text(name).Length > 0;

    /// <summary>The text of the cell at a place, trimmed and without what guards it from being a formula.</summary>
    public string At(int place) =>
        place >= 0 && place < _cells.Count ? SpreadsheetCell.Unguard(_cells[place].Trim()) : "";

    /// <summary>A name: white space made single; what stands for it otherwise when the cell is empty.</summary>
    public string Name(string column, string? otherwise)
    {
        var name = ValueType.Single(Text(column));
        if (TextLength.Of(name) > TextValue.LongestName)
        {
            Refuse(column, $"has {TextLength.Of(name):N0} characters; {TextValue.LongestName} at most come in");
            return Reading.Shortened(name);
        }

        return name.Length > 0 ? name : otherwise ?? "";
    }

    public void Refuse(string column, string problem) => Refuse(ListColumns.Find(column)!, problem);

    /// <summary>Notes what is wrong with the row; the first problem stays.</summary>
    public void Refuse(ListColumn column, string problem)
    {
        if (_row.Problem is null)
        {
            (_row.Problem, _row.ProblemColumn) = ($"{column.Label} {problem}", column.Name);
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
}
