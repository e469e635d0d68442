using Dapper;
using Fendrik.Data.Accounts;
using Fendrik.Data.Items;
using Npgsql;

namespace Fendrik.Data.Steps;

/// <summary>An item that was left as it was, and why.</summary>
public sealed record RefusedItem(ItemKind Kind, long Id, string Name, string Reason);

/// <summary>Items that were left as they were: how many, and the first of them.</summary>
public sealed class Refusals
{
    /// <summary>Most that are named; the others are counted.</summary>
    public const int MostNamed = 200;

    private readonly List<RefusedItem> _named = [];

    public int Count { get; private set; }
    public IReadOnlyList<RefusedItem> Named => _named;

    internal void Add(RefusedItem item, int standingFor = 1)
    {
        Count += standingFor;
        if (_named.Count < MostNamed)
        {
            _named.Add(item);
        }
    }
}

/// <summary>What a change has to work with: the transaction, the step, the account.</summary>
public sealed class StepContext
{
    internal StepContext(NpgsqlConnection connection, AccountFacts account, long stepId, CancellationToken cancellation)
    {
        (Connection, Account, StepId, Cancellation) = (connection, account, stepId, cancellation);
    }

    public AccountFacts Account { get; }
    public long StepId { get; }
    internal NpgsqlConnection Connection { get; }
    internal CancellationToken Cancellation { get; }
    internal Refusals Refused { get; } = new();

    /// <summary>Tables that pair copies (<c>new_id</c>) with what they were copied of (<c>source_id</c>), by kind. They last until the step ends.</summary>
    internal Dictionary<ItemKind, string> Copied { get; } = [];

    /// <summary>Refuses the rows of a table (alias <c>i</c>) under a condition, all for one reason.</summary>
    /// <returns>How many.</returns>
    internal async Task<int> RefuseAsync(ItemTable table, string condition, string reason, object? parameters)
    {
        var rows = (
            await QueryAsync<(long Id, string Name, int All)>(
                $"select i.id, {table.NameColumn}, (count(*) over ())::int from {table.Name} i where {condition} limit {Refusals.MostNamed}",
                parameters
            )
        ).ToArray();
        for (var place = 0; place < rows.Length; place++)
        {
            // The last one named stands for those that are not.
            var standingFor = place == rows.Length - 1 ? rows[place].All - place : 1;
            Refused.Add(new RefusedItem(table.Kind, rows[place].Id, rows[place].Name, reason), standingFor);
        }

        return rows.Length == 0 ? 0 : rows[0].All;
    }

    internal Task<int> ExecuteAsync(string sql, object? parameters = null) =>
        Connection.ExecuteAsync(Command(sql, parameters));

    internal Task<IEnumerable<T>> QueryAsync<T>(string sql, object? parameters = null) =>
        Connection.QueryAsync<T>(Command(sql, parameters));

    internal Task<T?> ScalarAsync<T>(string sql, object? parameters = null) =>
        Connection.ExecuteScalarAsync<T>(Command(sql, parameters));

    private CommandDefinition Command(string sql, object? parameters) =>
        new(sql, parameters, commandTimeout: 600, cancellationToken: Cancellation);
}

/// <summary>What a change did, in words for the history and as a number of items.</summary>
public sealed record StepOutcome(string Label, int Items);

/// <summary>The part of a change that lies in another account: a step of its own there, with an undo of its own.</summary>
/// <param name="AccountId">The other account.</param>
/// <param name="Change">What is done there.</param>
/// <param name="Seen">The versions of its items on which the change was made.</param>
public sealed record ElsewhereChange(int AccountId, IWorkingCopyChange Change, IReadOnlyList<SeenItem> Seen);

/// <summary>One change of the working copy. It runs in a transaction and may look at and write whatever belongs to the account.</summary>
public interface IWorkingCopyChange
{
    /// <summary>What those who wait behind it are told.</summary>
    AccountDoing Doing => AccountDoing.Edit;

    /// <summary>The other account in which a part of it lies, and which it therefore holds too; none for most.</summary>
    int? OtherAccountId => null;

    /// <summary>The part that lies in the other account, and is done with it or not at all.</summary>
    /// <param name="account">The account of the change itself.</param>
    ElsewhereChange? ElsewhereOf(AccountFacts account) => null;

    Task<StepOutcome> ApplyAsync(StepContext context);
}
