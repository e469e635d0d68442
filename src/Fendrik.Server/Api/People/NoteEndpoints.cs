using Fendrik.Data.Accounts;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.People;

/// <summary>A note to be written.</summary>
/// <param name="Day">The day that it is about.</param>
/// <param name="Text">What it says.</param>
public sealed record NoteText(DateOnly Day, string Text);

/// <summary>A note that was written.</summary>
/// <param name="Id">Its identity.</param>
public sealed record WrittenNote(long Id);

/// <summary>Notes of the account: what was agreed with the client, and when.</summary>
internal static class NoteEndpoints
{
    public static void MapNotes(this RouteGroupBuilder account)
    {
        account.MapGet("/notes", ListAsync).WithName("listNotes");
        account.MapPost("/notes", AddAsync).WithName("addNote");
        account.MapPut("/notes/{noteId:long}", ChangeAsync).WithName("changeNote");
        account.MapDelete("/notes/{noteId:long}", RemoveAsync).WithName("removeNote");
    }

    private static async Task<Ok<IReadOnlyList<KeptNote>>> ListAsync(
        int accountId,
        NoteBook notes,
        CancellationToken cancellation
    ) => TypedResults.Ok(await notes.ListAsync(accountId, cancellation));

    private static async Task<Ok<WrittenNote>> AddAsync(
        int accountId,
        NoteText body,
        HttpContext context,
        NoteBook notes,
        CancellationToken cancellation
    ) =>
        TypedResults.Ok(
            new WrittenNote(
                await notes.WriteAsync(accountId, null, body.Day, body.Text, context.User.PersonId(), cancellation)
            )
        );

    private static async Task<NoContent> ChangeAsync(
        int accountId,
        long noteId,
        NoteText body,
        HttpContext context,
        NoteBook notes,
        CancellationToken cancellation
    )
    {
        await notes.WriteAsync(accountId, noteId, body.Day, body.Text, context.User.PersonId(), cancellation);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> RemoveAsync(
        int accountId,
        long noteId,
        NoteBook notes,
        CancellationToken cancellation
    )
    {
        await notes.RemoveAsync(accountId, noteId, cancellation);
        return TypedResults.NoContent();
    }
}
