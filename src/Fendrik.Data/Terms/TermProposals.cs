using Dapper;
using Fendrik.Core.Matching;
using Fendrik.Core.Reporting;
using Fendrik.Core.Searches;
using Fendrik.Data.Accounts;
using Fendrik.Data.Tracing;
using Npgsql;

namespace Fendrik.Data.Terms;

/// <summary>An ad group in which a term could be a keyword, or which answers it.</summary>
/// <param name="AdGroupId">The ad group.</param>
/// <param name="AdGroup">Name of it.</param>
/// <param name="CampaignId">Its campaign.</param>
/// <param name="Campaign">Name of it.</param>
/// <param name="Closeness">How close its keywords are to the term: 0 to 1.</param>
/// <param name="Figures">What the term brought through it.</param>
public sealed record TermGroup(
    long AdGroupId,
    string AdGroup,
    long CampaignId,
    string Campaign,
    decimal Closeness,
    Figures Figures
);

/// <summary>What could become of a term.</summary>
/// <param name="Term">The term.</param>
/// <param name="Homes">The ad groups where it would be a keyword, the best first.</param>
/// <param name="Answering">The ad groups that answered it, the one that should have it first.</param>
/// <param name="Line">The term itself as an exact negative, as it is written in a list.</param>
public sealed record TermProposal(
    string Term,
    IReadOnlyList<TermGroup> Homes,
    IReadOnlyList<TermGroup> Answering,
    string Line
);

/// <summary>What could become of chosen terms.</summary>
/// <param name="Terms">Each of them.</param>
/// <param name="Negatives">The negatives that would keep all of them away.</param>
/// <param name="CampaignIds">The campaigns through which they came.</param>
/// <param name="AdGroupIds">The ad groups through which they came.</param>
public sealed record TermsProposal(
    IReadOnlyList<TermProposal> Terms,
    IReadOnlyList<ProposedNegative> Negatives,
    IReadOnlyList<long> CampaignIds,
    IReadOnlyList<long> AdGroupIds
);

/// <summary>Proposes what could become of terms: where they would be keywords, what would keep them away, and who should have them.</summary>
public sealed class TermProposals(NpgsqlDataSource source, TermSums sums, KeywordMemory memory)
{
    /// <summary>Most terms that are decided at once.</summary>
    public const int MostTerms = 500;

    private const int MostHomes = 6;
    private const int MostKeywords = 20_000;

    /// <summary>What could become of terms.</summary>
    /// <exception cref="InvalidChangeException">None or too many are named.</exception>
    public async Task<TermsProposal> FindAsync(
        TermScope scope,
        IReadOnlyList<string> terms,
        CancellationToken cancellation
    )
    {
        if (terms.Count is 0 or > MostTerms)
        {
            throw new InvalidChangeException(
                "terms",
                terms.Count == 0 ? "Choose search terms." : $"Choose at most {MostTerms} search terms at once."
            );
        }

        await using var kept = await sums.OpenAsync(scope, cancellation);
        var (connection, period) = (kept.Connection, kept.Period);
        var account = await AccountFacts.ReadAsync(connection, scope.AccountId);
        var reach = account.Network.Reach;
        HashSet<string> WordsOf(string text) => reach.WordsOf(text).ToHashSet(StringComparer.Ordinal);
        var parts = await TermReader.PartsAsync(connection, period, terms, cancellation);
        var groups = await GroupsAsync(connection, scope.AccountId, parts.SelectMany(each => each), cancellation);
        var keywords = groups.ToDictionary(
            group => group.Id,
            group => (IReadOnlyList<IReadOnlySet<string>>)[.. group.Keywords.Select(WordsOf)]
        );
        var proposals = terms
            .Distinct(StringComparer.Ordinal)
            .Where(parts.Contains)
            .Select(term => ProposalOf(term, WordsOf(term), [.. parts[term]], groups, keywords))
            .ToArray();
        return new TermsProposal(
            proposals,
            await NegativesAsync(connection, account, period, parts, cancellation),
            [.. parts.SelectMany(each => each).Select(part => part.CampaignId).Distinct().Order()],
            [.. parts.SelectMany(each => each).Select(part => part.AdGroupId).Distinct().Order()]
        );
    }

