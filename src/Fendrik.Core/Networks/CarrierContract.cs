using Fendrik.Core.Calls;

namespace Fendrik.Core.Networks;

/// <summary>A number that the carrier forwards to the business, and counts calls to.</summary>
/// <param name="Number">The number, by ITU-T E.164.</param>
/// <param name="Reach">Of an area, or free for the caller.</param>
/// <param name="Area">The area; none of a freephone number.</param>
/// <param name="ForwardsTo">The number that rings, by ITU-T E.164.</param>
/// <param name="Pool">By what a call to it is known.</param>
/// <param name="CampaignId">The campaign that it stands for; none for all of them, and in a pool of visits.</param>
/// <param name="Since">From when on.</param>
public sealed record RentedNumber(
    string Number,
    NumberReach Reach,
    string? Area,
    string ForwardsTo,
    NumberPool Pool,
    long? CampaignId,
    DateTimeOffset Since
);

/// <summary>Numbers that are wanted.</summary>
/// <param name="Reach">Of an area, or free for the caller.</param>
/// <param name="Area">The area; none for any, and for freephone numbers.</param>
/// <param name="ForwardsTo">The number that is to ring, by ITU-T E.164.</param>
/// <param name="Pool">By what calls are to be known.</param>
/// <param name="CampaignId">The campaign that it is to stand for; none for all.</param>
/// <param name="Count">How many.</param>
public sealed record NumberWish(
    NumberReach Reach,
    string? Area,
    string ForwardsTo,
    NumberPool Pool,
    long? CampaignId,
    int Count
);

/// <summary>What the carrier has.</summary>
/// <param name="Numbers">The numbers of the account.</param>
/// <param name="Areas">The areas of which there are local numbers.</param>
public sealed record CarrierNumbers(IReadOnlyList<RentedNumber> Numbers, IReadOnlyList<string> Areas);
