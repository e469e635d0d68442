using System.Globalization;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Matching;

namespace Fendrik.Core.Lists;

/// <summary>Reads rows of a list whose columns are known. Values are read by their types, as everywhere.</summary>
public sealed class RowReader
{
    /// <summary>Where the cells of a field stand, for one kind of item.</summary>
    private sealed record FieldCells(Field Field, int[] Places, Level? Holder);

    private static readonly Level[] NearestFirst = [Level.AdGroup, Level.Campaign];
    private static readonly string Campaign = ListColumns.PlaceName(Level.Campaign);
    private static readonly string AdGroup = ListColumns.PlaceName(Level.AdGroup);
    private static readonly string NegativeList = ListColumns.PlaceName(Level.List);

    private readonly RowCells _cells;
    private readonly ListDefaults _defaults;
    private readonly ReadingGround _ground;
    private readonly Dictionary<ItemKind, FieldCells[]> _plans = [];
    private readonly (ItemType Type, int[] Places)[] _telling;
    private readonly string _keyword = ListColumns.NameOf(ItemTypes.Of(ItemKind.Keyword)["text"]);
    private readonly string _negative = ListColumns.NameOf(ItemTypes.Of(ItemKind.NegativeKeyword)["text"]);
    private readonly string _match = ListColumns.NameOf(ItemTypes.Of(ItemKind.Keyword)[WordsValue.MatchField]);

    /// <summary>A reader for rows with these columns.</summary>
    /// <param name="columns">What each column holds; none for one that is left out.</param>
    /// <param name="ground">The account's currency and language.</param>
    /// <param name="defaults">What holds where rows say nothing.</param>
    public RowReader(IReadOnlyList<ListColumn?> columns, ReadingGround ground, ListDefaults defaults)
    {
        (_cells, _ground, _defaults) = (new RowCells(columns), ground, defaults);
        _telling =
        [
            .. ItemTypes
                .All.Select(type => (type, type.Fields.Where(field => field.TellsKind).SelectMany(PlacesOf).ToArray()))
                .Where(each => each.Item2.Length > 0),
        ];
    }

    /// <summary>Reads a row; none for an empty one. What is wrong with it is in <see cref="ListRow.Problem"/>.</summary>
    public ListRow? Read(IReadOnlyList<string> cells, int rowNumber)
    {
        var row = new ListRow { RowNumber = rowNumber };
        if (!_cells.Take(cells, row))
        {
            return null;
        }

        row.NegativeList = _cells.Name(NegativeList, null);
        // What is in a list is in no campaign; a list itself may name one that it holds for.
        row.Campaign = _cells.Name(Campaign, null);
        row.AdGroup = _cells.Name(AdGroup, null);
        row.Intent = ReadIntent();
        if (row.Problem is null)
        {
            ReadItem(row);
        }
        else
        {
            // What the row is about is still said, so that a person finds it in the list.
            row.Kind = _cells.Has(_keyword) ? ItemKind.Keyword : ItemKind.AdGroup;
        }

        return row;
    }

    private RowIntent ReadIntent()
    {
        if (!_cells.Has(ListColumns.Action))
        {
            return _defaults.Intent;
        }

        var cell = _cells.Text(ListColumns.Action);
        if (RowIntents.Read(cell) is { } intent)
        {
            return intent;
        }

        _cells.Refuse(ListColumns.Action, $"“{Reading.Shortened(cell)}” is none of add, change, remove");
        return _defaults.Intent;
    }

    private void ReadItem(ListRow row)
    {
        row.Kind = KindOf(row);
        if (row.Kind is ItemKind.Keyword or ItemKind.NegativeKeyword)
        {
            ReadWords(row);
        }

        ReadReference(row);
        ReadPlace(row);
        var type = ItemTypes.Of(row.Kind);
        foreach (var cells in PlanOf(type))
        {
            ReadField(row, type, cells);
        }

        if (
            type is { Holds: null, NameField: { } name }
            && type.Fields.Contains(name)
            && row.Reference is null
            && row.Values[name] is null
        )
        {
            _cells.Refuse(
                ColumnOf(name),
                $"is missing; {name.MissingAdvice switch { "" => "fill it in", var advice => char.ToLowerInvariant(advice[0]) + advice[1..].TrimEnd('.') }}"
            );
        }
    }

