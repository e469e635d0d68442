using System.Security.Cryptography;
using System.Text;
using Dapper;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Tracking;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Links;

/// <summary>A landing page as an account uses it, with the tracking that holds there.</summary>
/// <param name="Page">The landing page.</param>
/// <param name="Template">The tracking template; empty for none.</param>
/// <param name="Items">How many items lead there so.</param>
/// <param name="Click">A click on one of them.</param>
public sealed record UsedLink(string Page, string Template, long Items, TrackedClick Click);

/// <summary>What following a link showed.</summary>
/// <param name="Page">The landing page.</param>
/// <param name="Template">The tracking template; empty for none.</param>
/// <param name="Address">The address that was followed.</param>
/// <param name="Items">How many items led there so.</param>
/// <param name="Weight">How much it matters; none when all is well.</param>
/// <param name="Message">A short line.</param>
/// <param name="Detail">A sentence that says what to do.</param>
/// <param name="Final">Where it ended.</param>
/// <param name="Milliseconds">How long the last page took.</param>
/// <param name="CheckedAt">When.</param>
public sealed record CheckedLink(
    string Page,
    string Template,
    string Address,
    long Items,
    Weight? Weight,
    string Message,
    string Detail,
    string Final,
    int Milliseconds,
    DateTimeOffset CheckedAt
);

/// <summary>The links of an account: what is used, what clicks on real items would lead to, and what following them showed.</summary>
public sealed class LinkBook(NpgsqlDataSource source, TimeProvider clock)
{
    /// <summary>Most links that are told of.</summary>
    public const int MostTold = 500;

    private const int OfExamples = 6;

    private static IEnumerable<(ItemTable Table, string Page)> Leading =>
        ItemTable.All.SelectMany(table =>
            table.Type.Fields.Where(each => each.Type is AddressValue).Select(each => (table, each.Column))
        );

    /// <summary>Every way in which an item leads to a page, the nearest template with it.</summary>
    private static string Uses => string.Join(" union all ", Leading.Select(UsesOf));

    private static string UsesOf((ItemTable Table, string Page) leading)
    {
        var (table, page) = leading;
        string Is(string column) => table.Type.FigureColumn == column ? "i.id" : "null::bigint";
        var own = table.Type.Find("trackingTemplate") is null ? "" : "i.tracking_template, ";
        var campaign = table.Parents.Any(parent => parent.Level == Level.Campaign) ? "i.campaign_id" : "g.campaign_id";
        return $"""
            select i.{page} as page, coalesce({own}g.tracking_template, c.tracking_template, t.tracking_template, '') as template,
              c.id as campaign_id, g.id as ad_group_id, {Is("keyword_id")} as keyword_id, {Is("ad_id")} as ad_id
            from {table.Name} i left join ad_group g on g.id = i.ad_group_id left join campaign c on c.id = {campaign}
            left join account_item t on t.account_id = i.account_id and not t.removed
            where i.account_id = @accountId and not i.removed and i.{page} is not null and g.removed is not true and c.removed is not true
            """;
    }

    /// <summary>Items whose links are amiss are looked at by the checks.</summary>
    private static string Due =>
        string.Join(
            ";\n",
            Leading.Select(leading =>
                $"""
                    insert into check_due (account_id, kind, item_id)
                    select @accountId, {leading.Table.Number}, i.id from {leading.Table.Name} i where i.account_id = @accountId and not i.removed
                      and i.{leading.Page} in (select page from link_check where account_id = @accountId and weight is not null)
                    """
            )
        );

