using Dapper;
using Fendrik.Core.Items.Values;
using Npgsql;

namespace Fendrik.Data.Intakes;

/// <summary>What becomes of a row.</summary>
public enum IntakeOutcome
{
    New = 1,
    Edit = 2,
    Same = 3,

    /// <summary>The list has it twice.</summary>
    Twice = 4,

    /// <summary>It cannot come in, and says why.</summary>
    Refused = 5,
    Removed = 6,

    /// <summary>It asks to change or remove what is not there.</summary>
    NotThere = 7,
}

/// <summary>
/// Says what becomes of each staged row, against the working copy as it is now: first what holds others, then each kind that
/// is in them. The fields come from the descriptions; what a list may ask for is written here.
/// </summary>
internal static class IntakeJudgement
{
    private const string Contradiction = "'the list removes what it belongs to; leave out one of the two rows'";
    private const string OfAccount = "(select account_id from intake where id = @intakeId)";

    public static async Task JudgeAsync(NpgsqlConnection connection, long intakeId, CancellationToken cancellation)
    {
        var isLong = await Staging.IsLongAsync(connection, intakeId, cancellation);
        foreach (var sql in Statements(isLong))
        {
            await RunAsync(connection, sql, intakeId, cancellation);
        }

        foreach (var table in await Staging.LeavesOfAsync(connection, intakeId, isLong, cancellation))
        {
            if (table.Type.IsKnownByContent)
            {
                await RunAsync(connection, Resolve(table), intakeId, cancellation);
                await MergedKeys.WriteAsync(connection, table, intakeId, cancellation);
            }

            await RunAsync(connection, Leaf(table), intakeId, cancellation);
        }
    }

    private static IEnumerable<string> Statements(bool isLong)
    {
        yield return Holder(ItemTable.Of(ItemKind.Campaign));
        yield return Holder(ItemTable.Of(ItemKind.AdGroup));
        yield return Lists();
        if (isLong)
        {
            yield return $"analyze {string.Join(", ", Staging.Holders.Select(Staging.HoldersOf))}";
        }

        yield return """
            delete from intake_verdict where intake_id = @intakeId;
            insert into intake_verdict (intake_id, row_number, kind, outcome)
            select intake_id, row_number, kind, 5 from intake_row where intake_id = @intakeId and problem is not null;
            """;
        yield return Parents();
    }

    private static Task RunAsync(
        NpgsqlConnection connection,
        string sql,
        long intakeId,
        CancellationToken cancellation
    ) =>
        connection.ExecuteAsync(
            new CommandDefinition(sql, new { intakeId }, commandTimeout: 600, cancellationToken: cancellation)
        );

