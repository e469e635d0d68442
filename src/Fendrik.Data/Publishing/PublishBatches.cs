using System.Text.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Model;
using Npgsql;

namespace Fendrik.Data.Publishing;

/// <summary>A batch of a publish, ready to be sent.</summary>
/// <param name="Key">Idempotency key: the same for the same batch, however often it is sent.</param>
/// <param name="Round">The round of the publish that it is sent in.</param>
/// <param name="First">Position of its first change.</param>
/// <param name="Next">Position of the first change after it.</param>
/// <param name="Changes">The changes in order.</param>
public sealed record PublishBatch(string Key, int Round, int First, int Next, IReadOnlyList<NetworkChange> Changes);

/// <summary>A batch that may be on the network: it was to be sent, and not all of its answers are here.</summary>
/// <param name="Key">Its idempotency key.</param>
/// <param name="First">Position of its first change.</param>
/// <param name="Next">Position of the first change after it.</param>
public sealed record UnansweredBatch(string Key, int First, int Next);

/// <summary>Where the sending of a publish stands.</summary>
/// <param name="State">As it was written down last.</param>
/// <param name="Number">Number of the round.</param>
/// <param name="SentUpTo">Positions before this one may have been sent.</param>
/// <param name="Unanswered">The batches among them whose answers are not all here.</param>
public sealed record PublishRound(
    PublishState State,
    int Number,
    int SentUpTo,
    IReadOnlyList<UnansweredBatch> Unanswered
);

/// <summary>The round of a publish that has lost it: another server has taken the publish up, or it was given up.</summary>
public sealed class PublishTakenOverException()
    : Exception("The publish was taken up elsewhere, or given up; this sending of it has ended.");

/// <summary>
/// The batches of a publish. A publish is sent in rounds: it is marked how far a round may have got before anything goes out, and
/// every answer is written down as it comes, so that after a stop of any kind it is known what may be on the network. Before the
/// next round begins, the batches of the last are settled with the network, and what is no longer as it was is left out.
/// </summary>
/// <param name="source">The database.</param>
/// <param name="size">Items in one request.</param>
public sealed class PublishBatches(NpgsqlDataSource source, int size = PublishBatches.UsualSize)
{
    /// <summary>Items in one request, unless said otherwise.</summary>
    public const int UsualSize = 2_000;

    /// <summary>How far a publish is: items that something became of.</summary>
    public async Task<long> DoneAsync(long publishId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<long>(
            new CommandDefinition(
                "select accepted + refused + changed_since + left_out from publish where id = @publishId",
                new { publishId },
                cancellationToken: cancellation
            )
        );
    }

    /// <summary>The round that is under way, with what may be on the network of it.</summary>
    public async Task<PublishRound> RoundAsync(long publishId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var (state, round, sentUpTo) = await connection.QuerySingleAsync<(short, int, int)>(
            new CommandDefinition(
                "select state, round, sent_up_to from publish where id = @publishId",
                new { publishId },
                cancellationToken: cancellation
            )
        );
        var numbers = await connection.QueryAsync<int>(
            new CommandDefinition(
                """
                select distinct position / @size from publish_item
                where publish_id = @publishId and position < @sentUpTo and outcome = 0 order by 1
                """,
                new
                {
                    publishId,
                    size,
                    sentUpTo,
                },
                cancellationToken: cancellation
            )
        );
        return new PublishRound(
            (PublishState)state,
            round,
            sentUpTo,
            [
                .. numbers.Select(number => new UnansweredBatch(
                    KeyOf(publishId, round, number),
                    number * size,
                    (number + 1) * size
                )),
            ]
        );
    }

