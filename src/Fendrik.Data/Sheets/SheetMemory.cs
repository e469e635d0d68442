using System.Collections.Concurrent;
using System.Text.Json;
using Microsoft.Extensions.Caching.Memory;

namespace Fendrik.Data.Sheets;

/// <summary>Days whose figures a sheet shows, both counted in.</summary>
public readonly record struct FigurePeriod(DateOnly From, DateOnly To);

/// <summary>What was counted and sorted for a sheet holds until the account's next revision: this remembers it that long.</summary>
/// <remarks>
/// Only a saving: every server finds it all again by itself, so nothing is lost with it. Bounded by size; what is used
/// least goes first.
/// </remarks>
internal sealed class SheetMemory : IDisposable
{
    private const long MostBytes = 192L << 20;

    private readonly MemoryCache _kept = new(new MemoryCacheOptions { SizeLimit = MostBytes });
    private readonly ConcurrentDictionary<object, Lazy<Task<object>>> _underWay = new();

    /// <summary>What is kept of a question about a sheet, or what is found now; asked for by many at once, it is found once.</summary>
    /// <param name="ground">The account at its revision.</param>
    /// <param name="request">The sheet that the question is about, whatever its window.</param>
    /// <param name="question">The question.</param>
    /// <param name="size">Bytes that the answer takes.</param>
    /// <param name="find">Finds the answer.</param>
    public async Task<T> KeptAsync<T>(
        SheetGround ground,
        SheetRequest request,
        string question,
        Func<T, long> size,
        Func<Task<T>> find
    )
    {
        if (!IsKept(request))
        {
            return await find();
        }

        var key = KeyOf(ground, request, question);
        if (_kept.TryGetValue(key, out T? kept))
        {
            return kept!;
        }

        var finding = _underWay.GetOrAdd(key, _ => new Lazy<Task<object>>(async () => (await find())!));
        try
        {
            var found = (T)await finding.Value;
            _kept.Set(
                key,
                found,
                new MemoryCacheEntryOptions
                {
                    Size = Math.Max(100, size(found)),
                    SlidingExpiration = TimeSpan.FromMinutes(10),
                }
            );
            return found;
        }
        finally
        {
            _underWay.TryRemove(key, out _);
        }
    }

    /// <summary>The answer where it is kept.</summary>
    public T? Known<T>(SheetGround ground, SheetRequest request, string question) =>
        IsKept(request) && _kept.TryGetValue(KeyOf(ground, request, question), out T? kept) ? kept : default;

    public void Dispose() => _kept.Dispose();

    /// <summary>Findings come and go without a revision: what rests on them is found each time.</summary>
    private static bool IsKept(SheetRequest request) =>
        !request.Needs && !request.Conditions.Any(condition => condition.Field == "need");

    private static object KeyOf(SheetGround ground, SheetRequest request, string question) =>
        (ground, question, JsonSerializer.Serialize(request with { Offset = 0, Limit = 0 }));
}
