using Fendrik.Data.Accounts;
using Fendrik.Data.Items;

namespace Fendrik.Data.Commands;

/// <summary>Where items are to stand: in or on any number of campaigns, ad groups and lists, or on the account.</summary>
/// <param name="CampaignIds">Campaigns.</param>
/// <param name="AdGroupIds">Ad groups.</param>
/// <param name="ListIds">Lists.</param>
/// <param name="OnAccount">On the account besides; it is meant as well when nothing else is named.</param>
public sealed record ItemPlaces(
    IReadOnlyList<long>? CampaignIds = null,
    IReadOnlyList<long>? AdGroupIds = null,
    IReadOnlyList<long>? ListIds = null,
    bool? OnAccount = null
)
{
    private IReadOnlyList<long> Campaigns => CampaignIds ?? [];
    private IReadOnlyList<long> AdGroups => AdGroupIds ?? [];
    private IReadOnlyList<long> Lists => ListIds ?? [];

    private int Named => Campaigns.Distinct().Count() + AdGroups.Distinct().Count() + Lists.Distinct().Count();

    internal bool IsAccount => OnAccount == true || Named == 0;

    internal int Count => Named + (IsAccount ? 1 : 0);

    /// <summary>The places as rows of parents, of this account and not removed; named p.</summary>
    internal const string Rows = """
        (select c.id as campaign_id, null::bigint as ad_group_id, null::bigint as list_id from campaign c
           where c.account_id = @account and c.id = any(@placeCampaigns) and not c.removed
         union all select g.campaign_id, g.id, null from ad_group g where g.account_id = @account and g.id = any(@placeGroups) and not g.removed
         union all select null, null, l.id from negative_list l where l.account_id = @account and l.id = any(@placeLists) and not l.removed
         union all select null, null, null where @placeAccount) p
        """;

    internal object Parameters(int account) =>
        new
        {
            account,
            placeCampaigns = Campaigns.Distinct().ToArray(),
            placeGroups = AdGroups.Distinct().ToArray(),
            placeLists = Lists.Distinct().ToArray(),
            placeAccount = IsAccount,
        };

    /// <summary>The columns of an item that name its place, from <see cref="Rows"/>.</summary>
    internal static (string Column, string Sql)[] ParentsOf(ItemTable table) =>
        [.. table.Parents.Select(parent => (parent.Column, $"p.{parent.Column}"))];

    /// <exception cref="InvalidChangeException">An item of the kind cannot stand in one of them.</exception>
    internal void Check(ItemType type)
    {
        foreach (
            var (level, named) in new[]
            {
                (Level.Campaign, Campaigns.Count > 0),
                (Level.AdGroup, AdGroups.Count > 0),
                (Level.List, Lists.Count > 0),
                (Level.Account, IsAccount),
            }
        )
        {
            if (named && !type.StandsIn(level))
            {
                throw new InvalidChangeException(
                    "places",
                    $"{FieldInputs.Article(type.Noun)} {type.Noun} stands {string.Join(" or ", type.Levels.Select(InWords))}. Choose one."
                );
            }
        }
    }

    private static string InWords(Level level) =>
        level switch
        {
            Level.Account => "on the account",
            Level.Campaign => "in a campaign",
            Level.AdGroup => "in an ad group",
            Level.List => "in a list",
        };
}
