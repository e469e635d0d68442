using Dapper;
using Fendrik.Core.Matching;
using Fendrik.Data.Accounts;
using Fendrik.Data.Commands;
using Npgsql;

namespace Fendrik.Data.Terms;

/// <summary>Negatives that are thought of, or that come to be in this step.</summary>
internal static class PlannedNegatives
{
    /// <summary>The negatives as they would stand: each in each place.</summary>
    public static async Task<IReadOnlyList<PlacedNegative>> PlaceAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        IReadOnlyList<(string Text, MatchType Match)> lines,
        ItemPlaces places,
        CancellationToken cancellation
    )
    {
        var rows = (
            await connection.QueryAsync<(long? CampaignId, long? AdGroupId, long? ListId, long[]? Campaigns)>(
                new CommandDefinition(
                    $"select p.campaign_id, p.ad_group_id, p.list_id, l.campaign_ids from {ItemPlaces.Rows} left join negative_list l on l.id = p.list_id",
                    places.Parameters(account.Id),
                    cancellationToken: cancellation
                )
            )
        ).ToArray();
        return
        [
            .. lines.SelectMany(
                (line, at) =>
                    rows.Select(row => new PlacedNegative(
                        new NegativeKeyword(at, row.CampaignId, row.AdGroupId, line.Text, line.Match, row.ListId),
                        row.Campaigns ?? []
                    ))
            ),
        ];
    }
}