    /// <summary>
    /// Begins the next round, once every batch of the last is settled: items that are no longer as they were when the publish
    /// began are left out and named.
    /// </summary>
    /// <returns>False when somebody has sent more of the last round meanwhile.</returns>
    public async Task<bool> NextRoundAsync(long publishId, PublishRound last, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        await PublishLock.TakeAsync(connection, publishId, cancellation);
        var begun = await connection.ExecuteAsync(
            new CommandDefinition(
                "update publish set round = round + 1, sent_up_to = 0 where id = @publishId and round = @Number and sent_up_to = @SentUpTo and state = 1",
                new
                {
                    publishId,
                    last.Number,
                    last.SentUpTo,
                },
                cancellationToken: cancellation
            )
        );
        if (begun == 0)
        {
            return false;
        }

        // In the first round all is as it was a moment ago.
        if (last.Number > 0 || last.SentUpTo > 0)
        {
            var kinds = await connection.QueryAsync<short>(
                new CommandDefinition(
                    "select distinct kind from publish_item where publish_id = @publishId and outcome = 0",
                    new { publishId },
                    cancellationToken: cancellation
                )
            );
            foreach (var table in ItemTable.All.Where(table => kinds.Contains((short)table.Kind)))
            {
                await connection.ExecuteAsync(
                    new CommandDefinition(
                        LeaveOut(table),
                        new { publishId },
                        commandTimeout: 600,
                        cancellationToken: cancellation
                    )
                );
            }

            await connection.ExecuteAsync(
                new CommandDefinition(
                    "update publish p set left_out = (select count(*) from publish_item i where i.publish_id = p.id and i.outcome = 4) where id = @publishId",
                    new { publishId },
                    cancellationToken: cancellation
                )
            );
        }

        await transaction.CommitAsync(cancellation);
        return true;
    }

    /// <summary>The first batch from a position on with an item that has no answer yet, or none when all have one.</summary>
    public async Task<PublishBatch?> NextAsync(long publishId, CancellationToken cancellation, int from = 0)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var (first, round) = await connection.QuerySingleAsync<(int? First, int Round)>(
            new CommandDefinition(
                """
                select (select position from publish_item where publish_id = @publishId and position >= @from and outcome = 0 order by position limit 1), round
                from publish where id = @publishId
                """,
                new { publishId, from },
                cancellationToken: cancellation
            )
        );
        if (first is null)
        {
            return null;
        }

        var number = first.Value / size;
        var items = await connection.QueryAsync<(short Kind, long Id, short Action, string? Sent, long? Seen)>(
            new CommandDefinition(
                $"""
            select p.kind, p.item_id, p.action, p.sent::text, case p.kind {string.Concat(
                ItemTable.All.Select(table =>
                    $"when {table.Number} then (select case when i.is_live then i.live_version else 0 end from {table.Name} i where i.id = p.item_id) "
                )
            )} end
            from publish_item p where p.publish_id = @publishId and p.position between @from and @to and p.outcome = 0 order by p.position
            """,
                new
                {
                    publishId,
                    from = number * size,
                    to = ((number + 1) * size) - 1,
                },
                cancellationToken: cancellation
            )
        );
        return new PublishBatch(
            KeyOf(publishId, round, number),
            round,
            number * size,
            (number + 1) * size,
            [
                .. items.Select(item => new NetworkChange(
                    (ItemKind)item.Kind,
                    item.Id,
                    (ChangeAction)item.Action,
                    item.Sent is null ? null : JsonDocument.Parse(item.Sent).RootElement,
                    item.Seen
                )),
            ]
        );
    }

    /// <summary>Marks that a batch may be on the network from now on.</summary>
    /// <exception cref="PublishTakenOverException">The publish is in another round by now, or was given up.</exception>
    public async Task MarkSentAsync(long publishId, PublishBatch batch, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var marked = await connection.ExecuteAsync(
            new CommandDefinition(
                "update publish set sent_up_to = greatest(sent_up_to, @Next) where id = @publishId and round = @Round and state = 1",
                new
                {
                    publishId,
                    batch.Next,
                    batch.Round,
                },
                cancellationToken: cancellation
            )
        );
        if (marked == 0)
        {
            throw new PublishTakenOverException();
        }
    }

    // The size is part of the key: the same key for other changes would be answered with the answers of the first.
    private string KeyOf(long publishId, int round, int number) =>
        $"publish-{publishId}-{size}-{number}" + (round == 0 ? "" : $"-{round}");

    private static string LeaveOut(ItemTable table) =>
        $"""
            update publish_item p set outcome = 4, reason = case
                when not ({PublishRecords.Decided(
                table
            )}) then 'It was changed on the network itself; decide under Changes whose version holds.'
                when p.action = 2 then 'Its removal was taken back before it was sent.'
                when i.removed then 'It was removed again before it was sent.'
                else 'It was edited again before it was sent; it goes out with the next publish.' end
            from {table.Name} i
            where p.publish_id = @publishId and p.outcome = 0 and p.kind = {table.Number} and i.id = p.item_id and not (
              {PublishRecords.Decided(table)} and case when p.action = 2 then i.removed and i.is_live
                else not i.removed and ({table.TrulyPending}) and {table.Sent("i")} = p.sent end)
            """;
}
