using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;
using Fendrik.Core.Serving;
using Fendrik.Data.Tracing;
using Npgsql;

namespace Fendrik.Data.Checking;

/// <summary>
/// One run of the saved searches that a change can have touched: those that reached, when they were run last, an ad group or a campaign
/// that moved, those that keywords that moved can touch, and those that were never run or whose day is over.
/// </summary>
internal sealed class SavedSearchRun(NpgsqlConnection connection, AccountFacts account, CheckScope scope)
{
    /// <summary>Searches whose keywords are read together.</summary>
    private const int AtOnce = 250;

    private readonly List<(Due Due, SearchVerdict Verdict, AnswerToSearch Answer)> _run = [];
    private DateOnly _today;

    [method: ExplicitConstructor]
    private sealed record Due(
        long Id,
        string Text,
        Device Device,
        SiteKinds Site,
        string? Place,
        Expectation Expectation,
        long? AdGroupId,
        string? AdGroup,
        bool IsTouched
    )
    {
        public SavedSearch Search => new(Text, Device, Site, Place, Expectation, AdGroupId);
    }

    /// <summary>Runs them on the account as it is now. What happens to it meanwhile is touched again and run the next time.</summary>
    /// <param name="memory">The keywords.</param>
    /// <param name="lookedAt">The last step of the moment that the scope is of.</param>
    /// <param name="negativesMoved">Where negatives moved.</param>
    /// <param name="cancellation">Nobody waits any more.</param>
    public async Task LookAsync(
        KeywordMemory memory,
        long lookedAt,
        (bool All, long[] Campaigns) negativesMoved,
        CancellationToken cancellation
    )
    {
        _today = await AccountToday.ReadAsync(connection, account.Id, cancellation);
        var searches = (await AllAsync(negativesMoved, cancellation)).ToArray();
        if (searches.Length == 0)
        {
            return;
        }

        await memory.AskAsync(
            connection,
            account,
            async index =>
            {
                var moved = await MovedAsync(index, lookedAt);
                var due = searches.Where(each =>
                    each.IsTouched || moved is not null && moved.CanTouch(index.Reach.WordsOf(each.Text))
                );
                ReachedAccount? reached = null;
                foreach (var some in due.Chunk(AtOnce))
                {
                    cancellation.ThrowIfCancellationRequested();
                    reached ??= await ReachedAccount.OpenAsync(connection, account, index);
                    await reached.ReachAsync([.. some.Select(each => each.Text)], cancellation);
                    foreach (var each in some)
                    {
                        var answer = reached.Answer(
                            new Search(each.Text, each.Device, each.Site, _today, Place: each.Place)
                        );
                        _run.Add((each, each.Search.HoldTo(answer, each.AdGroup), answer));
                    }
                }

                return true;
            },
            cancellation
        );
    }

