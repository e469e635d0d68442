using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;
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

    public static KeywordIndex<PlacedNegative> Index(IEnumerable<PlacedNegative> negatives, NetworkProfile network) =>
        new(negatives.Select(each => (each, each.Negative.Text, each.Negative.Match)), network.Reach.ForNegatives);

    /// <summary>The negatives that keep away searches of a keyword, and how many of them.</summary>
    public static IEnumerable<(PlacedNegative Placed, Blocking Blocking)> BlockingOf(
        this KeywordIndex<PlacedNegative> index,
        PlacedKeyword keyword
    )
    {
        var words = index.Reach.WordsOf(keyword.Text);
        return index
            .Find(words)
            .Where(found => found.Reaches(keyword.CampaignId, keyword.AdGroupId))
            .Select(found =>
                (
                    found,
                    NegativeReach.BlockingOf(
                        index.Reach.WordsOf(found.Negative.Text),
                        found.Negative.Match,
                        words,
                        keyword.MatchType
                    )
                )
            )
            .Where(found => found.Item2 != Blocking.None);
    }
}
