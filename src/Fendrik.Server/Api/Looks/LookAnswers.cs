using Fendrik.Core.Changes;
using Fendrik.Data.Publishing;
using Fendrik.Data.Steps;

namespace Fendrik.Server.Api;

/// <summary>Changes that a colleague is asked to look at.</summary>
/// <param name="Items">The changes.</param>
/// <param name="Note">What is said with it.</param>
public sealed record LookWish(IReadOnlyList<ItemReference> Items, string? Note = null);

/// <summary>A campaign that is to be shown to the others of the account.</summary>
/// <param name="CampaignId">The campaign.</param>
/// <param name="Note">What is said with it.</param>
public sealed record CampaignToShow(long CampaignId, string? Note = null);

/// <summary>A second look as a list shows it.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="AskedBy">Who asked.</param>
/// <param name="IsMine">True for who asks now.</param>
/// <param name="Note">What they said.</param>
/// <param name="State">How it stands.</param>
/// <param name="Items">How many changes it is about.</param>
/// <param name="Remarks">How many remarks there are.</param>
/// <param name="MadeAt">When it was asked for.</param>
/// <param name="AnsweredBy">Who answered.</param>
/// <param name="AnsweredAt">When.</param>
/// <param name="CampaignId">The campaign that is shown; none where it is about changes.</param>
/// <param name="Campaign">What that is called.</param>
/// <param name="Proposed">How many proposals are open.</param>
public sealed record LookView(
    long Id,
    string AskedBy,
    bool IsMine,
    string Note,
    LookState State,
    int Items,
    int Remarks,
    DateTimeOffset MadeAt,
    string? AnsweredBy,
    DateTimeOffset? AnsweredAt,
    long? CampaignId,
    string? Campaign,
    int Proposed
);

/// <summary>Something that is proposed for an item of a campaign that is shown.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Line">The item before and as proposed.</param>
/// <param name="Person">Who proposed it.</param>
/// <param name="IsMine">True for who asks now.</param>
/// <param name="MadeAt">When.</param>
/// <param name="State">What became of it.</param>
/// <param name="DecidedBy">Who decided.</param>
/// <param name="DecidedAt">When.</param>
/// <param name="Problem">Why it cannot be taken over as things stand; none where it can.</param>
public sealed record ProposalView(
    long Id,
    ChangeLine Line,
    string Person,
    bool IsMine,
    DateTimeOffset MadeAt,
    ProposalState State,
    string? DecidedBy,
    DateTimeOffset? DecidedAt,
    string? Problem
);

/// <summary>Proposals that something is decided about.</summary>
/// <param name="Proposals">Their identities.</param>
/// <param name="AsOf">When the newest was made of those that the person saw; what was proposed otherwise since is told.</param>
public sealed record ProposalChoice(IReadOnlyList<long> Proposals, DateTimeOffset? AsOf = null);

/// <summary>A second look with what it is about.</summary>
/// <param name="Look">The look.</param>
/// <param name="Lines">Those of its changes that still are.</param>
/// <param name="Gone">How many are no more: published, or taken back.</param>
/// <param name="ChangedSince">Those that were changed since it was asked for.</param>
/// <param name="Remarks">What was said.</param>
/// <param name="Proposals">What is proposed for the campaign that is shown, the newest first.</param>
/// <param name="ProposedAsOf">When the newest of them was made; none where there are none.</param>
/// <param name="AsOf">The newest step when they were read, or one before.</param>
public sealed record LookAnswer(
    LookView Look,
    IReadOnlyList<ChangeLine> Lines,
    int Gone,
    IReadOnlyList<ItemReference> ChangedSince,
    IReadOnlyList<LookRemark> Remarks,
    IReadOnlyList<ProposalView> Proposals,
    DateTimeOffset? ProposedAsOf,
    long AsOf
);

/// <summary>A look that was asked for.</summary>
/// <param name="Id">Its identity.</param>
public sealed record AskedLook(long Id);

/// <summary>Something to be said.</summary>
/// <param name="Text">What.</param>
/// <param name="About">The item that it is about; none for the whole.</param>
public sealed record RemarkText(string Text, ItemReference? About = null);

/// <summary>What a publisher saw of a look.</summary>
/// <param name="Shown">What stood there.</param>
public sealed record LookSeen(ShownPreview Shown);
