using Fendrik.Core.Accounts;
using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Evidence;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Reporting;
using Fendrik.Data.Accounts;
using Fendrik.Data.Results;
using Fendrik.Data.Steps;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Pricing;

/// <summary>A segment with what its figures say.</summary>
/// <param name="Kind">Device, hours or kind of site.</param>
/// <param name="Key">Number of it.</param>
/// <param name="Name">What it is.</param>
/// <param name="Figures">Its figures.</param>
/// <param name="Verdict">What they say.</param>
/// <param name="Now">Its modifier now, in words.</param>
/// <param name="Says">In a few words what follows.</param>
/// <param name="Proposed">The modifier that follows, as it is typed; none where nothing does, or it has none.</param>
/// <param name="LowCost">Lowest cost of a conversion that it may well have.</param>
/// <param name="LikelyCost">The likeliest.</param>
/// <param name="HighCost">The highest.</param>
/// <param name="Why">Why, in sentences.</param>
/// <param name="Trade">What the rule of the trade says; none where it says nothing.</param>
/// <param name="TradeProposed">The modifier that it proposes, as it is typed.</param>
/// <param name="Field">The field of a campaign that keeps its modifier; none for hours.</param>
/// <param name="Spans">The parts of the week that it is.</param>
/// <param name="Without">The networks of the campaign without this kind of site, as they are typed; none where it is no such kind, or the only one.</param>
public sealed record SegmentRow(
    SegmentKind Kind,
    int Key,
    string Name,
    PricingFigures Figures,
    SegmentVerdict Verdict,
    string? Now,
    string Says,
    string? Proposed,
    decimal? LowCost,
    decimal? LikelyCost,
    decimal? HighCost,
    IReadOnlyList<string> Why,
    string? Trade,
    string? TradeProposed,
    string? Field = null,
    IReadOnlyList<WeekSpan>? Spans = null,
    string? Without = null
)
{
    internal static SegmentRow Of(
        SegmentEvidence evidence,
        string name,
        string? now,
        decimal? usualCost,
        Currency currency
    )
    {
        var isPriced = evidence.Segment.Kind != SegmentKind.Site;
        return new SegmentRow(
            evidence.Segment.Kind,
            evidence.Segment.Key,
            name,
            PricingFigures.Of(evidence.Figures),
            evidence.Verdict,
            now,
            evidence is { Verdict: SegmentVerdict.Sure } && !isPriced
                ? evidence.Proposed < evidence.Now
                    ? "surely dearer"
                    : "surely cheaper"
                : EvidenceWords.Short(evidence, currency),
            isPriced && evidence.Proposed is { } proposed ? PercentValue.Words(proposed) : null,
            evidence.LowCost,
            evidence.LikelyCost,
            evidence.HighCost,
            EvidenceWords.Why(evidence, usualCost, currency),
            EvidenceWords.Trade(evidence),
            isPriced && evidence.TradeProposed is { } cut ? PercentValue.Words(cut) : null
        );
    }
}

/// <summary>Segments of a campaign and what their figures say.</summary>
/// <param name="First">First day of the figures; none before anything was reported.</param>
/// <param name="Last">The last.</param>
/// <param name="Total">The figures of the whole.</param>
/// <param name="UsualCost">What a conversion costs, or may cost; none where neither is known.</param>
/// <param name="IsTarget">True where that is what somebody said.</param>
/// <param name="Segments">The segments by kind.</param>
/// <param name="Stack">The bids between which all of its keywords lie, and what makes them so.</param>
public sealed record SegmentsAnswer(
    DateOnly? First,
    DateOnly? Last,
    PricingFigures Total,
    decimal? UsualCost,
    bool IsTarget,
    IReadOnlyList<SegmentRow> Segments,
    StackAnswer? Stack
);

/// <summary>What makes the lowest and the highest bid of a campaign.</summary>
/// <param name="Lowest">The lowest, each step in words.</param>
/// <param name="Highest">The highest.</param>
public sealed record StackAnswer(StackSide Lowest, StackSide Highest);

/// <summary>A bid and how it comes about.</summary>
/// <param name="Bid">The bid in the end.</param>
/// <param name="Steps">Base and modifiers.</param>
public sealed record StackSide(decimal Bid, IReadOnlyList<BidStep> Steps);

/// <summary>A campaign with what there is to say of its segments.</summary>
/// <param name="Id">The campaign.</param>
/// <param name="Name">Its name.</param>
/// <param name="IsPaused">True where it is paused.</param>
/// <param name="Figures">Its figures.</param>
/// <param name="Sure">Segments that surely are otherwise than the whole, and could have a modifier.</param>
/// <param name="Modifiers">The modifiers that it has, in words.</param>
public sealed record SegmentedCampaign(
    long Id,
    string Name,
    bool IsPaused,
    PricingFigures Figures,
    int Sure,
    string Modifiers
);

