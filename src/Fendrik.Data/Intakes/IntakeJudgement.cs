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
}

/// <summary>
/// Judges staged rows against the working copy: which campaigns and ad groups they ask for, and what becomes of each
/// row. Set-based: a handful of statements for any number of rows.
/// </summary>
internal static class IntakeJudgement
{
    private const string Campaigns = """
        delete from intake_campaign where intake_id = @intakeId;
        insert into intake_campaign
        select @intakeId, asked.name_key, coalesce(c.name, asked.name), asked.first_row, coalesce(asked.daily_budget, f.amount),
          asked.start_date, asked.end_date, asked.networks, asked.state, c.id,
          case when c.id is null then 1
            when (coalesce(asked.daily_budget, f.amount, c.daily_budget), coalesce(asked.start_date, c.start_date), coalesce(asked.end_date, c.end_date),
              coalesce(asked.networks, c.networks), coalesce(asked.state, c.state))
              is distinct from (c.daily_budget, c.start_date, c.end_date, c.networks, c.state) then 2
            else 3 end
        from (
          select campaign_key as name_key, (array_agg(campaign order by row_number))[1] as name, min(row_number) as first_row,
            (array_agg(daily_budget order by row_number) filter (where daily_budget is not null))[1] as daily_budget,
            (array_agg(start_date order by row_number) filter (where start_date is not null))[1] as start_date,
            (array_agg(end_date order by row_number) filter (where end_date is not null))[1] as end_date,
            (array_agg(networks order by row_number) filter (where networks is not null))[1] as networks,
            (array_agg(state order by row_number) filter (where kind = 1 and state is not null))[1] as state
          from intake_row where intake_id = @intakeId and problem is null group by campaign_key
        ) asked
        left join campaign c on c.account_id = (select account_id from intake where id = @intakeId) and c.name_key = asked.name_key and not c.removed
        left join intake_fill f on f.intake_id = @intakeId and f.campaign_key = asked.name_key and f.ad_group_key = ''
        """;

    private const string AdGroups = """
        delete from intake_ad_group where intake_id = @intakeId;
        insert into intake_ad_group
        select @intakeId, asked.campaign_key, asked.name_key, coalesce(g.name, asked.name), asked.first_row, coalesce(asked.max_cpc, f.amount),
          asked.state, g.id, asked.keywords, asked.keywords_without_max_cpc, asked.negatives, asked.ads,
          case when g.id is null then 1
            when (coalesce(asked.max_cpc, f.amount, g.max_cpc), coalesce(asked.state, g.state)) is distinct from (g.max_cpc, g.state) then 2
            else 3 end
        from (
          select campaign_key, ad_group_key as name_key, (array_agg(ad_group order by row_number))[1] as name, min(row_number) as first_row,
            (array_agg(ad_group_max_cpc order by row_number) filter (where ad_group_max_cpc is not null))[1] as max_cpc,
            (array_agg(state order by row_number) filter (where kind = 2 and state is not null))[1] as state,
            count(*) filter (where kind = 3) as keywords,
            count(*) filter (where kind = 3 and max_cpc is null) as keywords_without_max_cpc,
            count(*) filter (where kind = 4) as negatives, count(*) filter (where kind = 5) as ads
          from intake_row where intake_id = @intakeId and problem is null and ad_group_key <> '' group by campaign_key, ad_group_key
        ) asked
        join intake_campaign c on c.intake_id = @intakeId and c.name_key = asked.campaign_key
        left join ad_group g on g.campaign_id = c.campaign_id and g.name_key = asked.name_key and not g.removed
        left join intake_fill f on f.intake_id = @intakeId and f.campaign_key = asked.campaign_key and f.ad_group_key = asked.name_key
        """;

