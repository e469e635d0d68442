using Dapper;
using Fendrik.Core.AdText.Patterns;
using Fendrik.Core.Checks;
using Fendrik.Core.Items.Kinds;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Commands.Patterns;

/// <summary>The ads that a pattern makes as things stand, for whoever makes them and whoever only looks.</summary>
internal static class PatternedAds
{
    private const int LongestText = 2_000;

    /// <summary>Makes them; those for which it does not fit, or that are there already, say so.</summary>
    /// <exception cref="InvalidChangeException">It is no pattern of an ad, or its table cannot be read.</exception>
    public static async Task<IReadOnlyList<PatternedAd>> MakeAsync(
        NpgsqlConnection connection,
        AccountFacts account,
        AdPattern pattern,
        PatternPlaces places,
        CancellationToken cancellation
    )
    {
        Check(pattern);
        var type = ItemTypes.Of(pattern.Kind);
        var maker = new PatternMaker(pattern, new CheckReport(pattern.Kind, 0, account.Network, account.Currency));
        var grounds = await PatternGrounds.ReadAsync(connection, account.Id, places, cancellation);
        var there = (
            await connection.QueryAsync<(long AdGroup, string Content)>(
                new CommandDefinition(
                    $"select ad_group_id, content_key from {ItemTable.Of(pattern.Kind).Name} where account_id = @Id and ad_group_id = any(@groups) and not removed",
                    new { account.Id, groups = grounds.Select(ground => ground.AdGroupId).ToArray() },
                    cancellationToken: cancellation
                )
            )
        ).ToHashSet();
        return
        [
            .. grounds
                .Select(maker.Make)
                .Select(ad =>
                    ad.Problem is null && there.Contains((ad.Ground.AdGroupId, type.ContentKeyOf(ad.Values)))
                        ? ad with
                        {
                            Problem = type.TwinProblem,
                        }
                        : ad
                ),
        ];
    }

    private static void Check(AdPattern pattern)
    {
        if (ItemTypes.Of(pattern.Kind) is not AdType type)
        {
            throw new InvalidChangeException("kind", "A pattern makes ads. Choose a kind of ad.");
        }

        foreach (var (name, slots) in pattern.Slots)
        {
            if (
                type.Find(name) is not { } field
                || slots is null
                || slots.Count > (field.Type.Room ?? 1)
                || slots.Any(slot => slot is null || slot.Count > PatternMaker.MostAlternatives)
                || slots.Any(slot => slot.Any(text => text is null || text.Length > LongestText))
            )
            {
                throw new InvalidChangeException(
                    "slots",
                    $"“{Reading.Shortened(name)}” has more than a pattern can hold: {PatternMaker.MostAlternatives} alternatives in a slot at most."
                );
            }
        }
    }
}
