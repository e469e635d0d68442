using Fendrik.Core.Bidding.Evidence;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Networks;
using Fendrik.Core.Places;
using Fendrik.Core.Reporting;
using Fendrik.Core.Serving;
using Fendrik.Data.Accounts;
using Fendrik.Data.Results;

namespace Fendrik.Server.Api.Pricing;

/// <summary>What places and audiences of a campaign brought, and modifiers that follow.</summary>
/// <param name="reader">Reads their figures.</param>
/// <param name="facts">The account.</param>
/// <param name="campaign">The campaign.</param>
/// <param name="days">The days of the figures.</param>
/// <param name="whole">The report on the campaign.</param>
/// <param name="rule">The rule of the trade.</param>
/// <param name="ground">What the figures come from.</param>
internal sealed class TargetSegments(
    TargetReader reader,
    AccountFacts facts,
    PricedCampaign campaign,
    Period days,
    EvidenceReport whole,
    TradeRule rule,
    SegmentGround ground
)
{
    /// <summary>Of so many places and audiences each the dearest are told.</summary>
    private const int MostRows = 12;

    private const string FirstPlaces = "choose its places first";

    /// <summary>Rows for a table of segments: places first, then audiences.</summary>
    public async Task<IReadOnlyList<SegmentRow>> ReadAsync(CancellationToken cancellation)
    {
        var now = await reader.TargetsAsync(facts.Id, campaign.Id, cancellation);
        var then = (await reader.TargetedAsync(facts.Id, days, campaign.Id, cancellation)).ToLookup(target =>
            target.Day
        );
        return
        [
            .. await PlacesAsync(now, then, cancellation),
            .. await InterestAsync(cancellation),
            .. await AudiencesAsync(now, then, cancellation),
        ];
    }

    private async Task<IEnumerable<SegmentRow>> PlacesAsync(
        IReadOnlyList<TargetedDay> now,
        ILookup<DateOnly, TargetedDay> then,
        CancellationToken cancellation
    )
    {
        var reached = await reader.ReachedAsync(facts.Id, days, campaign.Id, ReachedBy.Place, cancellation);
        var byDay = days.First.DayNumber;
        var reachingOn = Enumerable
            .Range(0, days.Days)
            .ToDictionary(
                day => DateOnly.FromDayNumber(byDay + day),
                day => Reaching(then[DateOnly.FromDayNumber(byDay + day)])
            );
        var reachingNow = Reaching(now);
        var isAnyIn = now.Any(target => target is { Kind: ItemKind.Place, Side: PlacementSide.In });
        decimal NowIn(string key) => ModifierOf(reachingNow, key) ?? 0;
        return ModifierEvidence
            .WeighApart(
                SegmentKind.Place,
                [
                    .. reached.Select(row => new PartFigures(
                        row.Name,
                        row.Figures,
                        1 + (ModifierOf(reachingOn[row.Day], row.Name) ?? 0) / 100
                    )),
                ],
                whole,
                NowIn,
                Highest(ItemKind.Place),
                rule
            )
            .Take(MostRows)
            .Select(each =>
            {
                var place = Gazetteer.OfKey(each.Name);
                var row = SegmentRow.Of(
                    each.Evidence,
                    place?.Name ?? each.Name,
                    ModifierOf(reachingNow, each.Name) is { } percent ? PercentValue.Words(percent) : "—",
                    whole.UsualCost,
                    facts.Currency,
                    ground
                );
                // A first place that is in would keep all others out: where a campaign shows everywhere, places come first.
                return row with
                {
                    Target = isAnyIn && place is not null ? TargetOf(now, ItemKind.Place, place.FullName) : null,
                    Proposed = isAnyIn ? row.Proposed : null,
                    Cuts = isAnyIn ? row.Cuts : [],
                    Says = isAnyIn || row.Proposed is null ? row.Says : FirstPlaces,
                };
            });
    }

    /// <summary>People elsewhere who are interested, all together: no modifier is theirs, but whom places reach is a setting.</summary>
    private async Task<IEnumerable<SegmentRow>> InterestAsync(CancellationToken cancellation)
    {
        const string name = "Elsewhere, for an interest";
        var reached = await reader.ReachedAsync(facts.Id, days, campaign.Id, ReachedBy.Interest, cancellation);
        return ModifierEvidence
            .WeighApart(
                SegmentKind.Place,
                [.. reached.Select(row => new PartFigures(name, row.Figures))],
                whole,
                _ => 0,
                Highest(ItemKind.Place),
                rule
            )
            .Select(each =>
                SegmentRow.Of(each.Evidence, name, "on", whole.UsualCost, facts.Currency, ground) with
                {
                    Key = -1,
                    Proposed = null,
                    Cuts = [],
                    Says =
                        each.Evidence.Verdict == SegmentVerdict.Sure
                            ? each.Evidence.Proposed < 0
                                ? "surely dearer"
                                : "surely cheaper"
                            : EvidenceWords.Short(each.Evidence, facts.Currency),
                    Without = Choices.NameOf(Choices.Reach, (int)PlaceReach.Present),
                    WithoutField = "people",
                }
            );
    }

    private async Task<IEnumerable<SegmentRow>> AudiencesAsync(
        IReadOnlyList<TargetedDay> now,
        ILookup<DateOnly, TargetedDay> then,
        CancellationToken cancellation
    )
    {
        static decimal ModifierIn(IEnumerable<TargetedDay> targets, string name) =>
            targets
                .FirstOrDefault(target =>
                    target.Kind == ItemKind.Audience && target.Text.Equals(name, StringComparison.OrdinalIgnoreCase)
                )
                ?.Modifier
            ?? 0;
        var reached = await reader.ReachedAsync(facts.Id, days, campaign.Id, ReachedBy.Audience, cancellation);
        var mine = now.Where(target => target.Kind == ItemKind.Audience)
            .Select(target => target.Text)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        return ModifierEvidence
            .WeighApart(
                SegmentKind.Audience,
                [
                    .. reached
                        .Where(row => mine.Contains(row.Name))
                        .Select(row => new PartFigures(
                            row.Name,
                            row.Figures,
                            1 + ModifierIn(then[row.Day], row.Name) / 100
                        )),
                ],
                whole,
                name => ModifierIn(now, name),
                Highest(ItemKind.Audience),
                rule
            )
            .Take(MostRows)
            .Select(each =>
                SegmentRow.Of(
                    each.Evidence,
                    each.Name,
                    ModifierIn(now, each.Name) is var percent and not 0 ? PercentValue.Words(percent) : "—",
                    whole.UsualCost,
                    facts.Currency,
                    ground
                ) with
                {
                    Target = TargetOf(now, ItemKind.Audience, each.Name),
                }
            );
    }

    private static SegmentTarget TargetOf(IReadOnlyList<TargetedDay> now, ItemKind kind, string text)
    {
        var item = now.FirstOrDefault(target =>
            target.Kind == kind && TextIdentity.Of(target.Text) == TextIdentity.Of(text)
        );
        return new SegmentTarget(kind, text, item?.Id, item?.Version);
    }

    private decimal Highest(ItemKind kind) =>
        facts.Network.LimitsOf(kind, "modifier").HighestPercent ?? PercentValue.Highest;

    private PlaceReaching Reaching(IEnumerable<TargetedDay> targets) =>
        new(
            targets
                .Where(target => target.Kind == ItemKind.Place)
                .Select(target => new PlacedPlace(
                    0,
                    campaign.Id,
                    target.Text,
                    target.Radius,
                    target.Side,
                    target.Modifier
                ))
        );

    private decimal? ModifierOf(PlaceReaching reaching, string key) =>
        reaching
            .Of(
                new Campaign(campaign.Id, campaign.Name, campaign.State, null, null, null, campaign.Sites),
                new Search("", Device.Desktop, SiteKinds.Search, days.Last, Place: key)
            )
            .Modifier?.Percent;
}
