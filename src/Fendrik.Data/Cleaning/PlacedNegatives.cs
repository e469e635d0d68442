using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;
using Npgsql;

namespace Fendrik.Data.Cleaning;

/// <summary>The negatives of an account with the places that they hold for, ready to be searched.</summary>
internal static class PlacedNegatives
{
    public static async Task<IReadOnlyList<PlacedNegative>> LoadAsync(NpgsqlConnection connection, int accountId)
    {
        var rows = await connection.QueryAsync<(
            long Id,
            long? CampaignId,
            long? AdGroupId,
            string Text,
            short Match,
            long? ListId,
            long[]? Campaigns
        )>(
            """
            select n.id, n.campaign_id, n.ad_group_id, n.text, n.match_type, n.list_id, l.campaign_ids from negative_keyword n
            left join negative_list l on l.id = n.list_id where n.account_id = @accountId and not n.removed order by n.id
            """,
            new { accountId }
        );
        return
        [
            .. rows.Select(row => new PlacedNegative(
                new NegativeKeyword(row.Id, row.CampaignId, row.AdGroupId, row.Text, (MatchType)row.Match, row.ListId),
                row.Campaigns ?? []
            )),
        ];
    }

    public static KeywordIndex<PlacedNegative> Index(IEnumerable<PlacedNegative> negatives) =>
        new(negatives.Select(each => (each, each.Negative.Text, each.Negative.Match)), literal: true);

    /// <summary>Where each negative stands, in words.</summary>
    public static async Task<Dictionary<long, NegativePlace>> NamesAsync(NpgsqlConnection connection, int accountId)
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
