using System.Text.Json;
using Dapper;
using Fendrik.Core.Items;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Writing;

/// <summary>An ad as it was, until a step changed it.</summary>
/// <param name="StepId">The step that changed it; none for the version that the network has.</param>
/// <param name="Until">When that was; none for the version that the network has.</param>
/// <param name="Person">Who did it.</param>
/// <param name="Label">What the step did.</param>
/// <param name="Item">The ad.</param>
public sealed record PastAd(long? StepId, DateTimeOffset? Until, string? Person, string? Label, JsonElement Item);

/// <summary>Another ad of the same ad group.</summary>
/// <param name="Kind">Its kind.</param>
/// <param name="Id">The ad.</param>
/// <param name="Item">The ad as it is kept.</param>
public sealed record AdBeside(ItemKind Kind, long Id, JsonElement Item);

/// <summary>An ad with what it can be held against.</summary>
/// <param name="Kind">Its kind.</param>
/// <param name="Now">The ad as it stands.</param>
/// <param name="Past">The versions before, the newest first; each differs from the next.</param>
/// <param name="Others">The other ads of its ad group.</param>
public sealed record AdHistory(
    ItemKind Kind,
    JsonElement Now,
    IReadOnlyList<PastAd> Past,
    IReadOnlyList<AdBeside> Others
);

/// <summary>Reads versions of ads.</summary>
public sealed class AdVersions(NpgsqlDataSource source)
{
    private const int MostSteps = 60;
    private const int MostVersions = 12;
    private const int MostOthers = 12;

    /// <summary>An ad, its versions, and its neighbours; none when it is no ad of the account.</summary>
    public async Task<AdHistory?> ReadAsync(int accountId, long id, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        Task<IEnumerable<T>> QueryAsync<T>(string sql, object parameters) =>
            connection.QueryAsync<T>(new CommandDefinition(sql, parameters, cancellationToken: cancellation));
        // Ads of all kinds are numbered apart.
        foreach (var table in ItemTypes.Ads.Select(type => ItemTable.Of(type.Kind)))
        {
            var found = (
                await QueryAsync<(string Now, string? Live, long AdGroup)>(
                    // What only the working copy has, such as labels, is no difference from the network.
                    $"select {table.Everything("i")}::text, case when i.live is not null and i.live <> {table.Published("i")} then ({table.Everything("i")} || i.live)::text end, i.ad_group_id from {table.Name} i where i.id = @id and i.account_id = @accountId and not i.removed",
                    new { id, accountId }
                )
            ).ToArray();
            if (found is [var (now, live, adGroup)])
            {
                return new AdHistory(
                    table.Kind,
                    Parse(now),
                    [
                        .. live is null ? [] : new[] { new PastAd(null, null, null, null, Parse(live)) },
                        .. await PastAsync(table, now),
                    ],
                    await OthersAsync(adGroup)
                );
            }
        }

        return null;

        async Task<List<PastAd>> PastAsync(ItemTable table, string now)
        {
            var past = await QueryAsync<(long Step, DateTime At, string Person, string Label, string Item)>(
                $"""
                select s.id, s.made_at, coalesce(p.display_name, ''), s.label, {table.Everything("b")}::text
                from {table.Before} b join step s on s.id = b.step_id left join "AspNetUsers" p on p.id = s.person_id
                where b.id = @id and not b.removed and s.account_id = @accountId order by s.id desc limit {MostSteps}
                """,
                new { id, accountId }
            );
            var versions = new List<PastAd>();
            var next = now;
            foreach (var (step, at, person, label, item) in past)
            {
                if (item != next && versions.Count < MostVersions)
                {
                    versions.Add(new PastAd(step, at, person, label, Parse(item)));
                }

                next = item;
            }

            return versions;
        }

        async Task<List<AdBeside>> OthersAsync(long adGroup)
        {
            var others = new List<AdBeside>();
            foreach (var each in ItemTypes.Ads.Select(type => ItemTable.Of(type.Kind)))
            {
                others.AddRange(
                    (
                        await QueryAsync<(long Id, string Item)>(
                            $"select i.id, {each.Everything("i")}::text from {each.Name} i where i.ad_group_id = @adGroup and i.account_id = @accountId and not i.removed and i.id <> @id order by i.id limit {MostOthers}",
                            new
                            {
                                adGroup,
                                accountId,
                                id,
                            }
                        )
                    ).Select(row => new AdBeside(each.Kind, row.Id, Parse(row.Item)))
                );
            }

            return others;
        }
    }

    private static JsonElement Parse(string json) => JsonDocument.Parse(json).RootElement;
}
