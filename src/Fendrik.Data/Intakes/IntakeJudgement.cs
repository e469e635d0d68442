using Dapper;
using Npgsql;

namespace Fendrik.Data.Intakes;

/// <summary>What becomes of a row.</summary>
public enum IntakeOutcome
{
    /// <summary>Makes an item.</summary>
    New = 1,

    /// <summary>Changes an item that is there.</summary>
    Edit = 2,

    /// <summary>Is there already, just so.</summary>
    Same = 3,

    /// <summary>Comes twice in the list; the first stays.</summary>
    Twice = 4,

    /// <summary>Cannot come in.</summary>
    Refused = 5,

    /// <summary>Takes an item away.</summary>
    Removed = 6,

    /// <summary>Asks to change or remove what is not there.</summary>
    NotThere = 7,
}

/// <summary>
/// Judges staged rows against the working copy: which campaigns, ad groups and lists they ask for, and what becomes of
/// each row. Set-based: a handful of statements for any number of rows.
/// </summary>
internal static class IntakeJudgement
{
    private static readonly string Campaigns = $"""
        delete from intake_campaign where intake_id = @intakeId;
        insert into intake_campaign (intake_id, name_key, name, first_row, daily_budget, start_date, end_date, networks, state, labels, cleared, campaign_id, outcome)
        select @intakeId, r.name_key, coalesce(c.name, r.name), r.first_row, r.daily_budget, r.start_date, r.end_date, r.networks, r.state, r.labels, r.cleared, c.id,
          case when c.id is null then case when r.may_add then 1 else 7 end
            when r.removed then 6
            when r.may_change and ({NextValue.OfCampaign("r", "c")}) is distinct from ({NextValue.Columns(
            "c",
            NextValue.CampaignColumns
        )}) then 2
            else 3 end
        from (
          select asked.*, coalesce(asked.own_budget, f.amount) as daily_budget, named.campaign as name, coalesce(asked.all_cleared, 0) as cleared
          from (
            select campaign_key as name_key, min(row_number) as first_row,
              (array_agg(daily_budget order by row_number) filter (where daily_budget is not null and intent <> 4))[1] as own_budget,
              (array_agg(start_date order by row_number) filter (where start_date is not null and intent <> 4))[1] as start_date,
              (array_agg(end_date order by row_number) filter (where end_date is not null and intent <> 4))[1] as end_date,
              (array_agg(networks order by row_number) filter (where networks is not null and intent <> 4))[1] as networks,
              (array_agg(state order by row_number) filter (where kind = 1 and state is not null and intent <> 4))[1] as state,
              (array_agg(labels order by row_number) filter (where kind = 1 and labels is not null and intent <> 4))[1] as labels,
              bit_or(cleared) filter (where kind = 1 and intent in (1, 3)) as all_cleared,
              bool_or(intent in (1, 2)) as may_add, bool_or(intent in (1, 3)) as may_change, bool_or(kind = 1 and intent = 4) as removed
            from intake_row where intake_id = @intakeId and problem is null and campaign_key <> '' group by campaign_key
          ) asked
          join intake_row named on named.intake_id = @intakeId and named.row_number = asked.first_row
          left join intake_fill f on f.intake_id = @intakeId and f.campaign_key = asked.name_key and f.ad_group_key = ''
        ) r
        left join campaign c on c.account_id = (select account_id from intake where id = @intakeId) and c.name_key = r.name_key and not c.removed
        """;

