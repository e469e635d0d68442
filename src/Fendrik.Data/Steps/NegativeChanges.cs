using Fendrik.Core.Accounts;

namespace Fendrik.Data.Steps;

/// <summary>Adds a shared list, with its negatives and the campaigns that share it.</summary>
public sealed record AddNegativeList(string Name, IReadOnlyList<long> CampaignIds, string Lines, MatchType Match)
    : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        var name = Texts.Checked("name", Name, "The name");
        var id = await context.ScalarAsync<long>(
            $"""
            insert into negative_list (account_id, name, name_key, campaign_ids, removed, is_live, review)
            values (@account, @name, @key, {NegativePlaces.CampaignsOfAccount}, false, false, 0) returning id
            """,
            new
            {
                account = context.Account.Id,
                name,
                key = TextIdentity.Of(name),
                campaigns = CampaignIds.ToArray(),
            }
        );
        var added = string.IsNullOrWhiteSpace(Lines)
            ? 0
            : await NegativePlaces.AddAsync(
                context,
                WordLines.Read(Lines, Match, negative: true),
                new NegativePlaces([], [], [id])
            );
        return new StepOutcome(
            $"Add negative list “{name}” with {ItemSelection.Describe(added, [ItemKind.NegativeKeyword])}",
            added + 1
        );
    }
}

/// <summary>Where negatives go: campaigns, ad groups and shared lists, several at once.</summary>
public sealed record NegativePlaces(
    IReadOnlyList<long> CampaignIds,
    IReadOnlyList<long> AdGroupIds,
    IReadOnlyList<long> ListIds
)
{
    /// <summary>The account's campaigns among those named, ascending.</summary>
    internal const string CampaignsOfAccount =
        "(select coalesce(array_agg(c.id order by c.id), '{}') from campaign c where c.account_id = @account and c.id = any(@campaigns) and not c.removed)";

    internal static async Task<int> AddAsync(StepContext context, WordLines words, NegativePlaces places)
    {
        var parameters = new
        {
            account = context.Account.Id,
            campaigns = places.CampaignIds.ToArray(),
            groups = places.AdGroupIds.ToArray(),
            lists = places.ListIds.ToArray(),
            texts = words.Texts,
            keys = words.Keys,
            matches = words.Matches,
        };
        const string wanted = """
            (select p.*, l.* from (
               select c.id as campaign_id, null::bigint as ad_group_id, null::bigint as list_id from campaign c where c.account_id = @account and c.id = any(@campaigns) and not c.removed
               union all select g.campaign_id, g.id, null from ad_group g where g.account_id = @account and g.id = any(@groups) and not g.removed
               union all select null, null, n.id from negative_list n where n.account_id = @account and n.id = any(@lists) and not n.removed) p
             cross join (select distinct on (key, match) text, key, match from unnest(@texts, @keys, @matches) as w(text, key, match) order by key, match) l) i
            """;
        var all = await context.ScalarAsync<int>($"select count(*) from {wanted}", parameters);
        var added = await context.ExecuteAsync(
            $"""
            insert into negative_keyword (account_id, campaign_id, ad_group_id, list_id, text, text_key, match_type, removed, is_live, review)
            select @account, i.campaign_id, i.ad_group_id, i.list_id, i.text, i.key, i.match, false, false, 0 from {wanted}
            where not exists (select from negative_keyword t where {ItemTable.Of(
                ItemKind.NegativeKeyword
            ).SameParent} and t.text_key = i.key and t.match_type = i.match and not t.removed)
            """,
            parameters
        );
        if (added < all)
        {
            context.Refused.Add(
                new RefusedItem(ItemKind.NegativeKeyword, 0, "", $"{all - added:N0} were there already."),
                all - added
            );
        }

        return added;
    }
}

