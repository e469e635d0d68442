using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Sheets;

/// <summary>What an outline is laid out from: parents in their order, and how much is in each.</summary>
internal sealed record OutlineCounts(
    IReadOnlyList<(long Id, bool Matches)> Campaigns,
    ILookup<long, (long Id, bool Matches)> Groups,
    IReadOnlyDictionary<ItemKind, Dictionary<long, long>> Inside,
    IReadOnlyDictionary<long, long> CampaignNegatives
)
{
    /// <summary>About how many bytes it takes.</summary>
    public long Size =>
        48L * (Campaigns.Count + Groups.Count + CampaignNegatives.Count)
        + 48L * Inside.Values.Sum(counts => (long)counts.Count);
}

/// <summary>Where everything stands under the folds of the screen.</summary>
internal sealed record OutlineLayout(List<Outline.Stretch> Stretches, SheetCounts Counts)
{
    /// <summary>About how many bytes it takes.</summary>
    public long Size => 40L * Stretches.Count;

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

/// <summary>What is remembered of an outline as long as the account does not move.</summary>
internal sealed record OutlineMemory(
    Func<Func<Task<OutlineCounts>>, Task<OutlineCounts>> CountsAsync,
    Func<Func<Task<OutlineLayout>>, Task<OutlineLayout>> LayoutAsync
);

/// <summary>
/// The outline as one long list: campaign, its negatives, ad group, its keywords, negatives and ads, next ad group …
/// Counts of each ad group place every row; only the rows inside the window are read.
/// </summary>
internal sealed class Outline(NpgsqlConnection connection, SheetGround ground, SheetRequest request)
{
    private static readonly ItemKind[] InsideGroup = [ItemKind.Keyword, ItemKind.NegativeKeyword, ItemKind.TextAd];

    private readonly DynamicParameters _parameters = SheetSql.Parameters(request, ground.AccountId, ground.Figures);

    /// <summary>A stretch of rows of one kind in one parent.</summary>
    internal readonly record struct Stretch(ItemKind Kind, long Parent, long Start, long Count, long Inside);

    public async Task<(long, List<SheetRow>, SheetCounts)> ReadAsync(OutlineMemory memory)
    {
        var layout = await LayoutAsync(memory);
        var stretches = layout.Stretches;
        var total = stretches.Count == 0 ? 0 : stretches[^1].Start + stretches[^1].Count;
        var window = layout
            .From(request.Offset)
            .TakeWhile(stretch => stretch.Start < request.Offset + request.Limit)
            .ToArray();
        var rows = new SortedDictionary<long, SheetRow>();
        foreach (var kind in window.Select(stretch => stretch.Kind).Distinct())
        {
            await FillAsync(rows, kind, [.. window.Where(stretch => stretch.Kind == kind)]);
        }

        return (total, [.. rows.Values], layout.Counts);
    }

    private Task<OutlineLayout> LayoutAsync(OutlineMemory memory) =>
        memory.LayoutAsync(async () => LayOut(await memory.CountsAsync(CountAsync)));

    /// <summary>The place of an item, folded parents opened in thought; none where it is hidden.</summary>
    public async Task<long?> PlaceAsync(ItemReference item, OutlineMemory memory)
    {
        var stretches = (await LayoutAsync(memory)).Stretches;
        if (item.Kind is ItemKind.Campaign or ItemKind.AdGroup)
        {
            return Find(stretches, item.Kind, item.Id)?.Start;
        }

        if (item.Kind is not (ItemKind.Keyword or ItemKind.NegativeKeyword or ItemKind.TextAd))
        {
            return null;
        }

        var parent = await connection.ExecuteScalarAsync<long?>(
            $"select {ParentOf(item.Kind)} from {ItemTable.Of(item.Kind).Name} i where i.id = @id and i.account_id = @account",
            new { id = item.Id, account = ground.AccountId }
        );
        if (parent is null || Find(stretches, item.Kind, parent.Value) is not { } stretch)
        {
            return null;
        }

        var ids = await connection.QueryAsync<long>(
            $"select i.id from {SheetSql.From(request, item.Kind)} where {InParent(item.Kind, "@parent")} and {SheetSql.Where(request, item.Kind)} order by {SheetSql.OrderWithin(item.Kind)}",
            With(("parent", parent.Value))
        );
        var place = ids.ToList().IndexOf(item.Id);
        return place < 0 ? null : stretch.Start + place;
    }

