using Dapper;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Sheets;

/// <summary>What an outline is laid out from: parents in their order, and how much is in each.</summary>
/// <param name="Campaigns">Campaigns in their order.</param>
/// <param name="Groups">Ad groups by their campaigns.</param>
/// <param name="Inside">How many of each kind stand in each place.</param>
internal sealed record OutlineCounts(
    IReadOnlyList<(long Id, bool Matches)> Campaigns,
    ILookup<long, (long Id, bool Matches)> Groups,
    IReadOnlyDictionary<(ItemKind Kind, Level Level), Dictionary<long, long>> Inside
)
{
    /// <summary>About how many bytes it takes.</summary>
    public long Size => 48L * (Campaigns.Count + Groups.Count) + 48L * Inside.Values.Sum(counts => (long)counts.Count);

    /// <summary>How many of a kind stand in a place.</summary>
    public long In(ItemKind kind, Level level, long parent) =>
        Inside.TryGetValue((kind, level), out var counts) ? counts.GetValueOrDefault(parent) : 0;
}

/// <summary>Where everything stands under the folds of the screen.</summary>
internal sealed record OutlineLayout(List<Outline.Stretch> Stretches, IReadOnlyList<KindCount> Counts)
{
    /// <summary>About how many bytes it takes.</summary>
    public long Size => 48L * Stretches.Count;

    /// <summary>The stretches from the one that holds a row on.</summary>
    public IEnumerable<Outline.Stretch> From(long row)
    {
        var (low, high) = (0, Stretches.Count);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (Stretches[middle].Start + Stretches[middle].Count <= row)
            {
                low = middle + 1;
            }
            else
            {
                high = middle;
            }
        }

        for (; low < Stretches.Count; low++)
        {
            yield return Stretches[low];
        }
    }
}

/// <summary>Remembers what the outline is laid out from, and the layout itself, for a revision of the account.</summary>
internal sealed record OutlineMemory(
    Func<Func<Task<OutlineCounts>>, Task<OutlineCounts>> CountsAsync,
    Func<Func<Task<OutlineLayout>>, Task<OutlineLayout>> LayoutAsync
);

/// <summary>
/// The outline: what the account holds itself, campaigns with what they hold, and their ad groups with what is in them. It
/// is laid out from counts, so that any window of it is read without what lies before it.
/// </summary>
internal sealed class Outline(NpgsqlConnection connection, SheetGround ground, SheetRequest request)
{
    private readonly DynamicParameters _parameters = SheetSql.Parameters(request, ground);

    /// <summary>Rows of one kind in one place, or one parent itself; or the heading of what a campaign holds besides ad groups.</summary>
    /// <param name="Besides">Of a heading, the kinds below it, each as a bit; none of anything else.</param>
    internal readonly record struct Stretch(
        ItemKind Kind,
        Level Level,
        long Parent,
        long Start,
        long Count,
        long Inside,
        ulong Besides = 0
    );

    private static readonly Level[] Places = [Level.Account, Level.Campaign, Level.AdGroup];

    /// <summary>The kinds whose items stand at a level without holding others, in the order in which they are shown.</summary>
    private static IEnumerable<ItemTable> Leaves(Level level) =>
        ItemTable.All.Where(table =>
            SheetSql.InOutline(table) && table.Type.Holds is null && table.Type.StandsIn(level)
        );

    /// <summary>How many rows it has.</summary>
    public async Task<SheetCount> CountAsync(OutlineMemory memory)
    {
        var layout = await LayoutAsync(memory);
        return new SheetCount(TotalOf(layout), layout.Counts);
    }

    private static long TotalOf(OutlineLayout layout) =>
        layout.Stretches.Count == 0 ? 0 : layout.Stretches[^1].Start + layout.Stretches[^1].Count;

