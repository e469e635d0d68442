using Dapper;
using Fendrik.Core.Bidding;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands.Words;

/// <summary>Adds keywords in other match types beside those that are selected.</summary>
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
        var keywords = ItemTable.Of(ItemKind.Keyword);
        var bid = keywords.Type["maxCpc"];
        var parameters = new DynamicParameters(
            new { account = context.Account.Id, matches = Matches.Distinct().Select(match => (short)match).ToArray() }
        );
        var price = $"i.{bid.Column}";
        if (BidFactor is { } factor)
        {
            var change = new BidChange(AmountOperation.AddPercent, (factor - 1) * 100);
            AmountChanges.AddParameters(parameters, bid, change, context.Account);
            price = AmountChanges.Next(bid, change, $"coalesce(i.{bid.Column}, g.{bid.Column})");
        }

        var added = await context.ExecuteAsync(
            keywords.InsertFrom(
                $"""
                from (select distinct on (i.ad_group_id, i.text_key, m.match) i.*, m.match, {price} as price
                  from keyword i join ad_group g on g.id = i.ad_group_id cross join unnest(@matches) as m(match)
                  where {ItemSelection.Holds(ItemKind.Keyword)} and not exists
                    (select from keyword t where t.ad_group_id = i.ad_group_id and t.text_key = i.text_key and t.match_type = m.match and not t.removed)
                  order by i.ad_group_id, i.text_key, m.match, i.id) i
                """,
                "i",
                ("account_id", "@account"),
                ("match_type", "i.match"),
                (bid.Column, "i.price")
            ),
            parameters
        );
        return new StepOutcome($"Add match types: {ItemTypes.Count(added, [ItemKind.Keyword])}", added);
    }
}

/// <summary>Splits ad groups with keywords of several match types into one for each; the first keeps its name.</summary>
public sealed record SplitByMatchType(ItemSet Items) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        await ItemSelection.TakeAsync(context, Items);
        var groups = ItemTable.Of(ItemKind.AdGroup);
        await context.ExecuteAsync(
            """
            create temp table split on commit drop as
            select g.id as source_id, g.campaign_id, k.match_type, nextval(pg_get_serial_sequence('ad_group', 'id')) as new_id,
              g.name || k.suffix as name, g.name_key || k.suffix as name_key
            from ad_group g join lateral (
              select match_type, row_number() over (order by match_type) as place, ' – ' || (@names)[match_type] as suffix
              from keyword where ad_group_id = g.id and not removed group by match_type) k on k.place > 1
            where not g.removed and (g.id in (select id from selected where kind = @group) or g.campaign_id in (select id from selected where kind = @campaign))
            """,
            new
            {
                names = Choices.Match.OrderBy(choice => choice.Number).Select(choice => choice.Name).ToArray(),
                group = (int)ItemKind.AdGroup,
                campaign = (int)ItemKind.Campaign,
            }
        );
        var made = await context.ExecuteAsync(
            groups.InsertFrom(
                "from split s join ad_group i on i.id = s.source_id order by s.new_id",
                "i",
                ("id", "s.new_id"),
                ("name", "s.name"),
                ("name_key", "s.name_key")
            )
        );
        if (made == 0)
        {
            throw new InvalidChangeException(
                "items",
                "None of the selected ad groups has keywords of several match types."
            );
        }

        var items = 0;
        foreach (var table in ItemTable.All.Where(table => table.Type.StandsIn(Level.AdGroup)))
        {
            // Keywords go by their match type, all else that is in the group belongs to each part.
            var mine = table.Kind == ItemKind.Keyword ? " and i.match_type = s.match_type" : "";
            items += await context.ExecuteAsync(
                table.InsertFrom(
                    $"from split s join {table.Name} i on i.ad_group_id = s.source_id{mine} and not i.removed",
                    "i",
                    ("ad_group_id", "s.new_id")
                )
            );
        }

        items += await context.ExecuteAsync(
            $"update keyword i set removed = true, {ItemTable.Version} from split s where s.source_id = i.ad_group_id and s.match_type = i.match_type and not i.removed"
        );
        return new StepOutcome($"Split by match type into {made:N0} more ad groups", made + items);
    }
}
