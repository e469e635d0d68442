using Dapper;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Diagnostics.HealthChecks;
using Microsoft.Extensions.Diagnostics.HealthChecks;
using Npgsql;

namespace Fendrik.Server.Operation;

/// <summary>
/// Two questions that whoever runs Fendrik asks: does it live (else it is to be started again), and can it work (else nobody is to
/// be sent to it). The answers name parts, and nothing of what is in them.
/// </summary>
internal static class Health
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(5);

    public static void AddFendrikHealth(this IServiceCollection services) =>
        services
            .AddHealthChecks()
            .AddCheck<DatabaseHealth>("database", timeout: Patience)
            .AddCheck<DiskHealth>("disk", timeout: Patience)
            .AddCheck<NetworkHealth>("network", timeout: Patience)
            .AddCheck<JobHealth>("jobs", timeout: Patience);

    public static void MapHealth(this IEndpointRouteBuilder app)
    {
        app.MapHealthChecks("/health/live", new HealthCheckOptions { Predicate = _ => false }).AllowAnonymous();
        app.MapHealthChecks("/health/ready", new HealthCheckOptions { ResponseWriter = WriteAsync }).AllowAnonymous();
    }

    private static Task WriteAsync(HttpContext context, HealthReport report) =>
        context.Response.WriteAsJsonAsync(
            new
            {
                status = report.Status.ToString().ToLowerInvariant(),
                parts = report.Entries.ToDictionary(
                    part => part.Key,
                    part => new
                    {
                        status = part.Value.Status.ToString().ToLowerInvariant(),
                        note = part.Value.Description,
                    }
                ),
            }
        );

    /// <summary>Without the database nothing works.</summary>
    private sealed class DatabaseHealth(NpgsqlDataSource source) : IHealthCheck
    {
        public async Task<HealthCheckResult> CheckHealthAsync(
            HealthCheckContext context,
            CancellationToken cancellationToken = default
        )
        {
            try
            {
                await using var connection = await source.OpenConnectionAsync(cancellationToken);
                await connection.ExecuteAsync(
                    new CommandDefinition("select count(*) from account", cancellationToken: cancellationToken)
                );
                return HealthCheckResult.Healthy();
            }
            catch (NpgsqlException)
            {
                return HealthCheckResult.Unhealthy("It does not answer.");
            }
        }
    }

    private sealed class DiskHealth(DataDisk disk) : IHealthCheck
    {
        public Task<HealthCheckResult> CheckHealthAsync(
            HealthCheckContext context,
            CancellationToken cancellationToken = default
        ) =>
            Task.FromResult(
                disk.Free switch
                {
                    < DataDisk.LeastToWork => HealthCheckResult.Unhealthy("It is full."),
                    < DataDisk.LeastForComfort => HealthCheckResult.Degraded("It is nearly full."),
                    _ => HealthCheckResult.Healthy(),
                }
            );
    }

    /// <summary>Without the network people can go on editing.</summary>
    private sealed class NetworkHealth(SearchNetworks networks) : IHealthCheck
    {
        public async Task<HealthCheckResult> CheckHealthAsync(
            HealthCheckContext context,
            CancellationToken cancellationToken = default
        ) =>
            await networks.AllAnswerAsync(cancellationToken)
                ? HealthCheckResult.Healthy()
                : HealthCheckResult.Degraded("It does not answer; nothing can be published.");
    }

    /// <summary>Jobs that wait long have nobody who does them.</summary>
    private sealed class JobHealth(NpgsqlDataSource source, TimeProvider clock) : IHealthCheck
    {
        private static readonly TimeSpan LongestWait = TimeSpan.FromMinutes(10);

        public async Task<HealthCheckResult> CheckHealthAsync(
            HealthCheckContext context,
            CancellationToken cancellationToken = default
        )
        {
            try
            {
                await using var connection = await source.OpenConnectionAsync(cancellationToken);
                var waiting = await connection.ExecuteScalarAsync<int>(
                    new CommandDefinition(
                        "select count(*) from job where state = 1 and made_at < @before",
                        new { before = clock.GetUtcNow() - LongestWait },
                        cancellationToken: cancellationToken
                    )
                );
                return waiting == 0
                    ? HealthCheckResult.Healthy()
                    : HealthCheckResult.Degraded(
                        $"{waiting} have waited longer than {LongestWait.TotalMinutes:0} minutes."
                    );
            }
            catch (NpgsqlException)
            {
                return HealthCheckResult.Unhealthy("The database does not answer.");
            }
        }
    }
}