    private static readonly string AdGroups = $"""
        delete from intake_ad_group where intake_id = @intakeId;
        insert into intake_ad_group (intake_id, campaign_key, name_key, name, first_row, max_cpc, state, labels, cleared, ad_group_id, keywords, keywords_without_max_cpc, negatives, ads, outcome)
        select @intakeId, r.campaign_key, r.name_key, coalesce(g.name, r.name), r.first_row, r.max_cpc, r.state, r.labels, r.cleared, g.id,
          r.keywords, r.keywords_without_max_cpc, r.negatives, r.ads,
          case when c.outcome = 7 then 7
            when c.outcome = 6 and not r.removed then 5
            when g.id is null then case when r.may_add then 1 else 7 end
            when r.removed then 6
            when r.may_change and ({NextValue.OfAdGroup("r", "g")}) is distinct from ({NextValue.Columns(
            "g",
            NextValue.AdGroupColumns
        )}) then 2
            else 3 end
        from (
          select asked.*, coalesce(asked.own_max_cpc, f.amount) as max_cpc, named.ad_group as name, coalesce(asked.all_cleared, 0) as cleared
          from (
            select campaign_key, ad_group_key as name_key, min(row_number) as first_row,
              (array_agg(ad_group_max_cpc order by row_number) filter (where ad_group_max_cpc is not null and intent <> 4))[1] as own_max_cpc,
              (array_agg(state order by row_number) filter (where kind = 2 and state is not null and intent <> 4))[1] as state,
              (array_agg(labels order by row_number) filter (where kind = 2 and labels is not null and intent <> 4))[1] as labels,
              bit_or(cleared) filter (where kind = 2 and intent in (1, 3)) as all_cleared,
              bool_or(intent in (1, 2)) as may_add, bool_or(intent in (1, 3)) as may_change, bool_or(kind = 2 and intent = 4) as removed,
              count(*) filter (where kind = 3 and intent in (1, 2)) as keywords,
              count(*) filter (where kind = 3 and max_cpc is null and intent in (1, 2)) as keywords_without_max_cpc,
              count(*) filter (where kind = 4 and intent in (1, 2)) as negatives, count(*) filter (where kind = 5 and intent in (1, 2)) as ads
            from intake_row where intake_id = @intakeId and problem is null and ad_group_key <> '' group by campaign_key, ad_group_key
          ) asked
          join intake_row named on named.intake_id = @intakeId and named.row_number = asked.first_row
          left join intake_fill f on f.intake_id = @intakeId and f.campaign_key = asked.campaign_key and f.ad_group_key = asked.name_key
        ) r
        join intake_campaign c on c.intake_id = @intakeId and c.name_key = r.campaign_key
        left join ad_group g on g.campaign_id = c.campaign_id and g.name_key = r.name_key and not g.removed
        """;

    private static readonly string Lists = $$"""
        delete from intake_list where intake_id = @intakeId;
        insert into intake_list (intake_id, name_key, name, first_row, labels, cleared, attach, detach, list_id, outcome)
        select @intakeId, r.name_key, coalesce(l.name, r.name), r.first_row, r.labels, r.cleared, r.attach, r.detach, l.id,
          case when l.id is null then case when r.may_add then 1 else 7 end
            when r.removed then 6
            when r.may_change and {{NextValue.Labels("r", "l")}} is distinct from l.labels
              or exists (select from intake_campaign c where c.intake_id = @intakeId and c.name_key = any(r.attach) and c.outcome not in (6, 7)
                and (c.campaign_id is null or c.campaign_id <> all(l.campaign_ids)))
              or exists (select from intake_campaign c where c.intake_id = @intakeId and c.name_key = any(r.detach) and c.campaign_id = any(l.campaign_ids)) then 2
            else 3 end
        from (
          select asked.*, named.list as name, coalesce(asked.all_cleared, 0) as cleared,
            coalesce(asked.all_attach, '{}') as attach, coalesce(asked.all_detach, '{}') as detach
          from (
            select list_key as name_key, min(row_number) as first_row,
              (array_agg(labels order by row_number) filter (where kind = 6 and labels is not null and intent <> 4))[1] as labels,
              bit_or(cleared) filter (where kind = 6 and intent in (1, 3)) as all_cleared,
              array_agg(distinct campaign_key) filter (where kind = 6 and campaign_key <> '' and intent <> 4) as all_attach,
              array_agg(distinct campaign_key) filter (where kind = 6 and campaign_key <> '' and intent = 4) as all_detach,
              bool_or(intent in (1, 2)) as may_add, bool_or(intent in (1, 3) and kind = 6) as may_change,
              bool_or(kind = 6 and campaign_key = '' and intent = 4) as removed
            from intake_row where intake_id = @intakeId and problem is null and list_key <> '' group by list_key
          ) asked
          join intake_row named on named.intake_id = @intakeId and named.row_number = asked.first_row
        ) r
        left join negative_list l on l.account_id = (select account_id from intake where id = @intakeId) and l.name_key = r.name_key and not l.removed
        """;

