using System.Collections.Concurrent;
using Fendrik.Core.AdText.Fit;
using Fendrik.Core.Tracking;
using Fendrik.Data.Links;
using Fendrik.Server.Jobs;

namespace Fendrik.Server.Links;

/// <summary>Follows every link of an account once, and reads its pages: hosts side by side, the pages of one host one after the other.</summary>
public sealed class LinkChecker(LinkBook book, PageBook pages, PageVisitor visitor)
{
    private const int HostsAtOnce = 4;

    /// <summary>Follows the links and writes down what they showed.</summary>
    /// <returns>In words.</returns>
    public async Task<string?> RunAsync(int accountId, JobProgress progress, CancellationToken stop)
    {
        var links = await book.UsedAsync(accountId, stop);
        var found = new (UsedLink Link, string Address, LinkVerdict Verdict)[links.Count];
        var texts = new ConcurrentBag<PageText>();
        var done = 0;
        await progress.TellAsync(0, links.Count, force: true);
        using var telling = new SemaphoreSlim(1);
        await Parallel.ForEachAsync(
            links.Index().GroupBy(each => HostOf(each.Item.Page)),
            new ParallelOptions { MaxDegreeOfParallelism = HostsAtOnce, CancellationToken = stop },
            async (host, cancellation) =>
            {
                var known = new Dictionary<string, LinkVerdict>(StringComparer.Ordinal);
                var read = new HashSet<string>(StringComparer.Ordinal);
                foreach (var (place, link) in host)
                {
                    var address = TrackedLink.Of(link.Template, link.Click).Address ?? link.Page;
                    if (!known.TryGetValue(address, out var verdict))
                    {
                        known[address] = verdict = await visitor.VisitAsync(address, cancellation);
                    }

                    found[place] = (link, address, verdict);
                    if (
                        texts.Count < PageBook.MostKept
                        && read.Add(link.Page)
                        && await visitor.ReadAsync(link.Page, verdict.Final, verdict.Milliseconds, cancellation)
                            is { } text
                    )
                    {
                        texts.Add(text);
                    }

                    await telling.WaitAsync(cancellation);
                    try
                    {
                        await progress.TellAsync(++done);
                    }
                    finally
                    {
                        telling.Release();
                    }
                }
            }
        );
        await book.KeepAsync(accountId, found, stop);
        await pages.KeepAsync(accountId, texts, stop);
        var amiss = found.Count(each => each.Verdict.Weight is not null);
        return links.Count == 0 ? "There are no links yet."
            : amiss == 0 ? $"All {links.Count:N0} links are fine."
            : $"{amiss:N0} of {links.Count:N0} links need a look.";
    }

    private static string HostOf(string page) =>
        Uri.TryCreate(
            page.Contains("://", StringComparison.Ordinal) ? page : "https://" + page,
            UriKind.Absolute,
            out var uri
        )
            ? uri.Host
            : page;
}