    public async Task<(long?, List<SheetRow>, IReadOnlyList<KindCount>)> ReadAsync(OutlineMemory memory)
    {
        var layout = await LayoutAsync(memory);
        var window = layout
            .From(request.Offset)
            .TakeWhile(stretch => stretch.Start < request.Offset + request.Limit)
            .ToArray();
        var rows = new SortedDictionary<long, SheetRow>();
        foreach (var heading in window.Where(stretch => stretch.Besides != 0))
        {
            rows[heading.Start] = HeadingOf(heading);
        }

        foreach (
            var group in window.Where(stretch => stretch.Besides == 0).GroupBy(stretch => (stretch.Kind, stretch.Level))
        )
        {
            await FillAsync(rows, ItemTable.Of(group.Key.Kind), group.Key.Level, [.. group]);
        }

        return (TotalOf(layout), [.. rows.Values], layout.Counts);
    }

    /// <summary>The row above what a campaign holds besides its ad groups: no item, only a fold.</summary>
    private static SheetRow HeadingOf(Stretch heading)
    {
        var kinds = string.Join(
            ", ",
            ItemTypes.All.Where(type => (heading.Besides & BitOf(type.Kind)) != 0).Select(type => type.Plural)
        );
        return new SheetRow
        {
            Kind = heading.Kind,
            Id = -heading.Parent,
            Name = char.ToUpperInvariant(kinds[0]) + kinds[1..],
            Values = new Dictionary<string, object>(),
            Inherited = new Dictionary<string, object>(),
            Level = Level.Campaign,
            CampaignId = heading.Parent,
            Version = 0,
            Change = RowChange.None,
            Review = ReviewState.None,
            Inside = heading.Inside,
            IsHeading = true,
        };
    }

    private static ulong BitOf(ItemKind kind) => 1UL << (int)kind;

    private Task<OutlineLayout> LayoutAsync(OutlineMemory memory) =>
        memory.LayoutAsync(async () => LayOut(await memory.CountsAsync(CountAsync)));

    /// <summary>Row of an item, from 0; none when it is not shown.</summary>
    public async Task<long?> PlaceAsync(ItemReference item, OutlineMemory memory)
    {
        var stretches = (await LayoutAsync(memory)).Stretches;
        var table = ItemTable.Of(item.Kind);
        if (!SheetSql.InOutline(table))
        {
            return null;
        }

        if (table.Type.Holds is { } holds)
        {
            return Find(stretches, item.Kind, holds, item.Id)?.Start;
        }

        foreach (var level in Places.Where(table.Type.StandsIn))
        {
            var parent = await connection.ExecuteScalarAsync<long?>(
                $"select {ParentOf(table, level)} from {table.Name} i where i.id = @id and i.account_id = @account and {Stands(table, level)}",
                new { id = item.Id, account = ground.AccountId }
            );
            if (parent is null || Find(stretches, item.Kind, level, parent.Value) is not { } stretch)
            {
                continue;
            }

            var ids = await connection.QueryAsync<long>(
                $"select i.id from {SheetSql.From(request, table)} where {In(table, level, "@parent")} and {SheetSql.Where(request, table)} order by {SheetSql.OrderWithin(table)}",
                With(("parent", parent.Value))
            );
            var place = ids.ToList().IndexOf(item.Id);
            return place < 0 ? null : stretch.Start + place;
        }

        return null;
    }

    private static Stretch? Find(List<Stretch> stretches, ItemKind kind, Level level, long parent)
    {
        var place = stretches.FindIndex(stretch =>
            stretch.Besides == 0 && stretch.Kind == kind && stretch.Level == level && stretch.Parent == parent
        );
        return place < 0 ? null : stretches[place];
    }

