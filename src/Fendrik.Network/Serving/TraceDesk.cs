using System.IO.Hashing;
using System.Text;
using Fendrik.Core.Accounts;
using Fendrik.Core.Auctions;
using Fendrik.Core.Changes;
using Fendrik.Core.Networks;
using Fendrik.Core.Serving;
using Fendrik.Network.Simulation;

namespace Fendrik.Network.Serving;

/// <summary>Says what the network would do with a search now, step by step.</summary>
public sealed class TraceDesk(NetworkStore store)
{
    /// <summary>Traces a search on the live copy.</summary>
    /// <returns>The trace; none when there is no such account.</returns>
    public async Task<SearchTrace?> TraceAsync(string accountId, TraceWish wish, CancellationToken cancellation)
    {
        await using var connection = await store.OpenAsync(cancellation);
        if (await NetworkStore.FindAsync(connection, accountId) is not { } account)
        {
            return null;
        }

        var (served, campaigns) = await NetworkStore.LiveAsync(connection, account);
        var days = new AccountDay(account.TimeZone);
        var day = days.At(account.Clock).Day;
        var begun = (int)Math.Round((account.Clock - days.StartOf(day)).TotalHours) + 1;
        var spent = await ClockMover.SpentAsync(connection, accountId, day);
        var hours = days.HoursOf(day).Count;
        var search = new Search(wish.Text, wish.Device, wish.Site, day);
        var quality = new AdQuality(Market.Default);
        var words = served.Keywords.Reach.WordsOf(wish.Text);
        // The same search has the same luck all through an hour, whatever it is answered with.
        var chance = new Chance(
            (ulong)account.Seed,
            Chance.NameOf(account.Clock.ToUnixTimeSeconds() / 3600, byte.MaxValue, HashOf(words))
        );
        var answer = served.Answer(
            search,
            campaign => new BudgetDay(spent.GetValueOrDefault(campaign.Id), begun, hours),
            chance.Share(Purpose.Ad),
            (keyword, ad) => quality.Of(keyword, ad, words).Score
        );
        var trace = SearchTrace.Of(search, answer, campaigns, served);
        return answer.Chosen is { } chosen
            ? Held(trace, chosen, quality.Of(chosen.Keyword, chosen.Ad!, words), served, chance)
            : trace;
    }

    private static int HashOf(IReadOnlyList<string> words) =>
        (int)XxHash32.HashToUInt32(Encoding.UTF8.GetBytes(string.Join(' ', words)));

    private static SearchTrace Held(
        SearchTrace trace,
        Candidate chosen,
        QualityScore quality,
        ServedAccount served,
        Chance chance
    )
    {
        var theme = Market.Default.ThemeOf(trace.Words);
        var bids = new List<NamedBid>
        {
            new("You", new Bid(served.Currency.ToMinor(chosen.Bid!.Bid), quality.Score, chance.Number(Purpose.Lot))),
        };
        var rivals = theme?.Rivals ?? [];
        for (var rival = 0; rival < rivals.Count; rival++)
        {
            if (SearchHour.Offer(rivals[rival], rival + 1, chance, served.Currency) is { } bid)
            {
                bids.Add(new NamedBid(rivals[rival].Name, bid));
            }
        }

        var (auction, own) = new AuctionTrace(SearchHour.AuctionOf(theme, served), served.Currency).Run(bids, 0);
        return trace.With(auction, own, quality, served.Currency);
    }
}
