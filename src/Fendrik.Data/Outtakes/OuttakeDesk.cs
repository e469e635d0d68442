using System.Text.Json;
using Dapper;
using Fendrik.Data.Model;
using Npgsql;

namespace Fendrik.Data.Outtakes;

/// <summary>
/// Keeps what somebody wants to take out until the file is fetched. So the browser fetches it as any download, straight
/// to the disk, however long the filter is that was asked with.
/// </summary>
public sealed class OuttakeDesk(NpgsqlDataSource source, TimeProvider clock)
{
    private static readonly TimeSpan KeptFor = TimeSpan.FromHours(1);

    public async Task<Guid> AskAsync(int accountId, string personId, OuttakeWish wish, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var id = Guid.NewGuid();
        await connection.ExecuteAsync(
            new CommandDefinition(
                """
                delete from outtake where made_at < @old;
                insert into outtake (id, account_id, person_id, made_at, wish) values (@id, @accountId, @personId, @now, @wish::jsonb)
                """,
                new
                {
                    id,
                    accountId,
                    personId,
                    now = clock.GetUtcNow(),
                    old = clock.GetUtcNow() - KeptFor,
                    wish = JsonSerializer.Serialize(wish, StoredJson.Options),
                },
                cancellationToken: cancellation
            )
        );
        return id;
    }

    /// <summary>What was asked for, by the person who asked; none when it is long ago.</summary>
    public async Task<OuttakeWish?> FindAsync(
        int accountId,
        string personId,
        Guid outtakeId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var wish = await connection.ExecuteScalarAsync<string?>(
            new CommandDefinition(
                "select wish::text from outtake where id = @outtakeId and account_id = @accountId and person_id = @personId and made_at >= @old",
                new
                {
                    outtakeId,
                    accountId,
                    personId,
                    old = clock.GetUtcNow() - KeptFor,
                },
                cancellationToken: cancellation
            )
        );
        return wish is null ? null : JsonSerializer.Deserialize<OuttakeWish>(wish, StoredJson.Options);
    }
}
