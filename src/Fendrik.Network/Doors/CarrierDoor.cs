using System.Globalization;
using Dapper;
using Fendrik.Core.Calls;
using Fendrik.Core.Networks;
using Fendrik.Network.Serving;
using Npgsql;

namespace Fendrik.Network.Doors;

/// <summary>The telephone carrier: numbers are rented here, and given back.</summary>
internal static class CarrierDoor
{
    private const int NumbersOfRange = 1_000;
    private const string Freephone = "+448081570";

    /// <summary>The ranges that Ofcom sets aside for drama: nobody has these numbers.</summary>
    private static readonly Dictionary<string, string> Ranges = new(StringComparer.Ordinal)
    {
        ["Leeds"] = "+441134960",
        ["Tyneside"] = "+441914980",
        ["Edinburgh"] = "+441314960",
        ["Manchester"] = "+441614960",
        ["elsewhere"] = "+441632960",
    };

    /// <summary>How long a number rests that was given back: whoever still has it in hand is not to ring at somebody else's.</summary>
    private const int DaysOfRest = 90;

    public static void Map(RouteGroupBuilder account)
    {
        account.MapGet("/numbers", ReadAsync);
        account.MapPost("/numbers", RentAsync);
        account.MapDelete("/numbers/{number}", GiveBackAsync);
    }

    private static async Task<IResult> ReadAsync(string accountId, NetworkStore store, CancellationToken cancellation)
    {
        await using var connection = await store.OpenAsync(cancellation);
        return await NetworkStore.FindAsync(connection, accountId) is null
            ? Results.NotFound()
            : Results.Ok(new CarrierNumbers(await OfAsync(connection, accountId), [.. Ranges.Keys]));
    }

    private static async Task<IResult> RentAsync(
        string accountId,
        NumberWish wish,
        NetworkStore store,
        CancellationToken cancellation
    )
    {
        IResult Refused(string why) => Results.Problem(why, statusCode: StatusCodes.Status400BadRequest);
        await using var connection = await store.OpenAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        // Two who rent at once come one after the other: none gets the other's number.
        await connection.ExecuteAsync("select pg_advisory_xact_lock(7101)");
        if (await NetworkStore.FindAsync(connection, accountId, locking: true) is not { } account)
        {
            return Results.NotFound();
        }

        var held = await OfAsync(connection, accountId);
        if (wish.Count < 1 || held.Count + wish.Count > TrackedNumbers.Most)
        {
            return Refused(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"An account rents at most {TrackedNumbers.Most} numbers, and has {held.Count}."
                )
            );
        }

        if (wish.Reach == NumberReach.Local && wish.Area is { } area && !Ranges.ContainsKey(area))
        {
            return Refused($"There are no numbers of {area}. Choose one of {string.Join(", ", Ranges.Keys)}.");
        }

        var range = wish.Reach == NumberReach.Freephone ? Freephone : Ranges[wish.Area ?? Ranges.Keys.First()];
        var taken = (
            await connection.QueryAsync<string>(
                "select number from carrier_number where until is null or until > @rested",
                new { rested = account.Clock.AddDays(-DaysOfRest).ToUniversalTime() }
            )
        ).ToHashSet(StringComparer.Ordinal);
        taken.Add(wish.ForwardsTo);
        string[] free =
        [
            .. Enumerable
                .Range(0, NumbersOfRange)
                .Select(at => range + at.ToString("000", CultureInfo.InvariantCulture))
                .Where(number => !taken.Contains(number))
                .Take(wish.Count),
        ];
        if (free.Length < wish.Count)
        {
            return Refused($"Only {free.Length} such numbers are free.");
        }

        await connection.ExecuteAsync(
            """
            insert into carrier_number (account_id, number, reach, area, forwards_to, pool, campaign_id, since)
            select @Id, n, @reach, @area, @ForwardsTo, @pool, @CampaignId, @Clock from unnest(@free) n
            """,
            new
            {
                account.Id,
                free,
                reach = (short)wish.Reach,
                area = wish.Reach == NumberReach.Local ? wish.Area ?? Ranges.Keys.First() : null,
                wish.ForwardsTo,
                pool = (short)wish.Pool,
                CampaignId = wish.Pool == NumberPool.Campaign ? wish.CampaignId : null,
                Clock = account.Clock.ToUniversalTime(),
            }
        );
        await transaction.CommitAsync(cancellation);
        return Results.Ok(free);
    }

    private static async Task<IResult> GiveBackAsync(
        string accountId,
        string number,
        NetworkStore store,
        CancellationToken cancellation
    )
    {
        await using var connection = await store.OpenAsync(cancellation);
        return
            await NetworkStore.FindAsync(connection, accountId) is { } account
            && await connection.ExecuteAsync(
                "update carrier_number set until = @Clock where account_id = @Id and number = @number and until is null",
                new
                {
                    account.Id,
                    number,
                    Clock = account.Clock.ToUniversalTime(),
                }
            ) > 0
            ? Results.NoContent()
            : Results.NotFound();
    }

    private static async Task<IReadOnlyList<RentedNumber>> OfAsync(NpgsqlConnection connection, string accountId) =>
        [
            .. (
                await connection.QueryAsync<Held>(
                    """
                    select number, reach::int as reach, area, forwards_to as "forwardsTo", pool::int as pool, campaign_id as "campaignId", since
                    from carrier_number where account_id = @accountId and until is null order by pool, campaign_id nulls first, number
                    """,
                    new { accountId }
                )
            ).Select(row => new RentedNumber(
                row.Number,
                (NumberReach)row.Reach,
                row.Area,
                row.ForwardsTo,
                (NumberPool)row.Pool,
                row.CampaignId,
                new DateTimeOffset(DateTime.SpecifyKind(row.Since, DateTimeKind.Utc))
            )),
        ];

    private sealed class Held
    {
        public string Number { get; init; } = "";
        public int Reach { get; init; }
        public string? Area { get; init; }
        public string ForwardsTo { get; init; } = "";
        public int Pool { get; init; }
        public long? CampaignId { get; init; }
        public DateTime Since { get; init; }
    }
}
