using Dapper;
using Fendrik.Core.Accounts;
using Npgsql;

namespace Fendrik.Data.Sheets;

/// <summary>
/// The outline as one long list: campaign, its negatives, ad group, its keywords, negatives and ads, next ad group …
/// Counts of each ad group place every row; only the rows inside the window are read.
/// </summary>
internal sealed class Outline(NpgsqlConnection connection, int accountId, SheetRequest request)
{
    private static readonly ItemKind[] InsideGroup = [ItemKind.Keyword, ItemKind.NegativeKeyword, ItemKind.TextAd];

    private readonly object _parameters = SheetSql.Parameters(request, accountId);

    /// <summary>A stretch of rows of one kind in one parent.</summary>
    private readonly record struct Stretch(ItemKind Kind, long Parent, long Start, long Count, long Inside);

    public async Task<(long, List<SheetRow>, SheetCounts)> ReadAsync()
    {
        var stretches = await LayOutAsync();
        var total = stretches.Count == 0 ? 0 : stretches[^1].Start + stretches[^1].Count;
        var window = stretches
            .Where(stretch =>
                stretch.Start < request.Offset + request.Limit && stretch.Start + stretch.Count > request.Offset
            )
            .ToArray();
        var rows = new SortedDictionary<long, SheetRow>();
        foreach (var kind in window.Select(stretch => stretch.Kind).Distinct())
        {
            await FillAsync(rows, kind, [.. window.Where(stretch => stretch.Kind == kind)]);
        }

        long Sum(ItemKind kind) => stretches.Where(stretch => stretch.Kind == kind).Sum(stretch => stretch.Count);
        return (
            total,
            [.. rows.Values],
            new SheetCounts(
                Sum(ItemKind.Campaign),
                Sum(ItemKind.AdGroup),
                _inside[ItemKind.Keyword],
                _inside[ItemKind.NegativeKeyword],
                _inside[ItemKind.TextAd]
            )
        );
    }

    private readonly Dictionary<ItemKind, long> _inside = InsideGroup.ToDictionary(kind => kind, _ => 0L);

    private async Task<List<Stretch>> LayOutAsync()
    {
        // Under a filter, parents are shown when they match themselves or have something inside that does.
        var campaigns = (await ParentsAsync(ItemKind.Campaign, "0::bigint")).ToArray();
        var groups = (await ParentsAsync(ItemKind.AdGroup, "i.campaign_id")).ToLookup(group => group.Parent);
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
        var stretches = new List<Stretch>();
        long at = 0;
        void Place(ItemKind kind, long parent, long count, long within = 0)
        {
            if (count > 0)
            {
                stretches.Add(new Stretch(kind, parent, at, count, within));
                at += count;
            }
        }

        var foldedCampaigns = request.FoldedCampaigns.ToHashSet();
        var foldedGroups = request.FoldedAdGroups.ToHashSet();
        foreach (var campaign in campaigns)
        {
            var shown = groups[campaign.Id]
                .Select(group =>
                    (
                        group.Id,
                        group.Matches,
                        Counts: InsideGroup.Select(kind => inside[kind].GetValueOrDefault(group.Id)).ToArray()
                    )
                )
                .Where(group => group.Matches || group.Counts.Sum() > 0)
                .ToArray();
            var own = negatives.GetValueOrDefault(campaign.Id);
            if (!campaign.Matches && shown.Length == 0 && own == 0)
            {
                continue;
            }

            _inside[ItemKind.NegativeKeyword] += own;
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
                    _inside[InsideGroup[kind]] += group.Counts[kind];
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

        return stretches;
    }

    private async Task<IEnumerable<(long Id, long Parent, bool Matches)>> ParentsAsync(ItemKind kind, string parent)
    {
        var all = SheetSql.Where(
            new SheetRequest { CampaignId = request.CampaignId, AdGroupId = request.AdGroupId },
            kind
        );
        var matches = request.IsFiltered ? SheetSql.Where(request, kind) : "true";
        return await connection.QueryAsync<(long, long, bool)>(
            $"select i.id, {parent}, ({matches}) from {Steps.ItemTable.Of(kind).Name} i where {all} order by i.name_key, i.id",
            _parameters
        );
    }

    private async Task<Dictionary<long, long>> CountsAsync(ItemKind kind, string parent, string more = "")
    {
        var counts = await connection.QueryAsync<(long Parent, long Count)>(
            $"select i.{parent}, count(*) from {Steps.ItemTable.Of(kind).Name} i where {SheetSql.Where(request, kind)}{more} and i.{parent} is not null group by i.{parent}",
            _parameters
        );
        return counts.ToDictionary(count => count.Parent, count => count.Count);
    }

    private async Task FillAsync(SortedDictionary<long, SheetRow> rows, ItemKind kind, Stretch[] stretches)
    {
        var (columns, from) = SheetSql.RowOf(kind);
        var byParent = stretches.ToDictionary(stretch => stretch.Parent);
        var parent = kind switch
        {
            ItemKind.Campaign or ItemKind.AdGroup => "i.id",
            ItemKind.NegativeKeyword => "coalesce(i.ad_group_id, -i.campaign_id)",
            _ => "i.ad_group_id",
        };
        var parentMatches =
            kind == ItemKind.NegativeKeyword
                ? "(s.parent > 0 and i.ad_group_id = s.parent or s.parent < 0 and i.campaign_id = -s.parent and i.ad_group_id is null)"
                : $"{parent} = s.parent";
        var where = kind is ItemKind.Campaign or ItemKind.AdGroup ? "true" : SheetSql.Where(request, kind);
        var parameters = new DynamicParameters(_parameters);
        parameters.Add("parents", stretches.Select(stretch => stretch.Parent).ToArray());
        parameters.Add("skips", stretches.Select(stretch => Math.Max(0, request.Offset - stretch.Start)).ToArray());
        parameters.Add(
            "takes",
            stretches
                .Select(stretch => Math.Min(stretch.Count, request.Offset + request.Limit - stretch.Start))
                .ToArray()
        );
        var found = await connection.QueryAsync<SheetRow, long, (SheetRow Row, long Parent)>(
            $"""
            select r.* from unnest(@parents, @skips, @takes) as s(parent, skip, take)
            cross join lateral (
              select {columns}, s.parent as parent from {from} where {parentMatches} and {where}
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
