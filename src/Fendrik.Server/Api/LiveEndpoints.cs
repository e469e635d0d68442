using Fendrik.Core.Changes;
using Fendrik.Data.Commands.Copying;
using Fendrik.Data.Live;
using Fendrik.Data.Steps;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api;

/// <summary>One field of an item in its three versions.</summary>
/// <param name="Field">Name of the field for people.</param>
/// <param name="Agreed">As both sides had it last.</param>
/// <param name="Ours">In the working copy.</param>
/// <param name="Theirs">On the network.</param>
public sealed record LiveField(string Field, string? Agreed, string? Ours, string? Theirs);

/// <summary>An item that was changed on the network itself.</summary>
/// <param name="Kind">Kind.</param>
/// <param name="Id">Identity.</param>
/// <param name="Name">Name or words.</param>
/// <param name="Gone">True when it is gone on the network.</param>
/// <param name="Made">True when it was made there.</param>
/// <param name="ByBoth">True when the working copy changed it too.</param>
/// <param name="Fields">What differs.</param>
public sealed record LiveItem(
    ItemKind Kind,
    long Id,
    string Name,
    bool Gone,
    bool Made,
    bool ByBoth,
    IReadOnlyList<LiveField> Fields
);

internal static class LiveEndpoints
{
    private const int MostShown = 500;

    public static void MapLive(this RouteGroupBuilder account)
    {
        account.MapGet("/live", ListAsync).WithName("listLiveDifferences");
        account.MapPost("/live/read", ReadAsync).WithName("readLiveCopy");
    }

    private static async Task<Ok<IReadOnlyList<LiveItem>>> ListAsync(
        int accountId,
        LiveDifferences differences,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var currency = (await workingCopy.FactsAsync(accountId, cancellation)).Currency;
        var items = await differences.ListAsync(accountId, MostShown, cancellation);
        return TypedResults.Ok<IReadOnlyList<LiveItem>>([.. items.Select(item => InWords(item, currency))]);
    }

    private static async Task<Ok<IReadOnlyList<LiveItem>>> ReadAsync(
        int accountId,
        LiveCopy live,
        LiveDifferences differences,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        await live.ReadAsync(accountId, cancellation);
        return await ListAsync(accountId, differences, workingCopy, cancellation);
    }

    private static LiveItem InWords(ThreeVersions item, Currency currency)
    {
        var type = ItemTypes.Of(item.Kind);
        var theirs = FieldDifferences.Between(type, item.Agreed, item.Theirs, currency);
        var ours = FieldDifferences.Between(type, item.Agreed, item.Ours, currency);
        var fields = theirs.Concat(ours).Select(difference => difference.Field).Distinct();
        return new LiveItem(
            item.Kind,
            item.Id,
            FieldDifferences.NameOf(type, (item.Theirs ?? item.Ours ?? item.Agreed)!.Value),
            item.Theirs is null,
            item.Agreed is null,
            item.Agreed is not null && (ours.Count > 0 || item.Ours is null),
            [
                .. fields.Select(field =>
                {
                    var (their, our) = (
                        theirs.FirstOrDefault(each => each.Field == field),
                        ours.FirstOrDefault(each => each.Field == field)
                    );
                    var agreed = their?.Before ?? our?.Before;
                    return new LiveField(
                        field,
                        agreed,
                        our is null ? agreed : our.After,
                        their is null ? agreed : their.After
                    );
                }),
            ]
        );
    }
}
