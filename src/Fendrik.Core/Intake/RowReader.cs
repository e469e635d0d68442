using Fendrik.Core.Accounts;
using Fendrik.Core.AdText;
using Fendrik.Core.Matching;

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

    private readonly RowCells _cells;
    private readonly IntakeDefaults _defaults;

    /// <summary>A reader for lists with these columns.</summary>
    /// <param name="fields">Field of each column.</param>
    /// <param name="currency">The account's currency.</param>
    /// <param name="defaults">What is taken for granted.</param>
    public RowReader(IReadOnlyList<IntakeField> fields, Currency currency, IntakeDefaults defaults)
    {
        (_cells, _defaults) = (new RowCells(fields, currency), defaults);
    }

    /// <summary>Reads one row, or nothing when all its used cells are blank.</summary>
    /// <param name="cells">The cells; missing ones at the end count as blank.</param>
    /// <param name="rowNumber">Row as a spreadsheet counts.</param>
    public IntakeRow? Read(IReadOnlyList<string> cells, int rowNumber)
    {
        var row = new IntakeRow { RowNumber = rowNumber };
        if (!_cells.Take(cells, row))
        {
            return null;
        }

        row.NegativeList = _cells.Name(IntakeField.NegativeList, null);

        // What is in a list is in no campaign; a list itself may name one that it holds for.
        row.Campaign = _cells.Name(IntakeField.Campaign, row.NegativeList.Length > 0 ? null : _defaults.Campaign);
        row.AdGroup = _cells.Name(IntakeField.AdGroup, null);
        row.Intent = _cells.Intent(_defaults.Intent);
        if (row.Problem is null)
        {
            ReadCampaign(row);
            ReadOwnItem(row);
        }
        else
        {
            // What the row is about is still said, so that a person finds it in the list.
            row.Kind = _cells.Has(IntakeField.Keyword) ? ItemKind.Keyword : ItemKind.AdGroup;
            row.Text = RowCells.Shortened(_cells.Text(IntakeField.Keyword));
        }

        return row;
    }

    private void ReadOwnItem(IntakeRow row)
    {
        var maxCpc = _cells.Amount(IntakeField.MaxCpc);
        row.AdGroupMaxCpc = _cells.Amount(IntakeField.AdGroupMaxCpc);
        row.State = _cells.State();
        row.FinalUrl = _cells.Url();
        row.Labels = _cells.Labels();
        row.Kind = KindOf(row);
        switch (row.Kind)
        {
            case ItemKind.Keyword or ItemKind.NegativeKeyword:
                row.MaxCpc = maxCpc;
                ReadWords(row);
                break;
            case ItemKind.TextAd:
                row.AdGroupMaxCpc ??= maxCpc;
                ReadAd(row);
                break;
            default:
                row.AdGroupMaxCpc ??= maxCpc;
                break;
        }

        row.Cleared = _defaults.EmptyClears ? Cleared(row) : ClearedValues.None;
        ReadPlace(row);
    }

    /// <summary>What the row says that it is; without a word of it, the most special item that its cells name.</summary>
    private ItemKind KindOf(IntakeRow row)
    {
        if (_cells.Has(IntakeField.Item))
        {
            var cell = _cells.Text(IntakeField.Item);
            if (CellValues.TryItem(cell, out var kind))
            {
                return kind;
            }

            _cells.Refuse(
                IntakeField.Item,
                $"“{RowCells.Shortened(cell)}” is none of campaign, ad group, keyword, negative keyword, text ad, negative list"
            );
        }

        return _cells.Has(IntakeField.Keyword) || _cells.Has(IntakeField.NegativeKeyword)
            ? row.NegativeList.Length > 0
                ? ItemKind.NegativeKeyword
                : ItemKind.Keyword
            : Headlines.Concat(Descriptions).Any(field => _cells.Has(field))
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
                _cells.Refuse(IntakeField.NegativeList, "is missing; name the list");
            }
            else if (row.Kind is not (ItemKind.NegativeList or ItemKind.NegativeKeyword))
            {
                _cells.Refuse(IntakeField.NegativeList, "is for negatives only; leave it empty here");
            }
            else if (row.AdGroup.Length > 0)
            {
                _cells.Refuse(IntakeField.AdGroup, "has to be empty for what belongs to a negative list");
            }
            else if (row.Kind == ItemKind.NegativeKeyword && row.Campaign.Length > 0)
            {
                _cells.Refuse(
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
            _cells.Refuse(IntakeField.Campaign, "is missing; choose a campaign for rows without one");
        }
        else if (needsAdGroup && row.AdGroup.Length == 0)
        {
            _cells.Refuse(IntakeField.AdGroup, "is missing; choose an ad group for rows without one");
        }
        else if (row.Kind == ItemKind.AdGroup && row.AdGroup.Length == 0)
        {
            _cells.Refuse(IntakeField.AdGroup, "is missing; name the ad group");
        }
        else if (row.Kind == ItemKind.Campaign && row.AdGroup.Length > 0)
        {
            _cells.Refuse(IntakeField.AdGroup, "has to be empty in the row of a campaign");
        }
    }

    private void ReadWords(IntakeRow row)
    {
        var field = _cells.Has(IntakeField.Keyword) ? IntakeField.Keyword : IntakeField.NegativeKeyword;
        if (!_cells.Has(field))
        {
            _cells.Refuse(row.Kind == ItemKind.Keyword ? IntakeField.Keyword : field, "is missing; write the words");
            return;
        }

        var noted = KeywordNotation.Read(_cells.Text(field));
        var negative = noted.Negative || field == IntakeField.NegativeKeyword || row.Kind == ItemKind.NegativeKeyword;
        MatchType? match = null;
        if (_cells.Has(IntakeField.MatchType))
        {
            var cell = _cells.Text(IntakeField.MatchType);
            if (CellValues.TryMatchType(cell, out var read, out var negativeType))
            {
                (match, negative) = (read, negative || negativeType);
            }
            else
            {
                _cells.Refuse(
                    IntakeField.MatchType,
                    $"“{RowCells.Shortened(cell)}” is none of exact, phrase, all words, broad"
                );
            }
        }

        if (negative && _cells.Has(IntakeField.Item) && row.Kind == ItemKind.Keyword)
        {
            _cells.Refuse(IntakeField.Item, "says keyword, the words are written as a negative; make them agree");
        }

        row.Kind = negative ? ItemKind.NegativeKeyword : ItemKind.Keyword;
        row.Text = noted.Text;
        row.Match = noted.Match ?? match ?? (negative ? _defaults.NegativeMatch : _defaults.BareMatch);
        if (noted.Problem is { } problem)
        {
            _cells.Refuse(field, $"“{RowCells.Shortened(noted.Text)}”: {problem}");
        }
        else if (TextLength.Of(noted.Text) > LongestKeyword)
        {
            _cells.Refuse(field, $"has {TextLength.Of(noted.Text):N0} characters; {LongestKeyword} at most come in");
            row.Text = RowCells.Shortened(noted.Text);
        }
        else if (noted.Match is { } inText && match is { } inColumn && inText != inColumn)
        {
            _cells.Refuse(
                IntakeField.MatchType,
                $"says {Label(inColumn)}, the keyword is written as {Label(inText)}; make them agree"
            );
        }
    }

    private void ReadAd(IntakeRow row)
    {
        row.Kind = ItemKind.TextAd;
        row.Headlines = _cells.Texts(Headlines);
        row.Descriptions = _cells.Texts(Descriptions);
        row.DisplayPath = _cells.Texts(Path);
        if (row.Headlines.Count == 0 && _cells.Has(IntakeField.Item))
        {
            _cells.Refuse(IntakeField.Headline1, "is missing; an ad needs a headline");
        }

        if (CellValues.TryDevice(_cells.Text(IntakeField.Device), out var device))
        {
            row.DevicePreference = device;
        }
        else
        {
            _cells.Refuse(
                IntakeField.Device,
                $"“{RowCells.Shortened(_cells.Text(IntakeField.Device))}” is none of desktop, phone, tablet, all"
            );
        }
    }

    private void ReadCampaign(IntakeRow row)
    {
        row.DailyBudget = _cells.Amount(IntakeField.DailyBudget);
        row.StartDate = _cells.Date(IntakeField.StartDate);
        row.EndDate = _cells.Date(IntakeField.EndDate);
        if (_cells.Has(IntakeField.Networks))
        {
            if (CellValues.TryNetworks(_cells.Text(IntakeField.Networks), out var networks))
            {
                row.Networks = networks;
            }
            else
            {
                _cells.Refuse(
                    IntakeField.Networks,
                    $"“{RowCells.Shortened(_cells.Text(IntakeField.Networks))}” is not search, partners or content"
                );
            }
        }
    }

    /// <summary>What an empty cell in a column of the list takes away from the row's own item.</summary>
    private ClearedValues Cleared(IntakeRow row)
    {
        ClearedValues If(ClearedValues value, params ReadOnlySpan<IntakeField> fields)
        {
            var present = false;
            foreach (var field in fields)
            {
                if (_cells.Has(field))
                {
                    return ClearedValues.None;
                }

                present |= _cells.HasColumn(field);
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

    private static string Label(MatchType match) =>
        match == MatchType.AllWords ? "all words" : match.ToString().ToLowerInvariant();
}
