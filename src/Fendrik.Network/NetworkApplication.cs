using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Network.Customers;
using Fendrik.Network.Doors;
using Fendrik.Network.Faults;
using Fendrik.Network.Serving;
using Fendrik.Network.Worlds;
using Npgsql;

namespace Fendrik.Network;

/// <summary>An account to be known to the network.</summary>
public sealed record AccountSetUp(
    string Network,
    string Currency,
    string TimeZone,
    DateTimeOffset StartAt,
    long Seed,
    string? Payer = null
);

/// <summary>How far to move the clock.</summary>
public sealed record ClockStep(int Hours);

/// <summary>The stand-in as a web application; tests start it as it is.</summary>
public static class NetworkApplication
{
    public const string KeyHeader = "X-Network-Key";

    /// <summary>Most changes or reviews told of in one answer; the caller asks on from there.</summary>
    public const int MostAtOnce = 20_000;

    public static WebApplication Build(string[] args)
    {
        CultureInfo.DefaultThreadCurrentCulture = CultureInfo.InvariantCulture;
        DefaultTypeMap.MatchNamesWithUnderscores = true;
        var builder = WebApplication.CreateBuilder(args);
        var connection =
            builder.Configuration["Network:Database"]
            ?? throw new InvalidOperationException("Network:Database is not set.");
        var key =
            builder.Configuration["Network:Key"] ?? throw new InvalidOperationException("Network:Key is not set.");
        builder.Services.AddSingleton(NpgsqlDataSource.Create(connection));
        builder.Services.AddSingleton<NetworkStore>();
        builder.Services.AddSingleton<ChangeReceiver>();
        builder.Services.AddSingleton<AccountLinks>();
        builder.Services.AddSingleton<ClockMover>();
        builder.Services.AddSingleton<TraceDesk>();
        builder.Services.AddSingleton<StrategyDesk>();
        builder.Services.AddSingleton<EstimateDesk>();
        builder.Services.AddSingleton<SampleDesk>();
        builder.Services.AddSingleton<FaultDesk>();
        builder.Services.AddProblemDetails();
        builder.WebHost.ConfigureKestrel(kestrel => kestrel.AddServerHeader = false);
        var app = builder.Build();
        app.UseExceptionHandler();
        app.Use(async (context, next) => await OnlyWithKeyAsync(context, next, Encoding.UTF8.GetBytes(key)));
        var links = app.Services.GetRequiredService<AccountLinks>();
        app.Use(next => context => links.FollowAsync(context, next));
        // What a tool's name stands for is known before it is looked which door is asked for.
        app.UseRouting();
        Map(app);
        return app;
    }

    private static async Task OnlyWithKeyAsync(HttpContext context, RequestDelegate next, byte[] key)
    {
        var sent = Encoding.UTF8.GetBytes(context.Request.Headers[KeyHeader].ToString());
        if (context.Request.Path != "/health" && !CryptographicOperations.FixedTimeEquals(sent, key))
        {
            context.Response.StatusCode = StatusCodes.Status401Unauthorized;
            return;
        }

        await next(context);
    }

    private static void Map(WebApplication app)
    {
        app.MapGet("/health", () => "ready");
        app.MapGet("/v1/networks", () => NetworkProfile.All.Values);
        app.MapGet(
            "/v1/places",
            () => World.Shipped.Places.Select(place => new NetworkPlace(place.Name, place.Region, place.Country))
        );
        var account = app.MapGroup("/v1/accounts/{accountId}");
        account.MapPut("", SetUpAsync);
        account.MapGet("/clock", ReadClockAsync);
        account.MapPost("/clock/advance", AdvanceAsync);
        account.MapPost("/batches", ReceiveBatchAsync);
        account.MapPost(
            "/batches/{key}/close",
            (string accountId, string key, ChangeReceiver receiver, CancellationToken cancellation) =>
                receiver.CloseAsync(accountId, key, cancellation)
        );
        account.MapGet("/reviews", ReviewsAsync);
        ReportDoor.Map(account);
        SearchDoor.Map(account);
        PayerDoor.Map(account);
        CarrierDoor.Map(account);
        AppealDoor.Map(account);
        TestVisitDoor.Map(account);
        BookDoor.Map(account);
        CustomerDoor.Map(app, account);
        OutsideDoor.Map(app);
        account.MapGet("/items", ItemsAsync);
        account.MapGet("/changes", ChangesAsync);
        account.MapPost("/outside-edits", EditFromOutsideAsync);
        account.MapPost("/faults", AddFaultAsync);
        account.MapDelete(
            "/faults",
            (string accountId, FaultDesk faults, CancellationToken cancellation) =>
                faults.ClearAsync(accountId, cancellation)
        );
    }

    private static async Task<IResult> SetUpAsync(
        string accountId,
        AccountSetUp setUp,
        NetworkStore store,
        CancellationToken cancellation
    )
    {
        try
        {
            _ = (NetworkProfile.Of(setUp.Network), Currency.Of(setUp.Currency), new AccountDay(setUp.TimeZone));
        }
        catch (ArgumentException error)
        {
            return Results.Problem(error.Message, statusCode: StatusCodes.Status400BadRequest);
        }

        if (new AccountPayer(setUp.Payer).Problem is { } problem)
        {
            return Results.Problem(problem, statusCode: StatusCodes.Status400BadRequest);
        }

        await AccountSetUps.MakeAsync(store, accountId, setUp, cancellation);
        return Results.NoContent();
    }

    private static async Task<IResult> ReadClockAsync(
        string accountId,
        NetworkStore store,
        CancellationToken cancellation
    )
    {
        await using var connection = await store.OpenAsync(cancellation);
        return await NetworkStore.FindAsync(connection, accountId) is { } account
            ? Results.Ok(ClockMover.ClockOf(account, account.Clock))
            : Results.NotFound();
    }

