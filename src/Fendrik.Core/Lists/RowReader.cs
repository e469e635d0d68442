using System.Globalization;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;

namespace Fendrik.Core.Lists;

/// <summary>Reads rows of a list whose columns are known. Values are read by their types, as everywhere.</summary>
public sealed class RowReader
{
    /// <summary>Where the cells of a field stand, for one kind of item.</summary>
    private sealed record FieldCells(Field Field, int[] Places, Level? Holder);

    private static readonly int? MostOfFixedAds = NetworkProfile.All.Values.Max(network =>
        network.LimitsOf(ItemKind.TextAd, "headlines").Most
    );

    private static readonly Level[] NearestFirst = [Level.AdGroup, Level.Campaign];
    private readonly RowCells _cells;
    private readonly ListDefaults _defaults;
    private readonly ReadingGround _ground;
    private readonly Dictionary<ItemKind, FieldCells[]> _plans = [];
    private readonly (ItemType Type, int[] Places)[] _telling;
    private readonly RowPlaces _places;
    private readonly RowWords _words;

    /// <summary>A reader for rows with these columns.</summary>
    /// <param name="columns">What each column holds; none for one that is left out.</param>
    /// <param name="ground">The account's currency and language.</param>
    /// <param name="defaults">What holds where rows say nothing.</param>
    public RowReader(IReadOnlyList<ListColumn?> columns, ReadingGround ground, ListDefaults defaults)
    {
        (_cells, _ground, _defaults) = (new RowCells(columns), ground, defaults);
        (_places, _words) = (new RowPlaces(_cells, defaults), new RowWords(_cells, ground, defaults));
        _telling =
        [
            .. ItemTypes
                .All.Select(type => (type, type.Fields.Where(field => field.TellsKind).SelectMany(PlacesOf).ToArray()))
                .Where(each => each.Item2.Length > 0)
                // What one kind alone has tells more than what several have.
                .OrderBy(each => each.type.Fields.Where(field => field.TellsKind).Max(KindsWith)),
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

        row.NegativeList = _cells.Name(RowPlaces.NegativeList, null);
        // What is in a list is in no campaign; a list itself may name one that it holds for.
        row.Campaign = _cells.Name(RowPlaces.Campaign, null);
        row.AdGroup = _cells.Name(RowPlaces.AdGroup, null);
        row.Intent = ReadIntent();
        if (row.Problem is null)
        {
            ReadItem(row);
        }
        else
        {
            // What the row is about is still said, so that a person finds it in the list.
            row.Kind = _words.HasKeyword ? ItemKind.Keyword : ItemKind.AdGroup;
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
            _words.Read(row);
        }

        ReadReference(row);
        _places.Read(row);
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
                    return type.Kind == ItemKind.Keyword && row.NegativeList.Length > 0 ? ItemKind.NegativeKeyword
                        : type.Kind == ItemKind.TextAd && HasManyHeadlines(type) ? ItemKind.ResponsiveAd
                        : type.Kind;
                }
            }
        }

        return row.NegativeList.Length > 0 ? ItemKind.NegativeList
            : row.AdGroup.Length > 0 ? ItemKind.AdGroup
            : ItemKind.Campaign;
    }

    private static int KindsWith(Field field) =>
        ItemTypes.All.Count(type => type.Fields.Any(other => ListNameOf(other) == ListNameOf(field)));

    private static string ListNameOf(Field field) => field.ListName ?? field.Name;

    /// <summary>More headlines than any network takes in a fixed ad are those of a responsive one.</summary>
    private bool HasManyHeadlines(ItemType type) =>
        PlacesOf(type["headlines"]).Count(place => _cells.At(place).Length > 0) > MostOfFixedAds;

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