    private static Stretch? Find(List<Stretch> stretches, ItemKind kind, long parent)
    {
        var place = stretches.FindIndex(stretch => stretch.Kind == kind && stretch.Parent == parent);
        return place < 0 ? null : stretches[place];
    }

    private async Task<OutlineCounts> CountAsync()
    {
        // Under a filter, parents are shown when they match themselves or have something inside that does.
        var campaigns = (await ParentsAsync(ItemKind.Campaign, "0::bigint"))
            .Select(campaign => (campaign.Id, campaign.Matches))
            .ToArray();
        var groups = (await ParentsAsync(ItemKind.AdGroup, "i.campaign_id")).ToLookup(
            group => group.Parent,
            group => (group.Id, group.Matches)
        );
        var inside = new Dictionary<ItemKind, Dictionary<long, long>>();
        foreach (var kind in InsideGroup)
        {
            inside[kind] =
                request.Kinds.Count > 0 && !request.Kinds.Contains(kind) ? [] : await CountsAsync(kind, "ad_group_id");
        }

        var negatives =
            request.AdGroupId is not null
            || (request.Kinds.Count > 0 && !request.Kinds.Contains(ItemKind.NegativeKeyword))
                ? []
                : await CountsAsync(ItemKind.NegativeKeyword, "campaign_id", " and i.ad_group_id is null");
        return new OutlineCounts(campaigns, groups, inside, negatives);
    }

    private OutlineLayout LayOut(OutlineCounts counted)
    {
        var stretches = new List<Stretch>();
        var within = InsideGroup.ToDictionary(kind => kind, _ => 0L);
        long at = 0;
        void Place(ItemKind kind, long parent, long count, long inside = 0)
        {
            if (count > 0)
            {
                stretches.Add(new Stretch(kind, parent, at, count, inside));
                at += count;
            }
        }

        var foldedCampaigns = request.FoldedCampaigns.ToHashSet();
        var foldedGroups = request.FoldedAdGroups.ToHashSet();
        foreach (var campaign in counted.Campaigns)
        {
            var shown = counted
                .Groups[campaign.Id]
                .Select(group =>
                    (
                        group.Id,
                        group.Matches,
                        Counts: InsideGroup.Select(kind => counted.Inside[kind].GetValueOrDefault(group.Id)).ToArray()
                    )
                )
                .Where(group => group.Matches || group.Counts.Sum() > 0)
                .ToArray();
            var own = counted.CampaignNegatives.GetValueOrDefault(campaign.Id);
            if (!campaign.Matches && shown.Length == 0 && own == 0)
            {
                continue;
            }

            within[ItemKind.NegativeKeyword] += own;
            Place(ItemKind.Campaign, campaign.Id, 1, shown.Length);
            var folded = foldedCampaigns.Contains(campaign.Id);
            if (!folded)
            {
                Place(ItemKind.NegativeKeyword, -campaign.Id, own);
            }

            foreach (var group in shown)
            {
                for (var kind = 0; kind < InsideGroup.Length; kind++)
                {
                    within[InsideGroup[kind]] += group.Counts[kind];
                }

                if (folded)
                {
                    continue;
                }

                Place(ItemKind.AdGroup, group.Id, 1, group.Counts.Sum());
                for (var kind = 0; kind < InsideGroup.Length && !foldedGroups.Contains(group.Id); kind++)
                {
                    Place(InsideGroup[kind], group.Id, group.Counts[kind]);
                }
            }
        }

        long Sum(ItemKind kind) => stretches.Where(stretch => stretch.Kind == kind).Sum(stretch => stretch.Count);
        return new OutlineLayout(
            stretches,
            new SheetCounts(
                Sum(ItemKind.Campaign),
                Sum(ItemKind.AdGroup),
                within[ItemKind.Keyword],
                within[ItemKind.NegativeKeyword],
                within[ItemKind.TextAd]
            )
        );
    }

