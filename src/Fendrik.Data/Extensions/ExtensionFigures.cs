using Dapper;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Reporting;
using Fendrik.Core.Serving;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Extensions;

/// <summary>What a text beside ads brought, wherever it stands.</summary>
/// <param name="Kind">Kind of extension.</param>
/// <param name="Written">What it says, as it is kept.</param>
/// <param name="Says">What it says, as people read it.</param>
/// <param name="Length">Characters of it.</param>
/// <param name="Places">In how many places it stands.</param>
/// <param name="Figures">What came of the ads beside which it showed.</param>
/// <param name="OwnClicks">Clicks on itself; none where it cannot be clicked.</param>
/// <param name="AgainstUsual">Clicks on the ads against those that their places usually bring; none before it showed.</param>
public sealed record ExtensionFigure(
    ItemKind Kind,
    string Written,
    string Says,
    int Length,
    int Places,
    Figures Figures,
    long? OwnClicks,
    decimal? AgainstUsual
);

/// <summary>Reads what extensions brought, and what would show.</summary>
public sealed class ExtensionFigures(NpgsqlDataSource source)
{
    /// <summary>What extensions brought in the last weeks, the cheapest conversions first.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="campaignId">Beside the ads of a campaign; none for all.</param>
    /// <param name="adGroupId">Beside the ads of an ad group; none for all.</param>
    /// <param name="cancellation">Nobody waits any more.</param>
    public async Task<IReadOnlyList<ExtensionFigure>> ReadAsync(
        int accountId,
        long? campaignId,
        long? adGroupId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var account = await AccountFacts.ReadAsync(connection, accountId);
        var all = new List<ExtensionFigure>();
        foreach (var type in ItemTypes.Extensions)
        {
            var rows = await connection.QueryAsync<(
                string Says,
                int Places,
                long Impressions,
                long Clicks,
                long Own,
                decimal Cost,
                decimal Expected,
                decimal Conversions,
                decimal Value
            )>(
                new CommandDefinition(
                    $"""
                    select min(i.text), count(*)::int, coalesce(sum(d.impressions), 0)::bigint, coalesce(sum(d.clicks), 0)::bigint,
                      coalesce(sum(d.own_clicks), 0)::bigint, coalesce(sum(d.cost), 0), coalesce(sum(d.expected), 0), coalesce(sum(d.conversions), 0),
                      coalesce(sum(d.value), 0)
                    from {ItemTable.Of(type.Kind).Name} i
                    left join (
                      select extension_id, sum(impressions) as impressions, sum(clicks) as clicks, sum(own_clicks) as own_clicks, sum(cost) as cost,
                        sum(expected) as expected, sum(conversions) as conversions, sum(value) as value
                      from extension_day e join account a on a.id = e.account_id
                      where e.account_id = @accountId and e.kind = @kind and e.day > a.reported_to - @Days
                        and (@campaignId::bigint is null or e.campaign_id = @campaignId) and (@adGroupId::bigint is null or e.ad_group_id = @adGroupId)
                      group by extension_id) d on d.extension_id = i.id
                    where i.account_id = @accountId and not i.removed
                      and (i.campaign_id is null or @campaignId::bigint is null or i.campaign_id = @campaignId)
                      and (i.ad_group_id is null or @adGroupId::bigint is null or i.ad_group_id = @adGroupId)
                    group by i.text_key
                    """,
                    new
                    {
                        accountId,
                        campaignId,
                        adGroupId,
                        kind = (short)type.Kind,
                        ExtensionCoverage.Days,
                    },
                    cancellationToken: cancellation
                )
            );
            all.AddRange(
                rows.Select(row =>
                {
                    var says = (string)type["text"].Type.ForScreen(row.Says);
                    return new ExtensionFigure(
                        type.Kind,
                        row.Says,
                        says,
                        account.Network.LimitsOf(type, type["text"]).LengthOf(says),
                        row.Places,
                        new Figures(row.Impressions, row.Clicks, row.Cost, row.Conversions, row.Value),
                        type.IsClicked ? row.Own : null,
                        row.Expected > 0 ? row.Clicks / row.Expected : null
                    );
                })
            );
        }

        return
        [
            .. all.OrderBy(each => each.Figures.CostPerConversion ?? decimal.MaxValue)
                .ThenByDescending(each => each.AgainstUsual)
                .ThenBy(each => each.Says, StringComparer.Ordinal),
        ];
    }

    /// <summary>What would show beside an ad in a place of the working copy, and what keeps the rest away.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="campaignId">The campaign; none for the account itself.</param>
    /// <param name="adGroupId">The ad group; none for a campaign itself.</param>
    /// <param name="at">When and on what.</param>
    /// <param name="cancellation">Nobody waits any more.</param>
    public async Task<IReadOnlyList<ConsideredExtension>> ConsiderAsync(
        int accountId,
        long? campaignId,
        long? adGroupId,
        ShownAt at,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var account = await AccountFacts.ReadAsync(connection, accountId);
        return await PlacedExtensionReader.ConsiderAsync(
            connection,
            accountId,
            account.Network,
            campaignId,
            adGroupId,
            at
        );
    }
}
