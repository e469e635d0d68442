using Fendrik.Data.Steps;

namespace Fendrik.Data.Intakes;

/// <summary>Brings the judged rows of an intake into the working copy, as one step.</summary>
public sealed record KeepIntake(long IntakeId) : IWorkingCopyChange
{
    private const string Campaigns = """
        with made as (
          insert into campaign (account_id, name, name_key, state, daily_budget, start_date, end_date, networks, removed, is_live, review)
          select @account, name, name_key, coalesce(state, 1), daily_budget, start_date, end_date, coalesce(networks, 1), false, false, 0
          from intake_campaign where intake_id = @intake and outcome = 1 order by first_row
          returning id, name_key
        )
        update intake_campaign c set campaign_id = made.id from made where c.intake_id = @intake and c.name_key = made.name_key
        """;

    private const string CampaignEdits = $"""
        update campaign i set daily_budget = coalesce(c.daily_budget, i.daily_budget), start_date = coalesce(c.start_date, i.start_date),
          end_date = coalesce(c.end_date, i.end_date), networks = coalesce(c.networks, i.networks), state = coalesce(c.state, i.state), {ItemTable.KeepLive}
        from intake_campaign c where c.intake_id = @intake and c.outcome = 2 and c.campaign_id = i.id
        """;

    private const string AdGroups = """
        with made as (
          insert into ad_group (account_id, campaign_id, name, name_key, state, max_cpc, removed, is_live, review)
          select @account, c.campaign_id, g.name, g.name_key, coalesce(g.state, 1), g.max_cpc, false, false, 0
          from intake_ad_group g join intake_campaign c on c.intake_id = @intake and c.name_key = g.campaign_key
          where g.intake_id = @intake and g.outcome = 1 order by g.first_row
          returning id, campaign_id, name_key
        )
        update intake_ad_group g set ad_group_id = made.id
        from made join intake_campaign c on c.intake_id = @intake and c.campaign_id = made.campaign_id
        where g.intake_id = @intake and g.campaign_key = c.name_key and g.name_key = made.name_key
        """;

    private const string AdGroupEdits = $"""
        update ad_group i set max_cpc = coalesce(g.max_cpc, i.max_cpc), state = coalesce(g.state, i.state), {ItemTable.KeepLive}
        from intake_ad_group g where g.intake_id = @intake and g.outcome = 2 and g.ad_group_id = i.id
        """;

    private const string Judged = """
        from intake_verdict v
        join intake_row r on r.intake_id = v.intake_id and r.row_number = v.row_number
        join intake_campaign c on c.intake_id = @intake and c.name_key = r.campaign_key
        left join intake_ad_group g on g.intake_id = @intake and g.campaign_key = r.campaign_key and g.name_key = r.ad_group_key
        where v.intake_id = @intake
        """;

    private const string Keywords = $"""
        insert into keyword (account_id, ad_group_id, text, text_key, match_type, state, max_cpc, final_url, removed, is_live, review)
        select @account, g.ad_group_id, r.text, r.item_key, r.match_type, coalesce(r.state, 1), r.max_cpc, r.final_url, false, false, 0
        {Judged} and v.kind = 3 and v.outcome = 1 order by g.ad_group_id, r.item_key
        """;

    private const string KeywordEdits = $"""
        update keyword i set max_cpc = coalesce(r.max_cpc, i.max_cpc), state = coalesce(r.state, i.state),
          final_url = coalesce(r.final_url, i.final_url), {ItemTable.KeepLive}
        from intake_verdict v join intake_row r on r.intake_id = v.intake_id and r.row_number = v.row_number
        where v.intake_id = @intake and v.kind = 3 and v.outcome = 2 and v.item_id = i.id
        """;

    private const string Negatives = $"""
        insert into negative_keyword (account_id, campaign_id, ad_group_id, text, text_key, match_type, removed, is_live, review)
        select @account, c.campaign_id, g.ad_group_id, r.text, r.item_key, r.match_type, false, false, 0
        {Judged} and v.kind = 4 and v.outcome = 1 order by r.row_number
        """;

    private const string Ads = $"""
        insert into text_ad (account_id, ad_group_id, state, headlines, descriptions, display_path, final_url, device_preference, content_key, removed, is_live, review)
        select @account, g.ad_group_id, coalesce(r.state, 1), r.headlines, r.descriptions, r.display_path, coalesce(r.final_url, ''),
          r.device_preference, r.item_key, false, false, 0
        {Judged} and v.kind = 5 and v.outcome = 1 order by r.row_number
        """;

    private const string AdEdits = $"""
        update text_ad i set state = r.state, {ItemTable.KeepLive}
        from intake_verdict v join intake_row r on r.intake_id = v.intake_id and r.row_number = v.row_number
        where v.intake_id = @intake and v.kind = 5 and v.outcome = 2 and v.item_id = i.id
        """;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var parameters = new { intake = IntakeId, account = context.Account.Id };
        var taken = await context.ScalarAsync<int>(
            "with taken as (update intake set state = 3, step_id = @step where id = @intake and account_id = @account and state = 2 returning 1) select count(*) from taken",
            new
            {
                parameters.intake,
                parameters.account,
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

        var items =
            await context.ExecuteAsync(Campaigns, parameters) + await context.ExecuteAsync(CampaignEdits, parameters);
        items +=
            await context.ExecuteAsync(AdGroups, parameters) + await context.ExecuteAsync(AdGroupEdits, parameters);
        items +=
            await context.ExecuteAsync(KeywordEdits, parameters) + await context.ExecuteAsync(Keywords, parameters);
        items += await context.ExecuteAsync(Negatives, parameters);
        items += await context.ExecuteAsync(AdEdits, parameters) + await context.ExecuteAsync(Ads, parameters);
        var name = await context.ScalarAsync<string>("select file_name from intake where id = @intake", parameters);
        return new StepOutcome($"Bring in {items:N0} items from {name}", items);
    }
}
