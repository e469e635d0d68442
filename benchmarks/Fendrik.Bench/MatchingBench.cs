using Fendrik.Core.Auctions;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;

namespace Fendrik.Bench;

/// <summary>Matching of searches against keywords, and auctions, on one core.</summary>
internal static class MatchingBench
{
    private const int Keywords = 1_000_000;
    private const int Negatives = 10_000;
    private const int Searches = 200_000;
    private const int SearchesOfTheScan = 40;

    public static async Task RunAsync()
    {
        var random = new Random(20260512);
        var keywords = Enumerable
            .Range(0, Keywords)
            .Select(number => (number, Phrase(random, 2 + number % 3), (MatchType)(1 + number % 4)))
            .ToArray();
        var negatives = Enumerable
            .Range(0, Negatives)
            .Select(number => (number, Phrase(random, 2 + number % 2), (MatchType)(1 + number % 3)))
            .ToArray();
        var searches = Enumerable
            .Range(0, Searches)
            .Select(number => Words.Of(Phrase(random, 3 + number % 4)))
            .ToArray();
        await AgainstScanAsync(keywords, searches);
        await OfNetworkAsync(keywords, negatives, searches);
        await AuctionsAsync(random);
    }

    /// <summary>Words as they are written and their plurals, against a scan that has words as integers.</summary>
    private static async Task AgainstScanAsync((int, string, MatchType)[] keywords, IReadOnlyList<string>[] searches)
    {
        var plurals = new WordReach(
            new MatchingRules { CloseVariants = CloseVariants.None with { Numbers = true } },
            RelatedWords.None
        );
        var numbers = new WordNumbers();
        var prepared = keywords
            .Select(keyword => new NumberedKeyword(numbers.Of(Words.Of(keyword.Item2)), keyword.Item3))
            .ToArray();
        var numbered = searches.Take(SearchesOfTheScan).Select(numbers.Of).ToArray();
        var index = new KeywordIndex<int>(keywords, plurals);
        long scanned = 0;
        var byIndex = await Measure.MedianAsync(
            3,
            () =>
            {
                _ = searches.Sum(search => (long)index.FindWith(search).Count);
                return Task.CompletedTask;
            }
        );

        // The scan is long: a part of the searches, timed and scaled to all of them.
        var byScan =
            await Measure.MedianAsync(
                1,
                () =>
                {
                    scanned = numbered.Sum(search => (long)prepared.Count(keyword => keyword.Matches(search)));
                    return Task.CompletedTask;
                }
            )
            * Searches
            / SearchesOfTheScan;
        var agreed = searches.Take(SearchesOfTheScan).Sum(search => (long)index.Find(search).Count);
        if (agreed != scanned)
        {
            throw new InvalidOperationException($"The index finds {agreed}, the scan {scanned}.");
        }

        Measure.Print(
            $"match {Searches:N0} searches against {Keywords:N0} keywords (scan of words as integers: {SearchesOfTheScan}, scaled)",
            byIndex,
            byScan,
            "at most 0.01 ×"
        );
    }

