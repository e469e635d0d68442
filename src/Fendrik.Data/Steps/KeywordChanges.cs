using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;

namespace Fendrik.Data.Steps;

/// <summary>Combines lists of words into keywords, and puts them into ad groups.</summary>
/// <param name="AdGroupIds">The ad groups; each gets all of them.</param>
/// <param name="Lists">The lists, in the order in which their words stand.</param>
/// <param name="Matches">Match types that each is made in.</param>
/// <param name="MaxCpc">Own max CPC, or none for the ad group's.</param>
public sealed record AddCombinedWords(
    IReadOnlyList<long> AdGroupIds,
    IReadOnlyList<IReadOnlyList<string>> Lists,
    IReadOnlyList<MatchType> Matches,
    decimal? MaxCpc
) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        if (AdGroupIds.Count == 0)
        {
            throw new InvalidChangeException("adGroupIds", "Choose an ad group for them.");
        }

        var combined = Combined(Lists, Matches, context.Account.Network);
        if (combined.Duplicates + combined.TooLong > 0)
        {
            context.Refused.Add(
                new RefusedItem(
                    ItemKind.Keyword,
                    0,
                    "",
                    $"{combined.Duplicates:N0} came twice, {combined.TooLong:N0} had more than {context.Account.Network.KeywordWords} words."
                ),
                combined.Duplicates + combined.TooLong
            );
        }

        var keywords = combined.Keywords;
        const string wanted = """
            (select g.id as ad_group_id, l.* from ad_group g cross join unnest(@texts, @keys, @matches) as l(text, key, match)
             where g.account_id = @account and g.id = any(@groups) and not g.removed) i
            """;
        var parameters = new
        {
            account = context.Account.Id,
            groups = AdGroupIds.ToArray(),
            texts = keywords.Select(each => each.Text).ToArray(),
            keys = keywords.Select(each => TextIdentity.Of(each.Text)).ToArray(),
            matches = keywords.Select(each => (short)each.Match).ToArray(),
            maxCpc = Texts.Amount("maxCpc", MaxCpc, context.Account.Currency),
        };
        var added = await context.ExecuteAsync(
            $"""
            insert into keyword (account_id, ad_group_id, text, text_key, match_type, state, max_cpc, removed, is_live, review)
            select @account, i.ad_group_id, i.text, i.key, i.match, 1, @maxCpc, false, false, 0 from {wanted}
            where not exists (select from keyword t where t.ad_group_id = i.ad_group_id and t.text_key = i.key and t.match_type = i.match and not t.removed)
            """,
            parameters
        );
        var all = await context.ScalarAsync<int>($"select count(*) from {wanted}", parameters);
        if (added < all)
        {
            context.Refused.Add(
                new RefusedItem(ItemKind.Keyword, 0, "", $"{all - added:N0} were there already."),
                all - added
            );
        }

        return new StepOutcome($"Combine words into {ItemSelection.Describe(added, [ItemKind.Keyword])}", added);
    }

    /// <summary>What the lists give, for a look before anything is made.</summary>
    /// <exception cref="InvalidChangeException">They give nothing, or too much.</exception>
    public static CombinedWords Combined(
        IReadOnlyList<IReadOnlyList<string>> lists,
        IReadOnlyList<MatchType> matches,
        NetworkProfile network
    )
    {
        if (matches.Count == 0)
        {
            throw new InvalidChangeException("matches", "Choose at least one match type.");
        }

        if (
            lists.Count > 6
            || lists.Sum(list => list.Count) > 5_000
            || lists.Any(list => list.Any(word => word.Length > 100))
        )
        {
            throw new InvalidChangeException(
                "lists",
                "At most six lists with 5,000 entries of 100 characters can be combined."
            );
        }

        if (lists.All(list => list.All(string.IsNullOrWhiteSpace)))
        {
            throw new InvalidChangeException("lists", "Enter words, one on each line.");
        }

        try
        {
            return WordLists.Combine(lists, [.. matches.Distinct()], network.KeywordWords);
        }
        catch (ArgumentException error)
        {
            throw new InvalidChangeException("lists", error.Message);
        }
    }
}

