using Dapper;
using Fendrik.Core.Tracking.Books;
using Fendrik.Network.Simulation;
using Fendrik.Network.Simulation.Counting;
using Fendrik.Network.Simulation.People;
using Fendrik.Network.Worlds;
using Npgsql;

namespace Fendrik.Network.Serving;

/// <summary>Finds the clicks that conversions from outside came from.</summary>
internal sealed class BookFinder(NpgsqlConnection connection, NetworkAccount account)
{
    /// <summary>A click is remembered as long as the longest window of an action.</summary>
    private const int DaysRemembered = 90;

    private Dictionary<string, List<Left>>? _addresses;

    private readonly record struct Left(long Search, DateTime At);

    /// <summary>The click of a conversion; none where there is none.</summary>
    public async Task<long?> SearchOfAsync(BookedConversion line) =>
        line.From.Kind switch
        {
            BookKeyKind.Click => (long?)ClickIds.SearchOf(account.Seed, line.From.Value),
            BookKeyKind.Call => await OfCallAsync(line),
            BookKeyKind.Address => await OfAddressAsync(line),
        };

    /// <summary>The call of a number that is nearest to the time.</summary>
    private async Task<long?> OfCallAsync(BookedConversion line)
    {
        var called = (line.From.CalledAt ?? line.At).UtcDateTime;
        var calls = await connection.QueryAsync<Left>(
            "select search, at from phone_call where account_id = @Id and at between @from and @to",
            new
            {
                account.Id,
                from = called - BookKey.CallTolerance,
                to = called + BookKey.CallTolerance,
            }
        );
        var found = calls
            .Where(call => Contact.NumberOf(account.Seed, Chance.PersonOf((ulong)call.Search)) == line.From.Value)
            .OrderBy(call => (call.At - called).Duration())
            .ThenBy(call => call.Search)
            .ToArray();
        return found.Length > 0 ? found[0].Search : null;
    }

    /// <summary>The last click before it by which somebody came who left the address on the site.</summary>
    private async Task<long?> OfAddressAsync(BookedConversion line)
    {
        _addresses ??= await AddressesAsync();
        if (!_addresses.TryGetValue(line.From.Value, out var visits))
        {
            return null;
        }

        var before = visits.Where(visit => visit.At <= line.At.UtcDateTime).ToArray();
        return before.Length > 0 ? before.MaxBy(visit => visit.At).Search : visits.MinBy(visit => visit.At).Search;
    }

    /// <summary>Who left an address in the last months: whoever sent a form, booked or bought.</summary>
    private async Task<Dictionary<string, List<Left>>> AddressesAsync()
    {
        var visits = await connection.QueryAsync<Left>(
            "select search, at from visit where account_id = @Id and outcome = @inTouch and way <> @call and day >= @since",
            new
            {
                account.Id,
                inTouch = (short)VisitEnd.InTouch,
                call = (short)Way.Call,
                since = DateOnly.FromDateTime(account.Clock.UtcDateTime).AddDays(-DaysRemembered - 1),
            }
        );
        return visits
            .GroupBy(visit => BookKey.HashOf(Contact.AddressOf(account.Seed, Chance.PersonOf((ulong)visit.Search)))!)
            .ToDictionary(same => same.Key, same => same.ToList(), StringComparer.Ordinal);
    }
}