    /// <summary>Campaigns and ad groups that rows name, with what rows say of them: the first that says something holds.</summary>
    private static string Holder(ItemTable holder)
    {
        var level = holder.Type.Holds!.Value;
        var inCampaign = level == Level.AdGroup;
        var (staged, key) = (Staging.HoldersOf(holder), Staging.KeyOf(level));
        Field[] fields = [.. Staging.FieldsOf(holder.Type)];
        // An amount that was filled in by hand stands for what the list leaves open.
        var filled = fields.FirstOrDefault(field => field.Name == (inCampaign ? "maxCpc" : "dailyBudget"));
        var keys = inCampaign ? "campaign_key, " : "";
        var contents = inCampaign
            ? $"""
                count(*) filter (where kind = {(int)ItemKind.Keyword} and intent in (1, 2)) as keywords,
                count(*) filter (where kind = {(int)
                    ItemKind.Keyword} and max_cpc is null and intent in (1, 2)) as keywords_without_max_cpc,
                count(*) filter (where kind = {(int)
                    ItemKind.NegativeKeyword} and intent in (1, 2)) as negatives, count(*) filter (where kind in ({string.Join(", ", ItemTypes.Ads.Select(ad => (int)ad.Kind))}) and intent in (1, 2)) as ads,
                """
            : "";
        var counts = inCampaign ? "keywords, keywords_without_max_cpc, negatives, ads, " : "";
        var first = fields.Select(field =>
        {
            var source = field.IsSaidInside ? Staging.SaidOf(field) : field.Column;
            var mine = field.IsSaidInside ? "" : $" and kind = {holder.Number}";
            var isList = field.Type.Storage is Storage.Texts or Storage.References;
            var value = isList ? $"array_to_string({source}, chr(31))" : source;
            var agg =
                $"(array_agg({value} order by row_number) filter (where {source} is not null{mine} and intent <> 4))[1]";
            var typed = isList
                ? $"case when {agg} is not null then {StorageSql.FromUnnested(field.Type.Storage, agg)} end"
                : agg;
            return $"{typed} as {(field == filled ? "own_" : "")}{field.Column}, ";
        });
        return $"""
            delete from {staged} where intake_id = @intakeId;
            insert into {staged} (intake_id, {keys}name_key, name, first_row, {string.Concat(fields.Select(field => $"{field.Column}, "))}{counts}cleared, item_id, outcome)
            select @intakeId, {(inCampaign ? "r.campaign_key, " : "")}r.name_key, coalesce(i.name, r.name), r.first_row, {string.Concat(fields.Select(field => $"r.{field.Column}, "))}{counts}r.cleared, i.id,
              case {(inCampaign ? "when c.outcome = 7 then 7 when c.outcome = 6 and not r.removed then 5" : "")}
                when i.id is null then case when r.may_add then 1 else 7 end
                when r.removed then 6
                when r.may_change and {NextValue.Differs(holder, "r", "i")} then 2
                else 3 end
            from (
              select asked.*, {(filled is null ? "" : $"coalesce(asked.own_{filled.Column}, f.amount) as {filled.Column}, ")}named.{Staging.NameOf(level)} as name, coalesce(asked.all_cleared, 0) as cleared
              from (
                select {keys}{key} as name_key, min(row_number) as first_row, {string.Concat(first)}{contents}
                  bit_or(intake_row.cleared) filter (where kind = {holder.Number} and intent in (1, 3)) as all_cleared,
                  bool_or(intent in (1, 2)) as may_add, bool_or(intent in (1, 3)) as may_change, bool_or(kind = {holder.Number} and intent = 4) as removed
                from intake_row where intake_id = @intakeId and problem is null and {key} <> '' group by {keys}{key}
              ) asked
              join intake_row named on named.intake_id = @intakeId and named.row_number = asked.first_row
              left join intake_fill f on f.intake_id = @intakeId and f.campaign_key = asked.{(inCampaign ? "campaign_key" : "name_key")} and f.ad_group_key = {(inCampaign ? "asked.name_key" : "''")}
            ) r
            {(inCampaign
                ? $"join {Staging.HoldersOf(ItemTable.Of(ItemKind.Campaign))} c on c.intake_id = @intakeId and c.name_key = r.campaign_key left join {holder.Name} i on i.campaign_id = c.item_id and i.name_key = r.name_key and not i.removed"
                : $"left join {holder.Name} i on i.account_id = {OfAccount} and i.name_key = r.name_key and not i.removed")}
            """;
    }

    /// <summary>Lists that rows name, with the campaigns that are to share them and to share them no longer.</summary>
    private static string Lists()
    {
        var list = ItemTable.Of(ItemKind.NegativeList);
        var campaigns = Staging.HoldersOf(ItemTable.Of(ItemKind.Campaign));
        Field[] fields = [.. Staging.FieldsOf(list.Type)];
        var first = fields.Select(field =>
        {
            var agg =
                $"(array_agg(array_to_string({field.Column}, chr(31)) order by row_number) filter (where kind = {list.Number} and {field.Column} is not null and intent <> 4))[1]";
            return field.Type.Storage == Storage.Texts
                ? $"case when {agg} is not null then {StorageSql.FromUnnested(field.Type.Storage, agg)} end as {field.Column}, "
                : $"(array_agg({field.Column} order by row_number) filter (where kind = {list.Number} and {field.Column} is not null and intent <> 4))[1] as {field.Column}, ";
        });
        var empty = "'{}'";
        return $"""
            delete from {Staging.HoldersOf(list)} where intake_id = @intakeId;
            insert into {Staging.HoldersOf(list)} (intake_id, name_key, name, first_row, {string.Concat(
                fields.Select(field => $"{field.Column}, ")
            )}cleared, attach, detach, item_id, outcome)
            select @intakeId, r.name_key, coalesce(i.name, r.name), r.first_row, {string.Concat(
                fields.Select(field => $"r.{field.Column}, ")
            )}r.cleared, r.attach, r.detach, i.id,
              case when i.id is null then case when r.may_add then 1 else 7 end
                when r.removed then 6
                when r.may_change and {NextValue.Differs(list, "r", "i")}
                  or exists (select from {campaigns} c where c.intake_id = @intakeId and c.name_key = any(r.attach) and c.outcome not in (6, 7)
                    and (c.item_id is null or c.item_id <> all(i.campaign_ids)))
                  or exists (select from {campaigns} c where c.intake_id = @intakeId and c.name_key = any(r.detach) and c.item_id = any(i.campaign_ids)) then 2
                else 3 end
            from (
              select asked.*, named.list as name, coalesce(asked.all_cleared, 0) as cleared,
                coalesce(asked.all_attach, {empty}) as attach, coalesce(asked.all_detach, {empty}) as detach
              from (
                select list_key as name_key, min(row_number) as first_row, {string.Concat(first)}
                  bit_or(intake_row.cleared) filter (where kind = {list.Number} and intent in (1, 3)) as all_cleared,
                  array_agg(distinct campaign_key) filter (where kind = {list.Number} and campaign_key <> '' and intent <> 4) as all_attach,
                  array_agg(distinct campaign_key) filter (where kind = {list.Number} and campaign_key <> '' and intent = 4) as all_detach,
                  bool_or(intent in (1, 2)) as may_add, bool_or(intent in (1, 3) and kind = {list.Number}) as may_change,
                  bool_or(kind = {list.Number} and campaign_key = '' and intent = 4) as removed
                from intake_row where intake_id = @intakeId and problem is null and list_key <> '' group by list_key
              ) asked
              join intake_row named on named.intake_id = @intakeId and named.row_number = asked.first_row
            ) r
            left join {list.Name} i on i.account_id = {OfAccount} and i.name_key = r.name_key and not i.removed
            """;
    }

