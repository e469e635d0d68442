using Fendrik.Core.Bidding;
using Fendrik.Core.Bidding.Evidence;
using Fendrik.Core.Estimates;
using Fendrik.Core.Items.Values;
using Fendrik.Server.Api.Bidding;

namespace Fendrik.Server.Api.Pricing;

/// <summary>The place or audience that keeps a segment's modifier.</summary>
/// <param name="Kind">Place or audience.</param>
/// <param name="Text">Which.</param>
/// <param name="Id">The item; none where it is not there yet.</param>
/// <param name="Version">Its version, against which edits hold.</param>
public sealed record SegmentTarget(ItemKind Kind, string Text, long? Id, long? Version);

/// <summary>What figures come from: so many days, and searches lost to rank for each impression.</summary>
internal readonly record struct SegmentGround(int Days, double Room);

/// <summary>What a proposed modifier would change in a usual week.</summary>
public sealed record ModifierEffectLine(
    decimal ClicksNow,
    decimal CostNow,
    decimal ConversionsNow,
    RangeLine Clicks,
    RangeLine Cost,
    RangeLine Conversions
)
{
    internal static ModifierEffectLine? Of(SegmentEvidence evidence, SegmentGround ground, Currency currency) =>
        evidence.Proposed is { } proposed
        && ground.Days > 0
        && ModifierEffect.Of(evidence.Figures, ground.Days, evidence.Now, proposed, ground.Room) is { } effect
            ? new ModifierEffectLine(
                Math.Round((decimal)effect.ClicksNow, 1),
                currency.Round((decimal)effect.CostNow),
                Math.Round((decimal)effect.ConversionsNow, 1),
                RangeLine.Of(effect.Clicks, 1),
                RangeLine.Of(effect.Cost, currency.MinorUnits),
                RangeLine.Of(effect.Conversions, 1)
            )
            : null;
}

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
/// <param name="Cuts">Cuts that are offered beside what is proposed, as they are typed.</param>
/// <param name="Field">The field of a campaign that keeps its modifier; none for hours.</param>
/// <param name="Spans">The parts of the week that it is.</param>
/// <param name="Without">What the campaign is set to without this segment, as it is typed; none where it cannot be left out so.</param>
/// <param name="Target">The place or audience that keeps its modifier; none for what is neither.</param>
/// <param name="WithoutField">The field that is set so.</param>
/// <param name="Effect">What the proposed modifier would change; none where none is.</param>
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
    IReadOnlyList<string> Cuts,
    string? Field = null,
    IReadOnlyList<WeekSpan>? Spans = null,
    string? Without = null,
    SegmentTarget? Target = null,
    string? WithoutField = null,
    ModifierEffectLine? Effect = null
)
{
    internal static SegmentRow Of(
        SegmentEvidence evidence,
        string name,
        string? now,
        decimal? usualCost,
        Currency currency,
        SegmentGround ground
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
            isPriced ? [.. EvidenceWords.CutsFor(evidence).Select(PercentValue.Words)] : [],
            Effect: isPriced ? ModifierEffectLine.Of(evidence, ground, currency) : null
        );
    }
}

/// <summary>Segments of a campaign and what their figures say.</summary>
/// <param name="Version">The version of the campaign, against which edits hold.</param>
/// <param name="MayCost">What a conversion may cost, as the campaign says; none where it does not.</param>
/// <param name="First">First day of the figures; none before anything was reported.</param>
/// <param name="Last">The last.</param>
/// <param name="Total">The figures of the whole.</param>
/// <param name="UsualCost">What a conversion costs, or may cost; none where neither is known.</param>
/// <param name="IsTarget">True where that is what somebody said.</param>
/// <param name="Segments">The segments by kind.</param>
/// <param name="Stack">The bids between which all of its keywords lie, and what makes them so.</param>
/// <param name="Says">What its strategy makes of modifiers; none where people set the bids.</param>
public sealed record SegmentsAnswer(
    long Version,
    decimal? MayCost,
    DateOnly? First,
    DateOnly? Last,
    PricingFigures Total,
    decimal? UsualCost,
    bool IsTarget,
    IReadOnlyList<SegmentRow> Segments,
    StackAnswer? Stack,
    string? Says
);

/// <summary>What makes the lowest and the highest bid of a campaign.</summary>
/// <param name="Lowest">The lowest, each step in words.</param>
/// <param name="Highest">The highest.</param>
public sealed record StackAnswer(StackSide Lowest, StackSide Highest);

/// <summary>A bid and how it comes about.</summary>
/// <param name="Bid">The bid in the end.</param>
/// <param name="Steps">Base and modifiers.</param>
public sealed record StackSide(decimal Bid, IReadOnlyList<BidStep> Steps);

/// <summary>Campaigns, the dearest first.</summary>
/// <param name="Campaigns">The campaigns.</param>
/// <param name="More">True where there are more than these.</param>
public sealed record SegmentedCampaigns(IReadOnlyList<SegmentedCampaign> Campaigns, bool More);

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
