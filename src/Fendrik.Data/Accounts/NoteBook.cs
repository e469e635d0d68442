using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Steps;
using Npgsql;

namespace Fendrik.Data.Accounts;

/// <summary>A note of an account.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Day">The day that it is about.</param>
/// <param name="Text">What it says.</param>
/// <param name="Person">Who wrote it.</param>
/// <param name="MadeAt">When it was written.</param>
/// <param name="ChangedAt">When it was last changed; none for never.</param>
[method: ExplicitConstructor]
public sealed record KeptNote(
    long Id,
    DateOnly Day,
    string Text,
    string Person,
    DateTimeOffset MadeAt,
    DateTimeOffset? ChangedAt
);

/// <summary>Keeps the notes of accounts.</summary>
public sealed class NoteBook(NpgsqlDataSource source, TimeProvider clock)
{
    private const int MostListed = 1_000;

    /// <summary>The notes, the latest day first.</summary>
    public async Task<IReadOnlyList<KeptNote>> ListAsync(int accountId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        return
        [
            .. await connection.QueryAsync<KeptNote>(
                new CommandDefinition(
                    """
                    select n.id, n.day, n.text, coalesce(p.display_name, '') as person, n.made_at, n.changed_at
                    from account_note n left join "AspNetUsers" p on p.id = n.person_id where n.account_id = @accountId order by n.day desc, n.id desc limit @MostListed
                    """,
                    new { accountId, MostListed },
                    cancellationToken: cancellation
                )
            ),
        ];
    }

    /// <summary>Writes a note, or writes one anew.</summary>
    /// <param name="accountId">The account.</param>
    /// <param name="noteId">The note that is changed; none for a new one.</param>
    /// <param name="day">The day that it is about.</param>
    /// <param name="text">What it says.</param>
    /// <param name="personId">Who writes.</param>
    /// <param name="cancellation">Stops it.</param>
    /// <returns>Its identity.</returns>
    /// <exception cref="InvalidChangeException">The text cannot be, or the note is gone.</exception>
    public async Task<long> WriteAsync(
        int accountId,
        long? noteId,
        DateOnly day,
        string? text,
        string personId,
        CancellationToken cancellation
    )
    {
        if (AccountNote.Problem(text) is { } problem)
        {
            throw new InvalidChangeException("text", problem);
        }

        await using var connection = await source.OpenConnectionAsync(cancellation);
        return await connection.ExecuteScalarAsync<long?>(
                new CommandDefinition(
                    noteId is null
                        ? "insert into account_note (account_id, day, text, person_id, made_at) values (@accountId, @day, @text, @personId, @now) returning id"
                        : "update account_note set day = @day, text = @text, changed_at = @now where id = @noteId and account_id = @accountId returning id",
                    new
                    {
                        accountId,
                        noteId,
                        day,
                        text = text!.Trim(),
                        personId,
                        now = clock.GetUtcNow(),
                    },
                    cancellationToken: cancellation
                )
            ) ?? throw Gone();
    }

    /// <summary>Removes a note.</summary>
    /// <exception cref="InvalidChangeException">It is gone.</exception>
    public async Task RemoveAsync(int accountId, long noteId, CancellationToken cancellation)
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var removed = await connection.ExecuteAsync(
            new CommandDefinition(
                "delete from account_note where id = @noteId and account_id = @accountId",
                new { accountId, noteId },
                cancellationToken: cancellation
            )
        );
        if (removed == 0)
        {
            throw Gone();
        }
    }

    private static InvalidChangeException Gone() =>
        new("noteId", "There is no such note any more. Load the page again.");
}
