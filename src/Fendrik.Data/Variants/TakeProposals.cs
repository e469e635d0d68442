using Fendrik.Core.Changes;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Variants;

/// <summary>
/// Takes over what was proposed in a look: just what was chosen, with the new items that it stands in. Undoing the step opens
/// the proposals again.
/// </summary>
/// <param name="LookId">The look.</param>
/// <param name="Proposals">Identities of the proposals.</param>
/// <param name="AsOf">When the newest was made of those that stood there; what was proposed otherwise since is not taken over unseen. None for what nobody looked at before.</param>
public sealed record TakeProposals(long LookId, IReadOnlyList<long> Proposals, DateTimeOffset? AsOf = null)
    : IWorkingCopyChange
{
    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        if (Proposals.Count == 0)
        {
            throw new InvalidChangeException("proposals", "Tick what is to be taken over.");
        }

        // Whoever proposes holds the look while their proposal is written; it is waited for before any item is touched.
        await LookRow.HoldAsync(context.Connection, context.Account.Id, LookId, context.Cancellation);
        var open = await ProposedRows.OpenAsync(context.Connection, LookId, context.Cancellation);
        var chosen = WithHolders(open, Proposals.ToHashSet());
        if (chosen.Count == 0)
        {
            throw new InvalidChangeException("proposals", "These are decided already. Load the page again.");
        }

        if (chosen.FirstOrDefault(item => item.MadeAt > AsOf) is { } newer)
        {
            var name = FieldDifferences.NameOf(ItemTypes.Of(newer.Kind), (newer.After ?? newer.Before)!.Value);
            throw new InvalidChangeException(
                "proposals",
                $"“{name}” was proposed otherwise meanwhile. Nothing was taken over; look at it again."
            );
        }

        var overlay = new Overlay(context, chosen);
        var items = await overlay.ApplyAsync();
        var taken = chosen.Where(item => !overlay.Refused.ContainsKey(item.Id)).ToArray();
        await context.ExecuteAsync(
            """
            update look_proposal p set step_id = @StepId, decided_by = s.person_id, decided_at = s.made_at
            from step s where s.id = @StepId and p.id = any(@ids)
            """,
            new { context.StepId, ids = taken.Select(item => item.Id).ToArray() }
        );
        return new StepOutcome(
            $"Take over {ItemTypes.Count(taken.Length, taken.Select(item => item.Kind).Distinct())} as proposed",
            items
        );
    }

    /// <summary>The chosen ones, and new items that they stand in.</summary>
    private static IReadOnlyList<ProposedItem> WithHolders(IReadOnlyList<ProposedItem> open, HashSet<long> chosen)
    {
        var made = open.Where(item => item.Before is null).ToDictionary(item => (item.Kind, item.ItemId));
        var left = new Queue<ProposedItem>(open.Where(item => chosen.Contains(item.Id)));
        while (left.TryDequeue(out var item))
        {
            foreach (var parent in ItemTypes.Of(item.Kind).ParentsOf((item.After ?? item.Before)!.Value))
            {
                if (made.TryGetValue(parent, out var holder) && chosen.Add(holder.Id))
                {
                    left.Enqueue(holder);
                }
            }
        }

        return [.. open.Where(item => chosen.Contains(item.Id))];
    }
}
