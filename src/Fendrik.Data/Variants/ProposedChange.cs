using Fendrik.Data.Items;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Variants;

/// <summary>
/// A command on top of what is proposed already. It is only ever previewed: what it changes is read off, kept as proposals, and
/// rolled back, so that whatever a command can do can be proposed.
/// </summary>
internal sealed class ProposedChange(IReadOnlyList<ProposedItem> soFar, IWorkingCopyChange change) : IWorkingCopyChange
{
    /// <summary>What the command changed of what was proposed so far; what goes with what it stands in is left out.</summary>
    public IReadOnlyList<ItemChange> Changes { get; private set; } = [];

    /// <summary>The proposals so far that could not be laid under it.</summary>
    public IReadOnlySet<long> NotLaid { get; private set; } = new HashSet<long>();

    /// <summary>True where it changed more than can be proposed.</summary>
    public bool IsTooMuch { get; private set; }

    public async Task<StepOutcome> ApplyAsync(StepContext context)
    {
        NotLaid = (await LayAsync(context, soFar)).Refused.Keys.ToHashSet();
        await context.ExecuteAsync(
            "select set_config('fendrik.step', @step, true)",
            new { step = $"{context.StepId}" }
        );
        var outcome = await change.ApplyAsync(context);
        // One removed ad group may take thousands with it: these are read, and left out.
        var most = (Refusals.MostNamed * 100) + 1;
        var read = await StepChanges.ReadAsync(context.Connection, context.StepId, most, newest: true);
        var gone = read.Where(each => each.After is null).Select(each => (each.Kind, each.Id)).ToHashSet();
        Changes =
        [
            .. read.Where(each =>
                each.After is not null
                || !ItemTypes.Of(each.Kind).ParentsOf(each.Before!.Value).Any(parent => gone.Contains(parent))
            ),
        ];
        IsTooMuch = read.Count == most || Changes.Count > Core.Changes.SecondLook.MostProposed;
        return outcome;
    }

    /// <summary>Lays proposals over the working copy without a trace in any step: what follows begins from there.</summary>
    internal static async Task<Overlay> LayAsync(StepContext context, IReadOnlyList<ProposedItem> items)
    {
        await context.ExecuteAsync("select set_config('fendrik.step', '0', true)");
        var under = new StepContext(context.Connection, context.Account, 0, context.Cancellation);
        var overlay = new Overlay(under, items);
        await overlay.ApplyAsync();
        return overlay;
    }
}