    /// <summary>The rows that are campaigns, ad groups or lists themselves.</summary>
    private static string Parents()
    {
        var (campaigns, groups, lists) = (
            Staging.HoldersOf(ItemTable.Of(ItemKind.Campaign)),
            Staging.HoldersOf(ItemTable.Of(ItemKind.AdGroup)),
            Staging.HoldersOf(ItemTable.Of(ItemKind.NegativeList))
        );
        return $"""
            with r as materialized (select * from intake_row where intake_id = @intakeId and problem is null and kind in ({(int)
                ItemKind.Campaign}, {(int)ItemKind.AdGroup}))
            insert into intake_verdict (intake_id, row_number, kind, outcome, reason)
            select r.intake_id, r.row_number, r.kind,
              case when coalesce(g.outcome, c.outcome) in (5, 7) then coalesce(g.outcome, c.outcome)
                when r.row_number = coalesce(g.first_row, c.first_row) then coalesce(g.outcome, c.outcome) else 3 end,
              case when g.outcome = 5 then {Contradiction} end
            from r
            join {campaigns} c on c.intake_id = @intakeId and c.name_key = r.campaign_key
            left join {groups} g on g.intake_id = @intakeId and g.campaign_key = r.campaign_key and g.name_key = r.ad_group_key;

            with r as materialized (select * from intake_row where intake_id = @intakeId and problem is null and kind = {(int)
                ItemKind.NegativeList})
            insert into intake_verdict (intake_id, row_number, kind, outcome, reason)
            select r.intake_id, r.row_number, r.kind,
              case when l.outcome = 7 or c.outcome = 7 then 7
                when l.outcome = 6 then case when r.intent = 4 then 6 else 5 end
                when r.campaign_key <> '' and r.intent = 4 then case when c.item_id = any(n.campaign_ids) then 2 else 7 end
                when c.outcome = 6 then 5
                when l.outcome = 1 then 1
                when r.campaign_key <> '' then case when c.item_id = any(n.campaign_ids) then 3 else 2 end
                when r.row_number = l.first_row then l.outcome else 3 end,
              case when (l.outcome = 6 or c.outcome = 6) and r.intent <> 4 then {Contradiction} end
            from r
            join {lists} l on l.intake_id = @intakeId and l.name_key = r.list_key
            left join negative_list n on n.id = l.item_id
            left join {campaigns} c on c.intake_id = @intakeId and c.name_key = r.campaign_key;
            """;
    }