    private const string Wrong = """
        analyze intake_campaign, intake_ad_group, intake_list;
        delete from intake_verdict where intake_id = @intakeId;
        insert into intake_verdict (intake_id, row_number, kind, outcome)
        select intake_id, row_number, kind, 5 from intake_row where intake_id = @intakeId and problem is not null;
        """;

    /// <summary>Rows that are campaigns, ad groups or lists themselves: the first tells what becomes of the item.</summary>
    /// <remarks>They are few among many, and so are found once and joined then.</remarks>
    private const string Parents = $"""
        with r as materialized (select * from intake_row where intake_id = @intakeId and problem is null and kind in (1, 2))
        insert into intake_verdict (intake_id, row_number, kind, outcome, reason)
        select r.intake_id, r.row_number, r.kind,
          case when coalesce(g.outcome, c.outcome) in (5, 7) then coalesce(g.outcome, c.outcome)
            when r.row_number = coalesce(g.first_row, c.first_row) then coalesce(g.outcome, c.outcome) else 3 end,
          case when g.outcome = 5 then {Contradiction} end
        from r
        join intake_campaign c on c.intake_id = @intakeId and c.name_key = r.campaign_key
        left join intake_ad_group g on g.intake_id = @intakeId and g.campaign_key = r.campaign_key and g.name_key = r.ad_group_key;

        with r as materialized (select * from intake_row where intake_id = @intakeId and problem is null and kind = 6)
        insert into intake_verdict (intake_id, row_number, kind, outcome, reason)
        select r.intake_id, r.row_number, r.kind,
          case when l.outcome = 7 or c.outcome = 7 then 7
            when l.outcome = 6 then case when r.intent = 4 then 6 else 5 end
            when r.campaign_key <> '' and r.intent = 4 then case when c.campaign_id = any(n.campaign_ids) then 2 else 7 end
            when c.outcome = 6 then 5
            when l.outcome = 1 then 1
            when r.campaign_key <> '' then case when c.campaign_id = any(n.campaign_ids) then 3 else 2 end
            when r.row_number = l.first_row then l.outcome else 3 end,
          case when (l.outcome = 6 or c.outcome = 6) and r.intent <> 4 then {Contradiction} end
        from r
        join intake_list l on l.intake_id = @intakeId and l.name_key = r.list_key
        left join negative_list n on n.id = l.list_id
        left join intake_campaign c on c.intake_id = @intakeId and c.name_key = r.campaign_key;
        """;

    private static readonly string Keywords = $"""
        insert into intake_verdict (intake_id, row_number, kind, outcome, twin_row, item_id, reason)
        select @intakeId, r.row_number, r.kind,
          {Outcome(
            "k",
            $"({NextValue.OfKeyword("r", "k")}) is distinct from ({NextValue.Columns("k", NextValue.KeywordColumns)})",
            "g"
        )},
          {Rest("k", "g")}
        from {Twins(3, "campaign_key, ad_group_key, item_key, match_type")}
        left join intake_ad_group g on g.intake_id = @intakeId and g.campaign_key = r.campaign_key and g.name_key = r.ad_group_key
        left join keyword k on k.ad_group_id = g.ad_group_id and k.text_key = r.item_key and k.match_type = r.match_type and not k.removed;
        """;

