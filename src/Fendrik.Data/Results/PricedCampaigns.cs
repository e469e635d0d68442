using Dapper;
using Fendrik.Core.Bidding;
using Fendrik.Core.Items.Values;
using Npgsql;

namespace Fendrik.Data.Results;

/// <summary>A campaign with what it bids by.</summary>
/// <param name="Id">The campaign.</param>
/// <param name="Version">Its version, against which edits hold.</param>
/// <param name="Name">Its name.</param>
/// <param name="State">Running or paused.</param>
/// <param name="Plan">When it shows, with modifiers; none for always.</param>
/// <param name="Desktop">Modifier of desktops in per cent; none for as it is.</param>
/// <param name="Phone">Of phones.</param>
/// <param name="Tablet">Of tablets.</param>
/// <param name="Sites">Where it shows.</param>
/// <param name="LowestBid">Lowest max CPC that holds for one of its keywords; none without keywords or bids.</param>
/// <param name="HighestBid">The highest.</param>
/// <param name="MayCost">What a conversion may cost; none where nobody said.</param>
public sealed record PricedCampaign(
    long Id,
    long Version,
    string Name,
    ItemState State,
    WeekPlan? Plan,
    decimal? Desktop,
    decimal? Phone,
    decimal? Tablet,
    SiteKinds Sites,
    decimal? LowestBid,
    decimal? HighestBid,
    decimal? MayCost = null
)
{
    /// <summary>The modifier of a device in per cent; none for as it is.</summary>
    public decimal? ModifierOf(Device device) =>
        device switch
        {
            Device.Desktop => Desktop,
            Device.Phone => Phone,
            Device.Tablet => Tablet,
        };
}

/// <summary>Reads what campaigns bid by, from the working copy.</summary>
public sealed class PricedCampaignReader(NpgsqlDataSource source)
{
    /// <summary>The campaigns that are not removed, by name.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="campaigns">Only these; none for all.</param>
    /// <param name="bids">True to read the bids of keywords as well.</param>
    /// <param name="most">Most campaigns.</param>
    /// <param name="cancellation">Stops the reading.</param>
    public async Task<IReadOnlyList<PricedCampaign>> ReadAsync(
        int accountId,
        IReadOnlyList<long>? campaigns,
        bool bids,
        int most,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var lowest = bids ? "b.lowest" : "null::numeric";
        var highest = bids ? "b.highest" : "null::numeric";
        var rows = await connection.QueryAsync<Row>(
            new CommandDefinition(
                $"""
                select c.id, c.changed_by as version, c.name, c.state, c.hours, c.desktop_modifier as desktop, c.phone_modifier as phone, c.tablet_modifier as tablet, c.networks as sites, c.conversion_may_cost as may_cost,
                  {lowest} as lowest_bid, {highest} as highest_bid
                from campaign c
                {(
                    bids
                        ? "left join lateral (select min(coalesce(k.max_cpc, g.max_cpc)) as lowest, max(coalesce(k.max_cpc, g.max_cpc)) as highest from ad_group g join keyword k on k.ad_group_id = g.id and not k.removed where g.campaign_id = c.id and not g.removed) b on true"
                        : ""
                )}
                where c.account_id = @accountId and not c.removed and (@campaigns::bigint[] is null or c.id = any(@campaigns))
                order by c.name, c.id limit @most
                """,
                new
                {
                    accountId,
                    campaigns = campaigns?.ToArray(),
                    most,
                },
                cancellationToken: cancellation
            )
        );
        return [.. rows.Select(row => row.Campaign)];
    }

    private sealed record Row
    {
        public long Id { get; init; }
        public long Version { get; init; }
        public string Name { get; init; } = "";
        public ItemState State { get; init; }
        public string? Hours { get; init; }
        public decimal? Desktop { get; init; }
        public decimal? Phone { get; init; }
        public decimal? Tablet { get; init; }
        public SiteKinds Sites { get; init; }
        public decimal? LowestBid { get; init; }
        public decimal? HighestBid { get; init; }
        public decimal? MayCost { get; init; }

        public PricedCampaign Campaign =>
            new(
                Id,
                Version,
                Name,
                State,
                Hours is null ? null : WeekPlan.Of(Hours),
                Desktop,
                Phone,
                Tablet,
                Sites,
                LowestBid,
                HighestBid,
                MayCost
            );
    }
}