    private void ReadField(ListRow row, ItemType type, FieldCells cells)
    {
        var values =
            cells.Holder is not { } level ? row.Values
            : row.NameAt(level).Length > 0 ? row.Said(level)
            : null;
        if (
            values is null
            || (cells.Field.Type is WordsValue)
            || (cells.Field.Name == WordsValue.MatchField && row.Values[cells.Field] is not null)
        )
        {
            return;
        }

        var filled = false;
        foreach (var place in cells.Places)
        {
            filled |= _cells.At(place).Length > 0;
        }

        if (!filled)
        {
            if (cells.Holder is null && _defaults.EmptyClears && cells.Field.IsClearable)
            {
                row.Cleared.Add(cells.Field);
            }

            return;
        }

        var reading = cells.Field.Type.Room is null
            ? cells.Field.Read(_cells.At(cells.Places.First(place => _cells.At(place).Length > 0)), _ground)
            : cells.Field.Read([.. cells.Places.Select(_cells.At)], _ground);
        if (reading.Problem is { } problem)
        {
            _cells.Refuse(ColumnOf(cells.Field), problem);
        }
        else
        {
            values[cells.Field] = reading.Value;
            // A row that is a holder says of itself what rows inside it may say of it.
            if (cells.Holder is null && type.Holds is { } own && cells.Field.IsSaidInside)
            {
                row.Said(own)![cells.Field] ??= reading.Value;
            }
        }
    }

    private ItemKind KindOf(ListRow row)
    {
        if (_cells.Has(ListColumns.Item))
        {
            var cell = _cells.Text(ListColumns.Item);
            if (ItemTypes.Named(cell) is { } named)
            {
                return named.Kind;
            }

            _cells.Refuse(
                ListColumns.Item,
                $"“{Reading.Shortened(cell)}” is none of {string.Join(", ", ItemTypes.All.Select(type => type.FileWord))}"
            );
        }

        foreach (var (type, places) in _telling)
        {
            foreach (var place in places)
            {
                if (_cells.At(place).Length > 0)
                {
                    return type.Kind == ItemKind.Keyword && row.NegativeList.Length > 0
                        ? ItemKind.NegativeKeyword
                        : type.Kind;
                }
            }
        }

        return row.NegativeList.Length > 0 ? ItemKind.NegativeList
            : row.AdGroup.Length > 0 ? ItemKind.AdGroup
            : ItemKind.Campaign;
    }

    private void ReadReference(ListRow row)
    {
        if (!ItemTypes.Of(row.Kind).IsKnownByContent || !_cells.Has(ListColumns.Reference))
        {
            return;
        }

        var cell = _cells.Text(ListColumns.Reference);
        if (long.TryParse(cell, NumberStyles.None, CultureInfo.InvariantCulture, out var reference))
        {
            row.Reference = reference;
        }
        else
        {
            _cells.Refuse(
                ListColumns.Reference,
                $"“{Reading.Shortened(cell)}” is not a number as Fendrik takes it out; leave it empty for a new one"
            );
        }
    }

    private void ReadPlace(ListRow row)
    {
        var type = ItemTypes.Of(row.Kind);
        if (type.Holds == Level.List || row.NegativeList.Length > 0)
        {
            if (row.NegativeList.Length == 0)
            {
                _cells.Refuse(NegativeList, "is missing; name the list");
            }
            else if (type.Holds != Level.List && !type.StandsIn(Level.List))
            {
                _cells.Refuse(NegativeList, "is for negatives only; leave it empty here");
            }
            else if (row.AdGroup.Length > 0)
            {
                _cells.Refuse(AdGroup, "has to be empty for what belongs to a negative list");
            }
            else if (type.StandsIn(Level.List) && row.Campaign.Length > 0)
            {
                _cells.Refuse(
                    Campaign,
                    $"has to be empty for a {type.Noun} in a list; campaigns are named in a row of the list itself"
                );
            }

            return;
        }

        var named = row.Campaign.Length > 0 || row.AdGroup.Length > 0;
        if (
            type.Levels is [Level.Account] && type.Holds is null
            || (type.StandsIn(Level.Account) && type.Holds is null && !named)
        )
        {
            if (!type.StandsIn(Level.Campaign) && named)
            {
                _cells.Refuse(
                    row.Campaign.Length > 0 ? Campaign : AdGroup,
                    $"has to be empty in the row of the {type.Noun}"
                );
            }

            return;
        }

        if (row.Campaign.Length == 0)
        {
            row.Campaign = _defaults.Campaign ?? "";
        }

        var needsAdGroup = type.Levels is [Level.AdGroup];
        if (needsAdGroup && row.AdGroup.Length == 0)
        {
            row.AdGroup = _defaults.AdGroup ?? "";
        }

        if (row.Campaign.Length == 0)
        {
            _cells.Refuse(Campaign, "is missing; choose a campaign for rows without one");
        }
        else if (needsAdGroup && row.AdGroup.Length == 0)
        {
            _cells.Refuse(AdGroup, "is missing; choose an ad group for rows without one");
        }
        else if (type.Holds == Level.AdGroup && row.AdGroup.Length == 0)
        {
            _cells.Refuse(AdGroup, "is missing; name the ad group");
        }
        else if (type.Holds == Level.Campaign && row.AdGroup.Length > 0)
        {
            _cells.Refuse(AdGroup, "has to be empty in the row of a campaign");
        }
    }

