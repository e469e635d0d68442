using Fendrik.Core.Matching;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands.Words;

/// <summary>
/// Gives each of the selected ad groups the exact keywords of its neighbours as negatives, so that a search goes to the
/// group that is about it.
/// </summary>
public sealed record CrossNegatives(ItemSet Items, MatchType Match = MatchType.Exact) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        await ItemSelection.TakeAsync(context, Items);
        var chosen =
            $"(select g.id, g.campaign_id from ad_group g where not g.removed and (g.id in (select id from selected where kind = {(int)ItemKind.AdGroup}) or g.campaign_id in (select id from selected where kind = {(int)ItemKind.Campaign})))";
        var groups = await context.ScalarAsync<int>($"select count(*) from {chosen} g", null);
        if (groups == 0)
        {
            throw new InvalidChangeException("items", "Select ad groups, or campaigns with ad groups in them.");
        }

        var table = ItemTable.Of(ItemKind.NegativeKeyword);
        // A sibling that bids on the same words is steered away from the search, but must not be kept from all of its searches.
        string Blocked(params string[] words) =>
            string.Join(
                ", ",
                Enum.GetValues<MatchType>()
                    .Where(match => NegativeReach.BlockingOf(words, Match, words, match) == Blocking.Wholly)
                    .Select(match => (int)match)
            );
        var added = await context.ExecuteAsync(
            table.Insert(
                $"""
                from (select distinct on (o.id, k.text_key) o.campaign_id, o.id as ad_group_id, null::bigint as list_id, k.text, k.text_key
                  from {chosen} g join keyword k on k.ad_group_id = g.id and k.match_type = {(int)
                    MatchType.Exact} and not k.removed
                  join {chosen} o on o.campaign_id = g.campaign_id and o.id <> g.id
                  where not exists (select from keyword s where s.ad_group_id = o.id and s.text_key = k.text_key and not s.removed
                    and case when {TextMeasures.WordsOf("s.text")} = 1 then s.match_type in ({Blocked("one")}) else s.match_type in ({Blocked("one", "two")}) end)
                  order by o.id, k.text_key) p
                where not exists (select from negative_keyword n where {table.SamePlace(
                    "n",
                    "p"
                )} and n.text_key = p.text_key and n.match_type = @match and not n.removed)
                """,
                [
                    ("account_id", "@account"),
                    .. ItemPlaces.ParentsOf(table),
                    ("text", "p.text"),
                    ("text_key", "p.text_key"),
                    ("match_type", "@match::smallint"),
                ]
            ),
            new { account = context.Account.Id, match = (short)Match }
        );
        return new StepOutcome(
            $"Cross-negatives: add {ItemTypes.Count(added, [ItemKind.NegativeKeyword])} to {ItemTypes.Count(groups, [ItemKind.AdGroup])}",
            added
        );
    }
}
