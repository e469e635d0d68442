using Fendrik.Core.Bidding;
using Fendrik.Core.Estimates;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;
using Fendrik.Data.Accounts;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Fendrik.Server.Api.Pricing;
using Fendrik.Server.Estimates;
using Fendrik.Server.Jobs;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Bidding;

/// <summary>Estimates of what keywords, groups and changes of bids would bring.</summary>
internal static class EstimateEndpoints
{
    private const int MostListed = 300;
    private const int MostCompared = 40;

    public static void MapEstimates(this RouteGroupBuilder account)
    {
        account.MapGet("/bids/campaigns/{campaignId:long}/estimates", ReadAsync).WithName("readEstimates");
        account.MapPost("/bids/campaigns/{campaignId:long}/estimates", AskAsync).WithName("askEstimates");
        account.MapPlannedEstimates();
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

        var compared = await book.ComparedAsync(accountId, cancellation);
        var known = KnownErrors.Of(compared);
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
                known.Network.InWords(facts.Network.Name),
                known.Own.InWords("Fendrik"),
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
}
