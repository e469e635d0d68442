using Dapper;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Kinds;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Extensions;

/// <summary>So many extensions in reach from one level.</summary>
public sealed record ReachFrom(Level Level, int Count);

/// <summary>Extensions of one kind in one place.</summary>
/// <param name="Kind">The kind.</param>
/// <param name="Here">How many stand there itself, paused ones left out.</param>
/// <param name="InReach">How many an ad there could show.</param>
/// <param name="From">From which levels these are, the nearest first.</param>
/// <param name="Gap">How much it matters that they are so few; none when they are enough.</param>
/// <param name="Says">What the one says that stands there; none when there is none or several.</param>
public sealed record CoverageCell(
    ItemKind Kind,
    int Here,
    int InReach,
    IReadOnlyList<ReachFrom> From,
    Weight? Gap,
    string? Says
);

/// <summary>A place where extensions may stand.</summary>
/// <param name="Level">The level.</param>
/// <param name="CampaignId">The campaign; none for the account.</param>
/// <param name="AdGroupId">The ad group; none for a campaign.</param>
/// <param name="Name">Its name.</param>
/// <param name="Cells">By kind.</param>
/// <param name="OwnClicks">Clicks on extensions beside its ads, in the last weeks.</param>
public sealed record CoverageRow(
    Level Level,
    long? CampaignId,
    long? AdGroupId,
    string Name,
    IReadOnlyList<CoverageCell> Cells,
    long OwnClicks
);

/// <summary>How many ad groups have too few of a kind in reach.</summary>
/// <param name="Kind">The kind.</param>
/// <param name="Fewest">Below this something is amiss.</param>
/// <param name="Below">Ad groups with fewer.</param>
/// <param name="Wanted">Below this more would help.</param>
/// <param name="Fewer">Ad groups with fewer than that, those below the fewest left out.</param>
public sealed record CoverageGap(ItemKind Kind, int Fewest, int Below, int Wanted, int Fewer);

/// <summary>What each level has in reach, and where it comes from.</summary>
/// <param name="Levels">Which levels take part on the network.</param>
/// <param name="Rows">The account, campaigns, and ad groups behind each.</param>
/// <param name="More">True when there are more than were asked for.</param>
/// <param name="Gaps">What is missing in the whole of what was asked for.</param>
public sealed record Coverage(
    ExtensionLevels Levels,
    IReadOnlyList<CoverageRow> Rows,
    bool More,
    IReadOnlyList<CoverageGap> Gaps
);

/// <summary>Reads where extensions stand and what that means for the ads below.</summary>
public sealed class ExtensionCoverage(NpgsqlDataSource source)
{
    /// <summary>Days of figures.</summary>
    public const int Days = 28;

    private const string Places = """
        select 2::smallint as level, c.id as campaign_id, null::bigint as ad_group_id, c.name, c.name_key as campaign_key, '' as group_key
        from campaign c where c.account_id = @accountId and not c.removed and (@campaignId::bigint is null or c.id = @campaignId)
        union all
        select 3::smallint, g.campaign_id, g.id, g.name, c.name_key, g.name_key
        from ad_group g join campaign c on c.id = g.campaign_id and not c.removed
        where g.account_id = @accountId and not g.removed and (@campaignId::bigint is null or g.campaign_id = @campaignId)
          and (@adGroupId::bigint is null or g.id = @adGroupId)
        """;

