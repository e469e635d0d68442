using System.Text.Json;
using Fendrik.Core.AdText;
using Fendrik.Core.Changes;
using Fendrik.Core.Items;
using Fendrik.Data.Accounts;
using Fendrik.Data.Steps;
using Fendrik.Data.Writing;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Writing;

/// <summary>An ad before a step changed it, against the ad as it stands.</summary>
/// <param name="StepId">The step; none for the version that the network has.</param>
/// <param name="Until">When the step was done.</param>
/// <param name="Person">Who did it.</param>
/// <param name="Label">What it did.</param>
/// <param name="Ad">The version as people would see it, with what the ad does not say now.</param>
/// <param name="Written">All its lines, where only some show at a time.</param>
/// <param name="Differences">Fields that are otherwise: before is this version, after is now.</param>
/// <param name="Values">What to set to have this version back: texts as one types them, by field.</param>
public sealed record AdVersion(
    long? StepId,
    DateTimeOffset? Until,
    string? Person,
    string? Label,
    SeenAd Ad,
    IReadOnlyList<WrittenLines> Written,
    IReadOnlyList<FieldDifference> Differences,
    IReadOnlyDictionary<string, string> Values
);

/// <summary>Another ad of the ad group, against this one.</summary>
/// <param name="Kind">Its kind.</param>
/// <param name="Id">The ad.</param>
/// <param name="Ad">The ad as people see it, with what this one does not say.</param>
/// <param name="Written">All its lines, where only some show at a time.</param>
/// <param name="Differences">Fields that are otherwise, where the kind is the same: before is this ad, after is the other.</param>
public sealed record OtherAd(
    ItemKind Kind,
    long Id,
    SeenAd Ad,
    IReadOnlyList<WrittenLines> Written,
    IReadOnlyList<FieldDifference> Differences
);

/// <summary>An ad beside its versions and its neighbours.</summary>
/// <param name="Now">The ad as it stands.</param>
/// <param name="Written">All its lines, where only some show at a time.</param>
/// <param name="Versions">The versions before, the newest first.</param>
/// <param name="Others">The other ads of its ad group.</param>
public sealed record AdBesides(
    SeenAd Now,
    IReadOnlyList<WrittenLines> Written,
    IReadOnlyList<AdVersion> Versions,
    IReadOnlyList<OtherAd> Others
);

/// <summary>Ads side by side.</summary>
internal static class AdVersionEndpoints
{
    public static void MapAdVersions(this RouteGroupBuilder account) =>
        account.MapGet("/ads/{adId:long}/versions", VersionsAsync).WithName("readAdVersions");

    private static async Task<Results<Ok<AdBesides>, NotFound>> VersionsAsync(
        int accountId,
        long adId,
        AdVersions versions,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        if (await versions.ReadAsync(accountId, adId, cancellation) is not { } history)
        {
            return TypedResults.NotFound();
        }

        var account = await workingCopy.FactsAsync(accountId, cancellation);
        var type = ItemTypes.Of(history.Kind);
        SeenAd Seen(ItemType of, JsonElement item) => SeenAd.Of(of, item, account.Network)!;
        var now = Seen(type, history.Now);
        return TypedResults.Ok(
            new AdBesides(
                now,
                WrittenLines.Of(type, history.Now, history.Now),
                [
                    .. history.Past.Select(past => new AdVersion(
                        past.StepId,
                        past.Until,
                        past.Person,
                        past.Label,
                        Seen(type, past.Item).After(now),
                        WrittenLines.Of(type, past.Item, history.Now),
                        FieldDifferences.Between(type, past.Item, history.Now, account.Currency),
                        ValuesOf(type, past.Item, history.Now, account)
                    )),
                ],
                [
                    .. history.Others.Select(other =>
                    {
                        var of = ItemTypes.Of(other.Kind);
                        return new OtherAd(
                            other.Kind,
                            other.Id,
                            Seen(of, other.Item).After(now),
                            of == type ? WrittenLines.Of(type, other.Item, history.Now) : [],
                            of == type ? FieldDifferences.Between(type, history.Now, other.Item, account.Currency) : []
                        );
                    }),
                ]
            )
        );
    }

    /// <summary>The fields that are otherwise now, as one would type what they were.</summary>
    private static Dictionary<string, string> ValuesOf(
        ItemType type,
        JsonElement past,
        JsonElement now,
        AccountFacts account
    )
    {
        var (before, after) = (ItemValues.ReadStored(type, past), ItemValues.ReadStored(type, now));
        string Written(ItemValues values, Field field) =>
            values[field] is { } value && !field.Type.IsNothing(value) ? field.Type.Write(value, account.Ground) : "";
        return type
            .Fields.Select(field => (field.Name, Before: Written(before, field), After: Written(after, field)))
            .Where(each => each.Before != each.After)
            .ToDictionary(each => each.Name, each => each.Before);
    }
}
