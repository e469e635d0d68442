using System.Diagnostics;
using System.Globalization;

namespace Fendrik.Bench;

/// <summary>Times work and its baseline in the same run and prints their ratio; the machine of the day cancels out.</summary>
internal static class Measure
{
    /// <summary>The median of some runs, in milliseconds, after one that warms up.</summary>
    public static async Task<double> MedianAsync(int runs, Func<Task> work)
    {
        await work();
        var times = new List<double>(runs);
        for (var run = 0; run < runs; run++)
        {
            var begun = Stopwatch.GetTimestamp();
            await work();
            times.Add(Stopwatch.GetElapsedTime(begun).TotalMilliseconds);
        }

        times.Sort();
        return times[runs / 2];
    }

    /// <summary>Work that is done once, in milliseconds.</summary>
    public static Task<double> OnceAsync(Action work)
    {
        var begun = Stopwatch.GetTimestamp();
        work();
        return Task.FromResult(Stopwatch.GetElapsedTime(begun).TotalMilliseconds);
    }

    public static void Print(string what, double work, double baseline, string goal) =>
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{what, -66} {work, 10:0.0} ms {baseline, 10:0.0} ms {work / baseline, 8:0.00} ×   {goal}"
            )
        );

    public static void Head() => Console.WriteLine($"{"", -66} {"measured", 13} {"baseline", 13} {"ratio", 10}   goal");
}
