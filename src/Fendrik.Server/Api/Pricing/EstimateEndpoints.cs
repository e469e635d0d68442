using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Strategies;
using Fendrik.Core.Estimates;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Matching;
using Fendrik.Core.Networks;
using Fendrik.Data.Accounts;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Fendrik.Server.Estimates;
using Fendrik.Server.Jobs;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Pricing;

/// <summary>A figure with its range, as it is shown.</summary>
public sealed record RangeLine(decimal Low, decimal Likely, decimal High)
{
    internal static RangeLine Of(EstimateRange range, int digits) =>
        new(Rounded(range.Low, digits), Rounded(range.Likely, digits), Rounded(range.High, digits));

    private static decimal Rounded(double value, int digits) => Math.Round((decimal)Math.Min(value, 1e12), digits);
}

/// <summary>A week at a bid by Fendrik, with its ranges, and by the network; either may be none.</summary>
/// <param name="Bid">The bid; of several keywords their average.</param>
/// <param name="Impressions">Impressions.</param>
/// <param name="Clicks">Clicks.</param>
/// <param name="Cost">Cost.</param>
/// <param name="Conversions">Conversions.</param>
public sealed record WeekLine(
    decimal Bid,
    RangeLine Impressions,
    RangeLine Clicks,
    RangeLine Cost,
    RangeLine Conversions
)
{
    internal static WeekLine Of(WeekEstimate week, Currency currency) =>
        new(
            currency.Round(week.Bid),
            RangeLine.Of(week.Impressions, 0),
            RangeLine.Of(week.Clicks, 1),
            RangeLine.Of(week.Cost, currency.MinorUnits),
            RangeLine.Of(week.Conversions, 1)
        );
}

/// <summary>A week at a bid by the network.</summary>
public sealed record NetworkWeekLine(decimal Bid, decimal Impressions, decimal Clicks, decimal Cost)
{
    internal static NetworkWeekLine Of(EstimatedWeek week, Currency currency) =>
        new(
            week.Bid,
            Math.Round((decimal)week.Impressions, 0),
            Math.Round((decimal)week.Clicks, 1),
            currency.Round(week.Cost)
        );
}

/// <summary>A keyword with its estimates at its bid.</summary>
/// <param name="Id">The keyword; 0 for one that is planned.</param>
/// <param name="Text">Its words.</param>
/// <param name="Match">Its match type.</param>
/// <param name="AdGroup">Its ad group.</param>
/// <param name="Bid">The bid.</param>
/// <param name="Own">By Fendrik; none where it has none.</param>
/// <param name="OwnReason">Why not.</param>
/// <param name="Network">By the network; none where it has none.</param>
/// <param name="NetworkReason">Why not.</param>
/// <param name="AskedOn">When the network was asked.</param>
public sealed record EstimateLine(
    long Id,
    string Text,
    MatchType Match,
    string AdGroup,
    decimal? Bid,
    WeekLine? Own,
    string? OwnReason,
    NetworkWeekLine? Network,
    string? NetworkReason,
    DateOnly? AskedOn
);

/// <summary>Estimates over the bid: of one keyword, or of several together.</summary>
/// <param name="Title">Of what.</param>
/// <param name="Own">By Fendrik, the lowest bid first.</param>
/// <param name="Network">By the network.</param>
/// <param name="RestsOn">What Fendrik's rests on.</param>
/// <param name="Now">Fendrik's at the bid of now; none where that is not known.</param>
/// <param name="Planned">Fendrik's at the bid that is planned; none where none is.</param>
/// <param name="Problem">What is wrong with the bid that is planned.</param>
public sealed record EstimateCurve(
    string Title,
    IReadOnlyList<WeekLine> Own,
    IReadOnlyList<NetworkWeekLine> Network,
    IReadOnlyList<string> RestsOn,
    WeekLine? Now,
    WeekLine? Planned,
    string? Problem
);

/// <summary>An estimate beside what came.</summary>
public sealed record ComparedLine(
    long KeywordId,
    string Text,
    DateOnly AskedOn,
    decimal? NetworkClicks,
    decimal? OwnClicks,
    decimal CameClicks,
    decimal FullClicks
);

