using System.Runtime.CompilerServices;
using Fendrik.Core.Accounts;
using Fendrik.Core.Serving;
using Fendrik.Data.Accounts;
using Npgsql;

namespace Fendrik.Data.Tracing;

/// <summary>What comes of one of many searches by the working copy.</summary>
/// <param name="Text">The search.</param>
/// <param name="Kind">What comes of it.</param>
/// <param name="Keyword">The keyword that answers, else the nearest of those that match; none when none does.</param>
/// <param name="Match">Its match type.</param>
/// <param name="KeywordId">Its identity.</param>
/// <param name="AdGroup">Its ad group.</param>
/// <param name="AdGroupId">Identity of that.</param>
/// <param name="Campaign">Its campaign.</param>
/// <param name="CampaignId">Identity of that.</param>
/// <param name="Matching">How many keywords match.</param>
/// <param name="Told">What happens, in a sentence.</param>
public sealed record TracedTerm(
    string Text,
    AnswerKind Kind,
    string? Keyword,
    MatchType? Match,
    long? KeywordId,
    string? AdGroup,
    long? AdGroupId,
    string? Campaign,
    long? CampaignId,
    int Matching,
    string Told
)
{
    internal static TracedTerm Of(string text, AnswerToSearch answer)
    {
        var served = (answer.Chosen ?? answer.Nearest)?.Keyword;
        return new TracedTerm(
            text,
            answer.Kind,
            served?.Keyword.Text,
            served?.Keyword.Match,
            served?.Keyword.Id,
            served?.AdGroup.Name,
            served?.AdGroup.Id,
            served?.Campaign.Name,
            served?.Campaign.Id,
            answer.Candidates.Count,
            SavedSearch.InWords(answer)
        );
    }
}

/// <summary>Says of many searches what would happen to them by the working copy.</summary>
public sealed class TermTrace(NpgsqlDataSource source, KeywordMemory memory)
{
    /// <summary>Searches that are answered by the account of one moment; others may ask between.</summary>
    private const int AtOnce = 1_000;

    /// <summary>Traces searches in their order.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="terms">The searches.</param>
    /// <param name="device">On which device.</param>
    /// <param name="site">On which kind of site.</param>
    /// <param name="day">On which day.</param>
    /// <param name="cancellation">Nobody waits any more.</param>
    public async IAsyncEnumerable<TracedTerm> TraceAsync(
        int accountId,
        IEnumerable<string> terms,
        Device device,
        SiteKinds site,
        DateOnly day,
        [EnumeratorCancellation] CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var account = await AccountFacts.ReadAsync(connection, accountId);
        foreach (var some in terms.Chunk(AtOnce))
        {
            var traced = await memory.AskAsync(
                connection,
                account,
                async index =>
                {
                    var reached = await ReachedAccount.OpenAsync(connection, account, index);
                    await reached.ReachAsync(some, cancellation);
                    return some.Select(text => TracedTerm.Of(text, reached.Answer(new Search(text, device, site, day))))
                        .ToArray();
                },
                cancellation
            );
            foreach (var each in traced)
            {
                yield return each;
            }
        }
    }
}
