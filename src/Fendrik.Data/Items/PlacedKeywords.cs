using Dapper;
using Npgsql;

namespace Fendrik.Data.Items;

/// <summary>A keyword with where it stands.</summary>
[method: ExplicitConstructor]
internal sealed record PlacedKeyword(long Id, long AdGroupId, long CampaignId, string Text, MatchType MatchType);

/// <summary>Goes through the keywords of an account one by one: they may be very many.</summary>
internal static class PlacedKeywords
{
    private const int LongestStatement = 600;

    /// <summary>The keywords that are not removed.</summary>
    /// <param name="connection">The database.</param>
    /// <param name="accountId">The account.</param>
    /// <param name="which">Condition on the keyword <c>i</c>, its ad group <c>g</c> and its campaign <c>c</c>.</param>
    /// <param name="campaigns">What the condition calls <c>@campaigns</c>.</param>
    public static IAsyncEnumerable<PlacedKeyword> ReadAsync(
        NpgsqlConnection connection,
        int accountId,
        string which = "true",
        long[]? campaigns = null
    ) =>
        connection.QueryUnbufferedAsync<PlacedKeyword>(
            $"""
            select i.id, i.ad_group_id, g.campaign_id, i.text, i.match_type
            from keyword i join ad_group g on g.id = i.ad_group_id join campaign c on c.id = g.campaign_id
            where i.account_id = @accountId and not i.removed and ({which})
            """,
            new { accountId, campaigns },
            commandTimeout: LongestStatement
        );
}