/// <summary>Estimates of a campaign.</summary>
/// <param name="Keywords">Its keywords, the dearest first.</param>
/// <param name="More">True when there are more.</param>
/// <param name="Curve">Over the bid.</param>
/// <param name="NetworkErrs">How the network's estimates turned out, in words.</param>
/// <param name="OwnErrs">How Fendrik's did.</param>
/// <param name="Compared">Estimates beside what came, the latest first.</param>
/// <param name="AtOnce">How many keywords the network answers at once.</param>
public sealed record EstimatesAnswer(
    IReadOnlyList<EstimateLine> Keywords,
    bool More,
    EstimateCurve Curve,
    string NetworkErrs,
    string OwnErrs,
    IReadOnlyList<ComparedLine> Compared,
    int AtOnce
);

/// <summary>Asks about keywords that are not there yet.</summary>
/// <param name="Text">Keywords, one in each line, in any notation of match types.</param>
/// <param name="Bid">The bid, as it is typed; none for the usual one.</param>
public sealed record PlannedWish(string Text, string? Bid);

/// <summary>Estimates of what keywords, groups and changes of bids would bring.</summary>
internal static class EstimateEndpoints
{
    private const int MostListed = 300;
    private const int MostCompared = 40;

    public static void MapEstimates(this RouteGroupBuilder account)
    {
        account.MapGet("/bids/campaigns/{campaignId:long}/estimates", ReadAsync).WithName("readEstimates");
        account.MapPost("/bids/campaigns/{campaignId:long}/estimates", AskAsync).WithName("askEstimates");
        account
            .MapPost("/bids/campaigns/{campaignId:long}/estimates/planned", PlannedAsync)
            .WithName("estimatePlanned");
    }

    private static async Task<Results<Ok<JobView>, NotFound>> AskAsync(
        int accountId,
        long campaignId,
        HttpContext context,
        PricedCampaignReader campaigns,
        JobDesk jobs,
        CancellationToken cancellation
    ) =>
        (await campaigns.ReadAsync(accountId, [campaignId], bids: false, 1, cancellation)).Count == 0
            ? TypedResults.NotFound()
            : TypedResults.Ok(
                await jobs.BeginAsync(
                    new JobOrder(accountId, context.User.PersonId(), JobKind.Estimates, campaignId),
                    cancellation
                )
            );

    private static async Task<Results<Ok<EstimatesAnswer>, NotFound>> ReadAsync(
        int accountId,
        long campaignId,
        long? adGroupId,
        long? keywordId,
        string? change,
        PricedCampaignReader campaigns,
        EstimateDesk desk,
        EstimateBook book,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        if (
            (await campaigns.ReadAsync(accountId, [campaignId], bids: false, 1, cancellation)).SingleOrDefault()
            is not { } campaign
        )
        {
            return TypedResults.NotFound();
        }

        var known = await desk.ErrorsAsync(accountId, cancellation);
        var rows = await desk.KeywordsAsync(accountId, campaignId, adGroupId, cancellation);
        var kept = await book.LatestAsync(accountId, [.. rows.Select(row => row.Keyword.Id)], cancellation);
        OwnEstimate Own(KeywordBid keyword, KeywordHistory history, IReadOnlyList<decimal> bids) =>
            Estimator.Of(
                history,
                kept.TryGetValue(keyword.Id, out var estimate) ? estimate.Network : null,
                known.Network,
                known.Own,
                bids
            );
        var chosen = rows.FirstOrDefault(row => row.Keyword.Id == keywordId);
        var curve = chosen.Keyword is { } one
            ? OfKeyword(
                one,
                Own(one, chosen.History, EstimateDesk.BidsFor(one.Bid, facts)),
                kept.GetValueOrDefault(one.Id)?.Network,
                change,
                facts
            )
            : OfAll(
                adGroupId is null ? campaign.Name : rows.Select(row => row.Keyword.AdGroup).FirstOrDefault() ?? "",
                [
                    .. rows.Where(row => row.Keyword is { Bid: not null, State: ItemState.Running })
                        .Select(row =>
                            (
                                row.Keyword.Bid!.Value,
                                Own(row.Keyword, row.History, EstimateDesk.BidsFor(row.Keyword.Bid, facts))
                            )
                        ),
                ],
                change,
                facts
            );
        var compared = await book.ComparedAsync(accountId, cancellation);
        var texts = rows.ToDictionary(row => row.Keyword.Id, row => row.Keyword.Text);
        return TypedResults.Ok(
            new EstimatesAnswer(
                [
                    .. rows.Take(MostListed)
                        .Select(row =>
                            LineOf(row.Keyword, row.History, kept.GetValueOrDefault(row.Keyword.Id), known, facts)
                        ),
                ],
                rows.Count > MostListed,
                curve,
                ErrsOf(facts.Network.Name, known.Network),
                ErrsOf("Fendrik", known.Own),
                [
                    .. compared
                        .Where(each => texts.ContainsKey(each.KeywordId))
                        .Take(MostCompared)
                        .Select(each => new ComparedLine(
                            each.KeywordId,
                            texts[each.KeywordId],
                            each.AskedOn,
                            each.NetworkClicks is { } network ? Math.Round((decimal)network, 1) : null,
                            each.OwnClicks is { } own ? Math.Round((decimal)own, 1) : null,
                            (decimal)each.CameClicks,
                            Math.Round((decimal)each.FullClicks, 1)
                        )),
                ],
                facts.Network.EstimatesAtOnce
            )
        );
    }

