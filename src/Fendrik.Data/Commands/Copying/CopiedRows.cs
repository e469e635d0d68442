using Dapper;
using Fendrik.Core.Bidding;
using Fendrik.Core.Changes;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Commands;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands.Copying;

/// <summary>
/// Makes copies kind by kind, parents before what is in them. A temporary table for each kind pairs originals with their
/// new identities and places; what is inside a copied parent is copied into the copy.
/// </summary>
internal sealed class CopiedRows(
    StepContext context,
    CopyPlace place,
    CopyEdits edits,
    IReadOnlyList<TextEdit> replacements,
    IReadOnlyList<long>? onlyAdGroups = null
)
{
    private readonly HashSet<ItemKind> _begun = [];
    private readonly object _parameters = new
    {
        account = context.Account.Id,
        campaigns = place.CampaignIds.ToArray(),
        groups = place.AdGroupIds.ToArray(),
        only = onlyAdGroups?.ToArray(),
    };

    /// <summary>The table that pairs originals with their copies while a step is at work.</summary>
    private static string PairsOf(ItemTable table) => $"copy_{table.Name}";

    /// <summary>Copies what is to be copied of one kind.</summary>
    public async Task<int> MakeAsync(ItemTable table)
    {
        var rows = await BeginAsync(table);
        _begun.Add(table.Kind);
        context.Copied.Add(table.Kind, PairsOf(table));
        if (rows == 0)
        {
            return 0;
        }

        var said = FieldInputs.Read(
            table.Type,
            edits.Set.Where(each => table.Type.Find(each.Key) is not null).ToDictionary(),
            context.Account.Ground
        );
        var texts = new CopiedTexts(context, table, edits, replacements, said);
        await texts.MakeAsync();
        await RefuseTwinsAsync(table, texts);
        var parameters = new DynamicParameters(_parameters);
        texts.AddParameters(parameters);
        var made = await context.ExecuteAsync(
            table.InsertFrom(
                $"from {PairsOf(table)} e join {table.Name} i on i.id = e.source_id {texts.Join} {HolderJoin(table)} order by e.new_id",
                "i",
                [
                    ("id", "e.new_id"),
                    ("account_id", "@account"),
                    .. table.Parents.Select(parent => (parent.Column, $"e.{parent.Column}")),
                    .. texts.Overrides,
                    .. Bids(table, parameters, said),
                ]
            ),
            parameters
        );
        return made + await ReferAsync(table);
    }

    /// <summary>Lists that hold for a copied campaign hold for its copy.</summary>
    private async Task<int> ReferAsync(ItemTable table)
    {
        var changed = 0;
        foreach (
            var (list, field) in ItemTable.All.SelectMany(each =>
                each.Type.Fields.Where(field => field.Type is ReferencesValue references && references.To == table.Kind)
                    .Select(field => (each, field))
            )
        )
        {
            var column = $"i.{field.Column}";
            changed += await context.ExecuteAsync(
                $"""
                update {list.Name} i set {field.Column} = array(select unnest({column}) union select e.new_id from {PairsOf(
                    table
                )} e where e.source_id = any({column}) order by 1), {list.KeepLive}
                where i.account_id = @account and not i.removed and exists (select from {PairsOf(
                    table
                )} e where e.source_id = any({column}))
                """,
                _parameters
            );
        }

        return changed;
    }

    private async Task<int> BeginAsync(ItemTable table)
    {
        await context.ExecuteAsync(
            $"""
            create temp table {PairsOf(
                table
            )} (source_id bigint not null, campaign_id bigint, ad_group_id bigint, list_id bigint, chosen boolean not null,
              new_id bigint not null default nextval(pg_get_serial_sequence('{table.Name}', 'id'))) on commit drop
            """
        );
        var rows = 0;
        foreach (var originals in InsideCopies(table).Concat(Chosen(table)))
        {
            rows += await context.ExecuteAsync(
                $"insert into {PairsOf(table)} (source_id, campaign_id, ad_group_id, list_id, chosen) {originals}",
                _parameters
            );
            if (rows > CopyItems.MostCopies)
            {
                throw new InvalidChangeException(
                    "items",
                    $"This would make {rows:N0} copies; {CopyItems.MostCopies:N0} at most. Do it in parts."
                );
            }
        }

        await context.ExecuteAsync($"create index on {PairsOf(table)} (source_id); analyze {PairsOf(table)}");
        return rows;
    }

    /// <summary>What is in a copied parent, once for each copy of it.</summary>
    private IEnumerable<string> InsideCopies(ItemTable table)
    {
        foreach (var parent in table.Parents.Where(parent => _begun.Contains(parent.Holder.Kind)))
        {
            var own = parent.Level switch
            {
                Level.Campaign => ("e.new_id", "null::bigint", "null::bigint"),
                Level.AdGroup => ("e.campaign_id", "e.new_id", "null"),
                Level.List => ("null::bigint", "null::bigint", "e.new_id"),
                Level.Account => throw new InvalidOperationException("Nothing has the account as a parent row."),
            };
            // What stands deeper than this parent is found by the deeper one.
            var here =
                parent.Level == Level.Campaign && table.Parents.Any(each => each.Level == Level.AdGroup)
                    ? " and i.ad_group_id is null"
                : table.Kind == ItemKind.AdGroup && onlyAdGroups is not null ? " and i.id = any(@only)"
                : "";
            yield return $"""
                select i.id, {own.Item1}, {own.Item2}, {own.Item3}, false from copy_{parent.Holder.Table} e
                join {table.Name} i on i.{parent.Column} = e.source_id and not i.removed{here}
                """;
        }
    }

    /// <summary>What was chosen itself and is not in a copied parent anyway, once for each place that suits it.</summary>
    private IEnumerable<string> Chosen(ItemTable table)
    {
        var selected =
            $"{table.Name} i where i.account_id = @account and not i.removed and i.id in (select s.id from selected s where s.kind = {table.Number}) and i.id not in (select source_id from {PairsOf(table)})";
        string Column(Level level) =>
            table.Parents.FirstOrDefault(parent => parent.Level == level) is { } parent
                ? $"i.{parent.Column}"
                : "null::bigint";
        var same = $"{Column(Level.Campaign)}, {Column(Level.AdGroup)}, {Column(Level.List)}";
        if (
            place.IsInPlace
            || table.Parents.Count == 0
            || (table.Kind == ItemKind.AdGroup && place.CampaignIds.Count == 0)
        )
        {
            yield return $"select i.id, {same}, true from {selected}";
            yield break;
        }

        if (table.Type.StandsIn(Level.Campaign))
        {
            // What stands in an ad group goes into ad groups; all else onto campaigns, or into ad groups when only those are named.
            var above = table.Type.StandsIn(Level.AdGroup) ? " and i.ad_group_id is null" : "";
            yield return $"""
                select i.id, c.id, null::bigint, null::bigint, true from campaign c, {selected}{above}
                  and c.account_id = @account and c.id = any(@campaigns) and not c.removed
                """;
            if (table.Type.StandsIn(Level.AdGroup) && place.CampaignIds.Count == 0)
            {
                yield return $"""
                    select i.id, t.campaign_id, t.id, null::bigint, true from ad_group t, {selected}{above}
                      and t.account_id = @account and t.id = any(@groups) and not t.removed
                    """;
            }
        }

        if (table.Type.StandsIn(Level.AdGroup))
        {
            yield return $"""
                select i.id, t.campaign_id, t.id, null::bigint, true from ad_group t, {selected} and i.ad_group_id is not null
                  and t.account_id = @account and not t.removed and (t.id = any(@groups) or t.campaign_id = any(@campaigns))
                """;
        }
    }

    private async Task RefuseTwinsAsync(ItemTable table, CopiedTexts texts)
    {
        string Next(string column) => texts.Next(column);
        var place =
            table.HasLevels
                ? $"{(table.Type.StandsIn(Level.Account) ? "t.account_id = @account and " : "")}({string.Join(", ", table.Parents.Select(parent => $"coalesce(t.{parent.Column}, 0)"))}) = ({string.Join(", ", table.Parents.Select(parent => $"coalesce(e.{parent.Column}, 0)"))})"
            : table.Parents.Count == 0 ? "t.account_id = @account"
            : $"t.{table.Parents[0].Column} = e.{table.Parents[0].Column}";
        var parameters = new DynamicParameters(_parameters);
        texts.AddParameters(parameters);
        await context.ExecuteAsync(
            $"""
            create temp table twin_{table.Name} on commit drop as
            select e.new_id, e.source_id from {PairsOf(table)} e join {table.Name} i on i.id = e.source_id {texts.Join}
            where exists (select from {table.Name} t where {place} and {table.SameIdentity(column => $"t.{column}", Next)} and not t.removed)
            union
            select new_id, source_id from (
              select e.new_id, e.source_id, row_number() over (partition by e.campaign_id, e.ad_group_id, e.list_id, {string.Join(
                ", ",
                table.IdentityColumns.Select(Next)
            )} order by e.new_id) as place
              from {PairsOf(table)} e join {table.Name} i on i.id = e.source_id {texts.Join}) numbered where place > 1
            """,
            parameters
        );
        await context.RefuseAsync(
            table,
            $"i.id in (select source_id from twin_{table.Name})",
            $"{table.Type.TwinProblem.TrimEnd('.')}; change something on the way.",
            null
        );
        await context.ExecuteAsync(
            $"delete from {PairsOf(table)} e using twin_{table.Name} w where w.new_id = e.new_id; analyze {PairsOf(table)}"
        );
    }

    /// <summary>Bids times the factor. What inherits goes on inheriting from a copied parent, and gets a bid of its own elsewhere.</summary>
    private IEnumerable<(string, string)> Bids(
        ItemTable table,
        DynamicParameters parameters,
        Dictionary<Field, object?> said
    )
    {
        if (edits.BidFactor is not { } factor || table.Type.Find("maxCpc") is not { } bid || said.ContainsKey(bid))
        {
            yield break;
        }

        var change = new BidChange(AmountOperation.AddPercent, (factor - 1) * 100);
        AmountChanges.AddParameters(parameters, bid, change, context.Account);
        yield return (
            bid.Column,
            bid.InheritedFrom is null
                ? AmountChanges.Next(bid, change, $"i.{bid.Column}")
                : $"case when i.{bid.Column} is null and e.ad_group_id in (select new_id from copy_ad_group) then null else {AmountChanges.Next(bid, change, $"coalesce(i.{bid.Column}, h.{bid.Column})")} end"
        );
    }

    private string HolderJoin(ItemTable table) =>
        edits.BidFactor is not null && table.Type.Find("maxCpc") is { InheritedFrom: { } holder }
            ? $"join {ItemTable.Of(holder).Name} h on h.id = i.{table.Parents.First(parent => parent.Holder.Kind == holder).Column}"
            : "";
}
