using Fendrik.Core.Items.Values;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Data.Accounts;
using Fendrik.Data.Commands;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Conversions;

/// <summary>Says which actions count in campaigns. Goals that come to those of the account are none of the campaign's own.</summary>
/// <param name="CampaignIds">The campaigns.</param>
/// <param name="ActionIds">The actions; none to go by the goals of the account.</param>
public sealed record SetGoals(IReadOnlyList<long> CampaignIds, IReadOnlyList<long>? ActionIds) : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        if (CampaignIds.Count == 0)
        {
            throw new InvalidChangeException("campaignIds", "Choose a campaign.");
        }

        // Nothing at all would mean the goals of the account.
        if (ActionIds is { Count: 0 })
        {
            throw new InvalidChangeException(
                "actionIds",
                "A campaign needs a goal. Choose one, or go by the goals of the account."
            );
        }

        var actions = await ConversionActions.ReadAsync(context.Connection, context.Account.Id, default);
        if (ActionIds?.Any(id => actions.All(action => action.Id != id)) == true)
        {
            throw new InvalidChangeException(
                "actionIds",
                "A conversion action among the goals is gone. Look at the list again."
            );
        }

        var goals = ActionIds is null ? null : TextOf(actions, ActionIds);
        var table = ItemTable.Of(ItemKind.Campaign);
        var changed = await new CellUpdate(
            context,
            table,
            [
                .. CampaignIds
                    .Distinct()
                    .Order()
                    .Select(id =>
                        (
                            id,
                            (IReadOnlyDictionary<Field, object?>)
                                new Dictionary<Field, object?> { [table.Type["goals"]] = goals }
                        )
                    ),
            ]
        ).ApplyAsync();
        var campaigns = ItemTypes.Count(changed, [ItemKind.Campaign]);
        return new StepOutcome(
            goals is null ? $"Use the goals of the account in {campaigns}" : $"Set goals of {campaigns} to {goals}",
            changed
        );
    }

    /// <summary>Goals as they are kept; none when they come to those of the account.</summary>
    internal static string? TextOf(IReadOnlyList<ConversionAction> actions, IReadOnlyCollection<long> ids)
    {
        var text = GoalsValue.Kept(actions.Where(action => ids.Contains(action.Id)).Select(action => action.Name));
        return text == GoalsValue.Kept(new ConversionGoals(actions).Of(null).Select(action => action.Name))
            ? null
            : text;
    }
}