    /// <summary>The rows of one kind that holds nothing.</summary>
    private static string Leaf(ItemTable table)
    {
        var places = table.Type.Levels.Contains(Level.List)
            ? "campaign_key, ad_group_key, list_key"
            : "campaign_key, ad_group_key";
        var others = table.Type.IsKnownByContent
            ? []
            : table
                .Type.Fields.Where(field => field is { IsIdentity: true, KeyColumn: null })
                .Select(field => field.Column)
                .ToArray();
        var partition = string.Join(", ", new[] { places, "item_key" }.Concat(others));
        var byReference = table.Type.IsKnownByContent
            ? "least(min(row_number) over (partition by "
                + partition
                + "), min(row_number) over (partition by coalesce(resolved, -row_number)))"
            : $"min(row_number) over (partition by {partition})";
        var same = table.Type.IsKnownByContent
            ? "(r.resolved is null and i.content_key = r.item_key or i.id = r.resolved)"
            : table.SameIdentity(
                column => $"i.{column}",
                column => column.EndsWith("_key", StringComparison.Ordinal) ? "r.item_key" : $"r.{column}"
            );
        var clash = table.Type.IsKnownByContent
            ? $"exists (select from {table.Name} t where r.resolved is not null and {table.SamePlace("t", "i")} and t.content_key = r.item_key and t.id <> i.id and not t.removed)"
            : "false";
        var reason =
            $"case when r.twin_row = r.row_number and r.intent <> 4 and p.outcome in (5, 6) then {Contradiction} when r.twin_row = r.row_number and r.intent <> 4 and {clash} then 'another says the very same already' {(table.Type.ComesAndGoes ? "" : $"when r.intent = 4 then 'the {table.Type.Noun} cannot be removed'")} end";
        return $"""
            insert into intake_verdict (intake_id, row_number, kind, outcome, twin_row, item_id, reason)
            select @intakeId, r.row_number, r.kind,
              case when r.twin_row < r.row_number then 4
                when p.outcome = 7 then 7
                {(table.Type.ComesAndGoes ? "" : "when r.intent = 4 then 5")}
                when r.intent = 4 then case when i.id is null then 7 else 6 end
                when p.outcome in (5, 6) then 5
                when i.id is null then case when r.intent = 3 then 7 else 1 end
                when {clash} then 5
                when r.intent <> 2 and {NextValue.Differs(table, "r", "i")} then 2
                else 3 end,
              case when r.twin_row < r.row_number then r.twin_row end, i.id, {reason}
            from (select *, {byReference} as twin_row from intake_row where intake_id = @intakeId and problem is null and kind = {table.Number}) r
            {PlaceOf(table)}
            left join {table.Name} i on {StandsIn(table)}{(same.Length > 0 ? $" and {same}" : "")} and not i.removed
            """;
    }

    /// <summary>What becomes of what a row is in, as <c>p</c>.</summary>
    private static string PlaceOf(ItemTable table)
    {
        string Join(Level level) =>
            $"left join {Staging.HoldersOf(ItemTable.Of(ItemTypes.HolderOf(level)!.Kind))} {level.ToString().ToLowerInvariant()}s on {level.ToString().ToLowerInvariant()}s.intake_id = @intakeId and {(level == Level.AdGroup ? "adgroups.campaign_key = r.campaign_key and " : "")}{level.ToString().ToLowerInvariant()}s.name_key = r.{Staging.KeyOf(level)}";
        if (!table.HasLevels)
        {
            return table.Parents.Count == 0
                ? "cross join (select null::smallint as outcome) p"
                : $"left join {Staging.HoldersOf(ItemTable.Of(table.Parents[0].Holder.Kind))} p on p.intake_id = @intakeId and {(table.Parents[0].Level == Level.AdGroup ? "p.campaign_key = r.campaign_key and " : "")}p.name_key = r.{Staging.KeyOf(table.Parents[0].Level)}";
        }

        var levels = table.Parents.Select(parent => parent.Level).ToArray();
        string Id(Level level) =>
            levels.Contains(level) ? $"{level.ToString().ToLowerInvariant()}s.item_id" : "null::bigint";
        string Outcome(Level level) =>
            levels.Contains(level) ? $"{level.ToString().ToLowerInvariant()}s.outcome" : "null::smallint";
        return $"""
            left join lateral (
              select coalesce({Outcome(Level.List)}, {Outcome(Level.AdGroup)}, {Outcome(
                Level.Campaign
            )}) as outcome, {Id(Level.Campaign)} as campaign_id, {Id(Level.AdGroup)} as ad_group_id, {Id(
                Level.List
            )} as list_id,
                case {(
                levels.Contains(Level.List) ? $"when r.list_key <> '' then {Id(Level.List)} is not null" : ""
            )} when r.ad_group_key <> '' then {Id(Level.AdGroup)} is not null when r.campaign_key <> '' then {Id(
                Level.Campaign
            )} is not null else true end as stands
              from (select) one {string.Join(' ', levels.Select(Join))}
            ) p on true
            """;
    }

    private static string StandsIn(ItemTable table) =>
        table.HasLevels
            ? $"p.stands and i.account_id = {OfAccount} and {string.Join(" and ", table.Parents.Select(parent => $"coalesce(i.{parent.Column}, 0) = coalesce(p.{parent.Column}, 0)"))}"
        : table.Parents.Count == 0 ? $"i.account_id = {OfAccount}"
        : $"i.{table.Parents[0].Column} = p.item_id";

    /// <summary>Finds the items that rows refer to by number, where those are in the place that the row names.</summary>
    private static string Resolve(ItemTable table) =>
        $"""
            update intake_row set resolved = null where intake_id = @intakeId and kind = {table.Number} and resolved is not null;
            update intake_row u set resolved = i.id from intake_row r {PlaceOf(table)} join {table.Name} i on {StandsIn(
                table
            )} and not i.removed
            where u.intake_id = @intakeId and r.intake_id = @intakeId and u.row_number = r.row_number and u.kind = {table.Number} and r.kind = {table.Number}
              and r.problem is null and r.reference = i.id and i.account_id = {OfAccount}
            """;
}
