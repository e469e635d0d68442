using Fendrik.Core.Changes;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Variants;

/// <summary>Something that is proposed for an item of a campaign that is shown.</summary>
/// <param name="Id">Identity of the proposal.</param>
/// <param name="Change">The item before and as proposed.</param>
/// <param name="PersonId">Who proposed it.</param>
/// <param name="Person">What they are called.</param>
/// <param name="MadeAt">When.</param>
/// <param name="State">What became of it.</param>
/// <param name="DecidedBy">Who decided; none while nobody has.</param>
/// <param name="DecidedAt">When.</param>
/// <param name="Problem">Why it cannot be taken over as things stand; none where it can.</param>
public sealed record KeptProposal(
    long Id,
    ItemChange Change,
    string PersonId,
    string Person,
    DateTimeOffset MadeAt,
    ProposalState State,
    string? DecidedBy,
    DateTimeOffset? DecidedAt,
    string? Problem
);