/// <summary>What segments of campaigns brought, and modifiers that follow.</summary>
internal static class BidsEndpoints
{
    private const int MostCampaigns = 5_000;

    /// <summary>Kinds of segment that can have a modifier.</summary>
    private static readonly SegmentKind[] Priced = [SegmentKind.Device, SegmentKind.Hours];

    public static void MapBids(this RouteGroupBuilder account)
    {
        account.MapGet("/bids/campaigns", CampaignsAsync).WithName("readSegmentedCampaigns");
        account.MapGet("/bids/campaigns/{campaignId:long}", SegmentsAsync).WithName("readSegments");
    }

    private static async Task<Ok<IReadOnlyList<SegmentedCampaign>>> CampaignsAsync(
        int accountId,
        int? weeks,
        PricedCampaignReader campaignReader,
        EvidenceReader reader,
        PerformanceStore store,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        var campaigns = await campaignReader.ReadAsync(accountId, null, bids: false, MostCampaigns, cancellation);
        var figures = await PricingPeriod.OfAsync(store, accountId, weeks ?? 8, cancellation) is { } days
            ? await reader.ByCampaignAsync(accountId, days, cancellation)
            : new Dictionary<long, IReadOnlyList<SegmentFigures>>();
        return TypedResults.Ok<IReadOnlyList<SegmentedCampaign>>([
            .. campaigns
                .Select(campaign =>
                {
                    var segments = figures.GetValueOrDefault(campaign.Id, []);
                    return new SegmentedCampaign(
                        campaign.Id,
                        campaign.Name,
                        campaign.State == ItemState.Paused,
                        PricingFigures.Of(segments.Aggregate(Figures.Zero, (sum, each) => sum + each.Figures)),
                        ModifierEvidence.CountSure(
                            segments,
                            Priced,
                            segment => NowIn(campaign, segment),
                            HighestOf(facts)
                        ),
                        ModifiersOf(campaign)
                    );
                })
                .OrderByDescending(each => each.Figures.Cost)
                .ThenBy(each => each.Name, StringComparer.Ordinal),
        ]);
    }

    private static async Task<Results<Ok<SegmentsAnswer>, NotFound>> SegmentsAsync(
        int accountId,
        long campaignId,
        int? weeks,
        string? target,
        decimal? half,
        decimal? nineTenths,
        decimal? never,
        PricedCampaignReader campaignReader,
        EvidenceReader reader,
        PerformanceStore store,
        WorkingCopy workingCopy,
        CancellationToken cancellation
    )
    {
        var usual = new TradeRule();
        var rule = new TradeRule(half ?? usual.Half, nineTenths ?? usual.NineTenths, never ?? usual.Never);
        if (rule.Problem is { } problem)
        {
            throw new InvalidChangeException("half", problem);
        }

        var facts = await workingCopy.FactsAsync(accountId, cancellation);
        if (
            (await campaignReader.ReadAsync(accountId, [campaignId], bids: true, 1, cancellation)).SingleOrDefault()
            is not { } campaign
        )
        {
            return TypedResults.NotFound();
        }

        var period = await PricingPeriod.OfAsync(store, accountId, weeks ?? 8, cancellation);
        var figures = period is { } days
            ? await reader.SegmentsAsync(accountId, new EvidenceScope(days, [campaignId]), cancellation)
            : [];
        var report = Weigh(campaign, figures, ReadAmount("target", target, facts), rule, facts);
        return TypedResults.Ok(
            new SegmentsAnswer(
                period?.First,
                period?.Last,
                PricingFigures.Of(report.Total),
                report.UsualCost,
                report.IsTarget,
                [
                    .. report.Segments.Select(each =>
                        SegmentRow.Of(
                            each,
                            EvidenceWords.NameOf(each.Segment),
                            NowOf(campaign, each.Segment),
                            report.UsualCost,
                            facts.Currency
                        ) with
                        {
                            Field = FieldOf(each.Segment)?.Name,
                            Spans = SpansOf(each.Segment),
                            Without = WithoutOf(campaign, each.Segment, facts),
                        }
                    ),
                ],
                StackOf(campaign, facts.Currency)
            )
        );
    }

    /// <summary>An amount as it is typed; none where nothing is.</summary>
    /// <exception cref="InvalidChangeException">It is none.</exception>
    internal static decimal? ReadAmount(string field, string? text, AccountFacts facts)
    {
        if (string.IsNullOrWhiteSpace(text))
        {
            return null;
        }

        var reading = new AmountValue().Read(text, facts.Ground);
        return reading.Problem is { } problem
            ? throw new InvalidChangeException(field, $"The amount {problem}.")
            : (decimal)reading.Value!;
    }

