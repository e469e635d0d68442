using Dapper;
using Fendrik.Data.Model;
using Fendrik.Data.Publishing;
using Fendrik.Data.Sheets;
using Fendrik.Data.Sheets.Conditions;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Fendrik.Server.Jobs;
using Fendrik.Server.Live;
using Microsoft.AspNetCore.Http.HttpResults;
using Npgsql;

namespace Fendrik.Server.Api;

/// <summary>What the strip and the top bar say at all times.</summary>
/// <param name="PublishStopped">Why the last publish was interrupted, while it is neither continued nor given up.</param>
/// <param name="SetAside">Work that was begun several times without coming to an end, until the like of it succeeds.</param>
/// <param name="Counting">True while changes and findings are still counted after a step; the numbers are those of before.</param>
public sealed record AccountStatus(
    bool Counting,
    long Changes,
    int Blockers,
    int Cautions,
    int Hints,
    DateTimeOffset? LiveReadAt,
    string? NetworkTime,
    DateOnly? ReportedTo,
    string? UndoLabel,
    string? RedoLabel,
    long LastStepId,
    long? RunningJobId,
    string? PublishStopped,
    IReadOnlyList<JobView> SetAside
);

[method: ExplicitConstructor]
public sealed record PlaceInAccount(
    ItemKind Kind,
    long Id,
    string Name,
    string? Inside,
    long? CampaignId,
    long? AdGroupId,
    MatchType? Match
);

internal static class OverviewEndpoints
{
    private const int MostFound = 20;

    public static void MapOverview(this RouteGroupBuilder account)
    {
        account.MapGet("/status", StatusAsync).WithName("readStatus");
        account.MapGet("/campaigns", CampaignsAsync).WithName("listCampaigns");
        account.MapGet("/campaigns/{campaignId:long}/ad-groups", AdGroupsAsync).WithName("listAdGroups");
        account.MapGet("/find", FindAsync).WithName("find");
        account.MapGet("/network", NetworkAsync).WithName("readNetwork");
    }

    private static async Task<Ok<AccountStatus>> StatusAsync(
        int accountId,
        NpgsqlDataSource source,
        StatusCounts counts,
        StepHistory history,
        PublishRecords publishes,
        JobDesk jobs,
        HttpContext context,
        CancellationToken cancellation
    )
    {
        var person = context.User.PersonId();
        var undo = await history.NextUndoAsync(accountId, person, cancellation);
        var redo = await history.NextRedoAsync(accountId, person, cancellation);
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var row = await connection.QuerySingleAsync<(
            DateTime? LiveReadAt,
            DateTime? NetworkNow,
            DateOnly? ReportedTo,
            long LastStepId,
            long Revision,
            string TimeZone,
            long? Job
        )>(
            new CommandDefinition(
                """
                select live_read_at at time zone 'UTC', network_now at time zone 'UTC', reported_to, last_step_id, revision, time_zone,
                  (select max(id) from job where account_id = @accountId and state in (1, 2) and kind in ('publish', 'clock'))
                from account where id = @accountId
                """,
                new { accountId },
                cancellationToken: cancellation
            )
        );
        var open = await publishes.OpenAsync(accountId, cancellation);
        var counted = await counts.ReadAsync(accountId, row.Revision);
        return TypedResults.Ok(
            new AccountStatus(
                counted.Revision != row.Revision,
                counted.Changes,
                counted.Found.Blockers,
                counted.Found.Cautions,
                counted.Found.Hints,
                row.LiveReadAt is { } read ? new DateTimeOffset(DateTime.SpecifyKind(read, DateTimeKind.Utc)) : null,
                row.NetworkNow is { } now ? WallClock(DateTime.SpecifyKind(now, DateTimeKind.Utc), row.TimeZone) : null,
                row.ReportedTo,
                undo?.Label,
                redo?.TakesBack,
                row.LastStepId,
                row.Job,
                open is { State: PublishState.Interrupted } ? open.Problem : null,
                await jobs.SetAsideAsync(accountId, cancellation)
            )
        );
    }

    /// <summary>“Tue 12 May, 14:00” on the clock of the account.</summary>
    private static string WallClock(DateTime utc, string timeZone)
    {
        var (day, hour) = new AccountDay(timeZone).At(utc);
        return $"{day:ddd d MMM}, {hour:00}:{utc.Minute:00}";
    }

    private static async Task<Ok<List<PlaceInAccount>>> CampaignsAsync(
        int accountId,
        NpgsqlDataSource source,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<PlaceInAccount>(
            new CommandDefinition(
                "select 1 as kind, id, name, null::text as inside, id as campaign_id, null::bigint as ad_group_id, null::smallint as match from campaign where account_id = @accountId and not removed order by name_key limit 5000",
                new { accountId },
                cancellationToken: cancellation
            )
        );
        return TypedResults.Ok(rows.AsList());
    }

    private static async Task<Ok<List<PlaceInAccount>>> AdGroupsAsync(
        int accountId,
        long campaignId,
        NpgsqlDataSource source,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<PlaceInAccount>(
            new CommandDefinition(
                """
                select 2 as kind, id, name, null::text as inside, campaign_id, id as ad_group_id, null::smallint as match from ad_group
                where account_id = @accountId and campaign_id = @campaignId and not removed order by name_key limit 20000
                """,
                new { accountId, campaignId },
                cancellationToken: cancellation
            )
        );
        return TypedResults.Ok(rows.AsList());
    }

    private static async Task<Ok<List<PlaceInAccount>>> FindAsync(
        int accountId,
        string words,
        NpgsqlDataSource source,
        CancellationToken cancellation
    )
    {
        var like = LikePattern.Containing(words ?? "");
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var rows = await connection.QueryAsync<PlaceInAccount>(
            new CommandDefinition(
                ItemSearch.Sql,
                new
                {
                    accountId,
                    like,
                    most = MostFound,
                },
                cancellationToken: cancellation
            )
        );
        return TypedResults.Ok(rows.AsList());
    }

    private static async Task<Ok<NetworkProfile>> NetworkAsync(
        int accountId,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    ) => TypedResults.Ok((await workingCopy.FactsAsync(accountId, cancellation)).Network);
}