    private async Task<OutlineCounts> CountAsync()
    {
        // Under a filter, parents are shown when they match themselves or have something inside that does.
        var campaigns = (await ParentsAsync(ItemTable.Of(ItemKind.Campaign), "0::bigint"))
            .Select(campaign => (campaign.Id, campaign.Matches))
            .ToArray();
        var groups = (await ParentsAsync(ItemTable.Of(ItemKind.AdGroup), "i.campaign_id")).ToLookup(
            group => group.Parent,
            group => (group.Id, group.Matches)
        );
        var inside = new Dictionary<(ItemKind, Level), Dictionary<long, long>>();
        foreach (var level in Places)
        {
            // Within one campaign or ad group nothing is shown of what lies above.
            if (
                level == Level.Account
                    ? request.CampaignId is not null || request.AdGroupId is not null
                    : level == Level.Campaign && request.AdGroupId is not null
            )
            {
                continue;
            }

            foreach (
                var table in Leaves(level)
                    .Where(table => request.Kinds.Count == 0 || request.Kinds.Contains(table.Kind))
            )
            {
                inside[(table.Kind, level)] = await CountsAsync(table, level);
            }
        }

        return new OutlineCounts(campaigns, groups, inside);
    }

    private OutlineLayout LayOut(OutlineCounts counted)
    {
        var stretches = new List<Stretch>();
        var within = new Dictionary<ItemKind, long>();
        long at = 0;
        void Place(ItemKind kind, Level level, long parent, long count, long inside = 0)
        {
            if (count > 0)
            {
                stretches.Add(new Stretch(kind, level, parent, at, count, inside));
                at += count;
            }
        }

        long CountAll(Level level, long parent) => Leaves(level).Sum(table => counted.In(table.Kind, level, parent));
        void PlaceAll(Level level, long parent, bool shown)
        {
            foreach (var table in Leaves(level))
            {
                var count = counted.In(table.Kind, level, parent);
                within[table.Kind] = within.GetValueOrDefault(table.Kind) + count;
                if (shown)
                {
                    Place(table.Kind, level, parent, count);
                }
            }
        }

        var foldedCampaigns = request.FoldedCampaigns.ToHashSet();
        var foldedGroups = request.FoldedAdGroups.ToHashSet();
        var foldedBesides = request.FoldedBesides.ToHashSet();
        PlaceAll(Level.Account, 0, shown: true);
        foreach (var campaign in counted.Campaigns)
        {
            var groups = counted
                .Groups[campaign.Id]
                .Select(group => (group.Id, group.Matches, Count: CountAll(Level.AdGroup, group.Id)))
                .Where(group => group.Matches || group.Count > 0)
                .ToArray();
            if (!campaign.Matches && groups.Length == 0 && CountAll(Level.Campaign, campaign.Id) == 0)
            {
                continue;
            }

            Place(ItemKind.Campaign, Level.Campaign, campaign.Id, 1, groups.Length);
            var folded = foldedCampaigns.Contains(campaign.Id);
            foreach (var group in groups)
            {
                if (!folded)
                {
                    Place(ItemKind.AdGroup, Level.AdGroup, group.Id, 1, group.Count);
                }

                PlaceAll(Level.AdGroup, group.Id, shown: !folded && !foldedGroups.Contains(group.Id));
            }

            var besides = Leaves(Level.Campaign)
                .Where(table => counted.In(table.Kind, Level.Campaign, campaign.Id) > 0)
                .ToArray();
            if (besides.Length > 0 && !folded)
            {
                stretches.Add(
                    new Stretch(
                        besides[0].Kind,
                        Level.Campaign,
                        campaign.Id,
                        at++,
                        1,
                        CountAll(Level.Campaign, campaign.Id),
                        besides.Aggregate(0UL, (bits, table) => bits | BitOf(table.Kind))
                    )
                );
            }

            PlaceAll(Level.Campaign, campaign.Id, shown: !folded && !foldedBesides.Contains(campaign.Id));
        }

        foreach (var holder in new[] { ItemKind.Campaign, ItemKind.AdGroup })
        {
            within[holder] = stretches.Where(stretch => stretch.Kind == holder).Sum(stretch => stretch.Count);
        }

        return new OutlineLayout(
            stretches,
            [
                .. ItemTypes
                    .All.Where(type => within.ContainsKey(type.Kind))
                    .Select(type => new KindCount(type.Kind, within[type.Kind])),
            ]
        );
    }