    private static string ErrsOf(string who, EstimateErrors errors) =>
        errors.IsKnown
            ? $"{who}: {errors.Compared} estimates of clicks could be compared with the week that followed; mostly {Estimator.Against(errors.Times)}, nine in ten between {Times(errors, -1)} and {Times(errors, 1)} of what was said."
            : $"{who}: {(errors.Compared == 0 ? "no estimate" : $"{errors.Compared} of the {EstimateErrors.Least} estimates")} could be compared with what happened yet. That takes a week from when the network was asked, at the same bid.";

    private static string Times(EstimateErrors errors, int side) =>
        (errors.Times * Math.Exp(side * 1.645 * errors.Spread)).ToString(
            "P0",
            System.Globalization.CultureInfo.InvariantCulture
        );

    private static EstimateLine LineOf(
        KeywordBid keyword,
        KeywordHistory history,
        KeptEstimate? kept,
        KnownErrors known,
        AccountFacts facts
    )
    {
        var own = keyword.Bid is { } bid
            ? Estimator.Of(history, kept?.Network, known.Network, known.Own, [bid])
            : new OwnEstimate("It has no max CPC.", [], []);
        var network = keyword.Bid is { } at && kept is not null ? Estimator.At(kept.Network, at) : null;
        return new EstimateLine(
            keyword.Id,
            keyword.Text,
            keyword.Match,
            keyword.AdGroup,
            keyword.Bid,
            own.Weeks is [var week, ..] ? WeekLine.Of(week, facts.Currency) : null,
            own.Reason,
            network is null ? null : NetworkWeekLine.Of(network, facts.Currency),
            kept is null ? "not asked yet" : kept.Network.Reason,
            kept?.AskedOn
        );
    }

    private static EstimateCurve OfKeyword(
        KeywordBid keyword,
        OwnEstimate own,
        NetworkEstimate? network,
        string? change,
        AccountFacts facts
    )
    {
        var (planned, problem) = ReadChange(change, keyword.Bid, facts);
        return new EstimateCurve(
            keyword.Text,
            [.. own.Weeks.Select(week => WeekLine.Of(week, facts.Currency))],
            [.. (network?.Weeks ?? []).Select(week => NetworkWeekLine.Of(week, facts.Currency))],
            own.Reason is { } reason ? [reason] : own.RestsOn,
            keyword.Bid is { } bid && Estimator.At(own.Weeks, bid) is { } now ? WeekLine.Of(now, facts.Currency) : null,
            planned is { } next && Estimator.At(own.Weeks, next) is { } then ? WeekLine.Of(then, facts.Currency) : null,
            problem
        );
    }

