using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Serving;
using Fendrik.Data.Steps;
using Fendrik.Data.Tracing;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Http.HttpResults;
using Npgsql;

namespace Fendrik.Server.Api;

/// <summary>Which copy of the account a search is traced in.</summary>
public enum TracedCopy
{
    /// <summary>What is being edited.</summary>
    Working = 1,

    /// <summary>What the network serves.</summary>
    Live = 2,
}

/// <summary>A search to be traced.</summary>
/// <param name="Text">What is typed: 1 to 400 characters.</param>
/// <param name="Device">On which device.</param>
/// <param name="Site">On which kind of site; just one.</param>
/// <param name="Copy">In which copy.</param>
/// <param name="Day">For the working copy: on which day; none for the network's today.</param>
public sealed record TraceRequest(string Text, Device Device, SiteKinds Site, TracedCopy Copy, DateOnly? Day = null);

internal static class TraceEndpoints
{
    public static void MapTrace(this RouteGroupBuilder account) =>
        account.MapPost("/trace", TraceAsync).WithName("traceSearch");

    private static async Task<Ok<SearchTrace>> TraceAsync(
        int accountId,
        TraceRequest request,
        WorkingCopyTrace workingCopy,
        SearchNetworks networks,
        NpgsqlDataSource source,
        CancellationToken cancellation
    )
    {
        var wish = new TraceWish(request.Text.Trim(), request.Device, request.Site);
        if (wish.Problem is { } problem)
        {
            throw new InvalidChangeException(problem.Field, problem.Message);
        }

        return TypedResults.Ok(
            request.Copy switch
            {
                TracedCopy.Working => await workingCopy.TraceAsync(
                    accountId,
                    wish,
                    request.Day ?? await TodayAsync(source, accountId, cancellation),
                    cancellation
                ),
                TracedCopy.Live => await (await networks.OfAccountAsync(accountId, cancellation)).TraceAsync(
                    accountId,
                    wish,
                    cancellation
                ),
            }
        );
    }

    /// <summary>The day on the network when it was last read; before that, today.</summary>
    private static async Task<DateOnly> TodayAsync(
        NpgsqlDataSource source,
        int accountId,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var (zone, now) = await connection.QuerySingleAsync<(string Zone, DateTime Now)>(
            new CommandDefinition(
                "select time_zone, coalesce(network_now, now()) at time zone 'UTC' from account where id = @accountId",
                new { accountId },
                cancellationToken: cancellation
            )
        );
        return new AccountDay(zone).At(new DateTimeOffset(now, TimeSpan.Zero)).Day;
    }
}