    private async Task<IEnumerable<(long Id, long Parent, bool Matches)>> ParentsAsync(ItemKind kind, string parent)
    {
        var all = SheetSql.Where(
            new SheetRequest { CampaignId = request.CampaignId, AdGroupId = request.AdGroupId },
            kind
        );
        var matches = request.IsFiltered ? $"coalesce(({SheetSql.Where(request, kind)}), false)" : "true";
        return await connection.QueryAsync<(long, long, bool)>(
            $"select i.id, {parent}, {matches} from {SheetSql.From(request, kind)} where {all} order by i.name_key, i.id",
            _parameters
        );
    }

    private async Task<Dictionary<long, long>> CountsAsync(ItemKind kind, string parent, string more = "")
    {
        var counts = await connection.QueryAsync<(long Parent, long Count)>(
            $"select i.{parent}, count(*) from {SheetSql.From(request, kind)} where {SheetSql.Where(request, kind)}{more} and i.{parent} is not null group by i.{parent}",
            _parameters
        );
        return counts.ToDictionary(count => count.Parent, count => count.Count);
    }

    private static string ParentOf(ItemKind kind) =>
        kind switch
        {
            ItemKind.Campaign or ItemKind.AdGroup => "i.id",
            ItemKind.NegativeKeyword => "coalesce(i.ad_group_id, -i.campaign_id)",
            _ => "i.ad_group_id",
        };

    /// <summary>A parent below zero is a campaign with negatives of its own.</summary>
    private static string InParent(ItemKind kind, string parent) =>
        kind == ItemKind.NegativeKeyword
            ? $"({parent} > 0 and i.ad_group_id = {parent} or {parent} < 0 and i.campaign_id = -{parent} and i.ad_group_id is null)"
            : $"{ParentOf(kind)} = {parent}";

    private DynamicParameters With(params (string Name, object Value)[] more)
    {
        var parameters = new DynamicParameters(_parameters);
        foreach (var (name, value) in more)
        {
            parameters.Add(name, value);
        }

        return parameters;
    }

    private async Task FillAsync(SortedDictionary<long, SheetRow> rows, ItemKind kind, Stretch[] stretches)
    {
        var (columns, _) = SheetSql.RowOf(kind);
        var from = SheetSql.Tables(
            kind,
            SheetJoins.AdGroup
                | SheetJoins.Campaign
                | (SheetSql.ReadsFigures(request) ? SheetJoins.Figures : SheetJoins.None)
        );
        var byParent = stretches.ToDictionary(stretch => stretch.Parent);
        var where = kind is ItemKind.Campaign or ItemKind.AdGroup ? "true" : SheetSql.Where(request, kind);
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
        var found = await connection.QueryAsync<SheetRow, long, (SheetRow Row, long Parent)>(
            $"""
            select r.* from unnest(@parents, @skips, @takes) as s(parent, skip, take)
            cross join lateral (
              select {columns}, s.parent as parent from {from} where {InParent(kind, "s.parent")} and {where}
              order by {SheetSql.OrderWithin(kind)} offset s.skip limit s.take - s.skip
            ) r
            """,
            (row, key) => (row, key),
            parameters,
            splitOn: "parent"
        );
        foreach (var group in found.GroupBy(pair => pair.Parent))
        {
            var stretch = byParent[group.Key];
            var place = Math.Max(stretch.Start, request.Offset);
            foreach (var (row, _) in group)
            {
                rows[place++] = kind is ItemKind.Campaign or ItemKind.AdGroup
                    ? row with
                    {
                        Inside = stretch.Inside,
                    }
                    : row;
            }
        }
    }
}
