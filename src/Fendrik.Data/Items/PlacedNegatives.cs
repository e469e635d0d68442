using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;
using Npgsql;

namespace Fendrik.Data.Items;

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
}
