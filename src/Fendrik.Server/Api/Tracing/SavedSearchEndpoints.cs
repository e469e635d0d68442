using Fendrik.Core.Networks;
using Fendrik.Core.Serving;
using Fendrik.Data.Accounts;
using Fendrik.Data.Tracing;
using Fendrik.Server.Access;
using Fendrik.Server.Live;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Tracing;

/// <summary>The saved searches of an account.</summary>
/// <param name="Checking">True while the newest changes are still being looked at.</param>
/// <param name="Searches">Those that fail first.</param>
public sealed record SavedSearchList(bool Checking, IReadOnlyList<ListedSearch> Searches);

/// <summary>Searches to be saved: 1 to 1,000 at once.</summary>
public sealed record SearchesToSave(IReadOnlyList<SavedSearch> Searches);

/// <summary>How many of them are new or expect something else now.</summary>
public sealed record SearchesSaved(int Saved);

/// <summary>Saved searches by their ids.</summary>
public sealed record SearchesToRemove(IReadOnlyList<long> Ids);

/// <summary>Searches that are kept as tests of the account.</summary>
internal static class SavedSearchEndpoints
{
    private const int MostAtOnce = 1_000;

    public static void MapSavedSearches(this RouteGroupBuilder account)
    {
        account.MapGet("/saved-searches", ListAsync).WithName("listSavedSearches");
        account.MapPost("/saved-searches", SaveAsync).WithName("saveSearches");
        account.MapPost("/saved-searches/removal", RemoveAsync).WithName("removeSavedSearches");
    }

    private static async Task<Ok<SavedSearchList>> ListAsync(
        int accountId,
        SavedSearchBook book,
        StatusCounts counts,
        CancellationToken cancellation
    )
    {
        var isUpToDate = await counts.IsUpToDateAsync(accountId, StatusCounts.PatienceOfPages, cancellation);
        return TypedResults.Ok(new SavedSearchList(!isUpToDate, await book.ListAsync(accountId, cancellation)));
    }

    private static async Task<Ok<SearchesSaved>> SaveAsync(
        int accountId,
        SearchesToSave request,
        HttpContext context,
        SavedSearchBook book,
        SearchNetworks networks,
        CancellationToken cancellation
    )
    {
        if (request.Searches.Count is 0 or > MostAtOnce)
        {
            throw new InvalidChangeException("searches", $"Save 1 to {MostAtOnce:N0} searches at once.");
        }

        var searches = request.Searches.Select(each => each with { Text = each.Text.Trim() }).ToArray();
        await RefuseStrangePlacesAsync(accountId, searches, networks, cancellation);
        return TypedResults.Ok(
            new SearchesSaved(await book.SaveAsync(accountId, context.User.PersonId(), searches, cancellation))
        );
    }

    /// <summary>Removes them, and answers what they were: saving that again brings them back.</summary>
    private static async Task<Ok<IReadOnlyList<SavedSearch>>> RemoveAsync(
        int accountId,
        SearchesToRemove request,
        HttpContext context,
        SavedSearchBook book,
        CancellationToken cancellation
    ) => TypedResults.Ok(await book.RemoveAsync(accountId, context.User.PersonId(), request.Ids, cancellation));

    private static async Task RefuseStrangePlacesAsync(
        int accountId,
        IReadOnlyList<SavedSearch> searches,
        SearchNetworks networks,
        CancellationToken cancellation
    )
    {
        if (searches.All(each => each.Place is null))
        {
            return;
        }

        var places = (await (await networks.OfAccountAsync(accountId, cancellation)).PlacesAsync(cancellation))
            .Select(each => each.Name)
            .ToHashSet(StringComparer.Ordinal);
        foreach (var (search, at) in searches.Select((search, at) => (search, at)))
        {
            if (search.Place is { } place && !places.Contains(place))
            {
                throw new InvalidChangeException(
                    $"searches[{at}].place",
                    $"Search {at + 1}: the network knows no place “{place}”. Choose one of its places, or none."
                );
            }
        }
    }
}
