using Dapper;
using Fendrik.Core.Changes;

namespace Fendrik.Data.Publishing;

/// <summary>A second look as lists show it.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="AskedBy">Who asked.</param>
/// <param name="AskedByName">What they are called.</param>
/// <param name="Note">What they said.</param>
/// <param name="State">How it stands.</param>
/// <param name="Items">How many changes it is about.</param>
/// <param name="Remarks">How many remarks there are.</param>
/// <param name="MadeAt">When it was asked for.</param>
/// <param name="AnsweredBy">Who answered; none while nobody has.</param>
/// <param name="AnsweredAt">When.</param>
/// <param name="AsOf">The step up to which it was shown.</param>
/// <param name="CampaignId">The campaign that is shown; none where it is about changes.</param>
/// <param name="Campaign">What that is called.</param>
/// <param name="Proposed">How many proposals are open.</param>
[method: ExplicitConstructor]
public sealed record KeptLook(
    long Id,
    string AskedBy,
    string AskedByName,
    string Note,
    LookState State,
    int Items,
    int Remarks,
    DateTimeOffset MadeAt,
    string? AnsweredBy,
    DateTimeOffset? AnsweredAt,
    long AsOf,
    long? CampaignId,
    string? Campaign,
    int Proposed
)
{
    /// <summary>What it is about.</summary>
    public LookSubject Subject => CampaignId is null ? LookSubject.Changes : LookSubject.Campaign;
}

/// <summary>Something said about a look, or about one of its items.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Kind">Kind of the item; none where it is about the whole.</param>
/// <param name="ItemId">The item.</param>
/// <param name="Name">What the item is called; none where it is about the whole, or a proposal that is no more.</param>
/// <param name="Person">Who said it.</param>
/// <param name="Text">What.</param>
/// <param name="MadeAt">When.</param>
[method: ExplicitConstructor]
public sealed record LookRemark(
    long Id,
    ItemKind? Kind,
    long? ItemId,
    string? Name,
    string Person,
    string Text,
    DateTimeOffset MadeAt
);
