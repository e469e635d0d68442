using System.Collections.Concurrent;
using Microsoft.Extensions.Caching.Memory;

namespace Fendrik.Data.Sheets;

/// <summary>Days whose figures a sheet shows, both counted in.</summary>
public readonly record struct FigurePeriod(DateOnly From, DateOnly To);

/// <summary>What was counted and sorted for a sheet holds until the account's next revision: this remembers it that long.</summary>
/// <remarks>
/// Only a saving: every server finds it all again by itself, so nothing is lost with it. Bounded by size; what is used
/// least goes first.
/// </remarks>
internal sealed class SheetOrders : IDisposable
{
    private const long MostBytes = 192L << 20;

    private readonly MemoryCache _kept = new(new MemoryCacheOptions { SizeLimit = MostBytes });
    private readonly ConcurrentDictionary<object, Lazy<Task<object>>> _underWay = new();

    /// <summary>What is kept under the key, or what is found now; asked for by many at once, it is found once.</summary>
    /// <param name="key">Says account, revision and question.</param>
    /// <param name="size">Bytes that the answer takes.</param>
    /// <param name="find">Finds the answer.</param>
    public async Task<T> GetAsync<T>(object key, Func<T, long> size, Func<Task<T>> find)
        where T : notnull
    {
        if (_kept.TryGetValue(key, out T? kept))
        {
            return kept!;
        }

        var finding = _underWay.GetOrAdd(key, _ => new Lazy<Task<object>>(async () => await find()));
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

    public void Dispose() => _kept.Dispose();
}
