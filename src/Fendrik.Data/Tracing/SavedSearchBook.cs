using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;
using Fendrik.Core.Serving;
using Fendrik.Data.Accounts;
using Npgsql;

namespace Fendrik.Data.Tracing;

/// <summary>A saved search as it is listed.</summary>
/// <param name="Id">Identity.</param>
/// <param name="Search">The search and what should happen to it.</param>
/// <param name="AdGroup">Name of the ad group that should answer; none where none should, or it is gone.</param>
/// <param name="Campaign">Name of its campaign.</param>
/// <param name="CampaignId">Its campaign.</param>
/// <param name="Expected">What should happen, in words.</param>
/// <param name="Holds">Whether it did when it was run last; none before.</param>
/// <param name="Told">What happened then, in a sentence.</param>
public sealed record ListedSearch(
    long Id,
    SavedSearch Search,
    string? AdGroup,
    string? Campaign,
    long? CampaignId,
    string Expected,
    bool? Holds,
    string? Told
);

/// <summary>Searches that are kept as tests of an account. What becomes of them is found by the checks after each change.</summary>
public sealed class SavedSearchBook(NpgsqlDataSource source, TimeProvider clock)
{
    /// <summary>Most of an account.</summary>
    public const int Most = 5_000;

    /// <summary>All of an account, those that fail first.</summary>
    public async Task<IReadOnlyList<ListedSearch>> ListAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<Row>(
            new CommandDefinition(
                """
                select s.id, s.text, s.device, s.site, s.place, s.expectation, s.ad_group_id, g.name as ad_group, c.name as campaign, c.id as campaign_id, s.holds, s.told
                from saved_search s
                left join ad_group g on g.id = s.ad_group_id and g.account_id = s.account_id and not g.removed
                left join campaign c on c.id = g.campaign_id
                where s.account_id = @accountId order by s.holds nulls first, s.text_key, s.id
                """,
                new { accountId },
                cancellationToken: cancellation
            )
        );
        return [.. rows.Select(row => row.Listed)];
    }

    /// <summary>Saves searches. One that is there already (same words, device, kind of site and place) gets the new expectation.</summary>
    /// <returns>How many are new or expect something else now.</returns>
    /// <exception cref="InvalidChangeException">One of them cannot be saved; then none is.</exception>
    public async Task<int> SaveAsync(
        int accountId,
        string personId,
        IReadOnlyList<SavedSearch> searches,
        CancellationToken cancellation
    )
    {
        foreach (var (search, at) in searches.Select((search, at) => (search, at)))
        {
            if (search.Problem is { } problem)
            {
                throw new InvalidChangeException(
                    $"searches[{at}].{problem.Field}",
                    $"Search {at + 1}: {problem.Message}"
                );
            }
        }

        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await AccountLock.TakeAsync(
            connection,
            accountId,
            new AccountWork(personId, AccountDoing.Searches),
            cancellation
        );
        await RefuseStrangeGroupsAsync(connection, accountId, searches);
        var saved = await connection.ExecuteAsync(
            new CommandDefinition(
                """
                with saved as (
                  insert into saved_search as s (account_id, text, text_key, device, site, place, expectation, ad_group_id, made_by, made_at)
                  select @accountId, n.text, n.text_key, n.device, n.site, n.place, n.expectation, n.ad_group_id, @personId, @now
                  from (select distinct on (text_key, device, site, coalesce(place, '')) * from unnest(@texts, @keys, @devices, @sites, @places, @expectations, @groups)
                    with ordinality as u(text, text_key, device, site, place, expectation, ad_group_id, at) order by text_key, device, site, coalesce(place, ''), at desc) n
                  order by n.at
                  on conflict (account_id, text_key, device, site, coalesce(place, '')) do update set
                    text = excluded.text, expectation = excluded.expectation, ad_group_id = excluded.ad_group_id, holds = null, told = null
                  where (s.expectation, s.ad_group_id) is distinct from (excluded.expectation, excluded.ad_group_id)
                  returning id)
                insert into check_due (account_id, kind, item_id) select @accountId, 0, id from saved
                """,
                new
                {
                    accountId,
                    personId,
                    now = clock.GetUtcNow(),
                    texts = searches.Select(each => each.Text).ToArray(),
                    keys = searches.Select(each => string.Join(' ', Words.Of(each.Text))).ToArray(),
                    devices = searches.Select(each => (short)each.Device).ToArray(),
                    sites = searches.Select(each => (short)each.Site).ToArray(),
                    places = searches.Select(each => each.Place).ToArray(),
                    expectations = searches.Select(each => (short)each.Expectation).ToArray(),
                    groups = searches.Select(each => each.AdGroupId).ToArray(),
                },
                cancellationToken: cancellation
            )
        );
        if (
            await connection.ExecuteScalarAsync<int>(
                "select count(*) from saved_search where account_id = @accountId",
                new { accountId }
            ) > Most
        )
        {
            throw new InvalidChangeException(
                "searches",
                $"An account keeps at most {Most:N0} searches. Remove some that are not needed any more."
            );
        }

        await MovedAsync(connection, accountId);
        await transaction.CommitAsync(cancellation);
        return saved;
    }

    /// <summary>Removes searches; what is not there is passed over.</summary>
    /// <returns>Those that were removed, so that they can be saved again.</returns>
    public async Task<IReadOnlyList<SavedSearch>> RemoveAsync(
        int accountId,
        string personId,
        IReadOnlyCollection<long> ids,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await AccountLock.TakeAsync(
            connection,
            accountId,
            new AccountWork(personId, AccountDoing.Searches),
            cancellation
        );
        var removed = (
            await connection.QueryAsync<Row>(
                new CommandDefinition(
                    """
                    with gone as (delete from saved_search where account_id = @accountId and id = any(@ids) returning *),
                    due as (insert into check_due (account_id, kind, item_id) select account_id, 0, id from gone)
                    select id, text, device, site, place, expectation, ad_group_id, null::text as ad_group, null::text as campaign, null::bigint as campaign_id, holds, told from gone
                    """,
                    new { accountId, ids = ids.ToArray() },
                    cancellationToken: cancellation
                )
            )
        ).AsList();
        await MovedAsync(connection, accountId);
        await transaction.CommitAsync(cancellation);
        return [.. removed.Select(row => row.Search)];
    }

    private static async Task RefuseStrangeGroupsAsync(
        NpgsqlConnection connection,
        int accountId,
        IReadOnlyList<SavedSearch> searches
    )
    {
        var known = (
            await connection.QueryAsync<long>(
                "select id from ad_group where account_id = @accountId and not removed and id = any(@ids)",
                new { accountId, ids = searches.Select(each => each.AdGroupId).OfType<long>().Distinct().ToArray() }
            )
        ).ToHashSet();
        foreach (var (search, at) in searches.Select((search, at) => (search, at)))
        {
            if (search.AdGroupId is { } group && !known.Contains(group))
            {
                throw new InvalidChangeException(
                    $"searches[{at}].adGroupId",
                    $"Search {at + 1}: the ad group that should answer is not in this account. Choose another."
                );
            }
        }
    }

    private static Task MovedAsync(NpgsqlConnection connection, int accountId) =>
        connection.ExecuteAsync("select account_moved(@accountId)", new { accountId });

    [method: ExplicitConstructor]
    private sealed record Row(
        long Id,
        string Text,
        Device Device,
        SiteKinds Site,
        string? Place,
        Expectation Expectation,
        long? AdGroupId,
        string? AdGroup,
        string? Campaign,
        long? CampaignId,
        bool? Holds,
        string? Told
    )
    {
        public SavedSearch Search => new(Text, Device, Site, Place, Expectation, AdGroupId);

        public ListedSearch Listed =>
            new(Id, Search, AdGroup, Campaign, CampaignId, Search.ExpectedInWords(AdGroup), Holds, Told);
    }
}