    /// <summary>Words may say by their notation, their column or their match type that they are a negative.</summary>
    private void ReadWords(ListRow row)
    {
        var column = _cells.Has(_keyword) ? _keyword : _negative;
        if (!_cells.Has(column))
        {
            _cells.Refuse(row.Kind == ItemKind.Keyword ? _keyword : column, "is missing; write the words");
            return;
        }

        var cell = _cells.Text(column);
        var noted = KeywordNotation.Read(cell);
        var negative = noted.Negative || column == _negative || row.Kind == ItemKind.NegativeKeyword;
        short? match = null;
        if (_cells.Has(_match))
        {
            var written = _cells.Text(_match);
            var plain = WithoutNegative(written, out var negativeType);
            var reading = ItemTypes.Of(ItemKind.Keyword)[WordsValue.MatchField].Type.Read(plain, _ground);
            if (reading.Problem is null)
            {
                (match, negative) = ((short?)reading.Value, negative || negativeType);
            }
            else
            {
                _cells.Refuse(_match, reading.Problem);
            }
        }

        if (negative && _cells.Has(ListColumns.Item) && row.Kind == ItemKind.Keyword)
        {
            _cells.Refuse(ListColumns.Item, "says keyword, the words are written as a negative; make them agree");
        }

        row.Kind = negative ? ItemKind.NegativeKeyword : ItemKind.Keyword;
        var words = row.Values.Type["text"].Type.Read(cell, _ground);
        row.Values["text"] = words.Value ?? Reading.Shortened(noted.Text);
        row.Values[WordsValue.MatchField] =
            (short?)noted.Match ?? match ?? (short)(negative ? _defaults.NegativeMatch : _defaults.BareMatch);
        if (words.Problem is { } problem)
        {
            row.Values["text"] = Reading.Shortened(noted.Text);
            _cells.Refuse(column, problem);
        }
        else if (noted.Match is { } inText && match is { } inColumn && (short)inText != inColumn)
        {
            _cells.Refuse(
                _match,
                $"says {Choices.NameOf((MatchType)inColumn)}, the keyword is written as {Choices.NameOf(inText)}; make them agree"
            );
        }
    }

    private static string WithoutNegative(string cell, out bool negative)
    {
        var text = TextIdentity.Of(cell);
        negative =
            text.StartsWith("negative", StringComparison.Ordinal) || text.StartsWith('-') || text.StartsWith('−');
        return text.Replace("negative", "", StringComparison.Ordinal).Trim(' ', '-', '−');
    }

    private FieldCells[] PlanOf(ItemType type)
    {
        if (!_plans.TryGetValue(type.Kind, out var plan))
        {
            _plans[type.Kind] = plan = [.. Plan(type)];
        }

        return plan;
    }

    private IEnumerable<FieldCells> Plan(ItemType type)
    {
        foreach (var field in type.Fields.Where(field => !(type.Holds is not null && field == type.NameField)))
        {
            var places = PlacesOf(field)
                .Concat(
                    type.Holds is not null && field.HeadersInside.Count > 0
                        ? Present([_cells.PlaceOf($"{Networks.NetworkProfile.KeyOf(type.Kind)}.{field.Name}")])
                        : []
                )
                .ToArray();
            if (places.Length > 0)
            {
                yield return new FieldCells(field, places, null);
            }
        }

        foreach (var level in NearestFirst.Where(level => type.Holds != level))
        {
            var holder = ItemTypes.HolderOf(level)!;
            foreach (var field in holder.Fields.Where(field => field.IsSaidInside))
            {
                var places = Present([_cells.PlaceOf($"{Networks.NetworkProfile.KeyOf(holder.Kind)}.{field.Name}")])
                    .Concat(type.Find(field.Name) is null ? PlacesOf(field) : [])
                    .ToArray();
                if (places.Length > 0)
                {
                    yield return new FieldCells(field, places, level);
                }
            }
        }
    }

    private IEnumerable<int> PlacesOf(Field field) =>
        Present(
            field.Type.Room is { } room
                ? Enumerable.Range(1, room).Select(part => _cells.PlaceOf($"{ListColumns.NameOf(field)}.{part}"))
                : [_cells.PlaceOf(ListColumns.NameOf(field))]
        );

    private static IEnumerable<int> Present(IEnumerable<int> places) => places.Where(place => place >= 0);

    private static ListColumn ColumnOf(Field field) =>
        ListColumns.Find(ListColumns.NameOf(field)) ?? ListColumns.Find($"{ListColumns.NameOf(field)}.1")!;
}