    /// <summary>Every distinct page with its tracking, once.</summary>
    public async Task<IReadOnlyList<UsedLink>> UsedAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var account = await AccountFacts.ReadAsync(connection, accountId);
        var rows = await connection.QueryAsync<UseRow>(
            new CommandDefinition(
                $"""
                select u.page, u.template, u.items, c.id as campaign_id, c.name as campaign, g.id as ad_group_id, g.name as ad_group, k.id as keyword_id,
                  k.text as keyword, coalesce(k.match_type, 1) as match, u.ad_id
                from (select page, template, count(*) as items, min(campaign_id) as campaign_id, min(ad_group_id) as ad_group_id, min(keyword_id) as keyword_id,
                    min(ad_id) as ad_id from ({Uses}) all_uses group by page, template) u
                left join campaign c on c.id = u.campaign_id left join ad_group g on g.id = u.ad_group_id left join keyword k on k.id = u.keyword_id
                order by u.page, u.template
                """,
                new { accountId },
                commandTimeout: 600,
                cancellationToken: cancellation
            )
        );
        return [.. rows.Select(row => new UsedLink(row.Page, row.Template, row.Items, row.Click(account.Network.Id)))];
    }

    /// <summary>Clicks on a few real items of what one is looking at, one in each campaign or ad group.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="campaignId">A campaign, or none for all.</param>
    /// <param name="adGroupId">An ad group, or none for all.</param>
    /// <param name="cancellation">Nobody waits any more.</param>
    /// <returns>Each with the template that holds for it now; empty for none.</returns>
    public async Task<IReadOnlyList<UsedLink>> ExamplesAsync(
        int accountId,
        long? campaignId,
        long? adGroupId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var account = await AccountFacts.ReadAsync(connection, accountId);
        var one =
            adGroupId is null && campaignId is null ? "c.id"
            : adGroupId is null ? "g.id"
            : "k.id";
        var rows = await connection.QueryAsync<UseRow>(
            new CommandDefinition(
                $"""
                select distinct on ({one}) coalesce(k.landing_page, a.landing_page) as page,
                  coalesce(k.tracking_template, g.tracking_template, c.tracking_template, t.tracking_template, '') as template, 1::bigint as items,
                  c.id as campaign_id, c.name as campaign, g.id as ad_group_id, g.name as ad_group, k.id as keyword_id, k.text as keyword, k.match_type as match, a.id as ad_id
                from campaign c join ad_group g on g.campaign_id = c.id and not g.removed join keyword k on k.ad_group_id = g.id and not k.removed
                cross join lateral (select id, landing_page from ({AdTables.Where(
                    "ad_group_id = g.id and not removed and landing_page is not null"
                )}) ads order by id limit 1) a
                left join account_item t on t.account_id = c.account_id and not t.removed
                where c.account_id = @accountId and not c.removed and (@campaignId::bigint is null or c.id = @campaignId)
                  and (@adGroupId::bigint is null or g.id = @adGroupId)
                order by {one}, g.id, k.id limit {OfExamples}
                """,
                new
                {
                    accountId,
                    campaignId,
                    adGroupId,
                },
                cancellationToken: cancellation
            )
        );
        return [.. rows.Select(row => new UsedLink(row.Page, row.Template, row.Items, row.Click(account.Network.Id)))];
    }

    /// <summary>Writes down what following all links showed; what was known of links before is forgotten, and items are checked by it.</summary>
    public async Task KeepAsync(
        int accountId,
        IReadOnlyList<(UsedLink Link, string Address, LinkVerdict Verdict)> found,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        var amiss = new { accountId };
        // Those that were amiss, and below those that are.
        await connection.ExecuteAsync(new CommandDefinition(Due, amiss, cancellationToken: cancellation));
        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                delete from link_check where account_id = @accountId;
                insert into link_check (account_id, key, page, template, address, items, weight, code, message, detail, final, milliseconds, checked_at)
                select @accountId, f.* from unnest(@keys, @pages, @templates, @addresses, @items, @weights, @codes, @messages, @details, @finals, @times, @at) f
                on conflict (account_id, key) do nothing
                """,
                new
                {
                    accountId,
                    keys = found.Select(each => KeyOf(each.Link)).ToArray(),
                    pages = found.Select(each => each.Link.Page).ToArray(),
                    templates = found.Select(each => each.Link.Template).ToArray(),
                    addresses = found.Select(each => each.Address).ToArray(),
                    items = found.Select(each => each.Link.Items).ToArray(),
                    weights = found.Select(each => (short?)each.Verdict.Weight).ToArray(),
                    codes = found.Select(each => each.Verdict.Code).ToArray(),
                    messages = found.Select(each => each.Verdict.Message).ToArray(),
                    details = found.Select(each => each.Verdict.Detail).ToArray(),
                    finals = found.Select(each => each.Verdict.Final).ToArray(),
                    times = found.Select(each => each.Verdict.Milliseconds).ToArray(),
                    at = found.Select(_ => clock.GetUtcNow()).ToArray(),
                },
                cancellationToken: cancellation
            )
        );
        await connection.ExecuteAsync(new CommandDefinition(Due, amiss, cancellationToken: cancellation));
        await connection.ExecuteAsync(
            new CommandDefinition("select account_moved(@accountId)", amiss, cancellationToken: cancellation)
        );
        await transaction.CommitAsync(cancellation);
    }

    /// <summary>What following the links showed last, what is amiss first.</summary>
    public async Task<IReadOnlyList<CheckedLink>> CheckedAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<(
            string Page,
            string Template,
            string Address,
            long Items,
            short? Weight,
            string Message,
            string Detail,
            string Final,
            int Milliseconds,
            DateTimeOffset CheckedAt
        )>(
            new CommandDefinition(
                $"""
                select page, template, address, items, weight, message, detail, final, milliseconds, checked_at from link_check
                where account_id = @accountId order by weight desc nulls last, page, template limit {MostTold}
                """,
                new { accountId },
                cancellationToken: cancellation
            )
        );
        return
        [
            .. rows.Select(row => new CheckedLink(
                row.Page,
                row.Template,
                row.Address,
                row.Items,
                (Weight?)row.Weight,
                row.Message,
                row.Detail,
                row.Final,
                row.Milliseconds,
                row.CheckedAt
            )),
        ];
    }

    private static string KeyOf(UsedLink link) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes($"{link.Page}\n{link.Template}")));

    [method: ExplicitConstructor]
    private sealed record UseRow(
        string Page,
        string Template,
        long Items,
        long? CampaignId,
        string? Campaign,
        long? AdGroupId,
        string? AdGroup,
        long? KeywordId,
        string? Keyword,
        MatchType Match,
        long? AdId
    )
    {
        public TrackedClick Click(string network)
        {
            const string SomeClick = "3f9a0c52d1";
            return new TrackedClick(
                Page,
                new Campaign(CampaignId ?? 0, Campaign ?? "", ItemState.Running, null, null, null, SiteKinds.Search),
                new AdGroup(AdGroupId ?? 0, CampaignId ?? 0, AdGroup ?? "", ItemState.Running, null),
                new Keyword(KeywordId ?? 0, AdGroupId ?? 0, Keyword ?? "", Match, ItemState.Running, null, null),
                AdId ?? 0,
                Device.Phone,
                network,
                SiteKinds.Search,
                1,
                SomeClick
            );
        }
    }
}
