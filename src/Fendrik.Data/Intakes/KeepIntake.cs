using Fendrik.Data.Steps;

namespace Fendrik.Data.Intakes;

/// <summary>Brings the judged rows of an intake into the working copy, as one step.</summary>
public sealed record KeepIntake(long IntakeId) : IWorkingCopyChange
{
    private static readonly string Campaigns = $"""
        with made as (
          insert into campaign (account_id, name, name_key, state, daily_budget, start_date, end_date, networks, labels, removed, is_live, review)
          select @account, name, name_key, coalesce(state, 1), daily_budget, start_date, end_date, coalesce(networks, 1), {NextValue.Labels(
            "c"
        )}, false, false, 0
          from intake_campaign c where intake_id = @intake and outcome = 1 order by first_row
          returning id, name_key
        )
        update intake_campaign c set campaign_id = made.id from made where c.intake_id = @intake and c.name_key = made.name_key
        """;

    /// <summary>What was just filled has no statistics yet, and the joins that follow are large.</summary>
    private const string Known = "analyze intake_campaign, intake_ad_group";

    private static readonly string CampaignEdits = $"""
        update campaign i set ({NextValue.CampaignColumns}) = row({NextValue.OfCampaign(
            "c",
            "i"
        )}), {ItemTable.KeepLive}
        from intake_campaign c where c.intake_id = @intake and c.outcome = 2 and c.campaign_id = i.id
        """;

    private static readonly string AdGroups = $"""
        with made as (
          insert into ad_group (account_id, campaign_id, name, name_key, state, max_cpc, labels, removed, is_live, review)
          select @account, c.campaign_id, g.name, g.name_key, coalesce(g.state, 1), g.max_cpc, {NextValue.Labels(
            "g"
        )}, false, false, 0
          from intake_ad_group g join intake_campaign c on c.intake_id = @intake and c.name_key = g.campaign_key
          where g.intake_id = @intake and g.outcome = 1 order by g.first_row
          returning id, campaign_id, name_key
        )
        update intake_ad_group g set ad_group_id = made.id
        from made join intake_campaign c on c.intake_id = @intake and c.campaign_id = made.campaign_id
        where g.intake_id = @intake and g.campaign_key = c.name_key and g.name_key = made.name_key
        """;

    private static readonly string AdGroupEdits = $"""
        update ad_group i set ({NextValue.AdGroupColumns}) = row({NextValue.OfAdGroup("g", "i")}), {ItemTable.KeepLive}
        from intake_ad_group g where g.intake_id = @intake and g.outcome = 2 and g.ad_group_id = i.id
        """;

    private static readonly string Lists = $"""
        with made as (
          insert into negative_list (account_id, name, name_key, campaign_ids, labels, removed, is_live, review)
          select @account, l.name, l.name_key, {CampaignsOf("'{}'::bigint[]")}, {NextValue.Labels("l")}, false, false, 0
          from intake_list l where l.intake_id = @intake and l.outcome = 1 order by l.first_row
          returning id, name_key
        )
        update intake_list l set list_id = made.id from made where l.intake_id = @intake and l.name_key = made.name_key
        """;

    private static readonly string ListEdits = $"""
        update negative_list i set campaign_ids = {CampaignsOf("i.campaign_ids")}, labels = {NextValue.Labels(
            "l",
            "i"
        )}, {ItemTable.KeepLive}
        from intake_list l where l.intake_id = @intake and l.outcome = 2 and l.list_id = i.id
        """;

    private const string Judged = """
        from intake_verdict v
        join intake_row r on r.intake_id = v.intake_id and r.row_number = v.row_number
        left join intake_campaign c on c.intake_id = @intake and c.name_key = r.campaign_key
        left join intake_ad_group g on g.intake_id = @intake and g.campaign_key = r.campaign_key and g.name_key = r.ad_group_key
        where v.intake_id = @intake
        """;

    private const string Edited =
        "from intake_verdict v join intake_row r on r.intake_id = v.intake_id and r.row_number = v.row_number where v.intake_id = @intake and v.outcome = 2 and v.item_id = i.id";

    private static readonly string Keywords = $"""
        insert into keyword (account_id, ad_group_id, text, text_key, match_type, state, max_cpc, final_url, labels, removed, is_live, review)
        select @account, g.ad_group_id, r.text, r.item_key, r.match_type, coalesce(r.state, 1), r.max_cpc, r.final_url, {NextValue.Labels(
            "r"
        )}, false, false, 0
        {Judged} and v.kind = 3 and v.outcome = 1 order by g.ad_group_id, r.item_key
        """;

    private static readonly string KeywordEdits =
        $"update keyword i set ({NextValue.KeywordColumns}) = row({NextValue.OfKeyword("r", "i")}), {ItemTable.KeepLive} {Edited} and v.kind = 3";

