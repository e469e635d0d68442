using System.Collections.Concurrent;
using Dapper;
using Fendrik.Network.Serving;

namespace Fendrik.Network.Customers;

/// <summary>What tools call accounts that were there before them. A name stays for good, so it is looked up once.</summary>
public sealed class AccountLinks(NetworkStore store)
{
    private const string Under = "/v1/accounts/";

    private readonly ConcurrentDictionary<string, string> _known = new(StringComparer.Ordinal);

    /// <summary>Lets a tool's name stand for an account.</summary>
    /// <returns>False where the name stands for another.</returns>
    public async Task<bool> LinkAsync(string alias, string accountId, CancellationToken cancellation)
    {
        await using var connection = await store.OpenAsync(cancellation);
        var linked = await connection.ExecuteScalarAsync<string?>(
            new CommandDefinition(
                """
                insert into account_link (alias, account_id) select @alias, @accountId where not exists (select from account where id = @alias) on conflict do nothing;
                select account_id from account_link where alias = @alias
                """,
                new { alias, accountId },
                cancellationToken: cancellation
            )
        );
        return linked == accountId;
    }

    /// <summary>Leads a request for a tool's name to the account that it stands for.</summary>
    public async Task FollowAsync(HttpContext context, RequestDelegate next)
    {
        if (
            context.Request.Path.Value is { } path
            && path.StartsWith(Under, StringComparison.Ordinal)
            && path[Under.Length..].Split('/', 2) is [var alias, .. var rest]
            && rest is not ["link"]
            && await FindAsync(alias, context.RequestAborted) is { } account
        )
        {
            context.Request.Path = $"{Under}{account}{(rest.Length == 0 ? "" : $"/{rest[0]}")}";
        }

        await next(context);
    }

    private async Task<string?> FindAsync(string alias, CancellationToken cancellation)
    {
        if (_known.TryGetValue(alias, out var known))
        {
            return known;
        }

        await using var connection = await store.OpenAsync(cancellation);
        // A name that an account has itself is its own for good; one that is neither may become either.
        var found = await connection.ExecuteScalarAsync<string?>(
            new CommandDefinition(
                "select coalesce((select account_id from account_link where alias = @alias), (select id from account where id = @alias))",
                new { alias },
                cancellationToken: cancellation
            )
        );
        return found is null ? null : _known.GetOrAdd(alias, found);
    }
}
