using Fendrik.Core.Checks;

namespace Fendrik.Core.Tracking.Conversions;

/// <summary>A change that mends what an audit found: a field of items, as a person would type it.</summary>
/// <param name="Label">What it is called.</param>
/// <param name="Kind">Kind of the items.</param>
/// <param name="Ids">The items.</param>
/// <param name="Field">Name of the field.</param>
/// <param name="Text">What it becomes; empty to clear it.</param>
public sealed record AuditRepair(string Label, ItemKind Kind, IReadOnlyList<long> Ids, string Field, string Text);

/// <summary>Something that an audit of the conversions found.</summary>
/// <param name="Weight">How much it matters.</param>
/// <param name="Code">Which finding it is.</param>
/// <param name="ActionId">The action that it is about; none when it is about none.</param>
/// <param name="CampaignId">The campaign that it is about; none when it is about none.</param>
/// <param name="Message">What was found, in a short line.</param>
/// <param name="Advice">What it does and what to do, in sentences.</param>
/// <param name="Repairs">Changes that mend it, the best first.</param>
public sealed record AuditFinding(
    Weight Weight,
    string Code,
    long? ActionId,
    long? CampaignId,
    string Message,
    string Advice,
    IReadOnlyList<AuditRepair> Repairs
);
