using Dapper;
using Fendrik.Core.AdText.Patterns;
using Fendrik.Data.Accounts;
using Npgsql;

namespace Fendrik.Data.Commands.Patterns;

/// <summary>Shows what a pattern makes, before anything is made.</summary>
/// <param name="AsOf">The newest step of the account when it was looked at.</param>
/// <param name="Count">Ads that it makes.</param>
/// <param name="Shortened">Of these, how many say something else than what was written first somewhere.</param>
/// <param name="Failing">Ad groups for which it makes none.</param>
/// <param name="Fields">Fields that can be used.</param>
/// <param name="Ads">The first of them, those for which none is made before the others.</param>
public sealed record PatternView(
    long AsOf,
    int Count,
    int Shortened,
    int Failing,
    IReadOnlyList<string> Fields,
    IReadOnlyList<PatternedView> Ads
);

/// <summary>An ad that a pattern makes.</summary>
/// <param name="AdGroup">For which ad group.</param>
/// <param name="Campaign">Its campaign.</param>
/// <param name="Shortened">Slots that say something else than what was written first.</param>
/// <param name="Problem">Why none is made; none when one is.</param>
/// <param name="Texts">What it says, by the name of a field.</param>
public sealed record PatternedView(
    string AdGroup,
    string Campaign,
    int Shortened,
    string? Problem,
    IReadOnlyDictionary<string, IReadOnlyList<string>> Texts
);

/// <summary>Reads what patterns would make.</summary>
public sealed class PatternReader(NpgsqlDataSource source)
{
    private const int MostShown = 40;

    /// <summary>What a pattern would make now.</summary>
    public async Task<PatternView> ReadAsync(
        int accountId,
        AdPattern pattern,
        PatternPlaces places,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        // First of all: what moves while the rest is read is held against this.
        var asOf = await connection.ExecuteScalarAsync<long>(
            new CommandDefinition(
                "select last_step_id from account where id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );
        var account = await AccountFacts.ReadAsync(connection, accountId);
        var made = await PatternedAds.MakeAsync(connection, account, pattern, places, cancellation);
        return new PatternView(
            asOf,
            made.Count(ad => ad.Problem is null),
            made.Count(ad => ad is { Problem: null, Shortened: > 0 }),
            made.Count(ad => ad.Problem is not null),
            [.. made.SelectMany(ad => ad.Ground.Values.Keys).Concat(PatternGround.Known).Distinct()],
            [
                .. made.OrderBy(ad => ad.Problem is null)
                    .ThenByDescending(ad => ad.Shortened)
                    .Take(MostShown)
                    .Select(ad => new PatternedView(
                        ad.Ground.AdGroup,
                        ad.Ground.Campaign,
                        ad.Shortened,
                        ad.Problem,
                        ad.Values.Type.Fields.Where(field => field.IsText || field.IsNeeded)
                            .Select(field => (field.Name, Lines: LinesOf(ad.Values[field])))
                            .Where(each => each.Lines.Count > 0)
                            .ToDictionary(each => each.Name, each => each.Lines)
                    )),
            ]
        );
    }

    private static IReadOnlyList<string> LinesOf(object? value) =>
        value switch
        {
            string[] lines => lines,
            string text => [text],
            _ => [],
        };
}
