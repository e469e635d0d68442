using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Reporting;

namespace Fendrik.Core.Intake;

/// <summary>Writes items as the cells of a row: the reverse of <see cref="RowReader"/>.</summary>
public sealed class RowWriter
{
    private readonly int[] _columnOf;
    private readonly Currency _currency;
    private readonly string _amountFormat;

    /// <summary>A writer for tables with these columns.</summary>
    /// <param name="columns">Field of each column, no field twice.</param>
    /// <param name="currency">The account's currency.</param>
    public RowWriter(IReadOnlyList<IntakeField> columns, Currency currency)
    {
        (Columns, _currency) = (columns, currency);
        _amountFormat = "F" + currency.MinorUnits.ToString(CultureInfo.InvariantCulture);
        _columnOf = new int[Enum.GetValues<IntakeField>().Length];
        Array.Fill(_columnOf, -1);
        for (var column = 0; column < columns.Count; column++)
        {
            _columnOf[(int)columns[column]] = column;
        }
    }

    /// <summary>Field of each column.</summary>
    public IReadOnlyList<IntakeField> Columns { get; }

    /// <summary>All columns that an account needs whose ads have at most so many texts.</summary>
    public static IReadOnlyList<IntakeField> ColumnsFor(int headlines, int descriptions) =>
        [
            .. IntakeFieldName
                .All.Select(name => name.Field)
                .Where(field => field is not (IntakeField.Action or IntakeField.AdGroupMaxCpc))
                .Where(field =>
                    !IsBeyond(field, IntakeFieldName.HeadlineField, Math.Max(headlines, 3), AdTextRoom.Headlines)
                    && !IsBeyond(
                        field,
                        IntakeFieldName.DescriptionField,
                        Math.Max(descriptions, 2),
                        AdTextRoom.Descriptions
                    )
                ),
        ];

    /// <summary>Title of a column; of amounts with the currency, so that they are not taken for another's.</summary>
    public string Header(IntakeField field) =>
        field is IntakeField.DailyBudget or IntakeField.MaxCpc or IntakeField.AdGroupMaxCpc
            ? $"{IntakeFieldName.LabelOf(field)} ({_currency.Code})"
            : IntakeFieldName.LabelOf(field);

    /// <summary>Fills the cells of a row with an item; cells that it has nothing for become empty.</summary>
    /// <param name="row">The item.</param>
    /// <param name="cells">As many cells as there are columns.</param>
    public void Write(IntakeRow row, string[] cells)
    {
        Array.Fill(cells, "");
        Put(cells, IntakeField.Item, ItemName(row.Kind));
        Text(cells, IntakeField.NegativeList, row.NegativeList);
        Text(cells, IntakeField.Campaign, row.Campaign);
        Text(cells, IntakeField.AdGroup, row.AdGroup);
        if (row.Labels is { Count: > 0 } labels)
        {
            Text(cells, IntakeField.Labels, LabelText.Write(labels));
        }

        if (row.State is { } state)
        {
            Put(cells, IntakeField.State, state == ItemState.Running ? "running" : "paused");
        }

        switch (row.Kind)
        {
            case ItemKind.Campaign:
                Amount(cells, IntakeField.DailyBudget, row.DailyBudget);
                Date(cells, IntakeField.StartDate, row.StartDate);
                Date(cells, IntakeField.EndDate, row.EndDate);
                Put(cells, IntakeField.Networks, string.Join(" + ", NetworkNames(row.Networks ?? SiteKinds.None)));
                break;
            case ItemKind.AdGroup:
                Amount(cells, IntakeField.MaxCpc, row.AdGroupMaxCpc);
                break;
            case ItemKind.Keyword:
                Text(cells, IntakeField.Keyword, row.Text);
                Put(cells, IntakeField.MatchType, MatchName(row.Match));
                Amount(cells, IntakeField.MaxCpc, row.MaxCpc);
                Text(cells, IntakeField.FinalUrl, row.FinalUrl ?? "");
                break;
            case ItemKind.NegativeKeyword:
                Text(cells, IntakeField.NegativeKeyword, row.Text);
                Put(cells, IntakeField.MatchType, MatchName(row.Match));
                break;
            case ItemKind.TextAd:
                Texts(cells, row.Headlines, IntakeFieldName.HeadlineField);
                Texts(cells, row.Descriptions, IntakeFieldName.DescriptionField);
                Texts(cells, row.DisplayPath, number => IntakeField.Path1 + (number - 1));
                Text(cells, IntakeField.FinalUrl, row.FinalUrl ?? "");
                Put(cells, IntakeField.Device, row.DevicePreference?.ToString().ToLowerInvariant() ?? "");
                break;
        }
    }

    /// <summary>The word for a kind of item in files.</summary>
    public static string ItemName(ItemKind kind) =>
        kind switch
        {
            ItemKind.Campaign => "campaign",
            ItemKind.AdGroup => "ad group",
            ItemKind.Keyword => "keyword",
            ItemKind.NegativeKeyword => "negative keyword",
            ItemKind.TextAd => "text ad",
            _ => "negative list",
        };

    /// <summary>The word for a match type in files; empty for none.</summary>
    public static string MatchName(MatchType? match) =>
        match switch
        {
            MatchType.Exact => "exact",
            MatchType.Phrase => "phrase",
            MatchType.AllWords => "all words",
            MatchType.Broad => "broad",
            _ => "",
        };

    /// <summary>The words for networks in files.</summary>
    public static IReadOnlyList<string> NetworkNames(SiteKinds networks) =>
        [
            .. new[] { SiteKinds.Search, SiteKinds.Partners, SiteKinds.Content }
                .Where(kind => networks.HasFlag(kind))
                .Select(kind => kind.ToString().ToLowerInvariant()),
        ];

    private static bool IsBeyond(IntakeField field, Func<int, IntakeField> numbered, int wanted, int room) =>
        Enumerable.Range(1, room).Skip(wanted).Any(number => numbered(number) == field);

    private void Texts(string[] cells, IReadOnlyList<string> texts, Func<int, IntakeField> numbered)
    {
        for (var place = 0; place < texts.Count; place++)
        {
            Text(cells, numbered(place + 1), texts[place]);
        }
    }

    private void Amount(string[] cells, IntakeField field, decimal? amount)
    {
        if (amount is { } known)
        {
            Put(cells, field, known.ToString(_amountFormat, CultureInfo.InvariantCulture));
        }
    }

    private void Date(string[] cells, IntakeField field, DateOnly? date)
    {
        if (date is { } known)
        {
            Put(cells, field, known.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture));
        }
    }

    private void Text(string[] cells, IntakeField field, string text) => Put(cells, field, SpreadsheetCell.Guard(text));

    private void Put(string[] cells, IntakeField field, string text)
    {
        if (_columnOf[(int)field] is >= 0 and var column)
        {
            cells[column] = text;
        }
    }
}
