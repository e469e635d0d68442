using System.Data;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;
using Fendrik.Core.Reporting;
using Fendrik.Data.Accounts;
using Fendrik.Data.Sheets;
using Fendrik.Data.Terms;
using Npgsql;

namespace Fendrik.Data.Cleaning;

/// <summary>Where a negative stands, in words.</summary>
public sealed record NegativePlace(
    long Id,
    string Text,
    MatchType Match,
    string Level,
    string Place,
    long? CampaignId,
    long? AdGroupId,
    long? ListId
);

/// <summary>A keyword that a negative keeps from showing.</summary>
public sealed record BlockedKeyword(
    long Id,
    string Text,
    MatchType Match,
    string Campaign,
    string AdGroup,
    long CampaignId,
    long AdGroupId
);

/// <summary>A negative with the keywords of the account that it blocks.</summary>
/// <param name="Negative">The negative.</param>
/// <param name="Keywords">How many it blocks.</param>
/// <param name="Examples">The first of them.</param>
/// <param name="Figures">What those keywords brought in the period: what the negative loses if they were to run.</param>
public sealed record NegativeConflict(
    NegativePlace Negative,
    int Keywords,
    IReadOnlyList<BlockedKeyword> Examples,
    Figures Figures
);

/// <summary>A negative with the search terms of the period that it would have blocked.</summary>
/// <param name="Negative">The negative.</param>
/// <param name="Terms">How many.</param>
/// <param name="Examples">The dearest of them.</param>
/// <param name="Figures">What they brought: cost that is saved, conversions that are lost.</param>
public sealed record NegativeEffect(NegativePlace Negative, int Terms, IReadOnlyList<string> Examples, Figures Figures);

/// <summary>A negative that adds nothing, and the broader one that does its work.</summary>
public sealed record NeedlessNegative(NegativePlace Negative, NegativePlace Broader);

/// <summary>All about the negatives of an account.</summary>
public sealed record NegativeReport(
    int Negatives,
    long Keywords,
    int ConflictCount,
    IReadOnlyList<NegativeConflict> Conflicts,
    int NeedlessCount,
    IReadOnlyList<NeedlessNegative> Needless,
    IReadOnlyList<NegativeEffect> Effects
);

/// <summary>
/// Holds the negatives of an account against its keywords and against what people searched for. Negatives are filed by
/// their rarest word, so that a million keywords are looked through in one pass.
/// </summary>
public sealed class NegativeReview(NpgsqlDataSource source)
{
    private const int MostShown = 200;
    private const int MostExamples = 5;