/// <summary>Adds negatives to several campaigns, ad groups and lists at once.</summary>
/// <param name="Lines">One negative on a line.</param>
/// <param name="Match">Match type of bare words, or of all.</param>
/// <param name="MatchForAll">True when the match type holds for lines with notation too.</param>
/// <param name="Places">Where they go.</param>
public sealed record AddNegatives(string Lines, MatchType Match, bool MatchForAll, NegativePlaces Places)
    : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        if (Places.CampaignIds.Count + Places.AdGroupIds.Count + Places.ListIds.Count == 0)
        {
            throw new InvalidChangeException("places", "Choose at least one campaign, ad group or list.");
        }

        var added = await NegativePlaces.AddAsync(
            context,
            WordLines.Read(Lines, Match, negative: true, MatchForAll),
            Places
        );
        return added == 0 && context.Refused.Count == 0
            ? throw new InvalidChangeException("places", "The places are gone. Choose others.")
            : new StepOutcome($"Add {ItemSelection.Describe(added, [ItemKind.NegativeKeyword])}", added);
    }
}

/// <summary>Has campaigns share lists, or no longer.</summary>
/// <param name="Items">The lists.</param>
/// <param name="CampaignIds">The campaigns.</param>
/// <param name="Shared">True to share, false to stop.</param>
public sealed record ShareNegativeLists(ItemSet Items, IReadOnlyList<long> CampaignIds, bool Shared)
    : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        if (CampaignIds.Count == 0)
        {
            throw new InvalidChangeException("campaignIds", "Choose at least one campaign.");
        }

        await ItemSelection.TakeAsync(context, Items);
        var next = Shared
            ? $"array(select unnest(i.campaign_ids) union select unnest({NegativePlaces.CampaignsOfAccount}) order by 1)"
            : "array(select c from unnest(i.campaign_ids) c where c <> all(@campaigns) order by 1)";
        var changed = await context.ExecuteAsync(
            $"""
            update negative_list i set campaign_ids = {next}, {ItemTable.KeepLive}
            where {ItemSelection.Holds(ItemKind.NegativeList)} and i.campaign_ids is distinct from {next}
            """,
            new { account = context.Account.Id, campaigns = CampaignIds.ToArray() }
        );
        return new StepOutcome(
            Shared
                ? $"Share {ItemSelection.Describe(changed, [ItemKind.NegativeList])} with {ItemSelection.Describe(CampaignIds.Count, [ItemKind.Campaign])}"
                : $"Stop sharing {ItemSelection.Describe(changed, [ItemKind.NegativeList])}",
            changed
        );
    }
}

/// <summary>
/// Makes the exact keywords of each ad group exact negatives in its siblings, so that a search goes to the ad group that
/// is about it. Common practice, no source.
/// </summary>
/// <param name="Items">Ad groups, or campaigns for all ad groups in them.</param>
/// <param name="Match">Match type of the negatives.</param>
public sealed record CrossNegatives(ItemSet Items, MatchType Match = MatchType.Exact) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        await ItemSelection.TakeAsync(context, Items);
        const string chosen =
            "(select g.id, g.campaign_id from ad_group g where not g.removed and (g.id in (select id from selected where kind = 2) or g.campaign_id in (select id from selected where kind = 1)))";
        var groups = await context.ScalarAsync<int>($"select count(*) from {chosen} g", null);
        if (groups == 0)
        {
            throw new InvalidChangeException("items", "Select ad groups, or campaigns with ad groups in them.");
        }

        // A sibling that bids on the same words must not be blocked by its own neighbour.
        var added = await context.ExecuteAsync(
            $"""
            insert into negative_keyword (account_id, campaign_id, ad_group_id, text, text_key, match_type, removed, is_live, review)
            select distinct on (o.id, k.text_key) @account, o.campaign_id, o.id, k.text, k.text_key, @match::smallint, false, false, 0
            from {chosen} g join keyword k on k.ad_group_id = g.id and k.match_type = 1 and not k.removed
            join {chosen} o on o.campaign_id = g.campaign_id and o.id <> g.id
            where not exists (select from keyword s where s.ad_group_id = o.id and s.text_key = k.text_key and not s.removed)
              and not exists (select from negative_keyword n where coalesce(n.campaign_id, 0) = o.campaign_id and coalesce(n.ad_group_id, 0) = o.id and coalesce(n.list_id, 0) = 0
                and n.text_key = k.text_key and n.match_type = @match and not n.removed)
            order by o.id, k.text_key
            """,
            new { account = context.Account.Id, match = (short)Match }
        );
        return new StepOutcome(
            $"Cross-negatives: add {ItemSelection.Describe(added, [ItemKind.NegativeKeyword])} to {ItemSelection.Describe(groups, [ItemKind.AdGroup])}",
            added
        );
    }
}
