using Dapper;
using Npgsql;

namespace Fendrik.Bench;

/// <summary>Makes an account of a million keywords in 20,000 ad groups, with 200,000 ads and 10,000 negatives.</summary>
internal static class MillionAccount
{
    public const int Keywords = 1_000_000;
    public const int AdGroups = 20_000;
    public const int Ads = 200_000;
    public const int Negatives = 10_000;

    public static async Task<int> MakeAsync(NpgsqlDataSource source)
    {
        await using var connection = await source.OpenConnectionAsync();
        await using var transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select set_config('fendrik.step', '0', true)");
        var account = await connection.ExecuteScalarAsync<int>(
            "insert into account (name, currency, time_zone, network_id, last_step_id, reported_to, payer) values ('million', 'GBP', 'Europe/London', 'ostrel', 0, '2026-11-20', 'million') returning id"
        );
        await connection.ExecuteAsync(
            """
            create temp table made_campaign on commit drop as
              with made as (insert into campaign (account_id, name, name_key, state, rotation, delivery, people, strategy, objective, daily_budget, networks, removed, is_live, review)
                select @account, 'Campaign ' || n, 'campaign ' || n, 1, 1, 1, 1, 1, 1, 25, 1, false, true, 0 from generate_series(1, 40) n returning id)
              select id, row_number() over (order by id) - 1 as place from made;
            create temp table made_group on commit drop as
              with made as (insert into ad_group (account_id, campaign_id, name, name_key, state, max_cpc, removed, is_live, review)
                select @account, c.id, 'Group ' || n, 'group ' || n, 1, 1.10, false, true, 0 from generate_series(1, @AdGroups) n join made_campaign c on c.place = n % 40 order by c.id, n returning id)
              select id, row_number() over (order by id) - 1 as place from made;
            insert into keyword (account_id, ad_group_id, text, text_key, match_type, state, max_cpc, removed, is_live, review)
              select @account, g.id, text, text, 1 + n % 4, 1, case when n % 3 > 0 then 0.50 + (n % 250) / 100.0 end, false, true, 2
              from (select n, (array['piano','grand piano','upright piano','baby grand','harpsichord','organ','pianola','stage piano','square piano','clavichord'])[1 + n % 10] || ' '
                || (array['tuning','hire','repair','restoration','lessons','removal','sale','valuation','stool','strings','keys','pedal','cover'])[1 + n / 10 % 13] || ' '
                || (array['leeds','york','durham','kendal','hexham','whitby','ripon','skipton','settle','alnwick','penrith'])[1 + n / 130 % 11] || ' ' || n as text
                from generate_series(1, @Keywords) n) words join made_group g on g.place = n % @AdGroups order by g.id, text;
            insert into text_ad (account_id, ad_group_id, state, headlines, descriptions, display_path, landing_page, content_key, removed, is_live, review)
              select @account, g.id, 1, array['Piano Tuning Near You', 'Book Today', 'Number ' || n], array['Concert-trained tuners, same-week visits.'], array['tuning'],
                'https://tarnandfell.example/page/' || n, encode(sha256(convert_to('ad ' || n, 'UTF8')), 'hex'), false, true, 2
              from generate_series(1, @Ads) n join made_group g on g.place = n % @AdGroups order by g.id;
            insert into negative_keyword (account_id, campaign_id, text, text_key, match_type, removed, is_live, review)
              select @account, c.id, text, text, 4, false, true, 0
              from (select n, (array['harpsichord','organ','strings','pedal','free','jobs','toy'])[1 + n % 7] || ' ' || n as text from generate_series(1, @Negatives) n) words
              join made_campaign c on c.place = n % 40
            """,
            new
            {
                account,
                AdGroups,
                Keywords,
                Ads,
                Negatives,
            },
            commandTimeout: 1200
        );
        await transaction.CommitAsync();
        foreach (var day in new[] { "2026-11-01" })
        {
            await connection.ExecuteAsync($"select ensure_performance_month('{day}')");
        }

        // A tenth of the keywords had clicks in the last days.
        await connection.ExecuteAsync(
            """
            insert into performance_day (account_id, day, campaign_id, ad_group_id, keyword_id, ad_id, device, impressions, clicks, cost, conversions, value)
              select @account, date '2026-11-01' + (k.id % 20)::int, g.campaign_id, g.id, k.id, 0, 2, 100, 5, 5.5, k.id % 5, 0
              from keyword k join ad_group g on g.id = k.ad_group_id where k.account_id = @account and k.id % 10 = 0
            """,
            new { account },
            commandTimeout: 600
        );
        await connection.ExecuteAsync("vacuum analyze", commandTimeout: 1200);
        return account;
    }
}