    private static EvidenceReport Weigh(
        PricedCampaign campaign,
        IReadOnlyList<SegmentFigures> figures,
        decimal? target,
        TradeRule rule,
        AccountFacts facts
    ) => ModifierEvidence.Weigh(figures, target, segment => NowIn(campaign, segment), HighestOf(facts), rule);

    private static decimal HighestOf(AccountFacts facts) =>
        facts.Network.LimitsOf(ItemKind.Campaign, "phoneModifier").HighestPercent ?? PercentValue.Highest;

    private static Field? FieldOf(Segment segment) =>
        segment.Kind == SegmentKind.Device
            ? ItemTypes.Of(ItemKind.Campaign)[$"{Choices.NameOf(Choices.Device, segment.Key)}Modifier"]
            : null;

    private static IReadOnlyList<WeekSpan>? SpansOf(Segment segment) =>
        segment.Kind == SegmentKind.Hours
            ?
            [
                .. HourBlock
                    .All[segment.Key]
                    .ChangesTo(0)
                    .Select(change => new WeekSpan(change.Day, change.From, change.To)),
            ]
            : null;

    private static string? WithoutOf(PricedCampaign campaign, Segment segment, AccountFacts facts)
    {
        var rest = campaign.Sites & ~(SiteKinds)segment.Key;
        return segment.Kind == SegmentKind.Site && campaign.Sites.HasFlag((SiteKinds)segment.Key) && rest != 0
            ? ItemTypes.Of(ItemKind.Campaign)["networks"].Type.Write((short)rest, facts.Ground)
            : null;
    }

    private static decimal NowIn(PricedCampaign campaign, Segment segment) =>
        segment.Kind switch
        {
            SegmentKind.Device => campaign.ModifierOf((Device)segment.Key) ?? 0,
            SegmentKind.Hours => HourBlock.All[segment.Key].Within(campaign.Plan ?? WeekPlan.Always) is { } range
                ? (range.Lowest + range.Highest) / 2
                : 0,
            SegmentKind.Site => 0,
        };

    private static string NowOf(PricedCampaign campaign, Segment segment) =>
        segment.Kind switch
        {
            SegmentKind.Device => campaign.ModifierOf((Device)segment.Key) is { } percent
                ? PercentValue.Words(percent)
                : "—",
            SegmentKind.Hours => HourBlock.All[segment.Key].Within(campaign.Plan ?? WeekPlan.Always) switch
            {
                null => "off",
                (0, 0) => "—",
                var (low, high) when low == high => PercentValue.Words(low),
                var (low, high) => $"{PercentValue.Words(low)} to {PercentValue.Words(high)}",
            },
            SegmentKind.Site => campaign.Sites.HasFlag((SiteKinds)segment.Key) ? "on" : "off",
        };

    private static string ModifiersOf(PricedCampaign campaign) =>
        string.Join(
            ", ",
            Enum.GetValues<Device>()
                .Where(device => campaign.ModifierOf(device) is not null)
                .Select(device =>
                    $"{Choices.NameOf(Choices.Device, (int)device)} {PercentValue.Words(campaign.ModifierOf(device)!.Value)}"
                )
                .Concat(
                    campaign.Plan is { } plan
                        ?
                        [
                            plan.Range is (0, 0)
                                ? $"{plan.Minutes / 60m:0.##} h a week"
                                : $"{plan.Minutes / 60m:0.##} h a week, {PercentValue.Words(plan.Range.Lowest)} to {PercentValue.Words(plan.Range.Highest)}",
                        ]
                        : []
                )
        );

    /// <summary>The lowest and highest product that a search can meet, by device and hour.</summary>
    private static StackAnswer? StackOf(PricedCampaign campaign, Currency currency)
    {
        if (campaign is not { LowestBid: { } lowest, HighestBid: { } highest })
        {
            return null;
        }

        StackSide Side(string name, decimal bid, bool high)
        {
            var stack = BidStack.Of(
                [(name, bid)],
                BidRange.Extremes(
                    Enum.GetValues<Device>()
                        .Select(device =>
                            (Choices.NameOf(Choices.Device, (int)device), campaign.ModifierOf(device) ?? 0)
                        ),
                    campaign.Plan,
                    high
                ),
                currency
            )!;
            return new StackSide(stack.Bid, stack.Steps);
        }

        return new StackAnswer(Side("lowest max CPC", lowest, false), Side("highest max CPC", highest, true));
    }
}
