using System.Globalization;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Serving;
using Fendrik.Network.Simulation;
using Fendrik.Network.Simulation.People;
using Fendrik.Network.Worlds;
using Npgsql;

namespace Fendrik.Network.Serving;

/// <summary>Which searches of a day are asked for.</summary>
public sealed record SampleWish(DateOnly Day, SearchFate? Fate, long? Keyword, string? Term, int Most);

/// <summary>
/// Finds searches of the past to be looked into. Those shown are written down; those that were not are made again, hour by hour of the
/// day, until there are enough.
/// </summary>
public sealed class SampleDesk(NetworkStore store)
{
    private const int SecondsOfHour = 3_600;

    /// <summary>The samples; none when there is no such account.</summary>
    public async Task<IReadOnlyList<SampleSearch>?> ReadAsync(
        string accountId,
        SampleWish wish,
        CancellationToken cancellation
    )
    {
        await using var connection = await store.OpenAsync(cancellation);
        if (await NetworkStore.FindAsync(connection, accountId) is not { } account)
        {
            return null;
        }

        var samples = new List<SampleSearch>();
        if (wish.Fate is null or SearchFate.Shown)
        {
            samples.AddRange(await ShownAsync(connection, account, wish));
        }

        if (wish.Fate is not SearchFate.Shown && wish.Term is null)
        {
            samples.AddRange(await LostAsync(connection, account, wish, cancellation));
        }

        return samples;
    }

    private static async Task<IEnumerable<SampleSearch>> ShownAsync(
        NpgsqlConnection connection,
        NetworkAccount account,
        SampleWish wish
    )
    {
        var currency = Currency.Of(account.Currency);
        var rows = await connection.QueryAsync<(
            long Name,
            long At,
            string Term,
            int Device,
            int Site,
            int From,
            long Keyword,
            long Price,
            bool Clicked
        )>(
            """
            select search, at, term, device::int, site::int, from_place::int, keyword_id, price, click <> 0 from shown
            where account_id = @Id and day = @Day and (@Keyword::bigint is null or keyword_id = @Keyword) and (@Term::text is null or term = @Term)
            order by click = 0, at limit @Most
            """,
            new
            {
                account.Id,
                wish.Day,
                wish.Keyword,
                wish.Term,
                wish.Most,
            }
        );
        return rows.Select(row => new SampleSearch(
            row.Name.ToString(CultureInfo.InvariantCulture),
            DateTimeOffset.FromUnixTimeSeconds(row.At),
            row.Term,
            (Device)row.Device,
            (SiteKinds)row.Site,
            World.Shipped.Places[row.From - 1].Name,
            SearchFate.Shown,
            row.Keyword,
            currency.FromMinor(row.Price),
            row.Clicked
        ));
    }

    private static async Task<IReadOnlyList<SampleSearch>> LostAsync(
        NpgsqlConnection connection,
        NetworkAccount account,
        SampleWish wish,
        CancellationToken cancellation
    )
    {
        var days = new AccountDay(account.TimeZone);
        var first = days.StartOf(wish.Day).ToUnixTimeSeconds() / SecondsOfHour;
        var end = Math.Min(days.StartOf(wish.Day.AddDays(1)).ToUnixTimeSeconds(), account.Clock.ToUnixTimeSeconds());
        var past = new PastSearches(connection, account, World.Shipped);
        var found = new List<SampleSearch>();
        for (var hour = first; hour * SecondsOfHour < end && found.Count < wish.Most; hour++)
        {
            cancellation.ThrowIfCancellationRequested();
            foreach (var search in await past.InHourAsync(hour))
            {
                if (
                    search.Played.Search.Day == wish.Day
                    && LostOf(search) is { } lost
                    && (wish.Fate is null || lost.Fate == wish.Fate)
                    && (wish.Keyword is null || lost.KeywordId == wish.Keyword)
                    && found.Count < wish.Most
                )
                {
                    found.Add(lost);
                }
            }
        }

        return found;
    }

    private static SampleSearch? LostOf(PastSearch past)
    {
        var (fate, keyword) = FateOf(past);
        return fate is null or SearchFate.Shown
            ? null
            : new SampleSearch(
                past.Searching.Name.ToString(CultureInfo.InvariantCulture),
                past.At,
                past.Played.Search.Text,
                past.Played.Search.Device,
                past.Played.Search.Site,
                past.Played.Person!.Home.Name,
                fate.Value,
                keyword,
                null,
                false
            );
    }

    private static (SearchFate? Fate, long? Keyword) FateOf(PastSearch past)
    {
        var answer = past.Played.Answer;
        return answer.Chosen is { } chosen
            ? past.Played.Hold(past.Play.AuctionFor(past.Searching.Need)).Won.Any(each => each.Bidder == 0)
                ? (SearchFate.Shown, chosen.Keyword.Keyword.Id)
                : (SearchFate.LostToRank, chosen.Keyword.Keyword.Id)
            : answer.KeptByBudget is { } kept
                ? (SearchFate.LostToBudget, kept.Keyword.Keyword.Id)
                : answer.Candidates.Count > 0
                && answer.Candidates.Any(each => each.Hindrance?.Kind == HindranceKind.Negative)
                    ? (SearchFate.Blocked, null)
                    : (null, null);
    }
}