    private static readonly string Negatives = $"""
        insert into negative_keyword (account_id, campaign_id, ad_group_id, list_id, text, text_key, match_type, labels, removed, is_live, review)
        select @account, c.campaign_id, g.ad_group_id, (select l.list_id from intake_list l where l.intake_id = @intake and l.name_key = r.list_key),
          r.text, r.item_key, r.match_type, {NextValue.Labels("r")}, false, false, 0
        {Judged} and v.kind = 4 and v.outcome = 1 order by r.row_number
        """;

    private static readonly string NegativeEdits =
        $"update negative_keyword i set labels = {NextValue.Labels("r", "i")}, {ItemTable.Version} {Edited} and v.kind = 4";

    private static readonly string Ads = $"""
        insert into text_ad (account_id, ad_group_id, state, headlines, descriptions, display_path, final_url, device_preference, content_key, labels, removed, is_live, review)
        select @account, g.ad_group_id, coalesce(r.state, 1), r.headlines, r.descriptions, r.display_path, coalesce(r.final_url, ''),
          r.device_preference, r.item_key, {NextValue.Labels("r")}, false, false, 0
        {Judged} and v.kind = 5 and v.outcome = 1 order by r.row_number
        """;

    private static readonly string AdEdits =
        $"update text_ad i set ({NextValue.AdColumns}) = row({NextValue.OfAd("r", "i")}), {ItemTable.KeepLive} {Edited} and v.kind = 5";

    /// <summary>All that the list takes away; what belongs to it goes with it.</summary>
    private const string Removals = """
        insert into selected select 1, campaign_id from intake_campaign where intake_id = @intake and outcome = 6
        union all select 2, ad_group_id from intake_ad_group where intake_id = @intake and outcome = 6 and ad_group_id is not null
        union all select 6, list_id from intake_list where intake_id = @intake and outcome = 6
        union all select kind, item_id from intake_verdict where intake_id = @intake and outcome = 6 and kind in (3, 4, 5)
        """;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var parameters = new { intake = IntakeId, account = context.Account.Id };
        await TakeAsync(context, parameters);
        var items = 0;
        foreach (
            var sql in new[]
            {
                Campaigns,
                CampaignEdits,
                Known,
                AdGroups,
                AdGroupEdits,
                Known,
                Lists,
                ListEdits,
                KeywordEdits,
                Keywords,
                NegativeEdits,
                Negatives,
                AdEdits,
                Ads,
            }
        )
        {
            items += Math.Max(0, await context.ExecuteAsync(sql, parameters));
        }

        await ItemSelection.BeginAsync(context);
        var removed = 0;
        if (await context.ExecuteAsync(Removals, parameters) > 0)
        {
            removed = await RemoveItems.SelectedAsync(context);
        }

        var name = await context.ScalarAsync<string>("select file_name from intake where id = @intake", parameters);
        return new StepOutcome(
            items == 0 && removed > 0 ? $"Remove {removed:N0} items by {name}"
                : removed > 0 ? $"Bring in {items:N0} items and remove {removed:N0} by {name}"
                : $"Bring in {items:N0} items from {name}",
            items + removed
        );
    }

    /// <summary>Takes the intake for this step, and sees to it that its rows are there and judged against what is here now.</summary>
    private async Task TakeAsync(StepContext context, object parameters)
    {
        var taken = await context.ScalarAsync<int>(
            "with taken as (update intake set state = 3, step_id = @step where id = @intake and account_id = @account and state = 2 returning 1) select count(*) from taken",
            new
            {
                intake = IntakeId,
                account = context.Account.Id,
                step = context.StepId,
            }
        );
        if (taken == 0)
        {
            throw new InvalidChangeException("intake", "This intake was kept or left already.");
        }

        // Staged rows do not survive a crash of the database; the file does.
        if (
            !await context.ScalarAsync<bool>(
                "select exists (select from intake_row where intake_id = @intake)",
                parameters
            )
        )
        {
            throw new InvalidChangeException(
                "intake",
                "The rows have to be read again. Press “Read again”, then bring them in."
            );
        }

        // The working copy may have moved on since the rows were judged.
        var fresh = await context.ScalarAsync<bool>(
            """
            select i.judged_at_step = a.last_step_id from intake i join account a on a.id = i.account_id where i.id = @intake
            """,
            parameters
        );
        if (!fresh)
        {
            await IntakeJudgement.JudgeAsync(context.Connection, IntakeId, context.Cancellation);
        }
    }

    /// <summary>The campaigns of a list: those it has, without those it leaves, with those it is given.</summary>
    private static string CampaignsOf(string before) =>
        $$"""
            (select coalesce(array_agg(x.id order by x.id), '{}') from (
              select unnest({{before}}) as id
              union select c.campaign_id from intake_campaign c where c.intake_id = @intake and c.name_key = any(l.attach) and c.outcome not in (6, 7)
              except select c.campaign_id from intake_campaign c where c.intake_id = @intake and c.name_key = any(l.detach)) x)
            """;
}