    private static TermProposal ProposalOf(
        string term,
        HashSet<string> words,
        TermPart[] parts,
        IReadOnlyList<Group> groups,
        Dictionary<long, IReadOnlyList<IReadOnlySet<string>>> keywords
    )
    {
        var brought = parts
            .GroupBy(part => part.AdGroupId)
            .ToDictionary(
                group => group.Key,
                group => group.Aggregate(Figures.Zero, (sum, part) => sum + part.Figures)
            );
        var named = groups.ToDictionary(group => group.Id);
        TermGroup Of(FoundHome home)
        {
            var group = named[home.AdGroupId];
            return new TermGroup(
                group.Id,
                group.Name,
                group.CampaignId,
                group.Campaign,
                (decimal)home.Closeness,
                brought.GetValueOrDefault(group.Id, Figures.Zero)
            );
        }

        var homes = TermHome.Of(
            words,
            groups.Select(group => new PossibleHome(
                group.Id,
                keywords[group.Id],
                brought.TryGetValue(group.Id, out var figures) ? figures.Clicks : 0
            ))
        );
        return new TermProposal(
            term,
            [.. homes.Take(MostHomes).Select(Of)],
            // What came through close variants may have no word in common with any keyword, and is answered all the same.
            [
                .. homes
                    .Where(home => brought.ContainsKey(home.AdGroupId))
                    .Concat(
                        brought
                            .Keys.Except(homes.Select(home => home.AdGroupId))
                            .Where(named.ContainsKey)
                            .Order()
                            .Select(id => new FoundHome(id, 0))
                    )
                    .Select(Of),
            ],
            KeywordNotation.Write(string.Join(' ', Words.Of(term)), MatchType.Exact)
        );
    }

    private async Task<IReadOnlyList<ProposedNegative>> NegativesAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        long period,
        ILookup<string, TermPart> parts,
        CancellationToken cancellation
    )
    {
        var words = parts.SelectMany(term => Words.Of(term.Key)).Distinct(StringComparer.Ordinal).ToArray();
        var known = (
            await connection.QueryAsync<TermWord>(
                new CommandDefinition(
                    "select word, terms, clicks, cost, sold, conversions from term_word where period_id = @period and size = 1 and word = any(@words)",
                    new { period, words },
                    cancellationToken: cancellation
                )
            )
        ).ToArray();
        var (clicks, conversions) = await connection.QuerySingleAsync<(long, decimal)>(
            new CommandDefinition(
                "select clicks, conversions from term_period where id = @period",
                new { period },
                cancellationToken: cancellation
            )
        );
        await using var own = await source.OpenConnectionAsync(cancellation);
        var records = await memory.AskAsync(
            own,
            account,
            index =>
                Task.FromResult(
                    known.ToDictionary(
                        word => word.Word,
                        word => new WordRecord(
                            word.Word,
                            word.Terms,
                            word.Clicks,
                            word.Cost,
                            word.Conversions,
                            index.Reach.WordsOf(word.Word).Sum(index.TimesBidOn)
                        )
                    )
                ),
            cancellation
        );
        return NegativeProposal.Of(
            [.. parts.Select(term => new TermToStop(term.Key, term.Sum(part => part.Figures.Cost)))],
            records,
            clicks == 0 ? 0 : (double)(conversions / clicks)
        );
    }

    /// <summary>The ad groups of the campaigns through which terms came, with their keywords.</summary>
    private static async Task<IReadOnlyList<Group>> GroupsAsync(
        NpgsqlConnection connection,
        int accountId,
        IEnumerable<TermPart> parts,
        CancellationToken cancellation
    )
    {
        TermPart[] all = [.. parts];
        return
        [
            .. await connection.QueryAsync<Group>(
                new CommandDefinition(
                    """
                    select g.id, g.name, g.campaign_id as "campaignId", c.name as campaign, array_agg(k.text) as keywords
                    from (select k.* from keyword k join ad_group g on g.id = k.ad_group_id
                      where k.account_id = @accountId and not k.removed and g.campaign_id = any(@campaigns)
                      order by g.id = any(@groups) desc, k.id limit @MostKeywords) k
                    join ad_group g on g.id = k.ad_group_id and not g.removed join campaign c on c.id = g.campaign_id and not c.removed
                    group by g.id, g.name, g.campaign_id, c.name order by g.id
                    """,
                    new
                    {
                        accountId,
                        campaigns = all.Select(part => part.CampaignId).Distinct().ToArray(),
                        groups = all.Select(part => part.AdGroupId).Distinct().ToArray(),
                        MostKeywords,
                    },
                    cancellationToken: cancellation
                )
            ),
        ];
    }

    private sealed class Group
    {
        public long Id { get; init; }
        public required string Name { get; init; }
        public long CampaignId { get; init; }
        public required string Campaign { get; init; }
        public required string[] Keywords { get; init; }
    }
}
