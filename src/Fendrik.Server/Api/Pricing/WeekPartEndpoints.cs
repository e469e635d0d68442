using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Evidence;
using Fendrik.Core.Items.Values;
using Fendrik.Data.Accounts;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Fendrik.Server.Access;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Pricing;

/// <summary>A part of a day of the week.</summary>
public sealed record WeekSpan(DayOfWeek Day, int From, int To);

/// <summary>A part of the week that is asked about.</summary>
/// <param name="Campaigns">The campaigns.</param>
/// <param name="Weeks">Weeks of figures.</param>
/// <param name="Spans">The part.</param>
/// <param name="Modifier">A modifier that is thought of, as it is typed.</param>
/// <param name="Target">What a conversion may cost, as it is typed.</param>
public sealed record WeekPartRequest(
    IReadOnlyList<long> Campaigns,
    int Weeks,
    IReadOnlyList<WeekSpan> Spans,
    string? Modifier,
    string? Target
);

/// <summary>What is known of a part of the week.</summary>
/// <param name="Name">What it is.</param>
/// <param name="Shows">Whether ads show in it: all, none or some.</param>
/// <param name="Modifier">The modifier that holds, or its range, in words; none where ads do not show.</param>
/// <param name="Lowest">The lowest bid of a keyword before the modifier.</param>
/// <param name="Highest">The highest.</param>
/// <param name="LowestAfter">The lowest with the modifier that is thought of, or the one that holds.</param>
/// <param name="HighestAfter">The highest with it.</param>
/// <param name="Evidence">What its figures say; none before anything was reported.</param>
public sealed record WeekPartAnswer(
    string Name,
    string Shows,
    string? Modifier,
    decimal? Lowest,
    decimal? Highest,
    decimal? LowestAfter,
    decimal? HighestAfter,
    SegmentRow? Evidence
);

/// <summary>What is known of a part of the week.</summary>
internal static class WeekPartEndpoints
{
    private const int MostCampaigns = 2_000;
    private const int MostSpans = 700;

    public static void MapWeekParts(this RouteGroupBuilder account) =>
        account.MapPost("/hours/part", PartAsync).WithName("readPartOfWeek").Needs(AccountRight.Look);

    private static async Task<Ok<WeekPartAnswer>> PartAsync(
        int accountId,
        WeekPartRequest request,
        PricedCampaignReader campaignReader,
        EvidenceReader figures,
        PerformanceStore store,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var part = PartOf(request.Spans);
        var campaigns = await campaignReader.ReadAsync(
            accountId,
            request.Campaigns,
            bids: true,
            MostCampaigns,
            cancellation
        );
        decimal?[] percents =
        [
            .. from campaign in campaigns
            from span in part.Spans
            from minute in Enumerable
                .Range(0, (span.To - span.From) / WeekPlan.Quarter)
                .Select(quarter => span.From + quarter * WeekPlan.Quarter)
            select (campaign.Plan ?? WeekPlan.Always).At(span.Day, minute),
        ];
        decimal[] shown = [.. percents.OfType<decimal>().Distinct().Order()];
        var thought = ReadPercent(request.Modifier, facts);
        decimal? After(decimal? bid, decimal? percent) =>
            bid is { } amount && percent is { } modifier
                ? BidStack.Of(amount, null, [("hour", modifier)], facts.Currency)!.Bid
                : null;
        var lowest = campaigns.Min(each => each.LowestBid);
        var highest = campaigns.Max(each => each.HighestBid);
        return TypedResults.Ok(
            new WeekPartAnswer(
                part.ToString().Replace('-', '–'),
                percents.All(each => each is null) ? "none"
                    : percents.All(each => each is not null) ? "all"
                    : "some",
                shown.Length == 0
                    ? null
                    : string.Join(" to ", new[] { shown[0], shown[^1] }.Distinct().Select(PercentValue.Words)),
                lowest,
                highest,
                After(lowest, thought ?? shown.Cast<decimal?>().FirstOrDefault()),
                After(highest, thought ?? shown.Cast<decimal?>().LastOrDefault()),
                await EvidenceOfAsync(accountId, request, part, shown, facts, figures, store, cancellation)
            )
        );
    }

    private static async Task<SegmentRow?> EvidenceOfAsync(
        int accountId,
        WeekPartRequest request,
        WeekHours part,
        decimal[] shown,
        AccountFacts facts,
        EvidenceReader figures,
        PerformanceStore store,
        CancellationToken cancellation
    )
    {
        if (await PricingPeriod.OfAsync(store, accountId, request.Weeks, cancellation) is not { } days)
        {
            return null;
        }

        // Figures are by the hour: one counts as a whole where the part has any of it.
        int[] hours =
        [
            .. part.Spans.SelectMany(span =>
                Enumerable
                    .Range(span.From / 60, (span.To + 59) / 60 - span.From / 60)
                    .Select(hour => ((int)span.Day + 6) % 7 * 24 + hour)
            ),
        ];
        var report = ModifierEvidence.Weigh(
            await figures.PartAsync(accountId, new EvidenceScope(days, request.Campaigns), hours, cancellation),
            BidsEndpoints.ReadAmount("target", request.Target, facts),
            _ => shown.Length == 0 ? 0 : shown.Average(),
            facts.Network.LimitsOf(ItemKind.Campaign, "hours").HighestPercent ?? PercentValue.Highest,
            new TradeRule()
        );
        return report.Segments.FirstOrDefault(each => each.Segment == new Segment(SegmentKind.Hours, 1)) is { } found
            ? SegmentRow.Of(found, part.ToString().Replace('-', '–'), null, report.UsualCost, facts.Currency, default)
            : null;
    }

    private static WeekHours PartOf(IReadOnlyList<WeekSpan> spans)
    {
        if (spans.Count is 0 or > MostSpans)
        {
            throw new InvalidChangeException("spans", "Choose some hours of the week.");
        }

        if (
            spans.Any(span =>
                span.From < 0
                || span.To > WeekHours.MinutesOfDay
                || span.From >= span.To
                || span.From % WeekPlan.Quarter != 0
                || span.To % WeekPlan.Quarter != 0
            )
        )
        {
            throw new InvalidChangeException("spans", "Hours of the week go by quarters: 08:00, 08:15, 08:30, 08:45.");
        }

        return WeekHours.Of(spans.Select(span => new HourSpan(span.Day, span.From, span.To)))!;
    }

    private static decimal? ReadPercent(string? text, AccountFacts facts)
    {
        if (string.IsNullOrWhiteSpace(text))
        {
            return null;
        }

        var reading = new PercentValue().Read(text, facts.Ground);
        return reading.Problem is { } problem
            ? throw new InvalidChangeException("modifier", $"The modifier {problem}.")
            : (decimal)reading.Value!;
    }
}