    private static async Task<IResult> AdvanceAsync(
        string accountId,
        ClockStep step,
        ClockMover clock,
        CancellationToken cancellation
    ) =>
        step.Hours is < 1 or > ClockMover.MostHours
            ? Results.Problem(
                $"The clock moves by 1 to {ClockMover.MostHours} hours.",
                statusCode: StatusCodes.Status400BadRequest
            )
            : Results.Ok(await clock.AdvanceAsync(accountId, step.Hours, cancellation));

    private static async Task<IResult> ReceiveBatchAsync(
        string accountId,
        List<NetworkChange> changes,
        HttpContext context,
        ChangeReceiver receiver,
        FaultDesk desk,
        CancellationToken cancellation
    )
    {
        var key = context.Request.Headers["Idempotency-Key"].ToString();
        if (key.Length is 0 or > 200 || changes.Count > 5_000)
        {
            return Results.Problem(
                "An Idempotency-Key is needed, and at most 5,000 changes.",
                statusCode: StatusCodes.Status400BadRequest
            );
        }

        var faults = await desk.TakeAsync(accountId, cancellation);
        foreach (var slow in faults.Where(fault => fault.Kind == "slow"))
        {
            await Task.Delay(slow.Milliseconds, cancellation);
        }

        if (faults.Any(fault => fault.Kind == "fail"))
        {
            return Results.Problem("The network is not well.", statusCode: StatusCodes.Status503ServiceUnavailable);
        }

        var wording = faults.FirstOrDefault(fault => fault.Kind == "refuse")?.Wording;
        var answers = await receiver.ReceiveAsync(accountId, key, changes, wording, cancellation);
        if (faults.Any(fault => fault.Kind == "drop"))
        {
            context.Abort();
        }

        return Results.Ok(answers);
    }

    /// <summary>What the reviewers said after what the caller has heard.</summary>
    private static async Task<NetworkReviews> ReviewsAsync(
        string accountId,
        long after,
        NetworkStore store,
        CancellationToken cancellation
    )
    {
        await using var connection = await store.OpenAsync(cancellation);
        var rows = (
            await connection.QueryAsync<(long Number, short Kind, long Id, short State, string? Reason)>(
                """
                select review_number, kind, item_id, review, review_reason from item
                where account_id = @accountId and review_number > @after order by review_number limit @MostAtOnce
                """,
                new
                {
                    accountId,
                    after,
                    MostAtOnce,
                }
            )
        ).ToArray();
        return new NetworkReviews(
            rows.Length == 0 ? after : rows[^1].Number,
            [.. rows.Select(row => new NetworkReview((ItemKind)row.Kind, row.Id, (ReviewState)row.State, row.Reason))]
        );
    }

    /// <summary>What changed after a change that the caller has seen, as it is now.</summary>
    private static async Task<NetworkItems> ChangesAsync(
        string accountId,
        long after,
        NetworkStore store,
        CancellationToken cancellation
    )
    {
        await using var connection = await store.OpenAsync(cancellation);
        var rows = (
            await connection.QueryAsync<(long Last, short Kind, long Id, string? Item)>(
                """
                select version as last, kind, item_id, item from (
                  (select version, kind, item_id, item::text from item where account_id = @accountId and version > @after order by version limit @MostAtOnce)
                  union all
                  (select version, kind, item_id, null from gone_item where account_id = @accountId and version > @after order by version limit @MostAtOnce)
                ) changed order by version limit @MostAtOnce
                """,
                new
                {
                    accountId,
                    after,
                    MostAtOnce,
                }
            )
        ).ToArray();
        return new NetworkItems(
            rows.Length == 0 ? after : rows[^1].Last,
            [
                .. rows.Select(row => new NetworkItem(
                    (ItemKind)row.Kind,
                    row.Id,
                    row.Item is null ? null : System.Text.Json.JsonDocument.Parse(row.Item).RootElement,
                    row.Last
                )),
            ]
        );
    }

    /// <summary>Somebody changes items on the network itself, past every tool.</summary>
    private static async Task<IReadOnlyList<NetworkAnswer>> EditFromOutsideAsync(
        string accountId,
        List<NetworkChange> changes,
        ChangeReceiver receiver,
        CancellationToken cancellation
    ) => await receiver.ReceiveAsync(accountId, $"outside-{Guid.NewGuid():N}", changes, null, cancellation);

    private static async Task<IEnumerable<object>> ItemsAsync(
        string accountId,
        NetworkStore store,
        CancellationToken cancellation
    )
    {
        await using var connection = await store.OpenAsync(cancellation);
        var rows = await connection.QueryAsync<(short Kind, long Id, string Item)>(
            "select kind, item_id, item::text from item where account_id = @accountId order by kind, item_id",
            new { accountId }
        );
        return rows.Select(row => new
        {
            kind = row.Kind,
            itemId = row.Id,
            item = System.Text.Json.JsonDocument.Parse(row.Item).RootElement,
        });
    }

    private static async Task<IResult> AddFaultAsync(
        string accountId,
        Fault fault,
        FaultDesk faults,
        CancellationToken cancellation
    )
    {
        if (
            !FaultDesk.Kinds.Contains(fault.Kind)
            || fault.Times is < 1 or > 1_000
            || fault.Milliseconds is < 0 or > 120_000
        )
        {
            return Results.Problem(
                "A fault is slow, fail, drop or refuse, 1 to 1,000 times, 0 to 120,000 ms.",
                statusCode: StatusCodes.Status400BadRequest
            );
        }

        await faults.AddAsync(accountId, fault, cancellation);
        return Results.NoContent();
    }
}