    /// <summary>Reads the rows of what one is looking at.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="campaignId">A campaign, or none for all.</param>
    /// <param name="adGroupId">An ad group, or none for all.</param>
    /// <param name="most">Most campaigns and ad groups.</param>
    /// <param name="cancellation">Nobody waits any more.</param>
    public async Task<Coverage> ReadAsync(
        int accountId,
        long? campaignId,
        long? adGroupId,
        int most,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var account = await AccountFacts.ReadAsync(connection, accountId);
        var asked = new
        {
            accountId,
            campaignId,
            adGroupId,
            most = most + 1,
            running = (short)ItemState.Running,
            Days,
        };
        CommandDefinition Command(string sql) => new(sql, asked, cancellationToken: cancellation);
        var places = (
            await connection.QueryAsync<(short Level, long Campaign, long? AdGroup, string Name, string, string)>(
                Command(
                    $"select * from ({Places}) p order by campaign_key, campaign_id, level, group_key, ad_group_id limit @most"
                )
            )
        ).AsList();
        var kinds = new List<KindCounts>();
        foreach (var type in ItemTypes.Extensions)
        {
            var rows = await connection.QueryAsync<(long? Campaign, long? AdGroup, int Count, string Says)>(
                Command(
                    $"""
                    select i.campaign_id, i.ad_group_id, count(*)::int, min(i.text) from {ItemTable.Of(
                        type.Kind
                    ).Name} i
                    where i.account_id = @accountId and not i.removed and i.state = @running group by 1, 2
                    """
                )
            );
            kinds.Add(new KindCounts(type, account.Network.Extensions, [.. rows]));
        }

        var clicks = (
            await connection.QueryAsync<(long Campaign, long AdGroup, long Clicks)>(
                Command(
                    """
                    select e.campaign_id, e.ad_group_id, sum(e.own_clicks)::bigint from extension_day e join account a on a.id = e.account_id
                    where e.account_id = @accountId and e.day > a.reported_to - @Days group by 1, 2
                    """
                )
            )
        ).AsList();
        var groups = (
            await connection.QueryAsync<(long Campaign, int Groups)>(
                Command($"select campaign_id, count(*)::int from ({Places}) p where level = 3 group by 1")
            )
        ).AsList();
        var all = new CoverageRow(
            Level.Account,
            null,
            null,
            account.Name,
            [.. kinds.Select(kind => kind.CellOf(null, null))],
            clicks.Sum(each => each.Clicks)
        );
        var byCampaign = clicks.ToLookup(each => each.Campaign);
        var byGroup = clicks.ToDictionary(each => each.AdGroup, each => each.Clicks);
        return new Coverage(
            account.Network.Extensions.Levels,
            [
                all,
                .. places
                    .Take(most)
                    .Select(place => new CoverageRow(
                        (Level)place.Level,
                        place.Campaign,
                        place.AdGroup,
                        place.Name,
                        [.. kinds.Select(kind => kind.CellOf(place.Campaign, place.AdGroup))],
                        place.AdGroup is { } group
                            ? byGroup.GetValueOrDefault(group)
                            : byCampaign[place.Campaign].Sum(each => each.Clicks)
                    )),
            ],
            places.Count > most,
            [.. kinds.Select(kind => kind.GapIn(groups, adGroupId)).OfType<CoverageGap>()]
        );
    }

    /// <summary>How many extensions of a kind stand where.</summary>
    private sealed class KindCounts(
        ExtensionType type,
        ExtensionRules rules,
        (long? Campaign, long? AdGroup, int Count, string Says)[] rows
    )
    {
        private readonly Dictionary<(long?, long?), (int Count, string Says)> _at = rows.ToDictionary(
            row => (row.Campaign, row.AdGroup),
            row => (row.Count, row.Says)
        );

        public CoverageCell CellOf(long? campaign, long? adGroup)
        {
            var counts = CountsOf(campaign, adGroup);
            var (here, says) = _at.GetValueOrDefault((campaign, adGroup));
            var inReach = ExtensionReach.CountOf(rules.Levels, counts);
            return new CoverageCell(
                type.Kind,
                here,
                inReach,
                [
                    .. ExtensionReach
                        .LevelsOf(rules.Levels, counts)
                        .Select(level => new ReachFrom(level, counts.At(level))),
                ],
                ExtensionReach.GapOf(rules, type, inReach),
                here == 1 ? SaidBy(says) : null
            );
        }

        /// <summary>Ad groups without any of their own have what their campaign has; the others are looked at one by one.</summary>
        public CoverageGap? GapIn(IReadOnlyList<(long Campaign, int Groups)> groups, long? only)
        {
            var own = rows.Where(row => row.AdGroup is not null && (only is null || row.AdGroup == only))
                .ToLookup(row => row.Campaign!.Value, row => row.AdGroup!.Value);
            var (below, fewer) = (0, 0);
            void Count(Weight? gap, int times)
            {
                below += gap == Weight.Caution ? times : 0;
                fewer += gap == Weight.Hint ? times : 0;
            }

            foreach (var (campaign, number) in groups)
            {
                Count(GapOf(campaign, null), number - own[campaign].Count());
                foreach (var group in own[campaign])
                {
                    Count(GapOf(campaign, group), 1);
                }
            }

            var (fewest, wanted) = type.InReach(rules);
            return below + fewer == 0 ? null : new CoverageGap(type.Kind, fewest, below, wanted, fewer);
        }

        private Weight? GapOf(long campaign, long? group) =>
            ExtensionReach.GapOf(rules, type, ExtensionReach.CountOf(rules.Levels, CountsOf(campaign, group)));

        private ExtensionCounts CountsOf(long? campaign, long? adGroup) =>
            new(
                _at.GetValueOrDefault((null, null)).Count,
                campaign is null ? 0 : _at.GetValueOrDefault((campaign, null)).Count,
                adGroup is null ? 0 : _at.GetValueOrDefault((campaign, adGroup)).Count
            );

        private string SaidBy(string text) => (string)type["text"].Type.ForScreen(text);
    }
}