    private const string Rows = """
        delete from intake_verdict where intake_id = @intakeId;

        insert into intake_verdict (intake_id, row_number, kind, outcome)
        select intake_id, row_number, kind, 5 from intake_row where intake_id = @intakeId and problem is not null;

        insert into intake_verdict (intake_id, row_number, kind, outcome)
        select r.intake_id, r.row_number, r.kind, case when r.row_number = coalesce(g.first_row, c.first_row) then coalesce(g.outcome, c.outcome) else 3 end
        from intake_row r
        join intake_campaign c on c.intake_id = @intakeId and c.name_key = r.campaign_key
        left join intake_ad_group g on g.intake_id = @intakeId and g.campaign_key = r.campaign_key and g.name_key = r.ad_group_key
        where r.intake_id = @intakeId and r.problem is null and r.kind in (1, 2);

        insert into intake_verdict (intake_id, row_number, kind, outcome, twin_row, item_id)
        select @intakeId, r.row_number, r.kind,
          case when r.twin_row < r.row_number then 4 when k.id is null then 1
            when (coalesce(r.max_cpc, k.max_cpc), coalesce(r.state, k.state), coalesce(r.final_url, k.final_url))
              is distinct from (k.max_cpc, k.state, k.final_url) then 2
            else 3 end,
          case when r.twin_row < r.row_number then r.twin_row end, k.id
        from (select *, min(row_number) over (partition by campaign_key, ad_group_key, item_key, match_type) as twin_row
          from intake_row where intake_id = @intakeId and problem is null and kind = 3) r
        left join intake_ad_group g on g.intake_id = @intakeId and g.campaign_key = r.campaign_key and g.name_key = r.ad_group_key
        left join keyword k on k.ad_group_id = g.ad_group_id and k.text_key = r.item_key and k.match_type = r.match_type and not k.removed;

        insert into intake_verdict (intake_id, row_number, kind, outcome, twin_row, item_id)
        select @intakeId, r.row_number, r.kind, case when r.twin_row < r.row_number then 4 when n.id is null then 1 else 3 end,
          case when r.twin_row < r.row_number then r.twin_row end, n.id
        from (select *, min(row_number) over (partition by campaign_key, ad_group_key, item_key, match_type) as twin_row
          from intake_row where intake_id = @intakeId and problem is null and kind = 4) r
        join intake_campaign c on c.intake_id = @intakeId and c.name_key = r.campaign_key
        left join intake_ad_group g on g.intake_id = @intakeId and g.campaign_key = r.campaign_key and g.name_key = r.ad_group_key
        left join negative_keyword n on n.campaign_id = c.campaign_id and (r.ad_group_key = '' or g.ad_group_id is not null)
          and coalesce(n.ad_group_id, 0) = coalesce(g.ad_group_id, 0)
          and n.text_key = r.item_key and n.match_type = r.match_type and not n.removed;

        insert into intake_verdict (intake_id, row_number, kind, outcome, twin_row, item_id)
        select @intakeId, r.row_number, r.kind,
          case when r.twin_row < r.row_number then 4 when a.id is null then 1 when coalesce(r.state, a.state) <> a.state then 2 else 3 end,
          case when r.twin_row < r.row_number then r.twin_row end, a.id
        from (select *, min(row_number) over (partition by campaign_key, ad_group_key, item_key) as twin_row
          from intake_row where intake_id = @intakeId and problem is null and kind = 5) r
        left join intake_ad_group g on g.intake_id = @intakeId and g.campaign_key = r.campaign_key and g.name_key = r.ad_group_key
        left join text_ad a on a.ad_group_id = g.ad_group_id and a.content_key = r.item_key and not a.removed
        """;

    /// <summary>Judges in the connection's transaction.</summary>
    public static async Task JudgeAsync(NpgsqlConnection connection, long intakeId, CancellationToken cancellation)
    {
        foreach (var sql in new[] { Campaigns, AdGroups, Rows })
        {
            await connection.ExecuteAsync(
                new CommandDefinition(sql, new { intakeId }, commandTimeout: 600, cancellationToken: cancellation)
            );
        }
    }
}