    public async Task<NegativeReport> RunAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        // Of one moment: a negative that goes meanwhile would have no name.
        await using var moment = await connection.BeginTransactionAsync(IsolationLevel.RepeatableRead, cancellation);
        var ground = await SheetReader.GroundAsync(connection, accountId, new SheetRequest());
        var negatives = await PlacedNegatives.LoadAsync(connection, accountId);
        var places = await NegativeNames.ReadAsync(connection, accountId);
        var account = await AccountFacts.ReadAsync(connection, accountId);
        var index = PlacedNegatives.Index(negatives, account.Network);
        var (keywords, conflicts) = await ConflictsAsync(connection, ground, index, places, cancellation);
        var needless = Needless(negatives, index, places, cancellation);
        return new NegativeReport(
            negatives.Count,
            keywords,
            conflicts.Count,
            [.. conflicts.Take(MostShown)],
            needless.Count,
            [.. needless.Take(MostShown)],
            await EffectsAsync(connection, ground, index, places, cancellation)
        );
    }

    private static async Task<(long Keywords, List<NegativeConflict> Conflicts)> ConflictsAsync(
        NpgsqlConnection connection,
        SheetGround ground,
        KeywordIndex<PlacedNegative> index,
        Dictionary<long, NegativePlace> places,
        CancellationToken cancellation
    )
    {
        long seen = 0;
        var blocked = new Dictionary<long, List<(long Id, long AdGroupId)>>();
        var keywords = PlacedKeywords.ReadAsync(connection, ground.AccountId);
        await foreach (var keyword in keywords.WithCancellation(cancellation))
        {
            seen++;
            foreach (var (negative, _) in index.BlockingOf(keyword).Where(found => found.Blocking == Blocking.Wholly))
            {
                if (!blocked.TryGetValue(negative.Negative.Id, out var list))
                {
                    blocked[negative.Negative.Id] = list = [];
                }

                list.Add((keyword.Id, keyword.AdGroupId));
            }
        }

        var figures = await KeywordFigures.ReadAsync(
            connection,
            ground,
            [.. blocked.Values.SelectMany(list => list.Select(keyword => keyword.Id)).Distinct()]
        );
        var worst = blocked
            .Select(pair =>
                (
                    Negative: pair.Key,
                    Keywords: pair.Value,
                    Figures: pair.Value.Aggregate(
                        Figures.Zero,
                        (sum, keyword) => sum + figures.GetValueOrDefault(keyword.Id, Figures.Zero)
                    )
                )
            )
            .OrderByDescending(each => each.Figures.Conversions)
            .ThenByDescending(each => each.Figures.Clicks)
            .ThenByDescending(each => each.Keywords.Count)
            .ThenBy(each => each.Negative)
            .ToArray();
        var examples = await KeywordsAsync(
            connection,
            [
                .. worst
                    .Take(MostShown)
                    .SelectMany(each => each.Keywords.Take(MostExamples))
                    .Select(keyword => keyword.Id),
            ]
        );
        return (
            seen,
            [
                .. worst.Select(each => new NegativeConflict(
                    places[each.Negative],
                    each.Keywords.Count,
                    [
                        .. each
                            .Keywords.Take(MostExamples)
                            .Where(keyword => examples.ContainsKey(keyword.Id))
                            .Select(keyword => examples[keyword.Id]),
                    ],
                    each.Figures
                )),
            ]
        );
    }

    private static List<NeedlessNegative> Needless(
        IReadOnlyList<PlacedNegative> negatives,
        KeywordIndex<PlacedNegative> index,
        Dictionary<long, NegativePlace> places,
        CancellationToken cancellation
    )
    {
        var needless = new List<NeedlessNegative>();
        foreach (var narrower in negatives)
        {
            cancellation.ThrowIfCancellationRequested();
            var words = index.Reach.WordsOf(narrower.Negative.Text);
            var broader = index
                .Find(words)
                .Where(candidate =>
                    candidate.Negative.Id != narrower.Negative.Id
                    && NegativeReach.Contains(candidate, narrower)
                    && NegativeReach.Covers(
                        index.Reach.WordsOf(candidate.Negative.Text),
                        candidate.Negative.Match,
                        words,
                        narrower.Negative.Match
                    )
                    // Of two that do the same in the same place, the older one stays.
                    && !(
                        candidate.Negative.Id > narrower.Negative.Id
                        && NegativeReach.Contains(narrower, candidate)
                        && NegativeReach.Covers(
                            words,
                            narrower.Negative.Match,
                            index.Reach.WordsOf(candidate.Negative.Text),
                            candidate.Negative.Match
                        )
                    )
                )
                .MinBy(candidate => candidate.Negative.Id);
            if (broader is not null)
            {
                needless.Add(new NeedlessNegative(places[narrower.Negative.Id], places[broader.Negative.Id]));
            }
        }

        return needless;
    }

    private static async Task<IReadOnlyList<NegativeEffect>> EffectsAsync(
        NpgsqlConnection connection,
        SheetGround ground,
        KeywordIndex<PlacedNegative> index,
        Dictionary<long, NegativePlace> places,
        CancellationToken cancellation
    )
    {
        var effects = new Dictionary<long, (int Terms, Figures Figures, List<(string Term, decimal Cost)> Dearest)>();
        var days = new Period(ground.Figures.From, ground.Figures.To);
        await foreach (
            var term in TermThrough.OfDays(connection, ground.AccountId, days).WithCancellation(cancellation)
        )
        {
            foreach (
                var negative in index
                    .Find(term.Term)
                    .Where(negative => negative.Reaches(term.CampaignId, term.AdGroupId))
            )
            {
                var effect = effects.GetValueOrDefault(negative.Negative.Id, (0, Figures.Zero, []));
                effect.Dearest.Add((term.Term, term.Cost));
                effects[negative.Negative.Id] = (effect.Terms + 1, effect.Figures + term.Figures, effect.Dearest);
            }
        }

        return
        [
            .. effects
                .OrderByDescending(pair => pair.Value.Figures.Cost)
                .Take(MostShown)
                .Select(pair => new NegativeEffect(
                    places[pair.Key],
                    pair.Value.Terms,
                    [
                        .. pair
                            .Value.Dearest.OrderByDescending(each => each.Cost)
                            .Select(each => each.Term)
                            .Distinct()
                            .Take(MostExamples),
                    ],
                    pair.Value.Figures
                )),
        ];
    }

    private static async Task<Dictionary<long, BlockedKeyword>> KeywordsAsync(NpgsqlConnection connection, long[] ids)
    {
        var rows = await connection.QueryAsync<(
            long Id,
            string Text,
            short Match,
            string Campaign,
            string AdGroup,
            long CampaignId,
            long AdGroupId
        )>(
            """
            select k.id, k.text, k.match_type, c.name, g.name, c.id, g.id from keyword k join ad_group g on g.id = k.ad_group_id join campaign c on c.id = g.campaign_id
            where k.id = any(@ids)
            """,
            new { ids }
        );
        return rows.ToDictionary(
            row => row.Id,
            row => new BlockedKeyword(
                row.Id,
                row.Text,
                (MatchType)row.Match,
                row.Campaign,
                row.AdGroup,
                row.CampaignId,
                row.AdGroupId
            )
        );
    }
}
