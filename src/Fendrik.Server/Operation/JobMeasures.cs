using System.Diagnostics;
using System.Diagnostics.Metrics;

namespace Fendrik.Server.Operation;

/// <summary>What is measured of jobs: a span for each, and how long they took by kind and by how they ended.</summary>
public sealed class JobMeasures : IDisposable
{
    /// <summary>Name of the source of spans and of the meter.</summary>
    public const string Name = "Fendrik.Jobs";

    private readonly ActivitySource _spans = new(Name);
    private readonly Meter _meter = new(Name);
    private readonly Histogram<double> _seconds;

    /// <summary>Makes the instruments.</summary>
    public JobMeasures() =>
        _seconds = _meter.CreateHistogram<double>("fendrik.job.duration", "s", "Time that jobs took, by kind and end.");

    /// <summary>Begins the span of a job.</summary>
    public Activity? Begin(string kind, long job)
    {
        var span = _spans.StartActivity($"job {kind}");
        span?.SetTag("fendrik.job.id", job);
        return span;
    }

    /// <summary>Notes how a job ended.</summary>
    public void End(string kind, string end, TimeSpan took) =>
        _seconds.Record(
            took.TotalSeconds,
            new KeyValuePair<string, object?>("kind", kind),
            new KeyValuePair<string, object?>("end", end)
        );

    public void Dispose()
    {
        _spans.Dispose();
        _meter.Dispose();
    }
}
