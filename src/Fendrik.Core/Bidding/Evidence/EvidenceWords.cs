using System.Globalization;
using Fendrik.Core.Accounts;
using Fendrik.Core.Items.Values;

namespace Fendrik.Core.Bidding.Evidence;

/// <summary>What the figures of a segment say, for a person to read.</summary>
public static class EvidenceWords
{
    /// <summary>The name of a segment.</summary>
    /// <exception cref="ArgumentOutOfRangeException">A place or an audience has a name of its own.</exception>
    public static string NameOf(Segment segment) =>
        segment.Kind switch
        {
            SegmentKind.Device => Capital(Choices.NameOf(Choices.Device, segment.Key)),
            SegmentKind.Hours => HourBlock.All[segment.Key].Name,
            SegmentKind.Site => Capital(
                ((SiteKinds)segment.Key) switch
                {
                    SiteKinds.Search => "search",
                    SiteKinds.Partners => "partner sites",
                    SiteKinds.Content => "content sites",
                    SiteKinds.None => "nowhere",
                }
            ),
            SegmentKind.Place or SegmentKind.Audience => throw new ArgumentOutOfRangeException(nameof(segment)),
        };

    /// <summary>In a few words what is to be done, for a column.</summary>
    public static string Short(SegmentEvidence evidence, Currency currency) =>
        evidence.Verdict switch
        {
            SegmentVerdict.NothingSpent => "nothing spent",
            SegmentVerdict.NoYardstick => string.Create(
                    CultureInfo.InvariantCulture,
                    $"{evidence.ShareOfCost:P0} of the cost"
                )
                .Replace(" %", "%", StringComparison.Ordinal),
            SegmentVerdict.AsItIs => "as it is",
            SegmentVerdict.NotYet => $"another {About(evidence.MoreCost ?? 0, currency)} first",
            SegmentVerdict.Sure => PercentValue.Words(evidence.Proposed ?? 0),
        };

    /// <summary>Why, in sentences.</summary>
    /// <param name="evidence">What is known.</param>
    /// <param name="usual">What a conversion usually costs; none where that is not known.</param>
    /// <param name="currency">The account's currency.</param>
    public static IReadOnlyList<string> Why(SegmentEvidence evidence, decimal? usual, Currency currency)
    {
        string Amount(decimal amount) => new Money(currency.Round(amount), currency).ToString();
        var figures = evidence.Figures;
        if (evidence.Verdict == SegmentVerdict.NothingSpent)
        {
            return ["Nothing was spent here, so that nothing is known."];
        }

        if (usual is not { } usualCost)
        {
            return
            [
                $"{Amount(figures.Cost)} was spent here, {Percent(evidence.ShareOfCost)} of all, and nothing was sold anywhere yet.",
                "Say what a conversion may cost, and this can be judged. Until then nothing is proposed: cut it by half, by 90% or altogether as you see fit.",
            ];
        }

        var said = new List<string>();
        if (figures.CostPerConversion is { } each && evidence.Unshrunk is { } unshrunk)
        {
            said.Add(
                $"A conversion cost {Amount(each)} here; one usually costs {Amount(usualCost)} at bids without modifiers. {(IsWeighedApart(evidence) ? "That" : "With what overlaps it taken into account, that")} alone would make {PercentValue.Words(unshrunk)}."
            );
        }
        else
        {
            said.Add(
                $"{Amount(figures.Cost)} brought no conversion; one usually costs {Amount(usualCost)}, so that about {(figures.Cost / usualCost).ToString("0.#", CultureInfo.InvariantCulture)} were to be expected."
            );
        }

        said.Add(
            $"That is not everything: drawn towards the whole by {Percent(evidence.Drawn)}, a conversion truly costs between {Amount(evidence.LowCost ?? 0)} and {Amount(evidence.HighCost ?? 0)} here with the modifier now, nine times in ten."
        );
        said.Add(
            evidence.Verdict switch
            {
                SegmentVerdict.Sure =>
                    $"So it surely differs, and {PercentValue.Words(evidence.Proposed ?? 0)} makes its conversions cost what they usually do.",
                SegmentVerdict.NotYet =>
                    $"The usual cost lies within, so that nothing is proposed. If it goes on like this, another {About(evidence.MoreCost ?? 0, currency)} tells.",
                SegmentVerdict.AsItIs => "With the modifier now it is so near the whole that a change is not worth it.",
                SegmentVerdict.NothingSpent or SegmentVerdict.NoYardstick => "",
            }
        );
        return said;
    }

    /// <summary>Cuts that are offered beside what is proposed: that of the trade, or all of them where nothing can be judged yet.</summary>
    public static IReadOnlyList<decimal> CutsFor(SegmentEvidence evidence) =>
        evidence.Verdict == SegmentVerdict.NoYardstick ? [.. TradeRule.Cuts.Where(cut => cut < evidence.Now)]
        : evidence.TradeProposed is { } cut && cut != evidence.Proposed ? [cut]
        : [];

    /// <summary>What the rule of the trade says, in a sentence; none where it says nothing.</summary>
    public static string? Trade(SegmentEvidence evidence) =>
        evidence is { TradeProposed: { } cut, Times: { } times }
            ? string.Create(
                CultureInfo.InvariantCulture,
                $"{times:0.#} × the usual cost was spent for {(evidence.Figures.Conversions < 1 ? "nothing" : "each conversion")}. The rule of the trade: {(cut == PercentValue.Lowest ? "stop it" : cut == -50 ? "cut by half" : $"cut by {-cut:0}%")}."
            )
            : null;

    private static bool IsWeighedApart(SegmentEvidence evidence) =>
        evidence.Segment.Kind is SegmentKind.Place or SegmentKind.Audience;

    private static string About(decimal amount, Currency currency)
    {
        // Two figures are as much as such an estimate bears.
        var size = (decimal)Math.Pow(10, Math.Max(0, Math.Floor(Math.Log10((double)Math.Max(1, amount)))) - 1);
        var rounded = Math.Ceiling(amount / size) * size;
        var money = new Money(currency.Round(Math.Max(rounded, currency.SmallestAmount)), currency).ToString();
        return rounded == Math.Floor(rounded) ? money.Replace(".00", "", StringComparison.Ordinal) : money;
    }

    private static string Percent(decimal share) => (share * 100).ToString("0", CultureInfo.InvariantCulture) + "%";

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];
}
