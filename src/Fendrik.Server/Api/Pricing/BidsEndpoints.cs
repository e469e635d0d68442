using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Evidence;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Reporting;
using Fendrik.Data.Accounts;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Strategies;
using Fendrik.Data.Steps;
using Fendrik.Server.Api.Bidding;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fendrik.Server.Api.Pricing;

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

    private static async Task<Ok<SegmentedCampaigns>> CampaignsAsync(
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
        var campaigns = await campaignReader.ReadAsync(accountId, null, bids: false, MostCampaigns + 1, cancellation);
        var figures = await PricingPeriod.OfAsync(store, accountId, weeks ?? 8, cancellation) is { } days
            ? await reader.ByCampaignAsync(accountId, days, cancellation)
            : new Dictionary<long, IReadOnlyList<SegmentFigures>>();
        return TypedResults.Ok(
            new SegmentedCampaigns(
                [
                    .. campaigns
                        .Take(MostCampaigns)
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
                ],
                campaigns.Count > MostCampaigns
            )
        );
    }

    private static async Task<Results<Ok<SegmentsAnswer>, NotFound>> SegmentsAsync(
        int accountId,
        long campaignId,
        int? weeks,
        decimal? half,
        decimal? nineTenths,
        decimal? never,
        PricedCampaignReader campaignReader,
        EvidenceReader reader,
        TargetReader targetReader,
        ReplayReader replays,
        StrategyBasisReader plans,
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
        var ground = period is { } whole
            ? await GroundAsync(replays, accountId, campaignId, whole, cancellation)
            : default;
        var report = Weigh(campaign, figures, campaign.MayCost, rule, facts);
        var targets = period is { } within
            ? await new TargetSegments(targetReader, facts, campaign, within, report, rule, ground).ReadAsync(
                cancellation
            )
            : [];
        return TypedResults.Ok(
            new SegmentsAnswer(
                campaign.Version,
                campaign.MayCost,
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
                            facts.Currency,
                            ground
                        ) with
                        {
                            Field = FieldOf(each.Segment)?.Name,
                            Spans = SpansOf(each.Segment),
                            Without = WithoutOf(campaign, each.Segment, facts),
                            WithoutField = each.Segment.Kind == SegmentKind.Site ? "networks" : null,
                        }
                    ),
                    .. targets,
                ],
                StackOf(campaign, await targetReader.TargetsAsync(accountId, campaignId, cancellation), facts.Currency),
                await plans.PlanAsync(accountId, campaignId, cancellation) is { } plan ? StrategyNote.Of(plan) : null
            )
        );
    }

    private static async Task<SegmentGround> GroundAsync(
        ReplayReader replays,
        int accountId,
        long campaignId,
        Period days,
        CancellationToken cancellation
    )
    {
        var (first, room) = await replays.StoodAsync(accountId, campaignId, days, cancellation);
        return new SegmentGround(first is { } begun ? days.Last.DayNumber - begun.DayNumber + 1 : 0, room);
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
            SegmentKind.Site or SegmentKind.Place or SegmentKind.Audience => 0,
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
            SegmentKind.Place or SegmentKind.Audience => "—",
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

    /// <summary>The lowest and highest product that a search can meet, by device, hour, place and audience.</summary>
    private static StackAnswer? StackOf(PricedCampaign campaign, IReadOnlyList<TargetedDay> targets, Currency currency)
    {
        if (campaign is not { LowestBid: { } lowest, HighestBid: { } highest })
        {
            return null;
        }

        var sides = new BidSides(campaign, targets, currency);
        StackSide Side(string name, decimal bid, bool high)
        {
            var stack = sides.Of(name, bid, high);
            return new StackSide(stack.Bid, stack.Steps);
        }

        return new StackAnswer(Side("lowest max CPC", lowest, false), Side("highest max CPC", highest, true));
    }
}
