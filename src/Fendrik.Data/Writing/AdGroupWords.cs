using Dapper;
using Fendrik.Core.AdText;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Writing;

/// <summary>Reads what the keywords of an ad group ask for, beside what its ads say.</summary>
public sealed class AdGroupWords(NpgsqlDataSource source)
{
    /// <summary>Days whose clicks count.</summary>
    public const int Days = 28;

    /// <summary>The words of its keywords in the working copy.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="adGroupId">The ad group.</param>
    /// <param name="cancellation">Nobody waits any more.</param>
    public async Task<IReadOnlyList<WordOfKeywords>> ReadAsync(
        int accountId,
        long adGroupId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var account = await AccountFacts.ReadAsync(connection, accountId);
        var asked = new
        {
            accountId,
            adGroupId,
            Days,
            running = (short)ItemState.Running,
        };
        var keywords = await connection.QueryAsync<(string Text, long Clicks)>(
            new CommandDefinition(
                """
                select k.text, coalesce((select sum(p.clicks) from performance_day p join account a on a.id = p.account_id
                  where p.account_id = @accountId and p.keyword_id = k.id and p.day > a.reported_to - @Days), 0)::bigint
                from keyword k where k.account_id = @accountId and k.ad_group_id = @adGroupId and not k.removed and k.state = @running
                """,
                asked,
                cancellationToken: cancellation
            )
        );
        var texts = await connection.QueryAsync<string[]>(
            new CommandDefinition(
                $"""
                select headlines || descriptions || display_path
                from ({AdTables.Where(
                    "account_id = @accountId and ad_group_id = @adGroupId and not removed and state = @running"
                )}) ads
                """,
                asked,
                cancellationToken: cancellation
            )
        );
        return WordsOfKeywords.In(keywords, texts.SelectMany(each => each), account.Network.Reach);
    }
}