    /// <summary>With all that a network does: close variants, related words, negatives; and keywords that come and go.</summary>
    private static async Task OfNetworkAsync(
        (int, string, MatchType)[] keywords,
        (int, string, MatchType)[] negatives,
        IReadOnlyList<string>[] searches
    )
    {
        var reach = NetworkProfile.Of("ostrel").Reach;
        var before = GC.GetTotalMemory(forceFullCollection: true);
        KeywordIndex<int> index = null!;
        var building = await Measure.OnceAsync(() => index = new KeywordIndex<int>(keywords, reach));
        var blocking = new KeywordIndex<int>(negatives, reach.ForNegatives);
        var memory = (GC.GetTotalMemory(forceFullCollection: true) - before) / 1024.0 / 1024;
        var found = new List<FoundKeyword<int>>();
        var matching = await Measure.MedianAsync(
            3,
            () =>
            {
                foreach (var search in searches)
                {
                    index.Find(search, found);
                    blocking.Find(search, found);
                }

                return Task.CompletedTask;
            }
        );
        const int changed = 10_000;
        var changing = await Measure.OnceAsync(() =>
        {
            for (var number = 0; number < changed; number++)
            {
                index.Remove(number);
                index.Add(number, keywords[number].Item2, keywords[number].Item3);
            }
        });
        Measure.Print(
            $"take in {changed:N0} changed keywords (baseline: filing all of them anew)",
            changing,
            building,
            "at most 0.05 ×"
        );
        Console.WriteLine(
            $"  searches for each second on one core, with close variants, related words and {Negatives:N0} negatives: {Searches / matching * 1000:N0} (goal 200,000); {memory:N0} MB (goal below 1,000)"
        );
    }

    /// <summary>Words as integers, as they are written and as their near forms.</summary>
    private readonly record struct NumberedWords(int[] Written, int[] Near);

    private sealed class WordNumbers
    {
        private readonly Dictionary<string, int> _numbers = [];

        public NumberedWords Of(IReadOnlyList<string> words) =>
            new([.. words.Select(Of)], [.. words.Select(word => Of(Plurals.Singular(word)))]);

        private int Of(string word)
        {
            if (!_numbers.TryGetValue(word, out var number))
            {
                _numbers[word] = number = _numbers.Count;
            }

            return number;
        }
    }

    private sealed record NumberedKeyword(NumberedWords Words, MatchType Match)
    {
        public bool Matches(NumberedWords search) =>
            Match switch
            {
                MatchType.Exact => search.Near.AsSpan().SequenceEqual(Words.Near),
                MatchType.Phrase => search.Near.AsSpan().IndexOf(Words.Near) >= 0,
                MatchType.AllWords or MatchType.Broad => AreAllIn(Words.Near, search.Near),
            };

        private static bool AreAllIn(ReadOnlySpan<int> words, ReadOnlySpan<int> search)
        {
            foreach (var word in words)
            {
                if (!search.Contains(word))
                {
                    return false;
                }
            }

            return true;
        }
    }

    private static async Task AuctionsAsync(Random random)
    {
        const int auctions = 5_000_000;
        var auction = new Auction(3, 2, 300, 100, 5);
        var bids = Enumerable
            .Range(0, 6)
            .Select(number => new Bid(5 + random.Next(300), 1 + random.Next(10), (ulong)random.NextInt64()))
            .ToArray();
        var ranks = bids.Select(bid => -bid.Rank).ToArray();
        var sorting = await Measure.MedianAsync(
            3,
            () =>
            {
                Span<long> sorted = stackalloc long[6];
                for (var each = 0; each < auctions; each++)
                {
                    ranks.CopyTo(sorted);
                    sorted.Sort();
                }

                return Task.CompletedTask;
            }
        );
        var running = await Measure.MedianAsync(
            3,
            () =>
            {
                Span<int> order = stackalloc int[6];
                Span<Placement> placements = stackalloc Placement[5];
                for (var each = 0; each < auctions; each++)
                {
                    auction.Run(bids, order, placements);
                }

                return Task.CompletedTask;
            }
        );
        Measure.Print($"run {auctions:N0} auctions of 6 bidders (baseline: sorting their ranks)", running, sorting, "");
        Console.WriteLine($"  auctions for each second on one core: {auctions / running * 1000:N0} (goal 5,000,000)");
    }

    private static readonly string[] Vocabulary = [.. Enumerable.Range(0, 5_000).Select(number => $"word{number}")];

    private static string Phrase(Random random, int words) =>
        string.Join(
            ' ',
            Enumerable
                .Range(0, words)
                .Select(_ => Vocabulary[(int)(Math.Pow(random.NextDouble(), 2) * Vocabulary.Length)])
        );
}