/// <summary>Adds each selected keyword in other match types beside itself.</summary>
public sealed record AddMatchTypes(ItemSet Items, IReadOnlyList<MatchType> Matches, decimal? BidFactor)
    : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        if (Matches.Count == 0)
        {
            throw new InvalidChangeException("matches", "Choose at least one match type.");
        }

        if (BidFactor is <= 0 or > 100)
        {
            throw new InvalidChangeException("bidFactor", "The factor must be above zero and at most 100.");
        }

        await ItemSelection.TakeAsync(context, Items);
        var added = await context.ExecuteAsync(
            $"""
            insert into keyword (account_id, ad_group_id, text, text_key, match_type, state, max_cpc, final_url, labels, removed, is_live, review)
            select distinct on (i.ad_group_id, i.text_key, m.match) @account, i.ad_group_id, i.text, i.text_key, m.match, i.state,
              case when @factor::numeric is null then i.max_cpc
                else least(greatest(round(coalesce(i.max_cpc, g.max_cpc) * @factor / @step) * @step, @floor), 1000000) + 0 * coalesce(i.max_cpc, g.max_cpc) end,
              i.final_url, i.labels, false, false, 0
            from keyword i join ad_group g on g.id = i.ad_group_id cross join unnest(@matches) as m(match)
            where {ItemSelection.Holds(ItemKind.Keyword)} and not exists
              (select from keyword t where t.ad_group_id = i.ad_group_id and t.text_key = i.text_key and t.match_type = m.match and not t.removed)
            order by i.ad_group_id, i.text_key, m.match, i.id
            """,
            new
            {
                account = context.Account.Id,
                matches = Matches.Distinct().Select(match => (short)match).ToArray(),
                factor = BidFactor,
                step = context.Account.Currency.SmallestAmount,
                floor = context.Account.Network.MinimumCpc,
            }
        );
        return new StepOutcome($"Add match types: {ItemSelection.Describe(added, [ItemKind.Keyword])}", added);
    }
}

/// <summary>
/// Gives each match type an ad group of its own: keywords go into new ad groups beside the old one, with its ads and
/// negatives; the first match type stays. What moves begins anew on the network, so figures stay with the old ad group.
/// </summary>
public sealed record SplitByMatchType(ItemSet Items) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        await ItemSelection.TakeAsync(context, Items);
        await context.ExecuteAsync(
            """
            create temp table split on commit drop as
            select g.id as source_id, g.campaign_id, k.match_type, nextval(pg_get_serial_sequence('ad_group', 'id')) as new_id,
              g.name || k.suffix as name, g.name_key || k.suffix as name_key
            from ad_group g join lateral (
              select match_type, row_number() over (order by match_type) as place, ' – ' || (array['exact', 'phrase', 'all words', 'broad'])[match_type] as suffix
              from keyword where ad_group_id = g.id and not removed group by match_type) k on k.place > 1
            where not g.removed and (g.id in (select id from selected where kind = 2) or g.campaign_id in (select id from selected where kind = 1))
            """
        );
        var groups = await context.ExecuteAsync(
            """
            insert into ad_group (id, account_id, campaign_id, name, name_key, state, max_cpc, labels, removed, is_live, review)
            select s.new_id, @account, s.campaign_id, s.name, s.name_key, g.state, g.max_cpc, g.labels, false, false, 0
            from split s join ad_group g on g.id = s.source_id order by s.new_id
            """,
            new { account = context.Account.Id }
        );
        if (groups == 0)
        {
            throw new InvalidChangeException(
                "items",
                "None of the selected ad groups has keywords of several match types."
            );
        }

        var items = await context.ExecuteAsync(
            """
            insert into keyword (account_id, ad_group_id, text, text_key, match_type, state, max_cpc, final_url, labels, removed, is_live, review)
            select k.account_id, s.new_id, k.text, k.text_key, k.match_type, k.state, k.max_cpc, k.final_url, k.labels, false, false, 0
            from split s join keyword k on k.ad_group_id = s.source_id and k.match_type = s.match_type and not k.removed
            """
        );
        items += await context.ExecuteAsync(
            $"update keyword i set removed = true, {ItemTable.Version} from split s where s.source_id = i.ad_group_id and s.match_type = i.match_type and not i.removed"
        );
        items += await context.ExecuteAsync(
            """
            insert into negative_keyword (account_id, campaign_id, ad_group_id, text, text_key, match_type, labels, removed, is_live, review)
            select n.account_id, n.campaign_id, s.new_id, n.text, n.text_key, n.match_type, n.labels, false, false, 0
            from split s join negative_keyword n on n.ad_group_id = s.source_id and not n.removed
            """
        );
        items += await context.ExecuteAsync(
            """
            insert into text_ad (account_id, ad_group_id, state, headlines, descriptions, display_path, final_url, device_preference, content_key, labels, removed, is_live, review)
            select a.account_id, s.new_id, a.state, a.headlines, a.descriptions, a.display_path, a.final_url, a.device_preference, a.content_key, a.labels, false, false, 0
            from split s join text_ad a on a.ad_group_id = s.source_id and not a.removed
            """
        );
        return new StepOutcome($"Split by match type into {groups:N0} more ad groups", groups + items);
    }
}
