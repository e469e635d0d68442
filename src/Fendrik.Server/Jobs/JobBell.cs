namespace Fendrik.Server.Jobs;

/// <summary>Wakes the workers of this server when it has taken on a job, so that they need not look all the time.</summary>
public sealed class JobBell : IDisposable
{
    private readonly Dictionary<JobLane, SemaphoreSlim> _rung = Enum.GetValues<JobLane>()
        .ToDictionary(lane => lane, _ => new SemaphoreSlim(0));

    /// <summary>Wakes a worker of a lane.</summary>
    public void Ring(JobLane lane) => _rung[lane].Release();

    /// <summary>Waits until the bell of a lane is rung, or for so long.</summary>
    public Task WaitAsync(JobLane lane, TimeSpan atMost, CancellationToken stopping) =>
        _rung[lane].WaitAsync(atMost, stopping);

    public void Dispose()
    {
        foreach (var bell in _rung.Values)
        {
            bell.Dispose();
        }
    }
}
