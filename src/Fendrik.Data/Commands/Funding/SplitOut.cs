using Fendrik.Data.Accounts;
using Fendrik.Data.Commands.Copying;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Commands.Funding;

/// <summary>
/// Gives ad groups of a campaign a campaign of their own, with all that holds in it, and a budget of their own; the rest stays where it is.
/// </summary>
/// <param name="CampaignId">The campaign.</param>
/// <param name="AdGroupIds">Ad groups of it.</param>
/// <param name="Name">Name of the new campaign.</param>
/// <param name="Budget">Its daily budget, as it is typed.</param>
/// <param name="Rest">The daily budget that the campaign keeps, as it is typed.</param>
public sealed record SplitOut(long CampaignId, IReadOnlyList<long> AdGroupIds, string Name, string Budget, string Rest)
    : IWorkingCopyChange
{
    public AccountDoing Doing => AccountDoing.Copy;

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        // Both are read before anything is done: each is told where it stands.
        TypedBudget.Read(Budget, context.Account).In("budget");
        var field = ItemTypes.Of(ItemKind.Campaign)["dailyBudget"];
        var rest = new Dictionary<Field, object?> { [field] = TypedBudget.Read(Rest, context.Account).In("rest") };
        if (string.IsNullOrWhiteSpace(Name))
        {
            throw new InvalidChangeException("name", "Name the new campaign.");
        }

        var (mine, others) = (
            await context.QueryAsync<(int, int)>(
                """
                select count(*) filter (where id = any(@groups))::int, count(*) filter (where id <> all(@groups))::int
                from ad_group where account_id = @account and campaign_id = @campaign and not removed
                """,
                new
                {
                    account = context.Account.Id,
                    campaign = CampaignId,
                    groups = AdGroupIds.ToArray(),
                }
            )
        ).Single();
        if (mine == 0 || mine < AdGroupIds.Distinct().Count())
        {
            throw new InvalidChangeException(
                "adGroupIds",
                "An ad group is not in the campaign any more. Nothing was changed."
            );
        }

        if (others == 0)
        {
            throw new InvalidChangeException(
                "adGroupIds",
                "These are all ad groups of the campaign: there is nothing to part them from."
            );
        }

        await ItemSelection.TakeAsync(context, new ItemSet([new ItemReference(ItemKind.Campaign, CampaignId)], null));
        var edits = new CopyEdits
        {
            NamePattern = Name,
            Set = new Dictionary<string, FieldInput> { ["dailyBudget"] = new(Budget) },
        };
        var copies = new CopiedRows(context, new CopyPlace([], []), edits, [], AdGroupIds);
        var made = 0;
        foreach (var table in ItemTable.All.Where(table => table.Type.ComesAndGoes))
        {
            made += await copies.MakeAsync(table);
        }

        if (context.Refused.Count > 0)
        {
            throw new InvalidChangeException(
                "name",
                $"A campaign with the name “{Name.Trim()}” is there already. Choose another; nothing was changed."
            );
        }

        await ItemSelection.TakeAsync(
            context,
            new ItemSet([.. AdGroupIds.Select(id => new ItemReference(ItemKind.AdGroup, id))], null)
        );
        var removed = await RemoveItems.SelectedAsync(context);
        var changed = await new CellUpdate(context, ItemTable.Of(ItemKind.Campaign), [(CampaignId, rest)]).ApplyAsync();
        return new StepOutcome(
            $"Split {ItemTypes.Count(mine, [ItemKind.AdGroup])} out into “{Name.Trim()}”",
            made + removed + changed
        );
    }
}