    private static EstimateCurve OfAll(
        string title,
        IReadOnlyList<(decimal Bid, OwnEstimate Own)> keywords,
        string? change,
        AccountFacts facts
    )
    {
        var known = keywords.Where(each => each.Own.Weeks.Count > 0).ToArray();
        var without = keywords.Count - known.Length;
        string? problem = null;
        WeekEstimate? Sum(Func<decimal, decimal?> bidOf)
        {
            var weeks = known
                .Select(each => bidOf(each.Bid) is { } bid ? Estimator.At(each.Own.Weeks, bid) : null)
                .OfType<WeekEstimate>()
                .ToArray();
            return weeks.Length < known.Length || weeks.Length == 0
                ? null
                : Estimator.Together([.. weeks.Select(week => new OwnEstimate(null, [week], []))])[0];
        }

        WeekEstimate? planned = null;
        if (!string.IsNullOrWhiteSpace(change))
        {
            planned = Sum(bid =>
            {
                var (next, wrong) = ReadChange(change, bid, facts);
                problem ??= wrong;
                return next;
            });
        }

        return new EstimateCurve(
            title,
            [
                .. Estimator
                    .Together([.. known.Select(each => each.Own)])
                    .Select(week => WeekLine.Of(week, facts.Currency)),
            ],
            [],
            known.Length == 0
                ? ["No keyword of it has an estimate: none was shown often enough, and the network was not asked."]
                :
                [
                    $"{known.Length} keyword{(known.Length == 1 ? "" : "s")} together, each around its own bid."
                        + (without > 0 ? $" {without} more have no estimate and are not in it." : ""),
                    "Keywords that answer the same searches are counted by what each answered.",
                ],
            Sum(bid => bid) is { } now ? WeekLine.Of(now, facts.Currency) : null,
            planned is null ? null : WeekLine.Of(planned, facts.Currency),
            problem
        );
    }

    /// <summary>A planned bid as it is typed: an amount, or a change such as +20%.</summary>
    private static (decimal? Bid, string? Problem) ReadChange(string? text, decimal? now, AccountFacts facts)
    {
        if (string.IsNullOrWhiteSpace(text))
        {
            return (null, null);
        }

        var reading = ItemTypes.Of(ItemKind.Keyword)["maxCpc"].Type.Read(text, facts.RelativeGround);
        return reading.Problem is { } problem ? (null, $"The bid {problem}.")
            : reading.Value is BidChange change
                ? (change.Apply(now, facts.Currency, facts.Network.MinimumCpc(facts.Currency)), null)
            : (reading.Value as decimal?, null);
    }

    private static async Task<Results<Ok<IReadOnlyList<EstimateLine>>, NotFound>> PlannedAsync(
        int accountId,
        long campaignId,
        PlannedWish wish,
        PricedCampaignReader campaigns,
        EstimateDesk desk,
        SearchNetworks networks,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        if ((await campaigns.ReadAsync(accountId, [campaignId], bids: false, 1, cancellation)).Count == 0)
        {
            return TypedResults.NotFound();
        }

        var bid = BidsEndpoints.ReadAmount("bid", wish.Bid, facts);
        var read = wish
            .Text.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
            .Select(KeywordNotation.Read)
            .ToArray();
        if (
            read.Index().Where(each => each.Item.Problem is not null || each.Item.Negative).ToArray()
            is [var (row, wrong), ..]
        )
        {
            throw new InvalidChangeException(
                "text",
                wrong.Negative
                    ? $"Line {row + 1}: a negative keyword brings nothing. Take the minus away."
                    : $"Line {row + 1}: {wrong.Problem}"
            );
        }

        var asked = read.Select(each => new AskedKeyword(each.Text, each.Match ?? MatchType.Broad))
            .Distinct()
            .ToArray();
        if (asked.Length == 0 || asked.Length > facts.Network.EstimatesAtOnce)
        {
            throw new InvalidChangeException(
                "text",
                asked.Length == 0
                    ? "Write keywords, one in each line."
                    : $"{facts.Network.Name} answers {facts.Network.EstimatesAtOnce} keywords at once; these are {asked.Length}. Take some out."
            );
        }

        var known = await desk.ErrorsAsync(accountId, cancellation);
        var network = await networks.OfAccountAsync(accountId, cancellation);
        var at = bid ?? StartingBids.Of(asked[0].Match, null, facts.Network, facts.Currency).Bid;
        var answers = await network.EstimateAsync(
            accountId,
            new EstimateWish(campaignId, asked, EstimateDesk.BidsFor(at, facts)),
            cancellation
        );
        return TypedResults.Ok<IReadOnlyList<EstimateLine>>([
            .. answers.Select(answer =>
            {
                var own = Estimator.Of(null, answer, known.Network, known.Own, [at]);
                var week = Estimator.At(answer, at);
                return new EstimateLine(
                    0,
                    answer.Text,
                    answer.Match,
                    "",
                    at,
                    own.Weeks is [var estimated, ..] ? WeekLine.Of(estimated, facts.Currency) : null,
                    own.Reason,
                    week is null ? null : NetworkWeekLine.Of(week, facts.Currency),
                    answer.Reason,
                    null
                );
            }),
        ]);
    }
}
