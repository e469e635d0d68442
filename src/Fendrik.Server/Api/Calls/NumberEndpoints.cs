using Fendrik.Core.Calls;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;
using Fendrik.Data.Calls;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Fendrik.Server.Api.Pricing;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Calls;

/// <summary>A rented number.</summary>
/// <param name="Number">The number, by ITU-T E.164.</param>
/// <param name="Written">As people of its country write it.</param>
/// <param name="Reach">Of an area, or free for the caller.</param>
/// <param name="Area">The area; none of a freephone number.</param>
/// <param name="ForwardsTo">The number that rings, as people write it.</param>
/// <param name="Pool">By what a call to it is known.</param>
/// <param name="Campaign">The campaign that it stands for; none for all.</param>
/// <param name="Since">From when on.</param>
public sealed record NumberView(
    string Number,
    string Written,
    NumberReach Reach,
    string? Area,
    string ForwardsTo,
    NumberPool Pool,
    string? Campaign,
    DateTimeOffset Since
);

/// <summary>The numbers of an account.</summary>
/// <param name="Numbers">The numbers.</param>
/// <param name="Areas">The areas of which there are local numbers.</param>
/// <param name="Missing">How many more it takes to tell the visitors of the site apart; 1 where there are enough.</param>
/// <param name="Why">How that comes about, in a sentence; none where nothing is known of calls yet.</param>
public sealed record NumbersAnswer(
    IReadOnlyList<NumberView> Numbers,
    IReadOnlyList<string> Areas,
    int Missing,
    string? Why
);

/// <summary>Numbers that are wanted.</summary>
public sealed record NumbersBody(
    NumberReach Reach,
    string? Area,
    string ForwardsTo,
    NumberPool Pool,
    long? CampaignId,
    int Count
);

/// <summary>Numbers that are given back.</summary>
/// <param name="Numbers">The numbers, by ITU-T E.164.</param>
public sealed record NumbersBack(IReadOnlyList<string> Numbers);

/// <summary>Numbers that are rented from the carrier, so that calls can be told apart.</summary>
internal static class NumberEndpoints
{
    private const int WeeksLookedAt = 8;

    public static void MapNumbers(this RouteGroupBuilder account)
    {
        account.MapGet("/calls/numbers", ReadAsync).WithName("readNumbers");
        account.MapPost("/calls/numbers", RentAsync).WithName("rentNumbers").Needs(AccountRight.Publish);
        account.MapPost("/calls/numbers/back", GiveBackAsync).WithName("giveNumbersBack").Needs(AccountRight.Publish);
    }

    private static async Task<Ok<NumbersAnswer>> ReadAsync(
        int accountId,
        CallReader calls,
        PerformanceStore store,
        SearchNetworks networks,
        CancellationToken cancellation
    )
    {
        var network = await networks.OfAccountAsync(accountId, cancellation);
        var carrier = await network.NumbersAsync(accountId, cancellation);
        var names = await calls.CampaignNamesAsync(
            accountId,
            [.. carrier.Numbers.Select(number => number.CampaignId).OfType<long>()],
            cancellation
        );
        var (needed, why) = (1, (string?)null);
        if (await PricingPeriod.OfAsync(store, accountId, WeeksLookedAt, cancellation) is { } period)
        {
            var busy = await calls.BusiestHourAsync(accountId, period, cancellation);
            if (await calls.HoursUntilCallAsync(accountId, period, cancellation) is { } hours)
            {
                needed = TrackedNumbers.Needed(busy, hours);
                why = FormattableString.Invariant(
                    $"In a busy hour {busy:0.#} visits begin, and 19 of 20 callers from the site have called {hours:0.#} hours after their click: {needed} numbers tell them apart."
                );
            }
        }

        return TypedResults.Ok(
            new NumbersAnswer(
                [
                    .. carrier.Numbers.Select(number => new NumberView(
                        number.Number,
                        PhoneValue.National(number.Number),
                        number.Reach,
                        number.Area,
                        PhoneValue.National(number.ForwardsTo),
                        number.Pool,
                        number.CampaignId is { } campaign
                            ? names.GetValueOrDefault(campaign, "a campaign that is gone")
                            : null,
                        number.Since
                    )),
                ],
                carrier.Areas,
                Math.Max(1, needed - carrier.Numbers.Count(number => number.Pool == NumberPool.Visit)),
                why
            )
        );
    }

    private static async Task<NoContent> RentAsync(
        int accountId,
        NumbersBody body,
        CallReader calls,
        SearchNetworks networks,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var rings = new PhoneValue().Read(body.ForwardsTo, facts.Ground);
        if (rings.Problem is not null || rings.Value is null)
        {
            throw new InvalidChangeException(
                "forwardsTo",
                rings.Problem is { } wrong
                    ? $"The number that is to ring {wrong}."
                    : "Enter the number that is to ring."
            );
        }

        if (
            body.CampaignId is { } campaign
            && !(await calls.CampaignNamesAsync(accountId, [campaign], cancellation)).ContainsKey(campaign)
        )
        {
            throw new InvalidChangeException("campaignId", "There is no such campaign in this account.");
        }

        if (body.Count is < 1 or > TrackedNumbers.Most)
        {
            throw new InvalidChangeException("count", $"Choose 1 to {TrackedNumbers.Most} numbers.");
        }

        var network = await networks.OfAccountAsync(accountId, cancellation);
        var (_, refused) = await network.RentAsync(
            accountId,
            new NumberWish(
                body.Reach,
                body.Area,
                (string)rings.Value,
                body.Pool,
                body.Pool == NumberPool.Campaign ? body.CampaignId : null,
                body.Count
            ),
            cancellation
        );
        return refused is null ? TypedResults.NoContent() : throw new InvalidChangeException("count", refused);
    }

    private static async Task<NoContent> GiveBackAsync(
        int accountId,
        NumbersBack body,
        SearchNetworks networks,
        CancellationToken cancellation
    )
    {
        if (body.Numbers.Count is < 1 or > TrackedNumbers.Most)
        {
            throw new InvalidChangeException("numbers", $"Choose 1 to {TrackedNumbers.Most} numbers.");
        }

        var network = await networks.OfAccountAsync(accountId, cancellation);
        foreach (var number in body.Numbers)
        {
            await network.GiveBackAsync(accountId, number, cancellation);
        }

        return TypedResults.NoContent();
    }
}
