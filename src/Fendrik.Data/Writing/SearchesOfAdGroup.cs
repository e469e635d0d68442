using Dapper;
using Fendrik.Core.AdText.Insertion;
using Fendrik.Data.Accounts;
using Npgsql;

namespace Fendrik.Data.Writing;

/// <summary>Something that was or may be searched for.</summary>
/// <param name="Text">What is typed.</param>
/// <param name="IsTyped">True when people typed it; false for a keyword as it stands.</param>
/// <param name="Clicks">Clicks that it brought.</param>
/// <param name="Values">What is inserted for it.</param>
public sealed record RealSearch(string Text, bool IsTyped, long Clicks, InsertedValues Values);

/// <summary>Reads what people searched for when keywords of an ad group answered, and those keywords.</summary>
public sealed class SearchesOfAdGroup(NpgsqlDataSource source)
{
    private const int Days = 28;

    /// <summary>The searches that brought most clicks, then the keywords.</summary>
    public async Task<IReadOnlyList<RealSearch>> ReadAsync(
        int accountId,
        long adGroupId,
        int most,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var account = await AccountFacts.ReadAsync(connection, accountId);
        var rows = await connection.QueryAsync<(
            string Text,
            string Keyword,
            bool IsTyped,
            long Clicks,
            string AdGroup,
            string Campaign
        )>(
            new CommandDefinition(
                """
                with typed as (
                  select s.term as text, min(k.text) as keyword, true as is_typed, sum(s.clicks)::bigint as clicks, sum(s.impressions) as shown
                  from search_term_day s join account a on a.id = s.account_id join keyword k on k.id = s.keyword_id and k.account_id = s.account_id and not k.removed
                  where s.account_id = @accountId and s.ad_group_id = @adGroupId and s.day > a.reported_to - @Days
                  group by s.term order by 4 desc, 5 desc, 1 limit @most),
                  own as (
                  select text, text as keyword, false as is_typed, 0::bigint as clicks, 0 as shown from keyword
                  where account_id = @accountId and ad_group_id = @adGroupId and not removed order by char_length(text) desc, text limit @most)
                select t.text, t.keyword, t.is_typed, t.clicks, g.name, c.name
                from (select * from typed union all select * from own) t
                join ad_group g on g.id = @adGroupId and g.account_id = @accountId join campaign c on c.id = g.campaign_id
                order by t.is_typed desc, t.clicks desc, t.shown desc, t.text
                """,
                new
                {
                    accountId,
                    adGroupId,
                    Days,
                    most,
                },
                cancellationToken: cancellation
            )
        );
        return
        [
            .. rows.DistinctBy(row => row.Text)
                .Select(row => new RealSearch(
                    row.Text,
                    row.IsTyped,
                    row.Clicks,
                    new InsertedValues(
                        InsertedValues.SearchedWords(account.Network.Matching.InsertedWords, row.Keyword, row.Text),
                        row.AdGroup,
                        row.Campaign,
                        null,
                        null
                    )
                )),
        ];
    }
}
