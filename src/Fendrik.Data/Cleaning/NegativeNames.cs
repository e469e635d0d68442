using Dapper;
using Npgsql;

namespace Fendrik.Data.Cleaning;

/// <summary>What the negatives of an account are called where people see them.</summary>
internal static class NegativeNames
{
    /// <summary>Where each negative stands, in words.</summary>
    public static async Task<Dictionary<long, NegativePlace>> ReadAsync(NpgsqlConnection connection, int accountId)
    {
        var rows = await connection.QueryAsync<(
            long Id,
            string Text,
            short Match,
            string Level,
            string Place,
            long? CampaignId,
            long? AdGroupId,
            long? ListId
        )>(
            """
            select n.id, n.text, n.match_type, case when n.list_id is not null then 'list' when n.ad_group_id is not null then 'ad group' else 'campaign' end,
              coalesce(l.name, c.name || coalesce(' / ' || g.name, '')), n.campaign_id, n.ad_group_id, n.list_id
            from negative_keyword n left join campaign c on c.id = n.campaign_id left join ad_group g on g.id = n.ad_group_id left join negative_list l on l.id = n.list_id
            where n.account_id = @accountId and not n.removed
            """,
            new { accountId }
        );
        return rows.ToDictionary(
            row => row.Id,
            row => new NegativePlace(
                row.Id,
                row.Text,
                (MatchType)row.Match,
                row.Level,
                row.Place,
                row.CampaignId,
                row.AdGroupId,
                row.ListId
            )
        );
    }
}
