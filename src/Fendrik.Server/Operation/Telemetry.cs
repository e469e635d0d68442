using Npgsql;
using OpenTelemetry;
using OpenTelemetry.Metrics;
using OpenTelemetry.Resources;
using OpenTelemetry.Trace;

namespace Fendrik.Server.Operation;

/// <summary>
/// Traces and metrics by OpenTelemetry, off unless the setting <c>OTEL_EXPORTER_OTLP_ENDPOINT</c> says where they go; the other
/// settings of its exporter hold as well.
/// </summary>
internal static class Telemetry
{
    private const string Endpoint = "OTEL_EXPORTER_OTLP_ENDPOINT";

    public static void AddFendrikTelemetry(this IServiceCollection services, IConfiguration configuration)
    {
        if (string.IsNullOrEmpty(configuration[Endpoint]))
        {
            return;
        }

        services
            .AddOpenTelemetry()
            .ConfigureResource(resource => resource.AddService("fendrik-server"))
            .WithTracing(traces =>
                traces
                    .AddAspNetCoreInstrumentation()
                    .AddHttpClientInstrumentation()
                    .AddNpgsql()
                    .AddSource(JobMeasures.Name)
            )
            .WithMetrics(metrics =>
                metrics
                    .AddAspNetCoreInstrumentation()
                    .AddHttpClientInstrumentation()
                    .AddMeter("Npgsql", JobMeasures.Name)
            )
            .UseOtlpExporter();
    }
}