    private async Task<IEnumerable<(long Id, long Parent, bool Matches)>> ParentsAsync(ItemTable table, string parent)
    {
        // What was removed may have stood in what is still there, or in what was removed itself.
        var shown = new SheetRequest { CampaignId = request.CampaignId, AdGroupId = request.AdGroupId };
        var all = SheetSql.Where(shown, table);
        if (request.Removed)
        {
            all = $"({all} or {SheetSql.Where(shown with { Removed = true }, table)})";
        }

        var matches = request.IsFiltered ? $"coalesce(({SheetSql.Where(request, table)}), false)" : "true";
        return await connection.QueryAsync<(long, long, bool)>(
            $"select i.id, {parent}, {matches} from {SheetSql.From(request, table)} where {all} order by i.name_key, i.id",
            _parameters
        );
    }

    private async Task<Dictionary<long, long>> CountsAsync(ItemTable table, Level level)
    {
        var counts = await connection.QueryAsync<(long Parent, long Count)>(
            $"select {ParentOf(table, level)}, count(*) from {SheetSql.From(request, table)} where {SheetSql.Where(request, table)} and {Stands(table, level)} group by 1",
            _parameters
        );
        return counts.ToDictionary(count => count.Parent, count => count.Count);
    }

    /// <summary>What an item stands in at a level; 0 for the account.</summary>
    private static string ParentOf(ItemTable table, Level level) =>
        table.Type.Holds == level ? "i.id"
        : table.Parents.FirstOrDefault(parent => parent.Level == level) is { } parent ? $"i.{parent.Column}"
        : "0::bigint";

    /// <summary>The item stands at a level and not deeper.</summary>
    private static string Stands(ItemTable table, Level level) => table.HasLevels ? $"i.level = {(int)level}" : "true";

    private static string In(ItemTable table, Level level, string parent) =>
        $"{(level == Level.Account ? "true" : $"{ParentOf(table, level)} = {parent}")} and {(table.Type.Holds is null ? Stands(table, level) : "true")}";

    private DynamicParameters With(params (string Name, object Value)[] more)
    {
        var parameters = new DynamicParameters(_parameters);
        foreach (var (name, value) in more)
        {
            parameters.Add(name, value);
        }

        return parameters;
    }

    private async Task FillAsync(
        SortedDictionary<long, SheetRow> rows,
        ItemTable table,
        Level level,
        Stretch[] stretches
    )
    {
        var from = SheetPlaces.Tables(
            table,
            SheetJoins.AdGroup
                | SheetJoins.Campaign
                | (SheetSql.FiltersByFigures(request) ? SheetJoins.Figures : SheetJoins.None)
        );
        var holds = table.Type.Holds is not null;
        var byParent = stretches.ToDictionary(stretch => stretch.Parent);
        var where = holds ? "true" : SheetSql.Where(request, table);
        var parameters = With(
            ("parents", stretches.Select(stretch => stretch.Parent).ToArray()),
            ("skips", stretches.Select(stretch => Math.Max(0, request.Offset - stretch.Start)).ToArray()),
            (
                "takes",
                stretches
                    .Select(stretch => Math.Min(stretch.Count, request.Offset + request.Limit - stretch.Start))
                    .ToArray()
            )
        );
        var found = await SheetRows.ReadAsync(
            connection,
            table,
            $"""
            select r.* from unnest(@parents, @skips, @takes) as s(parent, skip, take)
            cross join lateral (
              select {SheetRows.ColumnsOf(table)}, s.parent as parent from {from} where {In(
                table,
                level,
                "s.parent"
            )} and {where}
              order by {SheetSql.OrderWithin(table)} offset s.skip limit s.take - s.skip
            ) r
            """,
            parameters,
            more: true
        );
        foreach (var group in found.GroupBy(pair => pair.More!.Value))
        {
            var stretch = byParent[group.Key];
            var place = Math.Max(stretch.Start, request.Offset);
            foreach (var (row, _) in group)
            {
                rows[place++] = holds ? row with { Inside = stretch.Inside } : row;
            }
        }
    }
}
