using Dapper;
using Fendrik.Core.AdText;
using Fendrik.Core.AdText.Fit;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Tracing;
using Npgsql;
using NpgsqlTypes;

namespace Fendrik.Data.Links;

/// <summary>How the texts, keywords and pages of an ad group fit, and when the pages were read.</summary>
/// <param name="Fit">How they fit.</param>
/// <param name="Converting">Words of searches that brought conversions, and whether the ads say them.</param>
/// <param name="ReadAt">When pages were read last; none before.</param>
public sealed record AdGroupFit(GroupFit Fit, IReadOnlyList<WordOfKeywords> Converting, DateTimeOffset? ReadAt);

/// <summary>What stands on the landing pages of accounts.</summary>
public sealed class PageBook(NpgsqlDataSource source, TimeProvider clock)
{
    private const int Days = 28;

    /// <summary>Most pages of an account that are kept: those that are followed first.</summary>
    public const int MostKept = 1_000;

    private const int MostCompared = 60;

    /// <summary>Writes down what was read; what was known of pages before is forgotten.</summary>
    public async Task KeepAsync(int accountId, IReadOnlyCollection<PageText> pages, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await connection.ExecuteAsync(
            new CommandDefinition(
                "delete from page_text where account_id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );
        await using (
            var copy = await connection.BeginBinaryImportAsync(
                "copy page_text (account_id, page, title, headings, body, can_get_in_touch, milliseconds, tag, read_at) from stdin (format binary)",
                cancellation
            )
        )
        {
            foreach (var page in pages)
            {
                await copy.StartRowAsync(cancellation);
                copy.Write(accountId);
                copy.Write(page.Address);
                copy.Write(page.Title);
                copy.Write(page.Headings.ToArray());
                copy.Write(page.Body);
                copy.Write(page.CanGetInTouch);
                copy.Write(page.Milliseconds);
                copy.Write((short)page.Tag);
                copy.Write(clock.GetUtcNow(), NpgsqlDbType.TimestampTz);
            }

            await copy.CompleteAsync(cancellation);
        }

        await transaction.CommitAsync(cancellation);
    }

    /// <summary>How an ad group fits; none when there is no such ad group.</summary>
    public async Task<AdGroupFit?> FitAsync(int accountId, long adGroupId, CancellationToken cancellation)
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
        CommandDefinition Ask(string sql) => new(sql, asked, cancellationToken: cancellation);
        if (
            await connection.QueryFirstOrDefaultAsync<(string Group, string Campaign)?>(
                Ask(
                    "select g.name, c.name from ad_group g join campaign c on c.id = g.campaign_id where g.account_id = @accountId and g.id = @adGroupId and not g.removed"
                )
            )
            is not
            (var group, var campaign)
        )
        {
            return null;
        }

        Ad[] ads =
        [
            .. (
                await connection.QueryAsync<AdRow>(
                    Ask(
                        $"""
                        select {AdRow.Columns}
                        from ({AdTables.Where(
                            "account_id = @accountId and ad_group_id = @adGroupId and not removed and state = @running"
                        )}) ads order by id
                        """
                    )
                )
            ).Select(row => row.Ad),
        ];
        var page = ads.Select(ad => ad.LandingPage).FirstOrDefault(each => each is not null);
        var keywords = (
            await connection.QueryAsync<(string Text, long Clicks, string? Page)>(
                Ask(
                    """
                    select k.text, coalesce(sum(p.clicks), 0)::bigint, k.landing_page from keyword k
                    left join performance_day p on p.account_id = k.account_id and p.keyword_id = k.id and p.day > (select reported_to - @Days from account where id = @accountId)
                    where k.account_id = @accountId and k.ad_group_id = @adGroupId and not k.removed and k.state = @running group by k.id
                    """
                )
            )
        ).Select(each => new KeywordToFit(each.Text, each.Clicks, each.Page ?? page)).ToArray();
        // Its own pages first, then those that most items lead to.
        var pages = (
            await connection.QueryAsync<(
                string Address,
                string Title,
                string[] Headings,
                string Body,
                bool CanGetInTouch,
                int Milliseconds,
                DateTime ReadAt
            )>(
                new CommandDefinition(
                    """
                    select page, title, headings, body, can_get_in_touch, milliseconds, read_at from page_text p
                    where account_id = @accountId
                    order by page <> all(@own), (select sum(l.items) from link_check l where l.account_id = p.account_id and l.page = p.page) desc nulls last, page
                    limit @MostCompared
                    """,
                    new
                    {
                        accountId,
                        MostCompared,
                        own = keywords.Select(keyword => keyword.Page).OfType<string>().Distinct().ToArray(),
                    },
                    cancellationToken: cancellation
                )
            )
        ).AsList();
        var converting = await connection.QueryAsync<(string Text, long Conversions)>(
            Ask(
                """
                select s.term, ceil(sum(s.conversions))::bigint from search_term_day s join account a on a.id = s.account_id
                where s.account_id = @accountId and s.ad_group_id = @adGroupId and s.day > a.reported_to - @Days
                group by s.term having sum(s.conversions) > 0
                """
            )
        );
        return new AdGroupFit(
            GroupFit.Of(
                group,
                campaign,
                keywords,
                ads,
                pages.Select(each => new PageText(
                    each.Address,
                    each.Title,
                    each.Headings,
                    each.Body,
                    each.CanGetInTouch,
                    each.Milliseconds
                )),
                account.Network.Reach
            ),
            WordsOfKeywords.In(converting, ads.SelectMany(ad => ad.Texts.Concat(ad.ShownPath)), account.Network.Reach),
            pages.Count == 0 ? null : pages[0].ReadAt
        );
    }
}
