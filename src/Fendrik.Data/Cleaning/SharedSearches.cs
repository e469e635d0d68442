using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Fendrik.Data.Sheets;
using Npgsql;

namespace Fendrik.Data.Cleaning;

/// <summary>Keywords that belong together, by number, with what they have in common.</summary>
internal sealed record KeywordSet(string? Form, IReadOnlyList<long> Ids);

/// <summary>Running keywords that may answer the same search: the searches are those that people made in the period looked at.</summary>
internal static class SharedSearches
{
    /// <summary>Searches that are held against the keywords, those that cost most first.</summary>
    private const int MostSearches = 5_000;

    /// <summary>Keywords kept of one search; with more than these nobody chooses one by one.</summary>
    private const int MostInSet = 50;

    /// <summary>The sets, by what the search cost, most first.</summary>
    public static async Task<IReadOnlyList<KeywordSet>> FindAsync(
        NpgsqlConnection connection,
        SheetGround ground,
        DuplicateScope scope,
        CancellationToken cancellation
    )
    {
        var searches = (
            await connection.QueryAsync<string>(
                new CommandDefinition(
                    """
                    select term from search_term_day where account_id = @AccountId and day between @From and @To
                    group by term order by sum(cost) desc, term limit @MostSearches
                    """,
                    new
                    {
                        ground.AccountId,
                        ground.Figures.From,
                        ground.Figures.To,
                        MostSearches,
                    },
                    cancellationToken: cancellation
                )
            )
        ).ToArray();
        var network = (await AccountFacts.ReadAsync(connection, ground.AccountId)).Network;
        var index = new KeywordIndex<(long Id, long Place)>(
            [],
            network.ReachWith(await OwnWords.ReadAsync(connection, ground.AccountId))
        );
        var keywords = PlacedKeywords.ReadAsync(
            connection,
            ground.AccountId,
            $"i.state = {(int)ItemState.Running} and g.state = {(int)ItemState.Running} and c.state = {(int)ItemState.Running}"
        );
        await foreach (var keyword in keywords.WithCancellation(cancellation))
        {
            var place = scope switch
            {
                DuplicateScope.AdGroup => keyword.AdGroupId,
                DuplicateScope.Campaign => keyword.CampaignId,
                DuplicateScope.Account => 0,
            };
            index.Add((keyword.Id, place), keyword.Text, keyword.MatchType);
        }

        var sets = new List<KeywordSet>();
        foreach (var search in searches)
        {
            cancellation.ThrowIfCancellationRequested();
            sets.AddRange(
                index
                    .Find(search)
                    .GroupBy(found => found.Place, found => found.Id)
                    .Where(place => place.Count() > 1)
                    .OrderBy(place => place.Key)
                    .Select(place => new KeywordSet(search, [.. place.Order().Take(MostInSet)]))
            );
        }

        return sets;
    }
}
