using Fendrik.Core.Matching;
using Fendrik.Core.Reporting;
using Fendrik.Data.Accounts;
using Fendrik.Data.Commands;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Terms;

/// <summary>What negatives would have done.</summary>
/// <param name="Terms">Terms that they would have kept away.</param>
/// <param name="Examples">The dearest of them.</param>
/// <param name="Figures">What those brought: cost that is saved, conversions that are lost.</param>
/// <param name="Keywords">Keywords of the account that would never show again.</param>
/// <param name="KeywordExamples">The first of them.</param>
public sealed record NegativeOutlook(
    int Terms,
    IReadOnlyList<string> Examples,
    Figures Figures,
    int Keywords,
    IReadOnlyList<string> KeywordExamples
);

/// <summary>Holds negatives that are not there yet against what people typed and against one's own keywords.</summary>
public sealed class NegativeForecast(TermSums sums)
{
    private const int MostLines = 500;
    private const int MostExamples = 5;

    /// <summary>What negatives would have done in the days of a scope.</summary>
    /// <param name="scope">The days; campaigns and ad groups follow from the places.</param>
    /// <param name="lines">The negatives, one on each line.</param>
    /// <param name="match">Match type of bare words.</param>
    /// <param name="places">Where they are to stand.</param>
    /// <param name="cancellation">Stops the reading.</param>
    /// <exception cref="InvalidChangeException">A line cannot be read.</exception>
    public async Task<NegativeOutlook> OfAsync(
        TermScope scope,
        string lines,
        MatchType match,
        ItemPlaces places,
        CancellationToken cancellation
    )
    {
        await using var kept = await sums.OpenAsync(scope, cancellation);
        var connection = kept.Connection;
        var account = await AccountFacts.ReadAsync(connection, scope.AccountId);
        var index = PlacedNegatives.Index(
            await PlannedNegatives.PlaceAsync(connection, account, LinesOf(lines, match), places, cancellation),
            account.Network
        );
        var (terms, figures, dearest) = await StoppedAsync(kept, index, cancellation);
        var (keywords, examples) = await BlockedAsync(connection, scope.AccountId, index, cancellation);
        return new NegativeOutlook(terms, dearest, figures, keywords, examples);
    }

    private static IReadOnlyList<(string Text, MatchType Match)> LinesOf(string lines, MatchType match)
    {
        var written = lines.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
        if (written.Length > MostLines)
        {
            throw new InvalidChangeException("lines", $"At most {MostLines} negatives at once.");
        }

        return
        [
            .. written.Select(
                (line, at) =>
                    KeywordNotation.Read(line) is { Problem: null } read
                        ? (read.Text, read.Match ?? match)
                        : throw new InvalidChangeException(
                            "lines",
                            $"Line {at + 1}: {KeywordNotation.Read(line).Problem}."
                        )
            ),
        ];
    }

    private static async Task<(int Terms, Figures Figures, IReadOnlyList<string> Dearest)> StoppedAsync(
        TermMoment kept,
        KeywordIndex<PlacedNegative> index,
        CancellationToken cancellation
    )
    {
        var (stopped, figures) = (new Dictionary<string, decimal>(StringComparer.Ordinal), Figures.Zero);
        await foreach (var row in TermThrough.Kept(kept.Connection, kept.Period).WithCancellation(cancellation))
        {
            if (index.Find(row.Term).Exists(negative => negative.Reaches(row.CampaignId, row.AdGroupId)))
            {
                stopped[row.Term] = stopped.GetValueOrDefault(row.Term) + row.Cost;
                figures += row.Figures;
            }
        }

        return (
            stopped.Count,
            figures,
            [
                .. stopped
                    .OrderByDescending(each => each.Value)
                    .ThenBy(each => each.Key, StringComparer.Ordinal)
                    .Take(MostExamples)
                    .Select(each => each.Key),
            ]
        );
    }

    private static async Task<(int Keywords, IReadOnlyList<string> Examples)> BlockedAsync(
        NpgsqlConnection connection,
        int accountId,
        KeywordIndex<PlacedNegative> index,
        CancellationToken cancellation
    )
    {
        var (count, examples) = (0, new List<string>());
        await foreach (var keyword in PlacedKeywords.ReadAsync(connection, accountId).WithCancellation(cancellation))
        {
            if (index.BlockingOf(keyword).All(found => found.Blocking != Blocking.Wholly))
            {
                continue;
            }

            count++;
            if (examples.Count < MostExamples)
            {
                examples.Add(KeywordNotation.Write(keyword.Text, keyword.MatchType));
            }
        }

        return (count, examples);
    }
}
