using Dapper;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Publishing;

/// <summary>
/// Changes that people hold back from publishing until they let them go. What is new inside something new that is held is held
/// along with it, as is the removal of something whose contents are held.
/// </summary>
public sealed class HeldChanges(NpgsqlDataSource source, TimeProvider clock)
{
    /// <summary>Most that are held or let go at once.</summary>
    public const int MostAtOnce = 5_000;

    /// <summary>Holds changes back, or lets them go, and says how many that were.</summary>
    public async Task<int> SetAsync(
        int accountId,
        string personId,
        IReadOnlyList<ItemReference> items,
        bool hold,
        CancellationToken cancellation
    )
    {
        if (items.Count is 0 or > MostAtOnce)
        {
            throw new Accounts.InvalidChangeException(
                "items",
                items.Count == 0 ? "Tick what is held back." : $"At most {MostAtOnce:N0} are held back at once."
            );
        }

        await using var connection = await source.OpenConnectionAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        var parameters = new
        {
            accountId,
            personId,
            now = clock.GetUtcNow(),
            kinds = items.Select(item => (short)item.Kind).ToArray(),
            ids = items.Select(item => item.Id).ToArray(),
        };
        var changed = await connection.ExecuteAsync(
            new CommandDefinition(
                hold
                    ? $"""
                    insert into held_change (account_id, kind, item_id, person_id, held_at)
                    select @accountId, w.kind, w.id, @personId, @now from unnest(@kinds, @ids) as w(kind, id)
                    where {string.Join(
                        " or ",
                        ItemTable.All.Select(table =>
                            $"w.kind = {table.Number} and exists (select from {table.Name} i where i.id = w.id and i.account_id = @accountId and {table.TrulyPending})"
                        )
                    )}
                    on conflict do nothing
                    """
                    : "delete from held_change h using unnest(@kinds, @ids) as w(kind, id) where h.account_id = @accountId and h.kind = w.kind and h.item_id = w.id",
                parameters,
                cancellationToken: cancellation
            )
        );
        await connection.ExecuteAsync(
            new CommandDefinition("select account_moved(@accountId)", parameters, cancellationToken: cancellation)
        );
        await transaction.CommitAsync(cancellation);
        return changed;
    }

    /// <summary>True when anything of the account is held.</summary>
    internal static Task<bool> AnyAsync(NpgsqlConnection connection, int accountId, CancellationToken cancellation) =>
        connection.ExecuteScalarAsync<bool>(
            new CommandDefinition(
                "select exists (select from held_change where account_id = @accountId)",
                new { accountId },
                cancellationToken: cancellation
            )
        );

    /// <summary>What no longer differs is no longer held.</summary>
    internal static Task ForgetAsync(NpgsqlConnection connection, int accountId, CancellationToken cancellation) =>
        connection.ExecuteAsync(
            new CommandDefinition(
                $"""
                delete from held_change h where h.account_id = @accountId and not ({string.Join(
                    " or ",
                    ItemTable.All.Select(table =>
                        $"h.kind = {table.Number} and exists (select from {table.Name} i where i.id = h.item_id and {table.TrulyPending})"
                    )
                )})
                """,
                new { accountId },
                cancellationToken: cancellation
            )
        );

    /// <summary>Row <c>i</c> is held, by itself or along with what it depends on.</summary>
    internal static string Holds(ItemTable table) =>
        $"(({Put(table, "i")}) and not i.removed or ({Removal(table, "i")}) and i.removed)";

    private static string Itself(ItemTable table, string row) =>
        $"exists (select from held_change h where h.account_id = {row}.account_id and h.kind = {table.Number} and h.item_id = {row}.id)";

    private static string Put(ItemTable table, string row) =>
        string.Join(
            " or ",
            table
                .Parents.Select(parent =>
                {
                    var (holder, above) = (ItemTable.Of(parent.Holder.Kind), "p" + row);
                    return $"exists (select from {holder.Name} {above} where {above}.id = {row}.{parent.Column} and not {above}.is_live and ({Put(holder, above)}))";
                })
                .Prepend(Itself(table, row))
        );

    private static string Removal(ItemTable table, string row) =>
        string.Join(
            " or ",
            (
                from inside in ItemTable.All
                from parent in inside.Parents
                where parent.Holder.Kind == table.Kind
                let below = "c" + row
                select $"exists (select from {inside.Name} {below} where {below}.{parent.Column} = {row}.id and {below}.is_live and {below}.removed and ({Removal(inside, below)}))"
            ).Prepend(Itself(table, row))
        );
}