    private static readonly string Negatives = $"""
        insert into intake_verdict (intake_id, row_number, kind, outcome, twin_row, item_id, reason)
        select @intakeId, r.row_number, r.kind,
          {Outcome("n", $"{NextValue.Labels("r", "n")} is distinct from n.labels", "p")},
          {Rest("n", "p")}
        from {Twins(4, "campaign_key, ad_group_key, list_key, item_key, match_type")}
        left join lateral (
          select coalesce(l.outcome, g.outcome, c.outcome) as outcome, c.campaign_id, g.ad_group_id, l.list_id,
            case when r.list_key <> '' then l.list_id is not null when r.ad_group_key <> '' then g.ad_group_id is not null else c.campaign_id is not null end as stands
          from (select) one
          left join intake_campaign c on c.intake_id = @intakeId and c.name_key = r.campaign_key
          left join intake_ad_group g on g.intake_id = @intakeId and g.campaign_key = r.campaign_key and g.name_key = r.ad_group_key
          left join intake_list l on l.intake_id = @intakeId and l.name_key = r.list_key
        ) p on true
        left join negative_keyword n on p.stands and coalesce(n.campaign_id, 0) = coalesce(p.campaign_id, 0)
          and coalesce(n.ad_group_id, 0) = coalesce(p.ad_group_id, 0) and coalesce(n.list_id, 0) = coalesce(p.list_id, 0)
          and n.text_key = r.item_key and n.match_type = r.match_type and not n.removed;
        """;

    private static readonly string Ads = $"""
        insert into intake_verdict (intake_id, row_number, kind, outcome, twin_row, item_id, reason)
        select @intakeId, r.row_number, r.kind,
          {Outcome(
            "a",
            $"({NextValue.OfAd("r", "a")}) is distinct from ({NextValue.Columns("a", NextValue.AdColumns)})",
            "g"
        )},
          {Rest("a", "g")}
        from {Twins(5, "campaign_key, ad_group_key, item_key")}
        left join intake_ad_group g on g.intake_id = @intakeId and g.campaign_key = r.campaign_key and g.name_key = r.ad_group_key
        left join text_ad a on a.ad_group_id = g.ad_group_id and a.content_key = r.item_key and not a.removed
        """;

    private const string Contradiction = "'the list removes what it belongs to; leave out one of the two rows'";

    /// <summary>Judges in the connection's transaction.</summary>
    public static async Task JudgeAsync(NpgsqlConnection connection, long intakeId, CancellationToken cancellation)
    {
        foreach (var sql in new[] { Campaigns, AdGroups, Lists, Wrong, Parents, Keywords, Negatives, Ads })
        {
            await connection.ExecuteAsync(
                new CommandDefinition(sql, new { intakeId }, commandTimeout: 600, cancellationToken: cancellation)
            );
        }
    }

    /// <summary>The rows of a kind, each with the first that says the same.</summary>
    private static string Twins(int kind, string identity) =>
        $"""
            (select *, min(row_number) over (partition by {identity}) as twin_row
              from intake_row where intake_id = @intakeId and problem is null and kind = {kind}) r
            """;

    private static string Outcome(string item, string differs, string parent) =>
        $"""
            case when r.twin_row < r.row_number then 4
              when {parent}.outcome = 7 then 7
              when r.intent = 4 then case when {item}.id is null then 7 else 6 end
              when {parent}.outcome in (5, 6) then 5
              when {item}.id is null then case when r.intent = 3 then 7 else 1 end
              when r.intent <> 2 and {differs} then 2
              else 3 end
            """;

    private static string Rest(string item, string parent) =>
        $"""
            case when r.twin_row < r.row_number then r.twin_row end, {item}.id,
            case when r.twin_row = r.row_number and r.intent <> 4 and {parent}.outcome in (5, 6) then {Contradiction} end
            """;
}
