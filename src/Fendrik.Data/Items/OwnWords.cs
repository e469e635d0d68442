using Dapper;
using Npgsql;

namespace Fendrik.Data.Items;

/// <summary>The words that stand for one another in an account.</summary>
internal static class OwnWords
{
    public static async Task<IReadOnlyList<RelatedWord>> ReadAsync(NpgsqlConnection connection, int accountId) =>
        [
            .. (
                await connection.QueryAsync<(long Id, string Text, string[] Means, short Nearness)>(
                    "select id, text, means, nearness from related_words where account_id = @accountId and not removed order by id",
                    new { accountId }
                )
            ).Select(row => new RelatedWord(row.Id, row.Text, row.Means, (Nearness)row.Nearness)),
        ];
}