    /// <summary>What came of them is written down, and what fails is found.</summary>
    public async Task StoreAsync(CancellationToken cancellation)
    {
        if (_run.Count == 0)
        {
            return;
        }

        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                update saved_search s set holds = r.holds, told = r.told, day = @_today, campaigns = r.campaigns::bigint[], ad_groups = r.groups::bigint[]
                from unnest(@ids, @holds, @tolds, @campaigns, @groups) as r(id, holds, told, campaigns, groups) where s.id = r.id and s.account_id = @Id;
                delete from account_finding where account_id = @Id and saved_search_id = any(@ids)
                """,
                new
                {
                    account.Id,
                    _today,
                    ids = _run.Select(each => each.Due.Id).ToArray(),
                    holds = _run.Select(each => each.Verdict.Holds).ToArray(),
                    tolds = _run.Select(each => each.Verdict.Told).ToArray(),
                    campaigns = _run.Select(each => Written(each.Answer, keyword => keyword.Campaign.Id)).ToArray(),
                    groups = _run.Select(each => Written(each.Answer, keyword => keyword.AdGroup.Id)).ToArray(),
                },
                cancellationToken: cancellation
            )
        );

        // Somebody may have removed one meanwhile; nobody does until what is found of it is written down.
        var present = (
            await connection.QueryAsync<long>(
                "select id from saved_search where account_id = @Id order by id for key share",
                new { account.Id }
            )
        ).ToHashSet();
        await AccountFindings.StoreAsync(
            connection,
            account.Id,
            [
                .. _run.Where(each => !each.Verdict.Holds && present.Contains(each.Due.Id))
                    .Select(each => new AccountFinding(
                        Weight.Caution,
                        SavedSearch.Fails,
                        "a saved search fails",
                        $"“{each.Due.Text}” {each.Due.Search.ExpectedInWords(each.Due.AdGroup)}. {each.Verdict.Told}",
                        each.Due.Id
                    )),
            ],
            cancellation
        );
    }

    private static string Written(AnswerToSearch answer, Func<ServedKeyword, long> part) =>
        $"{{{string.Join(',', answer.Candidates.Select(each => part(each.Keyword)).Distinct())}}}";

    /// <summary>All saved searches, with whether what they reached last has moved.</summary>
    private Task<IEnumerable<Due>> AllAsync(
        (bool All, long[] Campaigns) negativesMoved,
        CancellationToken cancellation
    ) =>
        connection.QueryAsync<Due>(
            new CommandDefinition(
                $"""
                select s.id, s.text, s.device, s.site, s.place, s.expectation, s.ad_group_id, g.name as ad_group, (
                  @all or s.holds is null or s.day is distinct from @_today
                  or s.campaigns && @campaigns or s.campaigns && (select coalesce(array_agg(id), array[]::bigint[]) from touched where kind = {(int)
                    ItemKind.Campaign})
                  or s.ad_groups || s.ad_group_id && (select coalesce(array_agg(id), array[]::bigint[]) from touched where kind = {(int)
                    ItemKind.AdGroup})
                  or exists (select from touched where kind = {(int)ItemKind.RelatedWords})
                  or exists (select from touched_due where kind = 0 and item_id in (0, s.id))) as is_touched
                from saved_search s left join ad_group g on g.id = s.ad_group_id and g.account_id = s.account_id and not g.removed
                where s.account_id = @Id order by s.id
                """,
                new
                {
                    account.Id,
                    _today,
                    all = scope.IsWhole || negativesMoved.All,
                    campaigns = negativesMoved.Campaigns,
                },
                cancellationToken: cancellation
            )
        );

    /// <summary>The keywords that came, went or changed; none when none did, or everything is run anyhow.</summary>
    private async Task<MovedKeywords?> MovedAsync(KeywordIndex<long> index, long lookedAt)
    {
        if (scope.IsWhole || !scope.Touches(ItemKind.Keyword))
        {
            return null;
        }

        async Task<(string, MatchType)[]> ReadAsync(string sql) =>
            [
                .. (
                    await connection.QueryAsync<(string Text, short Match)>(sql, new { account.Id, scope.Since })
                ).Select(row => (row.Text, (MatchType)row.Match)),
            ];
        // Where steps came since, the counts of the index are of another moment than the scope.
        var isOfTheMoment =
            await connection.ExecuteScalarAsync<long>(
                "select last_step_id from account where id = @Id",
                new { account.Id }
            ) == lookedAt;
        return new MovedKeywords(
            await ReadAsync(
                $"select i.text, i.match_type from keyword_before i where i.account_id = @Id and i.step_id > @Since and not i.removed and {scope.Holds(ItemKind.Keyword)}"
            ),
            await ReadAsync(
                $"select i.text, i.match_type from keyword i where i.account_id = @Id and not i.removed and {scope.Holds(ItemKind.Keyword)}"
            ),
            index.Reach,
            isOfTheMoment ? index.TimesBidOn : null
        );
    }
}
