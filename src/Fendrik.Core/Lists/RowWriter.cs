using System.Globalization;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Lists;

/// <summary>Writes items as the cells of a row: the reverse of <see cref="RowReader"/>.</summary>
public sealed class RowWriter
{
    private const int LeastShownParts = 2;

    private readonly Dictionary<string, int> _placeOf = new(StringComparer.Ordinal);
    private readonly ReadingGround _ground;

    /// <summary>A writer for tables with these columns.</summary>
    /// <param name="columns">The columns, none twice.</param>
    /// <param name="ground">The account's currency and language.</param>
    public RowWriter(IReadOnlyList<ListColumn> columns, ReadingGround ground)
    {
        (Columns, _ground) = (columns, ground);
        foreach (var (place, column) in columns.Index())
        {
            _placeOf[column.Name] = place;
        }
    }

    /// <summary>The columns.</summary>
    public IReadOnlyList<ListColumn> Columns { get; }

    /// <summary>All columns that an account needs whose values have at most so many parts.</summary>
    /// <param name="parts">Most parts in use, by the name of the field.</param>
    public static IReadOnlyList<ListColumn> ColumnsFor(IReadOnlyDictionary<string, int> parts) =>
        [
            .. ListColumns.All.Where(column =>
                column.Role is not (ColumnRole.Action or ColumnRole.HolderValue)
                && (
                    column.Part is not { } part
                    || part <= Math.Max(LeastShownParts, parts.GetValueOrDefault(column.Fields[0].Name))
                )
            ),
        ];

    /// <summary>Title of a column; of amounts with the currency, so that they are not taken for another's.</summary>
    public string Header(ListColumn column) =>
        column.IsAmount ? $"{column.Label} ({_ground.Currency.Code})" : column.Label;

    /// <summary>Fills the cells of a row with an item; cells that it has nothing for become empty.</summary>
    /// <param name="row">The item.</param>
    /// <param name="cells">As many cells as there are columns.</param>
    public void Write(ListRow row, string[] cells)
    {
        Array.Fill(cells, "");
        var type = ItemTypes.Of(row.Kind);
        Put(cells, ListColumns.Item, type.FileWord);
        if (row.Reference is { } reference && type.IsKnownByContent)
        {
            Put(cells, ListColumns.Reference, reference.ToString(CultureInfo.InvariantCulture));
        }

        foreach (var column in Columns.Where(column => column.Role == ColumnRole.Place))
        {
            Put(cells, column.Name, SpreadsheetCell.Guard(row.NameAt(column.Level!.Value)));
        }

        foreach (var field in type.Fields)
        {
            if (row.Values[field] is not { } value || (type.Holds is not null && field == type.NameField))
            {
                continue;
            }

            if (value is string[] lines && field.Type.Room is not null)
            {
                for (var part = 0; part < lines.Length; part++)
                {
                    Put(cells, $"{ListColumns.NameOf(field)}.{part + 1}", SpreadsheetCell.Guard(lines[part]));
                }
            }
            else if (!field.Type.IsNothing(value))
            {
                var text = field.Type.Write(value, _ground);
                Put(
                    cells,
                    ListColumns.NameOf(field),
                    field.Type.Storage is Storage.Text or Storage.Texts ? SpreadsheetCell.Guard(text) : text
                );
            }
        }
    }

    private void Put(string[] cells, string column, string text)
    {
        if (_placeOf.TryGetValue(column, out var place))
        {
            cells[place] = text;
        }
    }
}
